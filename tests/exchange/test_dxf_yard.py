"""The yard out as DXF and back in: the same things on the same places, and what is refused by name."""

from __future__ import annotations

import io

import ezdxf
import pytest
from fastapi.testclient import TestClient

from levelrun.core.job import Job
from levelrun.exchange.dxf import DxfError
from levelrun.exchange.dxf_yard import KINDS, read_yard, write_yard
from levelrun.samples import sample
from tests.conftest import edited


def test_what_goes_out_comes_in_again() -> None:
    job = sample("quince-hollow")
    there = [part for part in job.yard if part.kind in KINDS]
    back = read_yard(write_yard(job).encode(), "inches")
    assert [(part.kind, part.points, part.width_in) for part in back] == [
        (part.kind, tuple(tuple(round(v * 16) / 16 for v in p) for p in part.points), part.width_in) for part in there
    ]  # fmt: skip
    again = Job(name="Again")
    for part in back:
        item = {"kind": part.kind, "name": part.kind, "points": part.points, "width_in": part.width_in}
        again = edited(again, {"op": "add", "kind": "yard", "item": item})
    assert len(again.yard) == len(there)


def drawing(layer: str, units: int = 2) -> bytes:
    document = ezdxf.new("R2010", units=units)
    document.modelspace().add_line((0, 0), (10, 5), dxfattribs={"layer": layer})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


def test_a_line_on_a_layer_of_its_kind_is_read_in_feet_with_its_usual_width() -> None:
    (part,) = read_yard(drawing("Drive"), "feet")
    assert (part.kind, part.points, part.width_in) == ("drive", ((0.0, 0.0), (120.0, 60.0)), 144.0)


@pytest.mark.parametrize(
    ("data", "units", "key"),
    [(drawing("0"), "feet", "layers"), (drawing("water"), "furlongs", "units"), (b"no drawing", "feet", "file")],
)
def test_what_is_no_yard_is_refused_by_name(data: bytes, units: str, key: str) -> None:
    with pytest.raises(DxfError) as refused:
        read_yard(data, units)
    assert refused.value.key == key


def test_over_the_wire_a_drawing_becomes_edits(client: TestClient) -> None:
    headers = {"content-type": "application/octet-stream"}
    found = client.post("/api/dxf/yard?units=feet", content=drawing("yard-water"), headers=headers).json()
    assert found["edits"][0]["item"]["points"] == [[0, 0], [120, 60]] and found["label"].startswith("bring in 1")
    job = client.post("/api/jobs", json={"sample": "quince-hollow"}).json()["head"]["id"]
    assert client.get(f"/api/jobs/{job}/yard.dxf").headers["content-type"].startswith("image/vnd.dxf")
