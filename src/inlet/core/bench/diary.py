"""The log told as a diary: day by day, a line for each entry."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date
from itertools import groupby
from typing import NamedTuple

from inlet.core.bench.finish import day_text
from inlet.core.bench.progress import Log
from inlet.core.project import LogEntry, Measure
from inlet.core.schedule import minutes_text
from inlet.core.words import near_text

COUNTED = ("Make", "Sew", "Trim")
"""Verbs of steps that are done to a number of things."""
NO_DAY = "No date"


class DiaryDay(NamedTuple):
    """A day, how long was worked on it by what was timed, and its entries, each by the number it
    has in the log, in the order of the log."""

    title: str
    minutes: int
    entries: tuple[tuple[int, LogEntry], ...]


def diary(log: Log) -> tuple[DiaryDay, ...]:
    """All days of a log, in its order."""
    days = []
    for day, entries in groupby(enumerate(log), lambda each: day_of(each[1])):
        all_entries = tuple(entries)
        minutes = sum(entry.minutes or 0 for _, entry in all_entries)
        days.append(DiaryDay(_title(day), minutes, all_entries))
    return tuple(days)


def day_of(entry: LogEntry) -> str:
    """``2026-11-30``; empty where it is not known."""
    return entry.at.partition("T")[0]


def _title(day: str) -> str:
    try:
        return day_text(date.fromisoformat(day))
    except ValueError:
        return day or NO_DAY


def day_title(day: DiaryDay) -> str:
    """``Mon 30 Nov 2026, 1 h 20 min``."""
    return f"{day.title}, {minutes_text(day.minutes)}" if day.minutes else day.title


def entry_text(entry: LogEntry, measure: Measure) -> str:
    """An entry as a line: ``Press 24 × Sluice A``, ``Cut Fog, 31 cuts``, ``Unpicked 2 × Sluice A:
    wrong way round``; how long it took behind it."""
    text = _told(entry, measure)
    if entry.minutes:
        took = minutes_text(entry.minutes)
        text = f"{text}, {took}" if text else took
    return text


def _told(entry: LogEntry, measure: Measure) -> str:
    verb, _, product = entry.what.partition(" ")
    counted = verb in COUNTED and bool(product)
    many = f"{entry.number} × {product}" if counted else entry.what
    why = f": {entry.text}" if entry.text else ""
    if entry.did == "note":
        return f"{entry.what}{why}" if entry.what else entry.text
    if entry.did == "timed":
        return f"Worked on {product if counted else entry.what}" if entry.what else "Worked"
    if entry.did == "cut":
        return f"{entry.what}, {entry.number} {'cut' if entry.number == 1 else 'cuts'}"
    if entry.did == "unpicked":
        return f"Unpicked {many}{why}"
    if entry.did == "measured":
        size = near_text(entry.size, measure) if entry.size is not None else "not known"
        return f"Measured {many}: {size}{'; ' + entry.text if entry.text else ''}"
    part = entry.part.partition(" #")[0]
    if part:
        verb = f"{part[0].upper()}{part[1:]}"
    if counted:
        return f"{verb} {entry.number} × {product}"
    times = f", {entry.number} times" if entry.number > 1 else ""
    return f"{verb} {product}{times}" if part else f"{entry.what}{times}"


def clock(entry: LogEntry) -> str:
    """The time of day of an entry: ``21:56``; empty where it is not known."""
    return entry.at.partition("T")[2][:5]


def diary_lines(log: Log, measure: Measure) -> Iterator[str]:
    """The diary as text, a day's heading before its entries."""
    for day in diary(log):
        yield day_title(day)
        for _, entry in day.entries:
            photo = f" (photograph {entry.photo})" if entry.photo else ""
            yield f"  {clock(entry)}  {entry_text(entry, measure)}{photo}".rstrip()
