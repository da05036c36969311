"""How far the work is: what the log says was done, given to what the plan makes.

What was logged belongs to the drawing it was sewn from. It counts for the step of its name where
that makes the same still; else for a step of another name that makes the same; what fits no step,
or is more than it takes, is spare. Nothing that was logged is ever dropped.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import NamedTuple

from inlet.core.bench.things import Thing
from inlet.core.memo import Latest
from inlet.core.project import LogEntry, Pair, Project

Log = tuple[LogEntry, ...]


class SewnPile(NamedTuple):
    """``number`` things that are there: the step's name then, their size, the mark of their
    drawing (both empty where the log does not know), and the part of the step they have come
    through; empty of what is finished."""

    name: str
    number: int
    size: Pair | None
    drawn: str
    part: str = ""


class Progress(NamedTuple):
    """How many each step has ``done``, by its name, how many have come through a part of it
    (``begun``, by name and part), and what is ``spare``."""

    done: Mapping[str, int]
    spare: tuple[SewnPile, ...]
    begun: Mapping[tuple[str, str], int] = {}

    def more(self, thing: Thing) -> int:
        """How many there are of a thing besides those its step takes."""
        return sum(pile.number for pile in self.spare if not pile.part and fits(pile, thing))

    def through(self, thing: Thing, part: str) -> int:
        """How many have come through a part of a step: those that are in a later part, too."""
        parts = thing.parts[thing.parts.index(part) :] if part in thing.parts else ()
        begun = (self.begun.get((thing.name, each), 0) for each in parts)
        return max(self.done.get(thing.name, 0), *begun, 0)


_PILES: Latest[Log, tuple[SewnPile, ...]] = Latest(8)


def piles(log: Log) -> tuple[SewnPile, ...]:
    """What is there by the log: what was done, less what was unpicked; in the order in which it was
    begun."""
    known = _PILES.get(log)
    return known if known is not None else _PILES.keep(log, tuple(_summed(log)))


def _summed(log: Log) -> Iterable[SewnPile]:
    numbers: dict[tuple[str, str], dict[str, int]] = {}
    sizes: dict[tuple[str, str], Pair | None] = {}
    for entry in log:
        key = entry.what, entry.drawn
        if entry.did == "done":
            through = numbers.setdefault(key, {})
            through[entry.part] = through.get(entry.part, 0) + entry.number
            sizes.setdefault(key, entry.size)
        elif entry.did == "unpicked":
            through = numbers.setdefault(key, {})
            for part, number in through.items():
                through[part] = max(0, number - entry.number)
            sizes.setdefault(key, entry.size)
    for (name, drawn), through in numbers.items():
        finished = through.get("", 0)
        for part, number in through.items():
            there = number - finished if part else finished
            if there > 0:
                yield SewnPile(name, there, sizes[name, drawn], drawn, part)


def progress(log: Log, things: Sequence[Thing]) -> Progress:
    """What of the log counts for each of some things, and what is spare."""
    there = piles(log)
    left = [pile.number for pile in there]
    done = {thing.name: 0 for thing in things}
    begun: dict[tuple[str, str], int] = {}
    by_name: dict[str, list[int]] = {}
    by_mark: dict[str, list[int]] = {}
    for i, pile in enumerate(there):
        by_name.setdefault(pile.name, []).append(i)
        by_mark.setdefault(pile.drawn, []).append(i)
    for named in (True, False):
        for thing in things:
            for i in by_name.get(thing.name, ()) if named else by_mark.get(thing.drawn, ()):
                part = there[i].part
                if (part and part not in thing.parts) or not fits(there[i], thing):
                    continue
                if part:
                    key = thing.name, part
                    taken = min(left[i], max(0, thing.times - begun.get(key, 0)))
                    begun[key] = begun.get(key, 0) + taken
                else:
                    taken = min(left[i], max(0, thing.times - done[thing.name]))
                    done[thing.name] += taken
                left[i] -= taken
    spare = (p._replace(number=number) for p, number in zip(there, left, strict=True) if number)
    finished = {name: number for name, number in done.items() if number}
    parts = {key: done[key[0]] + number for key, number in begun.items()}
    return Progress(finished, tuple(spare), parts)


def number_done(log: Log, thing: Thing, part: str = "") -> int:
    """How many of a thing are done by a log, or have come through a part of its step."""
    progressed = progress(log, [thing])
    return progressed.through(thing, part) if part else progressed.done.get(thing.name, 0)


def fits(pile: SewnPile, thing: Thing) -> bool:
    """May a pile count for a thing? Where both are drawn their drawings decide, else their
    names."""
    if pile.drawn and thing.drawn:
        return pile.drawn == thing.drawn
    return pile.name == thing.name


def same_but_log(project: Project, other_project: Project) -> bool:
    """Are two projects surely the same but for what was logged, and the wishes for the work?"""
    return all(
        getattr(project, name) is getattr(other_project, name)
        for name in project.__struct_fields__
        if name not in ("log", "bench")
    )
