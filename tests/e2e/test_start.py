"""The first page of a job: eleven kinds begun by keyboard and by thumb, each key and tap counted."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page, expect

from tests.core.start.test_kinds import ANSWERS, PANEL
from tests.e2e.conftest import Server
from tests.e2e.hands import LINE, new_job, say, says, settled, stage, stops

Open = Callable[..., Page]


def first_page(page: Page, panel: str = PANEL) -> int:
    """A blank job whose panel is said on its line; the keys that took."""
    new_job(page)
    expect(page).to_have_url(re.compile("/start$"))
    return say(page, panel.removeprefix("panel "))


def test_each_kind_by_keyboard_in_one_job(open_page: Open) -> None:
    """From the blank page to the first right answer: the panel's own sentence takes up to 45 keys, each kind up to
    90. The numbers are those of the table of answers."""
    page = open_page()
    keys = first_page(page, "panel H 200a 40 spaces taken 1-4")
    assert keys <= 47, keys
    answers = page.get_by_test_id("answers")
    counted = {}
    for number, (kind, want) in enumerate(ANSWERS.items(), start=1):
        counted[kind] = say(page, want.text.removeprefix("from "))
        assert counted[kind] <= 90, (kind, counted[kind])
        expect(page.locator("[data-started]")).to_have_count(number)
        expect(answers).to_contain_text(f"{want.wire} copper, ground {want.ground}")
        expect(answers).to_contain_text(want.breaker)
        expect(answers).to_contain_text(want.held)
        for pieces, feet in want.cuts:
            expect(answers).to_contain_text(f"{pieces} × {feet}′" if pieces > 1 else f"{feet}′")
    print(f"keys from the blank page: panel {keys}, {counted}")
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    expect(page.locator("[data-started]")).to_have_count(len(ANSWERS) - 1)


def test_each_line_that_is_shown_is_a_whole_circuit(open_page: Open) -> None:
    """The examples of the first page: one tap puts one on the line, Enter makes it, nothing stops."""
    page = open_page()
    first_page(page)
    examples = page.get_by_label("Lines as they are said").get_by_role("button")
    texts = examples.all_inner_texts()
    assert len(texts) >= 5
    for text in texts:
        examples.get_by_text(text).click()
        expect(page.locator(LINE)).to_have_value(text)
        page.locator(LINE).press("Enter")
        expect(page.locator("[data-started]")).to_have_count(1)
        stops(page, 0)
        page.get_by_test_id("undo").click()
        expect(page.locator("[data-started]")).to_have_count(0)


def test_the_answer_grows_while_it_is_typed(open_page: Open) -> None:
    page = open_page()
    first_page(page)
    line = page.locator(LINE)
    line.press_sequentially("H 31' block wall in emt 3/4 to outlet 50a 240v")
    expect(page.get_by_test_id("answers")).to_contain_text("50 A, 2-pole")
    expect(page.locator("[data-code=place-unsaid]")).to_be_visible()
    expect(page.locator("[data-started]")).to_have_count(0)
    line.press_sequentially(" in garage")
    expect(page.get_by_test_id("answers")).to_contain_text("50 A, 2-pole, gfci")
    expect(page.locator("[data-code=place-unsaid]")).to_have_count(0)
    line.fill("H 31' block wall to moon")
    line.press("Enter")
    error = page.get_by_test_id("entry-error")
    expect(error.locator("mark")).to_have_text("moon")
    expect(line).to_have_value("H 31' block wall to moon")


SPOKEN = "40' of basement joists, 6' of outside wall to a heat pump of mca 18.4 max 25"


def test_what_is_told_lies_on_no_line_and_no_answer(open_page: Open) -> None:
    """On a phone it stands under the header: an old outlet whose breaker nobody knows, and what is taken of it."""
    page = open_page(width=390, height=844)
    first_page(page, "panel H 100a 20 spaces taken 1-20")
    say(page, "from existing outlet in the bedroom 14' stud wall to outlet in bedroom")
    told = page.get_by_test_id("notice")
    expect(told).to_contain_text("taken to be of 15 A on No. 14")
    under = told.evaluate("element => element.closest('.v-snackbar__wrapper').getBoundingClientRect().bottom")
    for other in (page.get_by_test_id("answers"), page.locator(LINE)):
        box = other.bounding_box()
        assert box is not None and box["y"] >= under
    expect(page.locator("[data-code=old-breaker]")).to_be_visible()


def test_a_line_as_it_is_spoken(open_page: Open) -> None:
    """By hand: cable 480 + 42 at the panel + 8 at the box that is put where it meets the pipe + 6 loop + 24 waste =
    560 in, 47 ft; wires in the pipe 72 + 12 + 8 + 6 + 3.6 = 101.6 in, 9 ft; the whip 80.4 in, 7 ft. The outlet
    240 + 42 + 8 + 6 + 12 = 308 in, 26 ft."""
    page = open_page()
    first_page(page, "panel H 150a 24 spaces taken 1-16 18")
    keys = say(page, SPOKEN)
    answers = page.get_by_test_id("answers")
    for told in ("25 A, 2-pole, gfci", "on 17/19", "12 copper, ground 12", "47′", "3 × 9′", "3 × 7′"):
        expect(answers).to_contain_text(told)
    expect(page.get_by_test_id("notice")).to_contain_text("A junction box stands at the end of leg 1")
    expect(page.locator("[data-code=box-needed]")).to_have_count(0)
    keys += say(page, "bath outlet 20a: 12' of attic and 8' down the wall")
    expect(answers).to_contain_text("26′")
    assert keys <= 135, keys
    say(page, "R-1 8' wall to a bath outlet")  # from the outlet on, on its circuit: 96 + 8 + 8 + 6 + 4.8 = 122.8 in
    expect(answers).to_contain_text("11′")
    expect(answers).to_contain_text("on 20")
    expect(page.locator("[data-started]")).to_have_count(2)


def test_what_was_begun_is_changed_on_the_same_line(open_page: Open) -> None:
    """The panel as one speaks of it, a line that asks, and what is changed after: 36 ft of way, 432 + 42 + 8 + 6 in
    and 5 %, 43 ft."""
    page = open_page(empty=True)
    say(page, "a 200 amp panel H with 30 spaces, 1-16 and 18 taken")
    say(page, "run 12-2 30' through the attic, down 6' of wall to a bedroom outlet")
    answers = page.get_by_test_id("answers")
    for told in ("20 A, 1-pole, afci", "on 17", "12 copper", "43′"):
        expect(answers).to_contain_text(told)
    say(page, "make 17 a 15 amp")
    expect(answers).to_contain_text("15 A, 1-pole, afci")
    expect(page.get_by_test_id("notice")).to_contain_text("Done: make 17 a 15 amp")
    page.get_by_role("button", name="Undo", exact=True).last.click()
    expect(answers).to_contain_text("20 A, 1-pole, afci")


def test_on_a_phone_what_a_line_makes_comes_into_sight(open_page: Open) -> None:
    page = open_page(390, 844, has_touch=True)
    first_page(page)
    say(page, SPOKEN)
    expect(page.get_by_test_id("answers")).to_be_in_viewport(ratio=0.9)
    page.evaluate("scrollTo(0, 0)")
    say(page, "15' wall in 6/3 to a 50 amp range")
    expect(page.get_by_test_id("answers")).to_be_in_viewport(ratio=0.9)


THUMBED = {
    "outlet": "20 A, 1-pole, gfci", "machine": "50 A, 2-pole, gfci", "vehicle": "60 A, 2-pole",
    "range": "50 A, 2-pole", "heat-pump": "40 A, 2-pole", "water-heater": "30 A, 2-pole",
    "generator": "30 A, 2-pole", "pump": "20 A, 2-pole",
    "sub-panel": "60 A, 2-pole", "building": "60 A, 2-pole",
}  # fmt: skip


def test_each_kind_by_thumb(open_page: Open) -> None:
    """On a phone: the panel by taps on its spaces, then a kind, its length, and "Add it"."""
    page = open_page(390, 844, has_touch=True, empty=True)
    taps = 0
    for space in (1, 2, 3, 4):
        page.get_by_role("button", name=f"space {space}, free").tap()
        taps += 1
    expect(page.get_by_test_id("set-panel")).to_be_in_viewport()
    page.get_by_test_id("set-panel").tap()
    settled(page)
    assert taps + 1 <= 6
    for number, (kind, breaker) in enumerate(THUMBED.items(), start=1):
        page.locator(f"[data-kind={kind}]").tap()
        page.locator("[data-blank=Length]").tap()
        page.get_by_role("listitem").filter(has_text="15'").or_(page.get_by_text("15'", exact=True)).first.tap()
        expect(page.locator("[data-blank=Length]")).to_have_text("15'")
        expect(page.get_by_test_id("answers")).to_contain_text(breaker)
        page.get_by_test_id("add-line").tap()
        settled(page)
        expect(page.locator("[data-started]")).to_have_count(number)
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390, wide
    print("taps for each kind: kind, length, 15', add: 4")


def test_what_is_typed_in_a_blank_stands_in_place_of_what_was_there(open_page: Open) -> None:
    page = open_page(390, 844, has_touch=True)
    first_page(page)
    page.locator("[data-kind=vehicle]").tap()
    blank = page.locator("[data-blank=Length]")
    expect(blank).to_have_text("24'")
    blank.tap()
    expect(page.locator(".sheet form input:focus")).to_have_count(1)
    page.keyboard.type("31'")
    page.keyboard.press("Enter")
    expect(blank).to_have_text("31'")
    page.get_by_test_id("add-line").tap()
    settled(page)
    expect(page.locator("[data-started]")).to_contain_text("Vehicle")


def test_lights_in_a_room_begin_on_the_walls(open_page: Open) -> None:
    page = open_page()
    first_page(page)
    page.locator("[data-kind=room]").click()
    expect(page).to_have_url(re.compile("/walls"))


def test_a_building_that_is_said_first_is_drawn_and_wired_as_it_is_spoken(open_page: Open) -> None:
    """A garage from the blank page: what is drawn is seen on Walls, the line goes on from there. By hand: six lights
    in three rows of two under 22 by 24 ft; the vehicle's outlet of 50 A is 6-50 on its own two poles."""
    page = open_page(empty=True)
    keys = say(page, "a 22' x 24' garage")
    expect(page).to_have_url(re.compile("/walls"))
    settled(page)
    keys += says(
        page,
        "overhead door south 16' wide centered",
        "walk door east 3' wide at 2'",
        "panel G 100a 20 spaces on the east wall, 8' from the south corner",
        "outlets every 8' along all walls at 48\"",
        "6 lights",
    )
    keys += says(page, "3-way switches at both doors", "50 amp 240 volt outlet on the north wall for the vehicle")
    keys += stage(page, 3)
    keys += say(page, "wire everything")
    expect(page.get_by_text("2 fine, as in the panel")).to_be_visible()  # and the one looked at
    stops(page, 0)
    panel = page.get_by_test_id("panel")
    expect(panel).to_contain_text("40 A, 2-pole, gfci")
    expect(panel).to_contain_text("8 copper, ground 10")
    print(f"keys for a garage from the blank page: {keys}")
    assert keys < 360, keys


def test_the_answers_and_the_pull_list_have_every_cable_of_a_line(open_page: Open) -> None:
    """By hand: 40 ft with 42 and 8 in at its ends, a loop of 6 in and 5 %, 47 ft; 6 ft three times on, 9 ft each; the
    furnace has 37 ft to its switch and 9 ft, with 8 and 12 in, from there."""
    page = open_page(empty=True)
    says(page, "H 200a 30 spaces taken 1-14", "40' basement to 4 outlets 6' apart")
    expect(page.get_by_test_id("answers")).to_contain_text("74 ft of 12-2 NM-B")
    says(page, "30' crawl in 12-2 to furnace with a switch", "S-1 to E-1 is 6'")
    stage(page, 4)
    page.get_by_role("link", name="Pull list").click()
    expect(page.locator("tbody tr")).to_have_count(6)
    expect(page.get_by_text("120′ 12-2 NM-B")).to_be_visible()


def test_only_how_many_are_free_is_known(open_page: Open) -> None:
    page = open_page(empty=True)
    page.get_by_role("button", name="What is free").click()
    page.get_by_text("only that 2 are free").click()
    page.get_by_test_id("set-panel").click()
    settled(page)
    say(page, "H 17' stud wall in 10-2 to water heater")
    expect(page.locator("[data-code=space-unsaid]")).to_contain_text("2 said to be free")
    page.get_by_test_id("look-at-it").click()
    expect(page).to_have_url(re.compile("/runs"))
    expect(page.get_by_test_id("legs")).to_contain_text("17′")


def _removed(page: Page) -> None:
    """The job looked at is taken away, the last there was."""
    page.get_by_test_id("job-menu").click()
    page.get_by_text("Remove this job…").click()
    page.get_by_role("button", name="Remove", exact=True).click()
    expect(page.get_by_test_id("no-job")).to_be_visible()


def test_where_nothing_was_begun_one_key_begins(browser: Browser, tmp_path: Path) -> None:
    """No demo, no job: the page says what a job is; Enter makes one, its first page takes the line. The last job
    taken away, it is there again; who types at once begins one too, and not a letter is lost."""
    server = Server(tmp_path, demo=False)
    try:
        page = browser.new_context(viewport={"width": 390, "height": 844}).new_page()
        page.goto(server.url)
        expect(page.get_by_test_id("begin-job")).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("no-job")).to_have_count(0)
        expect(page).to_have_url(re.compile(r"/start$"))
        settled(page)
        say(page, "panel Main 150a 24 spaces taken 1-18")
        say(page, "22' attic in 12-2 to outlet in bath")
        expect(page.get_by_test_id("answers")).to_contain_text("28′")
        _removed(page)
        page.keyboard.type("200a panel, 40 spaces, 6 free")
        expect(page.locator(LINE)).to_have_value("200a panel, 40 spaces, 6 free")
        expect(page.locator(LINE)).to_be_focused()
        assert len(page.request.get(f"{server.url}/api/jobs").json()) == 1
        page.keyboard.press("Enter")
        expect(page.locator(LINE)).to_have_value("")
        settled(page)
        _removed(page)
        page.get_by_test_id("open-demo").click()
        expect(page.get_by_test_id("job-menu")).to_contain_text("Quince Hollow")
        page.context.close()
    finally:
        server.kill()


def test_a_small_job_has_no_empty_picture(open_page: Open) -> None:
    """Nothing is drawn: Circuits shows the chain without a plan, Rough-in opens on the first box."""
    page = open_page()
    first_page(page)
    say(page, "12-2 up 3' in the wall, 26' attic, down 7' in the wall to a bedroom outlet")
    stage(page, 3)
    expect(page.get_by_text("15 Outlet").first).to_be_visible()
    expect(page.get_by_test_id("lasso")).to_have_count(0)
    expect(page.get_by_text("No room on this level yet")).to_have_count(0)
    stage(page, 8)
    expect(page.get_by_role("heading", name="R-1, receptacle: how it is made up")).to_be_visible()


# The words of a line are slow to come, and the look at what it made slower.
SLOW = """
const quick = window.fetch
window.fetch = async (what, how) => {
  const answer = await quick(what, how)
  const url = typeof what === 'string' ? what : what.url
  const wait = url.includes('/suggest') ? 250 : url.includes('/stages/') ? 900 : 0
  if (wait) await new Promise((done) => setTimeout(done, wait))
  return answer
}
"""


def test_a_line_that_was_made_does_not_come_back_with_its_late_words(open_page: Open) -> None:
    """Words that are still asked for while a line is made put it back behind the page: its lead never returned."""
    page = open_page()
    page.add_init_script(SLOW)
    page.reload()
    settled(page)
    first_page(page)
    examples = page.get_by_label("Lines as they are said").get_by_role("button")
    line = page.locator(LINE)
    line.press_sequentially("12-2 38' attic to bath outle", delay=1)
    line.press_sequentially("t", delay=1)
    line.press("Enter")
    expect(page.locator("[data-started]")).to_have_count(1)
    settled(page)
    page.get_by_test_id("undo").click()
    expect(page.locator("[data-started]")).to_have_count(0)
    expect(examples.first).to_be_visible(timeout=15_000)


def test_a_blank_job_opened_by_its_address_is_typed_into_at_once(open_page: Open) -> None:
    page = open_page(empty=True)
    expect(page.locator(LINE)).to_be_focused()
    page.keyboard.type("H 200a 30 spaces")
    page.keyboard.press("Enter")
    expect(page.locator(LINE)).to_have_value("")
    page.keyboard.type("hall light with 3-way switches 12' apart, 30' attic")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("answers")).to_contain_text("of 14-3 NM-B")
    page.reload()
    settled(page)
    expect(page.locator(LINE)).not_to_be_focused()  # it is blank no more: letters are keys again


def test_on_a_phone_no_keyboard_jumps_up(open_page: Open) -> None:
    page = open_page(390, 844, empty=True, is_mobile=True, has_touch=True)
    expect(page.locator(LINE)).not_to_be_focused()
