"""Tests.

`trade/` the core, `reference/` against the world outside, `bench/` the pages, `browser/` in
Chromium.

Property tests draw the same examples every time, so that a run means the same everywhere. To look
further, as before a change of the rules is done: python -m benchmarks.properties 5000
"""

import gc
import os

from hypothesis import settings

settings.register_profile("same", derandomize=True, deadline=None)
settings.register_profile(
    "further", max_examples=int(os.environ.get("GANCHO_EXAMPLES", "100")), deadline=None
)
settings.load_profile("further" if "GANCHO_EXAMPLES" in os.environ else "same")

# What a test makes lives as long as it: looking for circles seldom saves a tenth of the time.
gc.set_threshold(50_000, 20, 50)
