"""What every question of the contract shares."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field

from levelrun.core.codebook import Codebook, load

Positive = Annotated[float, Field(strict=True, gt=0, le=1e6)]
NotNegative = Annotated[float, Field(strict=True, ge=0, le=1e6)]
Count = Annotated[int, Field(strict=True, ge=1, le=500)]
Few = Annotated[int, Field(strict=True, ge=0, le=500)]
Key = Annotated[str, Field(max_length=20)]


class Part(BaseModel):
    """Base of what stands inside a question."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Question(Part):
    """Base of every question: unknown keys, NaN and infinities are refused."""

    rules: Key = "us-2023"

    def book(self) -> Codebook:
        """The rule set asked for."""
        return load(self.rules)


class Answer(BaseModel):
    """Base of every answer: the section or table, and where its values come from."""

    rule: str
    basis: str


def told(book: Codebook, answer: object) -> dict[str, Any]:
    """The fields of an answer, its rule as the rule set asked for numbers it."""
    return {**vars(answer), "rule": book.told(vars(answer)["rule"])}


def basis_of(book: Codebook, table: str) -> str:
    """Basis of a table."""
    return book.table(table).head.basis
