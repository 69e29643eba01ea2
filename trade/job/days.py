"""When it can hang, and when it may be loaded.

The work of a plan laid into the hours that there are, drying through the night.

Sawing and sanding may be spread over days. A coat is put on in one go, and dries by the clock,
whether anybody is there or not. What is heavy waits for a day on which a helper can come.
"""

from collections.abc import Iterator, Sequence
from datetime import datetime, time, timedelta
from typing import Literal, NamedTuple

from trade import data
from trade.cutting.finish import Finishing, finishing
from trade.cutting.plan import CutPlan
from trade.fixings.support import Support
from trade.job import taking_off
from trade.language import compose, counted, joined
from trade.load.lifting import lift
from trade.mounts import holes, mount_of
from trade.mounts.old_things import to_come_off
from trade.mounts.prices import hole_minutes
from trade.mounts.work import minutes as boring
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_piece, each_waiting
from trade.plan.shop import Days

_MOST_DAYS = 400
What = Literal["shop", "off", "saw", "glue", "build", "mount", "sand", "coat", "hang", "load"]


class Task(NamedTuple):
    """One thing to do.

    When it begins and ends, how long it takes, how many must be there, what to know.

    `waits_hours`: how long after it nothing goes on, for it dries or sets; `why`: what that is.
    """

    what: What
    name: str
    begins: datetime
    ends: datetime
    minutes: float
    people: int = 1
    waits_hours: float = 0.0
    why: str = ""


class Schedule(NamedTuple):
    """All steps in order; `refusal`: why there is no end to it, empty where there is."""

    steps: tuple[Task, ...]
    refusal: str = ""

    @property
    def hang(self) -> Task | None:
        """When it hangs."""
        return next((step for step in self.steps if step.what == "hang"), None)

    @property
    def load(self) -> Task | None:
        """From when on it may be loaded."""
        return next((step for step in self.steps if step.what == "load"), None)

    @property
    def minutes(self) -> float:
        """What all of it takes, hands on."""
        return sum(step.minutes for step in self.steps)


class _FullError(Exception):
    """No time for it within a year."""


class _Clock:
    """Where time has come to, in the hours that there are."""

    def __init__(self, days: Days, now: datetime) -> None:
        self.days, self.now = days, now

    def _windows(self, helper: bool) -> Iterator[tuple[datetime, datetime]]:
        """Yield times in which one works, from now on."""
        for n in range(_MOST_DAYS):
            day = self.now.date() + timedelta(days=n)
            hours = self.days.week[day.weekday()]
            if hours is None or (helper and day.weekday() not in self.days.helper):
                continue
            midnight = datetime.combine(day, time())
            begins = midnight + timedelta(hours=hours.begins)
            ends = midnight + timedelta(hours=hours.ends)
            if ends > self.now:
                yield max(begins, self.now), ends

    def spread(self, minutes: float) -> tuple[datetime, datetime]:
        """Work that may be left and taken up again."""
        first, left = None, timedelta(minutes=minutes)
        for begins, ends in self._windows(helper=False):
            first = first or begins
            if ends - begins >= left:
                self.now = begins + left
                return first, self.now
            left -= ends - begins
        raise _FullError

    def at_once(self, minutes: float, helper: bool = False) -> tuple[datetime, datetime]:
        """Work that is done in one go.

        Where no day is long enough, from the beginning of the longest on.
        """
        wanted, longest = timedelta(minutes=minutes), None
        for begins, ends in self._windows(helper):
            if ends - begins >= wanted:
                self.now = begins + wanted
                return begins, self.now
            if longest is None or ends - begins > longest[1] - longest[0]:
                longest = (begins, ends)
        if longest is None:
            raise _FullError
        self.now = longest[0] + wanted
        return longest[0], self.now

    def wait(self, hours: float) -> None:
        """Let it dry."""
        self.now += timedelta(hours=hours)


def schedule(plan: Plan, cut: CutPlan, today: datetime) -> Schedule:
    """Return the days of a plan, from the day that was said or from now on.

    Args:
        plan: the wall, with its finish and the hours that there are.
        cut: how it is sawn.
        today: now, by the clock on the wall.
    """
    days, done = plan.shop.days, finishing(plan.shop.finish, cut.parts)
    begins = today if days.start is None else max(datetime.combine(days.start, time()), today)
    if not each_piece(plan):
        return Schedule((), "Nothing hangs on this wall yet.")
    if not each_waiting(plan):
        return Schedule((), "All of it hangs already.")
    if done.refusal:
        return Schedule((), done.refusal)
    try:
        return Schedule(tuple(_steps(plan, cut, done, _Clock(days, begins))))
    except _FullError:
        helper = (
            ""
            if days.helper
            else " It takes two or more to lift it: name a day when a helper can come."
        )
        return Schedule((), compose("No time for it within a year.{helper}", helper=helper))


def _steps(plan: Plan, cut: CutPlan, done: Finishing, clock: _Clock) -> Iterator[Task]:
    minutes = data.house("shop_minutes")
    yield Task("shop", "Buy what is on the list", *clock.at_once(minutes), minutes)
    old, filled = to_come_off(plan), clock.now
    if old:
        minutes = sum(taking_off.minutes(each) for each in old)
        said = compose("Take off {what}, and fill", what=joined(f.row.reason for f in old))
        hours = taking_off.FILLS_HOURS
        why = "the filler dries"
        yield Task("off", said, *clock.spread(minutes), minutes, 1, hours, why)
        filled = clock.now + timedelta(hours=hours)
    bored = boring(tuple(cut.bores))
    if cut.parts:
        minutes = len(cut.parts) * data.house("cut_minutes") + bored
        yield Task(
            "saw",
            compose("Saw and bore {parts}", parts=counted(len(cut.parts), "{n} part", "{n} parts")),
            *clock.spread(minutes),
            minutes,
        )
    if cut.glue_lines:
        minutes, hours = cut.glue_lines * data.house("glue_up_minutes"), data.house("glue_hours")
        said = compose("Glue up {parts}", parts=joined(part.label for part in cut.made_up))
        yield Task("glue", said, *clock.spread(minutes), minutes, 1, hours, "the glue sets")
        clock.wait(hours)
    waiting = each_waiting(plan)
    yield from _bodies([piece for piece, _ in waiting], clock)
    people = max((_people(piece) for piece, _ in waiting), default=1)
    minutes = sum(_hanging(piece, there) for piece, there in waiting)
    if done.coats and done.area_m2 > 0:
        first = [each for each in waiting if mount_of(each[0]).bored_from_wall]
        if first:
            hanging = data.house("hang_minutes")
            mounting = sum(_hanging(piece, there) - hanging for piece, there in first)
            minutes -= mounting
            why = "measured and bored from there, before the finish"
            said = compose(
                "Put up the rods of {names}, and bore it from there"
                if len(first) == 1
                else "Put up the rods of {names}, and bore them from there",
                names=_names([piece for piece, _ in first]),
            )
            yield Task("mount", said, *clock.at_once(mounting), mounting, 1, 0.0, why)
        yield from _coats(done, clock)
    resin = any(in_resin(piece, there) for piece, there in waiting)
    sets = data.house("resin_hours") if resin else 0.0
    why = "the resin sets before anything hangs on its rods" if sets else ""
    finished = clock.now
    clock.now = max(clock.now, filled)
    hung = clock.at_once(minutes, helper=people > 1)
    yield Task(
        "hang",
        compose("Hang {names}", names=_names([piece for piece, _ in waiting])),
        *hung,
        minutes,
        people,
        sets,
        why,
    )
    hard = (
        max((each.row.load_days for each in done.coats), default=0.0) * 24 * done.slower
        if done.area_m2 > 0
        else 0.0
    )
    last = finished - timedelta(hours=_handle(done)) if done.coats else finished
    loaded = max(hung[1] + timedelta(hours=sets), last + timedelta(hours=hard))
    why = (
        "the finish must be hard, or things stick to it"
        if hard and loaded > hung[1] + timedelta(hours=sets)
        else ""
    )
    yield Task("load", "Load it, slowly, and watch", loaded, loaded, 0.0, 1, 0.0, why)


def _bodies(pieces: list[AnyPiece], clock: _Clock) -> Iterator[Task]:
    """Yield the putting together of bodies that are made, and the setting of their glue."""
    made = [piece for piece in pieces if mount_of(piece).making(piece).minutes]
    if not made:
        return
    minutes = sum(mount_of(piece).making(piece).minutes for piece in made)
    hours = max(mount_of(piece).making(piece).sets_hours for piece in made)
    said = compose("Put together {names}", names=_names(made))
    yield Task(
        "build", said, *clock.spread(minutes), minutes, 1, hours, "the glue sets" if hours else ""
    )
    clock.wait(hours)


def _names(pieces: Sequence[AnyPiece]) -> str:
    """One or two by their names, more by how many they are."""
    if len(pieces) == 2:
        return compose("“{one}” and “{other}”", one=pieces[0].name, other=pieces[1].name)
    return (
        compose("“{name}”", name=pieces[0].name)
        if len(pieces) == 1
        else compose("all {n}", n=len(pieces))
    )


def _handle(done: Finishing) -> float:
    """How long after the last coat before hands touch it."""
    return done.coats[-1].row.handle_hours * done.slower


def _coats(done: Finishing, clock: _Clock) -> Iterator[Task]:
    minutes = done.area_m2 * data.house("sand_minutes_m2")
    yield Task("sand", "Sand the parts", *clock.spread(minutes), minutes)
    every = [(each, n) for each in done.coats for n in range(each.coats)]
    for i, (each, n) in enumerate(every):
        minutes = data.house("coat_minutes") + done.area_m2 * data.house("coat_minutes_m2")
        sanded = i > 0 and each.row.sand and (n > 0 or each.row.role == "barrier")
        minutes += done.area_m2 * data.house("resand_minutes_m2") if sanded else 0.0
        name = compose(
            "Sand lightly, then {row}, coat {n} of {coats}"
            if sanded
            else "{row!c}, coat {n} of {coats}",
            row=each.row.name,
            n=n + 1,
            coats=each.coats,
        )
        went = clock.at_once(minutes)
        waits = (
            each.row.recoat_hours if i + 1 < len(every) else each.row.handle_hours
        ) * done.slower
        clock.wait(waits)
        yield Task("coat", name, *went, minutes, 1, waits, each.why or "it dries")


def _people(piece: AnyPiece) -> int:
    """How many must lift it."""
    kg = mount_of(piece).weight_kg(piece)
    return lift(kg, piece.depth_mm, piece.top_mm).people if kg else 1


def _hanging(piece: AnyPiece, plan: Plan) -> float:
    """Minutes to hang it."""
    mount, count = mount_of(piece), len(holes(mount_of(piece).supports(piece, plan.wall)))
    each = data.mounting_kinds()[mount.kind].each * len(piece.supports_mm)
    supports = mount.supports(piece, plan.wall)
    fit = {s.stud.across for s in supports if s.stud.across in plan.wood_to_fit}
    opened = sum(
        data.house("board_minutes" if wood.on_face else "blocking_minutes") for wood in fit
    )
    return data.house("hang_minutes") + each + count * hole_minutes(plan.wall) + opened


def in_resin(piece: AnyPiece, plan: Plan) -> bool:
    """Whether it hangs on rods in resin."""
    return any(
        isinstance(support, Support)
        and support.capacity is not None
        and support.capacity.anchor is not None
        and support.capacity.anchor.kind == "resin"
        for support in mount_of(piece).supports(piece, plan.wall)
    )
