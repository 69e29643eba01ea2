"""What to cut, from what, what to buy, and when."""
