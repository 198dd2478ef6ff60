"""Rule sets as files: tables in CSV, scalars in TOML, each with its source and basis."""

from levelrun.core.codebook.book import Codebook, load, rule_sets
from levelrun.core.codebook.tables import Scalar, Table, TableHead

__all__ = ["Codebook", "Scalar", "Table", "TableHead", "load", "rule_sets"]
