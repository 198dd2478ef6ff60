"""Rough-in over the wire: the view, photos in and out, the calendar read back by another library, QR codes read back
by another library, the permit desk, the book."""

from __future__ import annotations

import csv
import io
import time
import zipfile
from datetime import date
from typing import Any

import pytest
import vobject
import zxingcpp
from fastapi.testclient import TestClient
from PIL import Image

from levelrun.core.job import Job
from tests.api.opened import OpenJob
from tests.exchange.test_pictures import taken

BINARY = {"content-type": "application/octet-stream"}


def opened(client: TestClient, **look: str) -> OpenJob:
    return OpenJob.demo(client, "rough_in", **look)


def send(client: TestClient, page: OpenJob, data: bytes, **pin: Any) -> Any:
    where = {"room": "m2", "surface": "0", "at_in": 30, "height_in": 40, **pin}
    return client.post(f"{page.url}/photos", params=where, content=data, headers=BINARY)


def noise(seed: int, form: str = "JPEG") -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (64, 48), (seed % 256, seed // 256 % 256, 90)).save(out, form)
    return out.getvalue()


def test_the_view_opens_on_the_wall_that_was_closed_too_early(client: TestClient) -> None:
    page = opened(client)
    view = page.view
    assert (view["wall"]["room_name"], view["wall"]["name"], view["wall"]["verdict"]) == (
        "One room",
        "North wall",
        "stop",
    )
    assert view["card"]["name"] == "BD-1" and view["begun"]
    kitchen = opened(client, wall="m2.0").view
    assert kitchen["card"]["name"] == "R-10", "the first box of it that is open"
    assert opened(client, node="ph").view["panel_card"]["name"] == "Panel H"
    bare = opened(client, wall="m4.2").view
    assert bare["xray"]["boxes"] == [] or bare["wall"]["surface"] == "2"
    assert opened(client, wall="m99.7").view["wall"] is not None, "what is gone falls back on the worst"


def test_a_tick_answers_with_what_changed_and_is_undone(client: TestClient) -> None:
    page = opened(client, wall="m2.0")
    was = page.view
    page.edit({"op": "do_card", "node": "b18", "steps": ["joints", "fold", "tails"], "on": "2026-05-20"})
    assert page.view["card"]["made"] and page.view["wall"]["waits"] == [] and page.view == page.fetched()
    page.go("undo")
    assert page.view == was


def test_a_photo_is_kept_once_pinned_and_given_out(client: TestClient) -> None:
    page = opened(client, wall="m2.0")
    first = send(client, page, taken("HEIF"), id="step-one-1")
    again = send(client, page, taken("HEIF"), id="step-one-1")
    assert first.status_code == again.status_code == 201 and first.json() == again.json()
    ident = first.json()["photo"]
    rows = [row for row in client.get(f"{page.url}/photos").json() if row["id"] == ident]
    assert [(r["place"], r["text"], r["on"], r["missing"]) for r in rows] == [
        ("Kitchen, north wall", "2′ 6″ from the left, 40″ over the floor", "2026-05-12", False)
    ]
    for size, edge in (("small", 360), ("large", 800), ("kept", 800)):
        answer = client.get(f"{page.url}/photos/{ident}/{size}.jpg")
        assert answer.headers["content-type"] == "image/jpeg"
        assert Image.open(io.BytesIO(answer.content)).width == edge
    twice = send(client, page, taken("HEIF"), id="step-two-2")
    assert twice.status_code == 422 and "here already: Kitchen, north wall, 2′ 6″" in twice.json()["detail"]


@pytest.mark.parametrize(
    ("data", "pin", "status", "told"),
    [
        (b"no picture", {}, 422, "allowed: JPEG, PNG, WebP, HEIC"),
        (noise(1), {"at_in": 900}, 422, "75′ along lies outside Kitchen, north wall; allowed: 0 to 14′"),
        (noise(1), {"room": "nowhere"}, 422, "no room 'nowhere'"),
        (noise(1), {"surface": "12"}, 422, "walls 0 to 3"),
        (noise(1), {"on": "yesterday"}, 422, "pattern"),
        (b"\0" * 25_000_001, {}, 413, "the picture is over 25 MB"),
    ],
)
def test_a_photo_that_cannot_be_kept_is_refused_and_nothing_is_lost(
    client: TestClient, data: bytes, pin: dict[str, Any], status: int, told: str
) -> None:
    page = opened(client)
    answer = send(client, page, data, **pin)
    assert answer.status_code == status and told in answer.json()["detail"], answer.text
    assert client.get(page.url).json()["job"] == page.job


def test_nothing_is_served_that_is_no_photo_of_the_job(client: TestClient) -> None:
    page = opened(client)
    for path in ("i99/small.jpg", "i1/huge.jpg", "../../levelrun.sqlite3", "i1/..%2Fsmall.jpg"):
        assert client.get(f"{page.url}/photos/{path}").status_code in (404, 422), path
    other = client.post("/api/jobs", json={"name": "Other"}).json()["head"]["id"]
    assert client.get(f"/api/jobs/{other}/photos/i1/small.jpg").status_code == 404


def test_all_photos_come_as_one_archive_with_their_places(client: TestClient) -> None:
    page = opened(client)
    with zipfile.ZipFile(io.BytesIO(client.get(f"{page.url}/photos.zip").content)) as archive:
        names = archive.namelist()
        listed = list(csv.DictReader(io.StringIO(archive.read("photos.csv").decode())))
        assert len(names) == 4 and [row["file"] for row in listed] == names[:3]
        assert Image.open(io.BytesIO(archive.read(names[0]))).format == "JPEG"
    assert {row["place"] for row in listed} == {"Common room, north wall", "Kitchen, north wall", "House to shed"}


def test_five_hundred_photos_are_listed(client: TestClient) -> None:
    """Listed from the job alone: no picture is opened for it."""
    page = opened(client)
    photo = {"wide": 800, "tall": 600, "room": "m2", "surface": "0", "at_in": 10.0, "height_in": 10.0}
    edits = [
        {"op": "add", "kind": "photo", "item": {**photo, "id": f"list{n}", "file": f"{n:064x}"}} for n in range(500)
    ]
    page.edit(*edits)
    start = time.perf_counter()
    rows = client.get(f"{page.url}/photos").json()
    assert len(rows) == 503 and sum(row["missing"] for row in rows) == 500
    assert time.perf_counter() - start < 20, "bench has the figure"


def test_the_calendar_is_read_back_by_another_library(client: TestClient) -> None:
    page = opened(client)
    text = client.get(f"{page.url}/calendar.ics")
    assert text.headers["content-type"].startswith("text/calendar")
    found = vobject.readOne(text.content.decode())
    events = {str(event.summary.value): event for event in found.vevent_list}
    assert len(found.vevent_list) == 3 and len(found.vtodo_list) == len(page.view["holds"])
    coming = next(e for e in found.vevent_list if str(e.dtstart.value).startswith("2026-06-02"))
    assert str(coming.summary.value) == "Inspection before drywall: House"
    assert (coming.dtend.value - coming.dtstart.value).seconds == 3600 and coming.dtstart.value.hour == 10
    failed = next(e for e in found.vevent_list if str(e.dtstart.value).startswith("2026-05-12"))
    assert "failed" in failed.description.value and "no plate" in failed.description.value
    assert "Inspection before backfill: House to shed" in events
    todo = next(t for t in found.vtodo_list if t.summary.value == "Before drywall: House")
    assert (
        todo.status.value == "NEEDS-ACTION" and "boxes" in todo.description.value
    ) or "made up" in todo.description.value
    lifted = {"op": "lift_building", "kind": "power", "structure": "house", "by": "county", "on": "2026-07-01"}
    page.edit(lifted)
    again = vobject.readOne(client.get(f"{page.url}/calendar.ics").content.decode())
    assert next(t for t in again.vtodo_list if t.summary.value == "Before power: House").status.value == "COMPLETED"


def read_qr(svg: bytes) -> str:
    """The text of a QR code drawn as SVG: its path of unit-wide strokes painted by hand, read by another library."""
    import re

    text = svg.decode()
    size = int(float(re.search(r'viewBox="0 0 (\d+)', text)[1]) if "viewBox" in text else 0)  # type: ignore[index]
    if not size:
        size = int(int(re.search(r'width="(\d+)"', text)[1]) / 6)  # type: ignore[index]
    image = Image.new("L", (size, size), 255)
    path = re.search(r'class="qrline"[^>]*d="([^"]+)"|d="(M4[^"]+)"', text)
    strokes = next(item for item in re.findall(r'd="([^"]+)"', text) if "h1" in item or "h7" in item)
    assert path is not None or strokes
    x = y = 0.0
    for kind, numbers in re.findall(r"([Mmh])([^Mmh]*)", strokes):
        values = [float(n) for n in re.findall(r"-?\d+(?:\.\d+)?", numbers)]
        if kind == "M":
            x, y = values
        elif kind == "m":
            x, y = x + values[0], y + values[1]
        else:
            for n in range(int(values[0])):
                image.putpixel((int(x) + n, int(y)), 0)
            x += values[0]
    found = zxingcpp.read_barcodes(image.resize((size * 6, size * 6), Image.Resampling.NEAREST))
    assert len(found) == 1
    return str(found[0].text)


def test_the_code_of_a_box_opens_its_card(client: TestClient) -> None:
    page = opened(client)
    code = client.get(f"{page.url}/cards/b18.svg")
    assert code.headers["content-type"] == "image/svg+xml"
    text = read_qr(code.content)
    assert text == f"http://127.0.0.1{page.url.removeprefix('/api')}/rough_in?node=b18"
    assert client.get(f"{page.url}/cards/nobody.svg").status_code == 404


def test_cards_and_book_are_of_a_room_or_of_all(client: TestClient) -> None:
    page = opened(client)
    job = Job.model_validate(page.job)
    own = client.get(f"{page.url}/cards", params={"room": "m2"}).json()
    assert {card["name"] for card in own["boxes"]} == {
        box.name for box in job.boxes if box.room == "m2" and box.name not in ("HC-1",)
    }
    whole = client.get(f"{page.url}/cards").json()
    assert len(whole["panels"]) == 3 and len(whole["boxes"]) > 60
    book = client.get(f"{page.url}/book", params={"room": "m2"}).json()
    assert book["of"] == "House, Kitchen" and book["outside"] == []
    pages = {item["title"]: item for item in book["pages"]}
    assert {row["name"] for row in pages["Kitchen, north wall"]["readings"]} == {"K-1", "R-6", "R-10", "R-11"}
    assert len(pages["Kitchen, north wall"]["photos"]) == 1
    assert any("cold water" in line["name"] for line in pages["Kitchen, east wall"]["otherwise"])
    house = client.get(f"{page.url}/book").json()
    assert any("spaces free" in line["text"] for line in house["later"]) and "prove it dead" in house["caution"]
    assert any(line["name"].startswith("2026-05-12, drywall") and "failed" in line["text"] for line in house["seen"])
    assert client.get(f"{page.url}/book", params={"room": "nowhere"}).status_code == 404


def test_the_permit_desk_gives_working_days_and_says_that_it_is_simulated(client: TestClient) -> None:
    offers = client.post("/api/desk/permit", json={"what": "drywall House"}).json()
    days = [date.fromisoformat(item["on"]) for item in offers]
    assert len(days) == 3 and all(day.weekday() < 5 and day > date.today() for day in days)
    assert all(item["simulated"] and item["ticket"].startswith("SIM-") for item in offers)
    past = client.post("/api/desk/permit", json={"what": "drywall House", "wanted": "2020-01-01"})
    assert past.status_code == 422 and "2020-01-01 is past; allowed:" in past.json()["detail"]


def test_the_desk_fails_what_waits_and_passes_what_does_not(client: TestClient) -> None:
    page = opened(client)
    coming = next(v["id"] for v in page.view["visits"] if v["on"] == "2026-06-02")
    told = client.post(f"{page.url}/visits/{coming}/outcome").json()
    assert told["result"] == "failed" and told["simulated"] and "made up" in told["found"][0]
    trench = next(v["id"] for v in page.view["visits"] if v["kind"] == "backfill")
    fine = client.post(f"{page.url}/visits/{trench}/outcome").json()
    assert fine["result"] == "passed" and fine["found"] == []
    page.edit({"op": "end_visit", "visit": trench, "result": "passed", "who": fine["who"]})
    hold = next(row for row in page.view["holds"] if row["where"] == "House to shed")
    assert hold["lifted"] and "simulated desk" in hold["lifted_text"]
