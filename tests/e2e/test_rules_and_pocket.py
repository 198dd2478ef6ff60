"""Rule sets, local notes, look-up and the pocket, in the real interface."""

from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.conftest import PLANTED
from tests.e2e.hands import look, stops

Open = Callable[..., Page]


def test_switching_the_rule_set_shows_first_what_would_change(open_page: Open) -> None:
    page = open_page()
    look(page, "ch14")
    page.get_by_test_id("open-rules").click()
    page.locator("[data-set='ca-2021']").click()
    expect(page.get_by_test_id("changes")).to_contain_text("CEC 12-012")
    page.get_by_role("button", name="Go by CA 2021").click()
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_test_id("open-rules")).to_have_text("CA 2021")
    expect(page.get_by_test_id("stops")).not_to_have_text(f"{PLANTED} stops")
    expect(page.locator("[data-code=cover-short]")).to_contain_text("450 mm")
    expect(page.get_by_test_id("strip")).to_contain_text("5 m")
    page.get_by_test_id("undo").click()
    stops(page, PLANTED)


def test_a_local_note_is_entered_decides_and_travels(open_page: Open, tmp_path: Path) -> None:
    page = open_page()
    look(page, "ch16")
    page.get_by_test_id("open-rules").click()
    page.get_by_role("tab", name="Local notes").click()
    form = page.get_by_test_id("note-form")
    form.get_by_label("What the authority says").fill("Cover over everything")
    page.get_by_text("Cover over everything buried, whatever the table says.").click()
    form.get_by_label("Value").fill("24")
    form.get_by_role("button", name="Add note").click()
    expect(form).to_contain_text("at least 1 character")
    form.get_by_label("Who said so").fill("Inspector at the counter")
    form.get_by_role("button", name="Add note").click()
    expect(page.get_by_test_id("notes")).to_contain_text("0 → 24 in, tighter")
    with page.expect_download() as download:
        page.get_by_text("Save notes as a file").click()
    text = Path(download.value.path()).read_text()
    assert 'key = "cover_least_in"' in text
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_test_id("open-rules")).to_have_text("US 2023 + 1 note")
    card = page.locator("[data-code=cover-missing]")
    expect(card).to_contain_text("24″ over its top")
    expect(card).to_contain_text("local note decides")
    broken = tmp_path / "notes.toml"
    broken.write_text(text.replace("levelrun-notes", "other"))
    page.get_by_test_id("open-rules").click()
    page.get_by_role("tab", name="Local notes").click()
    page.get_by_test_id("notes-file").set_input_files(broken)
    expect(page.get_by_test_id("notice")).to_contain_text("not a notes file")


def test_a_number_opens_its_source_and_words_find_rules(open_page: Open) -> None:
    page = open_page()
    look(page, "ch14")
    page.locator("[data-figure='cover-5']").click()
    page.get_by_test_id("reason").get_by_role("button", name="Look up the source").click()
    entries = page.get_by_test_id("entries")
    expect(entries).to_contain_text("300.5(A)")
    search = page.get_by_test_id("rule-search").locator("input")
    for word, found in (("staple", "Staple cable within"), ("driveway", "300-5-cover: driveway"), ("xyzzy", "")):
        search.fill(word)
        expect(entries).to_contain_text(found)
    expect(entries.locator("li")).to_have_count(0)


def test_pocket_answers_by_keyboard_and_on_a_phone(open_page: Open) -> None:
    page = open_page(390, 844)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.keyboard.press("p")
    pocket = page.get_by_test_id("pocket")
    answer = page.get_by_test_id("answer")
    expect(answer).to_contain_text("Fits: 7.5 % of 40 %")
    pocket.get_by_label("How many").first.fill("17")
    expect(answer).to_contain_text("Does not fit")
    pocket.get_by_label("How many").first.fill("many")
    expect(pocket).to_contain_text("many is no number")
    for tab, text in (
        ("Cover", "18″ over the top"),
        ("Offset", "Marks at 29 5/8″, 41 5/8″"),
        ("Drop", "3.96 %"),
        ("Box fill", "15.75 in³ or more"),
        ("Conductor", "10 on a 25 A breaker"),
    ):
        pocket.get_by_role("tab", name=tab).click()
        expect(answer).to_contain_text(text)
    pocket.get_by_role("tab", name="Offset").click()
    pocket.get_by_label("Rise").fill("6 furlongs")
    expect(pocket).to_contain_text("left over")
    page.keyboard.press("Escape")
    expect(pocket).not_to_be_in_viewport()
