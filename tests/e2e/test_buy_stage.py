"""Buy, as its user walks through it: the one coil told and mended, prices, other ways, the list by thumb, a cabin's
circuits from nothing to coils."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, Route, expect

from tests.conftest import PLANTED
from tests.e2e.hands import LINE, say, settled, stage, stops

Open = Callable[..., Page]


def row(page: Page, item: str) -> None:
    """Looks at a row or shelf in the stage Buy."""
    if "/buy" not in page.url:
        stage(page, 7)
    page.locator(f"[data-item='{item}']").click()
    expect(page.locator(f"[data-item='{item}']")).to_have_attribute("aria-current", "true")
    settled(page)


def test_the_one_coil_guess_is_told_and_mended_by_keyboard(open_page: Open) -> None:
    page = open_page()
    stage(page, 7)
    card = page.locator("article[data-code=coil-short]")
    expect(card).to_contain_text("12-2 NM-B: short by 441′")
    expect(page.locator("[data-sheet='12-2 NM-B'] .bar")).to_have_count(1)
    page.keyboard.press("m")
    page.keyboard.press("m")
    settled(page)
    expect(card).to_have_count(0)
    stops(page, PLANTED - 1)
    sheet = page.locator("[data-sheet='12-2 NM-B']")
    expect(sheet.locator(".bar")).to_have_count(3)
    expect(sheet).to_contain_text("500 + 100 + 100 ft coils")
    expect(page.locator("[data-item='12-2 NM-B']")).to_have_attribute("aria-current", "true")
    page.get_by_test_id("undo").click()
    settled(page)
    expect(card).to_have_count(1)


def test_a_sentence_buys_by_the_foot_has_and_prices(open_page: Open) -> None:
    page = open_page()
    row(page, "14-3 NM-B")
    sheet = page.locator("[data-sheet='14-3 NM-B']")
    expect(sheet).to_contain_text("100 ft coil · 8′ left · proved: no cheaper set")
    say(page, "14-3 by the foot")
    expect(sheet).to_contain_text("92′ by the foot")
    say(page, "buy 14-3 as is cheapest; have 95' of 14-3")
    expect(sheet).to_contain_text("on the truck")
    expect(page.get_by_test_id("panel")).to_contain_text("92′ on the truck")
    page.get_by_test_id("offers").locator("summary").click()
    price = page.get_by_label("supply house, 100′, dollars")
    price.fill("-4")
    price.press("Enter")
    expect(page.get_by_test_id("offers").get_by_role("alert")).to_contain_text("allowed: dollars over 0")
    price.fill("5000")
    price.press("Enter")
    settled(page)
    expect(page.get_by_test_id("offers").get_by_role("alert")).to_contain_text("others are")
    price.fill("71.25")
    price.press("Enter")
    settled(page)
    expect(page.get_by_test_id("offers").get_by_role("alert")).to_have_count(0)
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: price of 14-3 NM-B")


def test_aluminum_feeders_are_taken_and_taken_back(open_page: Open) -> None:
    page = open_page()
    stage(page, 7)
    page.keyboard.press("o")
    ways = page.get_by_test_id("ways")
    expect(page.locator("[data-testid=ways][data-seen]")).to_be_visible(timeout=120_000)
    assert ways.locator("li .link").count() >= 6
    aluminum = ways.locator("[data-way=aluminum]")
    expect(aluminum).to_contain_text("− $")
    before = page.get_by_test_id("material").inner_text()
    aluminum.get_by_role("button").click()
    settled(page)
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: Aluminum feeders")
    assert page.get_by_test_id("material").inner_text() != before
    expect(page.get_by_test_id("plan-ways")).to_contain_text("the job has changed")
    page.get_by_test_id("undo").click()
    settled(page)
    expect(page.get_by_test_id("material")).to_have_text(before)


def test_other_ways_can_be_stopped(open_page: Open) -> None:
    page = open_page()
    stage(page, 7)
    page.get_by_test_id("plan-ways").click()
    ways = page.get_by_test_id("ways")
    ways.get_by_role("button", name="Stop").click()
    settled(page)
    stage(page, 3)  # the worker is free for what is asked next
    page.keyboard.press("f")
    accept = page.get_by_test_id("proposals").get_by_test_id("accept")
    expect(accept).to_be_enabled(timeout=60_000)


def test_where_a_thing_goes_leads_to_it(open_page: Open) -> None:
    page = open_page()
    row(page, "shelf panels")
    page.locator("[data-part='panel 8 spaces main 60 A']").click()
    settled(page)
    page.get_by_test_id("places").get_by_role("button").first.click()
    expect(page).to_have_url(re.compile(r"/circuits\?.*panel="))
    settled(page)


def test_the_desk_answers_and_a_price_book_comes_from_a_file(open_page: Open, tmp_path: Path) -> None:
    page = open_page()
    stage(page, 7)
    held: list[Route] = []
    page.route("**/list", lambda route: held.append(route))
    page.get_by_test_id("prices").click()
    book = page.get_by_test_id("price-book")
    book.get_by_test_id("desk").click()  # while the list is on its way: it is waited for
    held.pop().continue_()
    page.unroute("**/list")
    expect(book.get_by_role("status")).to_contain_text("Simulated desk")
    settled(page)
    book.get_by_test_id("take-quotes").click()
    settled(page)
    wrong = tmp_path / "prices.csv"
    wrong.write_text("name,cost\nx,1\n")
    page.get_by_label("Prices from CSV").set_input_files(wrong)
    settled(page)
    expect(page.get_by_test_id("notice")).to_contain_text("wanted: item, supplier, dollars")
    right = tmp_path / "right.csv"
    right.write_text("item,supplier,pack,unit,dollars\nbox round-20,Corner shop,1,each,0.99\n")
    page.get_by_label("Prices from CSV").set_input_files(right)
    settled(page)
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: bring in 1 prices")


def test_the_list_is_ticked_by_thumb(open_page: Open) -> None:
    page = open_page(390, 844, path="/jobs/{job}/sheets/buying-list", has_touch=True)
    sheet = page.get_by_test_id("list-sheet")
    expect(page.get_by_test_id("counted")).to_have_text(re.compile(r"^0 of \d+ ticked$"))
    sheet.get_by_label("Ticked by").fill("R. Meadow")
    first = sheet.locator(".row").first
    first.locator("label.tick").tap()
    settled(page)
    expect(page.get_by_test_id("counted")).to_have_text(re.compile(r"^1 of \d+ ticked$"))
    expect(first).to_contain_text("R. Meadow")
    first.locator(".what").tap()
    paid = sheet.get_by_label(re.compile("paid in dollars")).first
    paid.fill("x")
    paid.press("Enter")
    expect(sheet.get_by_role("alert")).to_contain_text("allowed: dollars, 0 and more")
    paid.fill("80")
    paid.press("Enter")
    settled(page)
    expect(first).to_contain_text("$80")
    sheet.get_by_role("button", name="Received").tap()
    settled(page)
    expect(first).to_contain_text("received")
    page.get_by_test_id("open-only").tap()
    expect(sheet.locator(".row.done")).to_have_count(0)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_the_sheets_of_coils_and_the_quote(open_page: Open) -> None:
    page = open_page()
    base = page.url.rsplit("/", 1)[0]
    page.goto(f"{base}/sheets/coil-cards")
    cards = page.get_by_test_id("coil-sheet").locator("article")
    expect(cards.first).to_be_visible()
    assert cards.count() >= 6
    page.goto(f"{base}/sheets/quote")
    quote = page.get_by_test_id("quote-sheet")
    expect(quote).to_contain_text("It is no promise")
    quote.get_by_role("button", name="By room").click()
    expect(quote).to_contain_text("Kitchen, House")


def test_a_cabin_of_nine_circuits_from_nothing_to_coils(open_page: Open) -> None:
    """One room 20 by 14 ft with a panel; five circuits of receptacles, four of lights. Every cut is its path and 5 %,
    42 in at the panel or 8 in at a box, 8 in at the box, 6 in of loop, up to the foot; all of them are told as coils
    that hold them, and no single coil of 250 ft would."""
    page = open_page(empty=True)
    keys = stage(page, 1)
    keys += say(page, "room Cabin 20' x 14'")
    keys += stage(page, 2)
    keys += say(page, "panel in Cabin west 2' spaces 20 main 100a as P")
    spots = [("north", 3 + 3.5 * n) for n in range(5)] + [("south", 4 + 4 * n) for n in range(4)]
    for n, (wall, at) in enumerate(spots, start=1):
        what = "receptacle" if n <= 5 else "light"
        kind = f"set {what} in Cabin {wall} {at:g}' as {'R' if n <= 5 else 'L'}-{n}"
        keys += say(page, kind)
    keys += stage(page, 3)
    for n in range(1, 10):
        amps, name = ("20a", "R") if n <= 5 else ("15a", "L")
        keys += say(page, f"circuit in P {n} {amps} afci as C{n}: {name}-{n}")
    keys += stage(page, 7)
    print(f"a cabin of nine circuits, to coils: {keys} keys")
    sheets = page.locator("[data-sheet]")
    expect(sheets).to_have_count(2)
    expect(page.locator("[data-sheet='12-2 NM-B']")).to_contain_text("in 5 cuts")
    expect(page.locator("[data-sheet='14-2 NM-B']")).to_contain_text("in 4 cuts")
    expect(page.locator("[data-sheet='12-2 NM-B']")).to_contain_text("proved: no cheaper set")
    expect(page.locator("[data-item='shelf panels']")).to_contain_text("$441")  # nine arc-fault breakers at 49
    say(page, "1 x 25' of 12-2")
    expect(page.locator("article[data-code=coil-short]")).to_be_visible()
    expect(page.locator(LINE)).to_have_value("")
