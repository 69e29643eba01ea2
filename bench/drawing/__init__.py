"""Drawings of the plan, as SVG. Colours live in the style sheet: shapes only say what they are."""
