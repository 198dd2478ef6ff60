"""Overlays and local notes: what differs, what cites, and that a tighter note never loosens."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.codebook import LocalRule, load, notable, rule_sets, with_notes
from levelrun.core.codebook.lookups import methods, support_rule
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job, LocalNote
from levelrun.core.plan import compare, plan
from levelrun.core.trade.cover import cover
from levelrun.core.trade.pipe.fill import max_count
from levelrun.core.trade.supports import supports
from levelrun.exchange.entries import search
from levelrun.exchange.notes_file import NotesFileError, read_notes, write_notes
from levelrun.samples import sample
from tests.conftest import codes, edited, one_way


def note(key: str, value: float, approved: bool = False) -> LocalNote:
    return LocalNote(id=f"n-{key}"[:40], key=key, value=value, who="Inspector", when="2026-11-02", approved=approved)


def noted(job: Job, *notes: LocalNote) -> Job:
    return edited(job, {"op": "set_job", "set": {"notes": [n.model_dump() for n in notes]}})


def test_an_overlay_holds_only_what_differs() -> None:
    base, older = load("us-2023"), load("us-2020")
    for name in ("gfci-places", "240-6-breakers"):
        assert older.table(name).rows != base.table(name).rows
    same = [n for n in base.tables if n not in ("gfci-places", "240-6-breakers", "sections")]
    assert all(older.table(n) is base.table(n) for n in same)
    assert older.table("gfci-places").get("kitchen")["text"] != base.table("gfci-places").get("kitchen")["text"]


def test_the_canadian_set_has_its_own_numbers() -> None:
    """CSA C22.1:21 rules 12-012, 12-510, 12-1404, 12-1114, 12-3000, 26-722, 8-304, from memory; millimetres."""
    book = load("ca-2021")
    assert cover(book, "PVC40", "open_ground", 120, 20, True).cover_in == pytest.approx(450 / 25.4, abs=1e-3)
    assert cover(book, "UF-B", "driveway", 120, 20, True).cover_in == pytest.approx(900 / 25.4, abs=1e-3)
    assert support_rule(book, "EMT", "3/4").spacing_in == pytest.approx(1500 / 25.4, abs=1e-3)
    assert supports(book, "NM-B", "", 100, "box_clamped", "none").first_max_in == pytest.approx(300 / 25.4, abs=1e-3)
    assert book.number("free_from_sheath_in") == pytest.approx(150 / 25.4)
    assert book.number("receptacle_reach_in") == pytest.approx(1800 / 25.4)
    assert book.number("outlets_per_circuit") == 12
    assert methods(book)["NM-B"].name == "NMD90 cable" and book.units == "metric"
    assert max_count(book, "EMT", "1/2", "THWN-2", "12") <= max_count(load(), "EMT", "1/2", "THWN-2", "12")


def test_a_job_by_another_set_is_decided_anew_and_cites_it() -> None:
    job = sample("quince-hollow")
    other = job.model_copy(update={"rules": "ca-2021"})
    found = [f for f in plan(other).findings if f.code == "cover-short"]
    assert {f.section for f in found} == {"CEC 12-012, table 53"}
    assert "450 mm" in found[0].text
    changes = compare(job, other)
    assert {c.side for c in changes} == {"comes", "goes"} and compare(job, job) == []


@pytest.mark.parametrize("rules", rule_sets())
def test_every_cited_section_word_is_cited_somewhere(rules: str) -> None:
    book = load(rules)
    table = book.tables.get("sections")
    for row in table.rows if table else ():
        assert book.cite(row["us_2023"]) == row["section"]
    assert book.cite("not a section") == "not a section"


def test_local_notes_decide_and_the_finding_says_so() -> None:
    trench = "over 10' trench 18\" deep in pvc40 1 to C-1"
    cases = [
        ("cover_least_in", 24, one_way(trench), "cover-short"),
        ("pipe_only", 1, one_way("over 10' attic in 12-2 to C-1"), "method-not-allowed"),
        ("pvc80_outside", 1, one_way("over 5' outside guarded in pvc40 1 to C-1"), "method-not-allowed"),
        ("ribbon_over_every_trench", 1, one_way(trench), "ribbon"),
        ("feeder_pipe_least_in", 1.5, sample("quince-hollow"), "pipe-under-note"),
    ]
    for key, value, job, code in cases:
        before = codes(plan(job)).count(code)
        after = [f for f in plan(noted(job, note(key, value))).findings if f.code == code]
        assert len(after) > before, key
        assert any(f.decided_by == "note" and "Inspector" in f.section for f in after), key
        mended = edited(noted(job, note(key, value)), *after[0].mends[0].edits)
        assert codes(plan(mended)).count(code) < len(after), key


def test_staples_within_six() -> None:
    job = noted(one_way("down 8' stud wall in 12-2 to C-1"), note("cable_first_support_most_in", 6))
    held = plan(job).ways[0].legs[0].held
    assert held.positions_in[0] <= 6 and "local note" in held.rule


def test_only_an_approved_note_loosens() -> None:
    job = one_way("over 10' attic in emt 1/2 to C-1", wire_size="10", conductors=6, breaker_a=30)
    assert "fill-over" in codes(plan(job))
    assert "fill-over" in codes(plan(noted(job, note("fill_many", 55))))
    assert "fill-over" not in codes(plan(noted(job, note("fill_many", 55, approved=True))))


@given(st.sampled_from(sorted(notable(load()))), st.floats(0, 500))
def test_a_note_without_approval_never_loosens(key: str, value: float) -> None:
    book = load()
    scalar = book.scalar(key)
    after = with_notes(
        book, (LocalRule(key=key, value=value, who="x", when="2026-01-01", why="", approved=False),)
    ).number(key)
    assert after <= scalar.value if scalar.tighter == "lower" else after >= scalar.value


def test_a_note_on_what_no_note_may_change_is_refused() -> None:
    with pytest.raises(LevelRunError) as refused:
        noted(one_way(""), note("jam_low", 1))
    assert refused.value.key == "set.notes.0.key"


def test_notes_travel_as_a_file() -> None:
    notes = (note("cover_least_in", 24), note("pipe_only", 1, approved=True))
    assert read_notes(write_notes(notes)) == notes
    assert read_notes(write_notes(notes).replace("24.0", "24"))[0].value == 24
    for text in ("", "format = 'x'", "[[note", write_notes(notes).replace("2026-11-02", "soon")):
        with pytest.raises(NotesFileError):
            read_notes(text)


def test_entries_are_found_by_section_and_by_word() -> None:
    book = load()
    assert search(book, "staple")[0].kind == "number"
    assert any("driveway" in entry.name for entry in search(book, "driveway"))
    assert all("300.5" in " ".join((e.section, e.text, e.source)) for e in search(book, "300.5")[:6])
    assert search(book, "zebra crossing") == []
