"""What a job takes, counted by hand; how it is bought; what is said of it."""

from __future__ import annotations

import math
from typing import Any

import pytest

from levelrun.core.buying.edits import MOST_TIMES
from levelrun.core.buying.items import SHELVES
from levelrun.core.buying.listed import lists_of, truck_after
from levelrun.core.buying.ordering import Order
from levelrun.core.buying.planned import Buying
from levelrun.core.errors import EditError, LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.samples import sample
from tests.conftest import built, edited, found

DEN = (
    "room Den 12' x 10'; panel in Den west 5' spaces 12 main 100a as P; set receptacle in Den north 4' as R-1; "
    "set receptacle in Den north 9' as R-2; set receptacle in Den east 5' as R-3; set switch in Den south 2' as S-1; "
    "set light in Den centre as L-1; circuit in P 1 20a afci Outlets: R-1 R-2 R-3; "
    "circuit in P 3 15a afci Lights: S-1 L-1"
)


def den() -> Job:
    job = Job(name="Den")
    for text in DEN.split("; "):
        job = edited(job, {"op": "say", "text": text})
    return job


def buying(job: Job) -> Buying:
    return plan(job).buying


def counts(job: Job) -> dict[str, float]:
    """What a job takes, by name: pieces, feet, inches of pipe."""
    return {key: row.amount for key, row in buying(job).taken.rows.items()}


def order(job: Job, item: str) -> Order:
    return next(one for one in buying(job).orders if one.row.item.key == item)


def test_a_room_counted_by_hand() -> None:
    """Three receptacles on 12, a switch and a light on 14, all in new boxes.

    Boxes: three single-gang for receptacles and one for the switch, one round. R-1 and R-2 stand in the middle of the
    chain: neutral, hot and ground joined with a pigtail each, 3 wires of 12: 6 medium. R-3 ends it: nothing. S-1: its
    neutral through (2 of 14: small), its ground with the device (3 of 14: small). L-1: neutral with the lead (14 and
    18), switched hot with the lead, its one ground on the lamp: 2 small. Clamps: round box has its own, plastic ones
    want none, the panel one a cable: 2. Labels two a cable, five cables.
    """
    own = counts(den())
    assert own["box single-18"] == 4 and own["box round-20"] == 1
    assert own["receptacle 15 A tamper-resistant"] == 3 and own["switch single-pole"] == 1
    assert own["plate 1-gang receptacle"] == 3 and own["plate 1-gang switch"] == 1
    assert own["breaker 1-pole 20 A arc-fault"] == 1 and own["breaker 1-pole 15 A arc-fault"] == 1
    assert own["medium twist-on connector"] == 6 and own["small twist-on connector"] == 4
    assert own["cable connector 3/8"] == 2 and own["cable label"] == 10 and own["permit"] == 1
    assert not [key for key in own if key.startswith(("panel ", "ground", "box square"))], (
        "the panel is there already"
    )


def test_cables_are_the_cuts_of_the_plan_and_nothing_else() -> None:
    job = den()
    whole = plan(job)
    cuts = [cut for way in whole.drawn.ways.values() for cut in way.cuts]
    own = counts(job)
    assert own["12-2 NM-B"] == sum(cut.cut_in for cut in cuts if cut.what == "12-2 NM-B") / 12
    assert own["14-2 NM-B"] == sum(cut.cut_in for cut in cuts if cut.what == "14-2 NM-B") / 12


def test_every_line_says_where_it_goes_and_rows_stand_in_the_order_of_shelves() -> None:
    rows = list(buying(sample("quince-hollow")).taken.rows.values())
    assert all(line.at.name and line.amount > 0 for row in rows for line in row.lines)
    shelves = [SHELVES.index(row.item.shelf) for row in rows]
    assert shelves == sorted(shelves)


def test_wire_in_pipe_is_bought_by_colour_and_pipe_over_the_whole_job() -> None:
    """The demo's PVC 40 3/4: its pieces from as few sticks as all of them together can be cut from."""
    job = sample("quince-hollow")
    sticks = order(job, "PVC 40 3/4 stick")
    assert sticks.proven and len(sticks.bars) == math.ceil(sum(sticks.row.cuts) / 120) == 12
    for bar in sticks.bars:
        assert sum(sticks.row.cuts[i] for i in bar.cuts) <= 120 + 1e-6
    own = counts(job)
    assert own["12 THWN-2 black"] > 0 and own["12 THWN-2 green"] >= own["12 THWN-2 white"]


def test_a_bored_hole_is_no_staple() -> None:
    """22 ft level in a crawl space: 16 holes hold it, and a staple by each box; upright it is stapled, by habit 8 in
    from the box and then every 4 ft: 4 ft up and down take one or two each."""
    job, walk = Job(name="Old house"), "down 4' stud wall in 12-2 then over 22' crawl then up 5' stud wall"
    for text in ("panel H 100a 20 spaces taken 1-14", f"from H {walk} to outlet in hall"):
        job = edited(job, {"op": "say", "text": text})
    assert counts(job)["cable staple, small"] <= 6


def test_an_outdoor_receptacle_is_weather_resistant_with_a_cover_in_use() -> None:
    job = built("set receptacle in Den outside north 3' as R-9", den())
    own = counts(job)
    assert own["receptacle 15 A tamper-resistant weather-resistant"] == 1 and own["in-use cover"] == 1
    assert own["receptacle 15 A tamper-resistant"] == 3, "near miss: those inside are not"


def test_a_sub_panel_that_this_job_feeds_is_bought_and_an_old_one_is_not() -> None:
    job = built("panel in Den east 3' spaces 12 main lugs sub as Q", den())
    fed = built("feed Q from P 5 60a wire 6", job)
    assert "panel 12 spaces lugs 125 A" not in counts(job)
    assert counts(fed)["panel 12 spaces lugs 125 A"] == 1 and counts(fed)["ground bar"] == 1
    old = edited(fed, {"op": "set", "kind": "panel", "id": fed.panels[1].id, "set": {"taken": [1, 2]}})
    assert "panel 12 spaces lugs 125 A" not in counts(old), "breakers of other work stand in it"


def test_levers_and_two_in_a_clamp_are_habits() -> None:
    job = den()
    habits = job.habits.model_dump()
    habits["buying"] |= {"joints": "lever", "cables_a_clamp": 2}
    own = counts(edited(job, {"op": "set_job", "set": {"habits": habits}}))
    assert own["3-port lever connector"] == 7 and "medium twist-on connector" not in own
    ivory = {**habits, "buying": {**habits["buying"], "colour": "ivory"}}
    named = order(edited(job, {"op": "set_job", "set": {"habits": ivory}}), "switch single-pole").item.title
    assert named == "switch single-pole, ivory"
    assert own["cable connector 3/8, listed for two"] == 1 and "cable connector 3/8" not in own


def test_what_nobody_has_said_of_buying_says_nothing() -> None:
    """Near miss of every code: a whole house with no word about buying."""
    assert not [f for f in plan(den()).findings if f.stage == "buy"]


def test_the_one_coil_guess_is_told_and_mended() -> None:
    job = edited(den(), {"op": "buy", "item": "12-2 NM-B", "packs": [{"size": 25.0}]})
    need = order(den(), "12-2 NM-B").row.amount
    (short,) = found(job, "coil-short")
    assert short.severity == "stop" and f"{need - 25:.0f}" <= short.title.rsplit(" ", 1)[1]
    for mend in short.mends:
        after = edited(job, *mend.edits)
        assert not found(after, "coil-short"), mend.label
        assert order(after, "12-2 NM-B").dollars is not None
    enough = edited(job, {"op": "buy", "item": "12-2 NM-B", "packs": [{"size": 250.0}]})
    assert not found(enough, "coil-short"), "near miss: 250 ft hold them"


def test_a_total_is_never_too_low_for_a_coil_too_few() -> None:
    job = edited(den(), {"op": "buy", "item": "12-2 NM-B", "packs": [{"size": 25.0}]})
    short, cheap = order(job, "12-2 NM-B"), order(den(), "12-2 NM-B")
    assert short.dollars is not None and cheap.dollars is not None
    assert short.dollars >= cheap.dollars and short.short_dollars > 0


def test_what_is_on_the_truck_is_used_first_and_what_is_left_goes_back() -> None:
    job = edited(
        den(), {"op": "have", "item": "12-2 NM-B", "amount": 200.0},
        {"op": "have", "item": "box single-18", "amount": 3},
    )  # fmt: skip
    cable, boxes = order(job, "12-2 NM-B"), order(job, "box single-18")
    assert cable.dollars == 0 and not cable.bought and all(bar.have for bar in cable.bars)
    assert boxes.had == 3 and sum(one.count * one.pack for one in boxes.bought) == 1
    after = {row.item: row.amount for row in truck_after(buying(job))}
    assert after["12-2 NM-B"] == math.floor(200 - cable.row.amount)


def test_another_is_taken_instead() -> None:
    job = edited(den(), {"op": "buy", "item": "box single-18", "instead": "box single-20"})
    assert order(job, "box single-18").item.key == "box single-20"
    rows = [row for one in lists_of(buying(job)) for row in one.rows if row.key == "box single-18"]
    assert rows[0].item.startswith("box single-20 (for ")


def test_a_twist_on_connector_on_aluminum_is_a_stop() -> None:
    """110.14(B): a connector is listed for the metal it joins."""
    job = sample("quince-hollow")
    assert order(job, "connector listed for aluminum").row.amount > 0
    wrong = edited(
        job, {"op": "buy", "item": "connector listed for aluminum", "instead": "medium twist-on connector"}
    )  # fmt: skip
    (said,) = found(wrong, "fitting-al")
    assert said.severity == "stop" and not found(job, "fitting-al")
    assert not found(edited(wrong, *said.mends[0].edits), "fitting-al")


def price(item: str, dollars: float, **more: Any) -> dict[str, Any]:
    return {"op": "price", "item": item, "supplier": "supply house", "dollars": dollars, **more}


def test_what_is_nowhere_on_the_shelf_is_a_back_order_against_its_day() -> None:
    item, out = "breaker 1-pole 15 A arc-fault", {"out": True, "days": 21}
    job = edited(den(), price(item, 49.0, **out), price(item, 60.0, supplier="big store", **out))
    (asked,) = found(job, "back-order")
    assert asked.severity == "check" and asked.measured == "21 days"
    late = edited(job, {"op": "buy", "item": item, "needed_on": "2026-05-03", "due_on": "2026-05-10"})
    assert found(late, "back-order")[0].limit == "2026-05-03"
    early = edited(job, {"op": "buy", "item": item, "needed_on": "2026-05-12", "due_on": "2026-05-10"})
    assert not found(early, "back-order"), "near miss: it comes before it is needed"
    elsewhere = edited(den(), price(item, 49.0, **out))
    assert not found(elsewhere, "back-order"), "near miss: another shop has it"


def test_a_kind_that_nobody_sells_and_a_part_without_a_price() -> None:
    job = edited(den(), {"op": "buy", "item": "12-2 NM-B", "instead": "12-9 NM-B"})
    assert found(job, "not-sold")[0].severity == "check"
    part = edited(den(), {"op": "buy", "item": "box round-20", "instead": "box of my own"})
    assert found(part, "no-price") and order(part, "box round-20").dollars is None
    priced = edited(part, price("box of my own", 4.0))
    assert not found(priced, "no-price")


def test_a_cut_longer_than_the_longest_coil_is_never_pieced_together() -> None:
    """Sold in 25 ft only, and by nobody by the foot: longer cuts are a stop; with a reel they are none."""
    item, only = "12-2 cable of my own", {"unit": "ft"}
    job = edited(
        den(), {"op": "buy", "item": "12-2 NM-B", "instead": item},
        price(item, 20.0, pack=10.0, **only),
    )  # fmt: skip
    (long,) = found(job, "cut-long")
    assert long.severity == "stop" and long.limit == "10 ft"
    assert not found(edited(job, price(item, 90.0, pack=500.0, **only)), "cut-long")


@pytest.mark.parametrize(
    ("edit", "match"),
    [
        (price("12-2 NM-B", -1.0, unit="ft"), "dollars"),
        (price("12-2 NM-B", 120.0, pack=250.0, unit="each"), "goes by foot, not by piece"),
        (price("box single-18", 1e5), "others are"),
        (price("12-2 NM-B", 0.001, pack=250.0, unit="ft"), "others are"),
        ({**price("box single-18", 1.0), "supplier": ""}, "supplier"),
        ({"op": "have", "item": "14-2 NM-B", "amount": -4}, "amount"),
        ({"op": "buy", "item": "14-2 NM-B", "packs": [{"size": 0}]}, "size"),
        ({"op": "buy", "item": "14-2 NM-B", "instead": "14-2 NM-B"}, "itself"),
    ],
)
def test_bad_input_is_refused_at_its_field_and_nothing_is_lost(edit: dict[str, Any], match: str) -> None:
    with pytest.raises((EditError, LevelRunError, ValueError), match=match):
        edited(den(), edit)


def test_a_price_may_be_far_from_the_others_but_not_absurd() -> None:
    """Eight to one between shops is known in the trade: common practice, no source."""
    job = edited(den(), price("12 wire", 0.2 * 8, unit="ft"))
    assert job.prices[0].dollars == pytest.approx(1.6) and MOST_TIMES > 8


def test_of_many_prices_all_are_taken_or_none() -> None:
    rows = [{"item": "box single-18", "supplier": "yard sale", "dollars": 0.8},
            {"item": "12-2 NM-B", "supplier": "yard sale", "dollars": 9.0}]  # fmt: skip
    with pytest.raises(EditError, match=r"row 2: .*foot"):
        edited(den(), {"op": "prices", "rows": rows})
    job = edited(den(), {"op": "prices", "rows": rows[:1]})
    assert order(job, "box single-18").bought[0].supplier == "yard sale"


def test_a_tick_holds_by_its_time_and_what_was_paid_becomes_the_price() -> None:
    tick = {"op": "tick_row", "item": "box single-18", "supplier": "big store", "amount": 4, "pack": 1}
    job = edited(
        den(), {**tick, "state": "bought", "at": "2026-05-03T09:00:00Z", "paid": 4.4},
        {**tick, "state": "returned", "at": "2026-05-03T08:00:00Z"},
    )  # fmt: skip
    assert len(job.purchases) == 2, "both stay"
    rows = [row for one in lists_of(buying(job)) for row in one.rows if row.key == "box single-18"]
    ours = next(row for row in rows if row.supplier == "big store")
    assert ours.state == "bought" and len(ours.ticks) == 2, "the later one holds, in whatever order they come"
    assert job.prices[0].dollars == pytest.approx(1.1) and job.prices[0].on == "2026-05-03"


def test_a_part_that_no_longer_exists_leaves_its_words_and_breaks_nothing() -> None:
    job = edited(
        den(), {"op": "buy", "item": "SER 9-9", "by_foot": True}, {"op": "have", "item": "gone", "amount": 2}
    )
    assert plan(job).buying.dollars == plan(den()).buying.dollars
