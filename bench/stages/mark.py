"""Mark: where to drill. Nothing is asked; the list is read at the wall."""

from typing import Any

from bench.desk import Desk


def form_for(desk: Desk, posted: Any = None) -> None:
    """This stage has no form."""
    return None
