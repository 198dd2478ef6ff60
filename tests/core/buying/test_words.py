"""Sentences about buying: what each makes, and what is wrong with others."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.errors import TextError
from levelrun.core.job import Job
from levelrun.exchange.text import read_text, write_text
from levelrun.samples import sample
from tests.conftest import edited

WANTS: dict[str, dict[str, Any]] = {
    "buy 12-2 by the foot": {"item": "12-2 NM-B", "by_foot": True},
    "buy 1 x 250' of 12-2": {"item": "12-2 NM-B", "packs": [(250.0, 1)]},
    "buy 250' + 100' + 100' of 12-2": {"packs": [(250.0, 1), (100.0, 2)]},
    "buy 2 x 250' and 1 x 50' of 14-2 at the supply house": {"item": "14-2 NM-B", "supplier": "supply house"},
    "buy 12-2 UF-B at big store": {"item": "12-2 UF-B", "supplier": "big store"},
    "buy 6 THWN-2 black by the foot": {"item": "6 THWN-2 black"},
    "buy breaker 1-pole 20 A for 2026-05-03 due 2026-05-10": {"needed_on": "2026-05-03", "due_on": "2026-05-10"},
    "buy two 250' coils of 12/2": {"item": "12-2 NM-B", "packs": [(250.0, 2)]},
    "buy 2 coils of 250' of 12-2": {"item": "12-2 NM-B", "packs": [(250.0, 2)]},
    "buy a 100' roll of 14-2": {"item": "14-2 NM-B", "packs": [(100.0, 1)]},
    "buy 2 x 250' of 12-2 and 1 x 100'": {"packs": [(250.0, 2), (100.0, 1)]},
    "swap box single-18 for box single-20": {"item": "box single-18", "instead": "box single-20"},
    'buy box single-18 instead "box of my own"': {"instead": "box of my own"},
}


def said(text: str, job: Job | None = None) -> Job:
    return edited(job or Job(name="J"), {"op": "say", "text": text})


@pytest.mark.parametrize("text", WANTS)
def test_how_a_row_is_bought(text: str) -> None:
    (want,) = said(text).wants
    for key, value in WANTS[text].items():
        own = [(pack.size, pack.count) for pack in want.packs] if key == "packs" else getattr(want, key)
        assert own == value, key


def test_as_is_cheapest_takes_all_of_it_back() -> None:
    job = said("buy 12-2 by the foot", said("buy 12-2 at the big store"))
    assert job.wants[0].by_foot and job.wants[0].supplier == "big store", "what is not named stays"
    assert said("buy 12-2 as is cheapest", job).wants == ()


@pytest.mark.parametrize(
    ("text", "item", "amount"),
    [
        ("have 60' of 14-2", "14-2 NM-B", 60.0),
        ("have a 62' piece of 12/2", "12-2 NM-B", 62.0),
        ("have 18.5 m of 12-2", "12-2 NM-B", 60.696),
        ("have 12 of box single-18", "box single-18", 12.0),
        ('have 3 of "odd rings"', "odd rings", 3.0),
    ],
)
def test_what_is_on_the_truck(text: str, item: str, amount: float) -> None:
    (part,) = said(text).stock
    assert part.item == item and part.amount == pytest.approx(amount, abs=0.01)


def test_none_of_it_any_more() -> None:
    assert said("have 0 of 14-2", said("have 60' of 14-2")).stock == ()


@pytest.mark.parametrize(
    ("text", "values"),
    [
        ("price 12-2 250' $119 at the supply house", {"item": "12-2 NM-B", "pack": 250.0, "dollars": 119.0}),
        ("price 12-2 $0.95 a foot at the big store", {"pack": 1.0, "unit": "ft", "dollars": 0.95}),
        ("price box single-18 25 pieces $19 at the supply house on 2026-05-03", {"pack": 25.0, "on": "2026-05-03"}),
        ("price 6 THWN-2 black $1.10 a foot at supply house", {"item": "6 wire", "unit": "ft"}),
        ('price 12-2 250\' $119 at "Corner shop"', {"supplier": "Corner shop"}),
        ("price breaker 1-pole 20 A $9 out 14 days at the big store", {"out": True, "days": 14}),
    ],
)  # fmt: skip
def test_what_a_thing_costs(text: str, values: dict[str, Any]) -> None:
    (price,) = said(text).prices
    assert {key: getattr(price, key) for key in values} == values


@pytest.mark.parametrize(
    ("text", "at", "match"),
    [
        ("buy 2 coils of 12-2", 4, "how long is the coil"),
        ("have a roll of 12-2", 5, "how long is the roll"),
        ("buy 12-2", 4, "by the foot"),
        ("buy 250' of nothing", 12, "what is bought"),
        ("buy 12-2 for tomorrow", 13, "a day"),
        ("have 60 of 14-2", 5, "goes by the foot: say 60'"),
        ("have lots of 14-2", 5, "length"),
        ("price 12-2 250' $0 at the supply house", 16, "over 0"),
        ("price 12-2 250' at the supply house", 16, r"\$ and dollars"),
        ("price 12-2 250' $119", 20, "supplier"),
        ("swap box single-18 for", 22, "taken instead"),
    ],
)
def test_a_wrong_word_is_refused_where_it_stands(text: str, at: int, match: str) -> None:
    with pytest.raises(TextError, match=match) as caught:
        said(text)
    assert caught.value.at == at


def test_what_is_said_of_buying_goes_out_as_text_and_comes_back() -> None:
    job = said("buy 1 x 250' of 12-2", said("have 60' of 14-2", sample("quince-hollow")))
    back = read_text(write_text(job))
    assert back.wants == job.wants and back.stock == job.stock


def test_prices_and_ticks_are_named_in_a_remark_only() -> None:
    job = said("price 12-2 250' $119 at the supply house", sample("quince-hollow"))
    text = write_text(job)
    assert "# 2 prices" in text and "part price" not in text and "119" not in text
