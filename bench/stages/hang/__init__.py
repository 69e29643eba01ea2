"""Hang it, step by step, at the wall."""
