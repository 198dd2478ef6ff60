"""Jobs in SQLite: plain SQL, one module a subject. The store keeps, it never computes a rule."""

from levelrun.store.db import Database, StoreError
from levelrun.store.jobs import (
    JobRecord,
    JobRow,
    Jobs,
    NoSuchJobError,
    NothingToUndoError,
    StaleRevisionError,
)

__all__ = [
    "Database",
    "JobRecord",
    "JobRow",
    "Jobs",
    "NoSuchJobError",
    "NothingToUndoError",
    "StaleRevisionError",
    "StoreError",
]
