"""What a nameplate says a machine draws, what its wire carries as it lies, and a load to the nearest ampere.

Source: NFPA 70 (NEC) 2023, 220.5(B), 220.50, 430.22, 440.33, table 310.16 with 310.15(B)(1); from memory.
"""

from __future__ import annotations

import pytest

from levelrun.core.circuits.service import compared_a
from levelrun.core.codebook import Codebook, load
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built, edited, found

HOUSE = built("panel H 200a 30 spaces taken 1-14")


def drawn_a(text: str, job: Job = HOUSE) -> float:
    return plan(built(text, job)).circuits[-1].summary.load_a


@pytest.mark.parametrize(
    ("text", "amps"),
    [
        ("from H 40' crawl to heat pump mca 34 mocp 50", 34 / 1.25),
        ("from H 40' crawl to disconnect for heat pump mca 34 mocp 50", 34 / 1.25),
        ("from H 60' trench 18\" deep pvc 3/4 to well pump mca 15 mocp 30", 15 / 1.25),
        ("from H 40' crawl to heat pump", 3000 / 240),
        ("from H 40' crawl to heat pump mca 34 mocp 50 load 20a", 20.0),
    ],
)
def test_a_nameplate_says_what_the_machine_draws_unless_that_is_said(text: str, amps: float) -> None:
    assert drawn_a(text) == pytest.approx(amps, abs=0.01)


def test_the_panel_counts_what_the_nameplate_says() -> None:
    """34 A: 27.2 A drawn, and a quarter more as the largest motor (220.50)."""
    panel = plan(built("from H 40' crawl to heat pump mca 34 mocp 50", HOUSE)).panels[0]
    steps = {step.section: step.counted_va for step in panel.load.steps}
    assert steps["220.50"] == pytest.approx(0.25 * 34 / 1.25 * 240, abs=1)
    assert panel.load.amps == pytest.approx(34.0, abs=0.01)


def test_a_welder_draws_more_than_its_plate_lets_its_wire_be() -> None:
    plain, plated = ("from H 30' shop wall in emt to welder" + more for more in ("", " mca 30 mocp 60"))
    assert drawn_a(plain) == drawn_a(plated) == pytest.approx(8000 / 240)


# No. 10 in NM-B is 40 A at 90 C: times 0.71 at 60 C, 0.58 over it, and 30 A at most (334.80)
@pytest.mark.parametrize(("heat", "least", "short"), [("60 c", 28, False), ("60 c", 29, True), ("65 c", 28, True)])
def test_in_heat_a_wire_still_carries_what_the_nameplate_asks(heat: str, least: int, short: bool) -> None:
    job = built(f"from H 40' attic {heat} in 10-2 to heat pump mca {least} mocp 40", HOUSE)
    (said,) = found(job, "ampacity-short") or [None]
    assert (said is not None) is short
    if said is not None:
        assert "nameplate" in said.text
        mended = edited(job, *said.mends[0].edits)
        assert not found(mended, "ampacity-short")
        assert mended.circuits[0].wire_size == "8"


def test_a_pipe_flat_on_the_roof_takes_the_wire_that_it_asks_for() -> None:
    job = built("from H 40' roof in emt to air conditioner 24 mca 40 max", HOUSE)
    (asked,) = found(job, "roof-heat")
    flat = edited(job, *next(mend for mend in asked.mends if mend.label.startswith("Flat")).edits)
    assert (job.circuits[0].wire_size, flat.circuits[0].wire_size) == ("12", "8")
    assert not found(flat, "ampacity-short")
    small = built("from H 40' roof in emt to air conditioner 12 mca 20 max", HOUSE)
    (asked,) = found(small, "roof-heat")
    labels = [mend.label for mend in asked.mends]
    assert labels[-1] == "Flat on the roof", "what bears it as it is, is left as it is"


@pytest.mark.parametrize(("watts", "over"), [(60.4 * 240 / 1.25, False), (60.6 * 240 / 1.25, True)])
def test_a_main_is_over_from_half_an_ampere_on(watts: float, over: bool) -> None:
    job = built("structure shop Shop", Job(name="Shop"))
    job = built("panel G 60a 12 spaces in Shop", job)
    job = built("from G 10' shop wall in emt to kiln", job)
    kiln = next(box for box in job.boxes if box.serves == "kiln")
    job = edited(job, {"op": "set", "kind": "box", "id": kiln.id, "set": {"load_w": watts}})
    assert bool(found(job, "main-over")) is over


def test_a_load_is_to_the_nearest_ampere_where_the_rules_say_so(book: Codebook) -> None:
    assert [compared_a(book, amps) for amps in (125.06, 125.49, 125.5, 126.0)] == [125, 125, 126, 126]
    assert compared_a(load("ca-2021"), 125.06) == 125.06
