"""`capacity`, `sag`: what one fixing holds, how far one board sags."""

import argparse

from trade import data, wording
from trade.calculation import Quantity
from trade.cli import common
from trade.errors import TradeError
from trade.fixings import wood
from trade.fixings.anchor_capacity import AnchorCapacity, anchor_capacity
from trade.fixings.driving import reach
from trade.fixings.substrate import Substrate
from trade.load.shelf import ShelfLoad
from trade.measure import G_N_PER_KG, Units, read_length, read_weight, say_length, say_weight
from trade.plan.model import BracketShelf, Thing, Wall

_FAR_MM = 1e6


def arguments(name: str, parser: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    common.add_output_options(parser, "metric")
    if name == "capacity":
        which = parser.add_mutually_exclusive_group(required=True)
        which.add_argument("--screw", choices=sorted(data.screws()))
        which.add_argument("--anchor", choices=sorted(data.anchors()))
        parser.add_argument("--length", default="76 mm", help="of the screw")
        parser.add_argument("--lining", default="0", help="how thick what bears nothing is")
        parser.add_argument(
            "--into", help="a stud timber for a screw; a structure or a lining for an anchor"
        )
        return
    parser.add_argument("--board", choices=sorted(data.boards()), required=True)
    for size in ("length", "depth", "thickness", "load"):
        parser.add_argument(f"--{size}", required=True)
    parser.add_argument(
        "--supports",
        default="",
        help="places from the left end, with commas; both ends when left out",
    )


def capacity(asked: argparse.Namespace) -> int:
    """Print the capacity of one screw or anchor."""
    units: Units = asked.units
    gap = read_length(asked.lining, units)
    if asked.screw:
        length = read_length(asked.length, units)
        found = screw_capacity(asked.screw, length, asked.into or "spruce_pine_fir", gap)
    else:
        base = asked.into or "gypsum_12_7"
        data.row({**data.structures(), **data.linings()}, base, "wall or lining")
        hollow = base in data.linings()
        bare = Wall(width_mm=1000, height_mm=1000, layers=(), structure=None if hollow else base)
        found = capacity_as_json(
            anchor_capacity(
                bare, asked.anchor, Substrate(base, hollow, gap, (_FAR_MM, _FAR_MM), _FAR_MM)
            )
        )
    common.print_result(asked, found, capacity_as_text(found, units))
    return common.EXIT["wont_hold" if found.get("problem") else "holds"]


def sag(asked: argparse.Namespace) -> int:
    """Print the sag of a board."""
    units: Units = asked.units
    length, depth, thick = (
        read_length(getattr(asked, name), units) for name in ("length", "depth", "thickness")
    )
    places = tuple(
        read_length(part, units) for part in asked.supports.split(",") if part.strip()
    ) or (0.0, length)
    shelf = BracketShelf(
        key="board",
        name="Board",
        left_mm=0,
        top_mm=1000,
        length_mm=length,
        depth_mm=depth,
        thickness_mm=thick,
        board=asked.board,
        use="display",
        supports_mm=places,
        bracket="braced",
        screw="wood_10",
        screw_length_mm=63.5,
        things=(Thing(name="Load", mass_kg=read_weight(asked.load, units)),),
    )
    if len(places) < 2:
        raise TradeError("A board needs two supports or more.")
    found = sag_of(ShelfLoad(shelf, 0.0, 0.0))
    common.print_result(asked, found, sag_as_text(found, units))
    return common.EXIT["holds" if found["years_mm"] <= found["limit_mm"] else "holds_but"]


def screw_capacity(screw_key: str, length_mm: float, stud: str, gap_mm: float) -> dict[str, object]:
    """Return what one screw under 3 mm of steel holds in a stud, N.

    Pulled, and along the wall, for years and for minutes.

    Args:
        screw_key: a row of the screws table.
        length_mm: its length.
        stud: a row of the framing table.
        gap_mm: lining that bears nothing.

    Raises:
        UnknownRowError: no such row.
    """
    screw = data.row(data.screws(), screw_key, "screw")
    timber = data.row(data.framing(), stud, "stud timber")
    side = wood.steel_side(3.0)
    where = reach(screw, length_mm, side.thickness_mm + gap_mm)
    pull = wood.withdrawal_n_per_mm(screw, timber.g) * where.thread_mm
    bearing = wood.bearing_length_mm(where.penetration_mm, screw.diameter_mm, screw.tip_mm)
    fe = wood.bearing_strength_mpa(timber.g, screw.diameter_mm)
    found = wood.lateral(wood.dowel(screw), side, gap_mm, fe, bearing) if bearing > 0 else None
    shear = found.value_n if found else 0.0
    years = data.house("duration_years")
    minutes = data.house("duration_minutes")
    return {
        "fixing": screw.name_metric,
        "in": timber.name,
        "thread_mm": where.thread_mm,
        "penetration_mm": where.penetration_mm,
        "pull_years_n": pull * years,
        "pull_minutes_n": pull * minutes,
        "shear_years_n": shear * years,
        "shear_minutes_n": shear * minutes,
        "mode": found.mode if found else None,
        "source": "NDS 2018 12.2; AWC TR12-2018 with the lining as a gap; C_D 0.9 and 1.6",
    }


def capacity_as_json(capacity: AnchorCapacity) -> dict[str, object]:
    """Return what one anchor holds, N, for years and for minutes; `problem`.

    Why it holds nothing.
    """
    name = capacity.anchor.name if capacity.anchor else ""
    return {
        "fixing": name,
        "in": capacity.substrate.base,
        "problem": capacity.problem,
        "find_out": capacity.unknown,
        "pull_years_n": capacity.pull_n * capacity.lasting,
        "pull_minutes_n": capacity.pull_n,
        "shear_years_n": capacity.shear_n * capacity.lasting,
        "shear_minutes_n": capacity.shear_n,
        "source": capacity.anchor.source if capacity.anchor else "",
    }


def capacity_as_text(found: dict[str, object], units: Units) -> str:
    """Return a single fixing's capacity, to read; a force as the weight that it holds."""
    if found.get("problem"):
        return str(found["problem"])
    lines = [f"{found['fixing']} in {found['in']}"]
    for key, what in (("pull", "pulled out"), ("shear", "along the wall")):
        years, minutes = (
            say_weight(float(str(found[f"{key}_{when}_n"])) / G_N_PER_KG, units)
            for when in ("years", "minutes")
        )
        lines.append(f"  {what}: {years} for years, {minutes} for minutes")
    lines += [f"  Find out: {ask}" for ask in found.get("find_out", ())]  # type: ignore[attr-defined]
    return "\n".join([*lines, f"  Source: {found['source']}"])


def sag_of(load: ShelfLoad) -> dict[str, float]:
    """Return a shelf board's sag on the first day and over the years, mm, and the span's limit."""
    now, later = load.sag(0.0), load.sag(1.0, data.house("steady_share"))
    return {
        "first_day_mm": now.sag_mm,
        "years_mm": later.sag_mm,
        "span_mm": later.span_mm,
        "limit_mm": later.span_mm / data.house("sag_limit"),
        "eye_mm": later.span_mm / data.house("sag_eye_limit"),
    }


def sag_as_text(found: dict[str, float], units: Units) -> str:
    """Return a shelf's sag, to read."""
    said = {key: wording.quantity(Quantity(value, "fine"), units) for key, value in found.items()}
    return (
        f"first day {said['first_day_mm']}, over the years {said['years_mm']}; "
        f"limit {said['limit_mm']} for a span of {say_length(found['span_mm'], units)}; the eye "
        f"sees {said['eye_mm']}"
    )
