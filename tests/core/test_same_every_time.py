"""The same job is planned the same, whatever the machine's hash seed: nothing hangs on the order of a set."""

from __future__ import annotations

import os
import subprocess
import sys

from levelrun.core.job import Hop, Job
from levelrun.core.plan import plan
from levelrun.core.roughin.waits import closed_surfaces, surfaces
from levelrun.core.ways.frame.drawn import round_cables
from levelrun.core.ways.frame.graph import Frame
from levelrun.core.ways.frame.route import Piece
from levelrun.core.ways.pull_list import pull_list, pull_totals
from levelrun.samples import sample
from tests.conftest import edited, found

TOLD = """
from levelrun.core.plan import plan
from levelrun.samples import sample
from tests.core.test_same_every_time import shared
for job in (sample("quince-hollow"), shared()):
    made = plan(job)
    for item in (*made.findings, *made.circuits, *(way.whole for way in made.ways), *(r.whole for r in made.rooms)):
        print(item)
    print(made.buying.taken.rows)
"""


def shared() -> Job:
    """The demo with one box on five circuits."""
    job = sample("quince-hollow")
    box = next(box for box in job.boxes if box.kind == "receptacle" and box.room)
    many = [c for c in job.circuits if not c.feeds and c.panel == "ph"]
    more = [c for c in many if box.id not in {hop.box for hop in c.chain}][:4]
    circuits = tuple(
        c.model_copy(update={"chain": (*c.chain, Hop(box=box.id))}) if c in more else c for c in job.circuits
    )
    return job.model_copy(update={"circuits": circuits})


def told(seed: str) -> str:
    environment = {**os.environ, "PYTHONHASHSEED": seed, "PYTHONPATH": os.getcwd()}
    run = subprocess.run([sys.executable, "-c", TOLD], env=environment, capture_output=True, text=True, check=True)
    return run.stdout


def test_two_runs_of_the_program_tell_the_same() -> None:
    first = told("1")
    assert len(first) > 100_000 and first == told("2")


def test_a_box_on_many_circuits_is_told_with_two_of_them() -> None:
    item = next(f for f in found(shared(), "box-twice") if f.measured not in ("2 circuits", "3 circuits"))
    assert item.title.endswith(f" and {int(item.measured.split()[0]) - 2} more") and item.title.count(",") == 1
    assert [mend.label.count("  ") for mend in item.mends] == [0, 0]


def test_what_is_closed_is_asked_of_the_closed_walls_alone() -> None:
    job = sample("quince-hollow")
    assert closed_surfaces(job) == [row for row in surfaces(job) if row.closed] != []
    opened = job.model_copy(update={"closings": ()})
    assert closed_surfaces(opened) == []


def test_the_totals_are_those_of_the_list() -> None:
    """Also of what was pulled longer than it was planned."""
    job = sample("quince-hollow")
    hop = next(h for c in job.circuits for h in c.chain if not h.path)
    circuit = next(c for c in job.circuits if hop in c.chain)
    for cut in (None, 1200.0):
        job = edited(job, {"op": "pulled", "circuit": circuit.id, "box": hop.box, "length_in": cut})
        made = plan(job)
        cuts = [cut for way in (*made.ways, *made.drawn.ways.values()) for cut in way.cuts]
        rows = pull_list(job, {}, cuts).rows
        for total in pull_totals(job, cuts):
            own = [row for row in rows if row.item == total.item]
            assert own and abs(total.cut_in - sum(r.pieces * (r.pulled_in or r.cut_in) for r in own)) < 1e-6
            assert abs(total.pulled_in - sum(r.pieces * (r.pulled_in or 0) for r in own)) < 1e-6
        assert {row.item for row in rows} == {total.item for total in pull_totals(job, cuts)}


def _behind(frame: Frame, piece: Piece, room: str) -> bool:
    """Whether the middle of a piece lies behind a face of a room, or half a foot beside it."""
    if piece.line < 0:
        return False
    line = frame.lines[piece.line]
    middle = (line.place(piece.a[:2]) + line.place(piece.b[:2])) / 2
    return any(m.room == room and m.from_in - 6 <= middle <= m.to_in + 6 for m in line.members)


def test_the_cables_of_a_room_are_all_that_lie_in_its_walls() -> None:
    job = sample("quince-hollow")
    drawn = plan(job).drawn
    rooms = 0
    for room in job.rooms:
        frame = next((one.frame for one in drawn.every if one.frame and room.id in one.frame.rooms), None)
        if frame is None:
            continue
        here = [one for one in drawn.every if one.frame is frame and one.route is not None]
        wanted = {
            one.ident
            for one in here
            if one.route and any(_behind(frame, piece, room.id) for piece in one.route.pieces)
        }
        got = {cable.way for cable in round_cables(here, frame, room.id, [0.0] * len(room.corners))}
        assert got <= wanted and wanted - got <= {
            one.ident for one in here if one.route and len(one.route.pieces) < 3
        }
        rooms += bool(got)
    assert rooms > 3
