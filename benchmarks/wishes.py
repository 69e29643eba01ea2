"""The ways for thirty everyday wishes on six walls in both systems, against the table of the tests.

`python -m benchmarks.wishes`; with `--keep` the table is written anew.
"""

import csv
import sys
from time import process_time

from tests.wishes import TABLE, asked, every, kept
from trade.memo import clear_memos, collect_seldom


def main(keep: bool) -> int:
    """Print what differs from the table, and the CPU time."""
    collect_seldom()
    rows, seconds = [], []
    for each in every():
        clear_memos()
        began = process_time()
        rows.append(asked(*each)[0])
        seconds.append(process_time() - began)
    if keep:
        with TABLE.open("w", newline="", encoding="utf-8") as file:
            csv.writer(file, lineterminator="\n").writerows(rows)
    changed = [row for row, old in zip(rows, kept(), strict=True) if row != old]
    for row in changed:
        print(*row, sep=", ")
    print(
        f"{len(rows)} wishes, {sum(bool(row.kind) for row in rows)} with a way; "
        f"{len(changed)} differ from the table; "
        f"CPU {sum(seconds) / len(rows):.2f} s each, at most {max(seconds):.2f}"
    )
    return bool(changed)


if __name__ == "__main__":
    sys.exit(main("--keep" in sys.argv))
