"""The stages of a wall's work.

Each has its form and its view; `STAGES` is the list of those that are built.
"""
