"""Bodies made of boards: what each board is, where it sits, and how it is joined to the next."""
