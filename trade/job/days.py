"""When it can hang, and when it may be loaded.

The work of a plan laid into the hours that there are, drying through the night.

Sawing and sanding may be spread over days. A coat is put on in one go, and dries by the clock,
whether anybody is there or not. What is heavy waits for a day on which a helper can come.
"""

from collections.abc import Iterable, Sequence
from datetime import date, datetime, time, timedelta
from typing import NamedTuple

from trade import data
from trade.cutting.finish import Finished, finishes, finishing
from trade.cutting.order import Order, order_of
from trade.cutting.plan import CutPlan
from trade.fixings.support import Support
from trade.job import taking_off
from trade.job.calendar import Activity, NoTimeError, Task, lay_out, task
from trade.language import compose, counted, joined, word
from trade.load.lifting import lift
from trade.mounts import holes, mount_of
from trade.mounts.old_things import to_come_off
from trade.mounts.prices import hole_minutes
from trade.mounts.work import minutes as boring
from trade.plan.model import AnyPiece, Plan
from trade.plan.place import each_waiting
from trade.plan.shop import Days

_LOAD = word("Load it, slowly, and watch")


class Schedule(NamedTuple):
    """All steps in order; `refusal`: why there is no end to it, empty where there is.

    `by`: when all must hang, if anybody said; `begin_by`: the last day to begin for that, None
    where it is too late.
    """

    steps: tuple[Task, ...]
    refusal: str = ""
    by: date | None = None
    begin_by: date | None = None

    @property
    def hang(self) -> Task | None:
        """When it hangs; of several walls the first."""
        return next((step for step in self.steps if step.what == "hang"), None)

    @property
    def load(self) -> Task | None:
        """From when on it may be loaded; of several walls the last."""
        return next((step for step in reversed(self.steps) if step.what == "load"), None)

    @property
    def minutes(self) -> float:
        """What all of it takes, hands on."""
        return sum(step.minutes for step in self.steps)


def schedule(plan: Plan, cut: CutPlan, today: datetime) -> Schedule:
    """Return the days of a plan, from the day that was said or from now on.

    Args:
        plan: the wall, with its finish and the hours that there are.
        cut: how it is sawn.
        today: now, by the clock on the wall.
    """
    return schedule_of(order_of(plan), cut, today)


def schedule_of(order: Order, cut: CutPlan, today: datetime) -> Schedule:
    """Return the days of all that is made together, from the day that was said or from now on.

    Args:
        order: the walls, with their finishes and the hours that there are.
        cut: how they are sawn.
        today: now, by the clock on the wall.
    """
    days, finished = order.shop.days, finishes(order, cut.parts)
    begins = today if days.start is None else max(datetime.combine(days.start, time()), today)
    if not order.pieces:
        return Schedule((), "Nothing hangs on this wall yet.")
    if not order.waiting:
        return Schedule((), "All of it hangs already.")
    if refusal := next((each.done.refusal for each in finished if each.done.refusal), ""):
        return Schedule((), refusal)
    activities = _Making(order, cut, finished).activities()
    try:
        steps = lay_out(activities, days, begins)
    except NoTimeError:
        helper = (
            ""
            if days.helper
            else " It takes two or more to lift it: name a day when a helper can come."
        )
        return Schedule((), compose("No time for it within a year.{helper}", helper=helper))
    return Schedule(steps, begin_by=_begin_by(activities, days, begins.date()), by=days.by)


def _begin_by(activities: Sequence[Activity], days: Days, today: date) -> date | None:
    """Return the last day to begin on for all to hang by the day that was said; None: too late.

    Beginning later never ends earlier, so that halving finds it.
    """
    by = days.by
    if by is None:
        return None

    def hangs(n: int) -> bool:
        begins = datetime.combine(today + timedelta(days=n), time())
        try:
            tasks = lay_out(activities, days, begins)
        except NoTimeError:
            return False
        return all(task.ends.date() <= by for task in tasks if task.what == "hang")

    low, high = -1, (by - today).days + 1
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if hangs(middle) else (low, middle)
    return None if low < 0 else today + timedelta(days=low)


class _Making:
    """All that is done for some walls, from the shop to the load."""

    def __init__(self, order: Order, cut: CutPlan, finished: Sequence[Finished]) -> None:
        self.order, self.cut = order, cut
        self.finished = [each for each in finished if each.done.coats and each.done.area_m2 > 0]
        self._before = [each for each in self.finished if not each.finish.hung]
        self._activities: list[Activity] = []

    def activities(self) -> list[Activity]:
        """Return everything, each after what it follows."""
        self._activities = []
        minutes = data.house("shop_minutes")
        shop = self._add(task("shop", "Buy what is on the list", minutes))
        cleared = [self._clear(plan, shop) for plan in self.order.walls]
        made = self._put_together(self._sawn(shop))
        several = len(self.order.walls) > 1
        walls = list(enumerate(self.order.walls, start=1 if several else 0))
        mounted = {wall: self._mount(plan, wall, made) for wall, plan in walls}
        after = [each for each in self.finished if each.finish.hung]
        coated = []
        for each in self._before:
            rods = (mounted[wall] for wall in sorted({part.wall for part in each.parts}))
            first = [*made, *((n, 0.0) for n in rods if n is not None)]
            coated.append((each, self._coats(each, first)))
        for (wall, plan), off in zip(walls, cleared, strict=True):
            if each_waiting(plan):
                self._hang(plan, wall, off, made, coated, after)
        return self._activities

    def _add(
        self,
        job: Task,
        after: Iterable[tuple[int, float]] = (),
        spread: bool = False,
        by_clock: bool = False,
    ) -> int:
        """Put a task on the list, after what it follows; return its number."""
        self._activities.append(Activity(job, tuple(after), spread, by_clock))
        return len(self._activities) - 1

    def _clear(self, plan: Plan, shop: int) -> tuple[int, float] | None:
        old = to_come_off(plan)
        if not old:
            return None
        minutes = sum(taking_off.minutes(each) for each in old)
        said = compose("Take off {what}, and fill", what=joined(f.row.reason for f in old))
        hours = taking_off.FILLS_HOURS
        job = task("off", said, minutes, waits_hours=hours, why="the filler dries")
        return self._add(job, [(shop, 0.0)], spread=True), hours

    def _sawn(self, shop: int) -> list[tuple[int, float]]:
        """Saw, bore and glue up the parts."""
        cut, last = self.cut, [(shop, 0.0)]
        if cut.parts:
            minutes = len(cut.parts) * data.house("cut_minutes") + boring(tuple(cut.bores))
            many = counted(len(cut.parts), "{n} part", "{n} parts")
            job = task("saw", compose("Saw and bore {parts}", parts=many), minutes)
            last = [(self._add(job, last, spread=True), 0.0)]
        if cut.glue_lines:
            minutes = cut.glue_lines * data.house("glue_up_minutes")
            said = compose("Glue up {parts}", parts=joined(part.label for part in cut.made_up))
            hours, why = data.house("glue_hours"), "the glue sets"
            job = task("glue", said, minutes, waits_hours=hours, why=why)
            last = [(self._add(job, last, spread=True), hours)]
        return last

    def _put_together(self, last: list[tuple[int, float]]) -> list[tuple[int, float]]:
        """Put together the bodies that are made; their glue sets."""
        pieces = [piece for piece, _ in self.order.waiting]
        made = [piece for piece in pieces if mount_of(piece).making(piece).minutes]
        if not made:
            return last
        minutes = sum(mount_of(piece).making(piece).minutes for piece in made)
        hours = max(mount_of(piece).making(piece).sets_hours for piece in made)
        said = compose("Put together {names}", names=_names(made))
        why = "the glue sets" if hours else ""
        job = task("build", said, minutes, waits_hours=hours, why=why)
        return [(self._add(job, last, spread=True), hours)]

    def _from_wall(self, plan: Plan, wall: int) -> list[tuple[AnyPiece, Plan]]:
        """Return the pieces that are bored from their rods and then finished."""
        keys = {part.key for each in self._before for part in each.parts if part.wall == wall}
        return [
            each
            for each in each_waiting(plan)
            if each[0].key in keys and mount_of(each[0]).bored_from_wall
        ]

    def _mount(self, plan: Plan, wall: int, made: Sequence[tuple[int, float]]) -> int | None:
        first = self._from_wall(plan, wall)
        if not first:
            return None
        minutes = sum(_hanging(piece, there) - data.house("hang_minutes") for piece, there in first)
        said = compose(
            "Put up the rods of {names}, and bore it from there"
            if len(first) == 1
            else "Put up the rods of {names}, and bore them from there",
            names=_names([piece for piece, _ in first]),
        )
        why = "measured and bored from there, before the finish"
        return self._add(task("mount", said, minutes, why=why), made)

    def _hang(
        self,
        plan: Plan,
        wall: int,
        cleared: tuple[int, float] | None,
        made: Sequence[tuple[int, float]],
        coated: Sequence[tuple[Finished, tuple[int, float]]],
        after: Sequence[Finished],
    ) -> None:
        """Hang all that waits on a wall, finish what is finished there, and load it."""
        waiting = each_waiting(plan)
        people = max(_people(piece) for piece, _ in waiting)
        mounted = sum(
            _hanging(piece, there) - data.house("hang_minutes")
            for piece, there in self._from_wall(plan, wall)
        )
        minutes = sum(_hanging(piece, there) for piece, there in waiting) - mounted
        resin = any(in_resin(piece, there) for piece, there in waiting)
        sets = data.house("resin_hours") if resin else 0.0
        why = "the resin sets before anything hangs on its rods" if sets else ""
        names = _names([piece for piece, _ in waiting])
        said = (
            compose("Hang {names}: {wall}", names=names, wall=plan.name)
            if wall
            else compose("Hang {names}", names=names)
        )
        here = [
            (each, last) for each, last in coated if any(part.wall == wall for part in each.parts)
        ]
        first = [*made, *(last for _, last in here), *([cleared] if cleared else [])]
        hung = self._add(task("hang", said, minutes, people, sets, why), first)
        free = [(hung, sets)]
        for each, (last, handle) in here:
            free.append((last, max(each.done.load_hours, handle)))
        for each in after:
            own = tuple(part for part in each.parts if part.wall == wall)
            if own:
                part_of = each._replace(parts=own, done=finishing(each.finish, own))
                last, _ = self._coats(part_of, [(hung, sets)])
                free.append((last, part_of.done.load_hours))
        hard = any(hours for n, hours in free[1:])
        why = "the finish must be hard, or things stick to it" if hard else ""
        load = compose("Load {wall}, slowly, and watch", wall=plan.name) if wall else _LOAD
        self._add(task("load", load, 0.0, why=why), free, by_clock=True)

    def _coats(self, each: Finished, after: Sequence[tuple[int, float]]) -> tuple[int, float]:
        """Prepare and coat some parts; which is the last coat, and how long before hands touch it.

        Between two coats nothing of these parts goes on; other work does.
        """
        done, last = each.done, list(after)
        parts: str = ""
        if len(each.parts) < len(self.cut.parts):
            parts = compose(": {named}", named=each.named)

        def prepare(goes: str) -> None:
            nonlocal last
            for row in done.prepared:
                if row.goes == goes:
                    minutes = row.minutes + row.minutes_m2 * done.area_m2
                    hours = row.hours * done.slower
                    name = compose("{what!c}{parts}", what=row.name, parts=parts)
                    job = task("prepare", name, minutes, 1, hours, row.why or row.words)
                    last = [(self._add(job, last), hours)]

        hung = each.finish.hung
        if hung:
            prepare("hung")
        prepare("bare")
        minutes = done.area_m2 * data.house("sand_minutes_m2")
        name: str = compose("Sand the parts{parts}", parts=parts)
        grits = joined((str(grit) for grit in done.grits), ", ")
        why = compose("with {grits} grit, the finest last", grits=grits) if grits else ""
        last = [(self._add(task("sand", name, minutes, why=why), last, spread=True), 0.0)]
        prepare("sanded")
        every = [(coats, n) for coats in done.coats for n in range(coats.coats)]
        for i, (coats, n) in enumerate(every):
            if n == 0 and coats.row.role == "top":
                prepare("under")
            minutes = data.house("coat_minutes") + done.area_m2 * data.house("coat_minutes_m2")
            sanded = i > 0 and coats.row.sand and (n > 0 or coats.row.role == "barrier")
            minutes += done.area_m2 * data.house("resand_minutes_m2") if sanded else 0.0
            name = compose(
                "Sand lightly, then {row}, coat {n} of {coats}{parts}"
                if sanded
                else "{row!c}, coat {n} of {coats}{parts}",
                row=coats.row.name,
                n=n + 1,
                coats=coats.coats,
                parts=parts,
            )
            row, end = coats.row, i + 1 == len(every)
            waits = (row.handle_hours if end else row.recoat_hours) * done.slower
            why = coats.why or "it dries"
            last = [(self._add(task("coat", name, minutes, 1, waits, why), last), waits)]
        return last[0]


def _names(pieces: Sequence[AnyPiece]) -> str:
    """One or two by their names, more by how many they are."""
    if len(pieces) == 2:
        return compose("“{one}” and “{other}”", one=pieces[0].name, other=pieces[1].name)
    return (
        compose("“{name}”", name=pieces[0].name)
        if len(pieces) == 1
        else compose("all {n}", n=len(pieces))
    )


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
