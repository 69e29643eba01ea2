"""Fasteners in what the wall is made of: one module per base, and how they are driven."""
