"""The application as Django sees it."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "bench"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Register the stages; build the decoders of plans, logs and jobs before any request."""
        from bench import archive  # noqa: F401
        from bench.stages.all import STAGES
        from bench.workbench.context import register

        register(*STAGES)
