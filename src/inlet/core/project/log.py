"""The log of what was made, as the file keeps it."""

from __future__ import annotations

from typing import Literal

from inlet.core.numbers import Exact
from inlet.core.project.value import Brief, Pair, replace

Deed = Literal["done", "cut", "unpicked", "measured", "timed", "note"]
"""What was done: a step or part of it was done, cuts were made of a fabric, what was sewn was
unpicked again, what came of it was measured, time was spent on it, or something was written
down."""


class LogEntry(Brief, frozen=True, kw_only=True):
    """``number`` times a step was done, or what it makes was unpicked or measured, ``at`` a time
    (local, to the minute: ``2026-11-30T21:56``; empty where it is not known). ``what`` is the name
    of the step then, as ``Make Skiff A``, ``part`` what of it was done, as ``press``; empty for its
    last part, with which it is done. ``size`` and ``drawn`` are what came off it: how large,
    unfinished, and the mark of its drawing. ``minutes`` is how long it took, where that was taken.
    ``text`` is a note, or why it was unpicked, ``photo`` the name of a photograph in the folder
    beside the project."""

    what: str = ""
    did: Deed = "done"
    part: str = ""
    number: int = 1
    at: str = ""
    size: Pair | None = None
    drawn: str = ""
    minutes: int | None = None
    text: str = ""
    photo: str = ""


def log_measured(log: tuple[LogEntry, ...], factor: Exact) -> tuple[LogEntry, ...]:
    """The log with its lengths in another unit."""
    return tuple(
        entry
        if entry.size is None
        else replace(entry, size=(entry.size[0] * factor, entry.size[1] * factor))
        for entry in log
    )
