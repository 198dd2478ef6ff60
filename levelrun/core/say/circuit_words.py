"""Sentences about circuits."""

from __future__ import annotations

from collections.abc import Callable

from levelrun.core.say.scene import Said, SceneReader

VERBS: dict[str, Callable[[SceneReader], Said]] = {}
