"""Rough-in, as its user walks through it: a wall made up by thumb and by keyboard, photos, holds and inspections,
what is behind a closed wall, the signal gone and back, a phone paired."""

from __future__ import annotations

import io
import re
import subprocess
from collections.abc import Callable
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import APIResponse, Browser, Page, Route, expect

from tests.conftest import PLANTED
from tests.e2e.conftest import Server, call
from tests.e2e.hands import say, settled, stage, stops

Open = Callable[..., Page]


def picture(colour: str = "#c0a060") -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (640, 480), colour).save(out, "JPEG")
    return out.getvalue()


def photo(page: Page, name: str, data: bytes) -> None:
    page.get_by_test_id("photo-file").set_input_files({"name": name, "mimeType": "image/jpeg", "buffer": data})
    settled(page)


def wall(page: Page, key: str) -> None:
    """Looks at a wall in the stage Rough-in."""
    if "/rough_in" not in page.url:
        stage(page, 8)
    page.locator(f"[data-wall='{key}']").click()
    expect(page.locator(f"[data-wall='{key}']")).to_have_attribute("aria-current", "true")
    settled(page)


def test_the_kitchen_wall_is_made_up_by_thumb(open_page: Open) -> None:
    """At 390 by 844, by taps alone: the box that is open, its steps, the wall that may be closed then."""
    page = open_page(390, 844, "/jobs/{job}/rough_in?wall=m2.0", has_touch=True)
    verdict = page.get_by_test_id("wall-verdict")
    expect(verdict).to_contain_text("Do not close this wall yet")
    taps = 1
    verdict.get_by_role("button", name="Make up R-10").tap()
    settled(page)
    for step in ("joints", "fold", "tails"):
        box = page.locator(f"[data-step={step}]")
        box.scroll_into_view_if_needed()
        box.tap()
        expect(box).to_have_attribute("aria-checked", "true")
        taps += 1
    settled(page)
    expect(verdict).to_contain_text("Nothing waits: this wall may be closed")
    page.get_by_test_id("close-wall").tap()
    settled(page)
    expect(verdict).to_contain_text("This wall is closed")
    assert taps + 1 == 5
    edge = page.evaluate("document.documentElement.scrollWidth")
    assert edge <= 390, "nothing hangs over the side of the glass"
    page.get_by_test_id("undo").tap()
    settled(page)
    expect(verdict).to_contain_text("Nothing waits")


def test_a_wall_by_keyboard_and_what_is_behind_it_after_closing(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/rough_in?wall=m2.0")
    page.keyboard.press("u")
    settled(page)
    expect(page.get_by_test_id("wall-verdict")).to_contain_text("Nothing waits")
    say(page, "shut Kitchen north on 2026-05-20")
    expect(page.get_by_test_id("wall-verdict")).to_contain_text("This wall is closed")
    say(page, "behind Kitchen north 4'2 at 40\"")
    expect(page.get_by_test_id("notice")).to_contain_text("4′ 2″ from the left, 40″ over the floor: No screw here")
    say(page, "behind Kitchen north 1' from the window to the left at 70\"")
    expect(page.get_by_test_id("notice")).to_contain_text("over the floor:")
    xray = page.get_by_test_id("xray").bounding_box()
    assert xray is not None
    page.mouse.click(xray["x"] + xray["width"] / 2, xray["y"] + 60)
    settled(page)
    expect(page.get_by_test_id("behind")).to_contain_text("As it was recorded")
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("behind")).to_have_count(0)


def test_a_wall_is_not_closed_while_it_waits_without_a_reason(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/rough_in?wall=m1.1")
    stops(page, PLANTED)
    page.keyboard.press("c")
    expect(page.get_by_test_id("close-wall")).to_be_disabled()
    page.get_by_test_id("why").fill("the board came early")
    page.keyboard.press("Enter")
    settled(page)
    expect(page.get_by_test_id("wall-verdict")).to_contain_text("Closed too early")
    stops(page, PLANTED + 1)
    page.get_by_role("button", name="Take it open again").click()
    settled(page)
    stops(page, PLANTED)


def test_a_sentence_said_while_a_photo_is_on_its_way_is_taken(open_page: Open) -> None:
    """The photo is kept, its answer is held up on the net; the wall is shut meanwhile, on a revision that the photo
    has made old. That was no other window: the sentence is taken, and nothing is told."""
    page = open_page(path="/jobs/{job}/rough_in?wall=m2.0")
    page.keyboard.press("u")
    settled(page)
    held: list[tuple[Route, APIResponse]] = []
    page.route("**/photos?*", lambda route: held.append((route, route.fetch())))
    with page.expect_request("**/photos?*"):
        page.get_by_test_id("photo-file").set_input_files(
            {"name": "wall.jpg", "mimeType": "image/jpeg", "buffer": picture("#20a060")}
        )
    while not held:  # until the server has it
        page.evaluate("0")
    page.keyboard.press("/")
    page.keyboard.type("shut Kitchen north on 2026-05-20")
    with page.expect_response(lambda answer: answer.url.endswith("/edits")) as answered:
        page.keyboard.press("Enter")
    assert answered.value.status == 409
    route, answer = held.pop()
    route.fulfill(response=answer)
    expect(page.get_by_test_id("wall-verdict")).to_contain_text("This wall is closed")
    expect(page.get_by_test_id("notice")).to_have_count(0)
    settled(page)
    expect(page.get_by_test_id("xray").locator("[data-mark='photo 1']")).to_have_count(1)


def test_a_photo_is_pinned_moved_described_and_taken_away(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/rough_in?wall=m2.1")
    photo(page, "wall.jpg", picture())
    thing = page.get_by_test_id("xray").locator("[data-mark='photo 1']")
    expect(thing).to_have_count(1)
    before = thing.get_attribute("aria-label")
    thing.focus()
    page.keyboard.press("Shift+ArrowRight")
    settled(page)
    expect(thing).not_to_have_attribute("aria-label", before or "")
    page.keyboard.press("Enter")
    dialog = page.get_by_role("dialog")
    expect(dialog.locator("img")).to_have_js_property("naturalWidth", 640)
    dialog.get_by_label("What it shows").fill("two cables to the left")
    page.keyboard.press("Enter")
    settled(page)
    dialog.get_by_role("button", name="Done").click()
    page.goto(re.sub(r"/rough_in.*", "/sheets/photos", page.url))
    settled(page)
    expect(page.get_by_test_id("photo-sheet")).to_contain_text("two cables to the left")
    expect(page.locator("figure img")).to_have_count(4)
    page.go_back()
    settled(page)
    page.get_by_test_id("xray").locator("[data-mark='photo 1']").click()
    page.get_by_role("dialog").get_by_role("button", name="Take it away").click()
    settled(page)
    expect(page.get_by_test_id("xray").locator("[data-mark='photo 1']")).to_have_count(0)


def test_what_is_no_photo_is_told_and_left(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/rough_in?wall=m2.1")
    photo(page, "notes.jpg", b"these are my notes")
    expect(page.get_by_test_id("panel")).to_contain_text(
        "the file is no whole picture; allowed: JPEG, PNG, WebP, HEIC"
    )
    page.get_by_role("button", name="Leave it").click()
    expect(page.get_by_test_id("panel")).not_to_contain_text("no whole picture")


def test_an_inspection_fails_is_mended_and_passes(open_page: Open) -> None:
    """The trench of the shed: its visit is to come; failed, mended, seen again, its hold is lifted."""
    page = open_page(path="/jobs/{job}/rough_in?wall=m1.0")
    hold = page.locator("[data-hold='backfill.t1']")
    expect(hold).to_contain_text("held")
    hold.locator(".head").click()
    hold.get_by_test_id("who-came").fill("county inspector")
    hold.get_by_role("button", name="Failed").click()
    settled(page)
    expect(hold.get_by_role("alert")).to_contain_text("say what was found")
    hold.get_by_test_id("what-found").fill("no ribbon in sight")
    hold.get_by_role("button", name="Failed").click()
    settled(page)
    expect(hold).to_contain_text("inspection failed")
    fault = page.locator("[data-fault]", has_text="no ribbon in sight")
    fault.get_by_role("button", name="Mended today").click()
    settled(page)
    expect(fault).to_contain_text("not seen again yet")
    hold.locator(".head").click()
    hold.get_by_role("button", name="Call the permit desk (simulated)").click()
    hold.locator("button", has_text=re.compile(r"^\d{4}-")).first.click()
    settled(page)
    hold.locator(".head").click()
    hold.get_by_role("button", name="Passed").click()
    settled(page)
    expect(hold).to_contain_text("lifted")
    expect(page.locator("[data-fault]", has_text="no ribbon in sight")).to_have_count(0)


def test_ticks_and_photos_made_without_a_signal_are_sent_once_when_it_is_back(
    open_page: Open, shared: Server
) -> None:
    """Two ticks and a photo while the server is out of reach; the page is opened anew with the signal, and all three
    are made, each once."""
    page = open_page(path="/jobs/{job}/rough_in?wall=m2.1")
    job = page.url.split("/")[4]
    before = call(shared, "GET", f"/api/jobs/{job}")["head"]["revision"]
    name = page.locator("[data-card]").get_attribute("data-card")
    page.route("**/api/**", lambda route: route.abort())
    page.locator("[data-step=jacket]").click()
    page.locator("[data-step=free]").click()
    expect(page.get_by_test_id("waits")).to_contain_text("2 ticks wait for the signal")
    expect(page.locator("[data-step=jacket]")).to_have_attribute("aria-checked", "true")
    expect(page.locator("[data-step=jacket]")).to_contain_text("waits for the signal")
    page.get_by_test_id("photo-file").set_input_files(
        {"name": "dark.jpg", "mimeType": "image/jpeg", "buffer": picture("#302820")}
    )
    expect(page.get_by_test_id("panel")).to_contain_text("photo dark.jpg: waits for the signal")
    assert call(shared, "GET", f"/api/jobs/{job}")["head"]["revision"] == before
    page.unroute("**/api/**")
    page.reload()
    settled(page)
    expect(page.get_by_test_id("waits")).to_have_count(0)
    expect(page.get_by_test_id("xray").locator("[data-mark='photo 1']")).to_have_count(1)
    kept = call(shared, "GET", f"/api/jobs/{job}")
    assert kept["head"]["revision"] == before + 3
    box = next(b["id"] for b in kept["job"]["boxes"] if b["name"] == name)
    card = next(c for c in kept["job"]["cards"] if c["node"] == box)
    assert [tick["step"] for tick in card["done"]] == ["jacket", "free"]
    page.reload()
    settled(page)
    assert call(shared, "GET", f"/api/jobs/{job}")["head"]["revision"] == before + 3


def test_an_answer_that_was_lost_is_asked_for_again_and_made_once(open_page: Open, shared: Server) -> None:
    page = open_page(path="/jobs/{job}/rough_in?wall=m2.1")
    job = page.url.split("/")[4]
    before = call(shared, "GET", f"/api/jobs/{job}")["head"]["revision"]
    lost = []

    def lose(route: object) -> None:
        if not lost:
            lost.append(route.fetch())  # type: ignore[attr-defined]
            route.abort()  # type: ignore[attr-defined]
        else:
            route.continue_()  # type: ignore[attr-defined]

    page.route("**/edits", lose)
    page.locator("[data-step=jacket]").click()
    expect(page.get_by_test_id("waits")).to_have_count(0, timeout=20_000)
    settled(page)
    assert len(lost) == 1 and call(shared, "GET", f"/api/jobs/{job}")["head"]["revision"] == before + 1


def test_a_box_and_a_cable_are_moved_to_where_they_went_by_keys(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/rough_in?wall=m2.0")
    box = page.get_by_test_id("xray").locator("[data-mark='R-10']")
    box.focus()
    page.keyboard.press("Shift+ArrowUp")
    settled(page)
    expect(box).to_have_attribute("aria-label", re.compile("44 7/8″ over the floor"))
    expect(page.get_by_test_id("xray")).to_contain_text("R-10 *")
    cable = page.get_by_test_id("xray").locator("[data-mark='H 10·3']").first
    cable.focus()
    page.keyboard.press("Shift+ArrowUp")
    settled(page)
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: where cable H 10·3 lies")


def test_torque_is_typed_and_what_is_off_is_told(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/rough_in?node=ph")
    read = page.get_by_label("14 Cold-store shed: torque read, pound-inches")
    read.fill("much")
    read.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("“much”: allowed: 0 to 1000 pound-inches")
    read.fill("30")
    read.press("Enter")
    settled(page)
    label = page.get_by_label("14 Cold-store shed: torque of its label, pound-inches")
    label.fill("40")
    label.press("Enter")
    settled(page)
    expect(page.locator("article[data-code=torque-off]")).to_contain_text("30 lb-in, its label asks 40")


def test_cards_and_the_book_are_printed(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/sheets/box-cards?room=m2")
    cards = page.get_by_test_id("card-sheet")
    expect(cards.locator("article", has=page.get_by_role("heading", name="R-10, "))).to_contain_text(
        "two blacks and a tail"
    )
    expect(cards.locator("article img").first).to_have_js_property("complete", True)
    page.goto(page.url.replace("box-cards?room=m2", "handover-book"))
    settled(page)
    book = page.get_by_test_id("book-sheet")
    expect(book).to_contain_text("What is behind the walls: House")
    expect(book.locator("section.page svg").first).to_be_visible()
    page.get_by_test_id("book-of").select_option(label="House, Kitchen")
    settled(page)
    expect(book).to_contain_text("House, Kitchen")
    assert len(page.pdf()) > 50_000


def test_a_phone_is_paired_by_the_code_and_its_key_taken_away(browser: Browser, tmp_path: Path) -> None:
    """Two windows: the laptop, and a phone at the address that the door listens on."""
    server = Server(tmp_path, here="127.0.0.2")
    try:
        laptop = browser.new_page(viewport={"width": 1280, "height": 800})
        laptop.goto(server.url)
        settled(laptop)
        laptop.get_by_test_id("job-menu").click()
        laptop.get_by_test_id("job-list").get_by_text("Phones…").click()
        code = laptop.get_by_test_id("here-code").inner_text()
        context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
        phone = context.new_page()
        phone.goto(f"http://127.0.0.2:{server.port}/")
        expect(phone.locator("header")).to_have_text("Level Run")
        phone.get_by_label("Letters").fill("ZZZZZZ" if code != "ZZZZZZ" else "XXXXXX")
        phone.get_by_role("button", name="Pair this phone").tap()
        expect(phone.get_by_role("alert")).to_contain_text("not the code on the laptop's screen")
        phone.get_by_label("Letters").fill(code.lower())
        phone.get_by_label("What this phone is called").fill("truck phone")
        expect(phone.get_by_role("button", name="Pair this phone")).to_be_enabled()
        phone.get_by_role("button", name="Pair this phone").tap()
        phone.wait_for_url(re.compile(r"/jobs/"))
        settled(phone)
        phone.goto(re.sub(r"/jobs/(\w+).*", r"/jobs/\1/rough_in?wall=m2.0", phone.url))
        settled(phone)
        phone.locator("[data-step=joints]").tap()
        expect(phone.locator("[data-step=joints]")).to_have_attribute("aria-checked", "true")
        settled(phone)
        row = laptop.locator("[data-phone='truck phone']")
        expect(row).to_be_visible()
        row.get_by_role("button", name="Take its key away").click()
        expect(row).to_contain_text("key taken away")
        phone.reload()
        expect(phone.get_by_role("button", name="Pair this phone")).to_be_visible()
        context.close()
        laptop.close()
    finally:
        server.kill()


def test_with_a_certificate_the_page_opens_without_a_signal(
    browser_with: Callable[[list[str]], Browser], tmp_path: Path
) -> None:
    """A certificate of our own, which this browser is told to trust: the wall last looked at opens while the server
    is gone, a tick waits, and is made when it is back. Over plain http nothing of the page is kept."""
    cert, key = tmp_path / "cert.pem", tmp_path / "key.pem"
    made = subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=127.0.0.3",
         "-addext", "subjectAltName=IP:127.0.0.3", "-keyout", key, "-out", cert],
        capture_output=True, check=False,
    )  # fmt: skip
    if made.returncode:
        pytest.skip("no openssl here to make a certificate with")
    server = Server(tmp_path / "data", here="127.0.0.3", more=("--cert", str(cert), "--cert-key", str(key)))
    with browser_with(["--ignore-certificate-errors"]) as trusting:
        phone = trusting.new_context(viewport={"width": 390, "height": 844}, has_touch=True, ignore_https_errors=True)
        page = phone.new_page()
        code = call(server, "GET", "/api/here")["code"]
        base = f"https://127.0.0.3:{server.port}"
        page.goto(f"{base}/pair#{code}")
        expect(page.get_by_label("Letters")).to_have_value(code)
        page.get_by_role("button", name="Pair this phone").tap()
        page.wait_for_url(re.compile(r"/jobs/"))
        settled(page)
        assert phone.cookies()[0]["secure"]
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        wanted = re.sub(r"/jobs/(\w+).*", r"/jobs/\1/rough_in?wall=m2.0", page.url)
        for _ in range(2):
            page.goto(wanted)
            settled(page)
        server.kill()
        page.goto(wanted)
        expect(page.get_by_test_id("wall-verdict")).to_contain_text("R-10 is not made up")
        page.locator("[data-step=joints]").tap()
        expect(page.get_by_test_id("waits")).to_contain_text("1 tick waits for the signal")
        server.start()
        expect(page.get_by_test_id("waits")).to_have_count(0, timeout=60_000)
        job = wanted.split("/")[4]
        card = next(c for c in call(server, "GET", f"/api/jobs/{job}")["job"]["cards"] if c["node"] == "b18")
        assert [tick["step"] for tick in card["done"]].count("joints") == 1
        phone.close()
    server.kill()


@pytest.mark.parametrize("path", ["rough_in", "sheets/box-cards", "sheets/photos", "sheets/handover-book"])
def test_an_empty_job_says_what_comes_here(open_page: Open, path: str) -> None:
    page = open_page(empty=True)
    page.goto(re.sub(r"/jobs/(\w+).*", rf"/jobs/\1/{path}", page.url))
    settled(page)
    expect(page.locator("#work")).to_contain_text(re.compile("yet"))
