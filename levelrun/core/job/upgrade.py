"""Job files of an older format, brought to the newest before they are read."""

from __future__ import annotations

from typing import Any

Raw = dict[str, Any]
LEAST_SPACING_IN = 6.0


def upgraded(raw: Raw) -> Raw:
    """A job of format version 1 as version 2; a newer one as it is. Version 1 gave a structure only the height
    of its ceiling and of the floor under it: these become its levels."""
    if raw.get("format_version") != 1:
        return raw
    structures = raw.get("structures", [])
    if isinstance(structures, list):
        structures = [structure_upgraded(item) if isinstance(item, dict) else item for item in structures]
    return {**raw, "format_version": 2, "structures": structures}


def structure_upgraded(raw: Raw) -> Raw:
    """One structure of version 1 with its heights as levels; one of version 2 as it is."""
    if "ceiling_in" not in raw and "under_floor_in" not in raw:
        return raw
    kept = {key: value for key, value in raw.items() if key not in ("ceiling_in", "under_floor_in")}
    if raw.get("kind") == "yard":
        return kept
    ceiling, under = raw.get("ceiling_in", 96), raw.get("under_floor_in")
    levels = [{"id": f"{raw.get('id')}-floor", "name": "Main floor", "kind": "floor", "height_in": ceiling}]
    if isinstance(under, int | float):
        crawl = {"id": f"{raw.get('id')}-crawl", "name": "Crawl space", "kind": "crawl"}
        levels.append({**crawl, "floor_in": under, "height_in": max(-under - 12, 12)})
    return {**kept, "levels": levels}


def room_upgraded(raw: Raw) -> Raw:
    """A room with studs nearer than any that are set, as older versions took them: at the nearest that are."""
    sides = raw.get("sides")
    if not isinstance(sides, list | tuple):
        return raw
    return {**raw, "sides": [_spaced(side) if isinstance(side, dict) else side for side in sides]}


def _spaced(side: Raw) -> Raw:
    spacing = side.get("spacing_in")
    near = isinstance(spacing, int | float) and spacing < LEAST_SPACING_IN
    return {**side, "spacing_in": LEAST_SPACING_IN} if near else side
