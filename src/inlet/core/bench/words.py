"""The log and the progress in words."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.bench.progress import Log, SewnPile, progress
from inlet.core.bench.things import Thing
from inlet.core.project import LogEntry, Measure
from inlet.core.words import near_text

SPARE_NAMED = 4
LOG_HEAD = (
    "When", "What", "Step", "Part", "How many", "Unfinished", "Minutes", "Note", "Photograph",
)  # fmt: skip


def log_lines(log: Log, measure: Measure) -> list[tuple[str, ...]]:
    """The log as a table, its head first, in the order in which it was written."""
    return [LOG_HEAD, *(_cells(entry, measure) for entry in log)]


def _cells(entry: LogEntry, measure: Measure) -> tuple[str, ...]:
    size = near_text(entry.size, measure) if entry.size is not None else ""
    number = "" if entry.did == "note" else str(entry.number)
    at, minutes = entry.at.replace("T", " "), str(entry.minutes or "")
    what = entry.did, entry.what, entry.part, number
    return at, *what, size, minutes, entry.text, entry.photo


def spare_text(piles: Sequence[SewnPile], measure: Measure) -> str:
    """A sentence of what is spare, the first few piles by name; nothing where nothing is."""
    if not piles:
        return ""
    named = "; ".join(pile_text(pile, measure) for pile in piles[:SPARE_NAMED])
    more = len(piles) - SPARE_NAMED
    rest = f"; and {more} more" if more > 0 else ""
    return f"Spare, as no step takes them now: {named}{rest}."


def progress_lines(log: Log, things: Sequence[Thing], measure: Measure) -> Iterator[str]:
    """``112 of 112: Make Sluice A``, step by step, then what is spare."""
    progressed = progress(log, things)
    done, spare = progressed.done, progressed.spare
    for thing in things:
        yield f"{done.get(thing.name, 0)} of {thing.times}: {thing.name}"
    if spare:
        yield "Spare, as no step takes them now:"
        yield from (f"  {pile_text(pile, measure)}" for pile in spare)


def pile_text(pile: SewnPile, measure: Measure) -> str:
    """``4 × Sluice A, 3 1/2 in``: what came off the step, not what was done."""
    verb, _, product = pile.name.partition(" ")
    name = product if verb in ("Make", "Sew") and product else pile.name
    size = f", {near_text(pile.size, measure)}" if pile.size is not None else ""
    if pile.part:
        return f"{pile.number} × {name}, begun: {pile.part}"
    return f"{pile.number} × {name}{size}"
