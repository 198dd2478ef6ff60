"""The pairing page: plain files, so that nothing else has to be given out without a key."""

from pathlib import Path

PAGE = Path(__file__).parent
