"""What is kept.

Jobs, walls, every revision of a plan; offcuts; practice runs; what was told from the wall; forms
sent.
"""

from bench.models.jobs import Job
from bench.models.log import Line, Photo
from bench.models.once import Sent
from bench.models.people import Share, Trail
from bench.models.practice import Practice
from bench.models.rack import Offcut
from bench.models.told import Told
from bench.models.walls import Revision, StaleError, Wall

__all__ = [
    "Job",
    "Line",
    "Offcut",
    "Photo",
    "Practice",
    "Revision",
    "Sent",
    "Share",
    "StaleError",
    "Told",
    "Trail",
    "Wall",
]
