"""Holds and inspections as iCalendar (RFC 5545), written by the icalendar library.

An inspection is an event with its hour, or a whole day where none is said; a hold is a task (VTODO) with what it
waits for, done once it is lifted. Times are local to the site: they float, as an inspector means them.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, date, datetime, timedelta

from icalendar import Calendar, Event, Todo

from levelrun.core.job import Job, Visit
from levelrun.core.roughin.waits import HoldRow, named

LONG = timedelta(hours=1)


def write_ics(job: Job, job_id: str, holds: Sequence[HoldRow], now: datetime) -> bytes:
    """The calendar of a job. `now`: the moment it is written at, for its stamps."""
    calendar = Calendar()
    calendar.add("prodid", "-//Level Run//holds and inspections//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{job.name}: holds and inspections")
    stamp = now.astimezone(UTC)
    names = {item.id: item.name for item in job.structures}
    names |= {item.id: item.name for item in job.trenches}
    for visit in job.visits:
        if visit.on:
            calendar.add_component(_event(job, job_id, visit, names.get(visit.place, ""), stamp))
    for hold in holds:
        calendar.add_component(_task(job, job_id, hold, stamp))
    return bytes(calendar.to_ical())


def _event(job: Job, job_id: str, visit: Visit, place: str, stamp: datetime) -> Event:
    event = Event()
    event.add("uid", f"{visit.id}.{job_id}@levelrun.invalid")
    event.add("dtstamp", stamp)
    event.add("summary", f"Inspection before {visit.kind}: {place}" if visit.kind != "final" else f"Final: {place}")
    day = date.fromisoformat(visit.on)
    if visit.hour:
        start = datetime.combine(day, datetime.strptime(visit.hour, "%H:%M").time())
        event.add("dtstart", start)
        event.add("dtend", start + LONG)
    else:
        event.add("dtstart", day)
        event.add("dtend", day + timedelta(days=1))
    event.add("location", job.name)
    found = [fault for fault in job.faults if fault.visit == visit.id]
    told = [visit.who, visit.result, visit.ticket, visit.remarks]
    told += [f"found: {f.text} {f.section}{', mended ' + f.mended_on if f.mended_on else ''}".strip() for f in found]
    event.add("description", "\n".join(line for line in told if line))
    return event


def _task(job: Job, job_id: str, hold: HoldRow, stamp: datetime) -> Todo:
    task = Todo()
    task.add("uid", f"{hold.key}.{job_id}@levelrun.invalid")
    task.add("dtstamp", stamp)
    task.add("summary", f"{hold.title}: {hold.where}")
    waits = named([wait.text for wait in hold.waits])
    task.add("description", f"lifted {hold.lifted_text}" if hold.lifted else f"held; waits for: {waits or 'a visit'}")
    task.add("status", "COMPLETED" if hold.lifted else "NEEDS-ACTION")
    return task
