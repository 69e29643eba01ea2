"""Demo data: made-up places and things.

A rowing club's boathouse, a village library's reading corner, a flat full of plants.
"""

from msgspec.structs import replace

from bench.demo.furnished import bedroom, desk_corner
from bench.demo.made import quiet_room
from bench.demo.places import alcoves, linen_closet, pantry
from bench.demo.tool_corner import tool_corner
from bench.demo.walls import (
    FLAT,
    JOB,
    LIBRARY,
    changing_room,
    party_wall,
    reading_corner,
    story_corner,
    wardrobe,
    workshop,
)
from bench.models import Job, Wall
from trade.plan.policy import usual

__all__ = [
    "FLAT",
    "JOB",
    "LIBRARY",
    "PLANS",
    "alcoves",
    "bedroom",
    "changing_room",
    "desk_corner",
    "linen_closet",
    "load",
    "pantry",
    "party_wall",
    "quiet_room",
    "reading_corner",
    "story_corner",
    "tool_corner",
    "wardrobe",
    "workshop",
]

PLANS = (
    (JOB, (changing_room, workshop, pantry, tool_corner)),
    (LIBRARY, (reading_corner, story_corner, alcoves, desk_corner, quiet_room)),
    (FLAT, (party_wall, wardrobe, linen_closet, bedroom)),
)


def load() -> int:
    """Put the demo jobs in where they are missing; how many walls were added.

    What a person changed stays as it is.
    """
    added = 0
    for job_name, plans in PLANS:
        job, new = Job.objects.get_or_create(name=job_name)
        for plan in plans if new else ():
            made = plan()
            saw = usual(made.units)
            policy = replace(made.policy, kerf_mm=saw.kerf_mm, trim_mm=saw.trim_mm)
            Wall.begin(job, replace(made, policy=policy), "Demo data")
            added += 1
    return added
