"""What the wall is, and where its studs are."""
