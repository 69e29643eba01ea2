"""How long something takes.

Processor time, beside the clock's, and against a fixed piece of Python run in the same rounds.

A busy machine slows both alike, so that limits are kept or missed by the ratio.
"""

import time
from collections.abc import Callable, Sequence
from statistics import median
from typing import NamedTuple

REFERENCE_MS = 7.3  # on the machine on which the limits were set


class Figures(NamedTuple):
    """Processor time of one run, median and 95 of 100, and the clock's median, ms.

    `times`: how often the reference goes into it, the best round of either, for the noise of a
    shared machine only ever adds.
    """

    p50_ms: float
    p95_ms: float
    wall_ms: float
    times: float

    @property
    def usual_ms(self) -> float:
        """The time as it would be on the machine on which the limits were set."""
        return self.times * REFERENCE_MS


def measured(run: Callable[[], object], rounds: int = 11, number: int = 1) -> Figures:
    """Run something in rounds, `number` times in each, after once to warm up."""
    run()
    cpu, wall, references = [], [], []
    for _ in range(rounds):
        references.append(reference_ms())
        begun, clock = time.process_time(), time.perf_counter()
        for _ in range(number):
            run()
        cpu.append((time.process_time() - begun) / number * 1000)
        wall.append((time.perf_counter() - clock) / number * 1000)
    return figures(cpu, wall, references)


def figures(
    cpu_ms: Sequence[float], wall_ms: Sequence[float], references_ms: Sequence[float]
) -> Figures:
    """Return what rounds come to, each with the reference's time in it."""
    return Figures(
        median(cpu_ms), percentile(cpu_ms, 0.95), median(wall_ms), min(cpu_ms) / min(references_ms)
    )


def worst(runs: Sequence[Callable[[], object]], rounds: int) -> Figures:
    """Return the slowest of several cases."""
    return max((measured(run, rounds) for run in runs), key=lambda each: each.times)


def percentile(values: Sequence[float], share: float) -> float:
    """Return the value that so many of them do not exceed."""
    return sorted(values)[min(int(len(values) * share), len(values) - 1)]


def reference_ms() -> float:
    """Processor time of the fixed piece of plain Python, the better of two."""
    return min(_reference_ms() for _ in range(2))


def _reference_ms() -> float:
    begun = time.process_time()
    sum(i * i for i in range(100_000))
    return (time.process_time() - begun) * 1000
