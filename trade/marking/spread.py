"""Words along a line, none on another."""

from collections.abc import Sequence


def spread(places: Sequence[float], sizes: Sequence[float], low: float, high: float) -> list[float]:
    """Space labels of some sizes in order within bounds, each near its place, without overlap.

    Words that would touch are moved apart as one block, its middle where their places' middle is;
    blocks that then touch join.
    """
    blocks: list[
        tuple[float, float, int]
    ] = []  # where it starts, how large it is, how many words are in it
    for place, size in zip(places, sizes, strict=True):
        start, extent, count = place - size / 2, size, 1
        while blocks and blocks[-1][0] + blocks[-1][1] > start:
            before = blocks.pop()
            total = before[2] + count
            middle = (
                (before[0] + before[1] / 2) * before[2] + (start + extent / 2) * count
            ) / total
            extent, count = before[1] + extent, total
            start = middle - extent / 2
        blocks.append((min(max(start, low), max(high - extent, low)), extent, count))
    found: list[float] = []
    left = iter(sizes)
    floor = low
    for start, _, count in blocks:
        at = max(start, floor)
        for _ in range(count):
            size = next(left)
            found.append(at + size / 2)
            at += size
        floor = at
    return found
