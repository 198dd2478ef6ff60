"""Rule sets as files: tables in CSV, scalars in TOML, each with its source and basis."""

from levelrun.core.codebook.book import Codebook, LocalRule, NoteStatus, as_of, load, notable, rule_sets, with_notes
from levelrun.core.codebook.tables import Scalar, Table, TableHead

__all__ = [
    "Codebook",
    "LocalRule",
    "NoteStatus",
    "Scalar",
    "Table",
    "TableHead",
    "as_of",
    "load",
    "notable",
    "rule_sets",
    "with_notes",
]
