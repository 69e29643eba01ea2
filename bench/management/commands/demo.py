"""Serve the application with demo data, on a server fit for use."""

from bench.management.commands import serve


class Command(serve.Command):
    """`manage.py demo`: migrate, put demo data in where it is missing, serve until interrupted."""

    help = __doc__

    def prepare(self) -> None:
        """Demo data too."""
        from bench import demo

        super().prepare()
        demo.load()
