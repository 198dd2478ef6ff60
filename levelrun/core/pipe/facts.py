"""What rules about pipe look at: a way with its pulls, each with its pipe in pieces."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.pipe.layout import Layout, layout_of
from levelrun.core.ways.facts import WayContext, WayView, viewed
from levelrun.core.ways.pulls import Pull, pulls_of


@dataclass(frozen=True, eq=False)
class PipeView:
    """A way with pipe in it."""

    view: WayView

    @property
    def way(self) -> str:
        """Its id."""
        return self.view.way.id

    @cached_property
    def pulls(self) -> list[Pull]:
        """Its pulls, in order."""
        return pulls_of(self.view)

    @cached_property
    def laid(self) -> list[tuple[Pull, Layout]]:
        """Its pulls of pipe that comes in sticks, each in pieces."""
        found = ((pull, layout_of(self.view, pull.first, pull.last)) for pull in self.pulls)
        return [(pull, layout) for pull, layout in found if layout is not None]

    @cached_property
    def legs(self) -> list[int]:
        """The legs of its pulls."""
        return [index for pull in self.pulls for index in range(pull.first, pull.last + 1)]


@lru_cache(maxsize=512)
def piped(book: Codebook, context: WayContext) -> PipeView:
    """The pipe of a way: one view for all that ask."""
    return PipeView(viewed(book, context))
