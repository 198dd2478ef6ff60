"""How high a span hangs: table of 225.18 and 225.19, with the exceptions for roofs."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.errors import unknown

OVER = ("walk", "drive", "street", "roof")
LOW_V, HIGH_V = 300.0, 520.0  # between conductors: 150 and 300 V to ground
STEEP_IN_12 = 4.0
EAVE_FT, EAVE_RUN_FT = 4.0, 6.0


@dataclass(frozen=True, kw_only=True)
class Clearance:
    """Least height in feet, and from windows that open; `window_ok` None where no distance was given."""

    least_ft: float
    window_ft: float
    window_ok: bool | None
    rule: str
    note: str


def clearance(
    book: Codebook, over: str, volts: float = 240.0, *, slope_in_12: float | None = None,
    run_over_roof_ft: float | None = None, window_distance_ft: float | None = None,
) -> Clearance:  # fmt: skip
    """Least clearance of open spans over a walk, a drive of a dwelling, a street, or a roof. Exact row.

    volts between conductors. slope_in_12: of a roof, inches of rise in a foot. run_over_roof_ft: how far the span
    runs over the eave of the roof that it ends at, level. Raises UnknownKeyError.
    """
    if over not in OVER:
        raise unknown("over", over, OVER)
    table = book.table("overhead")
    note, key = "", {"walk": "pedestrians", "drive": "dwelling_driveway", "street": "street", "roof": "roof"}[over]
    if over == "walk" and volts > LOW_V:
        key = "dwelling_driveway"
    if over in ("walk", "drive") and volts > HIGH_V:
        key = "dwelling_over_300"
    if over == "roof" and volts <= LOW_V:
        if run_over_roof_ft is not None and 0 < run_over_roof_ft <= EAVE_FT:
            key = "roof_eave"
            note = f"only over the eave, up to {EAVE_RUN_FT:g} ft of wire, to a raceway through the roof"
        elif slope_in_12 is not None and slope_in_12 >= STEEP_IN_12:
            key, note = "roof_steep", "a roof of 4 in 12 or steeper, up to 300 V between conductors"
        else:
            note = "3 ft over a roof of 4 in 12 or steeper; 18 in where only the eave is crossed"
    row, window = table.get(key), table.get("window")
    near = None if window_distance_ft is None else window_distance_ft >= float(window["clearance_ft"]) - 1e-9
    return Clearance(
        least_ft=float(row["clearance_ft"]), window_ft=float(window["clearance_ft"]), window_ok=near,
        rule=row["section"], note=note,
    )  # fmt: skip
