"""Pipe, as its user walks through it: the brutal end, bends by sentence and by field, sizes, sheets, by thumb."""

from __future__ import annotations

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.e2e.hands import LINE, say, settled, stage

Open = Callable[..., Page]


def pull(page: Page, key: str) -> None:
    """Looks at a pull in the stage Pipe."""
    if "/pipe" not in page.url:
        stage(page, 5)
    page.locator(f"[data-pull='{key}']").click()
    expect(page.locator(f"[data-pull='{key}']")).to_have_attribute("aria-current", "true")
    settled(page)


def test_the_brutal_end_is_mended_to_the_kind_one_and_back(open_page: Open) -> None:
    page = open_page()
    pull(page, "h1.1")
    curve = page.get_by_test_id("curve")
    expect(curve).to_have_attribute("aria-label", re.compile(r"fed at Panel S: 144 lb"))
    page.locator("article[data-code=feed-hard]").get_by_role("button", name="Feed at Panel H").click()
    settled(page)
    expect(page.locator("article[data-code=feed-hard]")).to_have_count(0)
    expect(curve).to_have_attribute("aria-label", re.compile(r"fed at Panel H: 97 lb"))
    page.get_by_test_id("undo").click()
    settled(page)
    expect(page.locator("article[data-code=feed-hard]")).to_have_count(1)
    page.locator("#work").focus()
    page.keyboard.press("f")  # the same by its key
    settled(page)
    expect(curve).to_have_attribute("aria-label", re.compile(r"fed at Panel H"))


def test_a_bend_by_sentence_then_by_its_fields_with_a_refusal_where_it_was_typed(open_page: Open) -> None:
    page = open_page()
    pull(page, "h14.4")
    expect(page.get_by_test_id("sticks")).to_contain_text("45° at 96 1/8″")
    page.locator("#work").focus()
    say(page, 'leg 10: offset 4" at 30 after 40"')
    bends = page.get_by_test_id("bends")
    expect(bends).to_contain_text("offset out from the wall")
    expect(bends).to_contain_text("marks 7 7/8″ apart exact, 8″ by chart, shrinks 1 1/8″")
    bends.get_by_role("button", name=re.compile("^offset out")).click()
    angle = bends.get_by_label("Degrees", exact=True)
    angle.fill("2")
    angle.press("Enter")
    settled(page)
    expect(bends.get_by_role("alert").filter(has_text="runs out of a leg")).to_be_visible()
    expect(bends).to_contain_text("marks 7 7/8″ apart exact")
    angle.fill("45")
    angle.press("Enter")
    settled(page)
    expect(bends).to_contain_text("marks 5 3/8″ apart exact, 5 5/8″ by chart")
    bends.get_by_role("button", name="Take it out").click()
    settled(page)
    expect(bends).not_to_contain_text("45° exact")
    expect(bends.locator(".row")).to_have_count(2)


def test_marks_and_bends_are_picked_on_either_side(open_page: Open) -> None:
    page = open_page()
    pull(page, "s4.1")
    page.locator("[data-testid=sticks] .hit.bend").last.click()
    here = page.get_by_test_id("bends").locator(".row.here")
    expect(here).to_contain_text("90° down")
    page.locator("#work").focus()
    page.keyboard.press("[")
    expect(here).to_contain_text("90° left")
    page.keyboard.press("Escape")
    expect(here).to_have_count(0)


def test_a_size_by_its_tap_and_by_plus(open_page: Open) -> None:
    page = open_page()
    pull(page, "s4.1")
    ladder = page.get_by_test_id("ladder")
    expect(ladder.locator("tr.here")).to_contain_text("3/4″")
    ladder.get_by_role("button", name="Use 1″").click()
    settled(page)
    expect(ladder.locator("tr.here")).to_contain_text("1″")
    page.locator("#work").focus()
    page.keyboard.press("-")
    settled(page)
    expect(ladder.locator("tr.here")).to_contain_text("3/4″")
    page.keyboard.press("+")
    settled(page)
    expect(ladder.locator("tr.here")).to_contain_text("1″")


def test_one_circuit_in_an_old_house_from_blank(open_page: Open) -> None:
    """Thin wall up a basement wall and along it over a water pipe, in a job without a plan, by keyboard.

    Taped 48 + 216. A 90° of a 6.6 in shoe (1 in pipe) gains 6.6 x (2 - pi/2) = 2.833. The saddle, 2 in high at
    22.5-45-22.5: its slopes are 2/sin 22.5 = 5.226 where 2/tan 22.5 = 4.828 were level, 0.796 more; it gains
    2 x 6.6 x (tan - arc) of each bend: 2 x 0.0338 + 0.2840. So 264 - 2.833 + 0.796 - 0.352 = 261.61 of pipe, 0.2 less
    at the connectors: 261.4: two whole sticks and 21 3/8, three sticks, 98 5/8 left over. Bends 90 + 90 = 180°.
    """
    page = open_page(empty=True)
    keys = say(page, "H 200a 40 spaces taken 1-4")
    keys += say(
        page, "H up 4' block wall in emt 1 then over 18' with saddle 2\" after 8' to outlet 50a 240v in garage"
    )
    keys += stage(page, 5)
    sticks = page.get_by_test_id("sticks")
    expect(sticks).to_contain_text("21 3/8″")
    expect(sticks).to_contain_text("98 5/8″ left over")
    expect(sticks).to_contain_text("180° spent, 180° left")
    # back of the 90° at 48 + 1.163/2, less the take-up of 8 and 0.1 at the connector: 40 1/2
    expect(sticks).to_contain_text("90° at 40 1/2″")
    panel = page.get_by_test_id("panel")
    expect(panel).to_contain_text("180° of 360°")
    order = page.get_by_test_id("order")
    expect(order).to_contain_text("a whole stick of EMT 1″")
    keys += say(page, 'leg 1: box offset 1/2"')
    expect(page.get_by_test_id("bends")).to_contain_text("box offset")
    expect(sticks).to_contain_text("200° spent, 160° left")
    print(f"keys for one circuit in pipe: {keys}")
    assert keys < 150, keys


def test_an_outbuilding_in_plastic_from_blank(open_page: Open) -> None:
    """A feeder under a yard, by keyboard: risers of schedule 80 with an expansion fitting, elbows, bells.

    1 in plastic: a stick lays 120 - 1.875 = 118.125; an elbow takes 5.75 and 1.875 of straight on each side, and
    0.875 of pipe goes into its bell. Trench 600: 600 - 11.5 - 3.75 + 1.75 = 586.5, so four whole sticks, 472.5, and
    114. One riser of 10 ft in the sun moves 3.38e-5 x 120 x 100 = 0.41 in over the year.
    """
    page = open_page(empty=True)
    keys = say(page, "H 200a 40 spaces taken 1-4")
    keys += say(
        page,
        "H down 10' outside in pvc80 1 expansion fitting then over 50' trench 24\" deep in pvc40 1 then up 4' "
        "outside in pvc80 1 to building shed 60a",
    )
    keys += stage(page, 5)
    sticks = page.get_by_test_id("sticks")
    expect(sticks).to_contain_text("whole stick each, bell ahead")
    expect(sticks).to_contain_text("4 sticks")
    expect(sticks).to_contain_text("114″")
    life = page.get_by_test_id("life")
    expect(life).to_contain_text("1 expansion fitting in leg 1")
    expect(life).to_contain_text("moves 0.41″")
    page.locator("article[data-code=expansion-day]").get_by_role("button", name="70 °F").click()
    settled(page)
    # from 70 to the hottest, 120: 3.38e-5 x 120 x 50 = 0.203, up to the next eighth
    expect(life).to_contain_text("¼″ at 70 °F")
    print(f"keys for an outbuilding in plastic: {keys}")


def test_the_sheets_of_pipe(open_page: Open) -> None:
    page = open_page()
    base = "/".join(page.url.split("/")[:5])
    page.goto(f"{base}/sheets/sticks")
    settled(page)
    sheet = page.get_by_test_id("stick-sheet")
    one = sheet.locator("[data-pull='s4.1']")
    expect(one).to_contain_text("star at 104 1/8″")
    expect(one.get_by_test_id("sticks")).to_contain_text("90° at 104 1/8″")
    with page.expect_download() as got:
        sheet.get_by_role("link", name="Cut list as CSV").click()
    assert got.value.suggested_filename == "cut-list.csv"
    page.goto(f"{base}/sheets/wire-pulls")
    settled(page)
    feeder = page.get_by_test_id("wire-sheet").locator("[data-pull='h1.1']")
    expect(feeder).to_contain_text("6 THWN-2: black, red, white")
    expect(feeder).to_contain_text("3 × 96′")
    expect(feeder).to_contain_text("144 lb")


def test_by_thumb_a_pull_is_read_and_fed_otherwise(open_page: Open) -> None:
    page = open_page(390, 844, has_touch=True)
    base = "/".join(page.url.split("/")[:5])
    page.goto(f"{base}/pipe?way=h1")
    settled(page)
    page.get_by_role("button", name="Feed at Panel H", exact=True).tap()
    settled(page)
    expect(page.locator("article[data-code=feed-hard]")).to_have_count(0)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_a_shop_wall_from_blank_by_thumb(open_page: Open) -> None:
    """Thin wall along two walls of a shop, typed and tapped on a phone: 6 ft up, 16 across, 9 round
    the corner, 3 down. Three right angles of a 5.42 in shoe: 408 - 3 x 2.326 - 0.2 = 400.8: four sticks at the least.
    """
    page = open_page(390, 844, has_touch=True, empty=True)
    line = page.locator(LINE)
    for text in (
        "S 100a 24 spaces taken 1-4",
        "S up 6' shop wall in emt 3/4 then over 16' then left 9' then down 3' to outlet 20a 120v in garage",
    ):
        line.fill(text)
        page.locator("form button[type=submit]").tap()
        expect(line).to_have_value("")
        settled(page)
    page.get_by_role("link", name="Pipe", exact=True).tap()
    settled(page)
    sticks = page.get_by_test_id("sticks")
    expect(sticks).to_contain_text("270° spent, 90° left")
    expect(page.locator(".head", has_text="4 sticks")).to_contain_text("fewest that will do")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_a_way_of_the_frame_is_kept_before_it_is_bent(open_page: Open) -> None:
    page = open_page()
    stage(page, 5)
    page.locator("[data-pull^='w-ch14']").first.click()
    settled(page)
    expect(page.locator(LINE)).to_have_count(0)
    page.get_by_test_id("keep").click()
    settled(page)
    expect(page.locator(LINE)).to_have_count(1)
    expect(page.get_by_test_id("keep")).to_have_count(0)
