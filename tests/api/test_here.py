"""The door to the network: what answers without a key, pairing fuzzed, replayed, expired, revoked; ends that are not
this machine's own."""

from __future__ import annotations

import random
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelrun.api.app import create_app
from levelrun.api.here.opened import HereError, address_of_this_machine
from levelrun.api.here.pairing import GOOD_S, LETTERS, MOST_WRONG, Pairing, PairingRefusedError
from levelrun.store import Database
from levelrun.store.phones import Phones
from tests.api.test_rough_in_api import read_qr

OUTSIDE = ("127.0.0.2", 8799)


class Clock:
    def __init__(self) -> None:
        self.now = 1000.0

    def __call__(self) -> float:
        return self.now


def wrong(code: str) -> str:
    return ("Z" if code[0] != "Z" else "X") + code[1:]


def test_ten_thousand_guesses_at_any_speed_do_not_open_it() -> None:
    """Guesses as fast as they come, and guesses that wait as long as they are told: the code is withdrawn after ten
    that were looked at, and never more are looked at than the pauses allow."""
    dice = random.Random(7)
    for patient in (False, True):
        clock = Clock()
        pairing = Pairing(clock)
        code = pairing.open().text
        looked_at = 0
        for _ in range(10_000):
            guess = "".join(dice.choice(LETTERS) for _ in range(6))
            if guess == code:
                continue
            open_before = pairing.code is not None
            with pytest.raises(PairingRefusedError) as refused:
                pairing.guess(guess)
            looked_at += open_before and "too many guesses" not in refused.value.text
            clock.now += refused.value.wait_s + 0.01 if patient else 0.001
        assert looked_at <= (MOST_WRONG if patient else 6), (
            "ten seconds of guesses as fast as they come: few are seen"
        )
        clock.now += 3600
        assert pairing.code is None
        with pytest.raises(PairingRefusedError):
            pairing.guess(code)


def test_the_right_code_pairs_one_phone_and_is_good_no_longer() -> None:
    clock = Clock()
    pairing = Pairing(clock)
    code = pairing.open().text
    assert len(code) == 6 and set(code) <= set(LETTERS) and not set(code) & set("AEIOUY0123456789")
    pairing.guess(f" {code[:3].lower()} {code[3:]} ")
    with pytest.raises(PairingRefusedError, match="no code is open"):
        pairing.guess(code)


def test_a_code_is_good_for_minutes_only() -> None:
    clock = Clock()
    pairing = Pairing(clock)
    early = pairing.open().text
    clock.now += GOOD_S - 1
    assert pairing.code is not None
    clock.now += 1.5
    assert pairing.code is None
    with pytest.raises(PairingRefusedError, match="no code is open"):
        pairing.guess(early)


def test_a_new_code_puts_the_old_one_away_and_pauses_stay() -> None:
    clock = Clock()
    pairing = Pairing(clock)
    old = pairing.open().text
    for _ in range(4):
        with pytest.raises(PairingRefusedError) as refused:
            pairing.guess(wrong(old))
        last = refused.value.wait_s
    assert last >= 1
    new = pairing.open().text
    with pytest.raises(PairingRefusedError, match="too many guesses"):
        pairing.guess(new)
    clock.now += last + 0.1
    pairing.guess(new)


def test_a_key_is_kept_as_a_hash_and_opens_nothing_once_it_is_revoked(tmp_path: Path) -> None:
    path = tmp_path / "d.sqlite3"
    with closing(Database(path)) as db:
        phones = Phones(db)
        one, key = phones.pair("one", "2026-05-12T09:00:00+00:00")
        two, other = phones.pair("two", "2026-05-12T09:01:00+00:00")
        assert phones.known(key, "2026-05-12T09:02:00+00:00") is not None
        assert phones.known(key[:-1], "x") is None and phones.known("", "x") is None
        assert phones.revoke(one.id) and not phones.revoke("nobody")
        assert phones.known(key, "2026-05-12T09:03:00+00:00") is None
        found = phones.known(other, "2026-05-12T09:03:00+00:00")
        assert found is not None and found.id == two.id
        db.checkpoint()
    assert key.encode() not in path.read_bytes() and other.encode() not in path.read_bytes()


@contextmanager
def through_the_door(app: Any) -> Iterator[TestClient]:
    """A phone: its connections end at the address that the door listens on."""

    async def outside(scope: Any, receive: Any, send: Any) -> None:
        if scope["type"] == "http":
            scope["server"] = OUTSIDE
        await app(scope, receive, send)

    yield TestClient(outside, base_url=f"http://{OUTSIDE[0]}:{OUTSIDE[1]}", raise_server_exceptions=False)


@pytest.fixture
def door(tmp_path: Path) -> Iterator[tuple[TestClient, TestClient]]:
    """The laptop, and a phone outside; the door is open."""
    app = create_app(tmp_path, port=OUTSIDE[1])
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as laptop:
        app.state.here._bound = OUTSIDE
        app.state.here.pairing.open()
        with through_the_door(app) as phone:
            yield laptop, phone


def test_without_a_key_nothing_answers_but_the_pairing_page(door: tuple[TestClient, TestClient]) -> None:
    laptop, phone = door
    job = laptop.post("/api/jobs", json={"sample": "shed"}).json()["head"]["id"]
    paths = ["/api/health", "/api/jobs", f"/api/jobs/{job}", "/api/backup", "/api/here", "/openapi.json",
             "/assets/x.js", "/sw.js", f"/api/jobs/{job}/photos.zip", f"/api/jobs/{job}/calendar.ics"]  # fmt: skip
    for path in paths:
        assert phone.get(path).status_code in (401, 403), path
    for method in ("post", "put", "delete", "patch"):
        assert getattr(phone, method)(f"/api/jobs/{job}").status_code in (401, 403, 415)
    page = phone.get("/", headers={"accept": "text/html"}, follow_redirects=False)
    assert page.status_code == 303 and page.headers["location"] == "/pair?to=%2F"
    assert phone.get("/pair").status_code == phone.get("/pair.js").status_code == 200
    assert "<form" in phone.get("/pair").text and job not in phone.get("/pair").text


def test_a_paired_phone_works_and_is_locked_out_when_its_key_goes(door: tuple[TestClient, TestClient]) -> None:
    laptop, phone = door
    code = laptop.get("/api/here").json()["code"]
    bad = phone.post("/api/pair", json={"code": wrong(code)})
    assert bad.status_code == 429 and "not the code" in bad.json()["detail"]
    good = phone.post("/api/pair", json={"code": code.lower(), "name": "Ash's phone\n\u202e"})
    assert good.status_code == 200 and good.json() == {"name": "Ash's phone"}
    cookie = good.headers["set-cookie"]
    assert "HttpOnly" in cookie and "SameSite=lax" in cookie and code not in cookie
    assert phone.get("/api/jobs").status_code == 200
    assert phone.post("/api/jobs", json={"name": "By phone"}).status_code == 201
    assert phone.get("/api/here").status_code == 403, "phones do not let phones in"
    replay = TestClient(phone.app, base_url=str(phone.base_url)).post("/api/pair", json={"code": code})
    assert replay.status_code == 429
    listed = laptop.get("/api/here").json()["phones"]
    assert [p["name"] for p in listed] == ["Ash's phone"]
    assert laptop.delete(f"/api/here/phones/{listed[0]['id']}").json()["phones"][0]["revoked"]
    assert phone.get("/api/jobs").status_code == 401


def test_two_phones_have_two_keys(door: tuple[TestClient, TestClient]) -> None:
    laptop, phone = door
    second = TestClient(phone.app, base_url=str(phone.base_url))
    for own, name in ((phone, "one"), (second, "two")):
        code = laptop.post("/api/here/code").json()["code"]
        assert own.post("/api/pair", json={"code": code, "name": name}).status_code == 200
    ids = {p["name"]: p["id"] for p in laptop.get("/api/here").json()["phones"]}
    laptop.delete(f"/api/here/phones/{ids['one']}")
    assert (phone.get("/api/jobs").status_code, second.get("/api/jobs").status_code) == (401, 200)


@pytest.mark.parametrize(
    "headers",
    [{"host": "evil.example"}, {"host": "127.0.0.1"}, {"origin": "http://evil.example"}, {"origin": "null"}],
)
def test_a_foreign_host_or_page_is_turned_away_at_the_door(
    door: tuple[TestClient, TestClient], headers: dict[str, str]
) -> None:
    laptop, phone = door
    code = laptop.get("/api/here").json()["code"]
    assert phone.post("/api/pair", json={"code": code}, headers=headers).status_code == 403
    assert laptop.get("/api/here").json()["code"] == code, "and it is no guess"


@pytest.mark.parametrize("cookie", ["levelrun_key=", "levelrun_key=x; y", "=;;;", "levelrun_key=" + "A" * 5000])
def test_a_cookie_that_is_no_key_opens_nothing(door: tuple[TestClient, TestClient], cookie: str) -> None:
    _, phone = door
    assert phone.get("/api/jobs", headers={"cookie": cookie}).status_code == 401


def test_the_code_is_drawn_behind_the_mark_that_no_server_writes_down(door: tuple[TestClient, TestClient]) -> None:
    laptop, _ = door
    told = laptop.get("/api/here").json()
    assert read_qr(laptop.get("/api/here/code.svg").content) == f"{told['url']}/pair#{told['code']}"
    laptop.post("/api/here/close")
    assert laptop.get("/api/here/code.svg").status_code == 422


def test_no_code_without_an_open_door(client: TestClient) -> None:
    answer = client.post("/api/here/code")
    assert answer.status_code == 422 and "open it first" in answer.json()["detail"]
    assert client.post("/api/pair", json={"code": "BCDFGH"}).status_code == 429


def test_a_machine_on_no_network_says_so(monkeypatch: pytest.MonkeyPatch) -> None:
    import levelrun.api.here.opened as opened

    monkeypatch.setattr(opened, "NOWHERE", ("127.0.0.1", 9))
    with pytest.raises(HereError, match="on no network"):
        address_of_this_machine()
