"""Pictures as a phone makes them: read by a picture library before and after; no position, turned upright, in three
sizes; what is none is refused in words."""

from __future__ import annotations

import hashlib
import io
import struct
import zlib

import pytest
from PIL import ExifTags, Image

from levelrun.exchange.pictures import KEPT_EDGE, MOST_BYTES, PictureError, read_picture
from levelrun.store.errors import StoreError
from levelrun.store.pictures import Pictures


def taken(form: str, wide: int = 800, tall: int = 600, turn: int = 1) -> bytes:
    """A picture as a phone writes it: its left half red, its right half blue, with position, day and hour."""
    image = Image.new("RGB", (wide, tall), "#c0201c")
    image.paste("#1c40c0", (wide // 2, 0, wide, tall))
    exif = image.getexif()
    exif[ExifTags.Base.Orientation] = turn
    exif[ExifTags.Base.Make] = "camera of nobody"
    exif.get_ifd(ExifTags.IFD.Exif)[ExifTags.Base.DateTimeOriginal] = "2026:05:12 09:14:33"
    place = exif.get_ifd(ExifTags.IFD.GPSInfo)
    place[ExifTags.GPS.GPSLatitudeRef], place[ExifTags.GPS.GPSLatitude] = "N", (45.0, 30.0, 1.0)
    out = io.BytesIO()
    image.save(out, form, exif=exif)
    return out.getvalue()


@pytest.mark.parametrize("form", ["JPEG", "PNG", "WEBP", "HEIF"])
def test_a_picture_is_kept_without_where_it_was_taken(form: str) -> None:
    data = taken(form)
    with Image.open(io.BytesIO(data)) as before:
        assert before.getexif().get_ifd(ExifTags.IFD.GPSInfo), "the position is in what comes"
    kept = read_picture(data)
    assert (kept.on, kept.hour, kept.wide, kept.tall) == ("2026-05-12", "09:14", 800, 600)
    for name, file in kept.files.items():
        with Image.open(io.BytesIO(file)) as after:
            assert after.format == "JPEG" and not dict(after.getexif()), name
            assert not after.getexif().get_ifd(ExifTags.IFD.GPSInfo)
        assert b"camera of nobody" not in file and b"Exif" not in file and b"http://ns.adobe" not in file
    assert hashlib.sha256(kept.files["kept"]).hexdigest() == kept.sha


@pytest.mark.parametrize(("turn", "left_is_red"), [(1, True), (2, False), (3, False), (4, True)])
def test_a_picture_held_otherwise_is_turned_upright(turn: int, left_is_red: bool) -> None:
    """EXIF orientation by its table: 2 mirrored, 3 upside down, 4 mirrored upside down."""
    kept = read_picture(taken("JPEG", turn=turn))
    with Image.open(io.BytesIO(kept.files["kept"])) as image:
        red, _, blue = image.getpixel((40, 300))  # type: ignore[misc]
    assert (red > blue) is left_is_red


@pytest.mark.parametrize("turn", [5, 6, 7, 8])
def test_a_picture_held_on_its_side_is_taller_than_wide(turn: int) -> None:
    kept = read_picture(taken("JPEG", turn=turn))
    assert (kept.wide, kept.tall) == (600, 800)


def test_sizes_are_within_their_edges_and_never_enlarged() -> None:
    kept = read_picture(taken("JPEG", 4000, 3000))
    assert (kept.wide, kept.tall) == (KEPT_EDGE, 2400)
    sizes = {}
    for name, file in kept.files.items():
        with Image.open(io.BytesIO(file)) as image:
            sizes[name] = image.size
    assert sizes == {"kept": (3200, 2400), "large": (1600, 1200), "small": (360, 270)}
    small = read_picture(taken("PNG", 100, 50))
    with Image.open(io.BytesIO(small.files["large"])) as image:
        assert image.size == (100, 50)


def bomb() -> bytes:
    """A PNG of a few hundred bytes that says it is 60,000 × 60,000."""
    head = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 2, 0, 0, 0)

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", head)
        + chunk(b"IDAT", zlib.compress(b"\0" * 1000))
        + chunk(b"IEND", b"")
    )


@pytest.mark.parametrize(
    ("data", "told"),
    [
        (b"", "no whole picture"),
        (b"<svg onload='alert(1)'/>", "no whole picture"),
        (b"GIF89a" + b"\0" * 60, "no whole picture"),
        (taken("JPEG")[:900], "no whole picture"),
        (taken("HEIF")[:900], "no whole picture"),
        (b"\xff\xd8\xff\xe0" + b"\0" * 4000, "no whole picture"),
        (taken("PNG", 10, 10), "16 and more"),
        (bomb(), "pixels; allowed: up to 60 million"),
        (b"\0" * (MOST_BYTES + 1), "25 MB; allowed: up to 25"),
    ],
)
def test_what_is_no_picture_is_refused_in_words(data: bytes, told: str) -> None:
    with pytest.raises(PictureError, match=told):
        read_picture(data)


def test_a_picture_is_written_whole_under_what_is_in_it(tmp_path: object) -> None:
    folder = Pictures(tmp_path)  # type: ignore[arg-type]
    found = read_picture(taken("JPEG"))
    folder.keep(found.sha, found.files)
    folder.keep(found.sha, found.files)
    assert list(folder) == [found.sha] and folder.has(found.sha) and folder.whole(found.sha)
    assert not list(folder.folder.rglob("*.part"))
    for sha, size in ((found.sha, "../kept"), ("../" + found.sha[3:], "kept"), (found.sha[:10], "kept")):
        assert folder.path(sha, size) is None
    with pytest.raises(StoreError, match="otherwise than what is in it"):
        folder.keep("0" * 64, found.files)
    path = folder.path(found.sha, "kept")
    assert path is not None
    path.write_bytes(path.read_bytes()[:-1])
    assert not folder.whole(found.sha)
