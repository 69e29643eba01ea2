"""Whether what reads people's words stays linear.

`python -m benchmarks.parsers` doubles hostile ones and prints the ratio.

Each reader gets every beginning with every repeated word, 6 000 times and 12 000 times, by CPU
time. Exit status 1 where doubling costs more than three times as much and more than a twentieth of
a second.
"""

import sys
import time
from collections.abc import Callable
from contextlib import suppress

from trade import measure
from trade.errors import TradeError
from trade.parse import notes, sketch, spreadsheet
from trade.plan import flatness

TIMES, WORST_RATIO, NOTICED_S = 6_000, 3.0, 0.05
BEGINNINGS = (
    "",
    "48 up: gaps ",
    "plumb at 1: ",
    "left corner ",
    "width ",
    "swept ",
    "ceiling ",
    "kind,at_mm\n",
)
WORDS = (
    *(
        " ",
        "1 ",
        "1 up:",
        "up ",
        "a at ",
        "wood at ",
        "swept 1 to ",
        "to ",
        "every ",
        "by is ",
        "1 by ",
        "1 at 1, ",
        "gaps ",
    ),
    *("1/", "1-", "'", ", ", "\n", "1 left,", "1 left ", "½", "1' ", "edge,1\n", '"'),
)
READERS: dict[str, Callable[[str], object]] = {
    "readings": lambda said: notes.read(said, "imperial", 3000.0),
    "a sketch": lambda said: sketch.read(said, "imperial", (3000.0, 2400.0)),
    "how it lies": lambda said: flatness.read(said, "imperial"),
    "a table": lambda said: spreadsheet.read(said.encode(), 3000.0),
    "a length": lambda said: measure.read_length(said, "imperial"),
    "a weight": lambda said: measure.read_weight(said, "metric"),
}


def cost(read: Callable[[str], object], said: str) -> float:
    """CPU time of one reading, s; what can't be read is refused."""
    begun = time.process_time()
    with suppress(TradeError):
        read(said)
    return time.process_time() - begun


def main() -> int:
    """Print the worst of each reader; 1 where one is not linear."""
    bad = 0
    for name, read in READERS.items():
        found = []
        for begin in BEGINNINGS:
            for word in WORDS:
                once, twice = cost(read, begin + word * TIMES), cost(read, begin + word * TIMES * 2)
                found.append((twice, twice / max(once, 1e-4), begin, word))
        steep = [each for each in found if each[0] > NOTICED_S and each[1] > WORST_RATIO]
        bad += bool(steep)
        twice, ratio, begin, word = max(steep or found)
        said = repr(begin + word) + ("  STEEP" if steep else "")
        print(
            f"  {name:<12} {twice * 1000:7.1f} ms, {ratio:4.1f} times for twice as much, of {said}"
        )
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
