"""The ways for thirty everyday wishes on six walls in both systems, against the table of the tests.

`python -m benchmarks.wishes`; with `--keep` the table is written anew.
"""

import csv
import sys
from time import process_time

from benchmarks.timing import REFERENCE_MS, reference_ms
from tests.wishes import TABLE, asked, every, kept
from trade.memo import clear_memos, collect_seldom

LIMIT_MS = 300.0


def main(keep: bool) -> int:
    """Print what differs from the table, and the CPU time."""
    collect_seldom()
    rows, usual = [], []
    asked(*next(iter(every())))  # tables are read once a process, and are none of a search's time
    for each in every():
        clear_memos()
        before, began = reference_ms(), process_time()
        rows.append(asked(*each)[0])
        spent_ms = (process_time() - began) * 1000
        usual.append(spent_ms / min(before, reference_ms()) * REFERENCE_MS)
    if keep:
        with TABLE.open("w", newline="", encoding="utf-8") as file:
            csv.writer(file, lineterminator="\n").writerows(rows)
    changed = [row for row, old in zip(rows, kept(), strict=True) if row != old]
    for row in changed:
        print(*row, sep=", ")
    print(
        f"{len(rows)} wishes, {sum(bool(row.kind) for row in rows)} with a way; "
        f"{len(changed)} differ from the table; "
        f"CPU, as on the machine that limits are set on, {sum(usual) / len(rows):.0f} ms each, at "
        f"most {max(usual):.0f}, {sum(each > LIMIT_MS for each in usual)} over {LIMIT_MS:.0f}"
    )
    return bool(changed)


if __name__ == "__main__":
    sys.exit(main("--keep" in sys.argv))
