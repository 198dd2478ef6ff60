"""Cover, supports and drop against printed cells and an outside power-flow library."""

from itertools import pairwise

import pandapower as pp
import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import NotBuriableError
from levelrun.core.trade.cover import cover
from levelrun.core.trade.drop import drop
from levelrun.core.trade.supports import supports

# NFPA 70-2023 table 300.5(A), printed cells, from memory.
CELLS = [
    ("UF-B", "open_ground", 120, 20, False, 24),
    ("UF-B", "open_ground", 120, 20, True, 12),
    ("UF-B", "open_ground", 240, 20, True, 24),
    ("UF-B", "open_ground", 120, 30, True, 24),
    ("PVC40", "open_ground", 120, 20, False, 18),
    ("PVC40", "open_ground", 120, 20, True, 12),
    ("RMC", "open_ground", 240, 60, False, 6),
    ("IMC", "slab_4in", 240, 60, False, 4),
    ("UF-B", "concrete_2in", 120, 20, False, 18),
    ("RMC", "street", 240, 60, False, 24),
    ("PVC80", "driveway", 240, 60, False, 18),
    ("RMC", "driveway", 120, 20, True, 12),
    ("PVC40", "under_building", 240, 60, False, 0),
    ("UF-B", "open_ground", 12, 5, False, 6),
]


@pytest.mark.parametrize("cell", CELLS, ids=lambda c: f"{c[0]} {c[1]} {c[2]}V {c[3]}A{' gfci' * c[4]}")
def test_cover_cells(book: Codebook, cell: tuple[str, str, float, float, bool, float]) -> None:
    *question, wanted = cell
    assert cover(book, *question).cover_in == wanted  # type: ignore[arg-type]


@pytest.mark.parametrize("method", ["NM-B", "AC", "SER", "ENT", "FMC", "OVERHEAD"])
def test_some_may_never_be_buried(book: Codebook, method: str) -> None:
    with pytest.raises(NotBuriableError):
        cover(book, method, "open_ground", 120, 20, False)


def test_support_limits(book: Codebook) -> None:
    """358.30, 352.30, table 344.30(B)(2), 334.30 and 314.17, from memory."""
    emt = supports(book, "EMT", "3/4", 180, "box_clamped", "box_clamped")
    assert (emt.first_max_in, emt.spacing_max_in, emt.positions_in) == (36, 120, [36, 144])
    assert supports(book, "PVC40", "1", 120, "panel", "none").spacing_max_in == 36
    assert supports(book, "PVC40", "2", 120, "panel", "none").spacing_max_in == 60
    assert supports(book, "RMC", "1", 240, "panel", "panel").spacing_max_in == 144
    assert supports(book, "NM-B", "12-2", 60, "box_no_clamp", "none").first_max_in == 8
    assert supports(book, "NM-B", "12-2", 60, "box_clamped", "none").spacing_max_in == 54


@given(
    st.sampled_from(["EMT", "NM-B", "LFNC", "PVC40", "MC"]),
    st.floats(1, 3000),
    st.sampled_from(["box_clamped", "box_no_clamp", "panel", "none"]),
    st.sampled_from(["box_clamped", "box_no_clamp", "panel", "none"]),
)
def test_supports_keep_every_distance(method: str, length: float, start: str, end: str) -> None:
    found = supports(load(), method, "", length, start, end)
    spots = found.positions_in
    assert spots and all(0 <= at <= length for at in spots)
    gaps = [b - a for a, b in pairwise(spots)]
    assert all(0 < gap <= found.spacing_max_in + 1e-6 for gap in gaps)
    for joint, reach in ((start, spots[0]), (end, length - spots[-1])):
        limit = found.spacing_max_in if joint == "none" else 36 if method in ("EMT", "PVC40") else 12
        assert reach <= limit + 1e-6


def test_drop_against_a_power_flow_library(book: Codebook) -> None:
    """A ladder of three loads on 12 copper at 40, 70 and 118 ft, by pandapower with constant-current loads.

    One wire out and one back is a balanced line of twice the length in its per-phase equivalent.
    """
    volts, spans_ft, amps = 120.0, [40, 30, 48], [3.0, 2.0, 5.0]
    r_km = 1.98 / 0.3048
    net = pp.create_empty_network()
    bus = pp.create_bus(net, vn_kv=volts * 3**0.5 / 1000)
    pp.create_ext_grid(net, bus)
    for span, load_a in zip(spans_ft, amps, strict=True):
        after = pp.create_bus(net, vn_kv=volts * 3**0.5 / 1000)
        pp.create_line_from_parameters(net, bus, after, 2 * span * 0.3048 / 1000, r_km, 1e-9, 0, 1)
        pp.create_load(net, after, 3 * volts * load_a / 1e6, 0, const_i_p_percent=100, const_i_q_percent=100)
        bus = after
    pp.runpp(net, tolerance_mva=1e-12, numba=False)
    outside = 100 * (1 - net.res_bus.vm_pu.iloc[-1])
    carried = [sum(amps[i:]) for i in range(3)]
    ours = sum(drop(book, volts, a, span, "12", "cu").drop_percent for a, span in zip(carried, spans_ft, strict=True))
    assert ours == pytest.approx(outside, rel=2e-3)


@given(st.floats(0, 100), st.floats(1, 500), st.floats(0, 100), st.floats(0.7, 1))
def test_longer_and_thinner_drop_more(amps: float, length: float, more: float, factor: float) -> None:
    book = load()
    sizes = wire_sizes(book)
    drops = [drop(book, 240, amps, length, size, "cu", "EMT", factor).drop_v for size in sizes]
    assert drops == sorted(drops, reverse=True)
    assert drop(book, 240, amps, length + more, "12", "al").drop_v >= drop(book, 240, amps, length, "12", "al").drop_v
