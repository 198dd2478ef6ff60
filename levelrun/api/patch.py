"""What changed between two states of an answer, as JSON Patch (RFC 6902).

The parts of a plan are kept from one edit to the next, so what did not change is the same object: it is passed over
without being looked into, and never written out.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import fields, is_dataclass
from functools import lru_cache
from typing import Any, Literal

from pydantic import BaseModel

KEYS = ("id", "index", "box", "key")


class PatchOp(BaseModel):
    """One step of a JSON Patch; `value` is there for add and replace."""

    op: Literal["add", "remove", "replace"]
    path: str
    value: Any = None


def changed(before: Any, after: Any, path: str = "") -> Iterator[PatchOp]:
    """The steps that make `before` into `after`, both of one type."""
    if before is after:
        return
    names = _fields(_kind(after))
    if type(before) is not type(after):
        yield PatchOp(op="replace", path=path, value=after)
    elif names:
        for name in names:
            old, new = getattr(before, name), getattr(after, name)
            if old is not new:
                yield from changed(old, new, f"{path}/{name}")
    elif isinstance(after, list | tuple):
        yield from _listed(before, after, path)
    elif before != after:
        yield PatchOp(op="replace", path=path, value=after)


def _kind(thing: object) -> Any:
    return type(thing)


@lru_cache(maxsize=256)
def _fields(kind: Any) -> tuple[str, ...]:
    if not isinstance(kind, type):
        return ()
    if is_dataclass(kind):
        return tuple(field.name for field in fields(kind))
    return tuple(kind.model_fields) if issubclass(kind, BaseModel) else ()


def _listed(before: Sequence[Any], after: Sequence[Any], path: str) -> Iterator[PatchOp]:
    """A list: item by item where its items have a key of their own and what stays keeps its order; else whole."""
    key = _key(after or before)
    differ = [index for index, (old, new) in enumerate(zip(before, after, strict=False)) if old is not new]
    if len(before) == len(after) and key and all(_same_key(key, before[i], after[i]) for i in differ):
        for index in differ:
            yield from changed(before[index], after[index], f"{path}/{index}")
        return
    if not key and len(before) == len(after) and after and _fields(_kind(after[0])):
        for index, item in enumerate(after):
            if before[index] is not item and before[index] != item:
                yield from changed(before[index], item, f"{path}/{index}")
        return
    old, new = [getattr(item, key, None) for item in before], [getattr(item, key, None) for item in after]
    kept = set(old) & set(new)
    ordered = [item for item in old if item in kept] == [item for item in new if item in kept]
    if not key or not ordered or len(set(old)) < len(old) or len(set(new)) < len(new):
        if before != after:
            yield PatchOp(op="replace", path=path, value=after)
        return
    for index in reversed(range(len(old))):
        if old[index] not in kept:
            yield PatchOp(op="remove", path=f"{path}/{index}")
    stayed = {getattr(item, key): item for item in before}
    for index, item in enumerate(after):
        if new[index] not in kept:
            yield PatchOp(op="add", path=f"{path}/{index}", value=item)
        elif stayed[new[index]] is not item and stayed[new[index]] != item:
            yield from changed(stayed[new[index]], item, f"{path}/{index}")


def _same_key(key: str, old: Any, new: Any) -> bool:
    return type(old) is type(new) and getattr(old, key) == getattr(new, key)


def _key(items: Sequence[Any]) -> str:
    names = _fields(_kind(items[0])) if items else ()
    return next((key for key in KEYS if key in names), "")
