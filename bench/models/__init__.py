"""What is kept: jobs, their walls, and every revision of a wall's plan."""

from bench.models.jobs import Job
from bench.models.walls import Revision, StaleError, Wall

__all__ = ["Job", "Revision", "StaleError", "Wall"]
