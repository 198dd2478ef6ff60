"""One worker process for what may take long: solvers, drawings from outside. It is started when it is first needed,
gives its results part by part, and is stopped where nobody waits any longer or where it does not answer."""

from __future__ import annotations

import multiprocessing
from collections.abc import AsyncIterator, Callable, Generator, Iterable, Iterator
from contextlib import suppress
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from threading import Lock
from typing import Any, TypeVar

from anyio import CancelScope
from starlette.concurrency import run_in_threadpool

from levelrun.core.errors import LevelRunError

T = TypeVar("T")
PATIENCE_S = 20.0
STARTING_S = 90.0  # a process that has just been started loads its code first


class TooLongError(LevelRunError):
    """Work was stopped because it took too long, or its process ended."""


class Worker:
    """The worker process. Thread-safe: one work after another."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._process: BaseProcess | None = None
        self._pipe: Connection | None = None

    def run(self, act: Callable[..., T], *given: Any, seconds: float = PATIENCE_S) -> T:
        """What `act(*given)` returns; `act` is a function of a module. Raises what it raises, or TooLongError."""
        found: list[T] = list(self.stream(_once, act, *given, seconds=seconds))
        return found[0]

    def stream(
        self, act: Callable[..., Iterable[T]], *given: Any, seconds: float = PATIENCE_S
    ) -> Generator[T, None, None]:  # fmt: skip
        """The parts of `act(*given)`, each as soon as it is there. Left early, the work is stopped. `seconds` is the
        longest wait for a part. Raises what `act` raises, or TooLongError."""
        with self._lock:
            fresh = self._process is None or not self._process.is_alive()
            pipe = self._started()
            patience, done = max(seconds, STARTING_S) if fresh else seconds, False
            try:
                pipe.send((act, given))
                while True:
                    if not pipe.poll(patience):
                        raise TooLongError(f"this took over {patience:g} s and was stopped; try with less", key="")
                    what, part = pipe.recv()
                    patience = seconds
                    done = what != "part"
                    if what == "error":
                        raise part
                    if done:
                        return
                    yield part
            except (EOFError, OSError):
                raise TooLongError("the work was stopped before it was done; try again", key="") from None
            finally:
                if not done:
                    self._stop()

    async def parts(self, act: Callable[..., Iterable[T]], *given: Any) -> AsyncIterator[T]:
        """The parts of `stream` for an answer that is sent as they come: where the one who asked goes away,
        the work is stopped at its next part, and the worker is free for the next one."""
        found = self.stream(act, *given)
        try:
            while (part := await run_in_threadpool(next, found, None)) is not None:
                yield part
        finally:
            with CancelScope(shield=True):
                await run_in_threadpool(found.close)

    def warm(self, act: Callable[[], object]) -> None:
        """Starts the process before it is needed, with what `act` loads; without an answer it is started again when
        it is needed."""
        with suppress(TooLongError):
            self.run(act, seconds=60)

    def _started(self) -> Connection:
        if self._process is None or self._pipe is None or not self._process.is_alive():
            context = multiprocessing.get_context("spawn")
            self._pipe, theirs = context.Pipe()
            self._process = context.Process(target=_work, args=(theirs,), name="levelrun-worker", daemon=True)
            self._process.start()
            theirs.close()
        return self._pipe

    def _stop(self) -> None:
        if self._process is not None:
            self._process.kill()
            self._process.join()
        if self._pipe is not None:
            self._pipe.close()
        self._process = self._pipe = None

    def close(self) -> None:
        """Ends the process."""
        with self._lock:
            self._stop()


def _once(act: Callable[..., T], *given: Any) -> Iterator[T]:
    yield act(*given)


def _work(pipe: Connection) -> None:
    """The worker's life: a work, its parts, the next work; until the other end is gone."""
    while True:
        try:
            act, given = pipe.recv()
        except (EOFError, OSError, KeyboardInterrupt):
            return
        try:
            for part in act(*given):
                pipe.send(("part", part))
            pipe.send(("done", None))
        except (BrokenPipeError, ConnectionError):  # the server was stopped: nobody is left to be told
            return
        except Exception as error:  # told to the one who asked
            pipe.send(("error", error))
