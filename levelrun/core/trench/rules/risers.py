"""Rules about what comes up out of a trench: guards, slip joints."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import raceway_sizes
from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.trench.codes import finding
from levelrun.core.trench.facts import Lain, TrenchFacts
from levelrun.core.trench.rules.dig import about, change
from levelrun.core.ways.mends import set_leg


def risers_of(item: Lain) -> list[int]:
    """The upright legs that a way comes into a trench by, and leaves it by: those that touch it."""
    found = [item.laid.first - 1, item.laid.last + 1]
    return [index for index in found if index in item.view.indexes and item.view.placed[index].vertical]


def guard_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """Direct-buried cable comes up in a pipe that stands a blow, from 18 in under the ground, or the cover that it
    needs where that is less, up to 8 ft (300.5(D)(1)). A pipe that may be hit is asked about where it stands."""
    least = facts.book.scalar("riser_below_in")
    for item in facts.lain:
        for index in risers_of(item):
            leg = item.view.way.legs[index]
            if item.piped or leg.sleeve or item.view.methods[index].kind == "raceway":
                continue
            beside = item.laid.first if index < item.laid.first else item.laid.last
            need = dict(zip(item.legs, item.needs, strict=True)).get(beside)
            deep = min(least.value, need.cover_in) if need else least.value
            size = sleeve_size(facts.book, item.outer_in)
            sleeve = [set_leg(item.view, index, method="PVC80", size=size, sleeve=True)]
            yield finding(
                "riser-guard", item.way, index, f"{item.view.methods[index].name} comes bare out of the ground",
                f"From {show_inches(deep)} under the ground up to 8′ it wants a pipe round it: schedule 80 or steel, "
                "with a bushing below where it goes in.", least.section, measured="no pipe",
                limit="schedule 80 or steel", mends=[Mend(f"Schedule 80, {size}″", sleeve)] if size else [],
            )  # fmt: skip


def sleeve_size(book: Codebook, wide_in: float) -> str:
    """The smallest schedule 80 that a cable passes through with a quarter to spare. Next size up; empty over all."""
    sizes = raceway_sizes(book, "PVC80")
    return next((pipe.size for pipe in sizes if pipe.inner_in >= 1.25 * wide_in), "")


def slip_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """Where the ground settles or heaves a riser slips (300.5(J))."""
    if facts.trench.moves is None:
        if any(risers_of(item) for item in facts.lain):
            yield about(
                facts, "ground-moves", "Does the ground settle or heave there?",
                "New fill settles, wet ground heaves with frost: then each riser wants a slip joint.", "300.5(J)",
                mends=[
                    Mend("It stays", [change(facts, moves=False)]), Mend("It moves", [change(facts, moves=True)]),
                ],
            )  # fmt: skip
        return
    for item in facts.lain if facts.trench.moves else ():
        stiff = [i for i in risers_of(item) if item.view.methods[i].kind == "raceway"]
        bare = [i for i in stiff if not item.view.way.legs[i].expansion]
        if bare:
            yield finding(
                "slip-joint", item.way, bare[0], f"{item.name}: a slip joint in {len(bare)} "
                f"riser{'s' if len(bare) > 1 else ''}",
                "The pipe goes down with the ground, the LB stays on the wall.",
                "300.5(J), 352.44", mends=[
                    Mend("Put them in", [set_leg(item.view, i, expansion=True) for i in bare]),
                    Mend("The ground stays", [change(facts, moves=False)]),
                ],
            )  # fmt: skip


RULES: tuple[Rule[TrenchFacts], ...] = (guard_rule, slip_rule)
