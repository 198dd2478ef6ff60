"""An edit is work for what it touches. Lines that are run are counted, which no busy machine changes: one that is run
far more often than the house has parts stands in a loop within a loop."""

from __future__ import annotations

import sys
from collections import Counter
from types import FrameType
from typing import Any

import pytest
from pydantic import TypeAdapter

from levelrun.api.head import refs_of
from levelrun.api.looking import Look, planned_of
from levelrun.api.stages import view_of
from levelrun.core.edits import Edit, apply
from tests.large import large_house

HOUSE = large_house()
EDIT: TypeAdapter[Any] = TypeAdapter(Edit)
MOST = 3500  # how often one line is run: the house has 401 boxes, 490 hops, 730 ways, 700 findings
BOX = {"op": "set", "kind": "box", "id": "x7", "set": {"at_in": 20.25}}
TRENCH = {"op": "set", "kind": "trench", "id": "t1", "set": {"points": [[-4.0, 99.0], [-252.0, -352.5]]}}


@pytest.mark.parametrize(
    ("change", "stage", "look"),
    [
        pytest.param(BOX, "boxes", {"room": "big-r7"}, id="a box moved"),
        pytest.param(BOX, "test", {"circuit": "big-c9"}, id="a box moved, on the test stage"),
        pytest.param(
            {"op": "set_leg", "way": "big4", "leg": 2, "set": {"length_in": 311}}, "runs", {"way": "big4"}, id="a leg"
        ),
        pytest.param(
            {"op": "put", "circuit": "big-c9", "space": 61}, "circuits", {"circuit": "big-c9"}, id="a breaker"
        ),
        pytest.param(TRENCH, "trench", {"line": "t1"}, id="a corner of a trench"),
    ],
)
def test_an_edit_runs_no_line_more_often_than_the_house_has_parts(
    change: dict[str, Any], stage: str, look: dict[str, str]
) -> None:
    view_of(planned_of(HOUSE), stage, Look(**look))
    run: Counter[tuple[str, int]] = Counter()

    def line(frame: FrameType, event: str, _: object) -> Any:
        if event == "line":
            run[frame.f_code.co_filename, frame.f_lineno] += 1
        return line

    before = sys.gettrace()
    sys.settrace(lambda frame, event, told: line if "levelrun" in frame.f_code.co_filename else None)
    try:
        planned = planned_of(apply(HOUSE, [EDIT.validate_python(change)]))
        refs_of(planned)
        view_of(planned, stage, Look(**look))
    finally:
        sys.settrace(before)
    assert sum(run.values()) > 20_000
    over = {f"{path.rpartition('levelrun/')[2]}:{number}": n for (path, number), n in run.items() if n > MOST}
    assert not over
