"""What a field of a part may hold, read off its model: for forms, and to see that every field has its place there."""

from __future__ import annotations

import types
from dataclasses import dataclass
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from annotated_types import Ge, Gt, Le, Lt
from pydantic.fields import FieldInfo

from levelrun.core.part import Frozen

FieldType = Literal["choice", "yes_no", "number", "text", "parts"]


@dataclass(frozen=True, kw_only=True)
class FieldWord:
    """A field: its type, what may be chosen, whether it may be left open (null), its least and greatest number."""

    name: str
    type: FieldType
    choices: tuple[str | int, ...] = ()
    open: bool = False
    least: float | None = None
    most: float | None = None


def fields_of(model: type[Frozen]) -> tuple[FieldWord, ...]:
    """The fields of `model` in their order, its id left out."""
    return tuple(_word(name, info) for name, info in model.model_fields.items() if name != "id")


def _word(name: str, info: FieldInfo) -> FieldWord:
    kind, rules = bare(info.annotation)
    rules = [*info.metadata, *rules]
    least = next((r.ge if isinstance(r, Ge) else r.gt for r in rules if isinstance(r, Ge | Gt)), None)
    most = next((r.le if isinstance(r, Le) else r.lt for r in rules if isinstance(r, Le | Lt)), None)
    open_ = type(None) in get_args(info.annotation)
    if get_origin(kind) is Literal:
        return FieldWord(name=name, type="choice", choices=get_args(kind), open=open_)
    if kind is bool:
        return FieldWord(name=name, type="yes_no", open=open_)
    if kind in (int, float):
        return FieldWord(name=name, type="number", open=open_, least=_number(least), most=_number(most))
    return FieldWord(name=name, type="text" if kind is str else "parts", open=open_)


def _number(limit: object) -> float | None:
    return float(limit) if isinstance(limit, int | float) else None


def bare(kind: Any) -> tuple[Any, list[object]]:
    """A type without its null and its limits, and these limits."""
    if get_origin(kind) in (Union, types.UnionType):
        inner = [one for one in get_args(kind) if one is not type(None)]
        return bare(inner[0]) if len(inner) == 1 else (kind, [])
    if get_origin(kind) is Annotated:
        first, *limits = get_args(kind)
        inner_kind, more = bare(first)
        flat: list[object] = []
        for limit in limits:
            flat.extend(limit.metadata if isinstance(limit, FieldInfo) else [limit])
        return inner_kind, [*flat, *more]
    return kind, []
