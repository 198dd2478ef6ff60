"""What a subject of the job is: the parts that it owns, its findings, its edits, its sentences."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.editing import EditBase, PartKind
from levelrun.core.findings import Code, Stage
from levelrun.core.site.scene import Said, SceneReader

Sentence = Callable[[SceneReader], Said]
# Reads a sentence that does not begin with a verb, or answers None where it is none of its own.
Spoken = Callable[[SceneReader], Said | None]


@dataclass(frozen=True, kw_only=True)
class Subject:
    """One subject. `stage`: where it is worked on; `sentences`: by their first words; `spoken`: those that
    begin with what they are about."""

    stage: Stage
    kinds: tuple[PartKind, ...]
    codes: Mapping[str, Code]
    edits: tuple[type[EditBase], ...]
    sentences: Mapping[str, Sentence]
    spoken: Sequence[Spoken] = ()
