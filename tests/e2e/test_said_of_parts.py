"""What is said of a part by hand and by sentence: laid out or not, edges of a panel, fields by their words."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.e2e.hands import LINE, say, settled, stage

Open = Callable[..., Page]


def card(page: Page, code: str) -> str:
    return f"article[data-code={code}]"


def test_what_is_missing_is_asked_until_the_room_is_laid_out(open_page: Open) -> None:
    page = open_page(empty=True)
    stage(page, 1)
    say(page, "structure house House")
    say(page, "room Den 14' x 12'")
    stage(page, 2)
    missing = page.locator(card(page, "wall-no-receptacle"))
    expect(missing).to_contain_text("Not laid out yet?")
    expect(missing).to_contain_text("check")
    page.get_by_test_id("laid-out").get_by_role("checkbox").check()
    settled(page)
    expect(missing).to_contain_text("stop")
    expect(missing).not_to_contain_text("Not laid out yet?")
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    settled(page)
    expect(missing).to_contain_text("Not laid out yet?")


def test_a_field_is_changed_by_its_word_and_a_wrong_word_is_pointed_at(open_page: Open) -> None:
    page = open_page()
    stage(page, 3)
    say(page, "change Panel H: ground holes 4")
    expect(page.locator(card(page, "ground-holes"))).to_be_attached()
    page.keyboard.type("change Panel H: grund holes 4")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("entry-error").locator("mark")).to_have_text("grund holes 4")
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    settled(page)
    expect(page.locator(card(page, "ground-holes"))).to_have_count(0)


def test_a_name_that_is_a_mistyped_word_is_told(open_page: Open) -> None:
    page = open_page()
    stage(page, 3)
    page.keyboard.press("/")
    page.keyboard.type("circuit 19 20a gfi Kitchen")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("entry-error").locator("mark")).to_have_text("gfi Kitchen")


def test_a_way_is_said_to_come_in_by_another_edge(open_page: Open) -> None:
    page = open_page()
    page.goto("/".join(page.url.split("/")[:5]) + "/runs?way=s7")
    settled(page)
    page.get_by_test_id("setup").click()
    form = page.get_by_test_id("way-form")
    form.locator(".v-select", has_text="Comes in by its").click()
    page.get_by_role("option", name="bottom").click()
    form.get_by_role("button", name="Set").click()
    expect(form).to_have_count(0)
    settled(page)
    page.reload()
    settled(page)
    page.get_by_test_id("setup").click()
    expect(page.get_by_test_id("way-form")).to_contain_text("bottom")


def test_after_the_panel_the_line_is_ready_for_the_next_sentence(open_page: Open) -> None:
    """Typed on without a look at the page: no letter is taken for a shortcut."""
    page = open_page(empty=True)
    expect(page).to_have_url(re.compile("/start$"))
    page.keyboard.press("/")
    page.keyboard.type("H 200a 30 spaces taken 1-14")
    page.keyboard.press("Enter")
    page.keyboard.type("from H 17' stud wall in 10-2 to water heater")
    expect(page.locator(LINE)).to_have_value(re.compile("from H 17' stud wall in 10-2 to water heater$"))
    settled(page)
    page.keyboard.press("Enter")
    expect(page.locator("[data-started='Water heater']")).to_be_visible()


def test_what_is_not_checked_can_be_read(open_page: Open) -> None:
    page = open_page()
    page.get_by_test_id("open-rules").click()
    page.get_by_role("tab", name="Not checked").click()
    expect(page.get_by_test_id("not-judged").get_by_role("listitem").first).to_contain_text("Service equipment")
