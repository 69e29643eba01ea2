"""Marks: where to drill, with what, how deep."""
