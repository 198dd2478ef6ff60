"""What was read when it was proved."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StringConstraints, model_validator

from levelrun.core.part import Frozen, Id, Text, plain
from levelrun.core.roughin.parts import Day, Hour, Who

StepKey = Annotated[str, StringConstraints(pattern=r"^[a-z_]{1,24}(:[A-Za-z0-9_-]{1,40})?$"), AfterValidator(plain)]
Meter = Literal["", "high", "low", "simulated"]
Word = Literal["", "yes", "no"]


class Measured(Frozen):
    """A reading of a step of proof: of a circuit or panel, a value in the step's own unit or a word, with which
    meter, when and by whom. Of several of one step the last one holds; all stay."""

    id: Id
    of: Id = Field(description="The circuit or panel that was tested")
    step: StepKey
    value: Annotated[float, Field(strict=True, ge=0, le=1e9, allow_inf_nan=False)] | None = None
    word: Word = ""
    meter: Meter = Field("", description="How it reads: high impedance, low impedance, or simulated")
    on: Day = ""
    hour: Hour = ""
    who: Who = ""
    remarks: Text = ""

    @model_validator(mode="after")
    def _says_something(self) -> Measured:
        if (self.value is None) is (self.word == ""):
            raise ValueError("value: a number or a word, one of them")
        return self
