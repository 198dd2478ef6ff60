"""Everybody can use it: axe finds nothing on stages, sheets and dialogs, light and dark, at a desk and on a phone."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page

from tests.e2e.hands import go, say, stage

Open = Callable[..., Page]
AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
LOOKS = [
    "walls", "walls?pick=wall.m2.0", "boxes", "circuits", "circuits?panel=ps", "runs?way=h14&leg=6", "runs?way=s7",
    "pipe?way=h1", "pipe?way=s4&pull=1", "sheets/sticks", "trench?line=t1", "trench?line=n1", "trench?line=cabin",
    "sheets/trenches", "sheets/electrodes", "buy", "buy?item=shelf boxes", "buy?item=PVC 40 3/4 stick",
    "buy?item=shelf truck", "buy?dialog=prices", "sheets/buying-list", "sheets/coil-cards", "sheets/quote",
    "rough_in?wall=m2.0", "rough_in?node=ph", "rough_in?wall=m2.ceiling", "rough_in?dialog=phones",
    "sheets/box-cards", "sheets/photos", "sheets/handover-book",
    "test?circuit=ch14", "test?panel=ps", "test?dialog=learn&circuit=ch14", "test?dialog=lessons", "sheets/readings",
    "sheets/box-schedule", "sheets/directory", "walls?dialog=keys", "walls?dialog=name", "walls?dialog=habits",
    "walls?dialog=dxf", "boxes?dialog=pole", "circuits?dialog=count", "circuits?dialog=load",
    "circuits?dialog=propose", "runs?dialog=way", "runs?dialog=pocket", "runs?dialog=rules", "nowhere",
]  # fmt: skip


# Awaited in one call: a condition that is asked again and again would be evaluated as text, which the page forbids.
STILL = """async () => {
  const ends = (one) => one.playState === 'running' && Number.isFinite(one.effect?.getComputedTiming().endTime)
  const ending = document.getAnimations().filter(ends)
  await Promise.allSettled(ending.map((one) => one.finished))
}"""


CONTRAST = {"runOnly": ["color-contrast"]}
OTHERS = {"rules": {"color-contrast": {"enabled": False}}}


def violations(page: Page, rules: dict[str, Any]) -> list[str]:
    """What axe finds, one line each: the rule, where, why."""
    found: dict[str, Any] = page.evaluate(
        "rules => axe.run(document, {resultTypes: ['violations'], preload: false, ...rules})", rules
    )
    return [
        f"{rule['id']}: {' '.join(node['target'])}: {node['failureSummary'].splitlines()[1].strip()}"
        for rule in found["violations"]
        for node in rule["nodes"]
    ]


@pytest.mark.parametrize("part", range(3))
@pytest.mark.parametrize(
    ("width", "scheme", "rules", "every"),
    [(1280, "light", {}, 1), (1280, "dark", CONTRAST, 2), (390, "light", OTHERS, 2)],
    ids=["desk", "dark", "phone"],
)
def test_axe_finds_nothing(
    open_page: Open, job: str, width: int, scheme: str, rules: dict[str, Any], every: int, part: int
) -> None:
    page = open_page(width, 844 if width < 400 else 800, color_scheme=scheme, reduced_motion="reduce")
    page.evaluate(AXE.read_text())
    found = {}
    for look in LOOKS[::every][part::3]:
        go(page, f"/jobs/{job}/{look}")
        page.evaluate(STILL)
        if said := violations(page, rules):
            found[look] = said
    assert found == {}


@pytest.mark.parametrize(("width", "scheme"), [(1280, "dark"), (390, "light")])
def test_a_job_that_nobody_draws_is_open_to_everybody(open_page: Open, width: int, scheme: str) -> None:
    """Boxes in a list instead of walls: on the demo that page has its walls."""
    page = open_page(width, 844 if width < 400 else 800, color_scheme=scheme, reduced_motion="reduce", empty=True)
    say(page, "H 200a 30 spaces taken 1-14")
    say(page, "20' stud wall to bath outlet, 6' stud wall to bath light")
    stage(page, 2)
    page.locator("[data-apart='R-1'] button").click()
    page.evaluate(AXE.read_text())
    page.evaluate(STILL)
    assert violations(page, {}) == []
