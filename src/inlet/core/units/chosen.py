"""Methods with their counts: what to cut, at the maker's ruler mark, for the units needed."""

from __future__ import annotations

from fractions import Fraction
from functools import cached_property
from typing import NamedTuple

from inlet.core.numbers import Exact, next_mark
from inlet.core.project import Measure
from inlet.core.units.pieces import PER_SQUARE, Piece, Size
from inlet.core.units.units import Unit
from inlet.core.units.way import Way
from inlet.core.units.ways import ways

# The trim school's extra: up to the next mark of the first, plus the second.
OVERSIZE = {
    "inch": (Fraction(1, 8), Fraction(1, 8)),
    "cm": (Fraction(1, 10), Fraction(3, 10)),
}


class CutPiece(NamedTuple):
    """A piece at its cut size: ``cut`` on the ruler's marks, never under ``piece.exact``;
    ``number`` of these shapes to cut for all the runs."""

    piece: Piece
    cut: tuple[Fraction, Fraction]
    number: int

    @property
    def over(self) -> Exact:
        """How much the longer side's ruler mark is over its exact size."""
        return self.cut[1] - self.piece.exact[1]


class Method(NamedTuple):
    """A way to make the units asked for. ``runs`` times ``way.makes`` units, ``surplus`` over.
    ``trim_to`` is the unfinished size the trim school trims to, else None."""

    way: Way
    runs: int
    surplus: int
    trim_to: Size | None
    pieces: tuple[CutPiece, ...]

    @property
    def name(self) -> str:
        return self.way.name


class UnitPlan:
    """A unit with how many are needed, every method worked out, and the one in use."""

    def __init__(self, unit: Unit, copies: int, measure: Measure, wanted: str | None) -> None:
        self.unit = unit
        self.count = len(unit.places) * copies
        self.measure = measure
        self.wanted = wanted

    @cached_property
    def methods(self) -> tuple[Method, ...]:
        """Every method for this unit, the usual one first; never empty."""
        return tuple(
            plan_method(way, self.unit, self.count, self.measure)
            for way in ways(self.unit, self.measure.seam)
        )

    @cached_property
    def method(self) -> Method:
        """The method in use: the one asked for where this unit can be made so, else the usual."""
        found = ways(self.unit, self.measure.seam)
        usual = next(found)
        wanted = (way for way in found if way.name == self.wanted)
        way = usual if self.wanted in (None, usual.name) else next(wanted, usual)
        return plan_method(way, self.unit, self.count, self.measure)

    @property
    def unfinished(self) -> Size:
        return _with_seams(self.unit.size, self.measure)


def plan_method(way: Way, unit: Unit, count: int, measure: Measure) -> Method:
    """``way`` for ``count`` units: whole runs, whole squares even where one gives more triangles
    than are needed."""
    runs = -(-count // way.makes)
    trims = way.trims and measure.school == "trim"
    pieces = tuple(
        CutPiece(
            piece,
            (cut_size(piece.exact[0], measure, trims), cut_size(piece.exact[1], measure, trims)),
            -(-runs * piece.quantity // PER_SQUARE[piece.crosscut]),
        )
        for piece in way.pieces
    )
    trim_to = _with_seams(unit.size, measure) if trims else None
    return Method(way, runs, runs * way.makes - count, trim_to, pieces)


def _with_seams(size: Size, measure: Measure) -> Size:
    return size[0] + 2 * measure.seam, size[1] + 2 * measure.seam


def cut_size(exact: Exact, measure: Measure, trims: bool = False) -> Fraction:
    """The next ruler mark at or above an exact size; for the trim school, larger by its extra."""
    if trims:
        step, more = OVERSIZE[measure.system]
        return next_mark(next_mark(exact, step) + more, measure.mark)
    return next_mark(exact, measure.mark)
