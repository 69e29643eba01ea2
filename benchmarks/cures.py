"""How many of 200 random failing plans are cured, and what is said of the rest.

`python -m benchmarks.cures [SEED]`; the plans are those of `tests/failing.py`.
"""

import sys
from collections import Counter
from time import process_time

from tests.failing import failing
from trade import wording
from trade.choose.cures import look_for_cures
from trade.choose.remedies import asks_less
from trade.mounts import mount_of

_MANY = 200


def main(seed: int) -> None:
    """Print the shares, the CPU time, and each plan that nothing makes hold."""
    counts: Counter[str] = Counter()
    seconds: list[float] = []
    for plan in failing(seed, _MANY):
        piece = plan.pieces[0]
        began = process_time()
        search = look_for_cures(plan, piece.key)
        seconds.append(process_time() - began)
        held = [cure for cure in search.found if cure.outcome in ("holds", "holds_but")]
        counts["held"] += bool(held)
        counts["as wished"] += any(not asks_less(cure.code) for cure in held)
        if not held:
            left = search.found[0].label if search.found else search.short
            said = wording.phrase(left, plan.units) if left else ""
            print(f"{mount_of(piece).kind}, {piece.use}: {said}")
    print(
        f"{counts['held']} of {_MANY} made to hold, {counts['as wished']} of them as wished; "
        f"CPU {sum(seconds) / _MANY:.2f} s each, at most {max(seconds):.2f}"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 16)
