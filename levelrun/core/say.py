"""What is typed on the entry line of Walls, Boxes and Circuits: sentences in, plain edits out."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import replace

from levelrun.core.circuits.owned import OWN_CIRCUIT
from levelrun.core.errors import TextError
from levelrun.core.site.naming import Scene
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.start.ends import end_here
from levelrun.core.subjects import SENTENCES, SPOKEN, SUBJECTS
from levelrun.core.words import COUNTS

__all__ = ["Said", "Scene", "clauses", "sentences", "suggest_words"]

Refused = tuple[TextError, tuple[int, list[str]], int]  # with what was expected, and where
FIRST = "from"  # the verb of the first page, whose line may begin with anything that it says
_LINE = re.compile(r"\d\s*(?:'|ft\b).*\bto\b", re.IGNORECASE)  # so much of the way is said, and to what
_FEET = re.compile(r"\d\s*(?:'|ft\b|feet\b)", re.IGNORECASE)
# What parts a line: a comma, `then`, a room and its colon, and what something comes with. One in quotes is part of a
# name; inches are no quotes.
_COMMA = re.compile(
    r'(?:(?<=\s)|^)"[^"\n]+"|(?P<comma>,?\s*\bthen\b|,(?:\s*and\b)?|(?<=[a-z]:)\s+(?=\S)'
    r"|\bwith\s+(?=(?:an?\s+|an?\s+existing\s+|existing\s+)?panel\b|(?:an?|two)\s+(?:dimmer\s+)?switch(?:es)?\b|an?\s+dimmer\b"
    r"|(?:an?\s+|two\s+)?(?:3|4|three|four)[\s-]way\s+switch(?:es)?\b)"
    r"|\b(?:with|on)\s+(?:its|their)\s+own\s+(?=switch\b)"
    r"|\bon\s+(?=(?:an?|two)\s+(?:dimmer\s+)?switch(?:es)?\b|(?:an?|two)\s+(?:dimmer\b|(?:3|4|three|four)[\s-]ways?\b))"
    rf"|\bon\s+(?={OWN_CIRCUIT})|\s(?=\d+\s*(?:a|amps?)\s*$))",
    re.IGNORECASE,
)
_SEVERAL = [word for word, n in COUNTS.items() if 1 < n <= 6]
_CIRCUITS = re.compile(
    rf"\s*(?:(?:run|add|pull|i need|we need)\s+)?(?P<count>[2-6]|{'|'.join(_SEVERAL)})\s+"
    r"(?:(?:separate|dedicated|new|different)\s+)*(?:\d+\s*a(?:mps?)?\s+)?(?:[a-z]+\s+){0,2}(?P<many>circuits)\b",
    re.IGNORECASE,
)
_LINES = re.compile(r"[\n;]")
MOST_COMMAS = 8  # in a line that is read as several sentences
SHOWN = 6  # verbs that a refusal names; the rest is offered
STAGES: dict[str, tuple[str, ...]] = {subject.stage: tuple(subject.sentences) for subject in SUBJECTS}

STAGES_OF = {verb: tuple(subject.sentences) for subject in SUBJECTS for verb in subject.sentences}


def sentences(text: str) -> Iterator[tuple[bool, Callable[[Scene], Said]]]:
    """For each sentence of a text whether `then` joins it to the one before, and a reader, to be called with the
    scene as the sentences before left it.

    Raises TextError (when called) with `at`, the position in the whole text, and what was expected there.
    """
    reader = SceneReader(text)
    first, end = True, 0
    while reader.breaks() or first:
        between = reader.text[end : reader.pos].strip().casefold()
        joined, first = not first and between == "then", False
        begin = reader.pos

        def read(scene: Scene, begin: int = begin) -> Said:
            reader.scene, start, reader.pos = scene, begin, begin
            said = _sentence(reader)
            told = [f"{size} in feet" for at, size in reader.in_feet.items() if start <= at < reader.pos]
            return replace(said, told=[*said.told, *told]) if told else said

        for _ in range(_repeated(reader)):
            yield joined, read
        end = reader.pos


def _repeated(reader: SceneReader) -> int:
    """How many times a sentence is to be read: two 20a circuits to the counter, 40' basement, are two that are alike;
    the sentence then stands there as that of one. Once where it is no such one."""
    found = _CIRCUITS.match(reader.text, reader.pos, reader.line_end())
    if found is None or _FEET.search(reader.text, found.end(), reader.line_end()) is None:
        return 1
    text = reader.text
    for name, one in (("count", ""), ("many", "circuit")):  # as long as it was: places in it stay
        start, end = found.span(name)
        text = f"{text[:start]}{one:<{end - start}}{text[end:]}"
    reader.text = text
    return COUNTS.get(found["count"].lower()) or int(found["count"])


def clauses(text: str) -> list[tuple[int, int]]:
    """Where the parts of a line begin and end between its commas; none where it has no comma, too many of them, or is
    several lines."""
    marks = [match.span() for match in _COMMA.finditer(text) if match["comma"]]
    if not 0 < len(marks) <= MOST_COMMAS or _LINES.search(text.strip()) is not None:
        return []
    ends = [*(start for start, _ in marks), len(text)]
    begins = [0, *(end for _, end in marks)]
    return list(zip(begins, ends, strict=True))


def _sentence(reader: SceneReader) -> Said:
    """What the verb says that stands at the front; else what is said of the thing that stands there; else what the
    stage's own verb says of the whole. Of refusals that of whoever read farthest is told."""
    own, start = reader.scene.verb, reader.pos
    reader.expect(reader.verbs or SENTENCES)
    first = reader.expected
    verb = reader.phrase(SENTENCES)
    refused: list[Refused] = []
    said = _tried(reader, SENTENCES[verb], reader.pos, refused) if verb is not None else None
    said = said or _tried(reader, _spoken, start, refused)
    if said is None and own in SENTENCES and own != verb and (verb is not None or not _half_a_verb(reader, start)):
        known = len(refused)
        said = _tried(reader, SENTENCES[own], start, refused)
        if own == FIRST:  # a light is a verb of Walls and an end of a first line: of equal refusals its own counts
            refused = [*refused[known:], *refused[:known]]
        elif verb is not None:  # a name may begin like a verb, but what is wrong is told of the verb
            del refused[known:]
    if said is None and not own:  # a job as text: a line of the first page, said without its verb
        known = len(refused)
        said = _tried(reader, SENTENCES[FIRST], start, refused)
        if said is None and not _begins_a_line(reader, start):
            del refused[known:]
    if said is not None:
        return said
    if own == FIRST and _half_a_verb(reader, start):
        _tried(reader, SENTENCES[own], start, refused)
    if refused:
        error = _farthest(reader, refused)
        if reader.expected[0] == first[0] and own == FIRST:  # what may begin a first line, then all verbs
            reader.expected = first[0], [*reader.expected[1], *first[1]]
        raise error from None
    reader.pos, reader.expected = start, first
    named = [*STAGES_OF.get(own, ()), *first[1]][:SHOWN]
    raise reader.fail(f"a sentence: what it is about and what it is, or one of {', '.join(dict.fromkeys(named))} …")


def _begins_a_line(reader: SceneReader, start: int) -> bool:
    """Whether it is told what is wrong with a sentence as a line of the first page: it says how far and to what, or,
    where nothing is drawn, how far or what stands at an end."""
    job, end = reader.scene.job, reader.pos
    reader.pos = start
    undrawn = bool(job.panels) and not job.rooms and (_FEET.search(reader.text, start) or end_here(reader))
    reader.pos = end
    return bool(undrawn or _LINE.search(reader.text, start))


def _spoken(reader: SceneReader) -> Said | None:
    """What a sentence says that begins with the thing it is about: R-10 is made up. None where it is no such one.
    Where several could begin so, the one that reads on; else the refusal of whoever read farthest."""
    start, refused = reader.pos, list[Refused]()
    for read in SPOKEN:
        said = _tried(reader, read, start, refused)
        if said is not None:
            return said
    if refused:
        raise _farthest(reader, refused)
    return None


def _tried(
    reader: SceneReader, read: Callable[[SceneReader], Said | None], at: int, refused: list[Refused]
) -> Said | None:
    """What is read from a place on, to the end of the sentence; a refusal is kept with where it left the reader."""
    reader.pos = at
    try:
        said = read(reader)
        if said is not None and not reader.over():
            reader.expected = (reader.pos, reader.expected[1] if reader.expected[0] == reader.pos else [])
            raise reader.fail("the end of the sentence")
        return said
    except TextError as error:
        refused.append((error, reader.expected, reader.pos))
        return None


def _farthest(reader: SceneReader, refused: list[Refused]) -> TextError:
    """The refusal of whoever read farthest, of equal ones the first that says why; the reader stands as it left
    it."""
    error, reader.expected, reader.pos = max(
        refused, key=lambda item: (item[0].at or 0, not item[0].message.startswith("expected"))
    )
    return error


def _half_a_verb(reader: SceneReader, start: int) -> bool:
    """Nothing, or the beginning of a verb, stands there: not yet a sentence of the stage's own verb."""
    rest = reader.text[start:].strip().lower()
    return not rest or any(verb.startswith(rest) for verb in SENTENCES)


def suggest_words(scene: Scene, text: str, stage: str) -> tuple[int, list[str]]:
    """Where the word being typed starts, and the words that may stand there; a stage's own verbs come first. Of a
    line that is several sentences those of the last."""
    found = _suggested(scene, text, stage)
    pieces = clauses(text)
    begin = pieces[-1][0] if pieces else 0
    if pieces and text[begin:].strip() and found[0] <= begin + len(text[begin:]) - len(text[begin:].lstrip()):
        last = _suggested(scene, " " * begin + text[begin:], stage)  # blanks, so that places in the text are kept
        return last if last[0] > found[0] else found
    return found


def _suggested(scene: Scene, text: str, stage: str) -> tuple[int, list[str]]:
    own = STAGES.get(stage, ())
    reader = SceneReader(text)
    reader.scene = scene
    reader.verbs = (*own, *(verb for verb in SENTENCES if verb not in own))

    def read() -> None:
        while reader.breaks() or not reader.text.strip():
            _sentence(reader)

    return reader.options_after(read, text)
