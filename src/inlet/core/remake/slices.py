"""A sewn block cut into slices: where it is cut, and what each piece really is.

A block measures its finished size and an allowance s all round. It is cut by straight cuts through
the whole of it, each so far from its centre, as the edge of a sewn block is rarely where it should
be. Every piece loses s to each of its sides when it is sewn again: of what shows in the block, a
piece keeps what lies s or more inside its cuts.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

from inlet.core.geometry import Line, Point, Polygon, clip
from inlet.core.numbers import HALF_ROOT2, Exact, Fraction
from inlet.core.project import Cuts, Measure, Pair
from inlet.core.words import length_text


class SliceError(ValueError):
    """A block that cannot be cut or set so; its text is a sentence for the maker."""


class Slice(NamedTuple):
    """A piece of a block, by its ``column`` and ``row``. Its boxes (left, top, right, bottom) are
    in finished length from the block's top left: ``cut`` from cut to cut, or to the raw edge an
    allowance beyond, and ``kept`` what shows of it once it is sewn in again. Of a block on point,
    ``shape`` is the fabric in the box that is kept, from its top left."""

    label: str
    column: int
    row: int
    cut: tuple[Exact, Exact, Exact, Exact]
    kept: tuple[Exact, Exact, Exact, Exact]
    shape: Polygon = ()

    @property
    def size(self) -> Pair:
        """Width and height once it is sewn in, finished."""
        left, top, right, bottom = self.kept
        return right - left, bottom - top


def equal_parts(measured: Exact, parts: int) -> tuple[Exact, ...]:
    """Where to cut a block that measures so much, allowances included, into equal parts: from its
    centre. Part k ends at k/parts of the whole, which is (k/parts - 1/2) of it from the middle;
    thirds lie a sixth from the centre."""
    return tuple((Fraction(k, parts) - Fraction(1, 2)) * measured for k in range(1, parts))


def sliced(finished: Pair, cuts: Cuts, measure: Measure) -> tuple[Slice, ...]:
    """The pieces of a block of a finished size in reading order, numbered from 1. Raises
    ``SliceError`` where a cut lies outside the block, or a slice is no wider than its
    allowances. Cuts along the diagonals: see ``on_point``."""
    frame = frame_of(finished, cuts)
    columns = list(_strips(frame[0], cuts.upright, measure, "wide"))
    rows = list(_strips(frame[1], cuts.level, measure, "high"))
    slices = tuple(
        Slice(
            str(len(columns) * row + column + 1),
            column,
            row,
            (across[0], down[0], across[1], down[1]),
            (across[2], down[2], across[3], down[3]),
        )
        for row, down in enumerate(rows)
        for column, across in enumerate(columns)
    )
    return slices if not cuts.diagonal else tuple(_shaped(each, frame[0]) for each in slices)


def frame_of(finished: Pair, cuts: Cuts) -> Pair:
    """The rectangle that is cut: the block itself, or the square it lies in on point. Raises
    ``SliceError`` for a block on point that is not square."""
    if not cuts.diagonal:
        return finished
    if finished[0] != finished[1]:
        raise SliceError("Only a square block is cut along its diagonals.")
    wide = finished[0] * 2 * HALF_ROOT2
    return wide, wide


def _shaped(piece: Slice, wide: Exact) -> Slice:
    """A slice of a block on point, with what of it is fabric."""
    left, top, right, bottom = piece.kept
    shape: Polygon = (
        Point(left, top),
        Point(right, top),
        Point(right, bottom),
        Point(left, bottom),
    )
    one, half = Fraction(1), wide / 2
    for a, b in ((1, 1), (-1, -1), (-1, 1), (1, -1)):
        line = Line(one * -a, one * -b, -(a + b) * half - half)
        shape = clip(shape, line) if shape else shape
    if not shape:
        raise SliceError(
            f"Piece {piece.label} would have no fabric: the cuts cross outside the block."
        )
    return piece._replace(shape=tuple(Point(p.x - left, p.y - top) for p in shape))


def _strips(
    length: Exact, cuts: Sequence[Exact], measure: Measure, way: str
) -> Iterator[tuple[Exact, Exact, Exact, Exact]]:
    """Of each strip between two cuts: from where to where it is cut, and what it keeps."""
    seam, half = measure.seam, length / 2
    for cut in cuts:
        if not -half - seam < cut < half + seam:
            raise SliceError(
                f"A cut {length_text(abs(cut), measure)} from the centre lies outside the block: "
                f"its edge is {length_text(half + seam, measure)} away."
            )
    ends = [-seam, *sorted({half + cut for cut in cuts}), length + seam]
    for begin, end in pairwise(ends):
        if end - begin <= 2 * seam:
            raise SliceError(
                f"A slice {length_text(end - begin, measure)} {way} is lost in its seams: they "
                f"take {length_text(2 * seam, measure)}."
            )
        yield begin, end, begin + seam, end - seam
