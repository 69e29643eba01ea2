"""What is kept: jobs, their walls, every revision of a wall's plan; practice runs."""

from bench.models.jobs import Job
from bench.models.practice import Practice
from bench.models.walls import Revision, StaleError, Wall

__all__ = ["Job", "Practice", "Revision", "StaleError", "Wall"]
