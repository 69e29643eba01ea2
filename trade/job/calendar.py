"""Work laid into the hours that there are; what dries or sets goes on through the night."""

from collections.abc import Iterator, Sequence
from datetime import datetime, time, timedelta
from typing import Literal, NamedTuple

from trade.plan.shop import Days

_MOST_DAYS = 400
What = Literal[
    "shop", "off", "saw", "glue", "build", "mount", "prepare", "sand", "coat", "hang", "load"
]


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


class NoTimeError(Exception):
    """No time for it within a year."""


class Activity(NamedTuple):
    """A task before it has its place in the calendar.

    `after`: what it follows, each with how many hours after that ends; `spread`: it may be left and
    taken up again; `by_clock`: it needs nobody and may be at night; the reason that its task names
    is that of all it follows but for the first.
    """

    task: Task
    after: tuple[tuple[int, float], ...] = ()
    spread: bool = False
    by_clock: bool = False


class Calendar:
    """The hours that there are, and which of them are taken."""

    def __init__(self, days: Days, begins: datetime) -> None:
        """All hours are free, from then on."""
        self.days, self.begins = days, begins
        self._taken: list[tuple[datetime, datetime]] = []

    def lay(self, activity: Activity, earliest: datetime) -> tuple[datetime, datetime]:
        """Book its hours, no earlier than `earliest`; return when it begins and ends."""
        if activity.by_clock:
            return earliest, earliest
        length = timedelta(minutes=activity.task.minutes)
        if activity.spread:
            return self._spread(length, earliest)
        return self._at_once(length, earliest, activity.task.people > 1)

    def _free(self, earliest: datetime, helper: bool) -> Iterator[tuple[datetime, datetime]]:
        """Yield times in which one works and has nothing to do yet."""
        taken = sorted(self._taken)
        for n in range(_MOST_DAYS):
            day = self.begins.date() + timedelta(days=n)
            hours = self.days.week[day.weekday()]
            if hours is None or (helper and day.weekday() not in self.days.helper):
                continue
            midnight = datetime.combine(day, time())
            at = max(midnight + timedelta(hours=hours.begins), earliest)
            ends = midnight + timedelta(hours=hours.ends)
            for start, end in taken:
                if start < ends and end > at:
                    if start > at:
                        yield at, start
                    at = end
            if at < ends:
                yield at, ends

    def _spread(self, length: timedelta, earliest: datetime) -> tuple[datetime, datetime]:
        first, left = None, length
        for begins, ends in self._free(earliest, helper=False):
            first = first or begins
            now = min(begins + left, ends)
            self._taken.append((begins, now))
            left -= now - begins
            if not left:
                return first, now
        raise NoTimeError

    def _at_once(
        self, length: timedelta, earliest: datetime, helper: bool
    ) -> tuple[datetime, datetime]:
        """Book hours without a break; where no day is long enough, the longest, and beyond."""
        longest: tuple[datetime, datetime] | None = None
        for begins, ends in self._free(earliest, helper):
            if ends - begins >= length:
                longest = (begins, ends)
                break
            if longest is None or ends - begins > longest[1] - longest[0]:
                longest = (begins, ends)
        if longest is None:
            raise NoTimeError
        begins = longest[0]
        self._taken.append((begins, begins + length))
        return begins, begins + length


def lay_out(activities: Sequence[Activity], days: Days, begins: datetime) -> tuple[Task, ...]:
    """Return the tasks in the order in which they begin.

    Raises:
        NoTimeError: there is no time for one of them.
    """
    calendar = Calendar(days, begins)
    ends: list[datetime] = []
    found: list[Task] = []
    for activity in activities:
        earliest = max(
            (ends[n] + timedelta(hours=hours) for n, hours in activity.after), default=begins
        )
        start, end = calendar.lay(activity, earliest)
        ends.append(end)
        done = activity.task._replace(begins=start, ends=end)
        if activity.by_clock and all(
            ends[n] + timedelta(hours=h) >= start for n, h in activity.after[:1]
        ):
            done = done._replace(why="")  # it does not wait for that
        found.append(done)
    return tuple(sorted(found, key=lambda task: task.begins))


def task(
    what: What,
    name: str,
    minutes: float,
    people: int = 1,
    waits_hours: float = 0.0,
    why: str = "",
) -> Task:
    """Return what is to be done, before it has its time."""
    return Task(what, name, datetime.min, datetime.min, minutes, people, waits_hours, why)
