"""Exact points and the two products everything else is made of."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.numbers import Exact, Fraction

HAIR = 1e-9
"""Of lengths about 1: what floats are not trusted nearer than."""


class Point(NamedTuple):
    """A point (or a step from one point to another); y grows downward."""

    x: Exact
    y: Exact

    def plus(self, other_point: Point) -> Point:
        return Point(self.x + other_point.x, self.y + other_point.y)

    def minus(self, other_point: Point) -> Point:
        return Point(self.x - other_point.x, self.y - other_point.y)

    def scaled(self, sx: Exact, sy: Exact) -> Point:
        return Point(self.x * sx, self.y * sy)

    def floats(self) -> tuple[float, float]:
        return float(self.x), float(self.y)


ORIGIN = Point(Fraction(0), Fraction(0))


def dot(u: Point, v: Point) -> Exact:
    """``u·v``: 0 when square to one another; ``dot(u, u)`` is the squared length."""
    return u.x * v.x + u.y * v.y


def cross(u: Point, v: Point) -> Exact:
    """``u×v``: twice the area of the triangle they span; above 0 when v turns clockwise on screen
    from u (y grows downward)."""
    return u.x * v.y - u.y * v.x


def midpoint(p: Point, q: Point) -> Point:
    return Point((p.x + q.x) / 2, (p.y + q.y) / 2)


# The eight ways a piece of fabric can lie on the table square to itself: a mirror, then a turn.
Turn = tuple[int, bool]
"""(quarter turns clockwise on screen 0..3, mirrored left-right first)."""


def turned(p: Point, turn: Turn) -> Point:
    """``p`` mirrored in the vertical axis if asked, then turned about the origin."""
    quarters, mirrored = turn
    x, y = (-p.x if mirrored else p.x), p.y
    for _ in range(quarters % 4):
        x, y = -y, x
    return Point(x, y)
