"""What is moved by keys while an answer is on its way: it is shown where it goes, and no step is lost."""

import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, Route, expect

from tests.e2e.hands import settled, stage

Open = Callable[..., Page]


class Held:
    """Edits whose answers are held up on the net, one after another."""

    def __init__(self, page: Page) -> None:
        self.page, self.sent, self.waiting = page, list[Any](), list[Route]()
        page.route("**/edits", self._take)

    def _take(self, route: Route) -> None:
        self.sent.append(route.request.post_data_json["edits"][0])
        self.waiting.append(route)

    def asked(self, act: Callable[[], object]) -> None:
        """Does what asks for the next edit."""
        with self.page.expect_request("**/edits"):
            act()

    def pressed(self, key: str, times: int) -> None:
        """A key so many times: the first step is on its way when the others come, and they wait for its answer."""
        self.asked(lambda: self.page.keyboard.press(key))
        for _ in range(times - 1):
            self.page.keyboard.press(key)

    def answer(self) -> None:
        """Lets the edit through that was asked for."""
        while not self.waiting:
            self.page.evaluate("0")
        self.waiting.pop(0).continue_()


def test_a_wall_is_seen_where_it_goes_before_it_is_answered(open_page: Open) -> None:
    """Three arrows, the first still on its way: an inch, then two together; the plan shows three the while."""
    page = open_page()
    stage(page, 1)
    page.locator("[data-room-row='Kitchen']").click()
    settled(page)
    north = page.locator(".hit.wall[data-mark='north']")
    before = north.get_attribute("points")
    north.press("Enter")
    settled(page)
    edits = Held(page)
    edits.pressed("Shift+ArrowUp", 3)
    expect(page.get_by_test_id("ghost")).to_have_count(1)
    expect(page.get_by_test_id("drag-note")).to_contain_text("out 3″")
    edits.asked(edits.answer)
    expect(page.get_by_test_id("drag-note")).to_contain_text("out 2″")
    edits.answer()
    settled(page)
    expect(page.get_by_test_id("ghost")).to_have_count(0)
    assert [edit["by_in"] for edit in edits.sent] == [1, 2]
    expect(north).not_to_have_attribute("points", before or "")
    expect(page.get_by_test_id("undo")).to_have_attribute("title", "Undo: wall out 2″")


def test_an_arrow_moves_a_door_where_it_points(open_page: Open) -> None:
    """A door of a south wall is read from its east end, as faced from within: an arrow to the right makes that less,
    on the plan it goes right. Arrows move what was clicked; across its wall a door does not go."""
    page = open_page()
    stage(page, 1)
    door = page.locator(".hit.opening[data-mark='o3']")
    door.click()
    settled(page)
    was = float(door.get_attribute("x") or 0)
    edits = Held(page)
    edits.asked(lambda: page.keyboard.press("ArrowRight"))
    expect(page.get_by_test_id("ghost")).to_have_count(1)
    expect(page.get_by_test_id("drag-note")).to_have_text("14′ 11″")
    edits.answer()
    settled(page)
    assert edits.sent == [{"op": "set", "kind": "opening", "id": "o3", "set": {"at_in": 179}}]
    assert float(door.get_attribute("x") or 0) > was
    page.keyboard.press("ArrowUp")
    settled(page)
    assert len(edits.sent) == 1


def test_a_corner_of_a_trench_keeps_every_step(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/trench?line=t2")
    corner = page.get_by_test_id("yard").locator(".hit.corner").first
    corner.focus()
    settled(page)
    edits = Held(page)
    edits.pressed("Shift+ArrowUp", 4)
    edits.asked(edits.answer)
    edits.answer()
    settled(page)
    first, second = (edit["set"]["points"] for edit in edits.sent)
    moved = [b[1] - a[1] for a, b in zip(first, second, strict=True) if a != b]
    assert moved == [36.0]


def test_a_breaker_goes_as_many_spaces_as_arrows(open_page: Open) -> None:
    page = open_page(path="/jobs/{job}/circuits?circuit=ch9")
    title = page.get_by_test_id("undo")
    settled(page)
    edits = Held(page)
    edits.pressed("ArrowDown", 3)
    edits.asked(edits.answer)
    edits.answer()
    settled(page)
    spaces = [edit["space"] for edit in edits.sent]
    assert spaces[1] - spaces[0] == 4
    expect(title).to_have_attribute("title", re.compile(f"put on {spaces[1]}"))
