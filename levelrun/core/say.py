"""What is typed on the entry line of Walls, Boxes and Circuits: sentences in, plain edits out."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from levelrun.core.errors import TextError
from levelrun.core.site.scene import Said, Scene, SceneReader
from levelrun.core.subjects import SENTENCES, SPOKEN, SUBJECTS

__all__ = ["Said", "Scene", "sentences", "suggest_words"]

STAGES: dict[str, tuple[str, ...]] = {subject.stage: tuple(subject.sentences) for subject in SUBJECTS}


def sentences(text: str) -> Iterator[Callable[[Scene], Said]]:
    """For each sentence of a text a reader, to be called with the scene as the sentences before left it.

    Raises TextError (when called) with `at`, the position in the whole text, and what was expected there.
    """
    reader = SceneReader(text)
    first = True
    while reader.breaks() or first:
        first = False

        def read(scene: Scene) -> Said:
            reader.scene = scene
            return _sentence(reader)

        yield read


def _sentence(reader: SceneReader) -> Said:
    own = reader.scene.verb
    reader.expect(reader.verbs or SENTENCES)
    start = reader.pos
    verb = reader.phrase(SENTENCES)
    said = _spoken(reader, start) if verb is None else None
    if said is None and verb is None and (own not in SENTENCES or _half_a_verb(reader)):
        raise reader.fail(f"one of {', '.join(reader.expected[1])}")
    said = said or _either(reader, verb, own, start)
    if not reader.over():
        raise reader.fail("the end of the sentence")
    return said


def _either(reader: SceneReader, verb: str | None, own: str, start: int) -> Said:
    """What the verb says; where it reads as none of its sentences, and may be the first word of a name, what the
    stage's own verb says of the whole."""
    if verb is None:
        return SENTENCES[own](reader)
    try:
        return SENTENCES[verb](reader)
    except TextError as refused:
        kept, there = reader.expected, reader.pos
        try:
            if (said := _spoken(reader, start)) is not None:
                return said
            if own in SENTENCES and own != verb:
                return SENTENCES[own](reader)
        except TextError:
            pass
        reader.expected, reader.pos = kept, there
        raise refused from None


def _spoken(reader: SceneReader, start: int) -> Said | None:
    """What a sentence says that begins with the thing it is about: R-10 is made up. None where it is no such one."""
    kept = reader.expected
    for read in SPOKEN:
        reader.pos = start
        if (said := read(reader)) is not None:
            return said
    reader.pos, reader.expected = start, kept
    return None


def _half_a_verb(reader: SceneReader) -> bool:
    """Nothing, or the beginning of a verb, stands here: not yet a sentence of the stage's own verb."""
    rest = reader.text[reader.pos :].strip().lower()
    return not rest or any(verb.startswith(rest) for verb in SENTENCES)


def suggest_words(scene: Scene, text: str, stage: str) -> tuple[int, list[str]]:
    """Where the word being typed starts, and the words that may stand there; a stage's own verbs come first."""
    own = STAGES.get(stage, ())
    reader = SceneReader(text)
    reader.scene = scene
    reader.verbs = (*own, *(verb for verb in SENTENCES if verb not in own))

    def read() -> None:
        while reader.breaks() or not reader.text.strip():
            _sentence(reader)

    return reader.options_after(read, text)
