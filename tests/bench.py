"""Figures, not tests: how long an edit and a calculation take on a large house."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from fastapi.testclient import TestClient

from levelrun.api.app import create_app
from levelrun.core.boxes.volume import Counted, box_volume
from levelrun.core.codebook import load
from levelrun.core.conductors.sizing import Demand, choose
from levelrun.core.cover import cover
from levelrun.core.drop import drop
from levelrun.core.job import Box, Job, Panel, Run, Structure
from levelrun.core.methods.facts import facts_of
from levelrun.core.methods.verdicts import judge
from levelrun.core.pipe.fill import Wires, fill
from levelrun.core.pipe.pull import PullWires, Section, pull
from levelrun.core.plan import plan, plan_run
from levelrun.core.runs.walk import parse_walk
from levelrun.samples import sample


def large_house() -> Job:
    """60 circuits with the legs of the demo, 400 boxes."""
    demo = sample("quince-hollow")
    legs = [run for run in demo.runs if run.start == "ph"]
    boxes = [Box(id=f"x{i}", name=f"X-{i}", structure="house") for i in range(400 - len(demo.boxes))]
    runs = [
        Run.model_validate(
            {**legs[i % len(legs)].model_dump(), "id": f"big{i}", "name": f"Run {i}", "load_a": i % 16}
        )
        for i in range(60)
    ]
    return Job(
        name="Large house",
        structures=tuple(Structure.model_validate(s) for s in demo.structures),
        panels=tuple(Panel.model_validate(p) for p in demo.panels),
        boxes=(*demo.boxes, *boxes),
        runs=tuple(runs),
    )


def measure(name: str, act: Callable[[], object], times: int) -> None:
    """Print median and worst in milliseconds."""
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        spent.append(1000 * (time.perf_counter() - start))
    print(f"{name:<52} median {statistics.median(spent):8.3f} ms   worst {max(spent):8.3f} ms")


def main() -> None:
    """All figures."""
    job, book = large_house(), load()

    def cold() -> None:
        plan_run.cache_clear()
        plan(job)

    cold()
    measure("plan of 60 circuits, nothing kept", cold, 5)
    measure("plan of 60 circuits, nothing changed", lambda: plan(job), 20)
    wires = [Wires("THWN-2", "12", 3)]
    facts = facts_of(book, "trench", {})
    measure("fill", lambda: fill(book, "PVC40", "3/4", wires), 500)
    measure("cover", lambda: cover(book, "PVC40", "open_ground", 120, 20, False), 500)
    measure("drop", lambda: drop(book, 120, 12, 118, "12", "cu"), 500)
    measure("one method in one place", lambda: judge.__wrapped__(book, "PVC40", facts), 500)
    measure("wire for a load", lambda: choose(book, Demand(24, length_ft=80, drop_limit_percent=3)), 300)
    pulled = [Section(straight_in=60, climb_in=-60), Section(bend_deg=90, radius_in=6), Section(straight_in=516)]
    measure("pull force", lambda: pull(book, pulled, [PullWires("THWN-2", "6", "cu", 4)], 0.35), 300)
    measure("box fill", lambda: box_volume(book, [Counted("12", 4)], [Counted("12", 1)], Counted("12", 2)), 300)
    measure("one leg of walk text", lambda: parse_walk(book, "over 43' trench 16\" deep in pvc40 3/4"), 200)
    with (
        tempfile.TemporaryDirectory() as folder,
        TestClient(create_app(Path(folder)), base_url="http://127.0.0.1") as web,
    ):
        view = web.post("/api/jobs", json={"job": job.model_dump(mode="json")}).json()
        state = {"revision": view["revision"], "step": 0}

        def edit() -> None:
            state["step"] += 1
            change = {"op": "set_leg", "run": "big4", "leg": 2, "set": {"length_in": 300 + state["step"]}}
            body = {"revision": state["revision"], "edits": [change], "look": {"run": "big4"}}
            answer = web.post(f"/api/jobs/{view['id']}/edits", json=body)
            state["revision"] = answer.json()["revision"]

        measure("edit over HTTP, stored, planned, answered", edit, 40)


if __name__ == "__main__":
    main()
