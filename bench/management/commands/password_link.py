"""Print a link by which somebody makes a new password, once."""

from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError, CommandParser

from bench.account import fresh_path


class Command(BaseCommand):
    """`manage.py password_link NAME`.

    For who has forgotten the password; hand it over yourself, no mail is sent.
    """

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Whose."""
        parser.add_argument("name")

    def handle(self, *args: Any, name: str, **options: Any) -> None:
        """Run."""
        user = get_user_model().objects.filter(username=name).first()
        if user is None or settings.PEOPLE == "one":
            raise CommandError(f"Nobody called “{name}” has an account here.")
        self.stdout.write(f"{settings.ADDRESS or 'http://127.0.0.1:8000'}{fresh_path(user)}")
        self.stdout.write(f"Good once, for {settings.PASSWORD_RESET_TIMEOUT // 3600} hours.")
