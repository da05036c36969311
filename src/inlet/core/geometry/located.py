"""Equality where a place may be a root taken to 12 decimals.

Exact numbers are equal or they are not. A crossing outside Q(√2) is written to 12 decimals of a
grid unit; what is worked out from it, by another way round, differs in the last digits though the
places are the same. Such numbers are known by their long denominators, and two of them are the same
length where they differ by less than ``NEAR``: 10⁻¹² times the largest grid unit (120 in) and what
a few sums add to that, and still ten thousand times less than a thread.
"""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.cancellation import check
from inlet.core.geometry.motion import Picture, canonical
from inlet.core.geometry.point import Point, cross
from inlet.core.geometry.polygon import Polygon
from inlet.core.numbers import Exact, Fraction

NEAR = 1e-8
"""Inches or centimetres."""
_SHORT = 10**6


def is_located(x: Exact) -> bool:
    """May a number come from a root taken to 12 decimals? Such a decimal can lose a few of its
    digits when it is reduced; drawn fractions have far smaller denominators."""
    return isinstance(x, Fraction) and x.denominator > _SHORT


def same_length(x: Exact, y: Exact) -> bool:
    """Equal; or one of them located, and nearer than ``NEAR``."""
    if x == y:
        return True
    return (is_located(x) or is_located(y)) and abs(float(x - y)) < NEAR


def same_place(p: Point, q: Point) -> bool:
    """``same_length`` across and down."""
    return same_length(p.x, q.x) and same_length(p.y, q.y)


def in_line(p: Point, q: Point, r: Point) -> bool:
    """Is q on the line from p to r: exactly, or located and off it by less than ``NEAR``?"""
    turn = cross(q.minus(p), r.minus(q))
    if turn == 0:
        return True
    if not any(is_located(x) for point in (p, q, r) for x in point):
        return False
    (px, py), (rx, ry) = p.floats(), r.floats()
    return abs(float(turn)) < NEAR * (abs(rx - px) + abs(ry - py))


def same_outline(points: Polygon, other_points: Polygon) -> bool:
    """The same corners in the same order, wherever the outlines start."""
    n = len(points)
    return n == len(other_points) and any(
        all(same_place(p, other_points[(k + i) % n]) for i, p in enumerate(points))
        for k in range(n)
    )


def same_picture(one: Picture, other: Picture) -> bool:
    """The same outlines in the same fabric, each once."""
    left = canonical(one)
    check()
    right = canonical(other)
    check()
    if left == right:
        return True
    if len(one) != len(other):
        return False
    rest = [item for item in other if not canonical((item,)) <= left]
    for outline, tag in (item for item in one if not canonical((item,)) <= right):
        offset = next(
            (k for k, (o, t) in enumerate(rest) if t == tag and same_outline(outline, o)), None
        )
        if offset is None:
            return False
        del rest[offset]
    return not rest


def from_corner(outline: Polygon, like: Polygon) -> Sequence[Point]:
    """The corners of an outline from the one on that lies, in it, as the first does in ``like``
    (another place of the same shape); as they come where there is none."""
    steps = [p.minus(like[0]) for p in like]
    n = len(outline)
    for k in range(n if n == len(like) else 0):
        here = outline[k:] + outline[:k]
        if all(same_place(p.minus(here[0]), s) for p, s in zip(here, steps, strict=True)):
            return here
    return outline
