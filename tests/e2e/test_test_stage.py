"""Test, as its user walks through it: a circuit proved in order by keyboard, a loose neutral found by readings,
lessons by thumb, the log printed."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.conftest import PLANTED
from tests.e2e.hands import say, settled, stage, stops

Open = Callable[..., Page]


def proof(page: Page, key: str) -> object:
    return page.locator(f"[data-proof='{key}']")


def test_a_circuit_is_proved_in_order_by_keyboard(open_page: Open) -> None:
    """The kitchen's circuit: R goes to the next field, Y says done; each reading lands in its window."""
    page = open_page(path="/jobs/{job}/test?circuit=c3")
    keys = 0
    page.keyboard.press("y")
    settled(page)
    expect(page.locator("[data-proof=tester]")).to_have_class(re.compile("done"))
    for key, text in (("dead", "0.1"),):
        page.keyboard.press("r")
        page.keyboard.type(text)
        page.keyboard.press("Enter")
        settled(page)
        expect(page.locator(f"[data-proof={key}]")).to_have_class(re.compile("done"))
        keys += len(text) + 2
    page.keyboard.press("Escape")
    page.keyboard.press("y")
    settled(page)
    expect(page.locator("[data-proof=again]")).to_have_class(re.compile("done"))
    page.locator("#work").focus()
    page.keyboard.press("r")
    page.keyboard.type("0.2")
    page.keyboard.press("Enter")
    settled(page)
    expect(page.locator("[data-proof=ground]")).to_have_class(re.compile("done"))
    for step in ("line_neutral", "line_ground", "loaded", "neutral_ground"):
        page.locator(f"[data-proof={step}] .sim").click()
        settled(page)
        expect(page.locator(f"[data-proof={step}]")).to_have_class(re.compile("done"))
    expect(page.get_by_test_id("proof-verdict")).to_contain_text("nothing outside of its window")
    assert keys < 40


def test_a_loose_neutral_is_found_by_readings(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/test?circuit=ch14")
    expect(page.get_by_test_id("off")).to_contain_text("Likeliest: Loose neutral at")
    where = page.get_by_test_id("where")
    expect(where.locator("li").first).to_contain_text("Loose neutral at")
    expect(page.get_by_test_id("next-reading")).to_contain_text("Read next: line to neutral at")
    stops(page, PLANTED)
    say(page, "measure Cold-store shed neutral ground 2.4 low on 2026-06-11 by me")
    stops(page, PLANTED - 1)
    expect(where).to_have_count(0)
    expect(page.get_by_test_id("proof-verdict")).to_be_visible()
    page.get_by_test_id("undo").click()
    settled(page)
    expect(where).to_be_visible()


def test_a_reading_that_is_none_is_told_at_its_field(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/test?circuit=c3")
    for text, told in (("much", "allowed: 0 to 1,000 V"), ("1e9", "allowed: 0 to 1,000 V"), ("-3", "allowed: 0 to")):
        field = page.locator("[data-field=line_neutral]")
        field.fill(text)
        field.press("Enter")
        expect(page.locator("[data-proof=line_neutral]").get_by_role("alert")).to_contain_text(told)
    expect(page.locator("[data-proof=insulation]")).to_contain_text("tick first that all electronics are off it")


def test_the_meter_has_two_leads_and_says_that_it_is_simulated(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/test?circuit=ch14")
    meter = page.get_by_test_id("meter")
    meter.get_by_role("button", name="C-1 line", exact=True).click()
    meter.get_by_role("button", name="C-1 neutral", exact=True).click()
    expect(meter.get_by_role("status")).to_contain_text(re.compile(r"simulated\s*12\d"))
    meter.get_by_label("Breaker and load").select_option("off")
    expect(meter.get_by_role("status")).to_contain_text(re.compile(r"0\.\d"))
    meter.get_by_label("high impedance").check()
    expect(meter.get_by_role("status")).to_contain_text(re.compile(r"[3-8]\d(\.\d)?\s*C-1 line"))


def test_three_lessons_by_thumb_and_a_hidden_fault(open_page: Open) -> None:
    page = open_page(390, 844, "/jobs/{job}/test?circuit=ch14", has_touch=True)
    page.get_by_test_id("open-lessons").scroll_into_view_if_needed()
    page.get_by_test_id("open-lessons").tap()
    for lesson in ("jacket", "carry", "order"):
        page.locator(f"[data-lesson={lesson}]").tap()
        counted = page.get_by_test_id("lessons").get_by_text(re.compile(r"^1 of \d$"))
        for _ in range(int(counted.inner_text()[-1])):
            page.locator("[data-choice]").first.tap()
            expect(page.get_by_test_id("why-answer")).to_be_visible()
            page.get_by_test_id("next-question").tap()
        expect(page.get_by_test_id("lesson-score")).to_contain_text(re.compile(r"\d of [56] right"))
        page.get_by_role("button", name="All lessons").tap()
    page.get_by_test_id("lessons").get_by_role("button", name="Done").tap()
    page.get_by_test_id("hide-one").tap()
    learn = page.get_by_test_id("learn")
    expect(learn).to_contain_text("Find the hidden fault: 14 Cold-store shed")
    learn.locator("ul").first.locator("button").first.tap()
    expect(page.get_by_test_id("used")).to_have_text("1")
    learn.get_by_text("Put in a larger breaker").tap()
    expect(page.get_by_test_id("learn-end")).to_contain_text("nothing guards it. It was:")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_the_log_is_printed_with_what_was_not_tested(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/sheets/readings")
    sheet = page.get_by_test_id("log-sheet")
    expect(sheet).to_contain_text("9.1 V: 5.2 V over 3.9")
    expect(sheet).to_contain_text("Not tested: ")
    expect(sheet).to_contain_text("Nothing was read of:")
    assert len(page.pdf()) > 10_000


def test_from_blank_to_a_proved_circuit_by_keyboard(open_page: Open) -> None:
    """A den with one receptacle 4 ft from the corner: every window is that of its few feet of No. 12. By hand: 15 A
    at most of 0.03 ohm a way, so that the loaded outlet reads 117 to 121 V and the neutral under 1 V."""
    page = open_page(empty=True)
    keys = stage(page, 1)
    keys += say(page, "room Den 12' x 10'")
    keys += stage(page, 2)
    for text in ("panel in Den west 5' spaces 8 main 100a as P", "set receptacle in Den north 4' as R-1"):
        keys += say(page, text)
    keys += stage(page, 3)
    keys += say(page, "circuit in P 1 20a afci Outlets: R-1")
    keys += stage(page, 9)
    for text in ("P tester done", "P leg a 120.4", "P leg b 120.2", "P legs 240.6"):
        keys += say(page, f"measure {text}")
    for text in (
        "tester done",
        "dead 0.1 low",
        "again done",
        "ground 0.2",
        "line neutral 120.3",
        "neutral ground 0.4",
    ):
        keys += say(page, f"measure Outlets {text}")
    page.locator("[data-test]", has_text="Outlets").click()
    settled(page)
    expect(page.locator("li.off")).to_have_count(0)
    keys += say(page, "measure Outlets neutral ground 3.2")
    expect(page.get_by_test_id("off")).to_contain_text("Likeliest: Loose neutral at R-1")
    expect(page.locator("li.off")).to_have_count(1)
    assert keys < 620, keys
    print(f"keys for one circuit from blank to its proof: {keys}")
