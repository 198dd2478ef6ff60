"""The yard and the shopping as they are spoken: the same as in the words of the guide."""

from __future__ import annotations

import math

import pytest

from levelrun.core.errors import EditError, TextError
from levelrun.core.plan import plan
from levelrun.core.trench.yard import yard_of
from levelrun.exchange.text import JobTextError, read_text
from levelrun.samples import sample
from tests.conftest import built

DEMO = sample("quince-hollow")
YARD = {
    "dig a trench from the house east to the shed": "trench house east to shed",
    "dig from house to shop 8\" wide by machine": "trench house to shop 8\" wide by machine",
    "water line 42\" deep from the street to the house": "water 42\" deep from street to House",
    "gas line from street to house, private": "gas from street to House private",
    "a driveway 12' wide from the street to the shop": "drive 12' wide from street to Kiln shop",
    "a walkway from house to cabin": "path from House to Bunk cabin",
    "17\" at 12' of House to pump": "read 17\" at 12' of House to pump",
    "cover is 17\" deep at 12' in House to pump": "read 17\" at 12' of House to pump",
    "two ground rods at the shop 8' apart": "rods 2 at Kiln shop 8' apart",
    "ground rods at shop": "rods 2 at Kiln shop",
    "3 rods at the shop": "rods 3 at Kiln shop",
    "the shed grade is -20\"": "grade shed -20\"",
    "an overhead span from the shop to the cabin 18' high": "span shop to cabin 18' high",
}  # fmt: skip
SHOP = {
    "get 100' of 12-2": "buy 100' of 12-2",
    "I need two 250' coils of 12/2": "buy 2 x 250' of 12-2",
    "order 12-2 at the supply house": "buy 12-2 at the supply house",
    "we have 62' of 14-2 on the truck": "have 62' of 14-2",
    "I still have 62' of 14/2 left": "have 62' of 14-2",
    "12-2 is $119 for 250' at the supply house": "price 12-2 250' $119 at the supply house",
    "a 250' coil of 12-2 costs $119 at the supply house": "price 12-2 250' $119 at the supply house",
    "price of 12-2 $0.95 a foot at the supply house": "price 12-2 $0.95 a foot at the supply house",
}


@pytest.mark.parametrize("spoken", [*YARD, *SHOP])
def test_the_same_job(spoken: str) -> None:
    short = {**YARD, **SHOP}[spoken]
    found = built(spoken, DEMO)
    assert found == built(short, DEMO)
    assert found != DEMO


@pytest.mark.parametrize(
    ("spoken", "short"),
    [
        ("House to pump was marked on 2026-05-08", "done marks of House to pump on 2026-05-08"),
        ("we marked House to pump on 2026-05-08", "done marks of House to pump on 2026-05-08"),
        ("trench House to shed is photographed", "done photo of House to shed"),
        ("House to pump dug because no lines here", "done dig of House to pump because no lines here"),
    ],
)
def test_a_step_of_a_trench(spoken: str, short: str) -> None:
    assert built(spoken, DEMO) == built(short, DEMO) != DEMO


def test_a_step_out_of_turn_still_asks_why() -> None:
    with pytest.raises(EditError, match="marks comes first"):
        built("House to pump was dug on 2026-05-08", DEMO)


@pytest.mark.parametrize(
    ("said", "garage"),
    [
        ("house east to the garage 60'", (864.0, 0.0, 1008.0, 120.0)),  # its west wall faces the trench
        ("house north to the garage 60'", (0.0, 840.0, 144.0, 960.0)),
        ("house east to garage north 60'", (792.0, -60.0, 936.0, 60.0)),
    ],
)
def test_a_building_that_stood_nowhere_comes_to_stand_facing_the_trench(
    said: str, garage: tuple[float, float, float, float]
) -> None:
    """12 by 10 ft each: the house from 0 to 144 and 0 to 120, 60 ft from the middle of its wall."""
    job = built(f"structure shop Garage; trench {said}")
    stands = yard_of(job).building(next(item.id for item in job.structures if item.name == "Garage"))
    assert stands is not None and stands.shape.bounds == garage
    assert math.dist(*job.trenches[0].points) == 720.0
    under = [item.code for item in plan(job).findings if item.code == "trench-under"]
    assert bool(under) is ("garage north" in said)  # along that wall, as it was said


@pytest.mark.parametrize(
    ("text", "told", "word"),
    [
        ("a trench from house to 40' east 30' south 24\" deep", "how deep is said of what lies in it", "deep"),
        ("dug on 2026-05-08", "which trench", ""),
        ("17\" at 12'", "which trench", ""),
        ("12-2 is $119 for 250'", "at and a supplier, the text ends", ""),
        ("have 62' of 14-2 spare", "the end of the sentence, found 'spare'", "spare"),
        ("two rods at the moon", "a building", "moon"),
    ],
)
def test_what_is_missing_is_asked_for_where_it_stands(text: str, told: str, word: str) -> None:
    with pytest.raises(TextError, match=told) as refused:
        built(text, DEMO)
    if word:
        assert refused.value.at == text.index(word)


TWO = """house House existing
{kind} Shop 24' x 24'
panel A 200a 40 spaces 1-34 taken in House
sub-panel S 60a 12 spaces in Shop, south wall 2' from the east corner
feeder from A to S 60a
"""


@pytest.mark.parametrize(
    ("line", "feet"),
    [
        ("trench from the house to the shop 75'", 75.0),
        ("trench A to S 75'", 75.0),  # a panel stands for its building
        ("trench house east to shop 60' by 20' north", 80.0),
        ("span from House to Shop 90' held 18' high at the house and 16' high at the shop", 90.0),
    ],
)
def test_a_drawn_building_whose_place_nobody_said_stands_where_the_tape_ends(line: str, feet: float) -> None:
    job = read_text(TWO.format(kind="shop") + line)
    found = job.lines[0]
    legs = zip(found.points, found.points[1:], strict=False)
    taped = sum(abs(x1 - x0) + abs(y1 - y0) for (x0, y0), (x1, y1) in legs)
    assert taped == 12 * feet
    yard = yard_of(job)
    shapes = [yard.building(item.id).shape for item in job.structures]  # type: ignore[union-attr]
    assert not shapes[0].intersects(shapes[1])
    codes = {item.code for item in plan(job).findings}
    assert {"trench-apart", "trench-under", "span-over"}.isdisjoint(codes)


def test_one_that_was_placed_stays() -> None:
    placed = TWO.format(kind="shop").replace("24' x 24'", "24' x 24' at 200' east 10' north")
    job = read_text(placed + "trench from the house to the shop 75'")
    assert (job.structures[1].x_in, job.structures[1].y_in) == (2400.0, 120.0)


def test_what_is_laid_in_it_and_how_deep() -> None:
    job = read_text(
        TWO.format(kind="shop") + 'trench from A to S 75\'\nlay the S feeder in it 18" deep in 1-1/4" pvc'
    )
    way = job.ways[0]
    assert [(leg.method, leg.size, leg.depth_in, leg.length_in) for leg in way.legs if leg.place == "trench"] == [
        ("PVC40", "1-1/4", 18.0, 900.0)
    ]
    with pytest.raises(JobTextError, match="there is no trench or span yet"):
        read_text(TWO.format(kind="shop") + "lay S feeder in it")
    (deep,) = read_text(TWO.format(kind="shop") + "trench A to S 75' 18\" deep").ways
    assert [leg.depth_in for leg in deep.legs if leg.place == "trench"] == [18.0]


def test_a_feeder_to_a_building_is_one_to_its_panel() -> None:
    job = read_text(TWO.format(kind="barn").replace("feeder from A to S 60a", "a 60 amp feeder from A to the shop"))
    assert [(item.feeds, item.breaker_a) for item in job.circuits] == [(job.panels[1].id, 60.0)]
    with pytest.raises(JobTextError, match="Shed has no panel: put one there, as `panel S in Shed`"):
        read_text(TWO.format(kind="shop") + "shed Shed\na 30 amp feeder to Shed")


FED = (
    "panel M 200a 40 spaces\ngarage 24' x 24', 60' east of the house\n"
    "panel G 60a 12 spaces in the garage, north wall\n"
)


@pytest.mark.parametrize(
    "lines",
    [
        'feed G from M 60a\ntrench house to garage 18" deep in 1" pvc',
        'feed G from M 60a\ntrench house to garage in 1" pvc 18" deep',
        'trench house to garage\nfeed G from M 60a in 1" pvc 18" deep',
        'feed G from M 60a\ntrench house to garage\nlay G feeder in it 18" deep in 1" pvc',
        'trench house to garage 18" deep in 1" pvc\nfeed G from M 60a',
        'trench in 1" pvc 18" deep from the house to the garage\nfeed G from M on 5 60a',
        'trench 18" deep from house to garage in 1" pvc\na 60 amp feeder from M to G',
    ],
)
def test_a_trench_with_how_deep_and_in_what_takes_the_feed(lines: str) -> None:
    """However it is said, the same way: risers of the pipe that may be hit, 1 in PVC 18 in down for 60 ft."""
    job = read_text(FED + lines)
    (way,) = job.ways
    (along,) = [leg for leg in way.legs if leg.along is not None]
    assert (along.method, along.size, along.depth_in) == ("PVC40", "1", 18)
    assert along.length_in == pytest.approx(720, abs=6)  # from outer face to outer face
    assert {leg.method for leg in way.legs if leg.place == "outside_wall"} == {"PVC80"}
    assert job.circuits[0].chain[0].path == (way.id,)


def test_what_is_said_of_an_empty_trench_is_kept_for_what_comes() -> None:
    job = read_text(FED + 'trench house to garage 18" deep in 1" pvc')
    (line,) = job.trenches
    assert (line.meant_in, line.meant_method, line.meant_size, job.ways) == (18, "PVC40", "1", ())
    assert not [item for item in plan(job).findings if item.severity == "stop"]
    two = read_text(FED + 'trench house to garage 18" deep\ntrench house north to garage\nfeed G from M 60a')
    assert not two.ways, "two trenches go there: nobody said which"
    with pytest.raises(JobTextError, match="no trench joins the two buildings"):
        read_text(FED + 'feed G from M 60a in 1" pvc')
