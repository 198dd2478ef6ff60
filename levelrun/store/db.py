"""One database file: WAL, foreign keys, one writer at a time, readers that cannot write.

A copy of the file alone is whole whenever the store is closed or has been idle for a moment: the log is brought
into it then. Where the file cannot be written, it is opened to read, so that a job can still be exported.
"""

from __future__ import annotations

import os
import sqlite3
import threading
from collections.abc import Iterator, Sequence
from contextlib import closing, contextmanager, suppress
from pathlib import Path

from levelrun.store.errors import (
    BusyStoreError,
    DamagedFileError,
    FullStoreError,
    NewerFileError,
    ReadOnlyStoreError,
    StoreError,
)
from levelrun.store.schema import MIGRATIONS, Migration

IDLE_S = 2.0
LOCK_WAIT_S = 5.0


class Database:
    """Opens the file and brings it to the newest schema. Writes are serialised in this process.

    Raises DamagedFileError or NewerFileError, each with the path and what to do, for a file that is not one of ours
    or not whole: never a fresh start in its place.
    """

    def __init__(self, path: Path, migrations: Sequence[Migration] = MIGRATIONS, *, read_only: bool = False) -> None:
        self.path = path
        self._lock = threading.RLock()
        self._timer: threading.Timer | None = None
        self._closed = False
        path.parent.mkdir(parents=True, exist_ok=True)
        _refuse_empty(path)
        self.read_only = read_only or (path.exists() and not _writable(path))
        try:
            if path.exists():  # looked at without writing: what is not ours is left as it is
                with closing(self._connect(read_only=True)) as looked_at:
                    _check_whole(looked_at, path)
            self._writer = self._connect(read_only=self.read_only)
            if self.read_only:
                _check_known(self._writer, migrations, path)
            else:
                migrate(self._writer, migrations, path)
        except sqlite3.DatabaseError as error:
            raise _told(error, path) from error

    def _connect(self, *, read_only: bool) -> sqlite3.Connection:
        mode = "ro" if read_only else "rwc"
        connection = sqlite3.connect(
            f"{self.path.absolute().as_uri()}?mode={mode}",
            uri=True,
            isolation_level=None,
            check_same_thread=False,
            timeout=LOCK_WAIT_S,
        )
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA foreign_keys = ON")
        if not read_only:
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = FULL")
        return connection

    @contextmanager
    def write(self) -> Iterator[sqlite3.Connection]:
        """One transaction, committed to disk when the block ends, undone when it raises. What SQLite refuses (a full
        disk, a lock held elsewhere, a file that cannot be written) leaves a working store and a StoreError."""
        if self.read_only:
            raise ReadOnlyStoreError(f"{self.path} cannot be written; jobs can be read and exported")
        with self._lock:
            try:
                self._writer.execute("BEGIN IMMEDIATE")
                try:
                    yield self._writer
                    self._writer.execute("COMMIT")
                except BaseException:
                    if self._writer.in_transaction:
                        self._writer.execute("ROLLBACK")
                    raise
            except sqlite3.IntegrityError:
                raise
            except sqlite3.DatabaseError as error:
                raise _told(error, self.path) from error
            self._idle_soon()

    @contextmanager
    def read(self) -> Iterator[sqlite3.Connection]:
        """A connection that cannot write, in one consistent snapshot."""
        with closing(self._connect(read_only=True)) as connection:
            connection.execute("BEGIN")
            yield connection

    def backup(self, to: Path) -> None:
        """A whole copy of the data while it is in use. Raises StoreError where `to` cannot be written or exists."""
        if to.exists():
            raise StoreError(f"{to} is there already; name a file that is not")
        try:
            with closing(self._connect(read_only=True)) as source, closing(sqlite3.connect(to)) as target:
                source.backup(target)
        except sqlite3.DatabaseError as error:
            raise _told(error, to) from error

    def checkpoint(self) -> None:
        """Bring the log into the file, so that a copy of the file alone is whole."""
        with self._lock, suppress(sqlite3.DatabaseError):
            if not self._closed and not self.read_only:
                self._writer.execute("PRAGMA wal_checkpoint(TRUNCATE)")

    def _idle_soon(self) -> None:
        if self._timer is not None:
            self._timer.cancel()
        self._timer = threading.Timer(IDLE_S, self.checkpoint)
        self._timer.daemon = True
        self._timer.start()

    def close(self) -> None:
        """Bring the log into the file and close it. Safe to call twice."""
        with self._lock:
            if self._closed:
                return
            if self._timer is not None:
                self._timer.cancel()
            self.checkpoint()
            self._closed = True
            self._writer.close()


def _writable(path: Path) -> bool:
    return os.access(path, os.W_OK) and os.access(path.parent, os.W_OK)


def _refuse_empty(path: Path) -> None:
    """A data file of no bytes is a copy that failed, unless its log still holds what it was to be given."""
    log = path.with_name(f"{path.name}-wal")
    if path.exists() and path.stat().st_size == 0 and not (log.exists() and log.stat().st_size > 0):
        raise DamagedFileError(
            f"{path} is empty: its copy did not succeed. Put it back from a backup, or move it away to start anew"
        )


def _check_whole(connection: sqlite3.Connection, path: Path) -> None:
    """Refuses a file that is no database, is cut short, or holds another program's tables."""
    verdict = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
    if verdict != "ok":
        raise DamagedFileError(f"{path} is damaged ({verdict}). Put it back from a backup, or move it away")
    tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    if tables and "migration" not in tables:
        raise DamagedFileError(f"{path} is no data file of Level Run. Name another folder, or move it away")


def _check_known(connection: sqlite3.Connection, migrations: Sequence[Migration], path: Path) -> set[str]:
    """Names of the steps that a file has. Refuses one with steps that this version does not know."""
    done = {row[0] for row in connection.execute("SELECT name FROM migration")}
    unknown = done - {name for name, *_ in migrations}
    if unknown:
        raise NewerFileError(
            f"{path} comes from a newer Level Run ({', '.join(sorted(unknown))}). Open it with that one"
        )
    return done


def migrate(connection: sqlite3.Connection, migrations: Sequence[Migration], path: Path) -> list[str]:
    """Run the steps not yet in the ledger, each with its ledger row in one transaction.

    Returns the names run. A step that fails leaves nothing of itself behind.
    """
    connection.execute("CREATE TABLE IF NOT EXISTS migration (name TEXT PRIMARY KEY) STRICT")
    done = _check_known(connection, migrations, path)
    ran: list[str] = []
    for name, script, *steps in migrations:
        if name in done:
            continue
        connection.execute("BEGIN IMMEDIATE")
        try:
            for statement in statements(script):
                connection.execute(statement)
            for step in steps:
                step(connection)
            connection.execute("INSERT INTO migration (name) VALUES (?)", (name,))
        except BaseException:
            connection.execute("ROLLBACK")
            raise
        connection.execute("COMMIT")
        ran.append(name)
    return ran


def statements(script: str) -> Iterator[str]:
    """The whole statements of a script, as SQLite itself tells where one ends: a semicolon in a string or a trigger
    does not."""
    gathered = ""
    for piece in script.split(";"):
        gathered += piece + ";"
        if sqlite3.complete_statement(gathered):
            if gathered.strip(" \n;"):
                yield gathered.strip()
            gathered = ""
    if gathered.strip(" \n;"):
        raise StoreError(f"a migration ends inside a statement: {gathered.strip()[:60]}")


def _told(error: sqlite3.DatabaseError, path: Path) -> StoreError:
    """What SQLite refused, in a word that says what to do."""
    code = getattr(error, "sqlite_errorcode", 0) & 0xFF
    if code == sqlite3.SQLITE_FULL or (code == sqlite3.SQLITE_IOERR and _disk_full(path)):
        return FullStoreError("the disk is full; nothing was changed. Make room, then do it again")
    if code in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        return BusyStoreError(f"another program holds {path}; nothing was changed. Close it, then do it again")
    if code in (sqlite3.SQLITE_READONLY, sqlite3.SQLITE_PERM, sqlite3.SQLITE_AUTH):
        return ReadOnlyStoreError(f"{path} cannot be written; nothing was changed")
    if code in (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB):
        return DamagedFileError(f"{path} is damaged ({error}). Put it back from a backup, or move it away")
    return StoreError(f"{path}: {error}")


def _disk_full(path: Path) -> bool:
    with suppress(OSError):
        found = os.statvfs(path.parent)
        return found.f_bavail == 0
    return False
