"""Put everything back as a backup has it. Stop the server first."""

from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from bench import backup


class Command(BaseCommand):
    """`manage.py restore FILE`: what is there now is backed up first."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Which one."""
        parser.add_argument("backup", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        try:
            before = backup.restore(options["backup"])
        except backup.BadBackupError as error:
            raise CommandError(f"Nothing was changed. {error}") from None
        call_command("migrate", verbosity=0, interactive=False)
        self.stdout.write(f"Everything is as {options['backup']} has it. What was there before is in {before}.")
