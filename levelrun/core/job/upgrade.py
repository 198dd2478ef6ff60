"""Jobs of older versions, brought to the newest before they are read: files by format, stored parts by field."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, get_args

from annotated_types import Ge
from pydantic import BaseModel

from levelrun.core.boxes.parts import Box
from levelrun.core.job.from_two import as_three
from levelrun.core.site.parts import Structure

Raw = dict[str, Any]


def upgraded(raw: Raw) -> Raw:
    """A job of an older format version as the newest. Version 1 gave a structure only the height of its ceiling and
    of the floor under it: these become its levels. Version 2 had runs beside circuits: they become ways of them. A
    tick for an in-use cover became the kind of cover."""
    if raw.get("format_version") == 1:
        raw = _as_two(raw)
    if raw.get("format_version") == 2:
        raw = as_three(raw)
    boxes = raw.get("boxes")
    if isinstance(boxes, list):
        raw = {**raw, "boxes": [box_upgraded(item) if isinstance(item, dict) else item for item in boxes]}
    return raw


def _as_two(raw: Raw) -> Raw:
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


def box_upgraded(raw: Raw) -> Raw:
    """A box whose in-use cover was a tick, with its kind of cover."""
    if "covered" not in raw:
        return raw
    kept = {key: value for key, value in raw.items() if key != "covered"}
    return {"cover": "in_use", **kept} if raw["covered"] is True else kept


def brought_up(model: type[BaseModel], raw: Raw) -> Raw:
    """A stored part as this version takes it: a number under the least of its field, as older versions took it, at
    that least; the parts inside it too. What is not a number stays for the model to judge."""
    found = UPGRADES[model](raw) if model in UPGRADES else dict(raw)
    for name, field in model.model_fields.items():
        value = found.get(name)
        inner = next((kind for kind in (field.annotation, *get_args(field.annotation)) if _is_model(kind)), None)
        if inner is not None and isinstance(value, dict):
            found[name] = brought_up(inner, value)
        elif inner is not None and isinstance(value, list | tuple):
            found[name] = [brought_up(inner, item) if isinstance(item, dict) else item for item in value]
        least = next((rule.ge for rule in field.metadata if isinstance(rule, Ge)), None)
        if least is not None and isinstance(value, int | float) and value < least:  # type: ignore[operator]
            found[name] = least
    return found


UPGRADES: dict[type[BaseModel], Callable[[Raw], Raw]] = {Structure: structure_upgraded, Box: box_upgraded}


def _is_model(kind: object) -> bool:
    return isinstance(kind, type) and issubclass(kind, BaseModel)
