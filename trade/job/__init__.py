"""The job in time: what is done when, until it hangs and may be loaded."""
