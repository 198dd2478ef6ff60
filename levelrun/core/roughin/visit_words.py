"""Sentences of inspections: what is to come, how it ended, what was found and is mended, what holds are lifted."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from levelrun.core.job import Fault, Visit
from levelrun.core.roughin.named import node_of
from levelrun.core.site.scene import Said, SceneReader

HOUR = re.compile(r"(?:[01]?\d|2[0-3]):[0-5]\d")
VISITS = ("insulation", "drywall", "backfill", "power", "final")
ROUGH = ("rough-in", "rough in", "rough")  # before insulation, or before drywall: it has to be said which


def kind_of_visit(reader: SceneReader) -> str:
    """What an inspection looks at, its word inspection behind it or not."""
    reader.expect(VISITS)
    if reader.phrase(ROUGH) is not None:
        raise reader.refuse("a rough-in inspection comes before insulation, or before drywall: say which of them")
    kind = reader.need(VISITS, "what it looks at")
    reader.phrase(["inspection"])
    return kind


def place_of(reader: SceneReader, kind: str) -> str:
    """The building or trench that a visit or hold is about; without it the only one."""
    job = reader.scene.job
    own = {t.name: t.id for t in job.trenches} if kind == "backfill" else {s.name: s.id for s in job.structures}
    reader.phrase(["of", "at", "for", "in"])
    word = reader.phrase(own)
    if word is not None:
        return own[word]
    if len(own) == 1:
        return next(iter(own.values()))
    what = "a trench" if kind == "backfill" else "a building"
    raise reader.fail(f"{what} by its name: {', '.join(own)}" if own else f"{what}: there is none yet")


def visit(reader: SceneReader) -> Said:
    """visit drywall HOUSE on 2026-05-12 [9:00] [by WHO]: an inspection that is to come."""
    kind = kind_of_visit(reader)
    return to_come(reader, kind, place_of(reader, kind))


def to_come(reader: SceneReader, kind: str, place: str) -> Said:
    """What follows an inspection that is to come: day, hour, by whom."""
    item: dict[str, Any] = {"kind": kind, "place": place}
    item["on"] = reader.on_day()
    reader.phrase(["at"])
    if (match := reader.take(HOUR)) is not None:
        item["hour"] = match[0].zfill(5)
    if reader.phrase(["by"]):
        item["who"] = reader.name()
    return Said([{"op": "add", "kind": "visit", "item": item}])


def _last(reader: SceneReader, kind: str, place: str) -> Visit:
    own = [v for v in reader.scene.job.visits if (v.kind, v.place) == (kind, place) and not v.result]
    if not own:
        raise reader.refuse("no such inspection is to come: say visit, what it looks at, and when", allowed=["visit"])
    return min(own, key=lambda v: v.on or "9")


def passed(reader: SceneReader) -> Said:
    """passed drywall HOUSE [by WHO] [on 2026-05-12]: the inspection that was to come; its hold is lifted."""
    kind = kind_of_visit(reader)
    return has_passed(reader, kind, place_of(reader, kind))


def has_passed(reader: SceneReader, kind: str, place: str) -> Said:
    """What follows an inspection that was passed: by whom, the day."""
    own = _last(reader, kind, place)
    who = reader.name(("on",)) if reader.phrase(["by"]) else ""
    return Said([{"op": "end_visit", "visit": own.id, "result": "passed", "who": who, "on": reader.on_day()}])


def failed(reader: SceneReader) -> Said:
    """failed drywall HOUSE: staple 14" from S-2 [at BOX] [by 314.17]: what was found; its hold stays."""
    kind = kind_of_visit(reader)
    return has_failed(reader, kind, place_of(reader, kind))


def has_failed(reader: SceneReader, kind: str, place: str) -> Said:
    """What follows an inspection that failed: what was found, where, by which section, the day."""
    own = _last(reader, kind, place)
    reader.colon()
    item: dict[str, Any] = {"text": _found(reader)}
    if reader.phrase(["at"]):
        item["node"] = node_of(reader).id
    if reader.phrase(["by"]):
        item["section"] = reader.token("a section", ".()-")
    return Said([{"op": "end_visit", "visit": own.id, "result": "failed", "found": [item], "on": reader.on_day()}])


def _found(reader: SceneReader) -> str:
    """What was found: in double quotes, or all words up to `at` a box, `by` a section, `on` a day."""
    reader.expect(['"what was found"'])
    names = "|".join(re.escape(node.name) for node in reader.scene.job.nodes) or "(?!)"
    ends = rf"\s+at\s+(?:{names})(?![\w-])|\s+by\s+\d|\s+on\s+\d{{4}}-|\s*(?:$|\n|;)"
    plain = rf"(?P<plain>[^\"\s;][^\n;]{{0,299}}?)(?={ends})"
    match = re.compile(rf'"(?P<quoted>[^"\n]{{1,300}})"|{plain}', re.IGNORECASE).match(reader.text, reader.pos)
    if match is None:
        raise reader.fail("what was found")
    reader.pos = match.end()
    return match["quoted"] or match["plain"]


def mended(reader: SceneReader) -> Said:
    """mended [BOX] on 2026-05-12 [by WHO]: what was found there, or the only thing found, is mended."""
    job = reader.scene.job
    still = [fault for fault in job.faults if not fault.mended_on]
    at = {node.name: node.id for node in job.nodes if any(f.node == node.id for f in still)}
    word = reader.phrase(at)
    own = [fault for fault in still if word is None or fault.node == at[word]]
    if word is None and len(own) > 1:
        reader.expect(list(at))
        raise reader.fail("at which box")
    return mended_now(reader, own)


def mended_now(reader: SceneReader, own: list[Fault]) -> Said:
    """What follows what was found and is mended: the day, by whom."""
    if not own:
        raise reader.refuse("nothing that was found is open")
    on = reader.on_day()
    if not on:
        reader.expect(["on 2026-05-12"])
        raise reader.fail("on and the day")
    by = reader.name() if reader.phrase(["by"]) else ""
    return Said([{"op": "mend_fault", "fault": fault.id, "on": on, "by": by} for fault in own])


def lift(kind: str) -> Callable[[SceneReader], Said]:
    """lift drywall [HOUSE] by WHO [on 2026-05-12]: the hold of a building, by whoever saw it."""

    def read(reader: SceneReader) -> Said:
        place = place_of(reader, kind)
        reader.need(("by",), "by and who saw it")
        who = reader.name(("on",))
        return Said([{"op": "lift_building", "kind": kind, "structure": place, "by": who, "on": reader.on_day()}])

    read.__doc__ = lift.__doc__
    return read


VISITED = {
    "visit": visit, "passed": passed, "failed": failed, "mended": mended,
    **{f"lift {kind}": lift(kind) for kind in ("insulation", "drywall", "power")},
}  # fmt: skip
