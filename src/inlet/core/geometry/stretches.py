"""Seams as drawn to stretches: what lies along one line or circle once, overlaps merged.

Coordinates are scaled to integers (or integers a + b√2) first; both kinds mix freely.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import cmp_to_key
from math import gcd, lcm
from typing import NamedTuple

from inlet.core.geometry.curve import Curve, circle_of
from inlet.core.geometry.point import Point
from inlet.core.numbers import Exact, Fraction, Root2

UNIT = Fraction(1)
"""Times an int or Root2, an ``Exact``."""

Scaled = int | Exact
"""A scaled coordinate: int where rational, else a Root2 (whose d is then 1)."""
ScaledPoint = tuple[Scaled, Scaled]
LineKey = tuple[Scaled, Scaled, Scaled]
CircleKey = tuple[Scaled, Scaled, Scaled]


class Fault(NamedTuple):
    """Something in the drawing that makes no patch border.

    ``kind`` is ``outside`` (part of the seam leaves the block), ``duplicate`` (the seam lies on
    another, or on the block's edge), ``stops`` (a seam ends inside a patch), ``island`` (seams
    that close a shape but touch nothing else) or ``unclear`` (the seam comes so near to another
    that no patch can be told between them; it is left out). ``seam`` is the index of the seam
    drawn, or -1.
    """

    kind: str
    point: Point
    seam: int


class LineStretch(NamedTuple):
    """A straight stretch from ``low`` to ``high`` (by x, then y) of the line a·x + b·y = c."""

    on: LineKey
    low: ScaledPoint
    high: ScaledPoint


class ArcStretch(NamedTuple):
    """A stretch of the circle about (h, k), ``on`` = (h, k, r²), clockwise on screen from ``low``
    to ``high``, less than half of it. ``leaves``: part of it may lie outside the block."""

    on: CircleKey
    low: ScaledPoint
    high: ScaledPoint
    leaves: bool


Stretch = LineStretch | ArcStretch


def common_denominator(points: Iterable[Point]) -> int:
    """The factor that makes every coordinate an integer, or integers a + b√2."""
    return lcm(*{
        x.d if isinstance(x, Root2) else x.denominator for p in points for x in p
    })  # fmt: skip


CLOSE = 1e-10
"""Grid units: an end drawn to a place outside the field is taken to lie on what it is this near to,
and seams with such ends run along one another where they are this near."""
_SHORT = 10**6
"""Up to here the numbers of a line are taken for those that were meant."""


def scaled(p: Point, scale: int) -> ScaledPoint:
    x, y = p.x * scale, p.y * scale
    return (
        x if isinstance(x, Root2) else x.numerator,
        y if isinstance(y, Root2) else y.numerator,
    )


def line_key(p: ScaledPoint, q: ScaledPoint) -> LineKey:
    """The line through two points, p the smaller, see ``line_form``."""
    a, b = p[1] - q[1], q[0] - p[0]
    return line_form(a, b, a * p[0] + b * p[1])


def line_form(a: Scaled, b: Scaled, c: Scaled) -> LineKey:
    """The line a·x + b·y = c in the one form every equation of it has: integers without common
    factor where it is rational, else led by 1; (b, -a) points to growing x, or down."""
    if isinstance(a, Root2) or isinstance(b, Root2) or isinstance(c, Root2):
        lead = b if b != 0 else -a
        a, b, c = UNIT * a / lead, UNIT * b / lead, UNIT * c / lead
    if isinstance(a, Root2) or isinstance(b, Root2) or isinstance(c, Root2):
        return a, b, c
    factor = lcm(a.denominator, b.denominator, c.denominator)
    p, q, r = (a * factor).numerator, (b * factor).numerator, (c * factor).numerator
    g = gcd(p, q, r)
    if q < 0 or (q == 0 and p > 0):
        g = -g
    return p // g, q // g, r // g


def within_block(seam: Curve, width: Exact, height: Exact) -> Curve | None:
    """The part of a straight seam in the rectangle, None if no part is; ends kept where inside.
    An arc is kept whole: what is outside falls away once it is cut at the edge."""
    p, q = seam.ends
    if seam.centre is not None or (
        0 <= p.x <= width and 0 <= q.x <= width and 0 <= p.y <= height and 0 <= q.y <= height
    ):
        return seam
    low: Exact = Fraction(0)
    high: Exact = Fraction(1)
    d = q.minus(p)
    for step, room in ((d.x, p.x), (-d.x, width - p.x), (d.y, p.y), (-d.y, height - p.y)):
        # Inside this side of the rectangle where room + k·step ≥ 0.
        if step == 0:
            if room < 0:
                return None
        elif step > 0:
            low = max(low, -room / step)
        else:
            high = min(high, -room / step)
    if low > high:
        return None
    start = p if low == 0 else Point(p.x + d.x * low, p.y + d.y * low)
    end = q if high == 1 else Point(p.x + d.x * high, p.y + d.y * high)
    return Curve(start, end)


def beyond(seam: Curve, width: Exact, height: Exact, reach: float) -> tuple[Point | None, bool]:
    """Where an arc leaves the block by more than ``reach``: its end outside, or its outermost
    point; None where it does not. And whether it leaves the block at all."""
    assert seam.centre is not None
    leaves = False
    for p in seam.ends:
        far = max(-p.x, p.x - width, -p.y, p.y - height)
        if far > 0:
            leaves = True
            if float(far) > reach:
                return p, True
    h, k = seam.centre
    low, high = seam.ends if seam.clockwise else (seam.end, seam.start)
    u, v = low.minus(seam.centre), high.minus(seam.centre)
    r2 = circle_of(seam).squared
    # Past an edge at its outermost point, if the arc comes by there: r² > room², exactly.
    for x, y, room in ((1, 0, width - h), (-1, 0, h), (0, 1, height - k), (0, -1, k)):
        past = r2 - room * room
        if room >= 0 and past <= 0:
            continue
        point = Point(UNIT * x, UNIT * y)
        if u.x * point.y - u.y * point.x >= 0 and point.x * v.y - point.y * v.x >= 0:
            leaves = True
            radius = float(r2) ** 0.5
            # r - room = (r² - room²)/(r + room), which loses no digits where the two are near.
            if room < 0 or float(past) > reach * (radius + float(room)):
                to = Fraction(round(radius * 64), 64)
                return Point(h + point.x * to, k + point.y * to), True
    return None, leaves


def merge(
    pieces: Sequence[tuple[Curve, int, bool]], scale: int, loose: bool, faults: list[Fault]
) -> list[Stretch]:
    """One stretch for each connected piece of a line; on a circle, one between neighbouring ends.
    ``pieces`` are seams with their index and whether they may leave the block; overlaps become
    ``duplicate`` faults. ``loose``: ends may be located, and off their line by a hair."""
    on_line: dict[LineKey, list[tuple[ScaledPoint, ScaledPoint, int]]] = {}
    on_circle: dict[CircleKey, list[tuple[ScaledPoint, ScaledPoint, int, bool]]] = {}
    for seam, index, leaves in pieces:
        p, q = scaled(seam.start, scale), scaled(seam.end, scale)
        if seam.centre is None:
            low, high = sorted((p, q))
            on_line.setdefault(line_key(low, high), []).append((low, high, index))
        else:
            h, k = scaled(seam.centre, scale)
            squared = circle_of(seam).squared * scale * scale
            r2 = squared if isinstance(squared, Root2) else squared.numerator
            if not seam.clockwise:
                p, q = q, p
            on_circle.setdefault((h, k, r2), []).append((p, q, index, leaves))
    if loose:
        on_line = _same_lines(on_line, CLOSE * scale)
        on_circle = _same_circles(on_circle, scale)
    reach = CLOSE * scale if loose else 0.0
    merged: list[Stretch] = []
    for line, spans in on_line.items():
        merged += _merge_line(line, spans, scale, reach, faults)
    for circle, arcs in on_circle.items():
        merged += _merge_circle(circle, arcs, scale, reach, faults)
    return merged


def _same_circles(
    same: dict[CircleKey, list[tuple[ScaledPoint, ScaledPoint, int, bool]]], scale: int
) -> dict[CircleKey, list[tuple[ScaledPoint, ScaledPoint, int, bool]]]:
    """Arcs whose circles differ by a hair, as their ends are located, on one circle: the one whose
    numbers in grid units are shortest, as it is the one that was meant."""
    circles: dict[CircleKey, list[tuple[ScaledPoint, ScaledPoint, int, bool]]] = {}
    known: list[tuple[CircleKey, float, float, float]] = []
    reach = CLOSE * scale
    for key in sorted(same, key=lambda k: (_length_of(k, scale), str(k))):
        x, y, r = float(key[0]), float(key[1]), float(key[2]) ** 0.5
        near = (
            other
            for other, h, k, s in known
            if abs(h - x) <= reach and abs(k - y) <= reach and abs(s - r) <= reach
        )
        home = next(near, None)
        if home is None:
            home = key
            known.append((key, x, y, r))
        circles.setdefault(home, []).extend(same[key])
    return circles


def _length_of(circle: CircleKey, scale: int) -> int:
    """How long a circle's numbers are in grid units, in bits below the unit."""
    h, k, r2 = circle
    lengths = (UNIT * h / scale, UNIT * k / scale, UNIT * r2 / scale / scale)
    return sum((x.d if isinstance(x, Root2) else x.denominator).bit_length() for x in lengths)


def _same_lines(
    same: dict[LineKey, list[tuple[ScaledPoint, ScaledPoint, int]]], reach: float
) -> dict[LineKey, list[tuple[ScaledPoint, ScaledPoint, int]]]:
    """Straight seams that lie along another's line to within a hair, on that line: one with short
    numbers, as it was meant, else the longest seam's, which shows its direction best."""
    lines: dict[LineKey, list[tuple[ScaledPoint, ScaledPoint, int]]] = {}
    forms: list[tuple[LineKey, float, float, float, float]] = []

    def rank(key: LineKey) -> tuple[bool, float, str]:
        exact = all(isinstance(v, int) and abs(v) < _SHORT for v in key[:2])
        length = max(float(abs(q[0] - p[0])) + float(abs(q[1] - p[1])) for p, q, _ in same[key])
        return not exact, -length, str(key)

    for key in sorted(same, key=rank):
        ends = [(float(x), float(y)) for piece in same[key] for x, y in piece[:2]]
        near = (
            other
            for other, a, b, c, n in forms
            if all(abs(a * x + b * y - c) <= reach * n for x, y in ends)
        )
        home = next(near, None)
        if home is None:
            home = key
            a, b, c = (float(v) for v in key)
            forms.append((key, a, b, c, (a * a + b * b) ** 0.5))
        lines.setdefault(home, []).extend(same[key])
    return lines


def _place(spot: ScaledPoint, scale: int) -> Point:
    return Point(UNIT * spot[0] / scale, UNIT * spot[1] / scale)


def _merge_line(
    line: LineKey,
    pieces: list[tuple[ScaledPoint, ScaledPoint, int]],
    scale: int,
    reach: float,
    faults: list[Fault],
) -> list[LineStretch]:
    if len(pieces) > 1 and reach:
        return _merge_loose_line(line, pieces, scale, reach, faults)
    pieces.sort(key=lambda piece: piece[:2])
    stretches = []
    low, high, _ = pieces[0]
    for i, (next_low, next_high, index) in enumerate(pieces[1:], 1):
        if next_low > high:
            stretches.append(LineStretch(line, low, high))
            low, high = next_low, next_high
            continue
        if next_low < high:
            culprit = index if index >= 0 else pieces[i - 1][2]
            faults.append(Fault("duplicate", _place(next_low, scale), culprit))
        high = max(high, next_high)
    stretches.append(LineStretch(line, low, high))
    return stretches


def _merge_loose_line(
    line: LineKey,
    pieces: list[tuple[ScaledPoint, ScaledPoint, int]],
    scale: int,
    reach: float,
    faults: list[Fault],
) -> list[LineStretch]:
    """``_merge_line`` of pieces that may lie off the line by a hair: how far along it they reach,
    b·x - a·y, sorts them; what overlaps by no more than ``reach`` only meets."""
    a, b, _ = line
    reach *= float(a * a + b * b) ** 0.5

    def along(spot: ScaledPoint) -> Scaled:
        return b * spot[0] - a * spot[1]

    ends: list[tuple[ScaledPoint, ScaledPoint, int]] = []
    for one, other, index in pieces:
        start, end = sorted((one, other), key=along)
        ends.append((start, end, index))
    ends.sort(key=lambda piece: (along(piece[0]), along(piece[1])))
    stretches = []
    low, high, before = ends[0]
    for next_low, next_high, index in ends[1:]:
        overlap = float(along(high) - along(next_low))
        if overlap <= reach:
            stretches.append(LineStretch(line, low, high))
            low, high = next_low, next_high
        else:
            culprit = index if index >= 0 else before
            faults.append(Fault("duplicate", _place(next_low, scale), culprit))
            high = max(high, next_high, key=along)
        before = index
    stretches.append(LineStretch(line, low, high))
    return stretches


def _merge_circle(
    circle: CircleKey,
    arcs: list[tuple[ScaledPoint, ScaledPoint, int, bool]],
    scale: int,
    reach: float,
    faults: list[Fault],
) -> list[ArcStretch]:
    if len(arcs) == 1:
        ((low, high, _, leaves),) = arcs
        return [ArcStretch(circle, low, high, leaves)]
    if reach:
        arcs = _with_common_ends(arcs, reach)
    h, k, _ = circle

    def later(p: ScaledPoint, q: ScaledPoint) -> int:
        """Is p after q by angle, from the direction of growing x on?"""
        (ux, uy), (vx, vy) = (p[0] - h, p[1] - k), (q[0] - h, q[1] - k)
        halves = [0 if y > 0 or (y == 0 and x > 0) else 1 for x, y in ((ux, uy), (vx, vy))]
        if halves[0] != halves[1]:
            return halves[0] - halves[1]
        turn = ux * vy - uy * vx
        return -1 if turn > 0 else 1 if turn < 0 else 0

    ends = sorted({end for arc in arcs for end in arc[:2]}, key=cmp_to_key(later))
    number = {end: i for i, end in enumerate(ends)}
    covered: dict[int, bool] = {}
    for low, high, index, leaves in arcs:
        i, twice = number[low], None
        while ends[i] != high:
            if i in covered and twice is None:
                twice = i
            covered[i] = covered.get(i, False) or leaves
            i = (i + 1) % len(ends)
        if twice is not None:
            faults.append(Fault("duplicate", _place(ends[twice], scale), index))
    return [
        ArcStretch(circle, ends[i], ends[(i + 1) % len(ends)], leaves)
        for i, leaves in sorted(covered.items())
    ]


def _with_common_ends(
    arcs: Sequence[tuple[ScaledPoint, ScaledPoint, int, bool]], reach: float
) -> list[tuple[ScaledPoint, ScaledPoint, int, bool]]:
    """Arcs with ends that are ``reach`` to one another made the same; an arc no longer than that
    is left out."""
    known: list[tuple[ScaledPoint, float, float]] = []

    def common(spot: ScaledPoint) -> ScaledPoint:
        x, y = float(spot[0]), float(spot[1])
        for end, u, v in known:
            if abs(u - x) <= reach and abs(v - y) <= reach:
                return end
        known.append((spot, x, y))
        return spot

    ends = [(common(low), common(high), index, leaves) for low, high, index, leaves in arcs]
    return [arc for arc in ends if arc[0] != arc[1]]
