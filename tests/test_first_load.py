"""What a page loads before its stage: scripts and styles under 200 kB compressed, fonts under 90 kB beside them."""

from __future__ import annotations

import gzip
import re
from pathlib import Path

import pytest

DIST = Path(__file__).parents[1] / "levelrun" / "web_dist"


def first() -> list[Path]:
    """The files that the page names itself."""
    page = (DIST / "index.html").read_text()
    return [DIST / name for name in sorted(set(re.findall(r'(?:src|href)="/?(assets/[^"]+\.(?:js|css))"', page)))]


def test_the_first_page_is_light() -> None:
    files = first()
    assert {file.suffix for file in files} == {".js", ".css"}
    assert sum(len(gzip.compress(file.read_bytes())) for file in files) <= 200_000
    fonts = list((DIST / "assets").glob("*.woff2"))
    assert fonts and sum(font.stat().st_size for font in fonts) <= 90_000


@pytest.mark.parametrize("stage", ["Walls", "Boxes", "Circuits", "Runs", "Pipe", "Trench", "Buy", "Rough", "Test"])
def test_each_stage_is_a_chunk_of_its_own_that_the_first_page_does_not_name(stage: str) -> None:
    chunks = list((DIST / "assets").glob(f"{stage}Stage-*.js"))
    assert chunks and not set(chunks) & set(first())
