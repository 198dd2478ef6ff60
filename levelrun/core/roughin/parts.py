"""Holds and ticks: what was done when, and what may not be closed before somebody has seen it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import StringConstraints

from levelrun.core.part import Frozen, Id, Text

Day = Annotated[str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2})?$")]
Who = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]


class Tick(Frozen):
    """A step of work that is done: on which day, and why, where it was done out of turn."""

    step: Annotated[str, StringConstraints(pattern=r"^[a-z_]{1,20}$")]
    on: Day = ""
    why: Text = ""


class Hold(Frozen):
    """What is kept open until it is seen: its kind, the part that it holds, and who lifted it on which day. While
    `lifted_by` is empty it holds."""

    id: Id
    kind: Literal["backfill"] = "backfill"
    place: Id
    lifted_by: Who = ""
    lifted_on: Day = ""
    remarks: Text = ""
