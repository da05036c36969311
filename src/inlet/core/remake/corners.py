"""A scrap sewn over the corner of a square: does it cover the corner once it is flipped?

The scrap lies right side down over the seam, most of it away from the corner; sewn, it is flipped
over the seam and trimmed to the square. It has to cover the corner, and an allowance on the other
side of the seam, which then lies under it: all of the raw square beyond the seam moved an allowance
inward.
"""

from __future__ import annotations

from math import hypot
from typing import NamedTuple

from inlet.core.geometry import Line, Point, Polygon, area, clip, edges, flip, line_through
from inlet.core.numbers import Exact, Fraction, next_mark, root_up
from inlet.core.project import Measure, Pair

ZERO = Fraction(0)


class CornerSeam(NamedTuple):
    """A seam across a ``corner`` of a raw square or rectangle, counted clockwise from the top left:
    how far from the corner it meets the level edge (``along``) and the upright one (``down``)."""

    corner: int
    along: Exact
    down: Exact


class Coverage(NamedTuple):
    """Does a scrap cover its corner, and how far it reaches beyond what it has to cover, square to
    its nearest side; below 0 how much is missing. Lengths are for looking at."""

    covers: bool
    margin: float


def ends_of(seam: CornerSeam, size: Pair) -> tuple[Point, Point, Point]:
    """The corner, and where the seam meets the level and the upright edge, from the top left of a
    raw square of this size."""
    right, below = seam.corner in (1, 2), seam.corner in (2, 3)
    corner = Point(size[0] if right else ZERO, size[1] if below else ZERO)
    level = Point(corner.x + (-seam.along if right else seam.along), corner.y)
    upright = Point(corner.x, corner.y + (-seam.down if below else seam.down))
    return corner, level, upright


def line_of(seam: CornerSeam, size: Pair) -> Line:
    """The seam's line, the corner on its growing side."""
    corner, level, upright = ends_of(seam, size)
    line = line_through(level, upright)
    return line if line.side(corner) > 0 else line.opposite()


def to_cover(seam: CornerSeam, size: Pair, allowance: Exact) -> Polygon:
    """What a scrap has to cover: the square beyond the seam moved an allowance inward."""
    wide, high = size
    square = (Point(ZERO, ZERO), Point(wide, ZERO), Point(wide, high), Point(ZERO, high))
    return clip(square, line_of(seam, size).shifted(-allowance))


def coverage(scrap: Polygon, seam: CornerSeam, size: Pair, allowance: Exact) -> Coverage:
    """Does a convex scrap, as it lies on the square before it is sewn, cover the corner?"""
    flipped = flip(scrap if area(scrap) > 0 else scrap[::-1], line_of(seam, size))
    wanted = to_cover(seam, size, allowance)
    covers, margin = True, float("inf")
    for p, q in edges(flipped):
        line = line_through(p, q)
        inside = [line.side(v) for v in wanted]
        covers = covers and all(side >= 0 for side in inside)
        length = hypot(*q.minus(p).floats())
        margin = min(margin, float(min(inside)) / length)
    return Coverage(covers, margin)


class LeastScrap(NamedTuple):
    """The smallest strip of fabric, laid along the seam, that covers a corner: ``length`` along it
    and ``width`` across, at the ruler's mark above."""

    length: Exact
    width: Exact


def least_scrap(seam: CornerSeam, measure: Measure) -> LeastScrap:
    """A corner with legs a and b is d = ab/c deep, c being the seam: a strip has to be d + s wide.
    At the allowance's far side the corner is wider, as (d + s)/d: c + s·c/d = c + s·c²/(ab) long.
    """
    a, b, s = seam.along, seam.down, measure.seam
    c = root_up(a * a + b * b)
    return LeastScrap(
        next_mark(c + s * (a * a + b * b) / (a * b), measure.mark),
        next_mark(a * b / c + s, measure.mark),
    )
