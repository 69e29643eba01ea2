"""Where to drill: marks, templates, story sticks."""
