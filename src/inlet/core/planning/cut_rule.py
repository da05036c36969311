"""Which mark of the ruler a piece is cut at."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from math import ceil, floor, hypot

from inlet.core.numbers import Exact, Fraction, nearest_mark, next_mark
from inlet.core.project import Measure
from inlet.core.table import Piece

NOTHING = Fraction(0)

LONG_MARKS = 12
"""How many marks the long side of half a rectangle may be moved to fit."""


@dataclass(frozen=True)
class CutRule:
    """How exact lengths come to the ruler's ``mark``.

    What is sewn as it is cut may lie ``thread`` off, which is eased: it takes the nearest mark
    where that is no farther. All else takes the next mark up: what is cut or sewn on a diagonal
    loses it in the corner, what is trimmed to the trimming. ``fitted`` are lengths that are cut
    otherwise, so that seams fit, by what they are exactly. With ``nearest``, diagonals take the
    nearest mark as well, which is fine enough; ``slack`` is added to what is trimmed later.
    """

    mark: Fraction
    thread: Fraction
    larger: tuple[Fraction, Fraction]
    seam: Exact
    fitted: Mapping[Exact, Fraction] = field(default_factory=dict)
    nearest: bool = False
    slack: Fraction = NOTHING

    def as_sewn(self, exact: Exact, slanted: bool = False) -> Fraction:
        """Where a length that is sewn as it is cut, or on a slant, is cut."""
        known = self.fitted.get(exact)
        if known is not None:
            return known
        if slanted:
            return self.slanted(exact)
        near = self._nearest(exact)
        return near if abs(near - exact) <= self.thread else next_mark(exact, self.mark)

    def cut(self, piece: Piece, trims: bool = False) -> tuple[Fraction, Fraction]:
        """The size a piece is cut; for the trim style, larger by its extra: up to the next mark of
        the rule's first number, plus its second."""
        first, second = piece.exact
        if trims:
            return self._trimmed_later(first), self._trimmed_later(second)
        if piece.sewn_as_cut:
            return self.as_sewn(first), self.as_sewn(second)
        if self.nearest and piece.crosscut == "once" and first != second:
            return self._half_rectangle(float(first), float(second))
        return self.slanted(first), self.slanted(second)

    def _half_rectangle(self, low: float, high: float) -> tuple[Fraction, Fraction]:
        """Marks for the sides of half a rectangle, such that its finished sides come out nearest to
        what they should be: a thin one grows several times as much along as it does across."""
        mark, seam = float(self.mark), float(self.seam)
        wanted = right_triangle(low, high, seam)

        def off(marks: tuple[int, int]) -> float:
            as_made = right_triangle(marks[0] * mark, marks[1] * mark, seam)
            return max(abs(a - b) for a, b in zip(as_made, wanted, strict=True))

        near = [(x, y) for x in _about(low / mark, 1) for y in _about(high / mark, LONG_MARKS)]
        best = min(near, key=off)
        return best[0] * self.mark, best[1] * self.mark

    def slanted(self, exact: Exact) -> Fraction:
        """Where a length that is cut or sewn on a slant is cut."""
        exact += self.slack
        return self._nearest(exact) if self.nearest else next_mark(exact, self.mark)

    def _nearest(self, exact: Exact) -> Fraction:
        """The nearest mark, the next one up where that is no more than two allowances: all of the
        piece would be seam."""
        near = nearest_mark(exact, self.mark)
        return near if near > 2 * self.seam else next_mark(exact, self.mark)

    def _trimmed_later(self, exact: Exact) -> Fraction:
        step, more = self.larger
        return next_mark(next_mark(exact, step) + more, self.mark)


def usual_rule(measure: Measure) -> CutRule:
    """How the maker cuts where nothing else is said."""
    step, more = measure.larger
    assert isinstance(step, Fraction)
    assert isinstance(more, Fraction)
    return CutRule(measure.mark, measure.system.thread, (step, more), measure.seam)


def cut_to_meet(exact: Exact, measure: Measure) -> Fraction:
    """Where a length is cut that is sewn along one that is made already: at the nearest mark of the
    maker's ruler, or half way between two, if one is within a thread; at the nearest of both else,
    as it is eased. However short, it is cut."""
    for mark in (measure.mark, measure.finest):
        near = nearest_mark(exact, mark)
        if near and abs(near - exact) <= measure.system.thread:
            return near
    return max(nearest_mark(exact, measure.finest), measure.finest)


def right_triangle(low: float, high: float, seam: float) -> tuple[float, float, float]:
    """The finished sides (short, long, slanted) of a right triangle with raw legs ``low`` and
    ``high``: its incircle has r = (low + high - slant)/2, and moved in by the seam all round it
    keeps its shape and shrinks to (r - s)/r."""
    slant = hypot(low, high)
    shrunk = 1 - 2 * seam / (low + high - slant)
    return low * shrunk, high * shrunk, slant * shrunk


def _about(x: float, many: int) -> range:
    return range(max(1, floor(x) - many), ceil(x) + many + 1)
