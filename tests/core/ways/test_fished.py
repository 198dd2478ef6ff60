"""What is fished through a finished wall of an old house: held by nothing, up or down one bay, and no pipe.

Source: NFPA 70 (NEC) 2023, 334.30(B)(1); from memory. That nobody fishes across studs: common practice, no source.
"""

from __future__ import annotations

import pytest

from levelrun.core.codebook import load
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.ways.walk import parse_walk, write_leg
from tests.conftest import built, edited, found

HOUSE = built("panel H 100a 20 spaces taken 1-10")
OLD = "from existing outlet on 5 15a, "
CODES = ("way-fished", "fished-across", "pipe-closed", "wall-asked")

# what is said: the findings about walls
SAID = {
    OLD + "up 4' stud wall, 12' attic, fish down 6' stud wall to a bedroom outlet": {"way-fished", "wall-asked"},
    OLD + "fish up 4' stud wall, 12' attic, down 6' stud wall fished to a bedroom outlet": {"way-fished"},
    OLD + "14' stud wall to a closet outlet": {"wall-asked"},
    OLD + "14' stud wall fished to a closet outlet": {"fished-across"},
    OLD + '10" stud wall fished to a closet outlet': {"way-fished"},
    OLD + "20' attic to a hall light": set(),
    "from H 14' stud wall to a closet outlet": set(),
    "from H up 4' stud wall fished in emt 3/4, 20' attic to light": {"pipe-closed"},
    "from H up 4' stud wall fished in fmc 1/2, 20' attic in emt 1/2 to light": {"way-fished"},
}


def said_of(job: Job) -> set[str]:
    return {item.code for item in plan(job).findings} & set(CODES)


@pytest.mark.parametrize("text", SAID)
def test_what_is_said_of_a_finished_wall(text: str) -> None:
    assert said_of(built(text, HOUSE)) == SAID[text]


def test_a_fished_leg_buys_no_staple_and_bores_no_hole() -> None:
    fished, bored = (
        built(f"from H up 8' stud wall{how}, 10' attic to light", HOUSE) for how in (" fished", "")
    )  # fmt: skip
    held = [plan(job).ways[0].whole.legs[0].held for job in (fished, bored)]
    assert held[0].text == "fished, held by nothing" and held[0].positions_in == []
    assert held[1].positions_in
    staples = [sum(row.amount for key, row in plan(job).buying.taken.rows.items() if "staple" in key)
               for job in (fished, bored)]  # fmt: skip
    assert staples[0] < staples[1]


def test_the_question_is_answered_by_its_mends() -> None:
    job = built(OLD + "up 4' stud wall, 12' attic, down 6' stud wall to a bedroom outlet", HOUSE)
    (asked,) = found(job, "wall-asked")
    wanted = {"Fished, up or down a bay": [True, False, True], "Open, and bored": [False, False, False]}
    for mend in asked.mends:
        after = edited(job, *mend.edits)
        assert [leg.fished for leg in after.ways[0].legs] == wanted[mend.label]
        assert not found(after, "wall-asked")
    across = built(OLD + "14' stud wall fished to a closet outlet", HOUSE)
    (said,) = found(across, "fished-across")
    assert said_of(edited(across, *said.mends[0].edits)) == set()


@pytest.mark.parametrize("text", ["down 6' stud wall in nm-b 12-2 fished", "fish down 6' stud wall in nm-b 12-2"])
def test_a_fished_leg_is_read_and_written(text: str) -> None:
    (leg,) = parse_walk(load("us-2023"), text)
    assert (leg.fished, leg.go, leg.length_in) == (True, "down", 72)
    assert parse_walk(load("us-2023"), write_leg(load("us-2023"), leg)) == [leg]
