"""What holds for every stage: the address, keys under a dialog, edits while the server is away."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.conftest import PLANTED
from tests.e2e.conftest import Server, call
from tests.e2e.hands import LINE, say, settled, stage, stops

Open = Callable[..., Page]


def test_the_address_keeps_the_look_through_reload_and_back(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/walls")
    page.locator("[data-room-row='Kitchen']").click()
    settled(page)
    expect(page).to_have_title(re.compile("^Kitchen · Walls"))
    stage(page, 2)
    expect(page).to_have_title(re.compile("^Kitchen · Boxes"))
    page.reload()
    settled(page)
    expect(page.locator("[data-room-row='Kitchen']")).to_have_attribute("aria-current", "true")
    page.locator("[data-room-row='Bath']").click()
    settled(page)
    page.go_back()
    settled(page)
    expect(page.locator("[data-room-row='Kitchen']")).to_have_attribute("aria-current", "true")


def test_an_address_that_is_not_there_says_so_and_leads_on(open_page: Open) -> None:
    page = open_page(path="/jobs/0123456789ab/walls")
    expect(page.locator("#work")).to_contain_text("0123456789ab")
    for path in ("/somewhere/else", "/jobs/{job}/nowhere"):
        page = open_page(path=path)
        expect(page.locator("#work")).to_contain_text(re.compile("no such|nothing", re.IGNORECASE))
        stage(page, 2)
        expect(page).to_have_title(re.compile("Boxes"))
        expect(page.locator("#work")).not_to_contain_text("Nothing stands here")


def test_keys_rest_while_a_dialog_lies_over_the_stage(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/walls")
    page.keyboard.press("?")
    expect(page.get_by_test_id("keys")).to_be_visible()
    page.keyboard.press("2")
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("keys")).to_have_count(0)
    settled(page)
    expect(page).to_have_url(re.compile("/walls"))


def test_an_edit_made_while_the_server_is_away_is_made_once_it_is_back(browser: Browser, server: Server) -> None:
    page = browser.new_page()
    page.set_default_timeout(20_000)
    page.goto(server.url)
    settled(page)
    stage(page, 1)
    page.locator("[data-room-row='Kitchen']").click()
    settled(page)
    page.keyboard.press("/")
    page.keyboard.type("room Larder 6' x 5' at 60' east")
    server.kill()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("away")).to_contain_text("Nothing is lost")
    expect(page.locator(LINE)).to_have_value("room Larder 6' x 5' at 60' east")
    server.start()
    expect(page.locator("[data-room-row='Larder']")).to_have_count(1)
    expect(page.get_by_test_id("away")).to_have_count(0)
    expect(page.locator(LINE)).to_have_value("")
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    expect(page.locator("[data-room-row='Larder']")).to_have_count(0)
    page.close()


def test_two_quick_edits_are_both_made(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/boxes?room=hr1")
    ticks = page.locator("[data-box-row] input[type=checkbox]")
    for index in range(4):
        ticks.nth(index).check()
    settled(page)
    page.reload()
    settled(page)
    for index in range(4):
        expect(ticks.nth(index)).to_be_checked()
    stops(page, PLANTED)


def whole_header(page: Page, width: int) -> None:
    """No button of the header hangs over its side."""
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    header = page.locator("header.bar")
    for button in header.get_by_role("button").all():
        if button.is_visible():
            box = button.bounding_box()
            assert box is not None and box["x"] >= 0 and box["x"] + box["width"] <= width, button.inner_text()


@pytest.mark.parametrize("width", [1280, 390])
def test_a_long_name_leaves_the_header_whole(open_page: Open, shared: Server, width: int) -> None:
    made = call(shared, "POST", "/api/jobs", {"name": "Furnace, water heater and two baths at Quince Hollow"})
    page = open_page(width, 800, f"/jobs/{made['head']['id']}/start")
    say(page, "H 200a 30 spaces taken 1-14")
    whole_header(page, width)


@pytest.mark.parametrize("width", [1280, 1024, 800, 390])
def test_all_of_the_header_is_on_the_glass(open_page: Open, width: int) -> None:
    """At a desk, on a tablet either way, on a phone, the stages too; what is typed has room."""
    page = open_page(width, 800, "/jobs/{job}/trench")
    whole_header(page, width)
    line = page.locator(LINE).bounding_box()
    assert line is not None and line["width"] >= 190
