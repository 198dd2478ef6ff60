"""Lists and files that go out say what the plan says, and come back as they were."""

from __future__ import annotations

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.codebook import load, rule_sets
from levelrun.core.plan import plan
from levelrun.exchange.circuits import COLUMNS as CIRCUIT_COLUMNS
from levelrun.exchange.circuits import write_circuits
from levelrun.exchange.entries import LISTS, MOST, entries, search
from levelrun.exchange.job_file import job_schema, read_job, write_job
from levelrun.exchange.schedule import COLUMNS as BOX_COLUMNS
from levelrun.exchange.sheet import as_csv
from levelrun.samples import SAMPLES, sample


@pytest.mark.parametrize("key", SAMPLES)
def test_a_job_file_comes_back_to_the_byte(key: str) -> None:
    text = write_job(sample(key))
    assert read_job(text) == sample(key)
    assert write_job(read_job(text)) == text


@pytest.mark.parametrize("key", SAMPLES)
def test_the_circuits_sheet_says_what_the_plan_says(key: str) -> None:
    found = plan(sample(key))
    names = {panel.id: panel.name for panel in sample(key).panels}
    rows = list(csv.DictReader(io.StringIO(write_circuits(found.circuits, names))))
    assert len(rows) == len(found.circuits)
    by_name = {(names[c.summary.panel], c.summary.label, c.summary.name): c for c in found.circuits}
    for row in rows:
        assert tuple(row) == CIRCUIT_COLUMNS
        circuit = by_name[row["panel"], row["space"], row["circuit"]]
        assert row["breaker_a"] == f"{circuit.summary.breaker_a:g}"
        assert row["boxes"].split("; ") == ([link.name for link in circuit.chain] or [""])
        assert row["verdict"] == circuit.summary.verdict
        assert float(row["expected_a"]) == pytest.approx(circuit.summary.load_a, abs=0.051)


def test_spaces_stand_in_order_panel_by_panel() -> None:
    found = plan(sample("quince-hollow"))
    names = {panel.id: panel.name for panel in sample("quince-hollow").panels}
    rows = list(csv.DictReader(io.StringIO(write_circuits(found.circuits, names))))
    for panel in names.values():
        firsts = [
            int(row["space"].split("/")[0].rstrip("ab")) for row in rows if row["panel"] == panel and row["space"]
        ]
        assert firsts == sorted(firsts)


@given(st.lists(st.lists(st.text(st.characters(exclude_categories=["Cs"])), min_size=3, max_size=3), max_size=6))
def test_no_cell_runs_in_a_spreadsheet_and_none_is_lost(rows: list[list[str]]) -> None:
    text = as_csv(("a", "b", "c"), rows)
    back = list(csv.reader(io.StringIO(text, newline="")))[1:]
    assert len(back) == len(rows)
    for said, read in zip(rows, back, strict=True):
        for cell, shown in zip(said, read, strict=True):
            assert not shown.startswith(("=", "+", "-", "@", "\t", "\r"))
            assert shown in (cell, f"'{cell}")


def test_the_box_schedule_has_a_row_a_box() -> None:
    assert len(set(BOX_COLUMNS)) == len(BOX_COLUMNS)
    assert {"room", "box", "from_left_corner", "middle", "circuit"} <= set(BOX_COLUMNS)


@pytest.mark.parametrize("rules", rule_sets())
def test_every_number_of_a_set_can_be_looked_up(rules: str) -> None:
    book = load(rules)
    found = entries(book)
    assert len(found) == len(book.scalars) + sum(
        len(table.rows) for name, table in book.tables.items() if name not in LISTS
    )
    for entry in found:
        assert entry.name and entry.section and entry.basis, entry


LOOKED_UP = {
    "210.8(A)(10)": "tub",
    "table 250.122": "ground",
    "roof adder": "33",
    "358.30": "EMT",
    "receptacle reach": "in",
}


@pytest.mark.parametrize("query", LOOKED_UP)
def test_what_is_looked_up_is_found_first(query: str) -> None:
    found = search(load(), query)
    assert found and len(found) <= MOST
    first = " ".join((found[0].name, found[0].value, found[0].text)).lower()
    assert LOOKED_UP[query].lower() in first, found[0]


def test_nothing_is_found_where_nothing_is() -> None:
    assert search(load(), "flux capacitor") == []


def test_the_schema_knows_every_field_of_the_job() -> None:
    schema = job_schema()
    job = sample("quince-hollow").model_dump(mode="json")
    assert set(job) <= set(schema["properties"])
    circuits = schema["$defs"]["Circuit"]["properties"]
    assert {"least_ampacity_a", "largest_breaker_a", "nameplate"} <= set(circuits)
    assert set(job["circuits"][0]) == set(circuits)
