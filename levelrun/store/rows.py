"""The parts of a job as rows, and back. Literal SQL, every value bound."""

from __future__ import annotations

import json
import sqlite3
from typing import Any

from levelrun.core.job import Habits, Job

Part = dict[str, Any]
COLUMNS: dict[str, tuple[str, ...]] = {
    "structures": ("id", "name", "kind", "grade_in", "ceiling_in", "under_floor_in"),
    "panels": ("id", "name", "structure", "height_in"),
    "boxes": ("id", "name", "structure", "kind", "height_in", "clamps"),
    "runs": (
        "id", "name", "circuit", "start", "volts", "breaker_a", "load_a", "wire_size", "material",
        "insulation", "conductors", "neutral", "nameplate", "gfci",
    ),
}  # fmt: skip
BOOLS = {"clamps", "neutral", "nameplate", "gfci"}

INSERT = {
    "structures": "INSERT INTO structure (job_id, place, id, name, kind, grade_in, ceiling_in, under_floor_in)"
    " VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
    "panels": "INSERT INTO panel (job_id, place, id, name, structure, height_in) VALUES (?, ?, ?, ?, ?, ?)",
    "boxes": "INSERT INTO box (job_id, place, id, name, structure, kind, height_in, clamps)"
    " VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
    "runs": "INSERT INTO run (job_id, place, id, name, circuit, start, volts, breaker_a, load_a, wire_size,"
    " material, insulation, conductors, neutral, nameplate, gfci)"
    " VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
}
DELETE = {
    "structures": "DELETE FROM structure WHERE job_id = ? AND id = ? RETURNING place",
    "panels": "DELETE FROM panel WHERE job_id = ? AND id = ? RETURNING place",
    "boxes": "DELETE FROM box WHERE job_id = ? AND id = ? RETURNING place",
    "runs": "DELETE FROM run WHERE job_id = ? AND id = ? RETURNING place",
}
SELECT = {
    "structures": "SELECT * FROM structure WHERE job_id = ? ORDER BY place",
    "panels": "SELECT * FROM panel WHERE job_id = ? ORDER BY place",
    "boxes": "SELECT * FROM box WHERE job_id = ? ORDER BY place",
    "runs": "SELECT * FROM run WHERE job_id = ? ORDER BY place",
}
LAST = {
    "structures": "SELECT coalesce(max(place), -1) FROM structure WHERE job_id = ?",
    "panels": "SELECT coalesce(max(place), -1) FROM panel WHERE job_id = ?",
    "boxes": "SELECT coalesce(max(place), -1) FROM box WHERE job_id = ?",
    "runs": "SELECT coalesce(max(place), -1) FROM run WHERE job_id = ?",
}
INSERT_LEG = (
    "INSERT INTO leg (job_id, run_id, place, go, length_in, lies_in, method, size, depth_in, bends_deg,"
    " sleeve, met, ribbon, expansion, facts, end_kind, end_node)"
    " VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)"
)


def read_job(db: sqlite3.Connection, job_id: str, row: sqlite3.Row) -> Job:
    """The whole job from its rows."""
    legs: dict[str, list[Part]] = {}
    for leg in db.execute("SELECT * FROM leg WHERE job_id = ? ORDER BY run_id, place", (job_id,)):
        legs.setdefault(leg["run_id"], []).append(_leg(leg))
    parts = {kind: [_part(kind, found) for found in db.execute(SELECT[kind], (job_id,))] for kind in COLUMNS}
    for run in parts["runs"]:
        run["legs"] = legs.get(run["id"], [])
    return Job.model_validate(
        {
            "name": row["name"],
            "rules": row["rules"],
            "remarks": row["remarks"],
            "habits": Habits.model_validate_json(row["habits"]),
            "notes": json.loads(row["notes"]),
            **parts,
        }
    )


def _part(kind: str, row: sqlite3.Row) -> Part:
    return {name: bool(row[name]) if name in BOOLS else row[name] for name in COLUMNS[kind]}


def _leg(row: sqlite3.Row) -> Part:
    return {
        "go": row["go"],
        "length_in": row["length_in"],
        "place": row["lies_in"],
        "method": row["method"],
        "size": row["size"],
        "depth_in": row["depth_in"],
        "bends_deg": json.loads(row["bends_deg"]),
        "sleeve": bool(row["sleeve"]),
        "met": bool(row["met"]),
        "ribbon": bool(row["ribbon"]),
        "expansion": bool(row["expansion"]),
        "facts": json.loads(row["facts"]),
        "end": {"kind": row["end_kind"], "node": row["end_node"]},
    }


def put_part(db: sqlite3.Connection, job_id: str, kind: str, part: Part, place: int | None = None) -> None:
    """Write one part whole. It keeps the place it had, else takes `place`, else stands last."""
    had = drop_part(db, job_id, kind, part["id"])
    if had is None and place is None:
        place = int(db.execute(LAST[kind], (job_id,)).fetchone()[0]) + 1
    db.execute(INSERT[kind], (job_id, place if had is None else had, *(part[name] for name in COLUMNS[kind])))
    if kind != "runs":
        return
    for index, leg in enumerate(part["legs"]):
        facts = {key: value for key, value in leg["facts"].items() if value is not None}
        values = (
            job_id, part["id"], index, leg["go"], leg["length_in"], leg["place"], leg["method"], leg["size"],
            leg["depth_in"], json.dumps(leg["bends_deg"]), leg["sleeve"], leg["met"], leg["ribbon"], leg["expansion"],
            json.dumps(facts), leg["end"]["kind"], leg["end"]["node"],
        )  # fmt: skip
        db.execute(INSERT_LEG, values)


def drop_part(db: sqlite3.Connection, job_id: str, kind: str, part_id: str) -> int | None:
    """Remove one part, the legs of a run with it. Returns the place where it stood, or None."""
    row = db.execute(DELETE[kind], (job_id, part_id)).fetchone()
    return None if row is None else int(row[0])
