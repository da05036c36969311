"""Pins for curved seams: how many, and where."""

from __future__ import annotations

from math import acos, ceil, cos, sin

from inlet.core.assembly import Join
from inlet.core.geometry import Curve, Point, circle_of, curve_length, sweep
from inlet.core.numbers import Exact, Fraction

PIN_SAG = 8
"""Fabric lies straight between two pins: pins are so close that it leaves the curve by no more than
the seam allowance divided by this, about a thread or two."""


def pins_for(curve: Curve, seam: Exact) -> int:
    """How many pins hold a curve, both ends and the centre among them.

    A chord over the angle a leaves a circle of radius r by r(1 - cos a/2); that is to be at most
    e = seam/8, so a = 2·acos(1 - e/r), and pins are that far apart or closer, an even number of
    spaces so that one is at the centre. Per inch, a tighter curve takes more.
    """
    assert curve.centre is not None
    radius = float(circle_of(curve).squared) ** 0.5
    angle = 2 * acos(max(-1.0, 1 - float(seam) / PIN_SAG / radius))
    spaces = max(2, ceil(abs(sweep(curve)) / angle - 1e-9))
    return spaces + spaces % 2 + 1


def all_pins(join: Join, seam: Exact) -> int:
    """Pins for all the arcs of a seam, those where two meet counted once."""
    curves = arcs_of(join)
    return sum(pins_for(c, seam) for c in curves) - max(0, len(curves) - 1)


def arcs_of(join: Join) -> list[Curve]:
    """The arcs of a seam, edges along one circle taken together as far as half of it."""
    arcs: list[Curve] = []
    for curve in join.curves:
        centre = curve.centre
        if centre is None:
            continue
        if arcs and arcs[-1].centre == centre and arcs[-1].end == curve.start:
            whole = Curve(arcs[-1].start, curve.end, centre)
            longer = curve_length(arcs[-1]) + curve_length(curve)
            if whole.start != whole.end and abs(curve_length(whole) - longer) < 1e-6:
                arcs[-1] = whole
                continue
        arcs.append(curve)
    return arcs


def pin_points(join: Join, seam: Exact) -> list[Point]:
    """Where the pins go, on the sewing line; ends included."""
    points: list[Point] = []
    for curve in arcs_of(join):
        spaces = pins_for(curve, seam) - 1
        chain = _points_along(curve, spaces)
        points += chain if not points or chain[0] != points[-1] else chain[1:]
    return points


def _points_along(curve: Curve, spaces: int) -> list[Point]:
    assert curve.centre is not None
    angle = sweep(curve) / spaces
    (x, y), (px, py) = curve.centre.floats(), curve.start.floats()
    points = [curve.start]
    for i in range(1, spaces):
        c, s = cos(angle * i), sin(angle * i)
        u, v = x + c * (px - x) - s * (py - y), y + s * (px - x) + c * (py - y)
        points.append(Point(Fraction(round(u * 4096), 4096), Fraction(round(v * 4096), 4096)))
    return [*points, curve.end]
