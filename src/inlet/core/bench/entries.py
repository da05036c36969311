"""The log written: a step ticked or taken back, something unpicked, a note."""

from __future__ import annotations

from inlet.core.bench.progress import Log, SewnPile, fits, piles
from inlet.core.bench.things import Thing
from inlet.core.project import Deed, LogEntry, replace

REASONS = (
    "wrong way round", "in the wrong order", "points cut off", "stretched", "mixed stacks",
)  # fmt: skip
"""Why something is unpicked, most often."""


def ticked(
    log: Log,
    thing: Thing,
    done: int,
    by: int,
    at: str,
    part: str = "",
    minutes: int | None = None,
    did: Deed = "done",
) -> Log:
    """A step, or a ``part`` of it, of which so many are ``done`` done ``by`` times more; or fewer,
    where it was ticked by mistake: what was ticked last is taken back first. Never more often than
    it is to be done, never less than not at all. Ticks of one day, one after the other, are one
    entry. ``minutes`` is how long it took, where that was taken."""
    by = max(-done, min(by, thing.times - done))
    if by <= 0:
        return _taken_back(log, thing, -by, did, part)
    entry = LogEntry(
        what=thing.name, did=did, part=part, number=by, at=at, size=thing.size, drawn=thing.drawn
    )
    last = log[-1] if log else None
    if last is not None and _day(last.at) == _day(at):
        timed = (last.minutes is None) == (minutes is None)
        if timed and replace(last, number=by, at=at, minutes=None) == entry:
            took = None if minutes is None else (last.minutes or 0) + minutes
            return (*log[:-1], replace(entry, number=last.number + by, minutes=took))
    return logged_in(log, replace(entry, minutes=minutes))


def logged_in(log: Log, entry: LogEntry) -> Log:
    """The log with one entry more."""
    return (*log, entry)


def _day(at: str) -> str:
    return at.partition("T")[0]


def _taken_back(log: Log, thing: Thing, number: int, did: Deed, part: str) -> Log:
    entries = list(log)
    for i in range(len(entries) - 1, -1, -1):
        entry = entries[i]
        if not number:
            break
        if (entry.did, entry.part) == (did, part) and fits(_pile(entry), thing):
            taken = min(number, entry.number)
            number -= taken
            entries[i : i + 1] = (
                [replace(entry, number=entry.number - taken)] if taken < entry.number else []
            )
    return tuple(entries)


def _pile(entry: LogEntry) -> SewnPile:
    return SewnPile(entry.what, entry.number, entry.size, entry.drawn)


def unpicked(log: Log, thing: Thing, number: int, why: str, at: str) -> Log:
    """So many of what is there of a thing unpicked, to be made again; never more than there
    are."""
    entries = []
    for pile in piles(log):
        taken = min(number, pile.number) if not pile.part and fits(pile, thing) else 0
        if taken:
            number -= taken
            entries.append(
                LogEntry(
                    what=pile.name, did="unpicked", number=taken, at=at, size=pile.size,
                    drawn=pile.drawn, text=why,
                )
            )  # fmt: skip
    return (*log, *entries)


def noted(log: Log, text: str, at: str, what: str = "", photo: str = "") -> Log:
    """Something written down, of a step where ``what`` names it, with a photograph or none."""
    return logged_in(log, LogEntry(what=what, did="note", at=at, text=text, photo=photo))
