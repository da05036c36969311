"""The outline of a patch: a polygon, some of whose sides may be arcs."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from itertools import pairwise
from math import hypot
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.curve import (
    Curve,
    cap_area,
    circle_of,
    exact_chain,
    extremes,
    flattened,
)
from inlet.core.geometry.point import Point, cross, midpoint
from inlet.core.geometry.polygon import (
    Polygon,
    area,
    contains,
    from_first_corner,
    inner_point,
    narrowest,
)
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

    def scaled(self, sx: Exact, sy: Exact) -> Outline:
        """In other units. Arcs stay round only where sx = sy."""
        return Outline(
            tuple(p.scaled(sx, sy) for p in self.corners),
            tuple((i, c.scaled(sx, sy)) for i, c in self.arcs),
        )


def side(outline: Outline, p: Point) -> int:
    """1 inside, 0 on the outline, -1 outside, exactly."""
    if not outline.arcs:
        return contains(outline.corners, p)
    inside = False
    x, y = p.floats()
    for curve in outline.sides():
        if _passes_by(curve, x, y):
            continue
        if curve.centre is None:
            turn = cross(curve.end.minus(curve.start), p.minus(curve.start))
            above, below = curve.start.y > p.y, curve.end.y > p.y
            if turn == 0 and _between(curve, p):
                return 0
            if above != below and (turn > 0) == below:
                inside = not inside
        else:
            beyond, on = _ray_meets_arc(curve, p)
            if on:
                return 0
            inside ^= beyond
    return 1 if inside else -1


def _passes_by(curve: Curve, x: float, y: float) -> bool:
    """Does a ray to the right of a place surely miss a side, and the side the place? By the box
    round it, or round its circle, with room for what floats are off by."""
    if curve.centre is None:
        (px, py), (qx, qy) = curve.start.floats(), curve.end.floats()
        right, top, bottom = max(px, qx), min(py, qy), max(py, qy)
    else:
        (cx, cy), (px, py) = curve.centre.floats(), curve.start.floats()
        r = hypot(px - cx, py - cy)
        right, top, bottom = cx + r, cy - r, cy + r
    room = 1e-6 * (1 + abs(right) + abs(bottom))
    return y < top - room or y > bottom + room or x > right + room


def _between(curve: Curve, p: Point) -> bool:
    low, high = sorted(curve.ends)
    return low <= p <= high


def _ray_meets_arc(curve: Curve, p: Point) -> tuple[bool, bool]:
    """(whether a ray from p to the right meets the arc an odd number of times, whether p is on
    it). The arc is parted where its circle is topmost and lowest; each part then runs up or down
    only, and lies on the left or the right half of the circle."""
    assert curve.centre is not None
    circle = circle_of(curve)
    h, k = circle.centre
    low, high = curve.ends if curve.clockwise else (curve.end, curve.start)
    u, v, w = low.minus(circle.centre), high.minus(circle.centre), p.minus(circle.centre)
    where = circle.side(p)
    if where == 0 and cross(u, w) >= 0 and cross(w, v) >= 0:
        return False, True
    # Clockwise from low: the right half goes down from the top to the bottom, the left half up.
    # Of the top (0, -1) and the bottom (0, 1), which does the arc pass inside? At most one.
    stops: list[tuple[bool, bool]] = []  # (is this stop below p's height, is what follows right?)
    start_right = u.x > 0 or (u.x == 0 and u.y < 0)
    stops.append((low.y > p.y, start_right))
    top, bottom = Point(Fraction(0), Fraction(-1)), Point(Fraction(0), Fraction(1))
    for peak, is_low in ((top, False), (bottom, True)):
        if cross(u, peak) > 0 and cross(peak, v) > 0:
            reach = p.y - k
            below = (
                (reach < 0 or circle.squared > reach * reach)
                if is_low
                else (reach < 0 and circle.squared < reach * reach)
            )
            stops.append((below, not is_low))
    ends = [*stops, (high.y > p.y, False)]
    crossings = 0
    for (from_below, right), (to_below, _) in pairwise(ends):
        if from_below == to_below:
            continue
        left_of = (p.x < h or where < 0) if right else (p.x < h and where > 0)
        crossings += left_of
    return crossings % 2 == 1, False


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


def drawn(outline: Outline) -> Polygon:
    """The outline as a polygon to draw, arcs in short chords between exact points of them."""
    if not outline.arcs:
        return outline.corners
    out: list[Point] = []
    for curve in outline.sides():
        out += exact_chain(curve) if curve.centre is not None else (curve.start,)
    return tuple(out)


def inside_point(outline: Outline) -> Point:
    """A point well inside an outline, a short fraction where arcs are about.

    Of a curved one: the middle of the longest stretch inside, along some levels across it, rounded
    to ever finer fractions until it is inside exactly.
    """
    if not outline.arcs:
        return inner_point(outline.corners)
    left, top, right, bottom = box(outline)
    bulge = 1e-3 * max(right - left, bottom - top)
    points = np.array(polyline(outline, bulge))
    best = _widest(points, top, bottom)
    for fineness in (2, 8, 64, 1024, 2**16, 2**24):
        for _, x, y in best[:12]:
            p = Point(
                Fraction(round(x * fineness), fineness), Fraction(round(y * fineness), fineness)
            )
            # Farther from the polygon than arcs leave it by, its word is the outline's.
            inside, far = _in_polygon(points, *p.floats())
            if inside if far > 2 * bulge else side(outline, p) > 0:
                return p
    return _inside_sliver(outline)


LEVELS = 31


def _widest(
    points: NDArray[np.float64], top: float, bottom: float
) -> list[tuple[float, float, float]]:
    """The stretches inside a polygon along some levels across it: (length, middle x, y), the
    longest first. Levels are uneven, so as not to run through corners."""
    after = np.roll(points, -1, axis=0)
    (px, py), (qx, qy) = points.T, after.T
    found: list[tuple[float, float, float]] = []
    for k in range(1, LEVELS + 1):
        y = top + (bottom - top) * k / (LEVELS + 1.07)
        met = (py > y) != (qy > y)
        xs = np.sort(px[met] + (y - py[met]) * (qx[met] - px[met]) / (qy[met] - py[met])).tolist()
        found += [(b - a, (a + b) / 2, y) for a, b in zip(xs[::2], xs[1::2], strict=False)]
    found.sort(reverse=True)
    return found


def _in_polygon(points: NDArray[np.float64], x: float, y: float) -> tuple[bool, float]:
    """Does a ray to the right of a place meet a polygon's sides an odd number of times; and how far
    is the place from the nearest of them?"""
    step = np.roll(points, -1, axis=0) - points
    (px, py), (dx, dy) = points.T, step.T
    met = (py > y) != (py + dy > y)
    crossed = px[met] + (y - py[met]) * dx[met] / dy[met] > x
    along = ((x - px) * dx + (y - py) * dy) / np.maximum(dx * dx + dy * dy, 1e-300)
    k = np.clip(along, 0.0, 1.0)
    far = np.hypot(px + k * dx - x, py + k * dy - y).min()
    return bool(crossed.sum() % 2), float(far)


def _inside_sliver(outline: Outline) -> Point:
    """A point inside an outline too thin for floats: between two corners or points half way along
    arcs, all of them exact. One thinner than places at located crossings are exact may have none:
    then a point on its edge."""
    exact = list(outline.corners)
    for curve in outline.sides():
        if curve.centre is not None:
            chain = exact_chain(curve)
            exact.append(chain[len(chain) // 2])
    for i, p in enumerate(exact):
        for q in exact[:i]:
            middle = midpoint(p, q)
            if side(outline, middle) > 0:
                return middle
    return midpoint(exact[0], exact[1])


def outline_width(outline: Outline) -> float:
    """The least width of the outline's hull, see ``narrowest``."""
    if not outline.arcs:
        return narrowest([p.floats() for p in outline.corners])
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
