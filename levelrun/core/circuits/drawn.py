"""A panel as it is: spaces in two columns, the leg each meets, breakers, bars. Rows and columns, no pixels."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.circuits.circuit_plan import CircuitSummary
from levelrun.core.circuits.panel_load import LegLoad
from levelrun.core.circuits.spaces import leg_of
from levelrun.core.job import Panel


@dataclass(frozen=True, kw_only=True)
class DrawnSpace:
    """One space: its row from the top, its side, its leg; tandem: may it take one; other: a breaker of other work."""

    space: int
    row: int
    side: str
    leg: str
    tandem: bool
    free: bool
    other: bool


@dataclass(frozen=True, kw_only=True)
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


@dataclass(frozen=True, kw_only=True)
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
    panel: Panel,
    sub: bool,
    rows: Sequence[CircuitSummary],
    legs: Sequence[LegLoad],
    neutrals: int,
    words: str,
    lugs: str,
) -> DrawnPanel:
    """The drawing of a panel from the summaries of its circuits; `lugs`: what its main lugs take."""
    others = set(panel.taken)
    taken = {s for c in rows if c.space for s in ((c.space, c.space + 2) if c.poles == 2 else (c.space,))}
    spaces = tuple(
        DrawnSpace(
            space=n,
            row=(n - 1) // 2,
            side="left" if n % 2 else "right",
            leg=leg_of(n),
            tandem=n in panel.tandem_spaces,
            free=n not in taken and n not in others and panel.free_said is None,
            other=n in others,
        )
        for n in range(1, panel.spaces + 1)
    )
    breakers = tuple(
        DrawnBreaker(
            circuit=c.id,
            label=c.label,
            name=c.name,
            amps=c.breaker_a,
            space=c.space,
            row=(c.space - 1) // 2,
            rows=2 if c.poles == 2 else 1,
            side="left" if c.space % 2 else "right",
            half=c.half,
            protection=c.protection,
            verdict=c.verdict,
        )
        for c in rows
        if c.space
    )
    free = {space.space for space in spaces if space.free}
    return DrawnPanel(
        id=panel.id,
        name=panel.name,
        rows=(panel.spaces + 1) // 2,
        main_a=panel.main_a,
        main_at=panel.main_at,
        bus_a=panel.bus_a,
        bonded=panel.bonded,
        sub=sub,
        spaces=spaces,
        breakers=breakers,
        legs=tuple(legs),
        neutrals=neutrals,
        neutral_holes=panel.neutral_holes,
        ground_bar=panel.ground_bar,
        lug_max=lugs,
        free=len(free),
        free_pairs=sum(space + 2 in free for space in free),
        words=words,
    )
