"""Takes one picture of each main view from the demo data into docs/screenshots."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tests.e2e.conftest import CHROMIUM, FLAGS, Server
from tests.e2e.hands import settled

OUT = Path(__file__).parent.parent / "docs" / "screenshots"


def to(page: Page, path: str) -> None:
    """Open an address of the job: a stage with its look, or a sheet."""
    page.goto("/".join(page.url.split("/")[:5]) + "/" + path)
    settled(page)


def runs(page: Page) -> None:
    """A trench too shallow."""
    to(page, "runs?way=h14")


def cables(page: Page) -> None:
    """Cables that found their way, one of them picked."""
    to(page, "runs?way=w-c3-b18")


def proof(page: Page) -> None:
    """A loose neutral, read."""
    to(page, "test?circuit=ch14")
    page.get_by_test_id("where").scroll_into_view_if_needed()


def rough_in(page: Page) -> None:
    """A kitchen wall with one box open."""
    to(page, "rough_in?wall=m2.0")


def pipe(page: Page) -> None:
    """A feeder bent too far and fed at its brutal end."""
    to(page, "pipe?way=h1")


def trench(page: Page) -> None:
    """A trench dug too shallow, along its length."""
    to(page, "trench?line=t1")


def sticks(page: Page) -> None:
    """A wall of thin wall pipe, its last bend picked."""
    to(page, "pipe?way=s4&pull=1")
    page.locator("[data-testid=sticks] .hit.bend").last.click()
    page.wait_for_timeout(400)


def basement(page: Page) -> None:
    """The dark theme, on an overhead feeder."""
    page.get_by_label("Light or dark").click()
    to(page, "runs?way=s7")


def rules(page: Page) -> None:
    """What another rule set would change."""
    page.get_by_test_id("open-rules").click()
    page.wait_for_timeout(400)
    page.locator("[data-set='ca-2021']").click()
    page.wait_for_timeout(500)


def walls(page: Page) -> None:
    """The kitchen with one of its walls picked."""
    to(page, "walls")
    page.locator("[data-room-row='Kitchen']").click()
    page.wait_for_timeout(500)
    page.locator(".hit.wall[data-mark='north']").click(position={"x": 40, "y": 5})
    page.wait_for_timeout(300)


def site(page: Page) -> None:
    """All structures on the site."""
    to(page, "walls")
    page.get_by_test_id("site-tab").click()
    page.wait_for_timeout(400)


def boxes(page: Page) -> None:
    """A box set for another finish than its wall gets, in the common room unrolled."""
    to(page, "boxes")
    page.locator("[data-room-row='Common room']").click()
    page.wait_for_timeout(400)
    page.locator(".hit.box[data-mark='R-2']").click()
    page.wait_for_timeout(400)


def boxes_phone(page: Page) -> None:
    """Boxes of a room, to be ticked on the frame."""
    to(page, "boxes")
    page.locator("[data-room-row='Common room']").click()
    page.wait_for_timeout(400)


def circuits(page: Page) -> None:
    """A circuit without its arc-fault protection."""
    to(page, "circuits")
    page.locator("[data-circuit='Common room']").click()
    page.wait_for_timeout(500)


def buy(page: Page) -> None:
    """One coil for a job that takes more; coils with their cuts; the same job otherwise."""
    to(page, "buy")
    page.get_by_test_id("plan-ways").click()
    page.locator("[data-testid=ways][data-seen]").wait_for(timeout=120_000)
    settled(page)
    page.get_by_test_id("panel").evaluate("element => (element.scrollTop = 0)")


def buying_list(page: Page) -> None:
    """The list to buy by, two rows of it ticked."""
    to(page, "sheets/buying-list")
    for row in range(2):
        page.get_by_test_id("list-sheet").locator("input[type=checkbox]").nth(row).check()
        settled(page)


def start(page: Page) -> None:
    """One more circuit by a sentence."""
    to(page, "start")
    page.locator("[data-kind=vehicle]").click()
    page.get_by_test_id("answers").wait_for()
    settled(page)


VIEWS: dict[str, tuple[tuple[int, int], Callable[[Page], None]]] = {
    "start": ((1280, 800), start),
    "walls": ((1280, 800), walls),
    "site": ((1280, 800), site),
    "boxes": ((1280, 800), boxes),
    "boxes-phone": ((390, 844), boxes_phone),
    "circuits": ((1280, 800), circuits),
    "runs": ((1280, 800), runs),
    "runs-cables": ((1280, 800), cables),
    "pipe": ((1280, 800), pipe),
    "pipe-sticks": ((1280, 800), sticks),
    "trench": ((1280, 800), trench),
    "trench-phone": ((390, 844), trench),
    "runs-dark": ((1280, 800), basement),
    "rules": ((1280, 800), rules),
    "buy": ((1280, 800), buy),
    "buying-list-phone": ((390, 844), buying_list),
    "rough-in": ((1280, 800), rough_in),
    "test": ((1280, 800), proof),
    "rough-in-phone": ((390, 844), rough_in),
}


def main() -> None:
    """Take them all."""
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, sync_playwright() as playwright:
        server = Server(Path(data))
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        for name, ((width, height), act) in VIEWS.items():
            page = browser.new_context(viewport={"width": width, "height": height}).new_page()
            page.goto(server.url)
            settled(page)
            act(page)
            page.wait_for_timeout(400)
            page.screenshot(path=OUT / f"{name}.png")
        browser.close()
        server.kill()


if __name__ == "__main__":
    main()
