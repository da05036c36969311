"""The outline of a patch: a polygon, some of whose sides may be arcs."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.geometry.curve import (
    Curve,
    cap_area,
    exact_chain,
    extremes,
    flattened,
    float_chain,
)
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import (
    Polygon,
    area,
    from_first_corner,
    narrowest,
)
from inlet.core.memo import memo
from inlet.core.numbers import Exact

Arcs = tuple[tuple[int, Point], ...]
"""(side, centre): the side from that corner to the next is an arc, the short way round."""


class Outline(NamedTuple):
    """``corners`` clockwise on screen; ``arcs`` are its sides that are not straight."""

    corners: Polygon
    arcs: Arcs = ()

    def sides(self) -> Iterator[Curve]:
        centres = dict(self.arcs)
        n = len(self.corners)
        for i, p in enumerate(self.corners):
            yield Curve(p, self.corners[(i + 1) % n], centres.get(i))

    def side(self, i: int) -> Curve:
        """The side from the i-th corner to the next; -1 is the last."""
        n = len(self.corners)
        return Curve(self.corners[i], self.corners[(i + 1) % n], dict(self.arcs).get(i % n))

    def scaled(self, sx: Exact, sy: Exact) -> Outline:
        """In other units. Arcs stay round only where sx = sy."""
        return Outline(
            tuple(p.scaled(sx, sy) for p in self.corners),
            tuple((i, c.scaled(sx, sy)) for i, c in self.arcs),
        )


def box(outline: Outline) -> tuple[float, float, float, float]:
    """Left, top, right, bottom as floats."""
    places = [p.floats() for p in outline.corners]
    xs, ys = [x for x, _ in places], [y for _, y in places]
    if outline.arcs:
        for curve in outline.sides():
            if curve.centre is not None:
                left, upper, right, lower = extremes(curve)
                xs += [left, right]
                ys += [upper, lower]
    return min(xs), min(ys), max(xs), max(ys)


def outline_area(outline: Outline) -> float:
    """The area inside, as a float (arcs bring in π)."""
    total = float(area(outline.corners))
    return total + sum(cap_area(c) for c in outline.sides() if c.centre is not None)


def polyline(outline: Outline, sagitta: float) -> list[tuple[float, float]]:
    """The outline in straight pieces that leave it by no more than ``sagitta``."""
    return [p for curve in outline.sides() for p in flattened(curve, sagitta)]


def polygon_of(outline: Outline) -> Polygon:
    """The outline as a polygon to draw, arcs in short chords between exact points of them."""
    if not outline.arcs:
        return outline.corners
    points: list[Point] = []
    for curve in outline.sides():
        points += exact_chain(curve) if curve.centre is not None else (curve.start,)
    return tuple(points)


def drawn_corners(outline: Outline) -> list[tuple[float, float]]:
    """The corners of ``polygon_of`` in floats."""
    corners: list[tuple[float, float]] = []
    for curve in outline.sides():
        corners += [curve.start.floats()] if curve.centre is None else float_chain(curve)
    return corners


def outline_width(outline: Outline) -> float:
    """The least width of the outline's hull, see ``narrowest``."""
    return (
        _width_of_arcs(outline)
        if outline.arcs
        else narrowest([p.floats() for p in outline.corners])
    )


@memo(5000)
def _width_of_arcs(outline: Outline) -> float:
    left, top, right, bottom = box(outline)
    points = polyline(outline, 1e-2 * max(right - left, bottom - top))
    hull = _hull(sorted(set(points)))
    return narrowest(hull)


def _hull(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """The corners of the least convex outline round points sorted by x, then y."""
    halves = []
    for run in (points, points[::-1]):
        half: list[tuple[float, float]] = []
        for x, y in run:
            while len(half) > 1 and (half[-1][0] - half[-2][0]) * (y - half[-2][1]) <= (
                half[-1][1] - half[-2][1]
            ) * (x - half[-2][0]):
                half.pop()
            half.append((x, y))
        halves += half[:-1]
    return halves


def shape_key(outline: Outline) -> tuple[object, ...]:
    """The outline as a tuple that does not depend on which corner it starts at."""
    if not outline.arcs:
        return from_first_corner(outline.corners)
    curves = list(outline.sides())
    # An outline may meet one corner twice: there its sides differ in where they go, or how.
    first = min(
        range(len(curves)),
        key=lambda i: (*(p.floats() for p in curves[i].ends), curves[i].centre is None),
    )
    return tuple(curves[first:] + curves[:first])
