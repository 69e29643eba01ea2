"""Made-up walls: each alone."""

import re
from datetime import UTC, date, datetime
from fractions import Fraction
from typing import Any

from msgspec.structs import replace

from trade.choose import placement
from trade.devices.hidden import HiddenWall, Member, Service
from trade.devices.stand_ins import StandIns
from trade.job import found
from trade.job.steps import steps
from trade.measure import IN_MM, POUND_KG
from trade.mounts import mount_of
from trade.parse import notes, sketch
from trade.plan import flatness
from trade.plan.as_built import Hung, Look, Proof
from trade.plan.model import BracketShelf, Layer, Plan, Policy, RodShelf, Stud, Thing
from trade.plan.model import Wall as PlanWall
from trade.plan.readings import Reading
from trade.plan.shop import Defect, Finish, OnHand, Price, Shop
from trade.wall.infer import as_studs, infer

LB_KG = float(POUND_KG)
JOB = "Boathouse of the rowing club"
LIBRARY = "Reading corner of the village library"
FLAT = "Flat with the house plants"
RENTED = Policy(matters="holes", comes_off=True, lacks=("table_saw",))


def changing_room() -> Plan:
    """Return a stud wall with three shelves: one holds, one is close, one won't hold."""
    size = (144 * IN_MM, 96 * IN_MM)
    wall = PlanWall(
        width_mm=size[0],
        height_mm=size[1],
        layers=(Layer(kind="gypsum_12_7", thickness_mm=12.7),),
        timber="spruce_pine_fir",
        studs=tuple(
            Stud(centre_mm=x * IN_MM, width_mm=38.1, depth_mm=88.9, uncertainty_mm=3.0)
            for x in range(16, 144, 16)
        ),
        readings=_readings(),
        features=sketch.read(
            "100 outlet 12 high, 138 switch 48 high, baseboard 4 high", "imperial", size
        ).features,
        flatness=flatness.read(
            "66 up: gaps 0 at 8, 1/8 at 24, 3/16 at 36, 0 at 56\n"
            "plumb at 32: 12 to 84 up, 3/16 out\n"
            "ceiling 26 at 0, 25 5/8 at 144",
            "imperial",
        ),
    )
    towels = BracketShelf(
        key="towels",
        name="Towel shelf",
        left_mm=10 * IN_MM,
        top_mm=66 * IN_MM,
        length_mm=44 * IN_MM,
        depth_mm=11.25 * IN_MM,
        thickness_mm=0.75 * IN_MM,
        board="oak_red",
        use="everyday",
        supports_mm=(6 * IN_MM, 38 * IN_MM),
        bracket="braced",
        screw="wood_10",
        screw_length_mm=3 * IN_MM,
        things=(
            Thing(name="Towels", mass_kg=30 * LB_KG),
            Thing(name="First-aid box", mass_kg=8 * LB_KG, at_mm=36 * IN_MM),
        ),
    )
    trophies = RodShelf(
        key="trophies",
        name="Trophy ledge",
        left_mm=74 * IN_MM,
        top_mm=70 * IN_MM,
        length_mm=44 * IN_MM,
        depth_mm=9.25 * IN_MM,
        thickness_mm=3.75 * IN_MM,
        board="oak_white",
        use="everyday",
        supports_mm=(6 * IN_MM, 38 * IN_MM),
        plate="tall",
        let_in=True,
        screw="wood_12",
        screw_length_mm=2.5 * IN_MM,
        things=(Thing(name="Cups and shields", mass_kg=115 * LB_KG),),
    )
    paint = BracketShelf(
        key="paint",
        name="Varnish and paint",
        left_mm=30 * IN_MM,
        top_mm=36 * IN_MM,
        length_mm=56 * IN_MM,
        depth_mm=9.25 * IN_MM,
        thickness_mm=0.75 * IN_MM,
        board="pine_ponderosa",
        use="everyday",
        supports_mm=(9 * IN_MM, 50 * IN_MM),
        bracket="braced",
        screw="wood_10",
        screw_length_mm=2.5 * IN_MM,
        things=(
            Thing(name="Paint and varnish tins", mass_kg=35 * LB_KG),
            Thing(name="Epoxy, two cans", mass_kg=13 * LB_KG, at_mm=43 * IN_MM),
        ),
    )
    plan = Plan(
        name="East wall, changing room",
        units="imperial",
        wall=wall,
        pieces=(towels, trophies, paint),
    )
    plan = _hung(
        plan,
        "towels",
        date(2026, 6, 13),
        minutes=110.0,
        cost=84.0,
        note="Left stud by magnet, right by nail.",
    )
    read: dict[str, Any] = {
        "before_mm": 0.0,
        "loaded_mm": 1.1,
        "after_mm": 0.1,
        "level_mm_per_m": 0.5,
    }
    proof = Proof(piece="towels", on=date(2026, 6, 13), kg=21.9, minutes=15.0, by="Ines", **read)
    looks = (
        Look(
            piece="towels",
            on=date(2026, 7, 14),
            held="firm",
            by="Ines",
            note="Snugged all eight screws.",
        ),
    )
    return replace(plan, as_built=replace(plan.as_built, proofs=(proof,), looks=looks))


def _readings() -> tuple[Reading, ...]:
    """Two sweeps, a magnet and a nail, jotted down to the sixteenth as a person would."""
    truth = HiddenWall(
        11,
        144 * IN_MM,
        16 * IN_MM,
        tuple(Member(x * IN_MM, 38.0, "single") for x in range(16, 144, 16)),
        (Service(103.5 * IN_MM, 22.0, "pipe"),),
    )
    devices = StandIns(truth, seed=4)
    taken = devices.sweep(0, 144 * IN_MM, 42 * IN_MM) + devices.sweep(0, 144 * IN_MM, 54 * IN_MM)
    taken += [
        *devices.search(48 * IN_MM, 50 * IN_MM),
        *devices.search(80 * IN_MM, 50 * IN_MM),
        devices.probe(112 * IN_MM, 50 * IN_MM),
    ]
    jotted = notes.write(taken, "imperial")
    return notes.read(
        re.sub(r"(\d+)/(?:32|64)", lambda part: _sixteenth(part[0]), jotted),
        "imperial",
        144 * IN_MM,
    )


def _sixteenth(fraction: str) -> str:
    sixteenths = max(round(Fraction(fraction) * 16), 1)
    return str(Fraction(sixteenths, 16)) if sixteenths < 16 else "15/16"


def reading_corner() -> Plan:
    """Plaster on lath beside a window.

    Magnets and nails only, one stud in doubt, two readings that contradict each other.
    """
    size = (132 * IN_MM, 100 * IN_MM)
    said = "66 to 102 window 34 to 80 high, 68 to 100 radiator 4 to 28 high, 118 outlet 14 high"
    readings = notes.read(
        "40 up: 15 3/4 magnet, 16 wood at 7/8, 15 1/8 wood, 17 3/8 air, 32 1/8 magnet, "
        "31 5/16 wood, 32 1/2 wood, 48 wood at 13/16\n"
        "60 up: 15 7/8 magnet, 31 3/4 magnet, 48 air, 112 hollow, 128 full",
        "imperial",
        size[0],
    )
    wall = PlanWall(
        width_mm=size[0],
        height_mm=size[1],
        layers=(Layer(kind="plaster_lath", thickness_mm=22.0),),
        timber="douglas_fir_larch",
        features=sketch.read(said, "imperial", size).features,
        readings=readings,
    )
    wall = replace(wall, studs=as_studs(infer(size[0], readings, wall.openings)))
    left = 10 * IN_MM
    ledge = BracketShelf(
        key="ledge",
        name="Picture-book ledge",
        left_mm=left,
        top_mm=44 * IN_MM,
        length_mm=44 * IN_MM,
        depth_mm=7.25 * IN_MM,
        thickness_mm=0.75 * IN_MM,
        board="oak_red",
        use="hard",
        supports_mm=placement.supports_on_studs(wall, left, 44 * IN_MM),
        bracket="braced",
        screw="wood_10",
        screw_length_mm=3 * IN_MM,
        things=(Thing(name="Picture books", mass_kg=18.0),),
    )
    return Plan(name="North wall, by the window", units="imperial", wall=wall, pieces=(ledge,))


def party_wall() -> Plan:
    """Return a rendered wall of hollow block in a rented flat.

    No studs at all, plugs in every hole.
    """
    size = (3200.0, 2500.0)
    wall = PlanWall(
        width_mm=size[0],
        height_mm=size[1],
        layers=(Layer(kind="render", thickness_mm=13.0),),
        structure="block_hollow",
        clues=("dust_grey", "falls_through"),
        features=sketch.read(
            "400 outlet 300 high, 2100 to 3000 door 2020 high", "metric", size
        ).features,
        readings=notes.read(
            "1400 up: swept 0 to 2000, 600 hard at 13, 900 hard at 14, 1300 full", "metric", size[0]
        ),
    )
    plants = BracketShelf(
        key="plants",
        name="Plant shelf",
        left_mm=550.0,
        top_mm=1500.0,
        length_mm=1200.0,
        depth_mm=220.0,
        thickness_mm=20.0,
        board="pine_white",
        use="everyday",
        supports_mm=(200.0, 1000.0),
        bracket="braced",
        screw="screw_5",
        screw_length_mm=60.0,
        anchor="plug_8",
        things=(Thing(name="Eight pots, watered", mass_kg=34.0),),
    )
    return Plan(
        name="Party wall, living room", units="metric", wall=wall, pieces=(plants,), policy=RENTED
    )


def put(
    plan: Plan, kind: str, at_mm: tuple[float, float], key: str, name: str, **changes: Any
) -> Plan:
    """One more piece where somebody pointed.

    Its middle and its top; sizes as they should be, supports on the studs under it.
    """
    piece: Any = placement.put_up(plan, kind, *at_mm)
    length = changes.pop("length_mm", piece.length_mm)
    left = changes.pop("left_mm", min(max(at_mm[0] - length / 2, 0.0), plan.wall.width_mm - length))
    piece = replace(piece, length_mm=length, left_mm=left, supports_mm=(), key=key, name=name)
    supports = changes.pop("supports_mm", None) or placement.on_studs(piece, plan.wall).supports_mm
    piece = replace(piece, supports_mm=supports, **changes)
    return plan.with_piece(mount_of(piece).landed(replace(piece, top_mm=at_mm[1]), plan.wall))


def _framed(
    width_mm: float, first_mm: float, step_mm: float, off_mm: float = 2.0
) -> tuple[Stud, ...]:
    count = int((width_mm - first_mm) // step_mm) + 1
    return tuple(
        Stud(centre_mm=first_mm + n * step_mm, width_mm=38.1, depth_mm=88.9, uncertainty_mm=off_mm)
        for n in range(count)
    )


def _hung(plan: Plan, key: str, day: date, **more: Any) -> Plan:
    """Return the plan with a piece put up, every hole as it should be."""
    at = datetime(day.year, day.month, day.day, 10, tzinfo=UTC)
    for step in steps(plan, key, plan.units):
        if step.mark is not None:
            plan = found.tell(plan, step.mark, found.MarkReport("good", at=at, by="Ines"))
        else:
            plan = found.done(plan, key, step.key, at, "Ines")
    hung = Hung(piece=key, on=day, by="Ines", **more)
    return replace(plan, as_built=replace(plan.as_built, hung=(*plan.as_built.hung, hung)))


def workshop() -> Plan:
    """Plywood on studs in the boathouse's workshop.

    A rail, cleats, pegs, a holder board, a cabinet, a notice panel.
    """
    wall = PlanWall(
        width_mm=220 * IN_MM,
        height_mm=100 * IN_MM,
        layers=(Layer(kind="plywood_12", thickness_mm=12.0),),
        timber="douglas_fir_larch",
        studs=_framed(220 * IN_MM, 12 * IN_MM, 16 * IN_MM),
    )
    shop = Shop(
        on_hand=(
            OnHand(
                name="the old notice board",
                board="plywood",
                kind="sheet",
                length_mm=60 * IN_MM,
                width_mm=40 * IN_MM,
                thickness_mm=18.26,
                defects=(Defect(from_mm=0.0, to_mm=4 * IN_MM, low_mm=0.0, high_mm=5 * IN_MM),),
            ),
        ),
        finish=Finish(first="oil_stain", top="water_varnish", temp_c=16.0),
        ready=1100.0,
        prices=(Price(of="stock:plywood_18_26_full", each=58.0),),
    )
    plan = Plan(
        name="Workshop wall", units="imperial", wall=wall, policy=Policy(made="shop"), shop=shop
    )
    oars = tuple(
        Thing(name=f"Oar {n}", mass_kg=2.6, at_mm=(8 + 16 * n) * IN_MM, out_mm=4 * IN_MM)
        for n in range(5)
    )
    plan = put(
        plan,
        "rail",
        (44 * IN_MM, 90 * IN_MM),
        "oars",
        "Oar rail",
        length_mm=80 * IN_MM,
        board="oak_white",
        thickness_mm=IN_MM,
        height_mm=5 * IN_MM,
        depth_mm=5 * IN_MM,
        use="hard",
        things=oars,
    )
    plan = put(
        plan,
        "cleat_cabinet",
        (124 * IN_MM, 90 * IN_MM),
        "jackets",
        "Life jackets",
        length_mm=56 * IN_MM,
        height_mm=30 * IN_MM,
        depth_mm=14 * IN_MM,
        body_kg=24.0,
        cleat_mm=23.0,
        locked=True,
        things=(Thing(name="Life jackets, twelve", mass_kg=11.0),),
    )
    plan = put(
        plan,
        "panel",
        (190 * IN_MM, 84 * IN_MM),
        "notices",
        "Notice panel",
        length_mm=40 * IN_MM,
        height_mm=36 * IN_MM,
        depth_mm=60.0,
        use="display",
        things=(Thing(name="Notices and keys", mass_kg=3.0),),
    )
    plan = put(
        plan,
        "cleat_wall",
        (44 * IN_MM, 68 * IN_MM),
        "holders",
        "Rigger holders",
        length_mm=70 * IN_MM,
        rows=3,
        apart_mm=7 * IN_MM,
        holder_mm=11 * IN_MM,
        depth_mm=6 * IN_MM,
        things=(Thing(name="Riggers in holders", mass_kg=16.0),),
    )
    plan = put(
        plan,
        "peg_wall",
        (124 * IN_MM, 48 * IN_MM),
        "pegs",
        "Peg wall",
        length_mm=48 * IN_MM,
        height_mm=32 * IN_MM,
        things=(
            Thing(name="Ropes and fenders", mass_kg=6.0),
            Thing(name="Bailer", mass_kg=0.8, at_mm=600.0, out_mm=70.0),
        ),
    )
    return put(
        plan,
        "holder_board",
        (188 * IN_MM, 32 * IN_MM),
        "tools",
        "Spanner board",
        length_mm=36 * IN_MM,
        depth_mm=95.0,
        things=(
            Thing(name="Spanners", mass_kg=5.0),
            Thing(name="Torque wrench", mass_kg=2.2, at_mm=300.0, out_mm=80.0),
        ),
    )


def story_corner() -> Plan:
    """Studs 24 in apart in the library.

    Bookcases, a bench, a corner shelf, and four ways to hide what holds a shelf.
    """
    wall = PlanWall(
        width_mm=6000.0,
        height_mm=2600.0,
        layers=(Layer(kind="gypsum_15_9", thickness_mm=15.9),),
        timber="douglas_fir_larch",
        studs=(
            Stud(centre_mm=28.0, width_mm=38.1, uncertainty_mm=1.5),
            *_framed(6000.0, 400.0, 400.0, 1.5),
        ),
    )
    plan = Plan(name="East wall, story corner", units="metric", wall=wall)
    plan = put(
        plan,
        "corner_shelf",
        (250.0, 1250.0),
        "globe",
        "Globe shelf",
        length_mm=480.0,
        depth_mm=480.0,
        other_mm=400.0,
        use="display",
        things=(Thing(name="Globe", mass_kg=4.0),),
    )
    tall = {"length_mm": 800.0, "height_mm": 2000.0, "depth_mm": 300.0}
    plan = put(plan, "bookcase", (1000.0, 2000.0), "case-a", "Atlases", body_kg=42.0, **tall)
    plan = put(plan, "bookcase", (1900.0, 2000.0), "case-b", "Encyclopedias", **tall)
    plan = put(
        plan,
        "ledger_bench",
        (3200.0, 430.0),
        "bench",
        "Reading bench",
        length_mm=1700.0,
        depth_mm=420.0,
        legs=3,
        things=(Thing(name="Cushions", mass_kg=4.0),),
    )
    plan = put(
        plan,
        "pin_shelf",
        (2800.0, 1220.0),
        "poems",
        "Poems",
        left_mm=2500.0,
        length_mm=800.0,
        depth_mm=160.0,
        in_shelf_mm=110.0,
        things=(Thing(name="Poems", mass_kg=3.0),),
    )
    plan = put(
        plan,
        "dowel_shelf",
        (3700.0, 1220.0),
        "puppets",
        "Puppets",
        length_mm=700.0,
        depth_mm=170.0,
        dowels=5,
        in_shelf_mm=100.0,
        things=(Thing(name="Puppets", mass_kg=2.5),),
    )
    plan = put(
        plan,
        "box_shelf",
        (2900.0, 1850.0),
        "films",
        "Films",
        length_mm=900.0,
        depth_mm=200.0,
        height_mm=180.0,
        skin_mm=15.0,
        things=(Thing(name="Films and games", mass_kg=9.0),),
    )
    plan = put(
        plan,
        "rod_beam",
        (5000.0, 1400.0),
        "mantel",
        "Mantel",
        length_mm=1500.0,
        depth_mm=180.0,
        thickness_mm=120.0,
        in_beam_mm=90.0,
        screw_length_mm=160.0,
        things=(Thing(name="Clock", mass_kg=5.0, at_mm=750.0),),
    )
    plan = put(
        plan,
        "bracket_beam",
        (5000.0, 2000.0),
        "busts",
        "Busts",
        length_mm=1400.0,
        depth_mm=220.0,
        thickness_mm=90.0,
        things=(Thing(name="Two plaster busts", mass_kg=14.0),),
    )
    plan = _hung(plan, "poems", date(2025, 10, 4), minutes=95.0, cost=31.0)
    plan = _hung(
        plan,
        "films",
        date(2025, 10, 4),
        minutes=150.0,
        cost=58.0,
        note="Boxed in birch from the rack.",
    )
    plan = _hung(plan, "case-a", date(2025, 11, 8), minutes=25.0, cost=14.0)
    looks = (
        Look(
            piece="poems",
            on=date(2026, 5, 9),
            held="loose",
            by="Ines",
            note="Right pin turns in its hole.",
        ),
        Look(piece="films", on=date(2026, 5, 9), held="firm", by="Ines"),
        Look(piece="case-a", on=date(2026, 5, 9), held="firm"),
    )
    return replace(plan, as_built=replace(plan.as_built, looks=looks))


def wardrobe() -> Plan:
    """Return a closet in the flat, wall to wall.

    A shelf on ledgers, hooks that will have to go between studs, and shelves on uprights below.
    """
    wall = PlanWall(
        width_mm=1180.0,
        height_mm=2450.0,
        layers=(Layer(kind="gypsum_12_7", thickness_mm=12.7),),
        timber="spruce_pine_fir",
        studs=(
            Stud(centre_mm=120.0, uncertainty_mm=2.0),
            Stud(centre_mm=720.0, uncertainty_mm=2.0),
        ),
    )
    plan = Plan(name="Closet, back wall", units="metric", wall=wall, policy=RENTED)
    plan = put(
        plan,
        "ledger_shelf",
        (590.0, 1900.0),
        "cases",
        "Suitcase shelf",
        length_mm=1180.0,
        depth_mm=400.0,
        sides_sure=True,
        stiffener_mm=64.0,
        use="hard",
        side_screws=4,
        supports_mm=(120.0, 720.0),
        things=(Thing(name="Suitcase", mass_kg=9.0),),
    )
    plan = put(
        plan,
        "track_shelf",
        (590.0, 860.0),
        "shoes",
        "Shoe shelves",
        length_mm=960.0,
        left_mm=60.0,
        supports_mm=(60.0, 660.0),
        gap_mm=250.0,
        upright_mm=700.0,
        use="display",
        things=(Thing(name="Shoes, twelve pairs", mass_kg=12.0),),
    )
    return put(
        plan,
        "rail",
        (590.0, 1500.0),
        "coats",
        "Coat rail",
        length_mm=900.0,
        left_mm=100.0,
        supports_mm=(20.0, 620.0, 820.0),
        anchor="toggle_316",
        depth_mm=60.0,
        use="display",
        things=(Thing(name="Coats", mass_kg=6.0),),
    )
