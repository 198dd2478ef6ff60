"""Pictures as they come from a phone, and as they are kept: turned upright, without position or any other data of the
camera, in one form.

JPEG, PNG, WebP and HEIC are read with Pillow and pillow-heif. Only the day and hour that the camera wrote are kept,
beside the picture.
"""

from __future__ import annotations

import hashlib
import io
import re
import warnings
from dataclasses import dataclass

import pillow_heif
from PIL import ExifTags, Image, ImageOps, UnidentifiedImageError

from levelrun.core.errors import LevelRunError

MOST_BYTES = 25_000_000
MOST_PIXELS = 60_000_000  # a file of a few kilobytes may unpack to gigabytes: it is refused before it is unpacked
LEAST_EDGE = 16
KEPT_EDGE, SIZES = 3200, {"large": 1600, "small": 360}
FORMS = ("JPEG", "PNG", "WEBP", "HEIF")
QUALITY = {"kept": 90, "large": 84, "small": 78}
_WHEN = re.compile(r"^(\d{4}):(\d{2}):(\d{2}) (\d{2}):(\d{2})")

pillow_heif.register_heif_opener()


class PictureError(LevelRunError):
    """A file is no picture that can be kept."""


@dataclass(frozen=True, kw_only=True)
class Picture:
    """A picture as it is kept: JPEG bytes by size (kept, large, small), SHA-256 of the kept ones, its size in pixels,
    when it was taken as the camera says: a day and an hour, empty where it does not."""

    sha: str
    wide: int
    tall: int
    files: dict[str, bytes]
    on: str
    hour: str


def read_picture(data: bytes) -> Picture:
    """A picture from a file. Raises PictureError that says why it is none that can be kept."""
    if len(data) > MOST_BYTES:
        raise PictureError(
            f"the picture has {len(data) / 1e6:.0f} MB; allowed: up to {MOST_BYTES / 1e6:.0f}", key="file"
        )
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            return _read(data)
    except (Image.DecompressionBombError, Image.DecompressionBombWarning):
        raise PictureError(_too_many("far too many"), key="file") from None
    except PictureError:
        raise
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, EOFError, TypeError, KeyError, IndexError):
        raise PictureError("the file is no whole picture; allowed: JPEG, PNG, WebP, HEIC", key="file") from None


def _too_many(pixels: str) -> str:
    return f"the picture has {pixels} pixels; allowed: up to {MOST_PIXELS // 1_000_000} million"


def _read(data: bytes) -> Picture:
    with Image.open(io.BytesIO(data), formats=FORMS) as opened:
        wide, tall = opened.size
        if wide * tall > MOST_PIXELS:
            raise PictureError(_too_many(f"{wide * tall / 1e6:.0f} million"), key="file")
        if min(wide, tall) < LEAST_EDGE:
            raise PictureError(f"the picture is {wide} × {tall}; allowed: {LEAST_EDGE} and more", key="file")
        on, hour = _taken(opened)
        upright = ImageOps.exif_transpose(opened) or opened
        plain = _flat(upright)
    kept = _within(plain, KEPT_EDGE)
    files = {"kept": _jpeg(kept, "kept")}
    for name, edge in SIZES.items():
        files[name] = _jpeg(_within(kept, edge), name)
    return Picture(
        sha=hashlib.sha256(files["kept"]).hexdigest(), wide=kept.width, tall=kept.height, files=files, on=on,
    hour=hour )  # fmt: skip


def _flat(image: Image.Image) -> Image.Image:
    """Plain RGB on white, with nothing but its pixels."""
    if image.mode in ("RGBA", "LA", "PA") or "transparency" in image.info:
        over = image.convert("RGBA")
        ground = Image.new("RGBA", over.size, "white")
        image = Image.alpha_composite(ground, over)
    plain = image.convert("RGB")
    found = Image.new("RGB", plain.size)
    found.paste(plain)
    return found


def _within(image: Image.Image, edge: int) -> Image.Image:
    if max(image.size) <= edge:
        return image
    share = edge / max(image.size)
    size = (max(round(image.width * share), 1), max(round(image.height * share), 1))
    return image.resize(size, Image.Resampling.LANCZOS)


def _jpeg(image: Image.Image, name: str) -> bytes:
    out = io.BytesIO()
    image.save(out, "JPEG", quality=QUALITY[name], optimize=True)
    return out.getvalue()


def _taken(image: Image.Image) -> tuple[str, str]:
    exif = image.getexif()
    said = exif.get_ifd(ExifTags.IFD.Exif).get(ExifTags.Base.DateTimeOriginal) or exif.get(ExifTags.Base.DateTime)
    match = _WHEN.match(str(said or ""))
    if match is None:
        return "", ""
    year, month, day, hour, minute = match.groups()
    right = "1990" <= year <= "2199" and "01" <= month <= "12" and "01" <= day <= "31" and hour < "24"
    return (f"{year}-{month}-{day}", f"{hour}:{minute}") if right else ("", "")
