"""Serve the application with demo data, on a server fit for use."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser


class Command(BaseCommand):
    """`manage.py demo`: migrate, put demo data in where it is missing, serve until interrupted."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to listen."""
        parser.add_argument("--host", default="127.0.0.1")
        parser.add_argument("--port", type=int, default=8000)
        parser.add_argument("--check", action="store_true", help="set everything up, but do not serve")

    def handle(self, *args: Any, host: str, port: int, check: bool, **options: Any) -> None:
        """Run."""
        import waitress

        from bench import demo
        from gancho.wsgi import application

        call_command("migrate", verbosity=0, interactive=False)
        demo.load()
        if check:
            self.stdout.write("Gancho is set up.")
            return
        try:
            server = waitress.create_server(application, host=host, port=port, threads=4)
        except OSError as error:
            raise CommandError(f"Port {port} is taken ({error.strerror}). Try: PORT={port + 1} bin/demo") from None
        self.stdout.write(f"Gancho is at http://{host}:{port}/  (Ctrl-C stops it)")
        self.stdout.flush()
        server.run()
