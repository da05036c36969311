"""How far one raw edge reaches past the other where two parts are sewn, at slanted ends."""

from __future__ import annotations

from math import atan2, pi, tan

from inlet.core.assembly import Faces, part_shape
from inlet.core.draft import Draft, points_of
from inlet.core.geometry import SHARP, Curve

FLAT = 1e-6


def overhangs(draft: Draft, one: Faces, other: Faces, vertex: int, seam: float) -> float:
    """At the end of the seam between two parts, how far the raw edge of one reaches past that of
    the other; nothing where both are of one angle.

    Beyond a corner of angle a the two edges moved out by s meet s/tan(a/2) farther along: s for a
    right angle, s(1 + √2) for 45°. The two parts' edges differ by what those differ by.
    """
    reach = [_reach(draft, faces, vertex, seam) for faces in (one, other)]
    if None in reach:
        return 0.0
    first, second = (float(r or 0) for r in reach)
    return abs(first - second)


def _reach(draft: Draft, faces: Faces, vertex: int, seam: float) -> float | None:
    """How far past a corner the raw edge reaches; None if the part has no corner there, or one
    that turns inward."""
    shape, at = part_shape(draft, faces), points_of(draft)[vertex]
    if at not in shape.corners:
        return None
    i = shape.corners.index(at)
    before, after = shape.side(i - 1), shape.side(i)
    angle = (_way(before, False) - _way(after, True)) % (2 * pi)
    if not FLAT < angle < pi - FLAT:
        return None
    return seam if angle < SHARP else seam / tan(angle / 2)


def _way(curve: Curve, forward: bool) -> float:
    """The direction in which a side leaves one of its ends, into the part's edge."""
    here, there = (curve.start, curve.end) if forward else (curve.end, curve.start)
    if curve.centre is None:
        return atan2(*there.minus(here).floats()[::-1])
    point = here.minus(curve.centre)
    clockwise = curve.clockwise == forward
    x, y = (-point.y, point.x) if clockwise else (point.y, -point.x)
    return atan2(float(y), float(x))
