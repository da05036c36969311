"""The line to cut round a template: its sewing line with the allowance outside, in closed form.

A straight side moves out by the allowance s; an arc of radius r gets r + s where it bulges out of
the patch, r - s where it bulges in. Corners are where the moved sides meet: two lines by solving
them, a line and a circle or two circles by a square root, the meeting that is nearer the corner.
Sides that run smoothly into one another meet s beyond the corner, square to both. Floats from here
on: this is what a printer and a machine are given.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from itertools import pairwise
from math import hypot, sqrt
from typing import NamedTuple

from inlet.core.geometry import SHARP, Curve, Outline, sweep

Place = tuple[float, float]
SMOOTH = 1e-9
"""Sides turned by less run smoothly into one another."""
SLIT = 1e-4
"""A notch no wider: its moved sides would meet thousands of allowances off."""


class Side(NamedTuple):
    """A straight side, or an arc about ``centre``, ``clockwise`` on screen or not."""

    start: Place
    end: Place
    centre: Place | None = None
    clockwise: bool = True

    @property
    def radius(self) -> float:
        assert self.centre is not None
        return hypot(self.start[0] - self.centre[0], self.start[1] - self.centre[1])


def sewing_sides(shape: Outline) -> tuple[Side, ...]:
    """An outline's sides, clockwise."""
    return tuple(_side(curve) for curve in shape.sides())


def _side(curve: Curve) -> Side:
    centre = None if curve.centre is None else curve.centre.floats()
    clockwise = curve.centre is None or sweep(curve) > 0
    return Side(curve.start.floats(), curve.end.floats(), centre, clockwise)


Tips = Callable[[int], Iterable["CornerTrim"]]
"""The lines that cut off the tip at a corner, by its number."""


def cutting_sides(
    sides: Sequence[Side], seam: float, tips: Tips = lambda _: ()
) -> tuple[Side, ...]:
    """The sides of a clockwise outline, each ``seam`` further out, tips trimmed. A sharp corner,
    where one side runs back along the other, is cut square, ``seam`` beyond it."""
    corners = [_corner(sides[i - 1], side, seam) for i, side in enumerate(sides)]
    cut_sides = tuple(
        side._replace(start=corners[i][-1], end=corners[(i + 1) % len(sides)][0])
        for i, side in enumerate(sides)
    )
    for i in reversed(range(len(sides))):
        caps = [Side(a, b) for a, b in pairwise(corners[i])]
        if caps:
            cut_sides = (*cut_sides[:i], *caps, *cut_sides[i:]) if i else (*cut_sides, *caps)
            continue
        for trim in tips(i):
            cut_sides = trimmed(cut_sides, i, trim)
    return cut_sides


def _outward(side: Side, at: Place) -> Place:
    """The unit step square to a side, out of a clockwise outline."""
    if side.centre is None:
        dx, dy = side.end[0] - side.start[0], side.end[1] - side.start[1]
        length = hypot(dx, dy)
        return dy / length, -dx / length
    dx, dy = at[0] - side.centre[0], at[1] - side.centre[1]
    length = hypot(dx, dy) if side.clockwise else -hypot(dx, dy)
    return dx / length, dy / length


def _corner(before: Side, after: Side, seam: float) -> tuple[Place, ...]:
    """Where two sides meet once both are moved out, from where they meet now; round a cusp, its
    places in order."""
    at = after.start
    one, other = _outward(before, at), _outward(after, at)
    alike = one[0] * other[0] + one[1] * other[1]  # 1 straight on, -1 back again
    turn = one[0] * other[1] - one[1] * other[0]  # above 0 at a corner that bulges out
    sharpest = SMOOTH if alike > 0 else SHARP if turn > 0 else SLIT
    if abs(turn) < sharpest:
        first = at[0] + seam * one[0], at[1] + seam * one[1]
        if alike > 0:
            return (first,)
        last = at[0] + seam * other[0], at[1] + seam * other[1]
        ahead = -seam * one[1], seam * one[0]  # the way the first side runs
        ends = [(p[0] + ahead[0], p[1] + ahead[1]) for p in (first, last)]
        begin = () if before.centre is None else (first,)
        return (*begin, *ends, *(() if after.centre is None else (last,)))
    k = seam / (1 + alike)
    near = at[0] + k * (one[0] + other[0]), at[1] + k * (one[1] + other[1])
    if before.centre is None and after.centre is None:
        return (near,)  # where the two lines meet: the mitre s(n + m)/(1 + n·m)
    if before.centre is None or after.centre is None:
        line, arc = (before, after) if before.centre is None else (after, before)
        corner_points = _line_and_circle(line, arc, seam, at)
    else:
        corner_points = _two_circles(before, after, seam)
    return (min(corner_points, key=lambda p: hypot(p[0] - near[0], p[1] - near[1]), default=near),)


def _grown(arc: Side, seam: float) -> float:
    return arc.radius + (seam if arc.clockwise else -seam)


def _line_and_circle(line: Side, arc: Side, seam: float, at: Place) -> list[Place]:
    nx, ny = _outward(line, at)
    assert arc.centre is not None
    cx, cy = arc.centre
    # The foot of the centre on the moved line, and how far along it the circle is.
    off = (at[0] + seam * nx - cx) * nx + (at[1] + seam * ny - cy) * ny
    square = _grown(arc, seam) ** 2 - off * off
    if square < 0:
        return []
    half = sqrt(square)
    foot = cx + off * nx, cy + off * ny
    return [(foot[0] - k * ny, foot[1] + k * nx) for k in (half, -half)]


def _two_circles(side: Side, other_side: Side, seam: float) -> list[Place]:
    assert side.centre is not None
    assert other_side.centre is not None
    (ax, ay), (bx, by) = side.centre, other_side.centre
    r, s = _grown(side, seam), _grown(other_side, seam)
    apart = hypot(bx - ax, by - ay)
    if apart == 0:
        return []
    along = (r * r - s * s + apart * apart) / (2 * apart)
    square = r * r - along * along
    if square < 0:
        return []
    half, ux, uy = sqrt(square), (bx - ax) / apart, (by - ay) / apart
    foot = ax + along * ux, ay + along * uy
    return [(foot[0] - k * uy, foot[1] + k * ux) for k in (half, -half)]


class CornerTrim(NamedTuple):
    """A straight line; what lies on the side its ``outward`` step points to is cut off."""

    at: Place
    outward: Place


def trimmed(sides: Sequence[Side], corner: int, trim: CornerTrim) -> tuple[Side, ...]:
    """The sides with the tip at a corner between two straight ones cut off along a line; as they
    are where the line does not cross both of them, or nothing of the tip is beyond it."""
    before, after = sides[corner - 1], sides[corner]
    if before.centre is not None or after.centre is not None:
        return tuple(sides)
    if _beyond(trim, after.start) <= SMOOTH:
        return tuple(sides)
    ends = _crossing(before, trim), _crossing(after, trim)
    if ends[0] is None or ends[1] is None:
        return tuple(sides)
    trimmed_sides = list(sides)
    trimmed_sides[corner - 1] = before._replace(end=ends[0])
    trimmed_sides[corner] = after._replace(start=ends[1])
    trimmed_sides.insert(corner if corner else len(trimmed_sides), Side(ends[0], ends[1]))
    return tuple(trimmed_sides)


def _beyond(trim: CornerTrim, p: Place) -> float:
    return (p[0] - trim.at[0]) * trim.outward[0] + (p[1] - trim.at[1]) * trim.outward[1]


def _crossing(side: Side, trim: CornerTrim) -> Place | None:
    a, b = _beyond(trim, side.start), _beyond(trim, side.end)
    if (a > 0) == (b > 0):
        return None
    k = a / (a - b)
    return (
        side.start[0] + k * (side.end[0] - side.start[0]),
        side.start[1] + k * (side.end[1] - side.start[1]),
    )


def reflected(p: Place, line: tuple[Place, Place]) -> Place:
    """A place on the other side of a line."""
    (ax, ay), (bx, by) = line
    dx, dy = bx - ax, by - ay
    k = ((p[0] - ax) * dx + (p[1] - ay) * dy) / (dx * dx + dy * dy)
    return 2 * (ax + k * dx) - p[0], 2 * (ay + k * dy) - p[1]
