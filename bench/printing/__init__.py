"""Sheets of paper: what the workbench knows, as PDF."""
