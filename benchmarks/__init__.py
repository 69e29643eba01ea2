"""Speed, measured apart from the tests: `python -m benchmarks`."""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # as the application has it
