"""What every part of a job is made of: immutable models, and the types of their fields."""

from __future__ import annotations

import unicodedata
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints


def plain(text: str) -> str:
    bad = [char for char in text if unicodedata.category(char) in ("Cc", "Cs", "Co", "Cn")]
    if bad:
        raise ValueError(f"has a character that cannot be printed: {bad[0]!r}")
    return text


Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), AfterValidator(plain)]
Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=500), AfterValidator(plain)]
Supplier = Annotated[str, StringConstraints(strip_whitespace=True, max_length=40), AfterValidator(plain)]
Id = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,40}$")]
Size = Annotated[str, StringConstraints(pattern=r"^[0-9/-]{0,8}$")]
Inches = Annotated[float, Field(strict=True, ge=0, le=120_000, allow_inf_nan=False)]
School = Literal["cheapest", "studs", "over", "under"]  # how cables go through a frame
Height = Annotated[float, Field(strict=True, ge=-1200, le=6000, allow_inf_nan=False)]


class Frozen(BaseModel):
    """Base of the job's parts: immutable, unknown keys refused, no NaN. Its hash is worked out once."""

    __slots__ = ("_hash",)
    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    def __hash__(self) -> int:
        try:
            kept: int = object.__getattribute__(self, "_hash")
        except AttributeError:
            kept = hash((type(self), *self.__dict__.values()))
            object.__setattr__(self, "_hash", kept)
        return kept
