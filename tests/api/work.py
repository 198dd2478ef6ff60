"""Work for the worker process in tests: slow, in many parts."""

from __future__ import annotations

import os
import time
from collections.abc import Iterator


def sleeping(seconds: float) -> str:
    """Takes its time."""
    time.sleep(seconds)
    return "awake"


def parts(count: int) -> Iterator[int]:
    """The process that works, again and again."""
    for _ in range(count):
        yield os.getpid()
