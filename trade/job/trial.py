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
    "crushed": word("what lay behind it was crushed"),
    "bent": word("it bent for good"),
    "broke": word("it broke"),
}


class Rig(NamedTuple):
    """What one fixing should bear, hung as far out as the piece's front edge; `refusal`: why not.

    `check`: which gives out first; `reserve`: how far tests of that go; `sums`: how the rest
    follows. `allowed_kg`: with which that is
    used up, for years; `planned_kg`: with which it is asked for as much as in the plan, at the
    support that is asked for most; `breaks_kg`: where tests end, about, None where nobody says;
    `sinks_mm`: how far the front edge should sink under what is planned, over years.
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
    """What all trials of one fixing say of it: the worst that broke, else the best that held."""

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
        return Rig(refusal="As planned it can't hold: something is wrong besides its strength.")
    asked = max(_strength(piece, wall), key=lambda check: check.utilisation, default=None)
    pair = None if asked is None else _pair(piece, asked.support or 0)
    if asked is None or pair is None:
        return Rig(refusal="No single fixing of it can be tried by a load on it.")
    pair_kg, check = _bears(pair, wall)
    if check is None:
        return Rig(refusal="A load at its front edge asks too little of its fixings to try them.")
    used = max(
        (each.utilisation for each in _strength(piece, wall) if each.code == check.code),
        default=asked.utilisation,
    )
    sums, row = Calculation(), reserve(check)
    sums.given("W_2", pair_kg, "mass", "at the front edge between two of them: one is used up")
    sums.then("W", "W_2 / 2", "mass", "for one of them: what the sums allow, for years")
    sums.given("u", used, "percent", "how much of it the plan asks of the hardest")
    sums.then("W_p", "u W", "mass", "with which one is asked for as much as in the plan")
    if row is not None:
        sums.given("k", _times(row, wall), "ratio", "how often that tests to failure reach, about")
        sums.then("W_b", "k W", "mass", "where it gives way, about")
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
    """Return the row on how far tests of what a check is about go; None where there is none."""
    return next((row for key, row in data.reserves().items() if check.code.startswith(key)), None)


def _times(row: Reserve, wall: Wall) -> float:
    return row.european if wall.design_code == "european" else row.american


def _of_fixings(piece: AnyPiece, wall: Wall) -> list[Check]:
    """Return the checks that ask whether a fixing breaks."""
    return [
        check
        for check in mount_of(piece).checks(piece, wall)
        if check.limit == "strength" and check.support is not None
    ]


def _strength(piece: AnyPiece, wall: Wall) -> list[Check]:
    """Return those that ask how much of its strength is used."""
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
    """Return the mass between two fixings with which the first check is used up; which that is."""

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
            "Screw a scrap of what covers the wall over it: {linings}.",
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
        "Hang a bucket on it {out} out from the wall's face, and something soft beneath. Stand "
        "beside it, not under it: what gives way does so at once.",
        dict(sizes),
    )
    yield Message(
        "Fill in water or sand up to {planned}: what the hardest one takes in the plan. Read its "
        "front edge against a fixed point, leave it for {hours} hours, and read again.",
        dict(sizes),
    )
    yield Message(
        "Then go on by {step} at a time, a minute each, up to {most}. {allowed} of that is what "
        "the sums allow for years.",
        dict(sizes),
    )
    if built.breaks_kg is not None:
        yield Message(
            "Who wants to know goes on until it gives way: at about {breaks}, as tests do.",
            {"breaks": Quantity(built.breaks_kg, "mass")},
        )
    if built.sinks_mm >= data.house("proof_left_mm"):
        yield Message(
            "Over years its front edge should sink by {sinks}; on the first day by less.",
            {"sinks": Quantity(built.sinks_mm, "fine")},
        )


def _most_kg(built: Rig) -> float:
    """Return how far a trial goes on that is to break nothing."""
    most = built.allowed_kg * data.house("trial_up_to")
    if built.breaks_kg is None:
        return most
    return min(most, built.breaks_kg * data.house("trial_short_of"))


def _scrap(piece: AnyPiece, plan: Plan) -> Message:
    """Return what the wall is stood in for by."""
    wall = plan.wall
    loose = any(
        isinstance(each, Support) and not each.on_stud
        for each in mount_of(piece).supports(piece, wall)
    )
    if wall.build == "mass" or wall.structure is None:
        return Message(
            "Take a loose brick or block of the wall's own sort, laid so that it can't tip; or a "
            "place on the wall that will be hidden."
        )
    if loose:
        name = "" if piece.anchor is None else anchor_of(wall, piece.anchor).name
        return Message(
            "Screw two offcuts of stud to a bench as far apart as the studs in the wall, and hang "
            "it between them: {anchor}.",
            {"anchor": name or "in the lining alone"},
        )
    if wall.build == "steel":
        return Message(
            "Take an offcut of the same steel stud, twice as long as the fixing is high, and screw "
            "its back to a board so that it can't twist."
        )
    return Message(
        "Take an offcut of stud of the wall's own wood, as long as your arm, upright in a vice or "
        "screwed to the leg of a bench."
    )


def _seen(trial: Trial, built: Rig) -> Iterator[Message]:
    """Yield what was seen, set beside what the sums expect."""
    times = trial.kg / built.allowed_kg
    sizes: Placeholders = {
        "kg": Quantity(trial.kg, "mass"),
        "allowed": Quantity(built.allowed_kg, "mass"),
        "times": Figure(f"{times:.1f}"),
    }
    if trial.gave == "nothing":
        yield Message("It held {kg}: {times} × what the sums allow ({allowed}).", dict(sizes))
    else:
        yield Message(
            "At {kg} {how}: {times} × what the sums allow ({allowed}).",
            {"how": _GAVE[trial.gave], **sizes},
        )
    if times < 1.0:
        yield Message(
            "That is less than the sums allow: don't hang it so. Look for softer wood, a pilot "
            "hole that is too wide, or a screw that stops in the lining."
            if trial.gave != "nothing"
            else "More than that was not tried: it says little yet."
        )
    elif built.breaks_kg is not None and trial.gave != "nothing":
        factor = trial.kg / built.breaks_kg
        usual: Placeholders = {
            "factor": Figure(f"{factor:.2f}"),
            "breaks": Quantity(built.breaks_kg, "mass"),
        }
        yield Message(
            "{factor} of what tests reach, about {breaks}: weak. Its margin over the years is "
            "smaller than the sums suppose."
            if factor < data.house("trial_weak")
            else "{factor} of what tests reach, about {breaks}: as one expects.",
            usual,
        )
    if trial.hours < data.house("trial_hours"):
        yield Message(
            "What it takes in the plan hung for {hours}; what creeps shows after a day.",
            {"hours": counted(round(trial.hours), "{n} hour", "{n} hours")},
        )
    if trial.sag_mm is not None and built.sinks_mm >= data.house("proof_left_mm"):
        soft = trial.sag_mm > data.house("trial_sag") * built.sinks_mm
        yield Message(
            "Its front edge sank {sag}; over years it should by {sinks}. That is soft: the wood "
            "or the lining gives more than supposed."
            if soft
            else "Its front edge sank {sag}; over years it should by {sinks}.",
            {
                "sag": Quantity(trial.sag_mm, "fine"),
                "sinks": Quantity(built.sinks_mm, "fine"),
            },
        )
