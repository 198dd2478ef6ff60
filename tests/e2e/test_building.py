"""Walls and Boxes as their user builds: by keyboard, by mouse, on a phone."""

import re
from collections.abc import Callable
from pathlib import Path

import ezdxf
from playwright.sync_api import Page, expect

from tests.conftest import PLANTED
from tests.e2e.hands import LINE, say, settled, stage, stops

Open = Callable[..., Page]
CABIN = [
    [
        "structure cabin Bunk cabin",
        "room Main 16' x 14'",
        "door south 3' at 2'",
        "window north 4' x 3' at 6' sill 40\"",
        "room Bunk 10' x 8' east of Main",
        "door west 2'6 at 3'",
        "window east 3' x 3' at 2'6 sill 40\"",
    ],
    ["fill every room", "panel in Main west 5' spaces 12"],
]  # fmt: skip


def test_an_empty_job_becomes_a_cabin_with_all_its_boxes_by_keyboard(open_page: Open) -> None:
    page = open_page(empty=True)
    keys = 0
    for number, sentences in enumerate(CABIN, 1):
        keys += stage(page, number)
        for text in sentences:
            keys += say(page, text)
    expect(page.locator("[data-room-row='Main']")).to_be_visible()
    page.locator("[data-room-row='Bunk']").click()
    expect(page.locator("[data-box-row='SM-1']")).to_be_visible()
    for room in ("Main", "Bunk"):
        page.locator(f"[data-room-row='{room}']").click()
        expect(page.locator("article[data-code=wall-no-receptacle]")).to_have_count(0)
    assert keys < 400, keys
    print(f"keys from an empty job to a two-room cabin: {keys}")


def test_a_wrong_word_is_marked_and_nothing_is_lost(open_page: Open) -> None:
    page = open_page()
    stage(page, 1)
    page.keyboard.press("/")
    page.keyboard.type("door sooth 3' at 34\"")
    page.keyboard.press("Enter")
    error = page.get_by_test_id("entry-error")
    expect(error.locator("mark")).to_have_text("sooth 3' at 34\"")
    expect(page.locator(LINE)).to_have_value("door sooth 3' at 34\"")
    page.keyboard.press("Escape")


def test_a_wall_is_dragged_with_its_lengths_shown_and_undone(open_page: Open) -> None:
    page = open_page()
    stage(page, 1)
    page.locator("[data-room-row='Kitchen']").click()
    expect(page.get_by_test_id("panel")).to_contain_text("168 ft²")
    settled(page)
    wall = page.locator(".hit.wall[data-mark='north']")
    box = wall.bounding_box()
    assert box
    x, y = box["x"] + 24, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y - 10)
    page.mouse.move(x, y - 19)
    expect(page.get_by_test_id("drag-note")).to_contain_text("out")
    page.mouse.up()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", re.compile("^Undo: wall out"))
    page.keyboard.press("Control+z")
    expect(page.get_by_test_id("undo")).to_be_disabled()


def test_a_receptacle_is_added_by_its_mend_dragged_and_marked(open_page: Open) -> None:
    page = open_page()
    stage(page, 2)
    page.locator("[data-room-row='Common room']").click()
    card = page.locator("article[data-code=wall-no-receptacle]")
    expect(card).to_contain_text("7′ 6″ of wall, no receptacle")
    card.get_by_role("button").filter(has_text="Add a receptacle south").click()
    stops(page, PLANTED - 1)
    expect(card).to_have_count(0)
    settled(page)
    box = page.locator("[data-round-box='R-3']").bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] - 30, box["y"] + 5)
    page.mouse.move(box["x"] - 42, box["y"] + 5)
    expect(page.get_by_test_id("round-note")).to_contain_text("north")
    page.mouse.up()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: move R-3")
    settled(page)
    page.locator("[data-box-row='R-1']").get_by_role("checkbox").check()
    settled(page)
    page.reload()
    stage(page, 2)
    page.locator("[data-room-row='Common room']").click()
    expect(page.locator("[data-box-row='R-1']").get_by_role("checkbox")).to_be_checked()
    page.goto(re.sub(r"/boxes.*", "/sheets/box-schedule", page.url))
    expect(page.get_by_test_id("box-sheet")).to_contain_text("16″")


def test_the_story_pole_moves_every_box(open_page: Open) -> None:
    page = open_page()
    stage(page, 2)
    page.locator("[data-room-row='Bed 1']").click()
    page.get_by_test_id("open-pole").click()
    pole = page.get_by_test_id("pole")
    pole.get_by_role("button", name="bottom of box 12").click()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: story pole: receptacle")
    page.keyboard.press("Escape")
    expect(pole).to_have_count(0)
    page.locator("[data-box-row='R-14']").click()
    expect(page.get_by_test_id("panel")).to_contain_text("15 3/4″ · 13 7/8″ · 12″")


def test_a_field_tells_a_refusal_where_it_was_typed_and_keeps_what_was_typed(open_page: Open) -> None:
    page = open_page()
    stage(page, 2)
    page.locator("[data-room-row='Bed 1']").click()
    page.locator("[data-box-row='R-14']").click()
    load = page.get_by_label("Load, W")
    load.fill("lots")
    load.press("Enter")
    expect(page.get_by_test_id("panel").get_by_role("alert").first).to_contain_text("load_w")
    expect(load).to_have_value("lots")
    load.fill("900")
    load.press("Enter")
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: R-14: load, w")
    page.reload()
    settled(page)
    expect(page.get_by_label("Load, W")).to_have_value("900")


def test_a_list_is_one_stop_of_the_tab_key_and_goes_by_arrows(open_page: Open) -> None:
    page = open_page()
    stage(page, 2)
    here = page.locator("nav[aria-label='Rooms'] [aria-current='true']")
    here.focus()
    stops = page.locator("nav[aria-label='Rooms'] button:not([tabindex='-1'])")
    expect(stops).to_have_count(1)
    page.keyboard.press("Home")
    page.keyboard.press("ArrowDown")
    second = page.locator("nav[aria-label='Rooms'] button").nth(1)
    expect(second).to_be_focused()
    page.keyboard.press("Enter")
    expect(second).to_have_attribute("aria-current", "true")


def test_a_drawing_is_brought_in_once_its_unit_is_confirmed(open_page: Open, tmp_path: Path) -> None:
    document = ezdxf.new(units=0)
    document.modelspace().add_lwpolyline(
        [(0, 0), (14, 0), (14, 12), (0, 12)], close=True, dxfattribs={"layer": "ROOM"}
    )
    path = tmp_path / "plan.dxf"
    document.saveas(path)
    page = open_page()
    stage(page, 1)
    page.locator("[data-level='shed-floor']").click()
    page.get_by_test_id("dxf").click()
    dialog = page.get_by_test_id("dxf-dialog")
    broken = tmp_path / "broken.dxf"
    broken.write_text("no drawing")
    page.get_by_test_id("dxf-file").set_input_files(broken)
    expect(dialog).to_contain_text("not a DXF drawing", timeout=30_000)
    page.get_by_test_id("dxf-file").set_input_files(path)
    expect(dialog).to_contain_text("names no unit. It is 14.0 wide", timeout=30_000)
    expect(dialog.get_by_role("button", name="Bring in the rooms")).to_be_disabled()
    dialog.get_by_label("One unit of the drawing is one of").click(force=True)
    page.get_by_role("option", name="feet", exact=True).click()
    dialog.get_by_role("button", name="Bring in the rooms").click()
    expect(page.locator("[data-room-row='Room 1']")).to_be_visible()


def test_the_laser_tape_drops_a_reading_into_the_line(open_page: Open) -> None:
    page = open_page()
    stage(page, 1)
    page.keyboard.press("/")
    page.keyboard.type("room Larder ")
    page.get_by_test_id("tape").click()
    expect(page.locator(LINE)).to_have_value("room Larder 14' ")
    expect(page.get_by_test_id("tape")).to_contain_text("simulated: 14'")


def test_on_a_phone_rooms_are_read_and_boxes_marked(open_page: Open) -> None:
    page = open_page(390, 844)
    page.get_by_role("link", name="Boxes").click()
    page.locator("[data-room-row='Kitchen']").click()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    row = page.locator("[data-box-row='R-7']")
    row.scroll_into_view_if_needed()
    row.get_by_role("checkbox").check()
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: mark R-7")
