"""Who serves.

A lock beside the data that every server shares, and that whoever puts the data back wants alone.
"""

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.conf import settings


class ServedError(Exception):
    """A server runs on this data."""


class TakenError(Exception):
    """Another process is at it."""


_held: list[int] = []


def begin() -> None:
    """Share the lock for as long as this process lives."""
    if not _held:
        _held.append(_opened("serving.lock"))
        fcntl.flock(_held[0], fcntl.LOCK_SH)


@contextmanager
def alone() -> Iterator[None]:
    """Nobody else serves meanwhile.

    Raises:
        ServedError: somebody does.
    """
    try:
        with only_one("serving.lock"):
            yield
    except TakenError:
        raise ServedError("A server runs on this data. Stop it first.") from None


@contextmanager
def only_one(name: str) -> Iterator[None]:
    """Nobody else holds the lock of this name meanwhile.

    Raises:
        TakenError: somebody does.
    """
    lock = _opened(name)
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        raise TakenError from None
    else:
        yield
    finally:
        os.close(lock)


def _opened(name: str) -> int:
    return os.open(Path(settings.DATA_DIR) / name, os.O_RDWR | os.O_CREAT, 0o600)
