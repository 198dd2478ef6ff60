"""What a user's hands do on the page: look, go to a stage, type a sentence."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

LINE = "form input.num"
STAGES = ("walls", "boxes", "circuits", "runs", "pipe", "trench", "buy", "rough_in", "test")


def settled(page: Page) -> None:
    """Waits until nothing is on its way: no request, no queued change."""
    page.locator("html:not([data-busy])").wait_for(state="attached")


GO = """async path => {
  history.pushState({}, '', path)
  dispatchEvent(new PopStateEvent('popstate', { state: {} }))
  for (let frame = 0; frame < 2; frame++) await new Promise(requestAnimationFrame)
}"""


def go(page: Page, path: str) -> None:
    """To another address of the page that is open, as by a link of its own."""
    page.evaluate(GO, path)
    settled(page)


def stops(page: Page, count: int) -> None:
    """The header counts so many stops."""
    word = "stop" if count == 1 else "stops"
    expect(page.get_by_test_id("stops")).to_have_text(f"{count} {word}")


def stage(page: Page, number: int) -> int:
    """Another stage by its key; the count of keys."""
    page.keyboard.press("Escape")
    settled(page)
    page.keyboard.press(str(number))
    expect(page).to_have_url(re.compile(rf"/{STAGES[number - 1]}(\?|$)"))
    settled(page)
    return 2


def say(page: Page, text: str) -> int:
    """One sentence on the entry line by keyboard; the count of keys. Its first word is typed key by key, as the line
    answers each of them; the rest comes at once."""
    line = page.locator(LINE)
    first = text.partition(" ")[0]
    keys = len(text) + 1
    if not line.evaluate("element => element === document.activeElement"):
        page.keyboard.press("/")
        keys += 1
    page.keyboard.type(first)
    page.keyboard.insert_text(text.removeprefix(first))
    page.keyboard.press("Enter")
    expect(line).to_have_value("")
    settled(page)
    return keys


def says(page: Page, *texts: str) -> int:
    """Sentences one after another; the count of keys."""
    return sum(say(page, text) for text in texts)


def look(page: Page, circuit: str) -> None:
    """Looks at a circuit with its ways in the stage Runs."""
    if "/runs" not in page.url:
        stage(page, 4)
    page.locator(f"[data-run={circuit}]").click()
    expect(page.locator(f"[data-run={circuit}]")).to_have_attribute("aria-current", "true")
    settled(page)


def new_job(page: Page) -> None:
    """An empty job from the menu."""
    page.get_by_test_id("job-menu").click()
    page.get_by_test_id("job-list").get_by_text("Empty", exact=True).click()
    expect(page.get_by_test_id("job-menu")).to_contain_text("New job")
    settled(page)
