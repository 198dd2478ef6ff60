"""Pictures in the data folder, beside the database: each by the SHA-256 of what is in it, in three sizes. A picture
is written whole or not at all, and never overwritten; none is removed by an edit, so that an edit can be undone."""

from __future__ import annotations

import hashlib
import os
import tempfile
from collections.abc import Iterator, Mapping
from contextlib import suppress
from pathlib import Path

from levelrun.store.errors import FullStoreError, ReadOnlyStoreError, StoreError

FOLDER = "pictures"
SIZES = ("kept", "large", "small")
HEX = set("0123456789abcdef")


class Pictures:
    """The pictures of one data folder."""

    def __init__(self, data: Path, *, read_only: bool = False) -> None:
        self.folder = data / FOLDER
        self.read_only = read_only

    def path(self, sha: str, size: str) -> Path | None:
        """Where a picture is, where it is there and may be given out."""
        if len(sha) != 64 or not set(sha) <= HEX or size not in SIZES:
            return None
        found = self.folder / sha[:2] / f"{sha}.{size}.jpg"
        return found if found.is_file() else None

    def has(self, sha: str) -> bool:
        """Whether all sizes of a picture are there."""
        return all(self.path(sha, size) is not None for size in SIZES)

    def keep(self, sha: str, files: Mapping[str, bytes]) -> None:
        """Keep a picture. Raises StoreError where the folder cannot be written, or what it is called is not what is
        in it."""
        if self.read_only:
            raise ReadOnlyStoreError(f"{self.folder} cannot be written; photos can be looked at")
        if set(files) != set(SIZES) or hashlib.sha256(files["kept"]).hexdigest() != sha:
            raise StoreError("a picture is called otherwise than what is in it")
        for size in ("small", "large", "kept"):
            if self.path(sha, size) is None:
                self._write(self.folder / sha[:2] / f"{sha}.{size}.jpg", files[size])

    def _write(self, to: Path, data: bytes) -> None:
        try:
            to.parent.mkdir(parents=True, exist_ok=True)
            handle, name = tempfile.mkstemp(dir=to.parent, suffix=".part")
            try:
                with os.fdopen(handle, "wb") as out:
                    out.write(data)
                    out.flush()
                    os.fsync(out.fileno())
                os.replace(name, to)
            except BaseException:
                with suppress(OSError):
                    os.unlink(name)
                raise
        except OSError as error:
            if error.errno == 28:
                raise FullStoreError(f"the disk of {self.folder} is full; the photo is not kept") from error
            raise StoreError(f"{self.folder} cannot be written ({error.strerror}); the photo is not kept") from error

    def whole(self, sha: str) -> bool:
        """Whether a kept picture is still what it is called by."""
        path = self.path(sha, "kept")
        return path is not None and hashlib.sha256(path.read_bytes()).hexdigest() == sha

    def __iter__(self) -> Iterator[str]:
        """Every picture that is there."""
        for path in sorted(self.folder.glob("*/*.kept.jpg")):
            yield path.name.partition(".")[0]
