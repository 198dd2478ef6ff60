"""What a subject of the job is: the parts that it owns, its findings, its edits, its sentences."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from levelrun.core.editing import EditBase, PartKind
from levelrun.core.findings import Code, Stage
from levelrun.core.site.scene import Said, SceneReader

Sentence = Callable[[SceneReader], Said]


@dataclass(frozen=True, kw_only=True)
class Subject:
    """One subject. `stage`: where it is worked on; `sentences`: by their first words."""

    stage: Stage
    kinds: tuple[PartKind, ...]
    codes: Mapping[str, Code]
    edits: tuple[type[EditBase], ...]
    sentences: Mapping[str, Sentence]
