"""What is cut with: rulers, a mat, a blade; and how a cut is measured and cut with them.

A ruler measures with one side and is cut along the other. What is wider is measured with a second
ruler beside it, by the mat's lines, or with a tape; what is longer than ruler or mat is folded
again as far as the blade goes, else the ruler is moved on along the line.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import permutations, product
from typing import Literal, NamedTuple

from inlet.core.memo import memo
from inlet.core.numbers import Exact, Fraction, floor_exact
from inlet.core.project import Cutting, LaidFabric, Pair, Project

MeasuredBy = Literal["ruler", "rulers", "mat", "tape"]
SECONDS: dict[MeasuredBy, int] = {"ruler": 0, "rulers": 8, "mat": 18, "tape": 40}
"""What measuring takes longer than with one ruler."""
FOLD_SECONDS, SHIFT_SECONDS = 12, 25
MOST_FOLDS = 3


class Tools(NamedTuple):
    """The maker's ``rulers``, each its short and its long side, the ``mat`` likewise, and how many
    layers the ``blade`` goes through."""

    rulers: tuple[Pair, ...]
    mat: Pair
    blade: int

    @property
    def longest(self) -> Exact:
        """How long a cut is at most without folding again or moving the ruler on."""
        return min(max(long for _, long in self.rulers), self.mat[1])

    @property
    def broadest(self) -> Exact:
        """How wide the widest ruler is: what it measures along cuts that are longer."""
        return max(short for short, _ in self.rulers)


class SetUp(NamedTuple):
    """How a cut is made: measured ``by`` the ruler that is cut along (its place among the tools),
    or with it and another ``beside`` it, or otherwise; the fabric ``folds`` again so often, the
    ruler is moved on so many times (``shifts``)."""

    by: MeasuredBy
    ruler: int
    beside: int | None = None
    folds: int = 0
    shifts: int = 0

    @property
    def seconds(self) -> int:
        """What it takes longer than a cut with one ruler."""
        return SECONDS[self.by] + FOLD_SECONDS * self.folds + SHIFT_SECONDS * self.shifts


def tools_of(project: Project) -> Tools:
    """What the maker cuts with; where they say nothing, what is usual in their system."""
    cutting, usual = project.cutting or Cutting(), project.measure.system.tools
    rulers = cutting.rulers or usual.rulers
    return Tools(
        tuple((min(pair), max(pair)) for pair in rulers),
        (min(cutting.mat), max(cutting.mat)) if cutting.mat is not None else usual.mat,
        cutting.blade,
    )


def handled_by(project: Project) -> Exact:
    """How long a piece of fabric the maker handles; where they say nothing, what is usual."""
    handled = (project.cutting or Cutting()).handled
    return handled if handled is not None else project.measure.system.handled


def tools_for(laid: LaidFabric, project: Project) -> Tools:
    """What a piece of fabric is cut with: what it was begun with, else what the maker has."""
    for begun in project.cutting.begun if project.cutting is not None else ():
        if begun.rulers and begun.mat is not None and begun.blade and begun.laid == laid:
            return Tools(begun.rulers, begun.mat, begun.blade)
    return tools_of(project)


@memo(4_000)
def best_set_ups(size: Exact, length: Exact, layers: int, tools: Tools) -> tuple[SetUp, ...]:
    """Of all ways to make a cut that is measured ``size`` from an edge and ``length`` long, through
    so many layers, the quickest; several where rulers do equally well. There is always one."""
    ways = list(_set_ups(size, length, layers, tools))
    least = min(way.seconds for way in ways)
    return tuple(way for way in ways if way.seconds == least)


def _set_ups(size: Exact, length: Exact, layers: int, tools: Tools) -> Iterator[SetUp]:
    for folds in range(MOST_FOLDS + 1):
        if folds and layers << folds > tools.blade:
            return
        folded = length / (1 << folds)
        for which, (short, long) in enumerate(tools.rulers):
            for measures, reach in {(short, long), (long, short)}:
                shifts = _shifts(folded, min(reach, tools.mat[1]))
                if shifts and reach < long:
                    continue
                by, beside = _measured(size, folded, measures, which, tools)
                yield SetUp(by, which, beside, folds, shifts)


def _shifts(length: Exact, reach: Exact) -> int:
    """How often the ruler is moved on to cut a line."""
    return max(0, -floor_exact(-length / reach) - 1)


def _measured(
    size: Exact, length: Exact, measures: Exact, which: int, tools: Tools
) -> tuple[MeasuredBy, int | None]:
    """What measures a width, where the ruler that is cut along measures so much."""
    if size <= measures:
        return "ruler", None
    for beside, sides in enumerate(tools.rulers):
        if beside != which and size - measures <= sides[1]:
            return "rulers", beside
    short, long = tools.mat
    if size <= short or (size <= long and length <= short):
        return "mat", None
    return "tape", None


def fewest_changes(ways: Sequence[Sequence[SetUp]]) -> list[SetUp]:
    """One of the ways to make each cut, in their order, with the fewest changes of the ruler: one
    is kept as long as it does. (Changing sooner never spares a change later.)"""
    chosen: list[SetUp] = []
    at = 0
    while at < len(ways):
        common = {way.ruler for way in ways[at]}
        end = at + 1
        while end < len(ways) and common & {way.ruler for way in ways[end]}:
            common &= {way.ruler for way in ways[end]}
            end += 1
        ruler = min(common)
        chosen += [next(way for way in ways[i] if way.ruler == ruler) for i in range(at, end)]
        at = end
    return chosen


def limits_of_width(length: Exact, layers: int, tools: Tools) -> list[tuple[Exact, int]]:
    """How wide a strip may be cut, where cuts are so ``length`` and go through so many layers,
    before measuring takes so many seconds longer; the narrowest limit first, without the last."""
    widths = {side for ruler in tools.rulers for side in ruler} | set(tools.mat)
    both = permutations(tools.rulers, 2)
    widths |= {a + b for first, second in both for a, b in product(first, second)}
    limits: list[tuple[Exact, int]] = []
    seconds = best_set_ups(Fraction(0), length, layers, tools)[0].seconds
    for width in sorted(widths):
        more = best_set_ups(width + Fraction(1, 10**6), length, layers, tools)[0].seconds
        if more > seconds:
            limits.append((width, more - best_set_ups(width, length, layers, tools)[0].seconds))
            seconds = more
    return limits
