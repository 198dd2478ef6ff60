"""The parts of a job as rows, and back. SQL from the constant lists of columns below, every value bound."""

from __future__ import annotations

import json
import sqlite3
from typing import Any

from levelrun.core.job import PARTS, Habits, Job

Part = dict[str, Any]
TABLES = {
    "structures": "structure",
    "rooms": "room",
    "openings": "opening",
    "fixtures": "fixture",
    "panels": "panel",
    "boxes": "box",
    "runs": "run",
    "circuits": "circuit",
}
STOOD = ("id", "name", "structure", "room", "side", "at_in", "x_in", "y_in")
COLUMNS: dict[str, tuple[str, ...]] = {
    "structures": ("id", "name", "kind", "grade_in", "x_in", "y_in"),
    "rooms": ("id", "level", "name", "use", "corners", "sides", "moisture", "damage", "ambient_c", "bays"),
    "openings": (
        "id", "room", "side", "kind", "at_in", "width_in", "head_in", "sill_in", "hinge", "swings_in",
    ),
    "fixtures": ("id", "room", "side", "kind", "at_in", "width_in", "depth_in", "height_in"),
    "panels": (
        *STOOD, "height_in", "width_in", "tall_in", "spaces", "main_a", "bus_a", "main_at", "tandem_spaces",
        "bonded", "ground_bar", "neutral_holes", "lug_max", "calculation", "floor_area_ft2",
    ),
    "boxes": (
        *STOOD, "kind", "height_in", "fixed", "clamps", "model", "gangs", "ways", "set_out_in", "clear_in",
        "blocking", "outdoors", "air_tight", "fan_rated", "serves", "load_w", "continuous", "protects", "nema",
        "covered", "interlock", "marked",
    ),
    "runs": (
        "id", "name", "circuit", "start", "volts", "breaker_a", "load_a", "wire_size", "material",
        "insulation", "conductors", "neutral", "nameplate", "gfci",
    ),
    "circuits": (
        "id", "name", "panel", "space", "half", "poles", "volts", "breaker_a", "protection", "partner", "tied",
        "neutral", "wire_size", "material", "method", "whip_size", "equipment_ground", "nameplate", "feeds",
    ),
    "levels": ("id", "name", "kind", "floor_in", "height_in", "joists", "joist_depth_in", "joist_spacing_in"),
    "legs": (
        "go", "length_in", "lies_in", "method", "size", "depth_in", "bends_deg", "sleeve", "met", "ribbon",
        "expansion", "facts", "end",
    ),
    "chain": ("box", "after", "length_in"),
}  # fmt: skip
CHILDREN: dict[str, tuple[str, str, str]] = {
    "structures": ("levels", "level", "structure_id"),
    "runs": ("legs", "leg", "run_id"),
    "circuits": ("chain", "hop", "circuit_id"),
}
BOOLS = {
    "clamps", "neutral", "nameplate", "gfci", "damage", "swings_in", "bonded", "ground_bar", "fixed", "blocking",
    "outdoors", "air_tight", "fan_rated", "continuous", "covered", "interlock", "marked", "tied",
    "equipment_ground", "sleeve", "met", "ribbon", "expansion",
}  # fmt: skip
JSONS = {"corners", "sides", "tandem_spaces", "bends_deg", "facts"}


def _insert(table: str, keys: tuple[str, ...]) -> str:
    return f"INSERT INTO {table} ({', '.join(keys)}) VALUES ({', '.join('?' * len(keys))})"


def _columns(kind: str) -> tuple[str, ...]:
    """Columns as the table has them: the end of a leg is two."""
    return tuple(c for name in COLUMNS[kind] for c in (("end_kind", "end_node") if name == "end" else (name,)))


INSERT = {kind: _insert(table, ("job_id", "place", *_columns(kind))) for kind, table in TABLES.items()}
DELETE = {kind: f"DELETE FROM {table} WHERE job_id = ? AND id = ? RETURNING place" for kind, table in TABLES.items()}
SELECT = {kind: f"SELECT * FROM {table} WHERE job_id = ? ORDER BY place" for kind, table in TABLES.items()}
LAST = {kind: f"SELECT coalesce(max(place), -1) FROM {table} WHERE job_id = ?" for kind, table in TABLES.items()}
INSERT_CHILD = {
    kind: _insert(table, ("job_id", owner, "place", *_columns(name)))
    for kind, (name, table, owner) in CHILDREN.items()
}
SELECT_CHILD = {
    kind: f"SELECT * FROM {table} WHERE job_id = ? ORDER BY {owner}, place"
    for kind, (_, table, owner) in CHILDREN.items()
}


def read_job(db: sqlite3.Connection, job_id: str, row: sqlite3.Row) -> Job:
    """The whole job from its rows."""
    parts = {kind: [_part(kind, found) for found in db.execute(SELECT[kind], (job_id,))] for kind in PARTS}
    for kind, (name, _, owner) in CHILDREN.items():
        children: dict[str, list[Part]] = {}
        for child in db.execute(SELECT_CHILD[kind], (job_id,)):
            children.setdefault(child[owner], []).append(_part(name, child))
        for part in parts[kind]:
            part[name] = children.get(part["id"], [])
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
    part = {name: _read(name, row) for name in COLUMNS[kind]}
    if kind == "legs":
        part["place"] = part.pop("lies_in")
    return part


def _read(name: str, row: sqlite3.Row) -> Any:
    if name == "end":
        return {"kind": row["end_kind"], "node": row["end_node"]}
    value = row[name]
    if name in BOOLS:
        return None if value is None else bool(value)
    return json.loads(value) if name in JSONS else value


def _values(kind: str, part: Part) -> list[Any]:
    values: list[Any] = []
    for name in COLUMNS[kind]:
        if name == "end":
            values += [part["end"]["kind"], part["end"]["node"]]
            continue
        value = part["place" if name == "lies_in" else name]
        if name == "facts":
            value = {key: fact for key, fact in value.items() if fact is not None}
        values.append(json.dumps(value) if name in JSONS else value)
    return values


def put_part(db: sqlite3.Connection, job_id: str, kind: str, part: Part, place: int | None = None) -> None:
    """Write one part whole. It keeps the place it had, else takes `place`, else stands last."""
    had = drop_part(db, job_id, kind, part["id"])
    if had is None and place is None:
        place = int(db.execute(LAST[kind], (job_id,)).fetchone()[0]) + 1
    db.execute(INSERT[kind], (job_id, place if had is None else had, *_values(kind, part)))
    if kind in CHILDREN:
        name = CHILDREN[kind][0]
        for index, child in enumerate(part[name]):
            db.execute(INSERT_CHILD[kind], (job_id, part["id"], index, *_values(name, child)))


def drop_part(db: sqlite3.Connection, job_id: str, kind: str, part_id: str) -> int | None:
    """Remove one part and what hangs on it alone. Returns the place where it stood, or None."""
    row = db.execute(DELETE[kind], (job_id, part_id)).fetchone()
    return None if row is None else int(row[0])
