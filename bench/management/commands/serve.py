"""Serve the application, on a server fit for use, with backups."""

import os
import socket
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import DatabaseError


class Command(BaseCommand):
    """`manage.py serve`: migrate, serve until interrupted, make a backup every day."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to listen, how often to copy."""
        parser.add_argument("--host", default="127.0.0.1")
        parser.add_argument("--port", type=int, default=8000)
        parser.add_argument(
            "--processes",
            type=int,
            default=min(os.cpu_count() or 1, 4),
            help="processes for quick requests",
        )
        parser.add_argument(
            "--backup-hours",
            type=float,
            default=24.0,
            help="hours from one backup to the next; 0 for none",
        )
        parser.add_argument(
            "--check", action="store_true", help="set everything up, but do not serve"
        )

    def prepare(self) -> None:
        """Prepare what must be there before anybody comes."""
        call_command("migrate", verbosity=0, interactive=False)
        # of the library for htmx nothing is served, and a module of its own names a file that it
        # does not have
        call_command(
            "collectstatic", verbosity=0, interactive=False, ignore_patterns=["django_htmx"]
        )

    def handle(
        self,
        *args: Any,
        host: str,
        port: int,
        processes: int,
        backup_hours: float,
        check: bool,
        **options: Any,
    ) -> None:
        """Run."""
        try:
            self.prepare()
        except (OSError, DatabaseError) as error:
            raise CommandError(
                f"The database in {settings.DATA_DIR} can't be used ({error})."
            ) from None
        if check:
            self.stdout.write("Gancho is set up.")
            return
        from bench.server import (
            Server,
        )  # with it comes the application, which looks at once for the files that it will serve

        def on_ready() -> None:
            self.stdout.write(f"Gancho is at http://{host}:{port}/  (Ctrl-C stops it)")
            self.stdout.flush()

        try:
            family = socket.AF_INET6 if ":" in host else socket.AF_INET
            listener = socket.create_server((host, port), family=family, backlog=256)
        except OSError as error:
            why = os.strerror(error.errno or 0)
            raise CommandError(
                f"Port {port} is not available ({why}). Try: PORT={port + 1} bin/demo"
            ) from None
        Server(listener, processes, backup_hours, on_ready).run()
