"""Joints of boxes, counted by hand: what is joined, what lands on a device, what is capped, what joins it."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import pytest

from levelrun.core.boxes.catalogue import model_of
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.joints import LISTED, Joint, connector_for, joints_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Box

FEED = ("neutral", "hot")


def cable(side: str = "feed", words: tuple[str, ...] = FEED, size: str = "12", **more: Any) -> Entering:
    return Entering(
        size=size, count=len(words), ground=size, cable=True, side=side, other="", circuit="9", words=words, **more
    )


def joints(book: Codebook, box: Box, *cables: Entering) -> list[tuple[str, int, int]]:
    """What each joint does, its wires with pigtails and leads, its pigtails."""
    return [(j.what, len(j.wires), j.pigtails) for j in joints_of(book, box, model_of(book, box), cables)]


def box(**values: Any) -> Box:
    return Box.model_validate({"id": "b", "name": "R-1", "structure": "s", **values})


def test_the_last_receptacle_joins_nothing(book: Codebook) -> None:
    """Hot, neutral and ground land on its screws, in a plastic box."""
    assert joints(book, box(kind="receptacle"), cable()) == []


def test_a_receptacle_in_the_middle_joins_three_with_a_pigtail_each(book: Codebook) -> None:
    assert joints(book, box(kind="receptacle"), cable(), cable("load")) == [
        ("neutral", 3, 1), ("hot", 3, 1), ("ground", 3, 1),
    ]  # fmt: skip


def test_a_steel_box_has_a_ground_of_its_own(book: Codebook) -> None:
    """Near miss of the last receptacle: the box is bonded too (250.148)."""
    assert joints(book, box(kind="receptacle", model="square-21"), cable()) == [("ground", 3, 2)]


def test_a_switch_joins_its_neutral_and_sends_the_switched_leg_from_its_screw(book: Codebook) -> None:
    found = joints(book, box(kind="switch"), cable(), cable("load", ("neutral", "switched hot")))
    assert found == [("neutral", 2, 0), ("ground", 3, 1)]


def test_a_neutral_that_ends_at_a_switch_is_capped(book: Codebook) -> None:
    """404.2(C): it is there for later."""
    own, loop = box(kind="switch"), cable("feed", ("neutral", "hot", "switched hot"))
    (neutral,) = [j for j in joints_of(book, own, model_of(book, own), [loop]) if j.what == "neutral"]
    assert neutral.capped and neutral.wires == ("12",)


def test_a_light_joins_its_leads_and_passes_on_what_goes_farther(book: Codebook) -> None:
    found = joints(book, box(kind="light"), cable("feed", ("neutral", "switched hot")),
                   cable("load", ("neutral", "switched hot")))  # fmt: skip
    assert found == [("neutral", 3, 0), ("switched hot", 3, 0), ("ground", 3, 1)]


def test_a_junction_joins_each_leg_of_240_volts_apart(book: Codebook) -> None:
    two = ("hot", "hot", "neutral")
    found = joints(book, box(kind="junction", model="square-42"), cable("feed", two, "6"), cable("load", two, "6"))
    assert found == [("hot 1", 2, 0), ("hot 2", 2, 0), ("neutral", 2, 0), ("ground", 3, 1)]


def test_two_circuits_in_a_box_share_only_their_grounds(book: Codebook) -> None:
    other = Entering(
        size="12", count=2, ground="12", cable=True, side="feed", other="", circuit="11", words=FEED
    )  # fmt: skip
    found = joints_of(book, box(kind="junction"), model_of(book, box(kind="junction")), [cable(), other])
    assert {j.circuit for j in found if j.what != "ground"} == {"9", "11"}
    assert [len(j.wires) for j in found if j.what == "ground"] == [3], "both, and the steel box"


def test_what_only_passes_is_not_joined(book: Codebook) -> None:
    assert joints(book, box(kind="junction"), cable("through")) == []


@pytest.mark.parametrize("kind", ["equipment", "disconnect", "tail"])
def test_terminals_of_their_own_join_nothing(book: Codebook, kind: str) -> None:
    assert joints(book, box(kind=kind), cable(), cable("load")) == []


@pytest.mark.parametrize(
    ("wires", "kind", "name"),
    [  # circular mils: 14 has 4,110, 12 has 6,530 (chapter 9 table 8)
        (("14", "14"), "twist", "small twist-on connector"),
        (("14", "14", "14"), "twist", "small twist-on connector"),
        (("12", "12"), "twist", "small twist-on connector"),
        (("12", "12", "12"), "twist", "medium twist-on connector"),
        (("12", "12", "12", "12"), "twist", "medium twist-on connector"),
        (("12",) * 5, "twist", "large twist-on connector"),
        (("10", "10", "10"), "twist", "large twist-on connector"),
        (("12", "12"), "lever", "2-port lever connector"),
        (("12", "12", "12"), "lever", "3-port lever connector"),
        (("14",) * 4, "lever", "5-port lever connector"),
        (("6", "6"), "lever", "insulated splice up to 6"),
        (("2", "2"), "twist", ""),
    ],
)
def test_what_joins_them(book: Codebook, wires: tuple[str, ...], kind: str, name: str) -> None:
    assert connector_for(book, Joint(circuit="", what="hot", wires=wires, pigtails=0), kind) == name


def test_aluminum_is_joined_by_what_is_listed_for_it(book: Codebook) -> None:
    found = joints_of(
        book, box(kind="junction"), model_of(book, box(kind="junction")),
        [cable(material="al"), cable("load", material="al")],
    )  # fmt: skip
    assert {connector_for(book, joint, "twist") for joint in found} == {LISTED}


def test_each_next_connector_takes_as_much_and_more(book: Codebook) -> None:
    order = wire_sizes(book)
    for kind in ("twist", "lever"):
        rows = [row for row in book.table("connectors").rows if row["kind"] == kind]
        for one, two in pairwise(rows):
            assert float(one["area_cmil"]) <= float(two["area_cmil"])
            assert order.index(one["largest"]) <= order.index(two["largest"])
