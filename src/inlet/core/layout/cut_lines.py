"""Equal cuts told once: the lines of a cutting plan.

Forty strips of one width are one line, with the edge squared again in between; so are stacks of
strips that are cut up alike, one after the other: so many rounds of the same cuts.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import accumulate, groupby
from typing import Any, NamedTuple

from inlet.core.cancellation import check
from inlet.core.layout.strokes import Stroke
from inlet.core.layout.tools import SetUp, Tools, fewest_changes

LONGEST_ROUND = 60
"""Cuts of a round that is looked for."""


class CutPart(NamedTuple):
    """``number`` equal cuts, one after the other, each like ``stroke``, made as ``set_up`` says;
    between them the edge is ``squared`` again so often, after ``every`` so many."""

    stroke: Stroke
    set_up: SetUp
    number: int
    squared: int = 0
    every: int = 0


class CuttingLine(NamedTuple):
    """Cuts told once: those from ``first`` on, counted from 0, before ``last``; so many ``rounds``
    of the same ``parts``. ``finishes`` are the pieces that come off ready, by their stack."""

    first: int
    last: int
    rounds: int
    parts: tuple[CutPart, ...]
    finishes: tuple[tuple[str, int], ...]

    @property
    def number(self) -> int:
        """How many cuts it is, those that square the edge again not counted."""
        return self.rounds * sum(part.number for part in self.parts)

    @property
    def set_ups(self) -> tuple[SetUp, ...]:
        return tuple(part.set_up for part in self.parts)


class _Cut(NamedTuple):
    stroke: Stroke
    set_up: SetUp

    @property
    def kind(self) -> tuple[Any, ...]:
        """Cuts of one kind are equal to the hand."""
        stroke = self.stroke
        return (
            stroke.way, stroke.what, stroke.size, stroke.opens, stroke.layers, stroke.stacked,
            len(stroke.of), self.set_up,
        )  # fmt: skip

    @property
    def squares_edge(self) -> bool:
        """Is the edge of the fabric squared by it?"""
        return self.stroke.what == "square" and self.stroke.way == "across"


def cut_lines(strokes: Sequence[Stroke], tools: Tools) -> tuple[CuttingLine, ...]:
    """The cuts in their order as lines; the ruler is changed as seldom as can be."""
    set_ups = fewest_changes([stroke.set_ups(tools) for stroke in strokes])
    cuts = [_Cut(stroke, set_up) for stroke, set_up in zip(strokes, set_ups, strict=True)]
    kinds = [cut.kind for cut in cuts]
    lines = []
    at = 0
    while at < len(cuts):
        check()
        strips = _strips_from(cuts, at)
        if strips > 1:
            end = at + strips
            squares = [i for i in range(at, end) if cuts[i].squares_edge]
            every = squares[1] - squares[0] - 1 if len(squares) > 1 else 0
            part = CutPart(*cuts[at], strips - len(squares), len(squares), every)
            parts: tuple[CutPart, ...] = (part,)
            lines.append(_line(cuts, at, end, 1, parts))
        else:
            edges = [i for i in range(at, min(at + 2 * LONGEST_ROUND, len(cuts)))
                     if cuts[i].squares_edge]  # fmt: skip
            long, rounds = _round_from(kinds[: edges[0]] if edges else kinds, at)
            end = at + long * rounds
            lines.append(_line(cuts, at, end, rounds, tuple(_parts(cuts[at : at + long]))))
        at = end
    return tuple(lines)


def _line(
    cuts: Sequence[_Cut], first: int, last: int, rounds: int, parts: tuple[CutPart, ...]
) -> CuttingLine:
    finishes: Counter[str] = Counter()
    for cut in cuts[first:last]:
        finishes.update(dict(cut.stroke.finishes))
    if len(parts) == 1 and rounds > 1:
        parts, rounds = (parts[0]._replace(number=parts[0].number * rounds),), 1
    return CuttingLine(first, last, rounds, parts, tuple(finishes.items()))


def _strips_from(cuts: Sequence[_Cut], at: int) -> int:
    """How many cuts from here on cut strips of one width off the fabric, or square its edge before
    another of them; 0 where none does."""
    if cuts[at].stroke.what != "strip":
        return 0
    kind, last, here = cuts[at].kind, at, at + 1
    while here < len(cuts):
        if cuts[here].kind == kind:
            last = here
        elif not cuts[here].squares_edge or cuts[here - 1].squares_edge:
            break
        here += 1
    return last + 1 - at


def _round_from(kinds: Sequence[tuple[Any, ...]], at: int) -> tuple[int, int]:
    """The round that covers most from here on, and how often it is repeated: the shortest of
    several; the cut alone where nothing is repeated, or no more is looked at."""
    best = (1, 1)
    for long in range(1, min(LONGEST_ROUND, (len(kinds) - at) // 2) + 1):
        if kinds[at + long] != kinds[at]:
            continue
        rounds, first = 1, kinds[at : at + long]
        while kinds[at + rounds * long : at + (rounds + 1) * long] == first:
            rounds += 1
        if rounds > 1 and rounds * long > best[0] * best[1]:
            best = long, rounds
    return best


def _parts(cuts: Sequence[_Cut]) -> Iterator[CutPart]:
    for _, run in groupby(cuts, key=lambda cut: cut.kind):
        equal = list(run)
        yield CutPart(*equal[0], len(equal))


def next_cut(line: CuttingLine, strokes: Sequence[Stroke], at: int, tools: Tools) -> CutPart:
    """One cut of a line, by its place among all, alone."""
    stroke, offset = strokes[at], at - line.first
    if line.rounds == 1 and len(line.parts) == 1:
        part = line.parts[0]
    else:
        offset %= sum(part.number for part in line.parts)
        reached = accumulate(part.number for part in line.parts)
        part = next(p for p, end in zip(line.parts, reached, strict=True) if offset < end)
    ways = stroke.set_ups(tools)  # of one that squares the edge in between
    kept = next((way for way in ways if way.ruler == part.set_up.ruler), ways[0])
    return CutPart(stroke, part.set_up if part.set_up in ways else kept, 1)


def line_at(lines: Sequence[CuttingLine], done: int) -> int:
    """Which line the next cut is in, counted from 0, where so many are made; the last where all
    are."""
    return next((i for i, line in enumerate(lines) if done < line.last), len(lines) - 1)
