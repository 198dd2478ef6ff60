"""A panel as it is: spaces in two columns, the leg each meets, breakers, bars. Rows and columns, no pixels."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.circuits.panel_load import LegLoad
from levelrun.core.circuits.plan import CircuitSummary
from levelrun.core.circuits.spaces import leg_of
from levelrun.core.job import Panel


@dataclass(frozen=True)
class DrawnSpace:
    """One space: its row from the top, its side, its leg; tandem: may it take one."""

    space: int
    row: int
    side: str
    leg: str
    tandem: bool
    free: bool


@dataclass(frozen=True)
class DrawnBreaker:
    """A breaker on its space: `rows` it is tall; of a tandem the upper half a or the lower b."""

    circuit: str
    label: str
    name: str
    amps: float
    space: int
    row: int
    rows: int
    side: str
    half: str
    protection: str
    verdict: str


@dataclass(frozen=True)
class DrawnPanel:
    """The whole panel. `rows` of spaces; bars with their holes; the load on each leg."""

    id: str
    name: str
    rows: int
    main_a: float | None
    main_at: str
    bus_a: float
    bonded: bool
    sub: bool
    spaces: tuple[DrawnSpace, ...]
    breakers: tuple[DrawnBreaker, ...]
    legs: tuple[LegLoad, ...]
    neutrals: int
    neutral_holes: int
    ground_bar: bool
    lug_max: str
    free: int
    free_pairs: int
    words: str


def drawn_panel(
    panel: Panel, sub: bool, rows: Sequence[CircuitSummary], legs: Sequence[LegLoad], neutrals: int, words: str
) -> DrawnPanel:
    """The drawing of a panel from the summaries of its circuits."""
    taken = {s for c in rows if c.space for s in ((c.space, c.space + 2) if c.poles == 2 else (c.space,))}
    spaces = tuple(
        DrawnSpace(n, (n - 1) // 2, "left" if n % 2 else "right", leg_of(n), n in panel.tandem_spaces, n not in taken)
        for n in range(1, panel.spaces + 1)
    )
    breakers = tuple(
        DrawnBreaker(
            c.id, c.label, c.name, c.breaker_a, c.space, (c.space - 1) // 2, 2 if c.poles == 2 else 1,
            "left" if c.space % 2 else "right", c.half, c.protection, c.verdict,
        )
        for c in rows
        if c.space
    )  # fmt: skip
    free = {space.space for space in spaces if space.free}
    return DrawnPanel(
        panel.id,
        panel.name,
        (panel.spaces + 1) // 2,
        panel.main_a,
        panel.main_at,
        panel.bus_a,
        panel.bonded,
        sub,
        spaces,
        breakers,
        tuple(legs),
        neutrals,
        panel.neutral_holes,
        panel.ground_bar,
        panel.lug_max,
        len(free),
        sum(space + 2 in free for space in free),
        words,
    )
