"""The code that pairs a phone: six letters, good for minutes and for one phone; wrong guesses are slowed, then the
code is withdrawn. Consonants only, so that it spells nothing.
"""

from __future__ import annotations

import secrets
import threading
from collections.abc import Callable
from dataclasses import dataclass

LETTERS = "BCDFGHJKLMNPQRSTVWXZ"
LONG, GOOD_S = 6, 300.0
FREE, MOST_WRONG, MOST_WAIT_S = 3, 10, 60.0


@dataclass(frozen=True)
class Code:
    """A code, and until when it is good, in seconds of the clock that was asked."""

    text: str
    until: float


class PairingRefusedError(Exception):
    """A guess that pairs nothing. `wait_s`: before that nothing is looked at."""

    def __init__(self, text: str, wait_s: float) -> None:
        super().__init__(text)
        self.text, self.wait_s = text, wait_s


class Pairing:
    """The one code that may be open."""

    def __init__(self, clock: Callable[[], float]) -> None:
        self._clock = clock
        self._lock = threading.Lock()
        self._code: Code | None = None
        self._wrong = 0
        self._next = 0.0

    def open(self) -> Code:
        """A new code; one that was open before is good no longer."""
        with self._lock:
            text = "".join(secrets.choice(LETTERS) for _ in range(LONG))
            self._code, self._wrong = Code(text, self._clock() + GOOD_S), 0
            return self._code

    def close(self) -> None:
        """No code is open."""
        with self._lock:
            self._code = None

    @property
    def code(self) -> Code | None:
        """The code that is open now."""
        with self._lock:
            return self._good()

    def guess(self, text: str) -> None:
        """Takes the code, which is good no longer then. Raises PairingRefusedError."""
        with self._lock:
            now = self._clock()
            if now < self._next:
                wait = self._next - now
                raise PairingRefusedError(f"too many guesses: wait {wait:.0f} s", wait)
            code = self._good()
            said = "".join(text.split()).upper()
            if code is None:
                self._slow(now)
                raise PairingRefusedError("no code is open: ask for one on the laptop", self._next - now)
            if not secrets.compare_digest(said.encode(), code.text.encode()):
                self._slow(now)
                if self._wrong >= MOST_WRONG:
                    self._code = None
                    raise PairingRefusedError("too many wrong guesses: the code is withdrawn", self._next - now)
                raise PairingRefusedError("this is not the code on the laptop's screen", self._next - now)
            self._code, self._wrong, self._next = None, 0, 0.0

    def _good(self) -> Code | None:
        if self._code is not None and self._clock() >= self._code.until:
            self._code = None
        return self._code

    def _slow(self, now: float) -> None:
        self._wrong += 1
        wait = 0.0 if self._wrong < FREE else min(2.0 ** min(self._wrong - FREE, 10), MOST_WAIT_S)
        self._next = now + wait
