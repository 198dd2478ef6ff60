"""One database file: WAL, foreign keys, one writer at a time, readers that cannot write."""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

from levelrun.store.schema import MIGRATIONS


class StoreError(Exception):
    """The store could not do what was asked."""


class Database:
    """Opens the file and brings it to the newest schema. Writes are serialised in this process."""

    def __init__(self, path: Path, migrations: Sequence[tuple[str, str]] = MIGRATIONS) -> None:
        self.path = path
        path.parent.mkdir(parents=True, exist_ok=True)
        self._lock = threading.Lock()
        self._writer = self._connect(read_only=False)
        migrate(self._writer, migrations)

    def _connect(self, *, read_only: bool) -> sqlite3.Connection:
        mode = "ro" if read_only else "rwc"
        connection = sqlite3.connect(
            f"file:{self.path}?mode={mode}",
            uri=True,
            isolation_level=None,
            check_same_thread=False,
            timeout=10,
        )
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA foreign_keys = ON")
        if not read_only:
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = FULL")
        return connection

    @contextmanager
    def write(self) -> Iterator[sqlite3.Connection]:
        """One transaction, committed to disk when the block ends, undone when it raises."""
        with self._lock:
            self._writer.execute("BEGIN IMMEDIATE")
            try:
                yield self._writer
            except BaseException:
                self._writer.execute("ROLLBACK")
                raise
            self._writer.execute("COMMIT")

    @contextmanager
    def read(self) -> Iterator[sqlite3.Connection]:
        """A connection that cannot write, in one consistent snapshot."""
        connection = self._connect(read_only=True)
        try:
            connection.execute("BEGIN")
            yield connection
        finally:
            connection.close()

    def close(self) -> None:
        """Close the writer."""
        self._writer.close()


def migrate(connection: sqlite3.Connection, migrations: Sequence[tuple[str, str]]) -> list[str]:
    """Run the steps not yet in the ledger, each with its ledger row in one transaction.

    Returns the names run. A step that fails leaves nothing of itself behind. A file with steps that
    this version does not know is from a newer Level Run and is refused.
    """
    connection.execute("CREATE TABLE IF NOT EXISTS migration (name TEXT PRIMARY KEY) STRICT")
    done = {row[0] for row in connection.execute("SELECT name FROM migration")}
    unknown = done - {name for name, _ in migrations}
    if unknown:
        raise StoreError(f"the data file comes from a newer Level Run: {', '.join(sorted(unknown))}")
    ran: list[str] = []
    for name, script in migrations:
        if name in done:
            continue
        connection.execute("BEGIN IMMEDIATE")
        try:
            for statement in script.split(";"):
                if statement.strip():
                    connection.execute(statement)
            connection.execute("INSERT INTO migration (name) VALUES (?)", (name,))
        except BaseException:
            connection.execute("ROLLBACK")
            raise
        connection.execute("COMMIT")
        ran.append(name)
    return ran
