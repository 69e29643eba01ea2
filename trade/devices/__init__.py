"""Stand-ins for what people hold at the wall, over hidden simulated walls. A real device would answer the same questions."""
