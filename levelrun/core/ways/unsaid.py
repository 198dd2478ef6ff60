"""Climbs that nobody walked: a leg over a ceiling, under a floor or in the earth that begins or ends at what stands
in a wall, with no leg up or down between. The leg lies where its place is, what stands there where it stands."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from levelrun.core.job import Box, Leg, Panel, Structure

UPRIGHT = ("up", "down")
OVERHEAD, UNDERFOOT = ("attic", "ceiling_joists"), ("crawl_space",)
EARTH = ("trench", "driveway_trench", "under_building", "under_slab")
LEAST_IN = 12.0  # less is the way out of a box or panel
USUAL_CEILING_IN = 96.0  # where no floor of a building is said
USUAL_COVER_IN = 18.0  # of what is buried and not taped, in the drawing


def up_to(node: Panel | Box, structure: Structure, place: str) -> float | None:
    """Inches up (down: less than 0) from what stands there to the ceiling over it or to the floor under it, by where
    a leg lies; from a panel's top and bottom. None where the leg lies elsewhere, or where it is less than a foot."""
    if place not in (*OVERHEAD, *UNDERFOOT):
        return None
    floors = [(x.floor_in, x.floor_in + x.height_in) for x in structure.levels if x.kind == "floor"]
    here = next((x for x in floors or [(0.0, USUAL_CEILING_IN)] if x[0] <= node.height_in <= x[1]), None)
    if here is None:
        return None
    tall = 0.0 if isinstance(node, Box) else node.tall_in
    gap = here[1] - node.height_in - tall if place in OVERHEAD else here[0] - node.height_in
    return gap if abs(gap) >= LEAST_IN and (gap > 0) == (place in OVERHEAD) else None


def down_to(node: Panel | Box, structure: Structure, depth_in: float | None) -> float | None:
    """Inches from what stands over ground to what is buried beside it, less than 0; None where it stands lower."""
    over = node.height_in - structure.grade_in
    return -over - (depth_in if depth_in is not None else USUAL_COVER_IN) if over >= LEAST_IN else None


Gap = Callable[[int, Leg], float]


def climbs(legs: Sequence[Leg], gap: Gap) -> dict[int, tuple[float, float]]:
    """The climbs to a level leg and from it that nobody walked, inches up, by leg. `gap`: from what stands after so
    many legs to where a leg beside it lies, 0 where that is walked or nothing stands there. A leg that is come to so
    and left by a level one elsewhere is left as it was come to; one to which nobody walked lies as
    its end has it, else as over or under where the way begins."""
    found: dict[int, tuple[float, float]] = {}
    walked = False
    for index, leg in enumerate(legs):
        if leg.go in UPRIGHT:
            walked = True
            continue
        to_it, from_it = gap(index, leg), -gap(index + 1, leg)
        after = legs[index + 1] if index + 1 < len(legs) else None
        if not to_it and not walked:
            to_it = -from_it or gap(0, leg)
        elif not from_it and after is not None and after.go not in UPRIGHT and after.place != leg.place:
            from_it = -to_it
        if to_it or from_it:
            found[index] = (to_it, from_it)
    return found
