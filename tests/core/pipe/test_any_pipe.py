"""Whatever is walked: planning never breaks, pieces make up the pipe, marks lie on them or somebody is told."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from levelrun.core.errors import LevelRunError
from levelrun.core.job import job_book
from levelrun.core.pipe.cut_rows import cut_rows
from levelrun.core.pipe.cutting import cut_list
from levelrun.core.pipe.facts import piped
from levelrun.core.pipe.marks import marks_of
from levelrun.core.pipe.planned import plan_pull
from levelrun.core.plan import plan, way_contexts
from tests.conftest import one_way

TOLD = {"bends-near", "bend-impossible", "bend-end", "coupling-nowhere", "turn-back", "bends-over", "elbows-near"}
SHAPES = ("", ' with offset 4" at 30', ' with saddle 2"', ' with kick 3" at 15', " with box offset", " with bend 45",
          " with offset 30", ' with rolling offset 3" and 4" at 45')  # fmt: skip
METHODS = ("emt 3/4", "emt 1-1/4", "emt 2", "pvc80 1", "pvc40 1", "rigid 1", "imc 3/4", "lfnc 1/2")


@st.composite
def texts(draw: Any) -> str:
    method = draw(st.sampled_from(METHODS))
    legs = []
    for n in range(draw(st.integers(1, 6))):
        if n and draw(st.integers(0, 5)) == 0:
            method = draw(st.sampled_from(METHODS))
        go = draw(st.sampled_from(("over", "up", "down", "left", "right")))
        inches = draw(st.integers(6, 400))
        end = draw(st.sampled_from(("", "", "", " to LB", " to body", " to coupling")))
        legs.append(f'{go} {inches}" block wall in {method}{draw(st.sampled_from(SHAPES))}{end}')
    return "; ".join(legs).rsplit(" to ", 1)[0] + " to C-1" if legs[-1].count(" to ") else "; ".join(legs) + " to C-1"


@settings(max_examples=120, suppress_health_check=list(HealthCheck))
@given(texts(), st.sampled_from([{}, {"wire_size": "6", "breaker_a": 60, "conductors": 4}]))
def test_any_pipe_is_planned_and_adds_up(text: str, circuit: dict[str, Any]) -> None:
    try:
        job = one_way(text, **circuit)
    except LevelRunError as refused:  # a shape that its leg has no room for: said where it is typed
        assert refused.message
        return
    book = job_book(job)
    context = way_contexts(job, book)[0]
    said = tuple(plan(job).findings)
    codes = {item.code for item in said}
    pipe = piped(book, context)
    for pull, layout in pipe.laid:
        found = plan_pull(book, context, pull.index, said)
        assert found.drawing is not None
        covered = sum(piece.to_in - piece.from_in for piece in layout.pieces)
        elbows = sum(elbow.to_in - elbow.from_in for elbow in layout.elbows)
        into = abs(covered + elbows - layout.line.length_in)
        assert codes & TOLD or into <= 12 + 2 * len(layout.elbows), "what goes into fittings is inches, not feet"
        for piece in layout.pieces:
            if not codes & TOLD:
                assert 0 < piece.length_in <= 120 + 1e-6
            for mark in marks_of(pipe.view, layout, piece):
                assert codes & TOLD or -1e-6 <= mark.at_in <= piece.length_in + 1e-6, mark
        if found.how is not None:
            assert {band.fed for band in found.how.bands} == {"start", "end"}
            assert all(0 <= band.low_lb <= band.usual_lb <= band.high_lb for band in found.how.bands)
    cuts = cut_list(pipe.view, [(pull.index, layout) for pull, layout in pipe.laid])
    assert len(cuts.sticks) >= cuts.bound
    for stick in cuts.sticks:
        assert sum(cut.to_in - cut.from_in for cut in stick.cuts) + stick.left_in == pytest.approx(stick.length_in)
    fitting = [p for _, layout in pipe.laid for p in layout.pieces if not p.too_long]
    assert len(cut_rows(book, context)) == len(fitting)
