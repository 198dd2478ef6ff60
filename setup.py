"""A wheel carries the built interface, or is not made: one without it would serve an empty page."""

from __future__ import annotations

from pathlib import Path

from setuptools import setup
from setuptools.command.build_py import build_py

INTERFACE = Path(__file__).parent / "levelrun" / "web_dist" / "index.html"


class WithInterface(build_py):
    """Refuses to build while the interface is not built; an editable install serves whatever is built later."""

    def run(self) -> None:
        if not self.editable_mode and not INTERFACE.exists():
            raise SystemExit("levelrun/web_dist is not built: run `make .make/web` first, then build the wheel")
        super().run()


setup(cmdclass={"build_py": WithInterface})
