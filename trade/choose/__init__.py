"""The judgement: where to put it, and what would cure it."""
