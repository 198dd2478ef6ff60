"""The conditions of the method table, each a small function of a place's facts."""

from __future__ import annotations

from collections.abc import Callable

from levelrun.core.codebook.lookups import PlaceFacts

HOT_C = 50.0


def is_buried(facts: PlaceFacts) -> bool:
    """In the earth: the place carries what lies above it."""
    return facts.above != ""


def is_in_air(facts: PlaceFacts) -> bool:
    """Spans the air between buildings."""
    return facts.place == "overhead"


CONDITIONS: dict[str, Callable[[PlaceFacts], bool]] = {
    "always": lambda facts: True,
    "damp": lambda facts: facts.moisture == "damp",
    "wet": lambda facts: facts.moisture == "wet",
    "buried": is_buried,
    "under_building": lambda facts: facts.above == "under_building",
    "in_air": is_in_air,
    "not_in_air": lambda facts: not is_in_air(facts),
    "outdoors": lambda facts: facts.outdoors,
    "indoors": lambda facts: not facts.outdoors,
    "hit": lambda facts: facts.damage is True,
    "hit_unknown": lambda facts: facts.damage is None,
    "sun": lambda facts: facts.sunlight,
    "hot": lambda facts: facts.ambient_c > HOT_C,
    "under_joists": lambda facts: facts.place in ("crawl_space", "basement"),
    "tail": lambda facts: facts.place == "equipment_tail",
    "attic": lambda facts: facts.place == "attic",
    "exposed": lambda facts: facts.exposed,
    "insulated": lambda facts: facts.insulation,
}
