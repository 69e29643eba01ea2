"""Parsers: jotted readings, a sketch along the tape, a table of readings."""
