"""The trade: what holds a thing on a wall, as a library. No Django, no web, no drawing."""
