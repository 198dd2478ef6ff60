"""Job files of an older format, brought to the newest before they are read."""

from __future__ import annotations

from typing import Any

Raw = dict[str, Any]


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
