"""Buying over the wire: the view, lists out and read back by another library, prices in, the desk, other ways."""

from __future__ import annotations

import csv
import io
import json
from typing import Any

import openpyxl
import pytest
from fastapi.testclient import TestClient

from levelrun.samples import sample


def demo(client: TestClient) -> str:
    return str(client.post("/api/jobs", json={"sample": "quince-hollow"}).json()["head"]["id"])


def view(client: TestClient, job: str, item: str = "") -> dict[str, Any]:
    found: dict[str, Any] = client.get(f"/api/jobs/{job}/stages/buy", params={"item": item} if item else {}).json()
    return found


def edit(client: TestClient, job: str, *edits: dict[str, Any]) -> Any:
    revision = client.get(f"/api/jobs/{job}").json()["head"]["revision"]
    return client.post(f"/api/jobs/{job}/edits", json={"revision": revision, "edits": list(edits)})


def bring(client: TestClient, what: str, body: Any) -> Any:
    head = {"content-type": "application/octet-stream"}
    return client.post(f"/api/csv/{what}", content=body, headers=head)


def test_the_view_opens_on_the_worst_row_and_looks_where_it_is_told(client: TestClient) -> None:
    job = demo(client)
    first = view(client, job)
    assert first["item"]["row"]["item"] == "12-2 NM-B" and first["shelf"] == "cable" and first["begun"]
    assert [mend["label"].split()[0] for mend in first["item"]["findings"][0]["mends"]] == ["Buy", "By"]
    shelf = view(client, job, "shelf boxes")
    assert shelf["item"] is None and shelf["shelf"] == "boxes" and shelf["sheets"] == []
    assert view(client, job, "no such thing")["item"]["row"]["item"] == "12-2 NM-B"
    total = sum(one["dollars"] for one in first["shelves"])
    assert total == pytest.approx(first["money"]["material"])


def test_old_prices_are_flagged(client: TestClient) -> None:
    assert view(client, demo(client))["stale"] == ["14-2 NM-B"], "said in May"


def test_the_workbook_shows_its_numbers_to_another_library(client: TestClient) -> None:
    """A sheet a supplier; formulas with their values stored: openpyxl reads both."""
    job = demo(client)
    body = client.get(f"/api/jobs/{job}/list.xlsx").content
    values, formulas = (openpyxl.load_workbook(io.BytesIO(body), data_only=only) for only in (True, False))
    lists = client.get(f"/api/jobs/{job}/list").json()["lists"]
    assert values.sheetnames == ["Sum", *(one["supplier"] for one in lists)]
    for one in lists:
        sheet, said = values[one["supplier"]], formulas[one["supplier"]]
        rows = list(sheet.iter_rows(min_row=2, values_only=True))
        assert [row[1] for row in rows[:-1]] == [row["item"] for row in one["rows"]]
        assert rows[-1][6] == pytest.approx(one["dollars"]) == pytest.approx(sum(row[6] for row in rows[:-1]))
        assert str(said.cell(len(rows) + 1, 7).value).startswith("=SUM(G2:")
        for at, row in enumerate(one["rows"], start=2):
            if row["each"]:
                assert said.cell(at, 7).value == f"=E{at}*F{at}"
                assert sheet.cell(at, 7).value == pytest.approx(row["count"] * row["each"], abs=0.006)
    front = list(values["Sum"].iter_rows(values_only=True))
    whole = sum(one["dollars"] for one in lists)
    assert front[len(lists) + 1][1] == pytest.approx(whole)
    assert front[len(lists) + 3][1] == pytest.approx(whole * 1.06, abs=0.01)


def test_the_list_as_csv_is_the_list(client: TestClient) -> None:
    job = demo(client)
    rows = list(csv.DictReader(io.StringIO(client.get(f"/api/jobs/{job}/list.csv").text)))
    lists = client.get(f"/api/jobs/{job}/list").json()["lists"]
    assert len(rows) == sum(len(one["rows"]) for one in lists)
    assert {row["supplier"] for row in rows} == {one["supplier"] for one in lists}


def test_a_price_book_goes_out_and_comes_in(client: TestClient) -> None:
    job = demo(client)
    book = client.get(f"/api/jobs/{job}/prices.csv").text
    assert len(book.splitlines()) > 3000
    own = client.get(f"/api/jobs/{job}/prices.csv", params={"said": True}).text
    assert len(own.splitlines()) == 2 and "14-2 NM-B" in own
    found = bring(client, "prices", own.replace("98.00", "101.50"))
    assert found.status_code == 200
    assert edit(client, job, *found.json()["edits"]).status_code == 200
    assert "101.50" in client.get(f"/api/jobs/{job}/prices.csv", params={"said": True}).text


@pytest.mark.parametrize(
    ("body", "status", "words"),
    [
        ("name,cost\nx,1\n", 422, "wanted: item, supplier, dollars"),
        ("item,supplier,dollars\n12-2 NM-B,Shop,-4\n", 422, "row 2: dollars '-4'"),
        ("item,supplier,dollars\n12-2 NM-B,Shop,free\n", 422, "row 2: dollars 'free'"),
        ("item,supplier,dollars\n", 422, "no price in this file"),
        ("", 422, "columns none"),
        (b"\xff\xfe\x00PK", 422, "no text in UTF-8"),
    ],
)
def test_a_file_that_is_no_price_book_is_refused_in_words(
    client: TestClient, body: str | bytes, status: int, words: str
) -> None:
    answer = bring(client, "prices", body)
    assert answer.status_code == status and words in answer.json()["detail"]


def test_two_units_for_one_part_are_refused_at_their_row_and_nothing_is_kept(client: TestClient) -> None:
    job = demo(client)
    text = "item,supplier,pack,unit,dollars\nbox single-18,Shop,1,each,1\n12-2 NM-B,Shop,1,each,1\n"
    found = bring(client, "prices", text)
    refused = edit(client, job, *found.json()["edits"])
    assert refused.status_code == 422 and "row 2" in refused.json()["detail"] and "foot" in refused.json()["detail"]
    assert len(client.get(f"/api/jobs/{job}").json()["job"]["prices"]) == 1


def test_a_sheet_of_a_hundred_megabytes_is_refused_unread(client: TestClient) -> None:
    def endless() -> Any:
        for _ in range(100):
            yield b"x" * 1_000_000

    head = {"content-type": "application/octet-stream", "content-length": "100000000"}
    said = client.post("/api/csv/prices", content=b"", headers=head)
    assert said.status_code == 413
    assert bring(client, "prices", endless()).status_code == 413
    some = bring(client, "prices", b"item,supplier,dollars\n" + b"x" * 3_000_000)
    assert some.status_code == 422 and "bytes; allowed: up to" in some.json()["detail"]


def test_the_truck_goes_to_the_next_job(client: TestClient) -> None:
    job = demo(client)
    text = client.get(f"/api/jobs/{job}/truck.csv").text
    rows = list(csv.DictReader(io.StringIO(text)))
    assert all(float(row["amount"]) >= 15 for row in rows if row["unit"] == "ft")
    edits = bring(client, "truck", text).json()["edits"]
    fresh = client.post("/api/jobs", json={"name": "Next"}).json()["head"]["id"]
    assert edit(client, fresh, *edits).status_code == 200
    assert len(client.get(f"/api/jobs/{fresh}").json()["job"]["stock"]) == len(rows)


def test_the_desk_is_simulated_and_says_so(client: TestClient) -> None:
    rows = [{"item": f"box {n}", "supplier": "supply house", "dollars": 10.0} for n in range(200)]
    quotes = client.post("/api/desk/prices", json={"rows": rows, "on": "2026-05-03"}).json()
    assert all(quote["simulated"] and 9.0 <= quote["dollars"] <= 11.0 for quote in quotes)
    out = [quote for quote in quotes if quote["out"]]
    assert 5 <= len(out) <= 40 and all(3 <= quote["days"] <= 21 for quote in out)
    again = client.post("/api/desk/prices", json={"rows": rows, "on": "2026-05-03"}).json()
    assert again == quotes
    assert client.post("/api/desk/prices", json={"rows": []}).status_code == 422


def test_other_ways_come_line_by_line_from_the_worker(client: TestClient) -> None:
    job = client.post("/api/jobs", json={"sample": "shed"}).json()["head"]["id"]
    with client.stream("POST", f"/api/jobs/{job}/others") as answer:
        lines = [json.loads(line) for line in answer.iter_lines() if line]
    assert lines[0]["way"]["label"] == "As planned" and len(lines) > 2
    taken = next(line["way"] for line in lines if line["way"]["key"] == "joints-lever")
    assert edit(client, job, *taken["edits"]).status_code == 200
    assert view(client, job)["money"]["material"] == pytest.approx(taken["material"])


def test_coils_are_searched_at_leisure_and_kept_for_the_view(client: TestClient) -> None:
    job = demo(client)
    with client.stream("POST", f"/api/jobs/{job}/coils", params={"item": "14-2 NM-B"}) as answer:
        lines = [json.loads(line) for line in answer.iter_lines() if line]
    assert lines[-1]["done"] and lines[-1]["proven"] and lines[-1]["cost"] >= lines[-1]["bound"] - 1e-6
    assert view(client, job, "14-2 NM-B")["item"]["row"]["verdict"] == "fine"
    wrong = client.post(f"/api/jobs/{job}/coils", params={"item": "box single-18"})
    assert wrong.status_code == 422 and "12-2 NM-B" in wrong.json()["allowed"]


def test_the_quote_parts_and_the_contract(client: TestClient) -> None:
    job = demo(client)
    quote = client.get(f"/api/jobs/{job}/quote").json()
    for parts in ("stages", "structures", "rooms", "circuits"):
        assert sum(part["material"] for part in quote[parts]) == pytest.approx(quote["money"]["material"])
    body = sample("quince-hollow").model_dump(mode="json")
    bought = {row["what"]: row for row in client.post("/api/plan", json={"job": body}).json()["buy"]}
    assert bought["12-2 NM-B"]["unit"] == "ft" and bought["PVC 40 3/4 stick"]["unit"] == "stick"


def test_coils_as_a_calculation(client: TestClient) -> None:
    coils = [{"length_ft": 250, "price": 139}, {"length_ft": 100, "price": 67}, {"length_ft": 50, "price": 38}]
    cuts = [46, 14, 13, 58, 16, 62, 41, 74, 21, 33, 39, 26]
    found = client.post("/api/calc/coils", json={"cuts_ft": cuts, "coils": coils, "foot_price": None}).json()
    assert found["cost"] == 273 and found["proven"] and found["bound"] == 273 and found["by_foot_ft"] == 0
    assert sorted(coil["length_ft"] for coil in found["plan"]) == [100, 100, 250]
    assert sorted(cut for coil in found["plan"] for cut in coil["cuts_ft"]) == sorted(cuts)
    long = client.post("/api/calc/coils", json={"cuts_ft": [400], "coils": coils})
    assert long.status_code == 422 and long.json()["key"] == "cuts_ft.0" and "400 ft" in long.json()["detail"]
    for wrong in ([], [0], [-3], [None]):
        assert client.post("/api/calc/coils", json={"cuts_ft": wrong, "coils": coils}).status_code == 422


def test_undo_takes_back_what_was_said_of_buying(client: TestClient) -> None:
    job = demo(client)
    before = client.get(f"/api/jobs/{job}").json()["job"]
    edit(client, job, {"op": "buy", "item": "12-2 NM-B", "packs": [], "by_foot": True})
    edit(client, job, {"op": "have", "item": "12-2 NM-B", "amount": 90.0})
    for _ in range(2):
        revision = client.get(f"/api/jobs/{job}").json()["head"]["revision"]
        client.post(f"/api/jobs/{job}/undo", json={"revision": revision})
    assert client.get(f"/api/jobs/{job}").json()["job"] == before
