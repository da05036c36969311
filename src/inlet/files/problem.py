"""What keeps a file from being read or written, in one plain sentence."""

from __future__ import annotations

import json
import os
import re
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


_KINDS = {
    "object": "a group {…}",
    "array": "a list […]",
    "str": "text",
    "int": "a whole number",
    "float": "a number",
    "bool": "true or false",
}


def in_plain_words(message: str, raw: Any) -> str:
    """The message of the library that checks types, as place, what is there and what is wanted:
    “Expected `array`, got `str` - at `$.blocks[0].columns`” as “blocks[0].columns: “3” is not a
    list”. ``raw`` is what was read."""
    found = re.fullmatch(r"(.*?)(?: - at `(?:key in )?\$\.?(.*?)`(?: in .*)?)?", message, re.DOTALL)
    assert found is not None
    text, path = found[1], found[2] or ""
    here, place = _walk(raw, path)
    start = f"{place}: " if place else ""
    missing = re.search(r"missing required field `(\w+)`", text)
    if missing:
        return f"{start}“{missing[1]}” is missing"
    length = re.search(r"of length (\d+)", text)
    if length:
        return f"{start}expected a list of {length[1]}, found {shown(here)}"
    kinds = re.search(r"Expected `([^`]*)`", text)
    if kinds:
        names = [k.strip() for k in kinds[1].split("|")]
        wanted = " or ".join(_KINDS.get(k, k) for k in names if k != "null")
        return f"{start}expected {wanted}, found {shown(here)}"
    if "out of range" in text:
        return f"{start}{shown(here)} is out of range"
    return f"{start}{text}"


def _walk(raw: Any, path: str) -> tuple[Any, str]:
    """What stands at a library's path, and the path as a message names it: for “[...]”, any value
    of a group, the first that is not text."""
    here, place = raw, ""
    for name, index in re.findall(r"([^.\[\]]+)|\[(\d+|\.\.\.)\]", path):
        if index == "...":
            items = here.items() if isinstance(here, dict) else ()
            key, here = next(((k, v) for k, v in items if not isinstance(v, str)), ("", None))
            place += f".{printable(key)[:_SHOWN]}"
        elif index:
            inside = isinstance(here, list) and int(index) < len(here)
            here = here[int(index)] if inside else None
            place += f"[{index}]"
        else:
            here = here.get(name) if isinstance(here, dict) else None
            place += f".{name}" if place else name
    return here, place
