"""Sharp corners of what is cut: beyond them the sides, moved out by the allowance, meet far off."""

from __future__ import annotations

from collections.abc import Sequence
from math import hypot

from inlet.core.geometry.point import Point, dot
from inlet.core.geometry.polygon import Polygon, offset_sides
from inlet.core.numbers import Exact, root_up

SHARP = 0.1
"""Radians, not quite 6 degrees. Of a corner of angle a the moved sides meet s/sin(a/2) off it: 20
allowances here. A sharper one is cut off square, an allowance beyond the corner."""


def is_sharp(before: Point, at: Point, after: Point) -> bool:
    """Is the corner of a clockwise outline so sharp that it is cut off square?"""
    (px, py), (qx, qy) = at.minus(before).floats(), after.minus(at).floats()
    turn, on = px * qy - py * qx, px * qx + py * qy
    return on < 0 <= turn < SHARP * hypot(px, py) * hypot(qx, qy)


def blunt_corner(
    before: Point, at: Point, after: Point, far: Exact | int, farther: Exact | int
) -> tuple[Point, Point]:
    """The two ends of a sharp corner cut off square, its sides moved out by their distances: the
    larger of these beyond the corner."""
    beyond = max(far, farther)
    first, last = _along(before, at), _along(at, after)
    return (
        Point(at.x + first.y * far + first.x * beyond, at.y - first.x * far + first.y * beyond),
        Point(at.x + last.y * farther - last.x * beyond, at.y - last.x * farther - last.y * beyond),
    )


def _along(p: Point, q: Point) -> Point:
    """The step of length 1 from one point toward another."""
    step = q.minus(p)
    length = root_up(dot(step, step))
    return Point(step.x / length, step.y / length)


def moved_corners(
    outline: Polygon, distances: Sequence[Exact | int]
) -> tuple[tuple[Point, ...], ...]:
    """Each corner of a clockwise outline once its sides are moved out, the side from it to the next
    by its distance: one point, or the two ends of a sharp one."""
    raw, n = offset_sides(outline, distances), len(outline)
    corners: list[tuple[Point, ...]] = []
    for i, at in enumerate(outline):
        before, after = outline[i - 1], outline[(i + 1) % n]
        if is_sharp(before, at, after) and (distances[i - 1] or distances[i]):
            corners.append(blunt_corner(before, at, after, distances[i - 1], distances[i]))
        else:
            corners.append((raw[i],))
    return tuple(corners)


def cut_sides(outline: Polygon, seam: Exact) -> tuple[tuple[Point, Point], ...]:
    """The ends of each side of a clockwise outline once it is moved out by ``seam``, sharp corners
    cut off square."""
    corners = moved_corners(outline, [seam] * len(outline))
    return tuple((p[-1], q[0]) for p, q in zip(corners, corners[1:] + corners[:1], strict=True))
