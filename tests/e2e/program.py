"""The program in processes of its own. To load it takes longer than most tests do, so it is loaded once for all of
them, and each process begins as a copy of the one that has it."""

from __future__ import annotations

import multiprocessing
import os
import sys
from collections.abc import Sequence
from contextlib import redirect_stdout
from pathlib import Path

from levelrun.cli import main

PROGRAM = multiprocessing.get_context("forkserver")
PROGRAM.set_forkserver_preload([__name__, "levelrun.api.app", "levelrun.api.long", "levelrun.samples", "uvicorn"])


def run(arguments: Sequence[str]) -> None:
    """`levelrun` with these arguments; what it prints is left out."""
    with Path(os.devnull).open("w") as nowhere, redirect_stdout(nowhere):
        sys.exit(main(arguments))
