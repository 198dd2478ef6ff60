"""The box catalogue: sizes, depth and volume of typical new-work boxes."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.errors import unknown
from levelrun.core.job import Box

WEATHERPROOF = "weather-18"
METAL_ROUND, METAL_SQUARE = "octagon-15", ("square-21", "square-30")  # of one gang, of two
UNNAILED = ("equipment", "disconnect", "tail")


@dataclass(frozen=True, kw_only=True)
class BoxModel:
    """One row of the catalogue, inches and cubic inches."""

    key: str
    name: str
    material: str
    gangs: int
    wide_in: float
    tall_in: float
    depth_in: float
    volume_in3: float
    clamps: bool
    fan_rated: bool
    usual: tuple[str, ...]

    @property
    def metal(self) -> bool:
        """Made of metal."""
        return self.material in ("steel", "metal")

    @property
    def round(self) -> bool:
        """Takes no device plate: round or octagonal."""
        return self.key.partition("-")[0] in ("round", "octagon", "fan")


@lru_cache(maxsize=64)
def box_models(book: Codebook) -> dict[str, BoxModel]:
    """The whole catalogue by key."""
    return {
        row["box"]: BoxModel(
            key=row["box"],
            name=row["name"],
            material=row["material"],
            gangs=int(row["gangs"]),
            wide_in=float(row["wide_in"]),
            tall_in=float(row["tall_in"]),
            depth_in=float(row["depth_in"]),
            volume_in3=float(row["volume_in3"]),
            clamps=row["clamps"] == "yes",
            fan_rated=row["fan_rated"] == "yes",
            usual=tuple(row["usual"].split("|")),
        )
        for row in book.table("boxes").rows
    }


@lru_cache(maxsize=512)
def usual_model(book: Codebook, kind: str, gangs: int) -> BoxModel:
    """The box usually taken for a kind: exact gangs where the kind is ganged, else the first that serves it."""
    rows = [model for model in box_models(book).values() if kind in model.usual]
    return next((model for model in rows if model.gangs == gangs), rows[0])


def model_of(book: Codebook, box: Box) -> BoxModel:
    """The catalogue row of a box: the one named, else the usual one. Raises UnknownKeyError that lists all."""
    if not box.model:
        return usual_model(book, box.kind, box.gangs)
    found = box_models(book).get(box.model)
    if found is None:
        raise unknown("model", box.model, box_models(book))
    return found


def metal_model(book: Codebook, box: Box, now: BoxModel) -> BoxModel:
    """The box that is taken in place of a plastic one where metal pipe or armour enters (314.3), or that stands on an
    outer wall: outdoors a weatherproof one, round an octagon, else a 4 in square under its cover or ring. The one at
    hand where it is of metal, or has more gangs than these have."""
    if now.metal:
        return now
    if now.round:
        return box_models(book)[METAL_ROUND]
    if box.gangs > len(METAL_SQUARE):
        return now
    return box_models(book)[WEATHERPROOF if box.outdoors and box.gangs == 1 else METAL_SQUARE[box.gangs - 1]]


def next_volume(book: Codebook, box: Box, now: BoxModel, needed_in3: float, most_depth_in: float) -> BoxModel | None:
    """The smallest box of the same use as the one at hand that holds the wires and is no deeper than what is clear,
    or None."""
    fitting = [m for m in _fitting(book, box, now, most_depth_in) if m.volume_in3 >= needed_in3]
    alike = [model for model in fitting if _alike(model, now, box)]
    if box.kind in ("receptacle", "switch", "device"):
        fitting = [model for model in fitting if not model.round]
    return min(alike or fitting, key=lambda model: (model.gangs, model.volume_in3), default=None)


def grown(book: Codebook, box: Box, now: BoxModel, most_depth_in: float) -> list[BoxModel]:
    """The larger boxes of the gangs of one, round or not as it is, no deeper than what is clear: those of its form
    and material first, the smallest before."""
    found = [
        model
        for model in _fitting(book, box, now, most_depth_in)
        if model.gangs == now.gangs and model.volume_in3 > now.volume_in3 and model.round == now.round
    ]
    return sorted(found, key=lambda model: (not _alike(model, now, box), model.volume_in3))


def _fitting(book: Codebook, box: Box, now: BoxModel, most_depth_in: float) -> list[BoxModel]:
    return [
        model
        for model in box_models(book).values()
        if model.gangs >= now.gangs
        and model.depth_in <= most_depth_in
        and (model.fan_rated or not now.fan_rated)
        and (box.outdoors or model.key != WEATHERPROOF)
    ]


def _alike(model: BoxModel, now: BoxModel, box: Box) -> bool:
    """Round stays round, square stays square, device boxes stay device boxes, of one material but for a junction."""
    form = model.round == now.round and (model.wide_in == model.tall_in) == (now.wide_in == now.tall_in)
    return form and (model.material == now.material or box.kind == "junction")
