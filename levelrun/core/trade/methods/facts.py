"""What a place is like for one leg: the usual facts of such a place with the changes said."""

from __future__ import annotations

from dataclasses import fields, replace
from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import PlaceFacts, place

CHANGEABLE = ("moisture", "exposed", "damage", "sunlight", "ambient_c", "insulation", "above")


def facts_of(book: Codebook, place_key: str, changes: dict[str, Any]) -> PlaceFacts:
    """The facts of a place; `changes` maps changeable names to values, None meaning as usual.

    A caller's `above` wins over the place's own. Raises UnknownKeyError for an unknown place.
    """
    usual = place(book, place_key)
    said = {name: value for name, value in changes.items() if value is not None}
    if "above" in said and not usual.above:
        del said["above"]
    assert set(said) <= {item.name for item in fields(usual)}
    return replace(usual, **said)
