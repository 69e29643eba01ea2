"""The days of a wall as iCalendar (RFC 5545), for any calendar: times by the clock on the wall, wherever it hangs."""

from datetime import UTC, datetime, timedelta

from trade.job.days import Schedule

_LOADED = timedelta(minutes=30)  # an event must last, or it is not seen


def calendar(schedule: Schedule, name: str, wall: int, made: datetime) -> bytes:
    """All steps as events.

    Args:
        schedule: the steps.
        name: of the wall.
        wall: its number, which with the step's makes the event's name: brought in again, it replaces itself.
        made: when this was written.
    """
    from icalendar import Calendar, Event

    found = Calendar()
    found.add("prodid", "-//Gancho//Days//EN")
    found.add("version", "2.0")
    found.add("x-wr-calname", name)
    for n, step in enumerate(schedule.steps):
        event = Event()
        event.add("uid", f"gancho-wall-{wall}-{n}@gancho.invalid")
        event.add("dtstamp", made.astimezone(UTC))
        event.add("dtstart", step.begins)
        event.add("dtend", max(step.ends, step.begins + _LOADED))
        event.add("summary", f"{step.name}: {name}")
        said = [f"{step.people} people"] if step.people > 1 else []
        said += [f"then it dries or sets for {step.waits_hours:.0f} h"] if step.waits_hours else []
        said += [step.why] if step.why else []
        if said:
            event.add("description", "; ".join(said))
        found.add_component(event)
    return bytes(found.to_ical())
