"""What is known about the wall."""
