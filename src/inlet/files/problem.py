"""What keeps a file from being read or written, in one plain sentence."""

from __future__ import annotations

import json
import os
from pathlib import Path
from typing import Any

LONGEST = 240
"""Letters of a message: what fits on two lines of a terminal, or in the window's own line."""
LONGEST_NAME = 80
_SHOWN = 40


class FileProblem(Exception):
    """A file that cannot be read or written; the message is one plain sentence with the place: one
    line, no longer than ``LONGEST``."""

    def __init__(self, message: str) -> None:
        plain = printable(message)
        super().__init__(plain if len(plain) <= LONGEST else plain[: LONGEST - 1] + "…")


def file_name(path: str | os.PathLike[str]) -> str:
    """The name of a file as a message begins with it, cut short so that the rest is read."""
    name = Path(path).name
    return name if len(name) <= LONGEST_NAME else f"{name[:LONGEST_NAME]}…"


def reason(error: OSError | ValueError) -> str:
    """Why the system refused a file, in its own few words."""
    return (getattr(error, "strerror", None) or str(error)).lower()


def printable(text: str) -> str:
    """Text on one line: white space folded, what cannot be printed as a question mark."""
    folded = " ".join(text.split())
    return "".join(c if c.isprintable() else "?" for c in folded)


def shown(value: Any) -> str:
    """A value of a file as a message shows it, cut short."""
    if isinstance(value, str):
        text = printable(value)
        return f"“{text if len(text) <= _SHOWN else text[: _SHOWN - 1] + '…'}”"
    if value is None:
        return "nothing (null)"
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, dict):
        return "a group {…}"
    if isinstance(value, list):
        return f"a list of {len(value)}"
    try:
        text = json.dumps(value)
    except ValueError:  # more digits than Python writes
        text = "a number of thousands of digits"
    return text if len(text) <= _SHOWN else text[: _SHOWN - 1] + "…"
