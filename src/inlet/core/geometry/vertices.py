"""What tells vertices apart, exactly.

Two lines meet in a point of the field Q(√2). A circle and a line, or two circles, may not. But a
point outside the field lies on exactly one line of the field (the line to its conjugate, the other
root of the same equation), so it is known exactly by that line, the middle of the two roots, the
square of half their distance, and which root it is. Any two circles through it, or a circle and a
line, give the same four: no distance decides whether two crossings are one.

Only ends of seams that were drawn to such a place (and so hold it as a long decimal) are matched by
distance, see ``Vertices.merged``.
"""

from __future__ import annotations

from math import gcd, isqrt, lcm, sqrt

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.curve import Circle
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Line
from inlet.core.geometry.stretches import (
    CLOSE,
    UNIT,
    CircleKey,
    LineKey,
    Scaled,
    ScaledPoint,
    line_form,
)
from inlet.core.numbers import Exact, Fraction, Root2, floor_exact, sqrt_exact

LOCATED = 10**12
"""Points outside the field are given to this fraction of a grid unit."""
LONGEST_ROOT = 10**7
"""An a + b√2 of larger integers than this is no construction's: it is located, too."""
Whole = tuple[int, int, int]
InField = tuple[Scaled, Scaled]
Outside = tuple[LineKey, tuple[Scaled, Scaled, Scaled], tuple[Scaled, Scaled], int]
Key = Whole | InField | Outside
"""What tells a point apart, see ``Vertices``."""


class Vertices:
    """Points told apart exactly, each with a float position for sorting.

    A key is (x, y, w) in integers without common factor for the point (x/w, y/w); (x, y) in
    Q(√2); or four entries for a point outside the field, see above: the line, (x, y, n) for the
    middle (x/n, y/n) of the two roots, (r, n) for the square r/n of half their distance (in units
    of the line's normal), and which root it is.
    """

    def __init__(self) -> None:
        self._index: dict[Key, int] = {}
        self.keys: list[Key] = []

    def at(self, key: Key) -> int:
        vertex = self._index.get(key)
        if vertex is None:
            vertex = self._index[key] = len(self.keys)
            self.keys.append(key)
        return vertex

    def spot(self, vertex: int) -> ScaledPoint:
        """The point in scaled coordinates: exact, or outside the field to 30 places."""
        return spot_of(self.keys[vertex])

    def floats(self) -> NDArray[np.float64]:
        return np.array([floats_of(k) for k in self.keys])

    def points(self, scale: int) -> tuple[Point, ...]:
        return tuple(point_of(k, scale) for k in self.keys)

    def merged(self, scale: int) -> list[int]:
        """For each vertex the one it is taken for: of all that are ``CLOSE`` to one another, in a
        chain, the one whose numbers are shortest, as it is the place that was meant."""
        places = self.floats()
        reach = CLOSE * scale
        order = np.lexsort((places[:, 1], places[:, 0])).tolist()
        same = list(range(len(self.keys)))

        def root(i: int) -> int:
            while same[i] != i:
                same[i] = same[same[i]]
                i = same[i]
            return i

        near: list[int] = []
        for n, i in enumerate(order):
            x, y = places[i]
            for j in order[n + 1 :]:
                if places[j, 0] - x > reach:
                    break
                if abs(places[j, 1] - y) <= reach:
                    near.append(i)
                    same[root(j)] = root(i)
        if not near:
            return same
        groups: dict[int, list[int]] = {}
        for i in range(len(same)):
            groups.setdefault(root(i), []).append(i)
        for group in groups.values():
            if len(group) > 1:
                best = min(group, key=lambda i: (_digits(self.keys[i], scale), i))
                for i in group:
                    same[i] = best
        return same


def key_of(x: Scaled, y: Scaled) -> Key:
    """The key of a point of the field."""
    if isinstance(x, int) and isinstance(y, int):
        return (x, y, 1)
    if isinstance(x, Root2) or isinstance(y, Root2):
        return (UNIT * x, UNIT * y)
    x, y = Fraction(x), Fraction(y)
    w = lcm(x.denominator, y.denominator)
    return (int(x * w), int(y * w), w)


def key_over(x: Scaled, y: Scaled, w: Scaled) -> Key:
    """The key of the point (x/w, y/w)."""
    if isinstance(w, int) and isinstance(x, int) and isinstance(y, int):
        g = gcd(x, y, w)
        if w < 0:
            g = -g
        return (x // g, y // g, w // g)
    return key_of(UNIT * x / w, UNIT * y / w)


def crossing_key(m: LineKey, n: LineKey) -> Key:
    """Where two lines that are not parallel meet."""
    a, b, c = m
    d, e, f = n
    det, x, y = a * e - d * b, c * e - f * b, a * f - d * c
    return key_over(x, y, det)


def circle_keys(line: LineKey, circle: CircleKey) -> list[Key]:
    """Where a line meets a circle: no key, one (they touch) or two.

    With e = c - a·h - b·k the foot of the centre on the line is (h, k) + (a, b)·e/n, n = a² + b²,
    and the points are (b, -a)·√(r²n - e²)/n either way from it.
    """
    (a, b, c), (h, k, r2) = line, circle
    n, e = a * a + b * b, c - a * h - b * k
    room = r2 * n - e * e
    if room < 0:
        return []
    x, y = h * n + e * a, k * n + e * b
    root = _root(room)
    if root is None:
        middle, (half, over) = _shortest(x, y, n), _shortest(room, n)
        return [(line, (middle[0], middle[1], middle[2]), (half, over), s) for s in (-1, 1)]
    return [
        key_over(x + sign * b * root, y - sign * a * root, n)
        for sign in ((-1, 1) if root else (1,))
    ]


def _shortest(*parts: Scaled) -> tuple[Scaled, ...]:
    """Some numbers over the last one, the same for every way to write them."""
    whole = [p for p in parts if isinstance(p, int)]
    if len(whole) == len(parts):
        g = gcd(*whole)
        return tuple(p // g for p in whole)
    return (*(UNIT * p / parts[-1] for p in parts[:-1]), 1)


def _root(x: Scaled) -> Scaled | None:
    """√x in the field, else None."""
    if isinstance(x, int):
        root = isqrt(x)
        if root * root == x:
            return root
        if x % 2 == 0 and isqrt(x // 2) ** 2 * 2 == x:
            return Root2.of(0, isqrt(x // 2))
        return None
    return sqrt_exact(x)


def radical_line(m: CircleKey, n: CircleKey) -> LineKey | None:
    """The line through the crossings of two circles, from the difference of their equations; None
    where they share a centre."""
    (h, k, r), (u, v, s) = m, n
    if h == u and k == v:
        return None
    a, b = 2 * (u - h), 2 * (v - k)
    return line_form(a, b, r - s + u * u + v * v - h * h - k * k)


def spot_of(key: Key) -> ScaledPoint:
    """A vertex key as scaled coordinates: exact, or outside the field to 30 places."""
    if len(key) == 3:
        x, y, w = key
        return (x, y) if w == 1 else (Fraction(x, w), Fraction(y, w))
    return key if len(key) == 2 else _to_30_places(key)


def _to_30_places(key: Outside) -> tuple[Fraction, Fraction]:
    (a, b, _), (x, y, n), (r, m), sign = key
    # M ± (b, -a)·√(r/m / (a² + b²)), the root to 30 places; a√2 in a form to as many.
    square = UNIT * r / (m * (a * a + b * b))
    k = sign * isqrt(floor_exact(square * (_ROOT * _ROOT)))
    root = Fraction(k, _ROOT)
    return (
        _rational(UNIT * x / n) + root * _rational(b),
        _rational(UNIT * y / n) - root * _rational(a),
    )


_ROOT = 10**30


def _rational(x: Scaled) -> Fraction:
    if isinstance(x, Root2):
        return Fraction(floor_exact(x * _ROOT), _ROOT)
    return Fraction(x)


def _digits(key: Key, scale: int) -> int:
    """How long the numbers of a place are in grid units; places outside the field come last."""
    if len(key) == 4:
        return 10**9
    return sum(
        (c.d if isinstance(c, Root2) else c.denominator).bit_length() for c in point_of(key, scale)
    )


def floats_of(key: Key) -> tuple[float, float]:
    if len(key) == 3:
        return key[0] / key[2], key[1] / key[2]
    if len(key) == 2:
        return float(key[0]), float(key[1])
    (a, b, _), (x, y, n), (r, m), sign = key
    dx, dy = float(b), -float(a)
    k = sign * sqrt(float(r) / float(m) / (dx * dx + dy * dy))
    return float(x) / float(n) + k * dx, float(y) / float(n) + k * dy


def point_of(key: Key, scale: int) -> Point:
    if len(key) == 3:
        return Point(Fraction(key[0], key[2] * scale), Fraction(key[1], key[2] * scale))
    if len(key) == 2:
        return Point(UNIT * key[0] / scale, UNIT * key[1] / scale)
    x, y = (v * LOCATED / scale for v in _to_30_places(key))
    return Point(Fraction(round(x), LOCATED), Fraction(round(y), LOCATED))


def short_point(p: Point) -> Point:
    """A point as a seam may keep it: itself, or, where its exact numbers are longer than any
    construction's, to 12 decimals, like a point outside the field."""
    return Point(_shortened(p.x), _shortened(p.y))


def _shortened(x: Exact) -> Exact:
    if isinstance(x, Root2):
        long = max(abs(x.p), abs(x.q), x.d) > LONGEST_ROOT
        return Fraction(round(float(x) * LOCATED), LOCATED) if long else x
    return Fraction(round(x * LOCATED), LOCATED) if x.denominator > LOCATED else x


def line_meets_circle(line: Line, circle: Circle) -> list[Point]:
    """Where a line meets a circle: exact points where the field holds them, else located."""
    (h, k), r2 = circle
    form = line_form(line.a, line.b, line.c)
    return [point_of(key, 1) for key in circle_keys(form, (h, k, r2))]
