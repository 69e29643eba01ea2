"""Put everything back as a backup has it. Stop the server first."""

from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from bench.backup import BadBackupError
from bench.restoring import restore
from bench.serving import ServedError


class Command(BaseCommand):
    """`manage.py restore FILE`.

    What is there now is backed up first, or set aside where it is broken.
    """

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Which one."""
        parser.add_argument("backup", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        try:
            restored = restore(options["backup"])
        except (BadBackupError, ServedError) as error:
            raise CommandError(f"Nothing was changed. {error}") from None
        call_command("migrate", verbosity=0, interactive=False)
        said = f"Everything is as {options['backup']} has it."
        if restored.before is not None:
            said += f" What was there before is in {restored.before}."
        elif restored.aside is not None:
            said += f" What was there before is broken; its files are in {restored.aside}."
        else:
            said += " There was nothing before."
        self.stdout.write(said)
