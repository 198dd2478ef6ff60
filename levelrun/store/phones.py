"""Phones that were paired: each with a key of its own, of which only the hash is kept."""

from __future__ import annotations

import hashlib
import secrets
import sqlite3
import uuid
from dataclasses import dataclass

from levelrun.store.db import Database

MOST_PHONES = 30


@dataclass(frozen=True, kw_only=True)
class Phone:
    """A phone: what it calls itself, when it was paired, when it was last seen, whether its key is revoked."""

    id: str
    name: str
    made_at: str
    seen_at: str
    revoked: bool


class Phones:
    """The phones of one database. What a key opens is asked of the database at every request: a revoked key opens
    nothing from that moment on."""

    def __init__(self, db: Database) -> None:
        self.db = db

    def pair(self, name: str, now: str) -> tuple[Phone, str]:
        """A new phone with its key; the key is told once and kept nowhere."""
        key = secrets.token_urlsafe(32)
        phone = Phone(id=uuid.uuid4().hex[:12], name=name, made_at=now, seen_at=now, revoked=False)
        with self.db.write() as db:
            db.execute(
                "INSERT INTO phone (id, name, key_hash, made_at, seen_at, revoked) VALUES (?, ?, ?, ?, ?, 0)",
                (phone.id, name, _hash(key), now, now),
            )
            db.execute(
                "DELETE FROM phone WHERE revoked = 1 AND id NOT IN"
                " (SELECT id FROM phone ORDER BY made_at DESC LIMIT ?)",
                (MOST_PHONES,),
            )
        return phone, key

    def known(self, key: str, now: str) -> Phone | None:
        """The phone that has this key, where it is not revoked. That it was seen is written at most once a minute."""
        with self.db.read() as db:
            row = db.execute("SELECT * FROM phone WHERE key_hash = ? AND revoked = 0", (_hash(key),)).fetchone()
        if row is None:
            return None
        if row["seen_at"][:16] != now[:16] and not self.db.read_only:
            with self.db.write() as db:
                db.execute("UPDATE phone SET seen_at = ? WHERE id = ?", (now, row["id"]))
        return _phone(row)

    def list(self) -> list[Phone]:
        """Every phone, the newest first."""
        with self.db.read() as db:
            return [_phone(row) for row in db.execute("SELECT * FROM phone ORDER BY made_at DESC, name")]

    def revoke(self, phone_id: str) -> bool:
        """Takes a phone's key away. False where there is no such phone."""
        with self.db.write() as db:
            return db.execute("UPDATE phone SET revoked = 1 WHERE id = ?", (phone_id,)).rowcount > 0


def _phone(row: sqlite3.Row) -> Phone:
    return Phone(
        id=row["id"], name=row["name"], made_at=row["made_at"], seen_at=row["seen_at"], revoked=bool(row["revoked"])
    )  # fmt: skip


def _hash(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()
