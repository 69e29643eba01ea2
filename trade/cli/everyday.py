"""`everyday`: the handbook's chapter on fifteen everyday set-ups."""

import argparse

from trade.choose.everyday import chapter


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add nothing: it is asked with nothing."""


def everyday(_: argparse.Namespace) -> int:
    """Print it."""
    print(chapter())
    return 0
