"""Rules about how a pull is fed and how large its pipe is by the habit of the shop."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.findings import Finding, Mend
from levelrun.core.pipe.codes import finding
from levelrun.core.pipe.facts import PipeView
from levelrun.core.pipe.ladder import over_habit
from levelrun.core.pipe.pulling import end_names
from levelrun.core.rulebook import Rule
from levelrun.core.ways.forces import force_of
from levelrun.core.ways.mends import set_leg
from levelrun.core.ways.rules.path import feed_at

HARDER, HARDER_LB = 1.1, 2.0  # less is in the noise of the friction


def feed_rule(pipe: PipeView) -> Iterator[Finding]:
    """A pull that is said to be fed at one end does not go easier from the other."""
    for pull in pipe.pulls:
        force = force_of(pipe.view, pull.first, pull.last)
        if force is None or force.feed == force.easier:
            continue
        easy = force.start.lb if force.easier == "start" else force.end.lb
        if force.lb <= HARDER * easy + HARDER_LB:
            continue
        names = end_names(pipe.view, pull)
        yield finding(
            "feed-hard", pipe.way, pull.first,
            f"Pull {pull.index + 1} is fed at its brutal end",
            f"Fed at {names[force.feed]} it takes {force.lb:.0f} lb, fed at {names[force.easier]} {easy:.0f} lb, "
            "with usual friction.", "common practice, no source", measured=f"{force.lb:.0f} lb",
            limit=f"{easy:.0f} lb", last=pull.last, mends=[feed_at(pipe.view, pull.first, pull.last, force.easier)],
        )  # fmt: skip


def size_rule(pipe: PipeView) -> Iterator[Finding]:
    """Large wires round bends in the smallest legal pipe."""
    for pull in pipe.pulls:
        size = over_habit(pipe.view, pull)
        if size is None:
            continue
        edits = [set_leg(pipe.view, index, size=size) for index in range(pull.first, pull.last + 1)]
        yield finding(
            "size-habit", pipe.way, pull.first, f"Pull {pull.index + 1}: legal is not easy",
            f"Four wires of No. 6 or larger round two bends, in the smallest pipe that holds them. {size}″ pulls "
            "with less, for little more.", "common practice, no source", last=pull.last,
            mends=[Mend(f"Use {size}″", edits)],
        )  # fmt: skip


def order_rule(pipe: PipeView) -> Iterator[Finding]:
    """The pipe of a pull is whole before wire goes in, whatever the habit of the shop."""
    habits = pipe.view.habits
    long = next((pull for pull in pipe.pulls if pull.last > pull.first), None)
    if habits.piping.order == "thread_first" and long is not None:
        said = habits.model_copy(update={"piping": habits.piping.model_copy(update={"order": "glue_first"})})
        whole = {"op": "set_job", "set": {"habits": said.model_dump(mode="json")}}
        yield finding(
            "thread-first", pipe.way, long.first, "Wire goes in before the pipe is whole",
            "This shop threads piece by piece and glues after, as many do. The book wants each pull of pipe complete "
            "first: cement eats jackets, and a joint that was dry is not seen.", "300.18(A)", last=long.last,
            mends=[Mend("Glue first in this job", [whole])],
        )  # fmt: skip


RULES: tuple[Rule[PipeView], ...] = (feed_rule, size_rule, order_rule)
