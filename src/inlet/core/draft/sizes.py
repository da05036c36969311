"""Lengths along a patch and a seam, for reading off a drawing."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.draft.snapping import curve_distance
from inlet.core.geometry import (
    Curve,
    Outline,
    Point,
    Polygon,
    cut_sides,
    edges,
    radius,
    squared_length,
)
from inlet.core.numbers import Exact, Fraction, next_mark, root_up
from inlet.core.project import Block, Measure


class SideSize(NamedTuple):
    """One side of a patch: as it shows, with its allowances, and at the ruler mark to cut."""

    finished: Exact
    exact: Exact
    cut: Fraction


def side_size(outline: Polygon, side: int, measure: Measure) -> SideSize:
    """The side from corner ``side`` to the next. With allowances it is that side of the outline
    moved out by the seam: f + 2s between square corners, f + 2s + s√2 along a triangle's leg."""
    i, j = side, (side + 1) % len(outline)
    exact = root_up(squared_length(*cut_sides(outline, measure.seam)[side]))
    finished = root_up(squared_length(outline[i], outline[j]))
    return SideSize(finished, exact, next_mark(exact, measure.mark))


def radius_size(side: Curve, measure: Measure) -> tuple[Exact, Exact]:
    """The radius of a patch's curved side as it shows, and of its template's cutting line: r + s
    where the patch bulges out there (its outline runs clockwise, so that is a clockwise arc), r - s
    where it is hollow."""
    r = radius(side)
    return r, r + measure.seam if side.clockwise else r - measure.seam


def nearest_curve(outline: Outline, x: float, y: float) -> Curve:
    """The side of an outline nearest to a place, both in the same units."""
    return min(outline.sides(), key=lambda side: curve_distance(side, (x, y)))


def nearest_side(outline: Polygon, x: float, y: float) -> int:
    """The side of a patch nearest to a place in finished lengths."""

    def far(side: tuple[Point, Point]) -> float:
        (x0, y0), (x1, y1) = side[0].floats(), side[1].floats()
        dx, dy = x1 - x0, y1 - y0
        k = min(1.0, max(0.0, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy)))
        return (x0 + k * dx - x) ** 2 + (y0 + k * dy - y) ** 2

    sides = list(edges(outline))
    return min(range(len(sides)), key=lambda i: far(sides[i]))


def seam_length(block: Block, p: Point, q: Point) -> Exact:
    """The finished length of a seam between two points in grid units."""
    sx, sy = block.scale
    return root_up(squared_length(p.scaled(sx, sy), q.scaled(sx, sy)))


def with_seams(finished: Exact, measure: Measure) -> Exact:
    """The unfinished length, raw edge to raw edge, of a finished one between square ends."""
    return finished + 2 * measure.seam


def without_seams(unfinished: Exact, measure: Measure) -> Exact:
    """What shows of an unfinished length once both its ends are sewn in."""
    return unfinished - 2 * measure.seam
