"""What a piece must carry."""
