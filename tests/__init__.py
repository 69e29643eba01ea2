"""Tests.

`trade/` the core, `reference/` against the world outside, `bench/` the pages, `browser/` in
Chromium.

Property tests draw the same examples every time, so that a run means the same everywhere. To look
further, as before a change of the rules is done: python -m benchmarks.properties 5000
"""

import os

from hypothesis import settings

from trade.memo import collect_seldom

settings.register_profile("same", derandomize=True, deadline=None)
settings.register_profile(
    "further", max_examples=int(os.environ.get("GANCHO_EXAMPLES", "100")), deadline=None
)
settings.load_profile("further" if "GANCHO_EXAMPLES" in os.environ else "same")
collect_seldom()  # as where it is served
