"""Speed, measured apart from the tests: `python -m benchmarks`."""
