"""Trench, as its user walks through it: a shallow trench mended, steps and holds, spans, rods, from nothing by
keyboard, by thumb."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.hands import LINE, new_job, say, settled, stage, stops

Open = Callable[..., Page]
LEAST_KEYS = 220


def line(page: Page, key: str) -> None:
    """Looks at a trench, span or building in the stage Trench."""
    if "/trench" not in page.url:
        stage(page, 6)
    page.locator(f"[data-line='{key}']").click()
    expect(page.locator(f"[data-line='{key}']")).to_have_attribute("aria-current", "true")
    settled(page)


def card(page: Page, code: str):  # type: ignore[no-untyped-def]
    return page.locator(f"article[data-code={code}]")


def test_the_shallow_trench_is_mended_three_ways(open_page: Open) -> None:
    page = open_page()
    line(page, "trench.t1")
    expect(card(page, "cover-short")).to_contain_text("2″ short over 32′ 4″")
    expect(page.get_by_test_id("section")).to_have_attribute("aria-label", "Long section, 43′: 17″, 16″, 19″")
    for label in ("Dig to 18″", "GFCI at the breaker", "2″ of concrete over it"):
        card(page, "cover-short").get_by_role("button", name=label).click()
        settled(page)
        expect(card(page, "cover-short")).to_have_count(0)
        page.get_by_test_id("undo").click()
        settled(page)
        expect(card(page, "cover-short")).to_have_count(1)


def test_steps_are_ticked_and_what_holds_is_lifted_by_name(open_page: Open) -> None:
    page = open_page()
    line(page, "trench.t1")
    steps = page.get_by_test_id("steps")
    page.locator("#work").focus()
    page.keyboard.press("x")  # the next step: the photo
    settled(page)
    expect(steps.locator("[data-step=photo]")).to_have_class(re.compile("done"))
    steps.locator("[data-step=fill] button.tick").click()  # held: a reason is asked, nothing is ticked
    reason = steps.get_by_label("Out of turn, because")
    expect(reason).to_be_visible()
    expect(steps.locator("[data-step=fill]")).not_to_have_class(re.compile("done"))
    reason.press("Escape")
    page.locator("#work").focus()
    page.keyboard.press("x")
    steps.get_by_label("Seen by").fill("R. Meadow")
    steps.get_by_label("Seen by").press("Enter")
    settled(page)
    expect(steps.locator("[data-step=inspection]")).to_contain_text("seen by R. Meadow")
    steps.locator("[data-step=fill] button.tick").click()
    settled(page)
    expect(steps.locator("[data-step=fill]")).to_have_class(re.compile("done"))
    expect(page.locator("[data-line='hold.t1']")).to_have_count(0)


def test_the_desk_is_called_and_says_that_it_is_simulated(open_page: Open) -> None:
    page = open_page()
    line(page, "trench.t2")
    expect(card(page, "trench-marks")).to_have_count(1)
    page.get_by_role("button", name="Call the desk (simulated)").click()
    settled(page)
    expect(page.get_by_text("Simulated desk: ticket SIM-")).to_be_visible()
    expect(card(page, "trench-marks")).to_have_count(0)
    expect(page.get_by_test_id("steps").locator("[data-step=marks]")).to_contain_text("ticket SIM-")


def test_a_rod_more_is_a_tap_and_a_span_says_what_it_bears(open_page: Open) -> None:
    page = open_page()
    line(page, "ground.cabin")
    card(page, "electrode-second").get_by_role("button", name="A second rod, 8′ away").click()
    settled(page)
    expect(card(page, "electrode-second")).to_have_count(0)
    expect(page.locator("[data-electrode]")).to_have_count(2)
    line(page, "span.n1")
    expect(page.locator("[data-figure=pull]")).to_contain_text("of 1116 lb")
    page.get_by_test_id("start_end").get_by_label("Held over the ground").fill("13'")
    page.get_by_test_id("start_end").get_by_label("Held over the ground").press("Enter")
    page.get_by_test_id("end_end").get_by_label("Held over the ground").fill("12'")
    page.get_by_test_id("end_end").get_by_label("Held over the ground").press("Enter")
    settled(page)
    expect(card(page, "span-clears").first).to_contain_text("over Drive")
    card(page, "span-clears").first.get_by_role("button").last.click()
    settled(page)
    expect(card(page, "span-clears")).to_have_count(0)


def test_a_corner_is_dragged_and_the_feed_grows_with_it(open_page: Open) -> None:
    page = open_page()
    line(page, "trench.t2")
    corner = page.get_by_test_id("yard").locator("[data-key='corner.t2.1']")
    box = corner.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 12)
    page.mouse.move(x, y - 26)
    page.mouse.up()
    settled(page)
    row = page.locator("[data-line='trench.t2']")
    expect(row).not_to_contain_text("54′")
    corner.focus()
    was = row.inner_text()
    page.keyboard.press("Shift+ArrowUp")
    settled(page)
    expect(row).not_to_have_text(was)


def test_house_and_shop_from_nothing_by_keyboard(open_page: Open) -> None:
    """Panels, trench, feeder, and its pipe laid: 60 ft of open ground, PVC 18 in deep, risers of 84 and 72, two rods.
    Each number is worked by hand in the tests of the core."""
    page = open_page(empty=True)
    keys = stage(page, 6)
    for text in (
        "panel H in house 200a",
        "panel S in shop 60a",
        "trench house east to shop west 60'",
        "feed S from H 1 60a wire 6",
        "lay S feeder in House to Shop",
        "rods 2 at Shop",
        "done marks",
    ):
        keys += say(page, text.removeprefix("trench "))
    print(f"house and shop, trench, feeder, sub-panel, rods: {keys} keys")
    assert keys <= LEAST_KEYS
    expect(page.get_by_test_id("stops")).to_have_text("0 stops")
    expect(page.get_by_test_id("lain")).to_contain_text("PVC 40 1″ 1/3 S feeder")
    expect(page.get_by_test_id("lain")).to_contain_text("18″ over it, needs 18″")
    expect(page.get_by_test_id("risers")).to_contain_text("House, PVC 80 1″ 7′ upright")
    expect(page.get_by_test_id("risers")).to_contain_text("Shop, PVC 80 1″ 6′ upright")
    line_ = page.locator(LINE)
    page.keyboard.type("read 17\" at 70'")  # past its end: told at the word, nothing is lost
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="60' long")).to_be_visible()
    expect(line_).to_have_value("read 17\" at 70'")
    line_.fill("read 17\" at 12'")
    line_.press("Enter")
    settled(page)
    expect(card(page, "cover-short")).to_contain_text("1″ short over 60′")


def test_a_cabin_is_fed_over_the_air_from_nothing(open_page: Open) -> None:
    """16 and 14 ft up, 50 ft apart, 2 ft of sag: 12 ft 9 over the ground on a hot day. Up 126 to the head: 16 ft less
    the 18 of the floor over grade and the 48 of the panel."""
    page = open_page(empty=True)
    keys = stage(page, 6)
    for text in (
        "panel H in house 200a", "panel C in cabin 60a", "feed C from H 1 60a wire 6",
        "span house west to cabin east 16' high and 14' high sag 2'", "lay C feeder on House to Cabin",
    ):  # fmt: skip
        keys += say(page, text)
    print(f"cabin over the air: {keys} keys")
    assert keys <= LEAST_KEYS
    line(page, "span.n1")
    expect(page.locator("[data-figure='clear ground']")).to_contain_text("12′ 9″, needs 10′")
    expect(page.get_by_test_id("span")).to_have_attribute("aria-label", "Span of 50′: 12′ 9″ over the ground")
    card(page, "span-about").get_by_role("button", name="Nothing within 3′").click()
    card(page, "span-splices").get_by_role("button", name="Listed, and in reach").click()
    settled(page)
    expect(page.get_by_test_id("stops")).to_have_text("0 stops")


def test_a_feed_of_300_ft_is_stepped_up_and_spliced_down(open_page: Open) -> None:
    """60 A on No. 6 over 300 ft and the risers: 2 · 60 · 0.31 · 0.49 / 240 = 7.7 %; 3 % of 240 V wants No. 1."""
    page = open_page(empty=True)
    stage(page, 6)
    for text in (
        "panel H in house 200a", "panel S in shop 60a", "house east to shop west 300'", "feed S from H 1 60a wire 6",
        "lay S feeder in House to Shop in pvc40 2",
    ):  # fmt: skip
        say(page, text)
    table = page.get_by_test_id("connections")
    expect(table).to_contain_text("drop 7.7 % at the breaker")
    stepped = table.get_by_role("button", name=re.compile("spliced down to 6 at both ends"))
    expect(stepped).to_have_text("Trench, wire of 1, spliced down to 6 at both ends")
    stepped.click()
    settled(page)
    expect(page.get_by_test_id("connections")).to_contain_text("drop 2.4 % at the breaker")


def test_the_yard_goes_out_as_a_drawing_and_comes_in(open_page: Open, tmp_path: Path) -> None:
    page = open_page()
    line(page, "trench.t1")
    with page.expect_download() as download:
        page.get_by_text("Yard as DXF").click()
    path = tmp_path / "yard.dxf"
    download.value.save_as(path)
    new_job(page)
    stage(page, 6)
    say(page, "house east to shop west 60'")
    page.get_by_label("Yard from DXF").set_input_files(path)
    settled(page)
    yard = page.get_by_test_id("yard")
    expect(yard.locator("[data-mark='Gas, gas']")).to_have_count(1)
    expect(page.get_by_test_id("undo")).to_have_attribute("title", re.compile("bring in 5 things of the yard"))
    (tmp_path / "none.dxf").write_text("no drawing")
    page.get_by_label("Yard from DXF").set_input_files(tmp_path / "none.dxf")
    expect(page.get_by_test_id("notice")).to_contain_text("not a DXF drawing")
    building = yard.locator("[data-key='building.s2']")
    building.focus()
    page.keyboard.press("Shift+ArrowRight")  # a building moved a foot: its trench no longer reaches its wall
    settled(page)
    expect(page.get_by_test_id("undo")).to_have_attribute("title", re.compile("move Shop"))


def test_by_thumb_steps_are_ticked_and_a_reading_is_typed(open_page: Open) -> None:
    page = open_page(390, 844, path="/jobs/{job}/trench?line=t1", has_touch=True)
    steps = page.get_by_test_id("steps")
    steps.locator("[data-step=photo] button.tick").tap()
    settled(page)
    expect(steps.locator("[data-step=photo]")).to_have_class(re.compile("done"))
    entry = page.locator(LINE)
    entry.fill("read 18\" at 12'; read 18\" at 25'")
    page.get_by_role("button", name=re.compile("put it there")).tap()
    settled(page)
    expect(card(page, "cover-short")).to_have_count(0)
    expect(page.get_by_test_id("section")).to_have_attribute("aria-label", re.compile("18″, 18″, 19″"))
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_the_sheets_of_trenches_and_rods(open_page: Open) -> None:
    page = open_page()
    base = page.url.rsplit("/", 1)[0]
    page.goto(f"{base}/sheets/trenches")
    sheet = page.get_by_test_id("trench-sheet")
    expect(sheet.locator("[data-trench]")).to_have_count(3)
    expect(sheet).to_contain_text("Stop: 2″ short over 32′ 4″")
    expect(sheet.locator("[data-span]")).to_have_count(1)
    page.goto(f"{base}/sheets/electrodes")
    expect(page.get_by_test_id("rod-sheet")).to_contain_text("footing electrode")


def test_what_a_first_line_walked_is_put_on_the_yard_with_one_tap(open_page: Open) -> None:
    page = open_page(empty=True)
    say(page, "H 200a 30 spaces taken 1-14")
    say(page, "cabin 90a down 5' outside wall in pvc80, 150' trench 24\" in urd, up 5' outside wall in pvc80")
    stage(page, 6)
    page.get_by_role("button", name="+ Put Cabin feeder there, 150′").click()
    settled(page)
    expect(page.locator("[data-walked]")).to_have_count(0)
    expect(page.get_by_test_id("lain")).to_contain_text("2-3 Direct-buried feeder")
    stops(page, 0)
    page.keyboard.press("Control+z")
    expect(page.locator("[data-walked]")).to_have_count(1)
