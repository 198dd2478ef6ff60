"""The order of work at a trench, and what must not be passed: marks, and the inspection that holds the backfill."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.job import Hold, Job, Tick, Trench

STEPS = ("marks", "dig", "lay", "tubes", "photo", "inspection", "fill", "ribbon", "rest")
HELD = "inspection"
NEEDED = {"marks": (), "dig": ("marks",), "lay": ("dig",), "tubes": ("lay",), "photo": ("lay",)}
TITLES = {
    "marks": "Marks called, and waited for", "dig": "Dig", "lay": "Lay, whole and glued",
    "tubes": "Sight tubes up, read",
    "photo": "Photo with the tape in it", "inspection": "Inspection", "fill": "Clean fill to 12″ over it",
    "ribbon": "Ribbon", "rest": "The rest of the fill",
}  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class TrenchStep:
    """One step: its state is done, next, hold, later or skipped; `text` says more of it."""

    key: str
    title: str
    state: str
    on: str
    text: str


def hold_of(job: Job, trench: Trench) -> Hold | None:
    """The hold on the backfill of a trench where it was lifted, else None: it holds."""
    return next((hold for hold in job.holds if hold.place == trench.id and hold.lifted_by), None)


def ticks(trench: Trench) -> dict[str, Tick]:
    """The steps that are done."""
    return {tick.step: tick for tick in trench.done}


def _is_done(job: Job, trench: Trench, step: str) -> bool:
    return hold_of(job, trench) is not None if step == HELD else step in ticks(trench)


def skipped_before(job: Job, trench: Trench, step: str) -> list[str]:
    """The steps that must be done before this one and are not."""
    return [key for key in STEPS[: STEPS.index(step)] if key in _musts(step) and not _is_done(job, trench, key)]


def _musts(step: str) -> tuple[str, ...]:
    return NEEDED.get(step, (HELD,))


def before_lifting(trench: Trench) -> str:
    """What is to be done before anyone can look into the trench; empty where it can be seen."""
    done = ticks(trench)
    return next((step for step in ("dig", "lay") if step not in done), "")


def passed(job: Job, trench: Trench) -> list[tuple[str, Tick]]:
    """Steps of the law or the authority that were passed: each with the first later tick."""
    found: list[tuple[str, Tick]] = []
    done = ticks(trench)
    for step in ("marks", HELD):
        later = [done[key] for key in STEPS[STEPS.index(step) + 1 :] if key in done]
        if later and not _is_done(job, trench, step) and (step == "marks" or later[-1].step in STEPS[6:]):
            found.append((step, later[0] if step == "marks" else next(t for t in later if t.step in STEPS[6:])))
    return found


def steps_of(job: Job, trench: Trench, texts: dict[str, str]) -> list[TrenchStep]:
    """All steps in order with their states; `texts`: what is told beside each."""
    done, found, open_ = ticks(trench), list[TrenchStep](), True
    lifted = hold_of(job, trench)
    last = max((STEPS.index(key) for key in done), default=-1)
    for index, key in enumerate(STEPS):
        text = texts.get(key, "")
        if key == HELD and lifted is not None:
            state, on, text = "done", lifted.lifted_on, f"seen by {lifted.lifted_by}"
        elif key in done:
            state, on = "done", done[key].on
            text = done[key].why or text
        elif index < last:
            state, on = "skipped", ""
        elif key == HELD:
            state, on, open_ = "hold", "", False
        elif open_:
            state, on, open_ = "next", "", False
        else:
            state, on = "later", ""
        found.append(TrenchStep(key=key, title=TITLES[key], state=state, on=on, text=text))
    return found
