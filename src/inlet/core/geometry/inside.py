"""Is a point inside an outline? And a point that is.

Floats answer wherever the point is well off the outline, which is nearly always; what they leave
open is decided exactly.
"""

from __future__ import annotations

from itertools import pairwise
from math import hypot, sqrt
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.curve import Curve, circle_of, exact_chain
from inlet.core.geometry.outline import Outline, box, polyline
from inlet.core.geometry.point import HAIR, Point, cross, midpoint
from inlet.core.geometry.polygon import contains, inner_point
from inlet.core.memo import memo
from inlet.core.numbers import Fraction


class RoughSide(NamedTuple):
    """A side in floats: its ends, and for an arc its centre and radius (0 for a straight one)."""

    px: float
    py: float
    qx: float
    qy: float
    h: float
    k: float
    r: float


def rough_sides(outline: Outline) -> list[RoughSide]:
    """The sides of an outline in floats."""
    places = [p.floats() for p in outline.corners]
    centres = dict(outline.arcs)
    sides = []
    for i, (px, py) in enumerate(places):
        qx, qy = places[(i + 1) % len(places)]
        h = k = r = 0.0
        if i in centres:
            h, k = centres[i].floats()
            r = ((px - h) ** 2 + (py - k) ** 2) ** 0.5
        sides.append(RoughSide(px, py, qx, qy, h, k, r))
    return sides


def surely(sides: list[RoughSide], x: float, y: float) -> int:
    """1 inside, -1 outside, 0 where floats cannot tell.

    A ray to the right meets the outline as often, but for an even number, as it meets the chords of
    its sides, and once more for each arc between whose chord and itself the place lies. (An arc and
    its chord are a closed line, and a closed line is met an odd number of times from inside it.) An
    arc is the short way round, so that place is in the circle, beyond the chord from its centre.
    """
    largest = max(max(abs(s.px), abs(s.py), abs(s.h), abs(s.k)) + s.r for s in sides)
    hair = HAIR * (1 + largest * largest)
    inside = False
    for px, py, qx, qy, h, k, r in sides:
        dx, dy = qx - px, qy - py
        turn = dx * (y - py) - dy * (x - px)
        if r:
            u, v = x - h, y - k
            within = r * r - u * u - v * v
            if abs(within) < hair:
                return 0
            if within > 0:
                if abs(turn) < hair:
                    return 0
                inside ^= (turn > 0) != (dx * (k - py) - dy * (h - px) > 0)
        elif abs(turn) < hair and _beside(px, qx, x, hair) and _beside(py, qy, y, hair):
            return 0
        below = qy > y
        if (py > y) != below:
            if abs(turn) < hair:
                return 0
            inside ^= (turn > 0) == below
    return 1 if inside else -1


def _beside(p: float, q: float, x: float, hair: float) -> bool:
    """Is x between p and q, or nearly?"""
    return p - hair <= x <= q + hair or q - hair <= x <= p + hair


def side(outline: Outline, p: Point, rough: list[RoughSide] | None = None) -> int:
    """1 inside, 0 on the outline, -1 outside, exactly; ``rough`` are its sides, if known."""
    if not outline.arcs:
        return contains(outline.corners, p)
    sure = surely(rough_sides(outline) if rough is None else rough, *p.floats())
    return sure if sure else exact_side(outline, p)


def exact_side(outline: Outline, p: Point) -> int:
    """``side``, with no floats at all."""
    inside = False
    for curve in outline.sides():
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


def inside_point(outline: Outline) -> Point:
    """A point well inside an outline, a short fraction where arcs are about.

    Of a curved one: the mean of its corners and the middles of its arcs, or else the middle of one
    of the longest stretches inside, along some levels across it, rounded to ever finer fractions
    until it is inside exactly.
    """
    return _inside_arcs(outline) if outline.arcs else inner_point(outline.corners)


@memo(5000)
def _inside_arcs(outline: Outline) -> Point:
    """Remembered: an edit leaves most patches as they are, and each is asked for several times."""
    sides = rough_sides(outline)
    left, top, right, bottom = box(outline)
    mean = _mean(sides)
    nearest = min(_gap(s, *mean) for s in sides)
    if nearest > WELL_INSIDE * min(right - left, bottom - top):
        point = _rounded(outline, sides, [mean], nearest)
        if point is not None:
            return point
    points = np.array(polyline(outline, 1e-3 * max(right - left, bottom - top)))
    point = _rounded(outline, sides, _widest(points, top, bottom))
    return _inside_sliver(outline) if point is None else point


WELL_INSIDE = 0.12
"""Of the lesser side of its box: a middle as far as this from an outline is well inside it."""


def _mean(sides: list[RoughSide]) -> tuple[float, float]:
    """The mean of the corners and of the middles of arcs."""
    middles = []
    for px, py, qx, qy, h, k, r in sides:
        middles.append((px, py))
        if r:
            x, y = (px + qx) / 2 - h, (py + qy) / 2 - k
            bend = r / max(hypot(x, y), 1e-12 * r)
            middles.append((h + x * bend, k + y * bend))
    return sum(x for x, _ in middles) / len(middles), sum(y for _, y in middles) / len(middles)


def _gap(side: RoughSide, x: float, y: float) -> float:
    """At least how far a place is from a side: from the chord, or from the circle and an end."""
    px, py, qx, qy, h, k, r = side
    dx, dy = qx - px, qy - py
    along = ((x - px) * dx + (y - py) * dy) / (dx * dx + dy * dy)
    t = min(1.0, max(0.0, along))
    gap = hypot(px + t * dx - x, py + t * dy - y)
    return max(abs(hypot(x - h, y - k) - r), gap - hypot(dx, dy) / 2) if r else gap


def _rounded(
    outline: Outline, sides: list[RoughSide], places: list[tuple[float, float]], gap: float = 0.0
) -> Point | None:
    """The first place that is still inside an outline when it is rounded to a short fraction, the
    shortest first; moved by less than ``gap`` if given."""
    for fineness in (2, 8, 64, 1024, 2**16, 2**24):
        if gap and fineness * gap < sqrt(0.5):
            continue  # half a fraction each way may be as far as the gap
        doubtful = 0
        for x, y in places:
            at = round(x * fineness) / fineness, round(y * fineness) / fineness
            sure = surely(sides, *at)
            doubtful += sure == 0
            if sure > 0 or (sure == 0 and doubtful <= DOUBTFUL):
                p = Point(Fraction(at[0]), Fraction(at[1]))
                if sure or exact_side(outline, p) > 0:
                    return p
    return None


LEVELS = 31
TRIED = 12
DOUBTFUL = 3
"""Levels across an outline; how many of the widest stretches inside it along them are tried; and
how many of those, where floats cannot tell, exactly."""


def _widest(points: NDArray[np.float64], top: float, bottom: float) -> list[tuple[float, float]]:
    """The middles (x, y) of the widest stretches inside a polygon along some levels across it, the
    widest first. Levels are uneven, so as not to run through corners."""
    (px, py), (qx, qy) = points.T, np.roll(points, -1, axis=0).T
    y = top + (bottom - top) * np.arange(1, LEVELS + 1)[:, None] / (LEVELS + 1.07)
    met = (py > y) != (qy > y)
    # Along each level the places where it meets the sides come in pairs; other sides go last.
    slope = (qx - px) / np.where(py == qy, 1.0, qy - py)
    xs = np.sort(np.where(met, px + (y - py) * slope, np.inf), axis=1)
    xs = xs[:, : 2 * int(met.sum(axis=1).max() // 2)]
    level, pair = np.nonzero(np.isfinite(xs[:, 1::2]))
    starts, ends = xs[level, 2 * pair], xs[level, 2 * pair + 1]
    widest = np.argsort(starts - ends, kind="stable")[:TRIED]
    return list(
        zip(((starts + ends) / 2)[widest].tolist(), y[level, 0][widest].tolist(), strict=True)
    )


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
