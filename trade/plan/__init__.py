"""The plan: a wall, what hangs on it and how the job is done; its open JSON format."""
