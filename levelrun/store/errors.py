"""What the store may refuse, each with its own name."""

from __future__ import annotations


class StoreError(Exception):
    """The store could not do what was asked."""


class DamagedFileError(StoreError):
    """The data file is empty, cut short, damaged, or not one of ours."""


class NewerFileError(StoreError):
    """The data file was written by a newer version."""


class ReadOnlyStoreError(StoreError):
    """The data file cannot be written."""


class FullStoreError(StoreError):
    """The disk is full."""


class BusyStoreError(StoreError):
    """Another program holds the data file."""


class NoSuchJobError(StoreError):
    """No job has this id."""


class StaleRevisionError(StoreError):
    """The job has moved on since the caller read it."""

    def __init__(self, sent: int, current: int) -> None:
        super().__init__(f"the job is at revision {current}, the change was made on {sent}")
        self.sent = sent
        self.current = current


class NothingToUndoError(StoreError):
    """There is no change to take back, or none to make again."""
