"""Rules about where one box stands: its stud, its finish, what is behind it, doors, water, reach."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.catalogue import UNNAILED, box_models, next_volume
from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.mends import set_box, set_side
from levelrun.core.boxes.placing import on_studs
from levelrun.core.boxes.wet import may_stand
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.site.building_words import BETWEEN_IN
from levelrun.core.site.faces import Face
from levelrun.core.site.framing import NAIL_IN, STUD_IN, STUDDED, depth_of
from levelrun.core.site.geometry import is_inside, middle_of

REACH_IN = 79.0
SEVERAL = 4
HIDES = ("cabinet", "fireplace", "water_heater", "tub", "shower")


def about_box(view: RoomView, box: Box, code: str, title: str, text: str, section: str, **more: object) -> Finding:
    """A finding about one box."""
    return finding(code, box.id, None, title, text, section, about="box", room=view.room.id, **more)


def on_walls(view: RoomView) -> Iterator[tuple[Box, Face, float]]:
    for box in view.boxes:
        if box.side is not None and box.at_in is not None:
            yield box, view.faces[box.side], box.at_in


def fit_rule(view: RoomView) -> Iterator[Finding]:
    """The box stands on its wall, in no opening, over no other box."""
    for box, face, at in on_walls(view):
        half = view.model(box).wide_in / 2
        if at - half < -0.01 or at + half > face.wall.length_in + 0.01:
            inside = min(max(at, half), face.wall.length_in - half)
            blocked = any(o.at_in - half < inside < o.to_in + half for o in face.openings)
            yield about_box(
                view,
                box,
                "box-off-wall",
                f"{box.name} is off the {face.wall.name} wall",
                f"The wall is {show(face.wall.length_in)} long.",
                "common practice, no source",
                measured=show(at),
                limit=show(face.wall.length_in),
                mends=_to_stud(view, box, face, at)
                if blocked
                else [Mend(f"Move it to {show(inside)}", [set_box(box, at_in=inside)])],
            )
            continue
        tall, up = view.model(box).tall_in / 2, view.over_floor(box)
        for item in face.openings:
            clear = item.to_in <= at - half or item.at_in >= at + half
            if not clear and item.sill_in < up + tall and item.head_in > up - tall:
                yield about_box(
                    view,
                    box,
                    "box-in-opening",
                    f"{box.name} stands in {'an' if item.kind == 'opening' else 'a'} {item.kind.replace('_', ' ')}",
                    f"It runs from {show(item.at_in)} to {show(item.to_in)}.",
                    "common practice, no source",
                    mends=_to_stud(view, box, face, at),
                )
    yield from _overlaps(view)
    yield from _on_panels(view)
    yield from _outside(view)


def _outside(view: RoomView) -> Iterator[Finding]:
    for box in view.boxes:
        if box.x_in is None or box.y_in is None or is_inside(view.room.corners, (box.x_in, box.y_in)):
            continue
        x, y = middle_of(view.room.corners)
        yield about_box(
            view,
            box,
            "box-off-room",
            f"{box.name} is outside of {view.room.name}",
            "A wall was moved, or the place was mistyped.",
            "common practice, no source",
            mends=[Mend("Move it to the middle of the room", [set_box(box, x_in=x, y_in=y)])],
        )


def _overlaps(view: RoomView) -> Iterator[Finding]:
    walls: dict[tuple[int | None, bool], list[tuple[Box, Face, float]]] = {}
    order = {box.id: index for index, box in enumerate(view.boxes)}
    for box, face, at in on_walls(view):
        walls.setdefault((box.side, box.outdoors), []).append((box, face, at))
    for standing in walls.values():
        widest = max(view.model(box).wide_in for box, _, _ in standing)
        placed = sorted(standing, key=lambda item: item[2])
        for index, one in enumerate(placed):
            for two in reversed(placed[:index]):
                if one[2] - two[2] >= widest:
                    break
                (other, _, there), (box, face, at) = sorted((one, two), key=lambda item: order[item[0].id])
                if _on_each_other(view, box, at, other, there):
                    yield about_box(
                        view,
                        box,
                        "boxes-overlap",
                        f"{box.name} stands on {other.name}",
                        "Two boxes take the same place.",
                        "common practice, no source",
                        mends=_to_stud(view, box, face, at),
                    )


def _on_panels(view: RoomView) -> Iterator[Finding]:
    """A box where a panel hangs on the same face of its wall."""
    for box, face, at in on_walls(view):
        tall, wide = view.model(box).tall_in / 2, view.model(box).wide_in
        for panel in view.context.panels:
            if panel.side != box.side or panel.at_in is None or box.outdoors:
                continue
            beside = abs(at - panel.at_in) >= (wide + panel.width_in) / 2 - 0.01
            over = panel.height_in - tall < box.height_in < panel.height_in + panel.tall_in + tall
            if over and not beside:
                yield about_box(
                    view,
                    box,
                    "boxes-overlap",
                    f"{box.name} stands on {panel.name}",
                    "A box and a panel take the same place.",
                    "common practice, no source",
                    mends=_to_stud(view, box, face, at),
                )


def _on_each_other(view: RoomView, box: Box, at: float, other: Box, there: float) -> bool:
    one, two = view.model(box), view.model(other)
    wide, tall = (one.wide_in + two.wide_in) / 2, (one.tall_in + two.tall_in) / 2
    return abs(at - there) < wide - 0.01 and abs(box.height_in - other.height_in) < tall - 0.01


def _to_stud(view: RoomView, box: Box, face: Face, at: float) -> list[Mend]:
    """A mend to the nearest free stud face that nothing hides."""
    wide = view.model(box).wide_in
    taken = [(b.at_in or 0.0, view.model(b).wide_in) for b in view.boxes if b.side == box.side and b.id != box.id]
    taken += [(p.at_in or 0.0, p.width_in) for p in view.context.panels if p.side == box.side]
    spots = sorted(
        (spot for spot, _ in on_studs(view, face, 0.0, face.wall.length_in, wide)), key=lambda s: abs(s - at)
    )
    tall, up = view.model(box).tall_in / 2, view.over_floor(box)
    holes = [o for o in face.openings if o.sill_in < up + tall and o.head_in > up - tall]
    open_ = [spot for spot in spots if any(o.at_in - wide / 2 < spot < o.to_in + wide / 2 for o in holes)]
    nearest = next((spot for spot in spots if spot not in open_ and _is_free(face, spot, wide, taken)), None)
    if nearest is None:
        return []
    best = round(nearest * 16) / 16
    stud = min(face.full_studs, key=lambda s: abs(s.at_in - best), default=None)
    name = f"stud {face.full_studs.index(stud) + 1}, " if stud else ""
    return [Mend(f"Move to {name}{show(best)}", [set_box(box, at_in=best)])]


def _is_free(face: Face, spot: float, wide: float, taken: list[tuple[float, float]]) -> bool:
    if any(abs(spot - there) < (wide + other) / 2 for there, other in taken):
        return False
    return not any(f.kind in HIDES and f.at_in < spot < f.at_in + f.width_in for f in face.fixtures)


def stud_rule(view: RoomView) -> Iterator[Finding]:
    """A nailed box has a stud beside it, or blocking. Several at once are one finding, with one mend."""
    found = list(_off_studs(view))
    if len(found) < SEVERAL:
        yield from found
        return
    edits = [edit for item in found for edit in (item.mends[0].edits if item.mends else ())]
    yield finding(
        "boxes-off-studs", view.room.id, None, f"{len(found)} boxes stand beside no stud",
        ", ".join(view.named(item.subject) for item in found[:8]) + (" and more" if len(found) > 8 else ""), "314.23",
        about="room", room=view.room.id, measured=str(len(found)), limit="0",
        mends=[Mend("All to the next stud", edits)] if edits else [],
    )  # fmt: skip


def _off_studs(view: RoomView) -> Iterator[Finding]:
    for box, face, at in on_walls(view):
        if box.blocking or box.surface or box.kind in UNNAILED or face.side.stud not in STUDDED or box.outdoors:
            continue
        model = view.model(box)
        half = model.wide_in / 2
        edges = [abs(abs(stud.at_in - at) - STUD_IN / 2 - half) for stud in face.full_studs]
        on = any(abs(stud.at_in - at) < half + STUD_IN / 2 - NAIL_IN for stud in face.full_studs)
        if not on and edges and min(edges) <= NAIL_IN:
            continue
        yield about_box(
            view,
            box,
            "box-off-stud",
            f"{box.name} meets a stud" if on else f"No stud beside {box.name}",
            "A stud stands where the box would go."
            if on
            else f"The nearest is {show_inches(min(edges, default=0))} off.",
            "314.23",
            mends=[
                *_to_stud(view, box, face, at),
                *([] if on else [Mend("Block it", [set_box(box, blocking=True)])]),
            ],
        )


def depth_rule(view: RoomView) -> Iterator[Finding]:
    """The box goes into what is clear behind it: the framing, less what was taped there, plus its set-out."""
    for box, face, _ in on_walls(view):
        if face.side.stud == "open" or box.kind in UNNAILED or box.outdoors:
            continue
        clear = depth_of(face.side) if box.clear_in is None else min(box.clear_in, depth_of(face.side))
        room = clear + box.set_out_in
        model = view.model(box)
        if model.depth_in <= room + 1e-6:
            continue
        smaller = next_volume(view.book, box, model, 0.0, room)
        mends = [Mend(f"Use {smaller.name}", [set_box(box, model=smaller.key)])] if smaller else []
        yield about_box(
            view,
            box,
            "box-too-deep",
            f"{box.name} is {show_inches(model.depth_in - room)} too deep",
            f"{model.name} is {show_inches(model.depth_in)} deep; {show_inches(clear)} is clear behind the stud face "
            f"and it stands {show_inches(box.set_out_in)} out.",
            "314.16, 314.24",
            measured=show_inches(model.depth_in),
            limit=show_inches(room),
            mends=mends,
        )


def model_rule(view: RoomView) -> Iterator[Finding]:
    """The named box is in the catalogue; a fan hangs from a rated one (314.27(C))."""
    for box in view.boxes:
        if box.model and box.model not in box_models(view.book):
            yield about_box(
                view, box, "box-unknown", f"{box.model!r} is not in the catalogue", "Its depth is not known.",
                "314.16",
                mends=[Mend("Use the usual one", [set_box(box, model="")])],
            )  # fmt: skip
        if box.kind == "fan" and not (box.fan_rated or view.model(box).fan_rated):
            yield about_box(
                view, box, "fan-box", f"{box.name}: the box is not rated for a fan",
                "A paddle fan hangs from a box listed for it, 35 lb and more by its marking.", "314.27(C)",
                mends=[Mend("Use a fan-rated box", [set_box(box, model="fan-21")])],
            )  # fmt: skip


def reach_rule(view: RoomView) -> Iterator[Finding]:
    """Switches at 6 ft 7 in at most (404.8); nothing in the tub and shower zone (406.9(C), 404.4)."""
    for box, face, at in on_walls(view):
        up = view.over_floor(box)
        if view.room.use == "stairs" and up > view.context.level.height_in:  # at their top, over the floor there
            up -= view.context.level.height_in + BETWEEN_IN
        if box.kind in ("switch", "disconnect") and up > REACH_IN:
            yield about_box(
                view, box, "switch-high", f"{box.name} is {show(up)} up", "Its handle is at 6 ft 7 in at most.",
                "404.8(A)", measured=show(up), limit=show(REACH_IN),
                mends=[Mend("Lower it to 6′ 7″", [set_box(box, height_in=box.height_in - (up - REACH_IN))])],
            )  # fmt: skip
        if box.kind == "receptacle" and not box.outdoors and not may_stand(view, face, at):
            dry = [s for s, _ in on_studs(view, face, 0, face.wall.length_in, 2.25) if may_stand(view, face, s)]
            best = min(dry, key=lambda s: abs(s - at), default=None)
            yield about_box(
                view, box, "wet-zone", f"{box.name} is in the tub or shower zone",
                "No receptacle within 3 ft of the tub or shower, up to 8 ft.", "406.9(C)",
                mends=[Mend(f"Move to {show(best)}", [set_box(box, at_in=best)])] if best is not None else [],
            )  # fmt: skip
        for item in face.fixtures:
            if item.kind in HIDES and item.at_in < at < item.at_in + item.width_in and up < item.height_in:
                own = box.serves in (item.kind, "water_heater")
                if not own:
                    yield about_box(
                        view, box, "box-hidden", f"{box.name} is behind the {item.kind.replace('_', ' ')}",
                        "A box stays reachable.", "314.29", mends=_to_stud(view, box, face, at),
                    )  # fmt: skip


def valve_rule(view: RoomView) -> Iterator[Finding]:
    """The bay behind a shower valve stays free of a stud."""
    for face in view.faces:
        for item in face.fixtures:
            if item.kind != "shower_valve":
                continue
            middle = item.at_in + item.width_in / 2
            near = min((abs(stud.at_in - middle) for stud in face.full_studs), default=99.0)
            if near < STUD_IN / 2 + item.width_in / 2:
                shifts = [(shift, face.side.first_stud_in + shift) for shift in (6.0, -6.0, 8.0, -8.0)]
                best = shifts[0][1] if abs(shifts[0][1]) <= 24 else shifts[1][1]
                yield finding(
                    "valve-stud",
                    view.room.id,
                    None,
                    "A stud stands behind the shower valve",
                    f"Valve at {show(middle)} on the {face.wall.name} wall, a stud {show_inches(near)} off.",
                    "common practice, no source",
                    about="room",
                    room=view.room.id,
                    mends=[Mend("Shift the studs 6″", [set_side(view, face.wall.index, first_stud_in=best)])],
                )


def opener_rule(view: RoomView) -> Iterator[Finding]:
    """The outlet of a door opener 11 ft or more in from the door."""
    least = view.context.habits.opener_from_door_in
    doors = [(face, item) for face, item in view.doors if item.kind == "garage_door"]
    for box in view.boxes:
        spot = view.spot(box)
        if box.serves != "opener" or spot is None or not doors:
            continue
        face = doors[0][0]
        away = (face.wall.x0 - spot[0]) * face.wall.out[0] + (face.wall.y0 - spot[1]) * face.wall.out[1]
        if away < least - 1e-6 and box.side is None:
            shift = least - away
            moved = {"x_in": spot[0] - face.wall.out[0] * shift, "y_in": spot[1] - face.wall.out[1] * shift}
            yield about_box(
                view, box, "opener-near", f"{box.name} is {show(away)} from the door",
                "The rail and the head need 11 to 12 ft; a cord from 10 ft does not reach.",
                "common practice, no source", measured=show(away), limit=show(least),
                mends=[Mend(f"Move it back to {show(least)}", [set_box(box, **moved)])],
            )  # fmt: skip


RULES: tuple[Rule[RoomView], ...] = (
    fit_rule,
    depth_rule,
    model_rule,
    reach_rule,
    stud_rule,
    opener_rule,
    valve_rule,
)
