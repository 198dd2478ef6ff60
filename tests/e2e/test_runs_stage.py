"""The Runs stage as its user walks it."""

import json
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.conftest import PLANTED
from tests.e2e.hands import look, settled, stage, stops

Open = Callable[..., Page]


def test_stop_reason_mend_undo_and_reload(open_page: Open) -> None:
    page = open_page()
    stops(page, PLANTED)
    look(page, "ch14")
    card = page.locator("[data-code=cover-short]")
    expect(card).to_contain_text("PVC 40 under open ground wants 18″ over its top. Read at least 16″.")
    expect(card).to_contain_text("300.5")
    card.get_by_role("button", name="Dig to 18″").click()
    stops(page, PLANTED - 1)
    expect(card).to_have_count(0)
    page.get_by_test_id("undo").click()
    stops(page, PLANTED)
    expect(card).to_be_visible()
    page.get_by_test_id("redo").click()
    stops(page, PLANTED - 1)
    page.reload()
    stops(page, PLANTED - 1)
    look(page, "ch14")
    expect(page.locator("[data-cell='5-depth']")).to_have_text("18″")
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: Dig to 18″")


def test_three_legs_by_keyboard_and_a_wrong_word_shows_where(open_page: Open) -> None:
    page = open_page()
    look(page, "ch5")
    rows = page.locator("[data-testid=legs] tbody tr")
    expect(rows).to_have_count(4)
    page.keyboard.press("/")
    for number, text in enumerate(["over 6' crawl", 'up 8"', "up 4' stud wall to CL-9"], start=5):
        page.keyboard.type(text)
        page.keyboard.press("Enter")
        expect(rows).to_have_count(number)
    expect(rows.last).to_contain_text("CL-9")
    page.keyboard.type("over 43' trnch in pvc40")
    page.keyboard.press("Enter")
    error = page.get_by_test_id("entry-error")
    expect(error.locator("mark")).to_have_text("trnch in pvc40")
    expect(error).to_contain_text("found 'trnch'")
    entry = page.get_by_label("walk", exact=True)
    expect(entry).to_have_value("over 43' trnch in pvc40")
    assert entry.evaluate("e => e.selectionStart") == 9
    entry.fill("over 4' tr")
    expect(page.get_by_role("option", name="trench", exact=True)).to_be_visible()
    entry.press("Tab")
    expect(entry).to_have_value("over 4' trench ")


def test_legs_change_in_place_by_keyboard(open_page: Open) -> None:
    page = open_page()
    look(page, "ch6")
    page.locator("[data-cell='0-go']").focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    field = page.locator("[data-row='1'] td.tape input")
    field.fill("21 feet 99")
    field.press("Enter")
    expect(page.locator("[data-row='1']")).to_contain_text("under 12")
    field.fill("22' 4 1/2\"")
    field.press("Enter")
    expect(page.locator("[data-cell='1-tape']")).to_have_text("22′ 4 1/2″")
    expect(page.locator("[data-cell='1-tape']")).to_be_focused()
    page.keyboard.press("Delete")
    expect(page.locator("[data-testid=legs] tbody tr")).to_have_count(2)
    page.keyboard.press("Control+z")
    expect(page.locator("[data-testid=legs] tbody tr")).to_have_count(3)


def test_numbers_open_their_reason_and_alternatives_change_the_leg(open_page: Open) -> None:
    page = open_page()
    look(page, "ch14")
    page.locator("[data-figure='pull-1-fill']").click()
    reason = page.get_by_test_id("reason")
    expect(reason).to_contain_text("unrounded")
    expect(reason).to_contain_text("from memory")
    page.keyboard.press("Escape")
    others = page.get_by_test_id("alternatives")
    cable = others.locator("li", has_text="12-2 UF-B cable")
    expect(cable).to_contain_text("its box would stand under ground")
    expect(cable.get_by_role("button")).to_have_count(0)
    others.get_by_role("button", name="PVC 80").click()
    expect(page.locator("[data-cell='5-in']")).to_contain_text("PVC 80")


def test_a_second_window_is_told_and_may_make_its_change_again(open_page: Open) -> None:
    one, two = open_page(), open_page()
    for page in (one, two):
        look(page, "ch14")
    one.get_by_role("button", name="Dig to 18″").click()
    stops(one, PLANTED - 1)
    two.get_by_role("button", name="GFCI at the breaker").click()
    expect(two.get_by_test_id("notice")).to_contain_text("Another window changed this job")
    stops(two, PLANTED - 1)
    two.get_by_role("button", name="Make it again").click()
    expect(two.get_by_test_id("undo")).to_have_attribute("title", "Undo: GFCI at the breaker")


def test_a_new_job_way_and_file(open_page: Open, tmp_path: Path) -> None:
    page = open_page()
    page.get_by_test_id("job-menu").click()
    page.get_by_test_id("job-list").get_by_text("Shed", exact=True).click()
    expect(page.get_by_test_id("job-menu")).to_contain_text("Shed")
    stops(page, 0)
    stage(page, 4)
    page.locator("[data-run=c2]").click()
    settled(page)
    page.get_by_test_id("walk-next").click()
    form = page.get_by_test_id("way-form")
    form.get_by_label("Name", exact=True).fill(" ")
    form.get_by_role("button", name="Add way").click()
    expect(form).to_contain_text("at least 1 character")
    form.get_by_label("Name", exact=True).fill("Door light")
    expect(form.get_by_label("Panel A to S-1")).to_be_checked()
    form.get_by_role("button", name="Add way").click()
    expect(page.get_by_test_id("panel").locator("h2")).to_have_text("Door light")
    page.get_by_label("walk", exact=True).fill("up 2' stud wall in 14-2")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Put a box here").click()
    expect(page.locator("[data-cell='0-end']")).to_have_text("J-1")
    page.get_by_test_id("job-menu").click()
    with page.expect_download() as download:
        page.get_by_text("Save as a file").click()
    saved = json.loads(Path(download.value.path()).read_text())
    assert saved["format"] == "levelrun-job" and len(saved["ways"]) == 2
    broken = tmp_path / "broken.json"
    broken.write_text(json.dumps({**saved, "format_version": 99}))
    page.get_by_test_id("job-file").set_input_files(broken)
    expect(page.get_by_test_id("notice")).to_contain_text("newer Level Run")


def test_on_a_phone_the_verdict_stands_under_the_strip(open_page: Open) -> None:
    page = open_page(390, 844)
    look(page, "ch14")
    settled(page)
    strip = page.get_by_test_id("strip").bounding_box()
    card = page.locator("[data-code=cover-short]").bounding_box()
    assert strip and card and card["y"] > strip["y"] and card["y"] < 844
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("button", name="Dig to 18″").click()
    stops(page, PLANTED - 1)


def test_keys_walk_the_findings_and_mend(open_page: Open) -> None:
    page = open_page()
    page.keyboard.press("?")
    expect(page.get_by_test_id("keys")).to_contain_text("next stop or check")
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("keys")).to_have_count(0)
    for _ in range(6):
        page.keyboard.press("n")
        settled(page)
    expect(page.locator("article.stop").first).to_be_visible()
    page.keyboard.press("m")
    expect(page.locator("[data-first]").first).to_be_focused()
    page.keyboard.press("m")
    stops(page, PLANTED - 1)


def test_a_way_copied_as_text_pastes_into_another(open_page: Open) -> None:
    page = open_page()
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    look(page, "ch6")
    page.get_by_role("button", name="Copy as text").click()
    look(page, "ch5")
    page.get_by_label("walk", exact=True).focus()
    page.keyboard.press("Control+v")
    page.keyboard.press("Enter")
    expect(page.locator("[data-testid=legs] tbody tr")).to_have_count(7)
    expect(page.locator("[data-cell='6-end']")).to_have_text("K-1")
