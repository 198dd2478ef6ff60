"""The real server in its own process and Debian's headless Chromium."""

from __future__ import annotations

import os
import shutil
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, sync_playwright

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Server:
    """`levelrun serve` on a port and folder of its own."""

    def __init__(self, data: Path, *, demo: bool = True) -> None:
        self.data = data
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.demo = demo
        self.start()

    def start(self) -> None:
        command = [sys.executable, "-m", "levelrun.cli", "serve", "--data", str(self.data)]
        environment = {**os.environ, "LEVELRUN_PORT": str(self.port)}
        self.process = subprocess.Popen(command + ["--demo"] * self.demo, env=environment, stdout=subprocess.DEVNULL)
        for _ in range(200):
            try:
                urllib.request.urlopen(f"{self.url}/api/health", timeout=1).close()
                return
            except OSError:
                time.sleep(0.1)
        raise AssertionError("the server did not start")

    def kill(self) -> None:
        """kill -9."""
        self.process.kill()
        self.process.wait()


def settled(page: Page) -> None:
    """Waits until nothing is on its way: no request, no queued change."""
    page.locator("html:not([data-busy])").wait_for(state="attached")


@pytest.fixture
def server(tmp_path: Path) -> Iterator[Server]:
    found = Server(tmp_path)
    yield found
    found.kill()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    chromium = shutil.which("chromium") or "/usr/bin/chromium"
    with sync_playwright() as playwright:
        found = playwright.chromium.launch(executable_path=chromium, args=FLAGS)
        yield found
        found.close()


@pytest.fixture
def open_page(browser: Browser, server: Server) -> Iterator[Callable[..., Page]]:
    """A window on the server; requests that would leave the machine and faults on the page fail the test."""
    faults: list[str] = []

    def make(width: int = 1280, height: int = 800) -> Page:
        page = browser.new_context(viewport={"width": width, "height": height}).new_page()
        page.on("pageerror", lambda error: faults.append(str(error)))
        page.on(
            "request", lambda r: None if r.url.startswith((server.url, "data:", "blob:")) else faults.append(r.url)
        )
        page.set_default_timeout(3_000)
        page.goto(server.url)
        settled(page)
        page.get_by_test_id("stops").wait_for()
        return page

    yield make
    assert faults == []
