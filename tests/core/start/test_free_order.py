"""A first line in any order: its cable, its end, its figures and its legs stand where they are said."""

from __future__ import annotations

import itertools
import random

import pytest

from levelrun.core.codebook import load
from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.say import Scene, suggest_words
from tests.conftest import built

HOUSE = built("panel H 200a 30 spaces taken 1-16 18")
KINDS = ("structures", "panels", "boxes", "circuits", "ways")
TWO = built("panel S 100a 12 spaces", HOUSE)


def line(text: str, job: Job = HOUSE) -> Job:
    """A job after a line as it is typed on the first page."""
    return built(text, job, verb="from")


def same(made: Job, wanted: Job) -> bool:
    """Whether two lines made the same, but for the names they gave."""
    named = {
        "circuits": {"name"},
        "ways": {"name"},
        "structures": set[str](),
        "panels": set[str](),
        "boxes": set[str](),
    }
    return all(
        [item.model_dump(exclude=apart) for item in getattr(made, kind)]
        == [item.model_dump(exclude=apart) for item in getattr(wanted, kind)]
        for kind, apart in named.items()
    )


# As it is said on site: the same in the order of the short form.
SAID = {
    "12-2 nm 38' through the attic to a bath fan 20a": "from H 38' attic in nm 12-2 to fan 20a in bath",
    "12-2 38' attic to a bath fan": "from H 38' attic in 12-2 to fan in bath",
    "bath fan 20a, 12-2 nm, through the attic for about 38'": "from H 38' attic in nm 12-2 to fan 20a in bath",
    "10-3 nm 30' through the basement up 4' to dryer outlet": (
        "from H 30' basement in nm 10-3 then up 4' to dryer"
    ),
    "12-2 uf 40' trench 24\" gfci to an outdoor outlet": (
        "from H 40' trench 24\" deep in uf 12-2 to outlet gfci outside"
    ),
    "range 50a 6-3 nm 40' crawl gfci": "from H 40' crawl in nm 6-3 to range 50a gfci",
    "vehicle 48a, #6 in 3/4 emt, 20' of garage wall": "from H 20' garage wall in emt 3/4 to vehicle 48a wire 6",
    "ev charger 48 amps on a 60 amp breaker, 6 awg thhn in emt 3/4 20' along garage wall": (
        "from H 20' garage wall in emt 3/4 to vehicle 48a 60a wire 6"
    ),
    "6 awg copper in 3/4 emt 20' garage wall to vehicle 48a": (
        "from H 20' garage wall in emt 3/4 to vehicle 48a wire 6"
    ),
    "#6 thwn in emt 1\" 25' garage wall to a welder outlet 50a": (
        "from H 25' garage wall in emt 1 to welder 50a wire 6"
    ),
    "post light 45' 12-2 uf trench 24\"": "from H 45' trench 24\" deep in uf 12-2 to light outside",
    "freezer outlet in garage 12-2 mc 18' along block wall": "from H 18' block wall in mc 12-2 to freezer in garage",
    "ceiling fan in bedroom 14-3 nm 25' attic": "from H 25' attic in nm 14-3 to fan in bedroom",
    "light in garage 14-2 nm 20' stud wall": "from H 20' stud wall in nm 14-2 to light in garage",
    "garage opener outlet 12-2 22' along the ceiling": "from H 22' ceiling in 12-2 to garage door opener",
    "kitchen counter 12-2 40' basement up 3' to outlet": (
        "from H 40' basement in 12-2 then up 3' to counter outlet in kitchen"
    ),
    "to the garage freezer 12-2 nm 40' in the attic": "from H 40' attic in nm 12-2 to freezer in garage",
    "20a for a microwave, 12-2 25' crawl": "from H 25' crawl in 12-2 to microwave 20a",
    "12-2 from panel H 40' attic to a bath outlet": "from H 40' attic in 12-2 to outlet in bath",
    "12/2 with ground to a bath outlet, 40' through the attic": "from H 40' attic in 12-2 to outlet in bath",
    "shed 60a from H in 1\" pvc 60' trench 18\"": "from H 60' trench 18\" deep in pvc 1 to shed 60a",
    "feed the shed 60a 60' trench 18\" in pvc": "from H 60' trench 18\" deep in pvc to shed 60a",
    "60' trench 18\" deep in pvc 1 to feed the shed 60a": "from H 60' trench 18\" deep in pvc 1 to shed 60a",
    "shop feeder 100a in 1 1/2 pvc 80' trench 24\"": "from H 80' trench 24\" deep in pvc40 1-1/2 to shop 100a",
    "shed 30a 40' in an 18\" deep trench in 3/4 pvc": "from H 40' trench 18\" deep in pvc 3/4 to shed 30a",
    "shed 30a, 40' in a 24\" trench, uf 10-3": "from H 40' trench 24\" deep in uf 10-3 to shed 30a",
    "heat pump mca 22 max 35, 10-2 nm 30' basement, then a whip": (
        "from H 30' basement in nm 10-2 to heat pump mca 22 mocp 35"
    ),
    "mini split mca 15 mop 20: 12-2 28' attic, down 8' wall": (
        "from H 28' attic in 12-2 then down 8' stud wall to heat pump mca 15 mocp 20"
    ),
    "20 amp circuit to the garage, 12-2, 45 feet through the attic": (
        "from H 45' attic in 12-2 to outlet 20a in garage"
    ),
    "dedicated 20 amp for the microwave, 12-2 28' basement": "from H 28' basement in 12-2 to microwave 20a",
    "electric range 6-3 copper 45 feet crawlspace": "from H 45' crawl in 6-3 to range",
    "range on spaces 17 and 19, 38' crawl": "from H 38' crawl to range on 17",
    "100 amp subpanel 40' crawl": "from H 40' crawl to sub-panel S 100a",
    "shed with a 30 amp circuit 10-3 uf 60' trench 24\"": "from H 60' trench 24\" deep in uf 10-3 to shed 30a",
    "welder outlet nema 6-50 40' attic": "from H 40' attic to welder 50a 240v no neutral",
    "6-3 30' garage wall in mc to ev outlet 50a": "from H 30' garage wall in mc 6-3 to ev outlet 50a",
    "mini split outside 12-2 30 ft crawl mca 15 mocp 20 with disconnect and whip": (
        "from H 30' crawl in 12-2 to heat pump mca 15 mocp 20 outside"
    ),
    "bath outlet, 40' attic, 12-2": "from H 40' attic in 12-2 to outlet in bath",
    "bath outlet, 40' attic, 12-2 down": "from H 40' attic then down 12'2 stud wall to outlet in bath",
    "a 60 amp sub-panel G, 40' of crawl": "from H 40' crawl to sub-panel G 60a",
    "car charger 240v 40a continuous 8/3 nm 25' garage wall": (
        "from H 25' garage wall in nm 8-3 to vehicle 40a 240v"
    ),
}  # fmt: skip


@pytest.mark.parametrize(("spoken", "short"), SAID.items(), ids=SAID)
def test_the_same_in_the_order_it_is_said(spoken: str, short: str) -> None:
    assert same(line(spoken), built(short, HOUSE))


def test_every_order_of_the_parts_is_the_same_line() -> None:
    parts = ("from H", "12-2 nm", "40' attic", "to a bath outlet", "20a", "gfci")
    wanted = built("from H 40' attic in nm 12-2 to outlet 20a gfci in bath", HOUSE)
    orders = list(itertools.permutations(parts))
    wrong = [text for order in orders if not same(line(text := ", ".join(order)), wanted)]
    assert len(orders) == 720 and wrong == []


def test_a_whip_that_is_said_is_the_whip() -> None:
    job = line("heat pump mca 22 max 35 10-2 nm 30' through basement then 6' whip lfnc 1/2")
    legs = job.ways[-1].legs
    assert [(leg.method, leg.length_in) for leg in legs] == [("NM-B", 360), ("LFNC", 72)]
    ends = [leg.end.node for leg in legs]
    assert [box.kind for end in ends for box in job.boxes if box.id == end] == ["disconnect", "equipment"]
    assert not [item for item in plan(job).findings if item.severity == "stop"]


@pytest.mark.parametrize(
    ("text", "height"),
    [
        ("12-2 up 3' in the wall, 26' attic, down 7' in the wall to a bedroom outlet", 78 + 36 - 84),
        ("12-2 down 3' in the wall, 26' crawl, up 3'6 in the wall to a bedroom outlet", 48 - 36 + 42),
        ("12-2 26' stud wall to a bedroom outlet", 48),
    ],
)
def test_upward_a_panel_is_left_by_its_top(text: str, height: float) -> None:
    """H hangs from 48 to 78 in: its outlet came to lie on the floor. The way ends where its box stands."""
    job = line(text)
    assert job.boxes[-1].height_in == height
    assert "path-height" not in {item.code for item in plan(job).findings}
    drawn = plan(job).ways[-1].whole.strip
    assert drawn.legs[-1].y1 == height


def test_a_sub_panel_in_a_shed_brings_the_shed() -> None:
    job = line("60' trench 18\" in pvc40 1 to sub-panel S 60a in shed")
    shed = job.structures[-1]
    assert (shed.name, shed.kind) == ("Shed", "shed")
    assert (job.panels[-1].name, job.panels[-1].structure, job.panels[-1].main_a) == ("S", shed.id, 60)
    again = line("from H 40' trench 24\" in uf 10-3 to sub-panel T 30a in shed", job)  # it stands there now
    assert len(again.structures) == len(job.structures) and again.panels[-1].structure == shed.id


# NFPA 70 (2023), Table 430.248, 430.22(A), 430.52 (from memory): 1 hp is 8 A, 5 hp 28 A, 3 hp 17 A at 230 V.
@pytest.mark.parametrize(
    ("text", "breaker", "least", "most", "wire"),
    [
        ("well pump 1 hp 240v 100' trench 24\" in uf", 20, 10, 20, "12"),
        ("well pump 1/2 hp 240v 100' trench 24\" uf 12-2", 15, 6.12, 15, "12"),
        ("air compressor 5 hp 240v 20' garage wall in emt", 60, 35, 70, "10"),
        ("air compressor 5hp 240v 20' garage wall in emt 40a", 40, 35, 70, "10"),
        ("pump 4hp 240v 100' trench 24\" in uf", 60, 35, 70, "8"),
    ],
)
def test_horsepower_is_what_a_nameplate_would_say(
    text: str, breaker: float, least: float, most: float, wire: str
) -> None:
    job, looked = said_on(HOUSE, text, Looked(), "from")
    made = job.circuits[-1]
    assert (made.breaker_a, made.least_ampacity_a, made.largest_breaker_a) == (
        breaker,
        pytest.approx(least, abs=0.01),
        most,
    )
    assert (made.wire_size, made.nameplate) == (wire, True)
    assert any("its nameplate decides" in told for told in looked.told)
    assert not [item for item in plan(job).findings if item.severity == "stop"]


def test_a_motor_that_is_plugged_in_gets_an_outlet_that_bears_it() -> None:
    job, looked = said_on(HOUSE, "table saw 3hp 240v 24' garage wall in emt", Looked(), "from")
    assert (job.circuits[-1].breaker_a, job.boxes[-1].nema, job.circuits[-1].wire_size) == (30, "6-30", "10")
    assert job.boxes[-1].load_w == pytest.approx(17 * 240) and any("30 A" in told for told in looked.told)


def test_a_cable_in_pipe_is_single_wires_of_its_size_and_that_is_told() -> None:
    job, looked = said_on(HOUSE, "20 amp outlet in the shop, 10-2, 60' in emt along the block wall", Looked(), "from")
    assert (job.ways[-1].legs[0].method, job.circuits[-1].wire_size) == ("EMT", "10")
    assert "10-2 is a cable; in EMT go single wires of 10" in looked.told


def test_a_configuration_says_volts_neutral_and_amperes() -> None:
    """ANSI/NEMA WD 6 (from memory): 6-50 has no neutral, 14-50 has one, 5-20 is of 120 V."""
    for text, volts, amps, neutral in (("6-50", 240, 50, False), ("14-50", 240, 50, True), ("5-20", 120, 20, True)):
        made = line(f"outlet nema {text} 30' garage wall in emt")
        circuit = made.circuits[-1]
        assert (circuit.volts, circuit.breaker_a, circuit.neutral, made.boxes[-1].nema) == (
            volts,
            amps,
            neutral,
            text,
        )


def test_an_outlet_for_a_vehicle_is_plugged_into() -> None:
    job = line("6/3 nm 35' through the attic to ev outlet 50a")
    assert (job.boxes[-1].kind, job.boxes[-1].nema, job.boxes[-1].serves) == ("receptacle", "14-50", "vehicle")
    codes = {item.code for item in plan(job).findings if item.severity == "stop"}
    assert job.circuits[-1].protection == "gfci" and codes == set()


@pytest.mark.parametrize(
    ("text", "word", "told"),
    [
        ("garage outlets 12-2 nm 30'", "garage", "say how many: `3 garage outlets"),
        ("two dishwashers 12-2 nm 30' crawl", "two", "one thing, not to 'two dishwashers'"),
        ("dishwasher and disposal 12-3 30' basement", "and", "'Dishwasher and disposal'"),
        ("hot tub 50a 40' crawl", "hot", "article 680"),
        ("gizmo 12-2 40' attic", "gizmo", "what stands at the end"),
        ("40' attic 12-2 to gizmo", "gizmo", "what stands at the end"),
        ("40' attic 12-2 20a to gizmo", "gizmo", "what stands at the end"),
        ("range on 17 and 21 38' crawl", "17", "not one below the other: 17 and 19 are"),
        ("outlet nema 7-15 30' attic", "7-15", "a configuration of receptacle"),
        ("pump 12 hp 240v 40' crawl", "12 hp", "12 hp is not in the table of motors"),
        ("vehicle #5 in emt 20' garage wall", "#5", "5 is no wire size"),
        ("bath outlet 12-2", "", "how far it is and through what"),
        ("12-2 40' attic", "", "what stands at the end"),
        ("outlet, 40' attic 84\" in uf", "in", '"deep" after a second length'),
        ("light in the barn 14-2 40' crawl", "barn", "no barn stands in this job yet"),
    ],
)
def test_what_is_wrong_is_told_where_it_stands(text: str, word: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told) as refused:
        line(text)
    assert isinstance(refused.value, TextError)
    assert text[refused.value.at or 0 :].startswith(word)


def test_of_two_panels_the_one_is_named_anywhere() -> None:
    assert line("bath outlet 12-2 40' attic from S", TWO).circuits[-1].panel == TWO.panels[1].id
    with pytest.raises(TextError, match="a panel or a box by its name") as refused:
        line("bath outlet 12-2 40' attic", TWO)
    assert {"panel H", "panel S"} <= set(refused.value.allowed)


# What is said on the first page and is no line of a circuit: what it is about.
OTHERS = {
    "panel T 100a 20 spaces": "panels",
    'panel "Panel T" two free': "panels",
    "a 200 amp panel T with 30 spaces": "panels",
    "100a panel G in garage": "panels",
    "make 17 a 15 amp": "circuits",
    "R-1 is a gfci": "boxes",
    "structure shed Barn": "structures",
    "circuit 19 20a Bench": "circuits",
}


@pytest.mark.parametrize(("text", "kind"), OTHERS.items(), ids=OTHERS)
def test_other_sentences_are_read_on_the_first_page_too(text: str, kind: str) -> None:
    job = line("bath outlet 12-2 40' attic")
    after = line(text, job)
    changed = {
        key for key in ("panels", "circuits", "boxes", "structures") if getattr(after, key) != getattr(job, key)
    }
    assert kind in changed


def test_the_first_panel_needs_no_verb() -> None:
    empty = built("structure house House", Job(name="New"))
    for text in ("H 200a 30 spaces", "panel H 200a 30 spaces", "a 200 amp panel H with 30 spaces"):
        assert built(text, empty, verb="panel").panels[0].name == "H", text


@pytest.mark.parametrize(
    ("typed", "offered", "at"),
    [
        ("ba", "bath heater", 0),
        ("12-2 40' attic to dr", "dryer", 18),
        ("dr", "dryer", 0),
        ("ran", "range", 0),
        ("cir", "circuit", 0),
        ("bath outlet 12-2 40' att", "attic", 21),
    ],
)
def test_what_may_follow_is_offered(typed: str, offered: str, at: int) -> None:
    where, words = suggest_words(Scene(job=HOUSE, book=load("us-2023"), verb="from"), typed, "runs")
    assert offered in words and where == at, (where, words)


LEGS = ("40' attic", "30' through the crawl", "60' trench 18\"", "40' in an 18\" deep trench", "55' overhead", "35'")
THINGS = (
    "to a bath outlet",
    "dryer",
    "to feed the shed",
    "sub-panel S",
    "heat pump",
    "ev outlet",
    "kiln",
    "pump",
    "fan",
)
POOL = """from H|from panel H|run|add|a|dedicated|12-2|12-2 nm|uf 10/3|in 3/4 emt|6-3 copper|#6 thhn|2-2-4-6 urd
down 8' in the wall|then a whip|to the garage|smoke alarms|hot tub|light in the barn|20a|50 amps|240v|1 1/2 hp|1500 w
mca 24|max 40|gfci|on 17|on spaces 17 and 19|on a 20 amp breaker|in garage|outside|for planer 36a|as R-7|continuous
nema 6-50|with neutral|and|84"|gizmo|;|:""".replace("\n", "|").split("|")


@pytest.mark.parametrize("seed", range(6))
def test_whatever_is_put_together_is_made_or_refused_at_its_place(seed: int) -> None:
    """No sentence breaks the reader; what is refused points into the text; what is made can be planned."""
    draw = random.Random(seed)
    made = 0
    for _ in range(150):
        parts = [draw.choice(LEGS), draw.choice(THINGS), *draw.choices(POOL, k=draw.randint(0, 4))]
        draw.shuffle(parts)
        text = draw.choice((" ", ", ")).join(parts)
        try:
            job = line(text)
        except LevelRunError as error:
            assert not isinstance(error, TextError) or 0 <= (error.at or 0) <= len(text), text
            continue
        made += 1
        if made % 8 == 0:
            assert plan(job).circuits, text
    assert made > 15
