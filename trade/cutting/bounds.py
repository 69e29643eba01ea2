"""How few sheets some parts need at the least.

By area, and by dual feasible functions, which see large parts as larger.

A function f on [0, 1] is dual feasible where whatever adds up to 1 or less still does so after it.
Then the sum over all parts of f(width) g(height), each as a part of the sheet's, is no more than
the number of sheets (Fekete and Schepers 2001, Mathematical Programming 91: 11-31; its functions
from memory). A part that may be turned counts by its lesser way.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

_MOST = 24  # thresholds tried of each kind
_SLACK = 1e-9
Sizes = Sequence[tuple[float, float, bool]]


def fewest(sizes: Sizes, room: tuple[float, float]) -> int:
    """No fewer sheets than this.

    Args:
        sizes: of each part with its kerfs, along and across, and whether it may be turned.
        room: of a sheet with a kerf.
    """
    if not sizes:
        return 0
    wide = np.array([size[0] / room[0] for size in sizes])
    high = np.array([size[1] / room[1] for size in sizes])
    turned = np.array([size[2] for size in sizes])
    wide_turned = np.array([size[1] / room[0] for size in sizes])
    high_turned = np.array([size[0] / room[1] for size in sizes])
    turned &= (wide_turned <= 1 + _SLACK) & (high_turned <= 1 + _SLACK)
    lies = (wide <= 1 + _SLACK) & (high <= 1 + _SLACK)
    thresholds = _thresholds(
        np.concatenate([wide[lies], high[lies], wide_turned[turned], high_turned[turned]])
    )
    across, up = _seen(wide, thresholds), _seen(high, thresholds)
    across_turned, up_turned = _seen(wide_turned, thresholds), _seen(high_turned, thresholds)
    best = 0.0
    for f in range(len(across)):
        lying = np.where(lies, across[f] * up, np.inf)
        standing = np.where(turned, across_turned[f] * up_turned, np.inf)
        best = max(best, float(np.minimum(lying, standing).sum(axis=1).max()))
    return int(np.ceil(best - 1e-6))


def _thresholds(sizes: NDArray[np.float64]) -> list[float]:
    """Sizes up to a half, and those that are missing to the whole: where the functions jump."""
    small = np.unique(np.concatenate([sizes, 1 - sizes]).round(6))
    small = small[(small > 0) & (small <= 0.5)]
    step = max(len(small) // _MOST, 1)
    return [float(each) for each in small[::step]]


def _seen(sizes: NDArray[np.float64], thresholds: list[float]) -> NDArray[np.float64]:
    """Every part's size as each function sees it, a row for each."""
    rows = [np.minimum(sizes, 1.0)]
    for p in thresholds:
        rows.append(np.where(sizes > 1 - p + _SLACK, 1.0, np.where(sizes < p - _SLACK, 0.0, sizes)))
    for k in range(1, 6):
        times = (k + 1) * sizes
        whole = np.abs(times - np.round(times)) < 1e-7
        rows.append(np.where(whole, sizes, np.floor(times + _SLACK) / k))
    return np.array([np.minimum(row, 1.0) for row in rows])
