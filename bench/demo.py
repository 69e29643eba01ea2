"""Demo data: made-up places and things. The boathouse of a rowing club, its changing room's east wall."""

import re
from fractions import Fraction

from bench.models import Job, Wall
from trade import notes
from trade.devices.hidden import HiddenWall, Member, Service
from trade.devices.stand_ins import StandIns
from trade.evidence import Reading
from trade.plan import BracketShelf, Layer, Plan, RodShelf, Stud, Thing
from trade.plan import Wall as PlanWall

JOB = "Boathouse of the rowing club"
_INCH = 25.4


def changing_room() -> Plan:
    """A stud wall with three shelves: one holds, one is close, one won't hold."""
    wall = PlanWall(
        width_mm=144 * _INCH, height_mm=96 * _INCH,
        layers=(Layer(kind="gypsum_12_7", thickness_mm=12.7),), timber="spruce_pine_fir",
        studs=tuple(Stud(centre_mm=x * _INCH, width_mm=38.1, depth_mm=88.9, uncertainty_mm=3.0) for x in range(16, 144, 16)),
        readings=_readings(),
    )  # fmt: skip
    towels = BracketShelf(
        key="towels", name="Towel shelf", left_mm=10 * _INCH, top_mm=66 * _INCH, length_mm=44 * _INCH, depth_mm=11.25 * _INCH,
        thickness_mm=0.75 * _INCH, board="oak_red", use="everyday", supports_mm=(6 * _INCH, 38 * _INCH), bracket="braced",
        screw="wood_10", screw_length_mm=3 * _INCH,
        things=(Thing(name="Towels", mass_kg=14.0), Thing(name="First-aid box", mass_kg=3.5, at_mm=900)),
    )  # fmt: skip
    trophies = RodShelf(
        key="trophies", name="Trophy ledge", left_mm=74 * _INCH, top_mm=70 * _INCH, length_mm=44 * _INCH, depth_mm=9.25 * _INCH,
        thickness_mm=3.75 * _INCH, board="oak_white", use="display", supports_mm=(6 * _INCH, 38 * _INCH), plate="tall",
        let_in=True, screw="wood_12", screw_length_mm=2.5 * _INCH, things=(Thing(name="Cups and shields", mass_kg=29.0),),
    )  # fmt: skip
    paint = BracketShelf(
        key="paint", name="Varnish and paint", left_mm=30 * _INCH, top_mm=36 * _INCH, length_mm=56 * _INCH, depth_mm=9.25 * _INCH,
        thickness_mm=0.75 * _INCH, board="pine_ponderosa", use="everyday", supports_mm=(9 * _INCH, 50 * _INCH), bracket="braced",
        screw="wood_10", screw_length_mm=2.5 * _INCH,
        things=(Thing(name="Paint and varnish tins", mass_kg=16.0), Thing(name="Epoxy, two cans", mass_kg=6.0, at_mm=1100)),
    )  # fmt: skip
    return Plan(name="East wall, changing room", units="imperial", wall=wall, pieces=(towels, trophies, paint))


def _readings() -> tuple[Reading, ...]:
    """Two sweeps, a magnet and a nail, jotted down to the sixteenth as a person would."""
    truth = HiddenWall(
        11, 144 * _INCH, 16 * _INCH, tuple(Member(x * _INCH, 38.0, "single") for x in range(16, 144, 16)),
        (Service(103.5 * _INCH, 22.0, "pipe"),), (),
    )  # fmt: skip
    devices = StandIns(truth, seed=4)
    taken = devices.sweep(0, 144 * _INCH, 42 * _INCH) + devices.sweep(0, 144 * _INCH, 54 * _INCH)
    taken += [
        *devices.search(48 * _INCH, 50 * _INCH),
        *devices.search(80 * _INCH, 50 * _INCH),
        devices.probe(112 * _INCH, 50 * _INCH),
    ]
    jotted = notes.write(taken, "imperial")
    return notes.read(re.sub(r"(\d+)/(?:32|64)", lambda part: _sixteenth(part[0]), jotted), "imperial", 144 * _INCH)


def _sixteenth(fraction: str) -> str:
    sixteenths = max(round(Fraction(fraction) * 16), 1)
    return str(Fraction(sixteenths, 16)) if sixteenths < 16 else "15/16"


PLANS = ((JOB, changing_room),)


def load() -> int:
    """Put the demo jobs in where they are missing; how many walls were added. What a person changed stays as it is."""
    added = 0
    for job_name, plan in PLANS:
        job, new = Job.objects.get_or_create(name=job_name)
        if new:
            Wall.begin(job, plan(), "Demo data")
            added += 1
    return added
