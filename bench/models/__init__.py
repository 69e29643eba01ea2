"""What is kept.

Jobs, walls, every revision of a plan; offcuts; practice runs; what was told from the wall; forms
sent.
"""

from bench.models.jobs import Job
from bench.models.log import LogEntry, Photo
from bench.models.offcuts import Offcut
from bench.models.once import Sent
from bench.models.people import Share, Trail
from bench.models.practice import Practice
from bench.models.reports import Report
from bench.models.walls import Revision, StaleError, Wall

__all__ = [
    "Job",
    "LogEntry",
    "Offcut",
    "Photo",
    "Practice",
    "Report",
    "Revision",
    "Sent",
    "Share",
    "StaleError",
    "Trail",
    "Wall",
]
