"""A home with a room of each kind, each with its boxes: what the tests of places start from."""

from __future__ import annotations

from typing import Any

from levelrun.core.job import Job
from tests.conftest import built, edited

PLACES = (
    "panel west 4' spaces 40 as P; "
    "room Bath 9' x 12' as bath; mark tub north 5' at 0'; set receptacle south 4' as B-1; "
    "room Den 14' x 20' east of Bath as common; mark shower west 3' at 0'; set receptacle west 5' as D-1; "
    "set receptacle west 14' as D-2; set equipment east 4' as D-3; set light centre as D-4; "
    "set receptacle north 8' outside as O-1; set equipment north 11' outside as O-2; "
    "set light north 12' outside as O-3; "
    "room Kitchen 12' x 12' south of Den as kitchen; mark counter south 8' at 2'; mark sink south 3' at 4'; "
    "set receptacle south 3' for counter as K-1; set receptacle north 11'4 as K-2; "
    "set equipment east 3' for dishwasher as K-3; set equipment east 6' for oven as K-4; "
    "set receptacle north 2' for range as K-5; "
    "room Bed 12' x 12' south of Kitchen as bedroom; set receptacle south 6' as S-1; set light centre as S-2; "
    "room Garage 20' x 20' west of Kitchen as garage; set receptacle west 6' as G-1; set light centre as G-2; "
    "room Laundry 8' x 8' south of Garage as laundry; set receptacle south 2' for washer as W-1; "
    "set receptacle south 6' for dryer as W-2"
)


def place_job() -> Job:
    text = PLACES.split("; ")
    return built("; ".join([*text[1:3], text[0], *text[3:]]))


HOME = place_job()


def on_circuit(boxes: str, amps: float = 20.0, volts: int = 120, job: Job | None = None, **sets: Any) -> Job:
    """The home with boxes, named one after another, on a plain breaker."""
    job = job or HOME
    by_name = {item.name: item.id for item in job.boxes}
    chain = [by_name[name] for name in boxes.split()]
    hops = [{"box": at, "after": after} for at, after in zip(chain, (None, *chain), strict=False)]
    item = {
        "id": "c", "name": "One", "panel": job.panels[0].id, "space": 1, "breaker_a": amps, "volts": volts,
        "poles": 2 if volts == 240 else 1, "wire_size": "6", "chain": hops, **sets,
    }  # fmt: skip
    return edited(job, {"op": "add", "kind": "circuit", "item": item})
