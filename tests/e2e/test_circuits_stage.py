"""The Circuits stage as its user wires a house."""

from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.conftest import PLANTED
from tests.e2e.hands import say, settled, stage, stops
from tests.e2e.test_building import CABIN

Open = Callable[..., Page]


def test_cabin_with_boxes_is_wired_by_proposal_moved_split_and_printed(open_page: Open) -> None:
    page = open_page(empty=True)
    for number, sentences in enumerate(CABIN, 1):
        stage(page, number)
        for text in sentences:
            say(page, text)
    stage(page, 3)
    page.get_by_test_id("propose").click()
    dialog = page.get_by_test_id("proposals")
    expect(dialog.get_by_test_id("accept")).to_be_enabled(timeout=30_000)
    taken = int((dialog.get_by_test_id("accept").text_content() or "").split()[-1])
    assert taken >= 2
    dialog.get_by_test_id("accept").click()
    expect(dialog).to_have_count(0)
    drawing = page.get_by_test_id("panel-drawing")
    expect(drawing.locator("[data-breaker]")).to_have_count(taken)
    page.locator("[data-fold]").click()
    expect(page.locator("[data-circuit]")).to_have_count(taken)
    row = page.locator("[data-circuit^='Outlets']").first
    row.click()
    expect(row).to_have_attribute("aria-current", "true")
    settled(page)
    moved = drawing.locator(".breaker.here")
    label = moved.get_attribute("data-breaker")
    source, panel = moved.bounding_box(), drawing.bounding_box()
    assert source and panel
    page.mouse.move(source["x"] + 30, source["y"] + source["height"] / 2)
    page.mouse.down()
    page.mouse.move(source["x"] + 30, source["y"] + 40)
    page.mouse.move(panel["x"] + panel["width"] - 60, source["y"] + 83)
    page.mouse.up()
    expect(drawing.locator(".breaker.here")).not_to_have_attribute("data-breaker", label or "")
    settled(page)
    last = page.locator("[data-chain]").last.get_attribute("data-chain")
    space = drawing.locator(".breaker.here").get_attribute("data-breaker")
    say(page, f"split {space} at {last} as Spare wall")
    expect(page.locator("[data-circuit]")).to_have_count(taken + 1)
    page.get_by_role("link", name="Directory").click()
    expect(page.get_by_test_id("directory")).to_contain_text("Spare wall".upper())
    page.emulate_media(media="print")
    assert len(page.pdf()) > 5_000


def test_a_sub_panel_short_of_spaces_is_mended_in_two_ways(open_page: Open) -> None:
    page = open_page()
    stage(page, 3)
    page.locator("[data-panel-row='Panel S']").click()
    card = page.locator("article[data-code=panel-short]")
    expect(card).to_contain_text("short of 1 space")
    card.get_by_role("button", name="Tandem on 1").click()
    stops(page, PLANTED - 1)
    expect(page.locator("[data-breaker='1b']")).to_be_visible()
    page.get_by_test_id("undo").click()
    card.get_by_role("button", name="A panel of 12 spaces").click()
    stops(page, PLANTED - 1)
    expect(page.get_by_test_id("panel-drawing")).to_contain_text("12 free")


def test_protection_is_read_mended_and_loose_boxes_lassoed(open_page: Open) -> None:
    page = open_page()
    stage(page, 3)
    page.locator("[data-circuit='Common room']").click()
    card = page.locator("article[data-code=afci-missing]")
    expect(card).to_contain_text("210.12")
    card.get_by_role("button", name="Arc-fault breaker").click()
    expect(card).to_have_count(0)
    expect(page.get_by_text("Not yet on a circuit")).to_be_visible()
    page.get_by_test_id("lasso").click()
    settled(page)
    net = page.get_by_test_id("net").bounding_box()
    assert net
    page.mouse.move(net["x"] + 2, net["y"] + 2)
    page.mouse.down()
    page.mouse.move(net["x"] + 200, net["y"] + 100)
    page.mouse.move(net["x"] + net["width"] - 2, net["y"] + net["height"] - 2)
    page.mouse.up()
    expect(page.get_by_test_id("chain-held")).to_be_visible()
    page.get_by_role("button", name="Let go").click()
    say(page, "chain R-13 R-14 R-15 R-16 R-17 on 9")
    expect(page.get_by_text("Not yet on a circuit")).to_have_count(0)
    expect(page.locator("[data-chain='R-17']")).to_be_visible()


def test_a_circuit_that_cannot_be_is_refused_where_it_was_typed(open_page: Open) -> None:
    page = open_page()
    stage(page, 3)
    page.keyboard.press("/")
    page.keyboard.type("21 22a nonsense")
    page.keyboard.press("Enter")
    error = page.get_by_test_id("entry-error")
    expect(error).to_contain_text("22 A is no standard breaker")
    expect(error.locator("mark")).to_have_text("22a nonsense")


def test_count_and_load_open_their_steps(open_page: Open) -> None:
    page = open_page()
    stage(page, 3)
    page.get_by_test_id("open-count").click()
    count = page.get_by_test_id("count")
    expect(count).to_contain_text("leaves a fifth free")
    count.get_by_label("Baths").fill("-2")
    expect(count).to_contain_text("greater than or equal to 0")
    count.get_by_role("button", name="Done").click()
    page.get_by_test_id("open-load").click()
    load = page.get_by_test_id("load")
    expect(load).to_contain_text("table 220.45")
    load.get_by_role("button", name="optional").click()
    expect(load).to_contain_text("220.82")


def test_a_box_that_stands_in_no_room_is_changed_under_its_chain(open_page: Open) -> None:
    """What was there before, in a house that nobody draws: its fields stand where there is no plan."""
    page = open_page(empty=True)
    say(page, "M 100a 16 spaces taken 1-14")
    say(page, "existing light on 5 15a, 12' of attic to an attic light")
    stage(page, 3)
    expect(page.get_by_text("What else is on Circuit 5?")).to_be_visible()
    page.get_by_role("button", name="L-1, light").click()
    form = page.get_by_test_id("apart")
    expect(form.get_by_role("heading", name="L-1")).to_be_visible()
    old = form.get_by_label("Was there before")
    expect(old).to_be_checked()
    old.uncheck()
    settled(page)
    expect(page.get_by_text("What else is on Circuit 5?")).to_have_count(0)
    page.get_by_test_id("undo").click()
    expect(form.get_by_label("Was there before")).to_be_checked()
    form.get_by_role("button", name="Close").click()
    expect(form).to_have_count(0)


def test_boxes_of_a_house_that_nobody_draws_are_listed_and_changed(open_page: Open) -> None:
    """One circuit in an old house: the page of boxes shows how full each is, by keyboard and without walls."""
    page = open_page(empty=True)
    say(page, "H 200a 30 spaces taken 1-14")
    say(page, "20' stud wall to bath outlet, 6' stud wall to bath light, then 8' stud wall to bath fan")
    stage(page, 2)
    rows = page.get_by_test_id("apart-boxes").locator("tbody tr")
    expect(rows).to_have_count(3)
    expect(rows.first).to_contain_text("15.75 in³ of 18 in³")
    rows.first.get_by_role("button", name="R-1").focus()
    page.keyboard.press("Enter")
    panel = page.get_by_test_id("panel")
    expect(panel.get_by_role("heading", name="R-1, bath")).to_be_visible()
    panel.get_by_label("Was there before").check()
    settled(page)
    expect(rows.first).to_contain_text("its own compartment")
    page.get_by_test_id("undo").click()
    expect(rows.first).to_contain_text("Single-gang 18 in³")
    say(page, "R-1 is a two-gang box")
    expect(rows.first).to_contain_text("of 32 in³")
