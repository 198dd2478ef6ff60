"""Ways that draw themselves, as their user sees and bends them: by pointer, keyboard, sentence; the pull list."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

from tests.e2e.hands import LINE, look, say, settled, stage

Open = Callable[..., Page]


def cable(page: Page, way: str) -> tuple[float, float]:
    """The middle of the longest piece of a cable on the plan."""
    pieces = page.locator(f"[data-testid=cable-plan] .hit.cable.drags[data-mark='{way}']")
    expect(pieces.first).to_be_attached()
    boxes = [box for i in range(pieces.count()) if (box := pieces.nth(i).bounding_box()) is not None]
    best = max(boxes, key=lambda box: box["width"] + box["height"])
    return best["x"] + best["width"] / 2, best["y"] + best["height"] / 2


def steady(page: Page, told: Locator) -> str:
    """What is told once it does not change any more: what a drag says comes from the server."""
    before = ""
    while (now := told.inner_text()) != before:
        before = now
        page.wait_for_timeout(1500)
    return now


def test_a_cable_is_dragged_over_the_door_and_put_back(open_page: Open) -> None:
    """R-4 of the common room: taken into the room it goes by the ceiling; Escape lets go, undo puts it back."""
    page = open_page()
    look(page, "ch9")
    page.locator("[data-hop=b6]").click()
    settled(page)
    length = page.get_by_test_id("panel").locator("header .num").first
    before = length.inner_text()
    x, y = cable(page, "w-ch9-b6")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y + 60, steps=4)
    note = page.get_by_test_id("bend-note")
    expect(note).to_contain_text(re.compile(r"′.*\$\d+: .* more"))
    page.keyboard.press("Escape")
    page.mouse.up()
    settled(page)
    expect(note).to_have_count(0)
    expect(length).to_have_text(before)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y + 60, steps=4)
    expect(note).to_contain_text("more")
    told = steady(page, note).split(",")[0]
    page.mouse.up()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: bend its way")
    settled(page)
    expect(length).not_to_have_text(before)
    assert told.split("′")[0] == length.inner_text().split("′")[0]
    expect(page.get_by_test_id("hop-work")).to_contain_text("Bent by hand")
    page.get_by_test_id("undo").click()
    settled(page)
    expect(length).to_have_text(before)


def test_a_school_by_sentence_by_arrow_and_by_tap(open_page: Open) -> None:
    page = open_page()
    look(page, "ch9")
    page.locator("[data-hop=b6]").click()
    settled(page)
    say(page, "R-4 over top")
    settled(page)
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: R-4 over top")
    expect(page.get_by_test_id("hop-work")).to_contain_text("plates")
    page.locator(LINE).blur()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: way under")
    page.get_by_test_id("straighten").click()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: straighten its way")
    page.locator("[data-school=over]").click()
    expect(page.locator("[data-school=over]")).to_have_attribute("aria-pressed", "true")
    page.get_by_test_id("show-strip").click()
    expect(page.get_by_test_id("strip")).to_be_visible()


def test_a_way_is_kept_and_walked_on_by_hand(open_page: Open) -> None:
    page = open_page()
    look(page, "ch9")
    page.locator("[data-hop=b6]").click()
    settled(page)
    page.get_by_test_id("keep").click()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: keep this way")
    settled(page)
    expect(page.locator("[data-hop=b6]")).to_have_count(0)


def test_the_pull_list_is_ticked_and_what_was_cut_is_typed(open_page: Open) -> None:
    page = open_page()
    look(page, "ch9")
    page.get_by_test_id("totals").get_by_role("link", name="Pull list").click()
    settled(page)
    sheet = page.get_by_test_id("pull-sheet")
    row = sheet.locator("tbody tr", has_text="H 9·1")
    row.get_by_role("checkbox").check()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: pulled H 9·1")
    row.get_by_label("H 9·1, what was cut").fill("30")
    row.get_by_label("H 9·1, what was cut").press("Enter")
    expect(sheet.locator(".total", has_text="12-2 NM-B")).to_contain_text("30′ pulled")
    page.get_by_test_id("by-room").click()
    expect(sheet.get_by_role("heading", name="Kitchen", exact=True)).to_be_visible()


def test_from_an_empty_job_to_a_pull_list_by_keyboard(open_page: Open) -> None:
    """Two rooms, a panel, three receptacles, proposed circuits; then the holes are printed, counted from the left
    corner of the north wall, at the hole line of the pole."""
    page = open_page(empty=True)
    keys = stage(page, 1)
    for text in ("room Den 12' x 10'", "room Hall 5' x 10' east of Den", "door west 2'8 at 2'"):
        keys += say(page, text)
    keys += stage(page, 2)
    for text in (
        "panel in Den west 5' spaces 12 main 100a as P",
        "receptacle in Den north 4' as R-1",
        "receptacle in Den north 9' as R-2",
        "receptacle in Hall north 2'6 as R-3",
    ):
        keys += say(page, text)
    keys += stage(page, 3)
    page.keyboard.press("f")
    page.get_by_role("button", name=re.compile("^Take")).click()
    expect(page.locator(".v-overlay--active")).to_have_count(0)
    stage(page, 4)
    expect(page.get_by_test_id("totals")).to_contain_text("NM-B")
    expect(page.get_by_test_id("cable-plan")).to_be_visible()
    assert keys < 330, keys
    page.get_by_test_id("totals").get_by_role("link", name="Drilling sheet").click()
    settled(page)
    wall = page.locator("[data-wall='Den, north wall']")
    expect(wall.locator("tbody tr").first).to_contain_text("24″")
    assert page.pdf(format="Letter")[:4] == b"%PDF"
