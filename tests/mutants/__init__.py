"""Small changes to the trade, each of which some test must notice."""
