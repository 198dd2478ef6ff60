"""Stored jobs of format 2 brought to format 3: their runs become ways, circuits take what runs said, and the history
is written again so that every step of it can still be taken back and made again.

Rows and history are plain data here, as version 2 wrote them: the models of a later version do not matter.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from typing import Any

from levelrun.core.job.from_two import woven

Raw = dict[str, Any]
State = dict[str, list[Raw]]
KINDS = ("panels", "runs", "circuits")
TICKS = ("neutral", "nameplate", "gfci", "tied", "equipment_ground")
CIRCUIT = (
    "name", "panel", "space", "half", "poles", "volts", "breaker_a", "protection", "partner", "tied", "neutral",
    "wire_size", "material", "method", "whip_size", "equipment_ground", "nameplate", "feeds", "least_ampacity_a",
    "largest_breaker_a", "insulation", "ground_size", "load_a",
)  # fmt: skip
USUAL: Raw = {
    "half": "", "partner": None, "tied": False, "material": "cu", "method": "NM-B", "whip_size": "",
    "equipment_ground": True, "nameplate": False, "feeds": None, "least_ampacity_a": None, "largest_breaker_a": None,
    "insulation": "THWN-2", "ground_size": "", "load_a": None, "protection": "plain",
}  # fmt: skip
HOP = ("box", "after", "length_in", "path", "wire_size", "conductors")


def circuits_take_runs(db: sqlite3.Connection) -> None:
    """Every job in turn; then the table of runs goes."""
    for (job_id,) in db.execute("SELECT id FROM job").fetchall():
        now = _state(db, job_id)
        _write_circuits(db, job_id, woven(now["panels"], now["runs"], now["circuits"])[1])
        _rewrite_history(db, job_id, now)
    db.execute("DROP TABLE run")


def _state(db: sqlite3.Connection, job_id: str) -> State:
    """Panels, runs and circuits of a job as format 2 had them."""
    panels = _rows(db, "SELECT id, spaces FROM panel WHERE job_id = ? ORDER BY place", job_id)
    runs = _rows(db, "SELECT * FROM run WHERE job_id = ? ORDER BY place", job_id)
    circuits = _rows(db, "SELECT * FROM circuit WHERE job_id = ? ORDER BY place", job_id)
    for run in runs:
        run["legs"] = []
    by_run = {run["id"]: run for run in runs}
    for leg in _rows(db, "SELECT * FROM leg WHERE job_id = ? ORDER BY way_id, place", job_id):
        by_run[leg["way_id"]]["legs"].append(_leg(leg))
    for circuit in circuits:
        circuit["chain"] = []
    by_circuit = {circuit["id"]: circuit for circuit in circuits}
    for hop in _rows(db, "SELECT * FROM hop WHERE job_id = ? ORDER BY circuit_id, place", job_id):
        by_circuit[hop["circuit_id"]]["chain"].append({key: hop[key] for key in ("box", "after", "length_in")})
    for part in (*runs, *circuits):
        for key in ("job_id", "place"):
            part.pop(key)
        part |= {key: bool(part[key]) for key in TICKS if key in part}
    return {"panels": panels, "runs": runs, "circuits": circuits}


def _leg(row: Raw) -> Raw:
    """A leg as a file has it."""
    ticks = {key: bool(row[key]) for key in ("sleeve", "met", "ribbon", "expansion")}
    plain = {key: row[key] for key in ("go", "length_in", "method", "size", "depth_in")}
    return {
        **plain, **ticks, "place": row["lies_in"], "bends_deg": json.loads(row["bends_deg"]),
        "facts": json.loads(row["facts"]), "end": {"kind": row["end_kind"], "node": row["end_node"]},
    }  # fmt: skip


def _rows(db: sqlite3.Connection, query: str, job_id: str) -> list[Raw]:
    found = db.execute(query, (job_id,))
    names = [column[0] for column in found.description]
    return [dict(zip(names, row, strict=True)) for row in found.fetchall()]


def _write_circuits(db: sqlite3.Connection, job_id: str, circuits: Sequence[Raw]) -> None:
    """The circuits as they are now, in place of those that stand there."""
    db.execute("PRAGMA defer_foreign_keys = ON")
    db.execute("DELETE FROM circuit WHERE job_id = ?", (job_id,))
    for place, circuit in enumerate(circuits):
        values = [_plain({**USUAL, **circuit}[key]) for key in CIRCUIT]
        marks = ", ".join("?" * (len(CIRCUIT) + 3))
        db.execute(
            f"INSERT INTO circuit (job_id, id, place, {', '.join(CIRCUIT)}) VALUES ({marks})",
            (job_id, circuit["id"], place, *values),
        )
        for index, hop in enumerate(circuit["chain"]):
            whole = {"after": None, "length_in": None, "wire_size": "", "conductors": None, **hop}
            whole["path"] = json.dumps(hop.get("path", []))
            db.execute(
                f"INSERT INTO hop (job_id, circuit_id, place, {', '.join(HOP)}) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
                (job_id, circuit["id"], index, *(whole[key] for key in HOP)),
            )


def _plain(value: Any) -> Any:
    return int(value) if isinstance(value, bool) else value


def _rewrite_history(db: sqlite3.Connection, job_id: str, now: State) -> None:
    """Every step once more, from the states before and after it: back from today through what was done, and on from
    today through what was undone."""
    done = _steps(db, job_id, "undone = 0 ORDER BY seq DESC")
    undone = _steps(db, job_id, "undone = 1 ORDER BY seq")
    for steps, side in ((done, "before"), (undone, "after")):
        state = now
        for seq, changes in steps:
            other = _stepped(state, changes, side)
            before, after = (other, state) if side == "before" else (state, other)
            if any(change["kind"] in KINDS for change in changes):
                said = json.dumps(_brought_up(changes, before, after))
                db.execute("UPDATE history SET changes = ? WHERE job_id = ? AND seq = ?", (said, job_id, seq))
            state = other


def _steps(db: sqlite3.Connection, job_id: str, which: str) -> list[tuple[int, list[Raw]]]:
    found = db.execute(f"SELECT seq, changes FROM history WHERE job_id = ? AND {which}", (job_id,))
    return [(row[0], json.loads(row[1])) for row in found.fetchall()]


def _stepped(state: State, changes: Sequence[Raw], side: str) -> State:
    """The state on the other side of a step."""
    found: State = {}
    for kind in KINDS:
        parts = {part["id"]: part for part in state[kind]}
        own = [change for change in changes if change["kind"] == kind]
        for change in own:
            if "id" in change and change[side] is None:
                parts.pop(change["id"], None)
            elif "id" in change:
                parts[change["id"]] = change[side]
        order = next((change["order"][side] for change in own if change.get("order", {}).get(side)), None)
        found[kind] = [parts[name] for name in order or parts if name in parts]
    return found


def _brought_up(changes: Sequence[Raw], before: State, after: State) -> list[Raw]:
    """The changes of a step as format 3 has them: those of ways and circuits from the states themselves."""
    kept = [change for change in changes if change["kind"] not in ("runs", "circuits")]
    sides = [woven(state["panels"], state["runs"], state["circuits"]) for state in (before, after)]
    for kind, index in (("ways", 0), ("circuits", 1)):
        old, new = ({part["id"]: part for part in side[index]} for side in sides)
        for name in dict.fromkeys([*old, *new]):
            if old.get(name) != new.get(name):
                kept.append({"kind": kind, "id": name, "before": old.get(name), "after": new.get(name)})
        if list(old) != list(new):
            kept.append({"kind": kind, "order": {"before": list(old), "after": list(new)}})
    return kept
