"""What is kept: jobs, their walls, every revision of a wall's plan; the rack of offcuts; practice runs."""

from bench.models.jobs import Job
from bench.models.practice import Practice
from bench.models.rack import Offcut
from bench.models.walls import Revision, StaleError, Wall

__all__ = ["Job", "Offcut", "Practice", "Revision", "StaleError", "Wall"]
