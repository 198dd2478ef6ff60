"""Lines in the order and the words of everyday: what stands behind what, and what it is then."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.plan import plan
from levelrun.exchange.text import read_text

# a line, the legs of its way, and of what stands at the end some fields
LINES: dict[str, tuple[list[tuple[float, str, str]], dict[str, Any]]] = {
    "outlet 20' from the panel through the attic in 12-2": ([(240, "attic", "NM-B")], {"kind": "receptacle"}),
    "vehicle 48a 20' from the panel along the garage wall in emt": (
        [(240, "shop_surface", "EMT")], {"serves": "vehicle", "use": "garage"},
    ),
    "outlet 12' from the panel through the attic then down 8' stud wall": (
        [(144, "attic", "NM-B"), (96, "stud_wall", "NM-B")], {"kind": "receptacle"},
    ),
    "bathroom gfci 20a 40' basement": (
        [(480, "basement", "NM-B")], {"kind": "receptacle", "protects": "gfci", "use": "bath"},
    ),
    "gfci in the garage 20a 30' attic": ([(360, "attic", "NM-B")], {"protects": "gfci", "use": "garage"}),
    "welder 50a 240v outlet 40' shop wall in emt": (
        [(480, "shop_surface", "EMT")], {"kind": "receptacle", "serves": "welder", "nema": "6-50"},
    ),
    "outlet 30' wall in emt 1/2 in the garage": ([(360, "stud_wall", "EMT")], {"use": "garage"}),
    "second charger 32a, 40' attic": ([(480, "attic", "NM-B")], {"serves": "vehicle"}),
}  # fmt: skip


@pytest.mark.parametrize("text", LINES)
def test_as_one_says_it(text: str) -> None:
    legs, expected = LINES[text]
    job = read_text(f"panel H 200a 40 spaces\n{text}")
    (way,), (box,) = job.ways, job.boxes
    assert [(leg.length_in, leg.place, leg.method) for leg in way.legs] == legs
    assert {name: getattr(box, name) for name in expected} == expected
    assert not [item.title for item in plan(job).findings if item.severity == "stop"]


def test_aluminum_quadplex_over_the_yard() -> None:
    job = read_text("panel H 200a 40 spaces\nfeed the cabin 100a overhead, 90' span, aluminum quadplex")
    assert [leg.method for leg in job.ways[0].legs] == ["OVERHEAD"] and job.circuits[0].material == "al"
