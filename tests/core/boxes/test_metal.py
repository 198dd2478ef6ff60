"""Into what metal pipe and armour come: a box of metal, as it is bought (314.3)."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built, edited

HOUSE = built("panel H 200a 30 spaces taken 1-10")


def bought(job: Job) -> dict[str, float]:
    return {
        order.item.key: order.count for order in plan(job).buying.orders if order.item.shelf in ("boxes", "devices")
    }


@pytest.mark.parametrize(
    ("said", "box", "with_it"),
    [
        ("25' garage wall in emt 3/4 to outlet 20a in garage", "box square-21", "raised cover 1-gang"),
        ("25' garage wall in emt 3/4 to a switch", "box square-21", "raised cover 1-gang"),
        ("12' stud wall in 12-2 mc to bedroom outlet", "box square-21", "mud ring 1-gang 0.5 in"),
        ("20' attic in 14-2 ac to a bedroom light", "box octagon-15", "light, as chosen"),
        ("25' garage wall in emt to outlet 50a 240v in garage", "box square-30", "raised cover 2-gang"),
        ("25' outside wall in emt to an outlet outside", "box weather-18", "in-use cover"),
        ("25' outside wall in pvc80 to an outlet outside", "box weather-18", "in-use cover"),
        # near misses: what brings no metal keeps its plastic box
        ("25' stud wall in 12-2 to outlet 20a in garage", "box single-18", "plate 1-gang receptacle"),
        ("20' attic in 14-2 to a bedroom light", "box round-20", "light, as chosen"),
        ("12' stud wall in ent to bedroom outlet", "box single-18", "plate 1-gang receptacle"),
    ],
)
def test_the_box_that_is_bought(said: str, box: str, with_it: str) -> None:
    job = built(f"from {said}", HOUSE)
    found = bought(job)
    assert found[box] == 1 and found[with_it] == 1
    assert len([key for key in found if key.startswith("box ")]) == 1
    assert "box-plastic" not in {item.code for item in plan(job).findings}


def test_a_plastic_box_that_was_named_is_told() -> None:
    job = built("from 12' stud wall in 12-2 mc to bedroom outlet", HOUSE)
    named = edited(job, {"op": "set", "kind": "box", "id": job.boxes[0].id, "set": {"model": "single-22"}})
    (told,) = [item for item in plan(named).findings if item.code == "box-plastic"]
    assert (told.section, told.severity) == ("314.3", "check") and "12-2 MC" in told.text
    after = edited(named, *told.mends[0].edits)
    assert after.boxes[0].model == "square-21"
    assert "box-plastic" not in {item.code for item in plan(after).findings}


def test_an_old_box_is_left_as_it_is() -> None:
    job = built("from an existing outlet on 3, 12' stud wall in 12-2 mc to outlet", HOUSE)
    assert "box-plastic" not in {item.code for item in plan(job).findings}


def test_a_box_of_three_gangs_is_asked() -> None:
    """No catalogue row of metal has so many: it is told, without a mend."""
    job = built("room Den 12' x 12'; panel north 4' as P; set switch south 17 5/8\" 3 gangs as S-9; "
                "circuit 15a: S-9; all circuits in mc")  # fmt: skip
    (told,) = [item for item in plan(job).findings if item.code == "box-plastic"]
    assert not told.mends


def test_a_box_of_steel_is_bonded_itself() -> None:
    """One ground more ends in it: on its own screw (250.148(C))."""
    steel, plastic = (
        built(f"from 25' {way} to outlet 20a in garage", HOUSE)
        for way in ("garage wall in emt 3/4", "stud wall in 12-2")
    )
    tails = [
        sum(order.count for order in plan(job).buying.orders if "twist-on" in order.item.key)
        for job in (steel, plastic)
    ]
    assert tails[0] > tails[1]
