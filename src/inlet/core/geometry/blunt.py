"""Sharp corners of what is cut: beyond them the sides, moved out by the allowance, meet far off."""

from __future__ import annotations

from math import hypot

from inlet.core.geometry.point import Point, dot
from inlet.core.geometry.polygon import Polygon, edges, offset
from inlet.core.numbers import Exact, root_up

SHARP = 0.1
"""Radians, not quite 6 degrees. Of a corner of angle a the moved sides meet s/sin(a/2) off it: 20
allowances here. A sharper one is cut off square, an allowance beyond the corner."""


def is_sharp(before: Point, at: Point, after: Point) -> bool:
    """Is the corner of a clockwise outline so sharp that it is cut off square?"""
    (px, py), (qx, qy) = at.minus(before).floats(), after.minus(at).floats()
    turn, on = px * qy - py * qx, px * qx + py * qy
    return on < 0 <= turn < SHARP * hypot(px, py) * hypot(qx, qy)


def cut_sides(outline: Polygon, seam: Exact) -> tuple[tuple[Point, Point], ...]:
    """The ends of each side of a clockwise outline once it is moved out by ``seam``, sharp corners
    cut off square."""
    raw, n = offset(outline, seam), len(outline)
    sharp = [is_sharp(outline[i - 1], p, outline[(i + 1) % n]) for i, p in enumerate(outline)]
    sides = []
    for i, (p, q) in enumerate(edges(outline)):
        start, end = raw[i], raw[(i + 1) % n]
        if sharp[i] or sharp[(i + 1) % n]:
            step = q.minus(p)
            length = root_up(dot(step, step))
            along = Point(step.x * seam / length, step.y * seam / length)
            out = Point(along.y, -along.x)
            if sharp[i]:
                start = p.plus(out).minus(along)
            if sharp[(i + 1) % n]:
                end = q.plus(out).plus(along)
        sides.append((start, end))
    return tuple(sides)
