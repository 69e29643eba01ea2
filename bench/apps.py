"""The app."""

from importlib import import_module

from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "bench"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Build the decoders of plans, logs and jobs before the first request, in every process."""
        import_module("bench.archive")
