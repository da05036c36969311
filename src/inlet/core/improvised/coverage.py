"""A scrap sewn over the corner of a square: does it cover the corner once it is flipped?

The scrap lies right side down over the seam, most of it away from the corner; sewn, it is flipped
over the seam and trimmed to the square. It has to cover the corner, and an allowance on the other
side of the seam, which then lies under it: all of the raw square beyond the seam moved an allowance
inward.
"""

from __future__ import annotations

from math import hypot
from typing import NamedTuple

from inlet.core.geometry import Point, Polygon, area, clip, edges, flip, line_through
from inlet.core.improvised.seams import ZERO, CornerSeam, ends_of, line_of, seam_length
from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import Measure, Pair


class Coverage(NamedTuple):
    """Does a scrap cover its corner, and how far it reaches beyond what it has to cover, square to
    its nearest side; below 0 how much is missing. Lengths are for looking at."""

    covers: bool
    margin: float


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

    length: Fraction
    width: Fraction


def least_scrap(seam: CornerSeam, measure: Measure) -> LeastScrap:
    """A corner with legs a and b is d = ab/c deep, c being the seam: a strip has to be d + s wide.
    At the allowance's far side the corner is wider, as (d + s)/d: c + s·c/d = c + s·c²/(ab) long.
    """
    a, b, s = seam.along, seam.down, measure.seam
    c = seam_length(seam)
    return LeastScrap(
        next_mark(c + s * (a * a + b * b) / (a * b), measure.mark),
        next_mark(a * b / c + s, measure.mark),
    )


def scrap_over(
    seam: CornerSeam, size: Pair, scrap: LeastScrap, allowance: Exact, slide: Exact = ZERO
) -> Polygon:
    """A strip as it lies on the square before it is sewn, one long side an allowance beyond the
    seam, its middle over the middle of what it has to cover, or ``slide`` nearer to the upright
    edge.

    What it has to cover is the corner's triangle made (d + s)/d as large about the corner, d being
    its depth; flipped, the strip lies along the side of that from P to Q, so it lies mirrored in
    the seam before. Square roots are taken to a trillionth.
    """
    corner, level, upright = ends_of(seam, size)
    a, b = seam.along, seam.down
    long = seam_length(seam)
    k = (a * b / long + allowance) / (a * b / long)
    p, q = (Point(corner.x + (v.x - corner.x) * k, corner.y + (v.y - corner.y) * k)
            for v in (level, upright))  # fmt: skip
    along = Point((q.x - p.x) / (long * k), (q.y - p.y) / (long * k))
    inward = Point(-along.y, along.x)
    if (corner.x - p.x) * inward.x + (corner.y - p.y) * inward.y < 0:
        inward = Point(along.y, -along.x)
    begin = (long * k - scrap.length) / 2 + slide
    flipped = tuple(
        Point(p.x + along.x * at + inward.x * deep, p.y + along.y * at + inward.y * deep)
        for at, deep in (
            (begin, ZERO), (begin + scrap.length, ZERO), (begin + scrap.length, scrap.width),
            (begin, scrap.width),
        )
    )  # fmt: skip
    return flip(flipped if area(flipped) > 0 else flipped[::-1], line_of(seam, size))
