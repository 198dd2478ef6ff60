"""The second door: the same app on the address that this machine has on its network, open while it is wanted."""

from __future__ import annotations

import asyncio
import socket
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from levelrun.api.here.pairing import Pairing
from levelrun.core.errors import LevelRunError
from levelrun.store.phones import Phones

NOWHERE = ("192.0.2.1", 9)  # documentation address (RFC 5737): asking the way there sends nothing


@dataclass(frozen=True, kw_only=True)
class Certificate:
    """A certificate and its key as files, and the name that it is made out to."""

    cert: Path
    key: Path
    name: str = ""


class HereError(LevelRunError):
    """The network door cannot be opened."""


def address_of_this_machine() -> str:
    """The address of this machine on its network. Raises HereError where it is on none."""
    try:
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asked:
            asked.connect(NOWHERE)
            found = str(asked.getsockname()[0])
    except OSError:
        found = ""
    if not found or found.startswith("127.") or found == "0.0.0.0":
        raise HereError("this machine is on no network: join one, or name its address with --here", key="here")
    return found


class Here:
    """Whether the door is open, where, and the code that pairs. One for each app."""

    phones: Phones  # those of the data that is open: `open_data` sets them

    def __init__(self, *, address: str = "", certificate: Certificate | None = None) -> None:
        self.pairing = Pairing(time.monotonic)
        self.certificate = certificate
        self.wanted = address
        self.port = 0
        self._bound: tuple[str, int] | None = None
        self._server: Any = None
        self._task: asyncio.Task[None] | None = None

    @property
    def is_open(self) -> bool:
        """Whether phones may knock."""
        return self._bound is not None

    @property
    def scheme(self) -> str:
        """http, or https with a certificate."""
        return "https" if self.certificate else "http"

    @property
    def url(self) -> str:
        """Where phones find it; empty while it is closed."""
        if self._bound is None:
            return ""
        name = self.certificate.name if self.certificate and self.certificate.name else self._bound[0]
        return f"{self.scheme}://{name}:{self._bound[1]}"

    @property
    def hosts(self) -> set[str]:
        """The names by which a phone may call it."""
        if self._bound is None:
            return set()
        named = {self.certificate.name} if self.certificate and self.certificate.name else set()
        return {self._bound[0], *named}

    def came_in(self, server: Any) -> bool:
        """Whether a request came in by this door. `server`: the local end of its connection."""
        return self._bound is not None and server is not None and tuple(server) == self._bound

    async def open(self, app: Any) -> None:
        """Opens the door. Raises HereError that says why not."""
        if self.is_open:
            return
        import uvicorn

        address = self.wanted or address_of_this_machine()
        found = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        found.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            found.bind((address, self.port))
        except OSError as error:
            found.close()
            raise HereError(f"{address}:{self.port} cannot be opened ({error.strerror})", key="here") from None
        more: dict[str, Any] = {}
        if self.certificate is not None:
            more = {"ssl_certfile": self.certificate.cert, "ssl_keyfile": self.certificate.key}
        config = uvicorn.Config(
            app, log_level="warning", lifespan="off", timeout_graceful_shutdown=2, proxy_headers=False,
            server_header=False, **more,
        )  # fmt: skip
        try:
            config.load()
        except (OSError, ValueError) as error:
            found.close()
            raise HereError(f"the certificate cannot be used: {error}", key="cert") from None
        self._server = _door(uvicorn.Server)(config)
        self._bound = (address, int(found.getsockname()[1]))
        self._task = asyncio.create_task(self._server.serve(sockets=[found]))

    async def close(self) -> None:
        """Shuts the door; a code that was open is good no longer."""
        self.pairing.close()
        server, task = self._server, self._task
        self._bound = self._server = self._task = None
        if server is not None and task is not None:
            server.should_exit = True
            with suppress(asyncio.CancelledError, SystemExit):
                await asyncio.wait_for(task, 5)


def _door(server: Any) -> Any:
    """A server that leaves signals to the one that runs the program."""

    class Door(server):  # type: ignore[misc]
        @contextmanager
        def capture_signals(self) -> Iterator[None]:
            yield

    return Door
