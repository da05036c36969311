"""Shapes that pieces and units have names for, in any turn: exact tests, no roots."""

from __future__ import annotations

from inlet.core.geometry.point import dot
from inlet.core.geometry.polygon import Polygon, squared_length


def is_rectangle(outline: Polygon) -> bool:
    """Four square corners, whatever the turn."""
    if len(outline) != 4:
        return False
    a, b, c, d = outline
    if a.x == b.x or a.y == b.y:  # square to the block, nearly always
        return (a.x, b.y, c.x, d.y) == (b.x, c.y, d.x, a.y) or (
            (a.y, b.x, c.y, d.x) == (b.y, c.x, d.y, a.x)
        )
    sides = [outline[(i + 1) % 4].minus(outline[i]) for i in range(4)]
    return all(dot(sides[i], sides[(i + 1) % 4]) == 0 for i in range(3))


def is_square(outline: Polygon) -> bool:
    return is_rectangle(outline) and sides_equal(outline)


def sides_equal(outline: Polygon) -> bool:
    """Is a rectangle a square?"""
    a, b, c, _ = outline
    if a.x == b.x or a.y == b.y:
        return abs(c.x - a.x) == abs(c.y - a.y)
    return squared_length(a, b) == squared_length(b, c)


def right_corner(outline: Polygon) -> Polygon | None:
    """A right triangle as (right-angled corner, next, last), else None."""
    if len(outline) != 3:
        return None
    for i in range(3):
        corner, after, before = outline[i], outline[(i + 1) % 3], outline[i - 1]
        if dot(after.minus(corner), before.minus(corner)) == 0:
            return corner, after, before
    return None


def triangle_legs(outline: Polygon) -> Polygon | None:
    """A right isosceles triangle as (right-angled corner, next, last), else None."""
    points = right_corner(outline)
    if points is None:
        return None
    corner, after, before = points
    return points if squared_length(corner, after) == squared_length(corner, before) else None
