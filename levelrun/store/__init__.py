"""Jobs in SQLite: plain SQL, one module a subject. The store keeps, it never computes a rule."""

from levelrun.store.db import Database
from levelrun.store.errors import (
    BusyStoreError,
    DamagedFileError,
    FullStoreError,
    NewerFileError,
    NoSuchJobError,
    NothingToUndoError,
    ReadOnlyStoreError,
    StaleRevisionError,
    StoreError,
)
from levelrun.store.jobs import JobRecord, JobRow, Jobs

__all__ = [
    "BusyStoreError",
    "DamagedFileError",
    "Database",
    "FullStoreError",
    "JobRecord",
    "JobRow",
    "Jobs",
    "NewerFileError",
    "NoSuchJobError",
    "NothingToUndoError",
    "ReadOnlyStoreError",
    "StaleRevisionError",
    "StoreError",
]
