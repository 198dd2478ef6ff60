"""DXF out, read back by ezdxf; DXF in, from drawings made with ezdxf, and what is refused."""

from __future__ import annotations

import io
from typing import Any

import ezdxf
import pytest
from fastapi.testclient import TestClient
from shapely import Polygon

from levelrun.core.errors import LevelRunError
from levelrun.exchange.dxf import inspect, read_rooms
from levelrun.samples import sample
from tests.api.opened import OpenJob


def drawing(units: int, per: float) -> bytes:
    """Two rooms in `per` units an inch: one a closed outline, one of lines; a circle that is not understood."""
    document = ezdxf.new(units=units)
    space = document.modelspace()
    outline = [(0, 0), (168 * per, 0), (168 * per, 144 * per), (0, 144 * per)]
    space.add_lwpolyline(outline, close=True, dxfattribs={"layer": "A-ROOM"})
    space.add_text("Kitchen", dxfattribs={"layer": "A-TEXT", "insert": (50 * per, 50 * per)})
    corners = [(200 * per, 0), (320 * per, 0), (320 * per, 96 * per), (200 * per, 96 * per)]
    for start, end in zip(corners, [*corners[1:], corners[0]], strict=True):
        space.add_line(start, end, dxfattribs={"layer": "A-WALL"})
    space.add_circle((0, 0), 5 * per, dxfattribs={"layer": "A-WALL"})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


@pytest.mark.parametrize(("units", "name", "per"), [(1, "inches", 1), (2, "feet", 1 / 12), (4, "millimetres", 25.4),
                                                    (6, "metres", 0.0254)])  # fmt: skip
def test_rooms_come_in_at_the_unit_of_the_drawing(units: int, name: str, per: float) -> None:
    data = drawing(units, per)
    seen = inspect(data)
    assert seen.units == name
    assert {layer.name: layer.skipped for layer in seen.layers}["A-WALL"] == {"CIRCLE": 1}
    rooms = read_rooms(data, ["A-ROOM", "A-WALL"], name)
    assert [room.name for room in rooms] == ["Kitchen", "Room 2"]
    assert [round(Polygon(room.corners).area / 144) for room in rooms] == [168, 80]


def test_a_drawing_without_a_unit_is_asked_about_not_guessed() -> None:
    data = drawing(0, 1)
    assert inspect(data).units == ""
    with pytest.raises(LevelRunError, match="allowed: inches"):
        read_rooms(data, ["A-ROOM"], "")
    with pytest.raises(LevelRunError, match="is the unit right"):
        read_rooms(data, ["A-ROOM"], "metres")


@pytest.mark.parametrize("data", [b"", b"not a drawing", drawing(1, 1)[:900], b"\x00\xff" * 500])
def test_a_damaged_drawing_is_refused(data: bytes) -> None:
    with pytest.raises(LevelRunError):
        read_rooms(data, ["A-ROOM"], "inches")


def test_a_level_goes_out_and_comes_back_the_same(client: TestClient) -> None:
    page = OpenJob.demo(client)
    data = client.get(f"{page.url}/levels/house-floor/plan.dxf").content
    document = ezdxf.read(io.StringIO(data.decode()))
    assert document.header["$INSUNITS"] == 1
    job = sample("quince-hollow")
    here = [room for room in job.rooms if room.level == "house-floor"]
    outlines = document.modelspace().query('LWPOLYLINE[layer=="rooms"]')
    assert sorted(Polygon(o.get_points("xy")).area for o in outlines) == pytest.approx(
        sorted(Polygon(room.corners).area for room in here)
    )
    names = {room.name for room in read_rooms(data, ["rooms"], "inches")}
    assert {room.name for room in here} <= names | {name.rpartition(" ")[0] for name in names}


def test_bringing_in_is_one_edit_and_a_refusal_keeps_nothing(client: TestClient) -> None:
    page = OpenJob(client, client.post("/api/jobs", json={"sample": "shed"}).json(), "walls")
    level = page.job["structures"][0]["levels"][0]["id"]
    query = {"level": level, "units": "inches", "layer": ["A-ROOM", "A-WALL"]}
    rooms = len(page.job["rooms"])
    binary = {"content-type": "application/octet-stream"}

    def ask(data: bytes, **more: object) -> Any:
        return client.post("/api/dxf/rooms", params={**query, **more}, content=data, headers=binary)

    bad = ask(drawing(1, 1), layer=["NOPE"])
    assert (bad.status_code, bad.json()["key"]) == (422, "layers")
    assert ask(b"x" * 9_000_000).status_code == 413
    found = ask(drawing(1, 1)).json()
    page.edit(*found["edits"], label=found["label"])
    assert len(page.job["rooms"]) == rooms + 2
    page.go("undo")
    assert len(page.job["rooms"]) == rooms
