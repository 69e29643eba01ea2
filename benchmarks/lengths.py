"""How well boards are cut to length: `python -m benchmarks.lengths`.

Twenty jobs by seeds: triplets, which fill every board to the brim, so that the least is known
beforehand (Falkenauer 1996); parts of any length; and few lengths, many of each. Exit status 1
where one takes a board more than the least, or than is proved. No clock decides an answer: they are
the same on every machine.
"""

import random
import sys
import time
from typing import NamedTuple

from trade.cutting.lengths import cut_lengths


class Job(NamedTuple):
    """Parts, the boards they are cut from, and the fewest boards that do, where that is known."""

    name: str
    parts_mm: list[float]
    stock_mm: float
    kerf_mm: float
    least: int | None = None


def triplets(dice: random.Random, boards: int) -> list[float]:
    """Parts that fill so many boards of 1 000 mm, three to each."""
    parts: list[float] = []
    for _ in range(boards):
        first = dice.randint(380, 490)
        second = dice.randint(250, (1000 - first) // 2)
        parts += [float(first), float(second), float(1000 - first - second)]
    return parts


def jobs() -> list[Job]:
    """Return the twenty."""
    found = [
        Job(f"{3 * n} parts, triplets", triplets(random.Random(seed), n), 1000.0, 0.0, n)
        for n in (20, 40)
        for seed in range(5)
    ]
    for seed in range(5):
        dice = random.Random(seed)
        found.append(
            Job(
                "60 parts of any length",
                [float(dice.randrange(300, 1700)) for _ in range(60)],
                2440.0,
                3.2,
            )
        )
    for seed in range(5):
        dice = random.Random(seed)
        kinds = [dice.uniform(150, 1200) for _ in range(dice.randrange(4, 14))]
        found.append(
            Job(
                f"80 parts of {len(kinds)} lengths",
                [dice.choice(kinds) for _ in range(80)],
                2438.4,
                3.2,
            )
        )
    return found


def main() -> int:
    """Cut all; 1 where one is not as it could be."""
    good = 0
    for job in jobs():
        begun = time.process_time()
        plan = cut_lengths(job.parts_mm, [job.stock_mm], kerf_mm=job.kerf_mm)
        took = time.process_time() - begun
        least = job.least or plan.bound
        good += plan.cost <= least + 1e-6
        print(
            f"  {job.name:<26} {plan.cost:4.0f} boards, least {least:4.0f}   {took * 1000:6.0f} "
            "ms of processor time"
        )
    print(f"{good} of {len(jobs())} take no more than the least")
    return int(good < len(jobs()))


if __name__ == "__main__":
    sys.exit(main())
