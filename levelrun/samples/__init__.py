"""Jobs that ship: Quince Hollow, an invented property, and a sound small job for each kind of structure."""

from __future__ import annotations

from functools import cache
from importlib import resources

from levelrun.core.errors import unknown
from levelrun.core.job import Job
from levelrun.exchange.job_file import read_job
from levelrun.store.pictures import SIZES, Pictures

SAMPLES = {
    "quince-hollow": "Quince Hollow (demo)",
    "house": "House",
    "shop": "Shop",
    "cabin": "Cabin",
    "shed": "Shed",
}


@cache
def sample(key: str) -> Job:
    """A sample job by key, the same one each time, with what was planned of it. Raises UnknownKeyError."""
    if key not in SAMPLES:
        raise unknown("sample", key, SAMPLES)
    return read_job((resources.files(__package__) / f"{key}.levelrun.json").read_bytes())


def keep_sample_pictures(pictures: Pictures) -> None:
    """Keep the pictures of the demo: drawings that say so, since nobody photographed an invented house."""
    folder = resources.files(__package__) / "pictures"
    names = {item.name.partition(".")[0] for item in folder.iterdir() if item.name.endswith(".kept.jpg")}
    for sha in names:
        if not pictures.has(sha):
            pictures.keep(sha, {size: (folder / f"{sha}.{size}.jpg").read_bytes() for size in SIZES})
