"""Template tags and filters."""
