"""One way to run rules: each is a function of what it looks at that yields findings; here they are cited as the rule
set cites them, sorted worst first, and what was planned from the same things is kept."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from functools import lru_cache, wraps
from typing import Any, ParamSpec, TypeVar

from levelrun.core.codebook import Codebook
from levelrun.core.findings import SEVERITY_ORDER, Figure, Finding
from levelrun.core.measure import shown_in

Facts = TypeVar("Facts")
Rule = Callable[[Facts], Iterable[Finding]]
P = ParamSpec("P")
Answer = TypeVar("Answer")
Sourced = TypeVar("Sourced", bound=Any)


def judged(book: Codebook, rules: Iterable[Rule[Facts]], facts: Facts) -> list[Finding]:
    """What the rules say about `facts`, in the section numbers of the rule set, worst first, else in rule order."""
    said = (item for rule in rules for item in rule(facts))
    return sorted(cited(book, said), key=lambda item: SEVERITY_ORDER[item.severity])


def cited(book: Codebook, said: Iterable[Finding]) -> Iterator[Finding]:
    """Findings with their sections as the rule set numbers them. Where the set has no word of its own, a stop of the
    set under it becomes a question: no stop cites another country's book."""
    for item in said:
        section = book.covered(item.section)
        if section == item.section:
            yield item
        elif section or item.decided_by == "note":
            yield replace(item, section=section or item.section)
        else:
            text = f"{item.text} So the US code; {book.title} is not covered here: ask."
            severity = "check" if item.severity == "stop" else item.severity
            yield replace(item, section=f"not covered by {book.title}", severity=severity, text=text)


def sourced(book: Codebook, figures: Iterable[Figure]) -> list[Figure]:
    """Figures with their sections as the rule set numbers them; where it has no word of its own that is said."""
    return [with_source(book, item) for item in figures]


def with_source(book: Codebook, item: Sourced) -> Sourced:
    """Whatever has a section as its `rule`, with it as the rule set numbers it; itself where that is the same."""
    told = book.told(item.rule)
    return item if told == item.rule else replace(item, rule=told)


def keeping(size: int) -> Callable[[Callable[P, Answer]], Callable[P, Answer]]:
    """Keeps the last `size` answers of a planner whose first argument is the rule set and whose others are hashable,
    and lets it show lengths in the units of that rule set."""

    def decorate(planner: Callable[P, Answer]) -> Callable[P, Answer]:
        def measured(*args: Any, **named: Any) -> Answer:
            with shown_in(args[0].units):
                return planner(*args, **named)

        return wraps(planner)(lru_cache(maxsize=size)(measured))  # type: ignore[return-value]

    return decorate
