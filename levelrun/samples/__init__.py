"""Jobs that ship: Quince Hollow, an invented property, and a sound small job for each kind of structure."""

from __future__ import annotations

from importlib import resources

from levelrun.core.errors import unknown
from levelrun.core.job import Job
from levelrun.exchange.job_file import read_job

SAMPLES = {
    "quince-hollow": "Quince Hollow (demo)",
    "house": "House",
    "shop": "Shop",
    "cabin": "Cabin",
    "shed": "Shed",
}


def sample(key: str) -> Job:
    """A sample job by key. Raises UnknownKeyError."""
    if key not in SAMPLES:
        raise unknown("sample", key, SAMPLES)
    return read_job((resources.files(__package__) / f"{key}.levelrun.json").read_bytes())
