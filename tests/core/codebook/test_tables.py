"""Every data file: its head, its keys, and the invariants of its kind."""

import math
from itertools import pairwise

import pytest

from levelrun.core.codebook import Codebook, Table, load, rule_sets
from levelrun.core.codebook.lookups import methods, places, support_rule, wire_sizes
from levelrun.core.trade.conductors.ampacity import ampacity
from levelrun.core.trade.methods.conditions import CONDITIONS
from levelrun.core.ways.parts import AboveKey, MethodKey, PlaceKey

BOOKS = [load(name) for name in rule_sets()]
TABLES = [
    pytest.param(book, table, id=f"{book.rules}:{table.name}") for book in BOOKS for table in book.tables.values()
]


@pytest.mark.parametrize(("book", "table"), TABLES)
def test_head_keys_and_cells(book: Codebook, table: Table) -> None:
    assert table.rows
    assert table.head.basis.split(",")[0] in {"from memory", "published", "practice", "typical"}
    assert set(table.head.keys) <= set(table.columns)
    keys = [tuple(row[key] for key in table.head.keys) for row in table.rows]
    assert len(keys) == len(set(keys)), "a key stands twice"
    for row in table.rows:
        assert None not in row.values() and None not in row, f"a row has too few or too many cells: {row}"


@pytest.mark.parametrize(("book", "table"), [p for p in TABLES if "table4" in p.id or "table5" in p.id])
def test_tabled_areas_are_circles(book: Codebook, table: Table) -> None:
    """Area against pi/4 d^2 within 1 %, and both grow with size."""
    for row in table.rows:
        d = float(row["inner_in"] if "inner_in" in row else row["diameter_in"])
        assert math.pi / 4 * d * d == pytest.approx(float(row["area_in2"]), rel=0.01), row
    areas = [float(row["area_in2"]) for row in table.rows]
    assert all(a < b for a, b in pairwise(areas))


@pytest.mark.parametrize("book", BOOKS, ids=lambda b: b.rules)
def test_wires_follow_the_gauge_law(book: Codebook) -> None:
    """ASTM B258: d(n) = 0.005 in x 92^((36-n)/39); circular mils of a gauge size follow from it."""
    for row in book.table("ch9-table8").rows:
        size = row["size"]
        if len(size) >= 3 and "/" not in size:
            assert float(row["area_cmil"]) == 1000 * float(size)
            continue
        gauge = -int(size[0]) + 1 if "/" in size else int(size)
        mils = 1000 * 0.005 * 92 ** ((36 - gauge) / 39)
        assert float(row["area_cmil"]) == pytest.approx(mils**2, rel=0.002), size
        strand = float(row["strand_in"]) * 1000
        assert int(row["strands"]) * strand**2 == pytest.approx(float(row["area_cmil"]), rel=0.01), size


@pytest.mark.parametrize("book", BOOKS, ids=lambda b: b.rules)
def test_resistance_from_resistivity(book: Codebook) -> None:
    """IACS copper 10.371 ohm cmil/ft, aluminum 61 % of it, at 20 C; 0.00393 and 0.00403 per C; 2 % stranding."""
    for row in book.table("ch9-table8").rows:
        area = float(row["area_cmil"])
        copper = 10.371 * (1 + 0.00393 * 55) / area * 1000 * 1.02
        aluminum = 10.371 / 0.61 * (1 + 0.00403 * 55) / area * 1000 * 1.02
        assert float(row["r_cu"]) == pytest.approx(copper, rel=0.03), row["size"]
        assert float(row["r_al"]) == pytest.approx(aluminum, rel=0.03), row["size"]


@pytest.mark.parametrize("book", BOOKS, ids=lambda b: b.rules)
def test_insulation_is_outside_the_strand(book: Codebook) -> None:
    bare = {row["size"]: float(row["diameter_in"]) for row in book.table("ch9-table8").rows}
    for name in ("ch9-table5-thwn-2", "ch9-table5-xhhw-2"):
        for row in book.table(name).rows:
            assert float(row["diameter_in"]) > bare[row["size"]] + 0.03, (name, row["size"])


@pytest.mark.parametrize("book", BOOKS, ids=lambda b: b.rules)
def test_method_tables_are_whole(book: Codebook) -> None:
    wanted = set(MethodKey.__args__)  # type: ignore[attr-defined]
    assert set(methods(book)) == wanted
    assert set(places(book)) == set(PlaceKey.__args__)  # type: ignore[attr-defined]
    assert {row["above"] for row in book.table("300-5-cover").rows} == set(AboveKey.__args__)  # type: ignore[attr-defined]
    rows = book.table("method-conditions").rows
    assert {row["method"] for row in rows if row["condition"] == "always"} == wanted
    for row in rows:
        assert row["condition"] in CONDITIONS and row["section"] and row["text"]
        assert (row["verdict"] == "if") == bool(row["need"]), row


@pytest.mark.parametrize("book", BOOKS, ids=lambda b: b.rules)
def test_support_spacing_never_falls_with_size(book: Codebook) -> None:
    for key, method in methods(book).items():
        if method.kind != "raceway":
            continue
        sizes = [row["size"] for row in book.table(f"ch9-table4-{key.lower()}").rows]
        spacing = [support_rule(book, key, size).spacing_in for size in sizes]
        assert spacing == sorted(spacing), key


def test_boxes_hold_no_more_than_their_outside_and_metal_ones_what_the_code_prints() -> None:
    book = load("us-2023")
    printed = {row["volume_in3"] for row in book.table("314-16-boxes").rows}
    for row in book.table("boxes").rows:
        outside = float(row["wide_in"]) * float(row["tall_in"]) * float(row["depth_in"])
        assert float(row["volume_in3"]) <= outside * 1.02, row["box"]
        if row["material"] == "steel":
            assert f"{float(row['volume_in3']):.1f}" in {f"{float(p):.1f}" for p in printed}, row["box"]


def test_lugs_grow_with_the_rating_and_take_a_wire_that_carries_it() -> None:
    """No main and no breaker is made whose terminals do not take the copper that it protects (240.4, 75 °C)."""
    book = load("us-2023")
    order = wire_sizes(book)
    for of in ("main", "breaker"):
        rows = [row for row in book.table("lugs").rows if row["of"] == of]
        amps = [float(row["up_to_a"]) for row in rows]
        sizes = [order.index(row["takes"]) for row in rows]
        assert amps == sorted(amps) and sizes == sorted(sizes)
        for row in rows:
            assert ampacity(book, row["takes"], "cu", 75, 30.0, 3).base_a >= float(row["up_to_a"]), row


def test_heights_lie_between_floor_and_ceiling_and_each_use_has_a_default() -> None:
    rows = load("us-2023").table("heights").rows
    assert {row["use"] for row in rows} == {
        "receptacle", "switch", "counter", "vanity", "garage", "outdoor", "wall_light",
    }  # fmt: skip
    assert all(6 <= float(row["at_in"]) <= 90 and row["mark"] in ("bottom", "centre", "top") for row in rows)


def test_usual_loads_fit_their_breakers_and_their_receptacles() -> None:
    """At 80 % where continuous (210.20), at 100 % else; a receptacle is rated for its breaker or shares it."""
    book = load("us-2023")
    for row in book.table("loads").rows:
        amps = float(row["watts"]) / float(row["volts"])
        most = float(row["breaker_a"]) * (0.8 if row["continuous"] == "yes" else 1.0)
        assert amps <= most + 1e-9, row["use"]
        if row["nema"]:
            nema = book.table("nema").get(row["nema"])
            assert nema["volts"] == row["volts"], row["use"]
            allowed = book.table("210-21-receptacles").at_least("breaker_a", float(row["breaker_a"]))
            assert allowed is not None and nema["amps"] in allowed["receptacles"].split("|"), row["use"]
            assert row["neutral"] == "no" or nema["neutral"] == "yes"


def test_nema_names_say_their_rating() -> None:
    """ANSI/NEMA WD 6: the figure after the dash is the amperes; 10 has no ground, 6 no neutral, 14 both."""
    for row in load("us-2023").table("nema").rows:
        kind, _, amps = row["nema"].removeprefix("L").partition("-")
        assert amps == row["amps"]
        assert row["ground"] == ("no" if kind == "10" else "yes")
        assert row["neutral"] == ("no" if kind == "6" else "yes")
        assert row["twist"] == ("yes" if row["nema"].startswith("L") else "no")
