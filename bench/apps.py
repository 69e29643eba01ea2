"""The application as Django sees it."""

from importlib import import_module

from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "bench"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Register the stages; build the decoders of plans, logs and jobs before any request."""
        register = import_module("bench.workbench.context").register
        register(*import_module("bench.stages.all").STAGES)
        import_module("bench.archive")
