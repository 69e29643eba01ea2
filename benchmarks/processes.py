"""What a server's processes are and what processor time they have taken, as the kernel tells it."""

import os
from pathlib import Path
from typing import NamedTuple

_TICKS = os.sysconf("SC_CLK_TCK")


class Process(NamedTuple):
    """One process: how much it makes way for others, and its processor time in seconds."""

    number: int
    nice: int
    cpu_s: float


def below(parent: int) -> list[Process]:
    """Every process below another one."""
    found = []
    for stat in Path("/proc").glob("[0-9]*/stat"):
        try:
            words = stat.read_text().rpartition(")")[2].split()
        except OSError:  # it has ended meanwhile
            continue
        if int(words[1]) == parent:
            one = int(stat.parent.name)
            found += [
                Process(one, int(words[16]), (int(words[11]) + int(words[12])) / _TICKS),
                *below(one),
            ]
    return found
