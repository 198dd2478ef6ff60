"""May a method go in a place: yes, if or no, with the section, and the ranking of what may."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import PlaceFacts, methods
from levelrun.core.trade.methods.conditions import CONDITIONS

Answer = Literal["yes", "if", "no"]
ORDER: dict[str, int] = {"yes": 0, "if": 1, "no": 2}


@dataclass(frozen=True)
class Reason:
    """A row of the table that holds here: section, what it says, its own answer, and the condition that holds."""

    rule: str
    text: str
    verdict: Answer
    condition: str = ""


@dataclass(frozen=True)
class Verdict:
    """The answer for one method: worst reason first; `needs` is what makes an "if" a yes."""

    method: str
    name: str
    verdict: Answer
    because: tuple[Reason, ...]
    needs: tuple[str, ...]


@lru_cache(maxsize=8192)
def judge(book: Codebook, method: str, facts: PlaceFacts) -> Verdict:
    """One method in one place. Every condition row that holds speaks; the worst decides."""
    rows = [
        row
        for row in book.table("method-conditions").rows
        if row["method"] == method and CONDITIONS[row["condition"]](facts)
    ]
    found = [Reason(row["section"], row["text"], row["verdict"], row["condition"]) for row in rows]  # type: ignore[arg-type]
    because = sorted([*_local(book, method, facts), *found], key=lambda reason: -ORDER[reason.verdict])
    answer = because[0].verdict
    needs = tuple(dict.fromkeys(row["need"] for row in rows if row["need"])) if answer == "if" else ()
    return Verdict(method, methods(book)[method].name, answer, tuple(because), needs)


def _local(book: Codebook, method: str, facts: PlaceFacts) -> Iterator[Reason]:
    """What the authority here forbids, whatever the table says."""
    pipe_only, outside = book.scalar("pipe_only"), book.scalar("pvc80_outside")
    if pipe_only.value and methods(book)[method].kind == "cable":
        yield Reason(pipe_only.section, "All pipe here: no cable.", "no")
    if outside.value and method == "PVC40" and facts.place == "outside_wall":
        yield Reason(outside.section, "PVC 80 on every outside wall here.", "no")


@dataclass(frozen=True)
class Work:
    """Material, labour and ease of change of a foot, for ranking. Common practice, no source."""

    dollar_per_ft: float
    minutes_per_ft: float
    change: int


def work_of(book: Codebook, method: str) -> Work:
    """Work figures of a method. Exact row."""
    row = book.table("method-work").get(method)
    return Work(float(row["dollar_per_ft"]), float(row["minutes_per_ft"]), int(row["change"]))


def rank_score(work: Work, dollars_per_hour: float) -> float:
    """Dollars a foot, material and labour, less 5 % a step of easier change. Lower is better."""
    spent = work.dollar_per_ft + work.minutes_per_ft * dollars_per_hour / 60
    return spent * (1 - 0.05 * (work.change - 1))


@lru_cache(maxsize=1024)
def ranked(book: Codebook, facts: PlaceFacts, dollars_per_hour: float = 65.0) -> tuple[Verdict, ...]:
    """Every method here: yes before if before no, and inside each the cheapest foot first."""
    verdicts = [judge(book, key, facts) for key in methods(book)]
    return tuple(
        sorted(verdicts, key=lambda v: (ORDER[v.verdict], rank_score(work_of(book, v.method), dollars_per_hour)))
    )
