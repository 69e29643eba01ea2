"""`python -m tests.reference` prints the tally of outside values.

With a word, every value of the tables that have it in their name.
"""

import sys

from tests.reference.tables import tables, tally

if len(sys.argv) > 1:
    for table in tables():
        if sys.argv[1].lower() in f"{table.source} {table.clause}".lower():
            print(f"{table.source}, {table.clause}")
            for given, printed, ours in table.values:
                print(f"  {given}: printed {printed:g}, ours {ours:.4g}")
else:
    print(tally())
