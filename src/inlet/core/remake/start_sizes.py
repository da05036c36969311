"""What to begin with: start blocks whose cuts lie on the ruler's marks."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.numbers import ROOT2, Exact, Fraction, floor_exact
from inlet.core.project import Measure
from inlet.core.remake.slices import equal_parts


class StartSize(NamedTuple):
    """A start block and what comes of it: ``measured`` is its size with allowances, ``cuts`` how
    far from its centre it is cut, ``on_marks`` whether they all lie on the ruler's marks, ``piece``
    how large a piece is cut, and ``finished`` the new block's size. ``trimmed`` is how much is
    first trimmed off the start block, evenly all round, so that it measures so much."""

    measured: Exact
    cuts: tuple[Exact, ...]
    on_marks: bool
    piece: Exact
    finished: Exact
    trimmed: Exact = Fraction(0)


def start_size(measured: Exact, parts: int, measure: Measure) -> StartSize:
    """What comes of a start block that measures so much, cut into so many equal parts each way.
    Each piece is sewn in again with two allowances: n·(measured/n - 2s)."""
    cuts = equal_parts(measured, parts)
    on_marks = all(floor_exact(cut / measure.mark) * measure.mark == cut for cut in cuts)
    piece = measured / parts
    return StartSize(measured, cuts, on_marks, piece, parts * (piece - 2 * measure.seam))


def size_for(finished: Exact, parts: int, measure: Measure) -> StartSize:
    """The start block for a new block of a finished size: f + 2s for each part."""
    return start_size(finished + 2 * measure.seam * parts, parts, measure)


def on_marks(measured: Exact, parts: int, measure: Measure) -> StartSize:
    """The largest start block no larger than one that measures so much whose cuts lie on marks;
    what is trimmed off it first is told. The cuts of n parts lie m/(2n)·(1, 3, …) or m/n·(1, 2, …)
    from the centre, so m is a whole number of marks times n, or times 2n where n is odd. Halves are
    cut through the centre at any size."""
    if parts == 2:
        return start_size(measured, parts, measure)
    step = measure.mark * (2 * parts if parts % 2 else parts)
    largest = floor_exact(measured / step) * step
    return start_size(largest, parts, measure)._replace(trimmed=measured - largest)


def from_squares(squares: Sequence[Exact], parts: int, measure: Measure) -> Iterator[StartSize]:
    """For squares of each of these sizes that a maker has: the start block of four half-square
    triangles, two of each two squares. A square for those of finished leg f is f + 2s + s√2, so a
    square q gives them q - s√2 with their allowances, trimmed to the mark below; four measure twice
    that less the two allowances between them."""
    for square in squares:
        exact = square - measure.seam * ROOT2
        unit = floor_exact(exact / measure.mark) * measure.mark
        yield on_marks(2 * unit - 2 * measure.seam, parts, measure)
