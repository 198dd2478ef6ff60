"""What is worked out once: a hash for frozen dataclasses that are keys, answers that stand while what they were made
from is the very same, and values that stay the same object while they are equal."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import fields
from functools import lru_cache
from operator import is_
from typing import Any, Generic, TypeVar

Answer = TypeVar("Answer")
KEPT = "_kept_hash"


def kept_hash(self: Any) -> int:
    """The hash of all fields. Use as `__hash__ = kept_hash` in the body of a frozen dataclass."""
    try:
        return self.__dict__[KEPT]  # type: ignore[no-any-return]
    except KeyError:
        own = self.__dict__
        kept: int = hash(tuple([own[name] for name in _names(self.__class__)]))
        own[KEPT] = kept
        return kept


@lru_cache(maxsize=256)
def _names(kind: Hashable) -> tuple[str, ...]:
    """The fields of a dataclass, without what it worked out and keeps beside them."""
    return tuple(field.name for field in fields(kind))  # type: ignore[arg-type]


class _Last(Generic[Answer]):
    """The last value for each key; at most `size` keys are kept."""

    def __init__(self, size: int) -> None:
        self.size = size
        self._last: dict[Hashable, Answer] = {}

    def _keep(self, key: Hashable, value: Answer) -> None:
        if len(self._last) >= self.size:
            self._last.clear()
        self._last[key] = value

    def cache_clear(self) -> None:
        """Forgets all."""
        self._last.clear()


class Standing(_Last[tuple[tuple[Any, ...], Answer]], Generic[Answer]):
    """The last answer for each key, given again while all that it was made from is the same by identity.

    Parts of a job stay the same objects from one edit to the next, so an answer for a part that an edit did not touch
    is found without a hash of anything. What is equal but not the same is made anew.
    """

    def get(self, key: Hashable, source: tuple[Any, ...], make: Callable[[], Answer]) -> Answer:
        """The answer for `key` as `make` gives it, which asks nothing but what is in `key` and `source`."""
        last = self._last.get(key)
        if last is not None and len(last[0]) == len(source) and all(map(is_, last[0], source)):
            return last[1]
        made = make()
        self._keep(key, (source, made))
        return made


class Lasting(_Last[Answer]):
    """The last value for each key, given again in place of a new one that equals it: what is kept by identity with it
    stands."""

    def same(self, key: Hashable, value: Answer) -> Answer:
        """The value, or the one before it for this key where the two are equal."""
        last = self._last.get(key)
        if last is not None and last == value:
            return last
        self._keep(key, value)
        return value
