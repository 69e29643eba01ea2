"""Make a backup now, or look whether one is good."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from bench import backup


class Command(BaseCommand):
    """`manage.py backup`, `manage.py backup --verify FILE`."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Which one to look at."""
        parser.add_argument("--verify", type=Path, help="only see whether this backup is good")

    def handle(self, *args: Any, verify: Path | None, **options: Any) -> None:
        """Run."""
        try:
            if verify is not None:
                backup.verify(verify)
                self.stdout.write(f"{verify} is good.")
                return
            self.stdout.write(f"{backup.make()} is made, and good.")
        except backup.BadBackupError as error:
            raise CommandError(str(error)) from None
