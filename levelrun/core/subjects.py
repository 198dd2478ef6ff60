"""The one list of subjects, in the order of the work. Catalogue, kinds of parts, edits, sentences follow from it."""

from __future__ import annotations

from levelrun.core.boxes import codes as box_codes
from levelrun.core.boxes import edits as box_edits
from levelrun.core.boxes import spoken as box_spoken
from levelrun.core.boxes import words as box_words
from levelrun.core.buying import codes as buying_codes
from levelrun.core.buying import edits as buying_edits
from levelrun.core.buying import words as buying_words
from levelrun.core.changing import sentences_of, spoken_of
from levelrun.core.circuits import codes as circuit_codes
from levelrun.core.circuits import edits as circuit_edits
from levelrun.core.circuits import feed_words
from levelrun.core.circuits import spoken as circuit_spoken
from levelrun.core.circuits import words as circuit_words
from levelrun.core.editing import PartKind
from levelrun.core.findings import Code
from levelrun.core.pipe import codes as pipe_codes
from levelrun.core.pipe import words as pipe_words
from levelrun.core.roughin import codes as record_codes
from levelrun.core.roughin import edits as record_edits
from levelrun.core.roughin import spoken as record_spoken
from levelrun.core.roughin import words as record_words
from levelrun.core.site import codes as site_codes
from levelrun.core.site import edits as site_edits
from levelrun.core.site import spoken as site_spoken
from levelrun.core.site import words as site_words
from levelrun.core.start import words as start_words
from levelrun.core.subject import Sentence, Spoken, Subject
from levelrun.core.testing import codes as testing_codes
from levelrun.core.testing import edits as testing_edits
from levelrun.core.testing import words as testing_words
from levelrun.core.trench import codes as trench_codes
from levelrun.core.trench import edits as trench_edits
from levelrun.core.trench import spoken as trench_spoken
from levelrun.core.trench import words as trench_words
from levelrun.core.ways import codes as way_codes
from levelrun.core.ways import drawn_edits, drawn_words, wiring_words
from levelrun.core.ways import edits as way_edits
from levelrun.core.ways import words as way_words

SUBJECTS = (
    Subject(
        stage="walls",
        kinds=site_edits.KINDS,
        codes=site_codes.CODES,
        edits=site_edits.EDITS,
        sentences=site_words.VERBS,
        spoken=site_spoken.SPOKEN,
    ),
    Subject(
        stage="boxes",
        kinds=box_edits.KINDS,
        codes=box_codes.CODES,
        edits=box_edits.EDITS,
        sentences=box_words.VERBS,
        spoken=box_spoken.SPOKEN,
    ),
    Subject(
        stage="circuits",
        kinds=circuit_edits.KINDS,
        codes=circuit_codes.CODES,
        edits=circuit_edits.EDITS,
        sentences={**circuit_words.VERBS, **feed_words.VERBS},
        spoken=circuit_spoken.SPOKEN,
    ),
    Subject(
        stage="runs",
        kinds=way_edits.KINDS,
        codes=way_codes.CODES,
        edits=(*way_edits.EDITS, *drawn_edits.EDITS),
        sentences={**start_words.VERBS, **way_words.VERBS},
        spoken=(drawn_words.sent, wiring_words.counters, wiring_words.wired),
    ),
    Subject(
        stage="pipe", kinds=(), codes=pipe_codes.CODES, edits=(), sentences=pipe_words.VERBS, spoken=pipe_words.SPOKEN
    ),
    Subject(
        stage="trench",
        kinds=trench_edits.KINDS,
        codes=trench_codes.CODES,
        edits=trench_edits.EDITS,
        sentences=trench_words.VERBS,
        spoken=trench_spoken.SPOKEN,
    ),
    Subject(
        stage="buy",
        kinds=buying_edits.KINDS,
        codes=buying_codes.CODES,
        edits=buying_edits.EDITS,
        sentences=buying_words.VERBS,
        spoken=buying_words.SPOKEN,
    ),
    Subject(
        stage="rough_in",
        kinds=record_edits.KINDS,
        codes=record_codes.CODES,
        edits=record_edits.EDITS,
        sentences=record_words.VERBS,
        spoken=record_spoken.SPOKEN,
    ),
    Subject(
        stage="test",
        kinds=testing_edits.KINDS,
        codes=testing_codes.CODES,
        edits=testing_edits.EDITS,
        sentences=testing_words.VERBS,
        spoken=testing_words.SPOKEN,
    ),
)

KINDS: dict[str, PartKind] = {kind.name: kind for subject in SUBJECTS for kind in subject.kinds}
CATALOGUE: dict[str, Code] = {code: entry for subject in SUBJECTS for code, entry in subject.codes.items()}
SENTENCES: dict[str, Sentence] = {
    **{verb: read for subject in SUBJECTS for verb, read in subject.sentences.items()},
    **sentences_of(KINDS),
}
SPOKEN: tuple[Spoken, ...] = (*(read for subject in SUBJECTS for read in subject.spoken), spoken_of(KINDS))
