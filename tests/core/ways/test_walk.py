"""Walk shorthand, read and written."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import cable_sizes, methods, places, raceway_sizes
from levelrun.core.errors import TextError
from levelrun.core.ways.next_leg import GO
from levelrun.core.ways.parts import Shape
from levelrun.core.ways.shape_words import BARE as BENDS
from levelrun.core.ways.shape_words import TOWARD
from levelrun.core.ways.walk import FACT_WORDS, WalkLeg, parse_walk, suggest, write_leg


def test_reads_a_leg_with_or_without_the_leading_word(book: Codebook) -> None:
    wanted = [WalkLeg(go="over", length_in=516.0, place="trench", method="PVC40", size="3/4", depth_in=16.0)]
    assert parse_walk(book, "walk over 43' trench 16\" deep in pvc40 3/4") == wanted
    assert parse_walk(book, "over 43′ trench 16″ deep in 3/4 PVC 40") == wanted


def test_reads_several_legs_and_names(book: Codebook) -> None:
    text = "down 5' stud bay in 12-2; over 28' 4\" crawl to J-1\n"
    text += "over 3'6 outside in pvc80 3/4 to lb then up 2' to Panel S"
    legs = parse_walk(book, text, ["Panel S"])
    assert [leg.to for leg in legs] == [None, "J-1", "LB", "Panel S"]
    assert [leg.method for leg in legs] == ["NM-B", None, "PVC80", None]
    assert legs[0].size == "12-2" and legs[2].length_in == 42


@pytest.mark.parametrize(
    ("text", "at", "word"),
    [
        ("over 43' trnch in pvc40", 9, "trnch"),
        ("sideways 3'", 0, "sideways"),
        ("over 43 trench", 7, "43"),
        ("over 5' trench in pvc40 5/8", 24, "5/8"),
        ("over 4' attic\nup 3½″ attik", 21, "attik"),
        ("over 5' trench in pvc41", 18, "pvc41"),
    ],
)
def test_a_bad_word_shows_where(book: Codebook, text: str, at: int, word: str) -> None:
    with pytest.raises(TextError) as refused:
        parse_walk(book, text)
    assert (refused.value.at, refused.value.value) == (at, word)
    assert refused.value.allowed


@pytest.mark.parametrize(
    "said", ["ambient 40", "ambient 40 C", "at 40 c", "40C", "104F", "104 °F", "ambient 104 f", "at 104° f"]
)
def test_how_hot_it_gets_in_either_unit(book: Codebook, said: str) -> None:
    (leg,) = parse_walk(book, f"up 8' outside wall {said} in emt 3/4 to C-1")
    assert (leg.facts, leg.method, leg.to) == ({"ambient_c": 40.0}, "EMT", "C-1")


@pytest.mark.parametrize("said", ["99 c", "ambient 200 f", "ambient hot"])
def test_a_heat_that_no_place_has_is_pointed_at(book: Codebook, said: str) -> None:
    with pytest.raises(TextError, match="-40 to 90 C") as refused:
        parse_walk(book, f"over 12' outside wall {said}", ["C-1"])
    assert refused.value.at == len("over 12' outside wall ")


def test_a_box_after_a_length_is_no_heat(book: Codebook) -> None:
    assert [leg.to for leg in parse_walk(book, "over 12' attic to C-1; up 4' stud wall to F-2")] == ["C-1", "F-2"]


def test_completes_what_may_stand_next(book: Codebook) -> None:
    assert suggest(book, "o") == (0, ["over"])
    assert suggest(book, "over 43' tr")[1] == ["trench"]
    assert suggest(book, "over 43' trench in pvc 40 ")[1][:3] == ["1/2", "3/4", "1"]
    assert "J-1" in suggest(book, "over 4' trench to ", ["J-1"])[1]


def _legs() -> st.SearchStrategy[WalkLeg]:
    book = load()
    sized = [(None, None)] + [
        (key, size)
        for key, m in methods(book).items()
        for size in ([p.size for p in raceway_sizes(book, key)] if m.kind == "raceway" else cable_sizes(book, key))
    ]
    words: dict[str, list[Any]] = {}
    for key, value in FACT_WORDS.values():
        words.setdefault(key, []).append(value)
    return st.builds(
        lambda go, n, place, ms, depth, to, bends, facts, sleeve, shapes, radius, feed, off: WalkLeg(
            go=go,
            length_in=n / 16,
            place=place,
            method=ms[0],
            size=ms[1],
            depth_in=None if depth is None else depth / 16,
            to=to,
            bends_deg=bends,
            sleeve=sleeve,
            facts=facts,
            shapes=tuple(shapes),
            radius_in=None if radius is None else radius / 8,
            feed=feed,
            stands_off=off,
        ),
        st.sampled_from(GO),
        st.integers(1, 100_000),
        st.sampled_from([None, *places(book)]),
        st.sampled_from(sized),
        st.none() | st.integers(0, 2000),
        st.sampled_from([None, "LB", "coupling", "body", "J-1", "Panel S", "Kiln 2"]),
        st.sampled_from([(), *BENDS.values(), (30.0, 30.0), (22.5,)]),
        st.fixed_dictionaries({}, optional={key: st.sampled_from(values) for key, values in words.items()}),
        st.booleans(),
        st.lists(_shapes(), max_size=2),
        st.none() | st.integers(8, 1900),
        st.sampled_from(["", "start", "end"]),
        st.booleans(),
    )


def _shapes() -> st.SearchStrategy[Shape]:
    """Shapes as they are said: each with what its kind wants."""
    eighths = st.integers(1, 1900).map(lambda n: n / 8)
    return st.builds(
        lambda kind, rise, angle, at, other, toward: Shape(
            kind=kind,
            rise_in=rise,
            angle_deg=angle,
            at_in=at,
            roll_in=other if kind == "rolling" else None,
            width_in=other if kind == "saddle4" else None,
            toward=toward,
        ),
        st.sampled_from(["box_offset", "offset", "saddle3", "saddle4", "kick", "rolling"]),
        eighths,
        st.none() | st.integers(1, 89).map(float) | st.just(22.5),
        st.none() | st.integers(0, 9000).map(lambda n: n / 8),
        eighths,
        st.sampled_from(TOWARD),
    )


@given(st.lists(_legs(), min_size=1, max_size=4))
def test_what_is_written_reads_back_the_same(legs: list[WalkLeg]) -> None:
    text = "\n".join(write_leg(load(), leg) for leg in legs)
    assert parse_walk(load(), text, ["Panel S", "J-1"]) == legs


@given(st.text(alphabet="over up 4'\"-/12 trenchpvcto½;\n", max_size=40))
def test_no_text_brings_it_down(text: str) -> None:
    try:
        parse_walk(load(), text)
    except TextError as refused:
        assert refused.at is not None and 0 <= refused.at <= len(text)
    suggest(load(), text)


@pytest.mark.parametrize(
    ("text", "legs"),
    [
        ("22' basement joists 12-2, down 4' wall", [(264, "NM-B", "12-2"), (48, None, None)]),
        ("20' wall, 10-3, up 6' wall", [(240, "NM-B", "10-3"), (72, None, None)]),
        ("22' basement 12-2 down 4' wall", [(264, "NM-B", "12-2"), (48, None, None)]),
        ("up 8' wall, 12-2 over attic, 6' down wall", [(96, None, None), (146, None, None), (72, None, None)]),
        ("22' basement, 12-2 crawl, down 4'", [(264, None, None), (146, None, None), (48, None, None)]),
        ("22' basement in 10-2, 12-2 crawl", [(264, "NM-B", "10-2"), (146, None, None)]),
    ],
)
def test_the_size_of_a_cable_before_the_next_leg_is_no_length(
    book: Codebook, text: str, legs: list[tuple[float, str | None, str | None]]
) -> None:
    """12-2 may be twelve feet two or a cable: with a place or a way of its own it is a leg, else it is pulled."""
    assert [(leg.length_in, leg.method, leg.size) for leg in parse_walk(book, text)] == legs
