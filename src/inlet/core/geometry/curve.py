"""What a seam lies along: a straight line, or the short way round a circle.

Angles run clockwise on screen (y grows downward), so clockwise is the way ``cross`` counts as
positive.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from math import acos, atan2, cos, hypot, lcm, pi, sin, sqrt
from typing import Any, NamedTuple

from inlet.core.geometry.point import HAIR, Point, cross, dot
from inlet.core.memo import memo
from inlet.core.numbers import Exact, Fraction, Root2, root_up


class Circle(NamedTuple):
    """The points whose squared distance from ``centre`` is ``squared``."""

    centre: Point
    squared: Exact

    def side(self, p: Point) -> Exact:
        """0 on the circle, below 0 inside it, above 0 outside."""
        step = p.minus(self.centre)
        return dot(step, step) - self.squared


class Curve(NamedTuple):
    """A seam from ``start`` to ``end``: straight, or about ``centre`` the short way round. The
    ends of an arc are equally far from its centre and not opposite one another."""

    start: Point
    end: Point
    centre: Point | None = None

    @property
    def clockwise(self) -> bool:
        """Does an arc run clockwise on screen from start to end?"""
        assert self.centre is not None
        return cross(self.start.minus(self.centre), self.end.minus(self.centre)) > 0

    @property
    def ends(self) -> tuple[Point, Point]:
        return self.start, self.end


def circle_of(curve: Curve) -> Circle:
    """The circle an arc lies on: through the end whose numbers are shorter, as the other may be a
    place that lies on it only to 12 decimals."""
    assert curve.centre is not None
    end = curve.start if _digits(curve.start) <= _digits(curve.end) else curve.end
    step = end.minus(curve.centre)
    return Circle(curve.centre, dot(step, step))


def _digits(p: Point) -> int:
    """How long a point's numbers are, in bits below the unit."""
    return sum((x.d if isinstance(x, Root2) else x.denominator).bit_length() for x in p)


def arc_fault(start: Point, end: Point, centre: Point) -> str | None:
    """Why three points make no arc, as a piece of a sentence; None where they do. ``centre`` may
    lie a hair off where the ends are places a root was taken for."""
    u, v = start.minus(centre), end.minus(centre)
    if start == end:
        return "both ends are the same point"
    if dot(u, u) == 0 or dot(v, v) == 0:
        return "the centre is one of its ends"
    gap, r = dot(u, u) - dot(v, v), float(dot(u, u)) ** 0.5
    # |u| - |v| = (u² - v²)/(|u| + |v|); places are known to a hair, whatever the radius.
    if gap != 0 and abs(float(gap)) > 2 * r * HAIR * max(1.0, r):
        return "its ends are not equally far from the centre"
    turn = cross(u, v)
    if turn == 0 or (abs(float(turn)) <= HAIR * r * r and dot(u, v) < 0):
        return "its ends are opposite one another; give a half circle as two quarters"
    return None


def within_arc(p: Point, start: Point, end: Point, centre: Point) -> bool:
    """Is a point of the circle on the arc clockwise from ``start`` to ``end`` (less than half a
    turn), ends included?"""
    step = p.minus(centre)
    return (
        cross(start.minus(centre), step) >= 0
        and cross(step, end.minus(centre)) >= 0
        and dot(start.minus(centre).plus(end.minus(centre)), step) > 0
    )


def sweep(curve: Curve) -> float:
    """The angle of an arc in radians, above 0 where it runs clockwise on screen."""
    assert curve.centre is not None
    (x, y), (px, py), (qx, qy) = (p.floats() for p in (curve.centre, curve.start, curve.end))
    ux, uy, vx, vy = px - x, py - y, qx - x, qy - y
    return atan2(ux * vy - uy * vx, ux * vx + uy * vy)


def float_radius(curve: Curve) -> float:
    """An arc's radius, for drawing and for reading off."""
    assert curve.centre is not None
    (x, y), (px, py) = curve.centre.floats(), curve.start.floats()
    return hypot(px - x, py - y)


def radius(curve: Curve) -> Exact:
    """An arc's radius; its root taken upward where it is not exact."""
    return root_up(circle_of(curve).squared)


def curve_length(curve: Curve) -> float:
    """Length along a seam; for reading off, not for cutting."""
    if curve.centre is None:
        return hypot(*curve.end.minus(curve.start).floats())
    return abs(sweep(curve)) * float_radius(curve)


def distance_to(curve: Curve, at: tuple[float, float]) -> float:
    """How far a place is from a curve: from its line or circle where the foot lies between the
    ends, else from the nearer end. For choosing, not for deciding what meets."""
    (px, py), (qx, qy) = curve.start.floats(), curve.end.floats()
    x, y = at
    if curve.centre is None:
        dx, dy = qx - px, qy - py
        k = ((x - px) * dx + (y - py) * dy) / ((dx * dx + dy * dy) or 1.0)
        k = min(1.0, max(0.0, k))
        return hypot(px + k * dx - x, py + k * dy - y)
    cx, cy = curve.centre.floats()
    ends = min(hypot(x - px, y - py), hypot(x - qx, y - qy))
    sign = 1.0 if (px - cx) * (qy - cy) - (py - cy) * (qx - cx) > 0 else -1.0
    after = sign * ((px - cx) * (y - cy) - (py - cy) * (x - cx))
    before = sign * ((x - cx) * (qy - cy) - (y - cy) * (qx - cx))
    between = (
        after >= 0
        and before >= 0
        and (px + qx - 2 * cx) * (x - cx) + (py + qy - 2 * cy) * (y - cy) > 0
    )
    return abs(hypot(x - cx, y - cy) - hypot(px - cx, py - cy)) if between else ends


def flattened(curve: Curve, sagitta: float) -> Iterator[tuple[float, float]]:
    """Points along a seam, its start included and its end left out, so close together that chords
    leave it by no more than ``sagitta``: r(1 - cos(step/2)) ≤ sagitta."""
    yield curve.start.floats()
    if curve.centre is None:
        return
    angle, r = sweep(curve), float_radius(curve)
    step = 2 * acos(max(0.0, 1 - sagitta / r)) or pi / 4
    count = int(abs(angle) / step) + 1
    x, y = curve.centre.floats()
    px, py = curve.start.floats()
    for i in range(1, count):
        c, s = cos(angle * i / count), sin(angle * i / count)
        yield x + c * (px - x) - s * (py - y), y + s * (px - x) + c * (py - y)


def cap_area(curve: Curve) -> float:
    """The area between an arc and its chord, above 0 where the arc bulges to the left of its way
    (going clockwise): r²(θ - sin θ)/2. Added to the shoelace of a clockwise ring it gives the
    ring's area."""
    angle = sweep(curve)
    return float_radius(curve) ** 2 * (angle - sin(angle)) / 2


def extremes(curve: Curve) -> tuple[float, float, float, float]:
    """The box round an arc, left, top, right, bottom, as floats: its ends, and the outermost
    points of its circle where it passes them."""
    assert curve.centre is not None
    (x, y), r = curve.centre.floats(), float_radius(curve)
    (px, py), (qx, qy) = curve.start.floats(), curve.end.floats()
    xs, ys = [px, qx], [py, qy]
    begin, angle = atan2(py - y, px - x), sweep(curve)
    for quarter in range(4):
        at = quarter * pi / 2
        turn = (at - begin) % (2 * pi) if angle > 0 else (begin - at) % (2 * pi)
        if turn < abs(angle):
            xs.append(x + r * cos(at))
            ys.append(y + r * sin(at))
    return min(xs), min(ys), max(xs), max(ys)


def sagitta(curve: Curve) -> float:
    """How far an arc bulges from its chord: r(1 - cos(θ/2))."""
    return float_radius(curve) * (1 - cos(sweep(curve) / 2))


ROUND = 1e-9
"""How far the squares of an arc's radii at both ends may differ, as a share."""
STEPS = 12
"""Chords an arc is drawn with."""


class _Arc(NamedTuple):
    """An arc as a rational Bézier curve: its ends ``p`` and ``q``, the point T where the tangents
    there meet, and T's ``weight`` w = cos(θ/2). Coordinates are exact, or floats.
    P(t) = ((1-t)²p + 2wt(1-t)T + t²q) / ((1-t)² + 2wt(1-t) + t²)."""

    p: tuple[Any, Any]
    q: tuple[Any, Any]
    tip: tuple[Any, Any]
    weight: Any

    @classmethod
    def of(
        cls,
        p: tuple[Any, Any],
        q: tuple[Any, Any],
        centre: tuple[Any, Any],
        root: Callable[[Any], Any],
    ) -> _Arc | None:
        """None where there is no short way round: as straight as its ends say."""
        (px, py), (qx, qy), (x, y) = p, q, centre
        ux, uy, vx, vy = px - x, py - y, qx - x, qy - y
        # In a block stretched one way an arc is part of an ellipse: y is taken as many times as
        # makes it round again; tangents and weights stay what they are.
        s = _stretch(ux, uy, vx, vy)
        cosine = (ux * vx + s * uy * vy) / (ux * ux + s * uy * uy)
        if cosine <= -1:
            return None
        k = 1 / (1 + cosine)  # T = c + (u + v)/(1 + cos θ), as its foot on u is u itself
        return cls(p, q, (x + (ux + vx) * k, y + (uy + vy) * k), root((1 + cosine) / 2))

    def at(self, t: Any) -> tuple[Any, Any]:
        a, b, d = (1 - t) * (1 - t), 2 * self.weight * t * (1 - t), t * t
        whole = a + b + d
        x, y = (
            (a * m + b * n + d * o) / whole
            for m, n, o in zip(self.p, self.tip, self.q, strict=True)
        )
        return x, y


def _stretch(ux: Any, uy: Any, vx: Any, vy: Any) -> Any:
    """The s for which x² + sy² is the same at both ends of an arc, seen from its centre; 1 where it
    is round but for rounding."""
    u, v, down = ux * ux + uy * uy, vx * vx + vy * vy, uy * uy - vy * vy
    if abs(float(v - u)) <= ROUND * float(u) or down == 0:
        return 1
    s = (vx * vx - ux * ux) / down
    return s if s > 0 else 1


@memo(8000)
def exact_chain(curve: Curve) -> tuple[Point, ...]:
    """Exact points along an arc, its start included and its end left out: equal arcs, turned or
    mirrored, give points that are turned or mirrored exactly."""
    assert curve.centre is not None
    arc = _Arc.of(curve.start, curve.end, curve.centre, root_up)
    if arc is None:
        return (curve.start,)
    if all(isinstance(x, Fraction) for x in (*arc.p, *arc.q, *arc.tip, arc.weight)):
        return _rational_chain(arc)
    return tuple(Point(*arc.at(Fraction(i, STEPS))) for i in range(STEPS))


def _rational_chain(arc: _Arc) -> tuple[Point, ...]:
    """The points of an arc whose numbers are fractions, each put together from integers: with
    t = i/n, w = m/o and coordinates over one denominator, the formula of ``_Arc`` times n²o."""
    m, o = arc.weight.numerator, arc.weight.denominator
    coordinates = []
    for p, tip, q in zip(arc.p, arc.tip, arc.q, strict=True):
        over = lcm(p.denominator, tip.denominator, q.denominator)
        a, b, d = (x.numerator * (over // x.denominator) for x in (p, tip, q))
        coordinates.append((a * o, b * m, d * o, over))
    points = []
    for i in range(STEPS):
        a, b, d = (STEPS - i) ** 2, 2 * i * (STEPS - i), i * i
        whole = (a + d) * o + b * m
        points.append(Point(*(
            Fraction(a * x + b * y + d * z, whole * over) for x, y, z, over in coordinates
        )))  # fmt: skip
    return tuple(points)


def float_chain(curve: Curve) -> list[tuple[float, float]]:
    """The points of ``exact_chain`` in floats, for drawing: in a fraction of the time."""
    assert curve.centre is not None
    p, q, centre = curve.start.floats(), curve.end.floats(), curve.centre.floats()
    arc = _Arc.of(p, q, centre, sqrt)
    return [arc.at(i / STEPS) for i in range(STEPS)] if arc is not None else [p]
