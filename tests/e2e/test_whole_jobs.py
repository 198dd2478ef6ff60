"""Whole jobs from blank through the screen, each number worked out by hand beside its check; keys are counted."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.e2e.hands import LINE, say, settled, stage

Open = Callable[..., Page]


def told(page: Page, text: str | re.Pattern[str]) -> None:
    expect(page.get_by_test_id("panel")).to_contain_text(text)


def gauge(page: Page, label: str, text: str) -> None:
    """A gauge of the panel shows this."""
    shown = page.get_by_test_id("panel").locator(".gauge", has_text=label).first
    expect(shown).to_contain_text(text)


def test_one_circuit_in_an_old_house(open_page: Open) -> None:
    """A bath receptacle from a panel in the hall, by keyboard.

    The cable goes up and over: from the panel's top, 48 + 30 in up, to the holes in the joists, 2 3/8 over the
    ceiling of 96: 20 3/8. South from 144 to the middle of the bath's north wall at 109 3/4: 34 1/4. East from the
    middle of the hall's west wall at -53 1/4 to 66: 119 1/4. Down to the receptacle, 42 1/8 up at the vanity: 56 1/4.
    As it lies 230 1/8 in, 19 ft 2 in. To cut: 42 at the panel, 8 at the box, a 6 in loop, 5 % waste: 298, so 25 ft.
    Drop at 20 A, the make-up counted: 2 x 20 x 1.98 ohm x 23.34 / 1000 = 1.85 V of 120, 1.5 %.
    """
    page = open_page(empty=True)
    keys = stage(page, 1)
    for text in (
        "structure house Old house",
        "room Bath 8' x 9'",
        "door west 2'6 at 2'",
        "mark basin north 2' at 3'",
        "room Hall 4' x 20' west of Bath",
    ):
        keys += say(page, text)
    keys += stage(page, 2)
    for text in ("set receptacle in Bath north 5'6 as R-1", "panel in Hall west 12' spaces 20 main 100a as P"):
        keys += say(page, text)
    keys += stage(page, 3)
    keys += say(page, "1 20a plain Bath outlet: R-1")
    expect(page.locator("article[data-code=gfci-missing]")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("m")
    expect(page.locator("[data-first]").first).to_be_focused()
    page.keyboard.press("m")
    expect(page.locator("article[data-code=gfci-missing]")).to_have_count(0)
    told(page, "20 A, 1-pole, gfci")
    told(page, "12 copper, ground 12")
    told(page, "19′ 2″")
    told(page, "25 ft of 12-2 NM-B")
    told(page, "1.5 % of 3 %")
    assert keys < 260, keys
    print(f"keys for one circuit in an old house: {keys}")


def test_an_outbuilding(open_page: Open) -> None:
    """A shed fed in pipe under the yard, by keyboard.

    Feeder 60 A on 6 copper, 75 °C in pipe; ground 10 (250.122). Pipe of 1 in: three 6 THWN-2 of 0.0507 and a 10 of
    0.0211 in2 are 0.1732; the tightest is schedule 80 with 0.688 in2 inside: 25 %. Two corners: 180°.
    To cut, each of four: 720 in of path, 42 at either panel, a 6 in loop, 5 % waste of the path: 846 in, 71 ft.
    Drop at 24 A, 240 V, 84 in of make-up counted: 2 x 24 x 0.491 x 67 / 1000 = 1.58 V, 0.7 %.
    """
    page = open_page(empty=True)
    keys = stage(page, 1)
    for text in (
        "structure house House",
        "room Utility 10' x 8'",
        "structure shed Shed at 60' east 0' north",
        "room Shed 12' x 10'",
    ):
        keys += say(page, text)
    keys += stage(page, 2)
    for text in (
        "panel in Utility east 3' spaces 30 main 150a as H",
        "panel in Shed west 5' spaces 8 sub as S",
        "set receptacle in Shed north 5'6 as W-1",
    ):
        keys += say(page, text)
    keys += stage(page, 3)
    page.locator("[data-panel-row='H']").click()
    keys += say(page, "feed S from 1 60a load 24")
    told(page, "6 copper, ground 10")
    keys += stage(page, 4)
    page.keyboard.press("r")
    form = page.get_by_test_id("way-form")
    expect(form.get_by_label("H to S")).to_be_checked()
    page.keyboard.press("Enter")
    keys += 2
    expect(form).to_have_count(0)
    settled(page)
    for text in (
        "down 4' outside guarded in pvc80 1",
        "over 50' trench 18\" deep in pvc40 1",
        "up 6' outside guarded in pvc80 1 to S",
    ):
        keys += say(page, text)
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    told(page, "25 % of 40 %")
    told(page, "180° of 360°")
    told(page, re.compile("6 THWN-2: black, red, white"))
    told(page, "71′")
    expect(page.locator("article[data-code=cover-short]")).to_have_count(0)
    print(f"keys for a shed and its feeder: {keys}")


def test_a_small_building_by_thumb(open_page: Open) -> None:
    """A two-room cabin on a phone: words by tap where a key stands for them, numbers by the phone's keyboard."""
    page = open_page(390, 844, has_touch=True, empty=True)
    page.get_by_role("link", name="Walls", exact=True).tap()
    settled(page)
    line = page.locator(LINE)
    taps = 0

    def thumb(text: str) -> None:
        nonlocal taps
        line.fill(text)
        page.locator("form button[type=submit]").tap()
        taps += 2
        expect(line).to_have_value("")
        settled(page)

    for text in (
        "structure cabin Cabin",
        "room Main 14' x 12'",
        "door south 3' at 2'",
        "room Bunk 9' x 12' east of Main",
        "door west 2'6 at 4'",
    ):
        thumb(text)
    page.get_by_role("link", name="Boxes", exact=True).tap()
    settled(page)
    thumb("panel in Main west 5' spaces 12 main 60a as C")
    thumb("fill every room")
    page.get_by_role("link", name="Circuits", exact=True).tap()
    settled(page)
    page.get_by_test_id("propose").tap()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name=re.compile(r"^Take \d")).tap()
    settled(page)
    expect(page.get_by_test_id("propose")).to_have_count(0)
    assert taps < 30, taps
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390, wide


def test_a_workshop_from_the_first_tap_to_what_is_bought_by_thumb(open_page: Open) -> None:
    """One room by thumb, a panel that stands in no room: each stage opens from the one before it.

    The light's cable: up from the switch at 46 1/8 to the holes in the joists, 2 3/8 over the ceiling of 96: 52 1/4.
    From the middle of the south wall, 1 3/4 out, to the middle of the room: 73 3/4. The switch is 110 1/8 from the
    left corner as one faces south, so 81 7/8 from the west wall, the light 96: 14 1/8. Down 2 3/8. Together
    142 1/2, 11 ft 10 1/2. To cut: 8 at each box and a loop of 6, 5 % waste: 173, so 15 ft. The other cables go
    round the walls: two of 167 1/4, one of 155, one of 163 1/2; with the light's 795 1/2, 66 ft.
    """
    page = open_page(390, 844, has_touch=True, empty=True)
    line = page.locator(LINE)

    def to(name: str) -> None:
        page.get_by_role("link", name=name, exact=True).tap()
        settled(page)

    def build(text: str) -> None:
        line.press_sequentially(text)
        page.locator("form button[type=submit]").tap()
        expect(line).to_have_value("")
        settled(page)

    to("Walls")
    page.get_by_role("button", name="Type the first room").tap()
    build("Den 16' x 12'")  # the example is typed over
    expect(page.get_by_text("1 room, 192 ft² inside the studs")).to_be_visible()
    page.locator(".thumbs").get_by_role("button", name="door", exact=True).tap()
    page.get_by_role("option", name="south", exact=True).tap()
    build("3' at 5'")
    to("Boxes")
    page.get_by_test_id("fill").tap()
    settled(page)
    told(page, "No light outside the south door")
    expect(page.get_by_text("Nothing is missing here.")).to_have_count(0)
    to("Circuits")
    page.get_by_role("button", name="Say the panel").tap()
    page.get_by_role("button", name="This is the panel").tap()
    settled(page)
    to("Circuits")
    page.get_by_test_id("propose").tap()
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text(
        "2 of 2 circuits, 66′ of cable as it lies, and 2 cables of a length that is not known"
    )
    expect(dialog.get_by_text("12′ + ?")).to_be_visible()
    dialog.get_by_role("button", name="Take 2").tap()
    settled(page)
    to("Runs")
    page.get_by_label("Circuits and their ways").locator("button", has_text="L-1").tap()
    told(page, "11′ 10″")
    told(page, re.compile("To cut.*14-2 NM-B.*15′", re.DOTALL))
    to("Buy")
    for item, feet in (("12-2 NM-B", "67′"), ("14-2 NM-B", "15′")):
        expect(page.locator("button", has_text=item).first).to_contain_text(feet)
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390, wide
