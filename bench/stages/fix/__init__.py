"""What holds it: checks, options, best spots, preferences."""
