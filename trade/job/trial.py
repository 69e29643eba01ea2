"""Trying one fixing on scrap, before the wall.

What to build, what to hang on it and for how long, what the sums expect; what somebody saw beside
that, and what it says of this fixing in this house. It is shown, and never changes a sum.
"""

from collections.abc import Iterable, Iterator
from typing import NamedTuple

from msgspec.structs import replace

from trade import data
from trade.calculation import Calculation, Equation, Quantity
from trade.check import FAILED, Check, Message, Placeholders
from trade.data.rows import Reserve
from trade.errors import PlanError
from trade.fixings.anchor_capacity import anchor_of
from trade.fixings.support import Support
from trade.language import Figure, counted, joined, word
from trade.mounts import mount_of
from trade.plan.as_built import Trial
from trade.plan.model import AnyPiece, Plan, Thing, Wall
from trade.plan.place import each_piece

_ENOUGH_KG, _MOST_KG = 0.02, 2_000.0
_TRIES = 24
_GAVE = {
    "came_out": word("it came out"),
    "split": word("the wood split"),
    "crushed": word("the material behind it crushed"),
    "bent": word("it bent for good"),
    "broke": word("it broke"),
}


class Rig(NamedTuple):
    """What one fixing should bear, hung as far out as the piece's front edge; `refusal`: why not.

    `check`: the governing check; `reserve`: how far tests to failure exceed it; `sums`: the
    calculation. `allowed_kg`: allowable load for years; `planned_kg`: load that uses as much
    strength as the plan does at its hardest-worked support; `breaks_kg`: expected failure load,
    None where unknown; `sinks_mm`: calculated sinking of the front edge over the years.
    """

    out_mm: float = 0.0
    allowed_kg: float = 0.0
    planned_kg: float = 0.0
    breaks_kg: float | None = None
    sinks_mm: float = 0.0
    check: Check | None = None
    reserve: Reserve | None = None
    sums: tuple[Equation, ...] = ()
    words: tuple[Message, ...] = ()
    refusal: str = ""


class Tried(NamedTuple):
    """What a trial says, in sentences.

    `good`: it bore what the sums allow; `times`: how often that, at least where `least`;
    `factor`: that over what is usual, None where nobody says what is.
    """

    good: bool
    times: float
    least: bool
    factor: float | None
    words: tuple[Message, ...]


class Learned(NamedTuple):
    """The result of all trials of one fixing: the weakest that failed, else the best that held."""

    factor: float
    least: bool
    many: int


def fixing_of(piece: AnyPiece) -> tuple[str, str, float, str | None]:
    """Return what holds a piece, so that trials of the same are told from others."""
    mount = mount_of(piece)
    return mount.kind, piece.screw, round(piece.screw_length_mm), piece.anchor


def rig(piece: AnyPiece, plan: Plan) -> Rig:
    """Return what to build for one fixing of a piece, and what the sums expect of it.

    One of two fixings that share a load evenly is reckoned: by the same checks as on the wall.

    Args:
        piece: one of the plan's.
        plan: the wall that it is to hang on.
    """
    wall = plan.wall
    if any(not check.gradual and check.outcome in FAILED for check in _of_fixings(piece, wall)):
        return Rig(refusal="The plan fails for a reason other than strength. Fix that first.")
    asked = max(_strength(piece, wall), key=lambda check: check.utilisation, default=None)
    pair = None if asked is None else _pair(piece, asked.support or 0)
    if asked is None or pair is None:
        return Rig(refusal="This mounting can't be tried one fixing at a time.")
    pair_kg, check = _bears(pair, wall)
    if check is None:
        return Rig(refusal="A weight at the front edge hardly loads these fixings.")
    used = max(
        (each.utilisation for each in _strength(piece, wall) if each.code == check.code),
        default=asked.utilisation,
    )
    sums, row = Calculation(), reserve(check)
    sums.given("W_2", pair_kg, "mass", "load midway between two supports that uses them up")
    sums.then("W", "W_2 / 2", "mass", "allowable load on one support, for years")
    sums.given("u", used, "percent", "strength used at the hardest-worked support in the plan")
    sums.then("W_p", "u W", "mass", "trial load that equals the load in the plan")
    if row is not None:
        sums.given("k", _times(row, wall), "ratio", "failure in tests over what is allowed")
        sums.then("W_b", "k W", "mass", "expected failure load, about")
    built = Rig(
        out_mm=piece.depth_mm,
        allowed_kg=sums["W"],
        planned_kg=sums["W_p"],
        breaks_kg=None if row is None else sums["W_b"],
        sinks_mm=mount_of(piece).droop(piece, wall).front_mm,
        check=check,
        reserve=row,
        sums=tuple(sums),
    )
    return built._replace(words=tuple(_words(piece, plan, built)))


def tried(trial: Trial, built: Rig) -> Tried:
    """Return what a trial says beside what the sums expect.

    Args:
        trial: as seen, of the fixing that the rig is for.
        built: the rig.
    """
    held = trial.gave == "nothing"
    times = trial.kg / built.allowed_kg
    factor = None if built.breaks_kg is None else trial.kg / built.breaks_kg
    good = times >= 1.0
    return Tried(good, times, held, factor, tuple(_seen(trial, built)))


def learned(piece: AnyPiece, plans: Iterable[Plan]) -> Learned | None:
    """Return what all trials of a piece's fixing on some walls say; None where nobody tried it."""
    found = [
        tried(trial, built)
        for plan in plans
        for other, on in each_piece(plan)
        if fixing_of(other) == fixing_of(piece)
        for trial in on.as_built.trials
        if trial.piece == other.key and trial.of == fixing_of(other)
        for built in (rig(other, on),)
        if not built.refusal
    ]
    known = [(each.factor, each.least) for each in found if each.factor is not None]
    broke = [factor for factor, least in known if not least]
    if broke:
        return Learned(min(broke), False, len(found))
    return Learned(max(factor for factor, _ in known), True, len(found)) if known else None


def reserve(check: Check) -> Reserve | None:
    """Return how far tests to failure exceed what a check allows; None where unknown."""
    return next((row for key, row in data.reserves().items() if check.code.startswith(key)), None)


def _times(row: Reserve, wall: Wall) -> float:
    return row.european if wall.design_code == "european" else row.american


def _of_fixings(piece: AnyPiece, wall: Wall) -> list[Check]:
    """Return the strength checks of the fixings."""
    return [
        check
        for check in mount_of(piece).checks(piece, wall)
        if check.limit == "strength" and check.support is not None
    ]


def _strength(piece: AnyPiece, wall: Wall) -> list[Check]:
    """Return those of them that have a utilisation."""
    return [check for check in _of_fixings(piece, wall) if check.gradual]


def _pair(piece: AnyPiece, support: int) -> AnyPiece | None:
    """Return two neighbouring fixings of a piece with nothing but themselves to carry.

    None where it has no two, or is nothing when so short.
    """
    places = piece.supports_mm
    if len(places) < 2:
        return None
    first = min(support, len(places) - 2)
    left, gap = places[first], places[first + 1] - places[first]
    over = data.house("trial_over_mm")
    bare = {"body_kg": 0.0} if "body_kg" in piece.__struct_fields__ else {}
    try:
        return replace(
            piece,
            left_mm=max(piece.left_mm + left - over, 0.0),
            length_mm=gap + 2 * over,
            supports_mm=(over, over + gap),
            use="display",  # whoever tries it doesn't push it
            things=(),
            **bare,
        )
    except PlanError:
        return None


def _bears(pair: AnyPiece, wall: Wall) -> tuple[float, Check | None]:
    """Return the load midway between two fixings that governs them, kg, and the governing check."""

    def asked(kg: float) -> Check | None:
        thing = Thing(
            name="Load", mass_kg=kg, at_mm=pair.length_mm / 2, out_mm=max(pair.depth_mm, 20.0)
        )
        found = _strength(replace(pair, things=(thing,)), wall)
        return max(found, key=lambda check: check.utilisation, default=None)

    low, high, check = 0.0, 20.0, asked(20.0)
    while check is not None and check.utilisation < 1.0:
        if high >= _MOST_KG:
            return high, None
        low, high = high, high * 2
        check = asked(high)
    for _ in range(_TRIES):
        if high - low <= _ENOUGH_KG:
            break
        middle = (low + high) / 2
        now = asked(middle)
        if now is None or now.utilisation < 1.0:
            low = middle
        else:
            high, check = middle, now
    return high, check if low else None


def _words(piece: AnyPiece, plan: Plan, built: Rig) -> Iterator[Message]:
    """Yield what to build, and what to do with it."""
    sizes: Placeholders = {
        "out": Quantity(built.out_mm, "length"),
        "planned": Quantity(built.planned_kg, "mass"),
        "allowed": Quantity(built.allowed_kg, "mass"),
        "step": Quantity(built.allowed_kg * data.house("trial_step"), "mass"),
        "most": Quantity(_most_kg(built), "mass"),
        "hours": Figure(f"{data.house('trial_hours'):.0f}"),
    }
    yield _scrap(piece, plan)
    if plan.wall.layers and plan.wall.build != "mass":
        names = [data.linings()[layer.kind].name for layer in plan.wall.layers]
        yield Message(
            "Screw a scrap of the wall's lining over it: {linings}.",
            {"linings": joined(names)},
        )
    hanging = mount_of(piece).hanging(piece, plan.wall, plan.policy)
    yield Message(
        "Fasten one {thing} to it just as on the wall: {screw}, {long} long, drilled with the same "
        "bit and driven by the same hand."
        if hanging.order == "apart"
        else "Fasten a short piece of {thing} to it by one fixing, just as on the wall: {screw}, "
        "{long} long, drilled with the same bit and driven by the same hand.",
        {
            "thing": hanging.thing,
            "screw": data.screws()[piece.screw].called(plan.units),
            "long": Quantity(piece.screw_length_mm, "length"),
        },
    )
    yield Message(
        "Hang a bucket {out} from the wall's face, with something soft beneath. Stand beside it, "
        "not under it: it can fail without warning.",
        dict(sizes),
    )
    yield Message(
        "Add water or sand up to {planned}, the load on the hardest-worked support in the plan. "
        "Measure the front edge from a fixed point, wait {hours} hours, and measure again.",
        dict(sizes),
    )
    yield Message(
        "Then add {step} at a time, a minute each, up to {most}. The calculation allows {allowed} "
        "for years.",
        dict(sizes),
    )
    if built.breaks_kg is not None:
        yield Message(
            "To find the limit, keep adding until it fails. Expect about {breaks}, as in tests.",
            {"breaks": Quantity(built.breaks_kg, "mass")},
        )
    if built.sinks_mm >= data.house("proof_left_mm"):
        yield Message(
            "Over the years the front edge should sink by {sinks}; less on the first day.",
            {"sinks": Quantity(built.sinks_mm, "fine")},
        )


def _most_kg(built: Rig) -> float:
    """Return the greatest load of a trial that should break nothing."""
    most = built.allowed_kg * data.house("trial_up_to")
    if built.breaks_kg is None:
        return most
    return min(most, built.breaks_kg * data.house("trial_short_of"))


def _scrap(piece: AnyPiece, plan: Plan) -> Message:
    """Return what stands in for the wall."""
    wall = plan.wall
    loose = any(
        isinstance(each, Support) and not each.on_stud
        for each in mount_of(piece).supports(piece, wall)
    )
    if wall.build == "mass" or wall.structure is None:
        return Message(
            "Use a loose brick or block of the same kind, held so that it can't tip, or a spot on "
            "the wall that will be hidden."
        )
    if loose:
        name = "" if piece.anchor is None else anchor_of(wall, piece.anchor).name
        return Message(
            "Screw two offcuts of stud to a bench, spaced like the studs in the wall, and put the "
            "fixing between them: {anchor}.",
            {"anchor": name or "in the lining alone"},
        )
    if wall.build == "steel":
        return Message(
            "Use an offcut of the same steel stud, twice as long as the fixing is high. Screw its "
            "back to a board so that it can't twist."
        )
    return Message(
        "Use an offcut of stud of the same wood, as long as your arm, upright in a vice or screwed "
        "to a bench leg."
    )


def _seen(trial: Trial, built: Rig) -> Iterator[Message]:
    """Yield the result, compared with the calculation."""
    times = trial.kg / built.allowed_kg
    sizes: Placeholders = {
        "kg": Quantity(trial.kg, "mass"),
        "allowed": Quantity(built.allowed_kg, "mass"),
        "times": Figure(f"{times:.1f}"),
    }
    if trial.gave == "nothing":
        yield Message("It held {kg}: {times} × the allowable load ({allowed}).", dict(sizes))
    else:
        yield Message(
            "At {kg} {how}: {times} × the allowable load ({allowed}).",
            {"how": _GAVE[trial.gave], **sizes},
        )
    if times < 1.0:
        yield Message(
            "It failed below the allowable load: don't rely on this fixing. Look for softer wood, "
            "a pilot hole that is too wide, or a screw that stops in the lining."
            if trial.gave != "nothing"
            else "It was not loaded far enough to tell."
        )
    elif built.breaks_kg is not None and trial.gave != "nothing":
        factor = trial.kg / built.breaks_kg
        usual: Placeholders = {
            "factor": Figure(f"{factor:.2f}"),
            "breaks": Quantity(built.breaks_kg, "mass"),
        }
        yield Message(
            "That is {factor} of the usual failure load ({breaks}): weak. It leaves less margin "
            "than the calculation assumes."
            if factor < data.house("trial_weak")
            else "That is {factor} of the usual failure load ({breaks}): as expected.",
            usual,
        )
    if trial.hours < data.house("trial_hours"):
        yield Message(
            "The plan's load was on for {hours}; creep takes a day to show.",
            {"hours": counted(round(trial.hours), "{n} hour", "{n} hours")},
        )
    if trial.sag_mm is not None and built.sinks_mm >= data.house("proof_left_mm"):
        soft = trial.sag_mm > data.house("trial_sag") * built.sinks_mm
        yield Message(
            "The front edge sank {sag}; over the years it should sink by {sinks}. That is soft: "
            "the wood or the lining gives more than assumed."
            if soft
            else "The front edge sank {sag}; over the years it should sink by {sinks}.",
            {
                "sag": Quantity(trial.sag_mm, "fine"),
                "sinks": Quantity(built.sinks_mm, "fine"),
            },
        )
