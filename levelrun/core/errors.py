"""One base for everything the core refuses. A message names the value and what is allowed."""

from __future__ import annotations

from collections.abc import Iterable


class LevelRunError(ValueError):
    """A value was refused.

    key: the field that holds it; value: what was given; allowed: what would be taken;
    at: character position in the text, where the value came as text.
    """

    def __init__(
        self,
        message: str,
        *,
        key: str = "",
        value: object = None,
        allowed: Iterable[str] = (),
        at: int | None = None,
    ) -> None:
        super().__init__(message)
        self.message = message
        self.key = key
        self.value = value
        self.allowed = list(allowed)
        self.at = at


class UnknownKeyError(LevelRunError):
    """A table has no such row."""


class NotBuriableError(LevelRunError):
    """The method may not lie in the earth at all."""


class MeasureError(LevelRunError):
    """A length could not be read."""


class TextError(LevelRunError):
    """A typed line could not be read; `at` says where."""


class EditError(LevelRunError):
    """An edit does not fit the job."""


def unknown(key: str, value: object, allowed: Iterable[str]) -> UnknownKeyError:
    """The error for a key that a table does not have."""
    names = list(allowed)
    return UnknownKeyError(
        f"{key} {value!r} is not known; allowed: {', '.join(names)}", key=key, value=value, allowed=names
    )
