"""The log of what was made, as the file keeps it."""

from __future__ import annotations

from typing import Literal

from inlet.core.numbers import Exact
from inlet.core.project.value import Brief, Pair, replace

Deed = Literal["done", "unpicked", "note"]
"""What was done: a step was done, what was sewn was unpicked again, or something was written
down."""


class LogEntry(Brief, frozen=True, kw_only=True):
    """``number`` times a step was done, or what it makes was unpicked, ``at`` a time (local, to the
    minute: ``2026-11-30T21:56``; empty where it is not known). ``what`` is the name of the step
    then, as ``Make Skiff A``; ``size`` and ``drawn`` are what came off it: how large, unfinished,
    and the mark of its drawing. ``text`` is a note, or why it was unpicked."""

    what: str = ""
    did: Deed = "done"
    number: int = 1
    at: str = ""
    size: Pair | None = None
    drawn: str = ""
    text: str = ""


def log_measured(log: tuple[LogEntry, ...], factor: Exact) -> tuple[LogEntry, ...]:
    """The log with its lengths in another unit."""
    return tuple(
        entry
        if entry.size is None
        else replace(entry, size=(entry.size[0] * factor, entry.size[1] * factor))
        for entry in log
    )
