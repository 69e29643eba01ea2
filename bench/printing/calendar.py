"""The days of a wall as iCalendar (RFC 5545), for any calendar.

Times by the clock on the wall, wherever it hangs.
"""

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta

from bench.words import said, say, worded
from trade import wording
from trade.job.care import Care
from trade.job.days import Schedule
from trade.measure import Units

_LOADED = timedelta(minutes=30)  # an event must last, or it is not seen


def calendar(schedule: Schedule, name: str, uid: str, made: datetime) -> bytes:
    """All steps as events.

    Args:
        schedule: the steps.
        name: of the wall, or of the job.
        uid: what is its own, which with the step's number makes the event's name: brought in
          again, it replaces itself.
        made: when this was written.
    """
    from icalendar import Calendar, Event

    found = Calendar()
    found.add("prodid", "-//Gancho//Days//EN")
    found.add("version", "2.0")
    name = wording.one_line(name)
    found.add("x-wr-calname", name)
    for n, step in enumerate(schedule.steps):
        event = Event()
        event.add("uid", f"gancho-{uid}-{n}@gancho.invalid")
        event.add("dtstamp", made.astimezone(UTC))
        event.add("dtstart", step.begins)
        event.add("dtend", max(step.ends, step.begins + _LOADED))
        event.add("summary", worded("{step}: {wall}", step=step.name, wall=name))
        said = [worded("{n} people", n=step.people)] if step.people > 1 else []
        said += (
            [worded("then it dries or sets for {n} h", n=round(step.waits_hours))]
            if step.waits_hours
            else []
        )
        said += [say(step.why)] if step.why else []
        if said:
            event.add("description", "; ".join(said))
        found.add_component(event)
    return bytes(found.to_ical())


def care_calendar(
    cares: Sequence[Care], name: str, wall: int, units: Units, made: datetime
) -> bytes:
    """Days on which to look at pieces again, as events of a whole day.

    Args:
        cares: the days.
        name: of the wall.
        wall: its number.
        units: of the person.
        made: when this was written.
    """
    from icalendar import Calendar, Event

    found = Calendar()
    found.add("prodid", "-//Gancho//Care//EN")
    found.add("version", "2.0")
    name = wording.one_line(name)
    found.add("x-wr-calname", worded("{name}: care", name=name))
    for care in cares:
        event = Event()
        event.add("uid", f"gancho-care-{wall}-{care.piece}-{care.on:%Y%m%d}@gancho.invalid")
        event.add("dtstamp", made.astimezone(UTC))
        event.add("dtstart", care.on)
        event.add("summary", worded("Look at {piece}: {wall}", piece=care.name, wall=name))
        event.add("description", " ".join(said(each, units) for each in care.words))
        found.add_component(event)
    return bytes(found.to_ical())
