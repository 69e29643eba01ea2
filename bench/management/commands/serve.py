"""Serve the application, on a server fit for use, with backups."""

from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import DatabaseError


def _proxied() -> dict[str, Any]:
    """What is believed of a server in front: only what the one that ends https says."""
    if not settings.HTTPS:
        return {}
    believed = {"x-forwarded-for", "x-forwarded-proto"}
    return {"trusted_proxy": settings.PROXY, "trusted_proxy_headers": believed, "clear_untrusted_proxy_headers": True}


class Command(BaseCommand):
    """`manage.py serve`: migrate, serve until interrupted, make a backup every day."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to listen, how often to copy."""
        parser.add_argument("--host", default="127.0.0.1")
        parser.add_argument("--port", type=int, default=8000)
        parser.add_argument("--threads", type=int, default=4)
        parser.add_argument("--backup-hours", type=float, default=24.0, help="hours from one backup to the next; 0 for none")
        parser.add_argument("--check", action="store_true", help="set everything up, but do not serve")

    def prepare(self) -> None:
        """What must be there before anybody comes."""
        call_command("migrate", verbosity=0, interactive=False)
        # of the library for htmx nothing is served, and a module of its own names a file that it does not have
        call_command("collectstatic", verbosity=0, interactive=False, ignore_patterns=["django_htmx"])

    def handle(self, *args: Any, host: str, port: int, threads: int, backup_hours: float, check: bool, **options: Any) -> None:
        """Run."""
        import waitress

        try:
            self.prepare()
        except (OSError, DatabaseError) as error:
            raise CommandError(f"The database in {settings.DATA_DIR} can't be used ({error}).") from None
        if check:
            self.stdout.write("Gancho is set up.")
            return
        from bench.backup import Keeper
        from gancho.wsgi import application  # it looks at once for the files that it will serve

        try:
            server = waitress.create_server(application, host=host, port=port, threads=threads, **_proxied())
        except OSError as error:
            raise CommandError(f"Port {port} is taken ({error.strerror}). Try: PORT={port + 1} bin/demo") from None
        if backup_hours > 0:
            Keeper(backup_hours).start()
        self.stdout.write(f"Gancho is at http://{host}:{port}/  (Ctrl-C stops it)")
        self.stdout.flush()
        server.run()
