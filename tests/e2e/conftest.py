"""The real server in its own process and Debian's headless Chromium."""

from __future__ import annotations

import http.client
import json
import shutil
import socket
import time
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, ConsoleMessage, Page, expect, sync_playwright

from tests.e2e.hands import settled
from tests.e2e.program import PROGRAM, run

expect.set_options(timeout=30_000)  # a machine that is kept busy by something else is slow, not wrong
CHROMIUM = shutil.which("chromium-headless-shell") or shutil.which("chromium") or "/usr/bin/chromium"
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

    def __init__(self, data: Path, *, demo: bool = True, here: str = "", more: tuple[str, ...] = ()) -> None:
        self.data = data
        self.more = (*(("--here", here) if here else ()), *more)
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.demo = demo
        self.start()

    def start(self) -> None:
        arguments = ["serve", "--data", str(self.data), "--port", str(self.port), *self.more]
        self.process = PROGRAM.Process(target=run, args=(arguments + ["--demo"] * self.demo,))
        self.process.start()
        for _ in range(900):  # a minute and a half: others may keep the machine busy
            try:
                urllib.request.urlopen(f"{self.url}/api/health", timeout=1).close()
                return
            except OSError:
                time.sleep(0.1)
        raise AssertionError("the server did not start")

    def kill(self) -> None:
        """kill -9."""
        self.process.kill()
        self.process.join()


def call(server: Server, method: str, path: str, body: object = None) -> dict[str, Any]:
    """One request; its JSON, which is an answer and no problem."""
    connection = http.client.HTTPConnection("127.0.0.1", server.port, timeout=60)
    text = None if body is None else json.dumps(body)
    connection.request(method, path, text, {"content-type": "application/json"} if text else {})
    answer = connection.getresponse()
    found: dict[str, Any] = json.loads(answer.read())
    assert answer.status < 300, found
    return found


@pytest.fixture
def server(tmp_path: Path) -> Iterator[Server]:
    """A server of the test's own, to be killed."""
    found = Server(tmp_path)
    yield found
    found.kill()


@pytest.fixture(scope="session")
def shared(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """The one server of all tests that leave it running."""
    found = Server(tmp_path_factory.mktemp("shared"))
    yield found
    found.kill()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        found = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield found
        found.close()


@pytest.fixture
def browser_with(browser: Browser) -> Callable[[list[str]], Browser]:
    """A browser of the test's own with more flags."""
    return lambda flags: browser.browser_type.launch(executable_path=CHROMIUM, args=[*FLAGS, *flags])


@pytest.fixture
def job(shared: Server) -> str:
    """A copy of the demo of the test's own, the job last opened; its id."""
    answer = call(shared, "POST", "/api/jobs", {"sample": "quince-hollow"})
    return str(answer["head"]["id"])


def is_fault(told: ConsoleMessage) -> bool:
    """Whether the page tells of a fault of its own: a picture that broke while it was drawn is told on the console
    only. An answer that refuses something is no fault."""
    return told.type == "error" and not told.text.startswith("Failed to load resource")


@pytest.fixture
def open_page(browser: Browser, shared: Server, job: str) -> Iterator[Callable[..., Page]]:
    """A window on the job, or on an empty one; requests that would leave the machine and faults on the page fail the
    test."""
    faults: list[str] = []
    contexts: list[BrowserContext] = []

    def make(width: int = 1280, height: int = 800, path: str = "/", empty: bool = False, **more: Any) -> Page:
        if empty:
            made = call(shared, "POST", "/api/jobs", {"name": "New job"})
            path = f"/jobs/{made['head']['id']}/start"
        more = {"reduced_motion": "reduce", **more}
        context = browser.new_context(viewport={"width": width, "height": height}, **more)
        contexts.append(context)
        page = context.new_page()
        page.on("pageerror", lambda error: faults.append(str(error)))
        page.on("console", lambda told: faults.append(told.text) if is_fault(told) else None)
        page.on(
            "request", lambda r: None if r.url.startswith((shared.url, "data:", "blob:")) else faults.append(r.url)
        )
        page.set_default_timeout(45_000)
        page.goto(shared.url + path.format(job=job))
        settled(page)
        return page

    yield make
    for context in contexts:
        context.close()
    assert faults == []
