"""What is demanded: things, use classes, load cases, and how a shelf shares them among its supports."""
