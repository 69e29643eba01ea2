"""The application as Django sees it."""

import gc

from django.apps import AppConfig

# Plans and verdicts are many small tuples without cycles, which collecting after every 700 of them
# looks through in vain: seldomer, a page takes a fifth less of the processor.
_COLLECT_AFTER = 50_000


class BenchConfig(AppConfig):
    name = "bench"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Register the stages; build the decoders of plans, logs and jobs before any request."""
        from bench import archive  # noqa: F401
        from bench.stages.all import STAGES
        from bench.workbench.context import register

        register(*STAGES)
        gc.set_threshold(_COLLECT_AFTER, 20, 50)
