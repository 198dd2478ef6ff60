"""A whole job in the words of the site, from blank to its readings; each number worked out by hand."""

from __future__ import annotations

from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.e2e.hands import say, says, settled, stage

Open = Callable[..., Page]


def test_a_studio_is_drawn_wired_bought_closed_and_proved_as_it_is_spoken(open_page: Open) -> None:
    """The bath's receptacle from the panel in the middle of the west wall, by keyboard.

    Up from the panel's top, 48 + 30, to the holes in the joists, 2 3/8 over the ceiling of 102: 26 3/8. East from the
    middle of the west wall, 2 3/4 out of the room, over 192 and 5 1/2 of wall and 60 and 1 3/4: 262. South from 72 to
    the receptacle, beside the stud 22 1/8 from the north corner: 22 1/8. Down to 14 1/8: 90 1/4. In all 400 3/4,
    33 ft 5 in. To cut: 42 at the panel, 8 at the box, a loop of 6, 5 % waste: 479.6, so 40 ft. Drop at 20 A over
    400.75 + 50 in: 2 x 20 x 1.98 x 37.56 / 1000 = 2.97 V of 120, 2.5 %.
    """
    page = open_page(empty=True)
    keys = stage(page, 1)
    keys += says(
        page,
        "structure cabin Studio",
        "a 16' x 12' studio",
        'Studio walls are 2x6 16" on center',
        "a door in the south wall, 3' wide, 2' from the left",
        "a 4' x 3' window on the north wall, centered",
        "a 5' x 6' bath east of Studio",
        "the ceiling is 8'6",
        "joists run east west",
        "the bath is damp",
    )
    keys += stage(page, 2)
    keys += says(
        page,
        "outlets every 6' in Studio",
        "a 100 amp panel called P with 12 spaces on the west wall of Studio",
        "a gfci on the east wall of the bath, 2' from the left",
        "a light in the bath",
    )
    expect(page.get_by_test_id("notice")).to_contain_text("In the middle of the ceiling of Bath")
    keys += stage(page, 3)
    keys += says(
        page, "1 20a gfci as Bath: R-7", "circuit 3 20a arc fault as Studio: R-1 R-2 R-3", "R-4 and R-5 go on 3"
    )
    keys += say(page, "add R-6 to 3")
    keys += stage(page, 4)
    page.locator("[data-run]").first.click()
    settled(page)
    panel = page.get_by_test_id("panel")
    expect(panel).to_contain_text("33′ 5″")
    expect(panel).to_contain_text("40′")
    expect(panel).to_contain_text("2.5 % of 3 %")
    keys += stage(page, 7)
    keys += say(page, "I have 60' of 14-2 on the truck")
    keys += stage(page, 8)
    keys += says(page, "make up the bath", "P 1 torqued to 20")
    keys += stage(page, 9)
    keys += say(page, "P legs 244")
    keys += say(page, "1 hot to neutral 121")
    expect(page.get_by_role("heading", name="1 Bath")).to_be_visible()
    expect(page.locator("[data-proof=line_neutral]")).to_contain_text("114 to 126")
    assert keys < 760, keys
    print(f"keys from blank to the first reading: {keys}")


def test_what_is_called_out_by_thumb_is_taken(open_page: Open) -> None:
    page = open_page(390, 844, path="/jobs/{job}/rough_in?wall=m2.0", has_touch=True)
    line = page.locator("form input.num").first
    line.tap()
    line.fill("R-10 is made up")
    page.get_by_role("button", name="say it").tap()
    settled(page)
    expect(line).to_have_value("")
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: R-10 is made up")
    line.fill("the north wall of the moon is closed")
    page.get_by_role("button", name="say it").tap()
    expect(page.get_by_test_id("entry-error")).to_be_visible()
    expect(line).to_have_value("the north wall of the moon is closed")
