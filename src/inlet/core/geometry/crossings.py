"""Which stretches of seam meet, and where: every vertex on each of them, in order.

Floats tell at a glance which pairs of stretches cannot meet and which surely cross; what is near is
decided exactly (``vertices``). Where ends of seams may be located, as long decimals, seams that
touch to within as much meet in one vertex, too.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import pairwise
from math import sqrt
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.cancellation import check
from inlet.core.geometry.point import HAIR
from inlet.core.geometry.stretches import (
    CLOSE,
    ArcStretch,
    CircleKey,
    LineKey,
    LineStretch,
    ScaledPoint,
    Stretch,
)
from inlet.core.geometry.vertices import (
    Key,
    Vertices,
    circle_keys,
    crossing_key,
    floats_of,
    key_of,
    key_over,
    radical_line,
    spot_of,
)

FLAT = 1e-6
"""Sine of the angle below which float crossings are not trusted."""


_PAIRS_AT_ONCE = 30_000

# --- cutting stretches ------------------------------------------------------------------------


def cut_at_crossings(
    stretches: Sequence[Stretch], vertices: Vertices, scale: int, loose: bool
) -> list[list[int]]:
    """For each stretch, its vertices in order: its two ends and every crossing on it. ``loose``
    says that ends may lie at places outside the field, as long decimals: then places ``CLOSE`` to
    one another are one, and seams that touch to within ``CLOSE`` meet in one vertex."""
    reach = CLOSE * scale if loose else 0.0
    meetings = _Meetings(stretches, vertices, reach)
    lines = [k for k, s in enumerate(stretches) if isinstance(s, LineStretch)]
    bows = [k for k, s in enumerate(stretches) if isinstance(s, ArcStretch)]
    low = np.array([[float(x) for x in stretches[k].low] for k in lines])
    high = np.array([[float(x) for x in stretches[k].high] for k in lines])
    for n, (p, q, sure) in enumerate(_line_pairs(low, high, reach)):
        if n % 1000 == 0:
            check()
        meetings.lines(lines[p], lines[q], sure)
    for i, j in _bow_pairs([s for s in stretches if isinstance(s, ArcStretch)], low, high, reach):
        check()
        if j < len(lines):
            meetings.line_and_bow(lines[j], bows[i])
        else:
            meetings.bows(bows[i], bows[j - len(lines)])
    same = vertices.merged(scale) if loose else list(range(len(vertices.keys)))
    places = vertices.floats()
    chains = []
    for s, on in zip(stretches, meetings.on, strict=True):
        crossings = [same[v] for v in on]  # its two ends first
        several = sorted(set(crossings))
        alone = len(several) == len(crossings) == 2
        chains.append(crossings if alone else _in_order(s, several, places, vertices))
    return chains


class _Meetings:
    """The vertices on each stretch, as pairs of stretches are put to the test."""

    def __init__(self, stretches: Sequence[Stretch], vertices: Vertices, reach: float) -> None:
        self.stretches, self.vertices, self.reach = stretches, vertices, reach
        self.rough = [_FloatStretch.of(s) for s in stretches]
        self.on = [[vertices.at(key_of(*s.low)), vertices.at(key_of(*s.high))] for s in stretches]

    def lines(self, i: int, j: int, sure: bool) -> None:
        m, n = self.stretches[i].on, self.stretches[j].on
        if sure:
            self._add(i, j, crossing_key(m, n))
            return
        parallel = m[0] * n[1] == n[0] * m[1]
        self._meet(i, j, [] if parallel else [crossing_key(m, n)])

    def line_and_bow(self, i: int, j: int) -> None:
        line, circle = self.stretches[i].on, self.stretches[j].on
        foot = _touching_line(line, circle, self.reach) if self.reach else None
        self._meet(i, j, [foot] if foot is not None else circle_keys(line, circle))

    def bows(self, i: int, j: int) -> None:
        one, other = self.stretches[i].on, self.stretches[j].on
        shared = radical_line(one, other)
        if shared is None:
            self._meet(i, j, [])
        elif self.reach and _touch(one, other, self.reach):
            self._meet(i, j, [_foot(shared, one)])
        else:
            self._meet(i, j, circle_keys(shared, one))

    def _add(self, i: int, j: int, key: Key) -> None:
        v = self.vertices.at(key)
        self.on[i].append(v)
        self.on[j].append(v)

    def _meet(self, i: int, j: int, keys: list[Key]) -> None:
        """Add those of some places on both curves that lie between the ends of both; and, where
        ends may be located, each end that lies on the other curve to within reach."""
        for key in keys:
            place = floats_of(key)
            sides = [self.rough[k].holds(*place) for k in (i, j)]
            if False not in sides and all(
                side or holds(self.stretches[k], spot_of(key))
                for k, side in zip((i, j), sides, strict=True)
            ):
                self._add(i, j, key)
        if self.reach:
            for k, other in ((i, j), (j, i)):
                stretch, beside = self.rough[k], self.rough[other]
                for v, x, y in zip(self.on[k][:2], stretch[4::2], stretch[5::2], strict=True):
                    if beside.nearly_holds(x, y, self.reach):
                        self.on[other].append(v)


def _touching_line(line: LineKey, circle: CircleKey, reach: float) -> Key | None:
    """Where a line touches a circle to within ``reach``, else None: with n = a² + b² and e as in
    ``circle_keys`` it passes |e|/√n from the centre, and r - |e|/√n = (r²n - e²)/(r√n + |e|)/√n,
    which loses no digits where the two are near."""
    (a, b, c), (h, k, r2) = line, circle
    n, e = a * a + b * b, c - a * h - b * k
    root = float(n) ** 0.5
    gap = float(r2 * n - e * e) / (float(r2) ** 0.5 * root + abs(float(e))) / root
    return _foot(line, circle) if abs(gap) <= reach else None


def _foot(line: LineKey, circle: CircleKey) -> Key:
    """The point of a line nearest to a circle's centre, see ``circle_keys``."""
    (a, b, c), (h, k, _) = line, circle
    n, e = a * a + b * b, c - a * h - b * k
    return key_over(h * n + e * a, k * n + e * b, n)


def _touch(one: CircleKey, other: CircleKey, reach: float) -> bool:
    """Do two circles touch to within ``reach``, from outside or inside?"""
    (h, k, r2), (u, v, s2) = one, other
    r, s = float(r2) ** 0.5, float(s2) ** 0.5
    apart = float((u - h) * (u - h) + (v - k) * (v - k)) ** 0.5
    return bool(abs(apart - (r + s)) <= reach or abs(apart - abs(r - s)) <= reach)


def _line_pairs(
    low: NDArray[np.float64], high: NDArray[np.float64], reach: float
) -> Iterator[tuple[int, int, bool]]:
    """Pairs i < j of straight stretches that may cross, or come within ``reach``, with True where
    they surely cross, well inside both."""
    d = high - low
    length = np.hypot(d[:, 0], d[:, 1])
    number = len(low)
    for first, last in _rows_at_once(number):
        one, rest = slice(first, last), slice(first + 1, None)
        dx, dy, start = d[one, 0, None], d[one, 1, None], low[one, None]
        ex, ey = d[rest].T
        gap = low[None, rest] - start
        sine = dx * ey - dy * ex
        long, longs = length[one, None], length[rest]
        flat = np.abs(sine) < FLAT * long * longs
        safe = np.where(flat, 1.0, sine)
        t = (gap[..., 0] * ey - gap[..., 1] * ex) / safe
        u = (gap[..., 0] * dy - gap[..., 1] * dx) / safe
        nearest = np.minimum(np.minimum(t, 1 - t), np.minimum(u, 1 - u))
        # An end ``reach`` from a line is up to reach/sine from where the lines cross.
        hair = HAIR + reach * np.maximum(long, longs) / np.abs(safe) if reach else HAIR
        maybe, sure = nearest > -hair, ~flat & (nearest > hair)
        # Nearly parallel: only those that do not lie clearly on one side of this one.
        sides = [dx * to[..., 1] - dy * to[..., 0] for to in (gap, high[None, rest] - start)]
        room = long * (reach + HAIR * (long + np.abs(gap).sum(axis=2)))
        beside = (np.minimum(*sides) < room) & (np.maximum(*sides) > -room)
        rows, columns = np.nonzero(np.triu(np.where(flat, beside, maybe)))
        pairs = rows + first, columns + first + 1, sure[rows, columns]
        yield from zip(*(each.tolist() for each in pairs), strict=True)


def _rows_at_once(number: int) -> Iterator[tuple[int, int]]:
    """Rows of a square table to work out together: few calls, little memory."""
    step = max(1, _PAIRS_AT_ONCE // max(1, number))
    for first in range(0, number, step):
        yield first, min(first + step, number)


def _bow_pairs(
    bows: Sequence[ArcStretch], low: NDArray[np.float64], high: NDArray[np.float64], reach: float
) -> Iterator[tuple[int, int]]:
    """Pairs of an arc and another stretch whose boxes meet and whose curves come near: (i, j) for
    line j, or (i, lines + j) for a later arc."""
    if not bows:
        return
    centre = np.array([[float(x) for x in b.on[:2]] for b in bows])
    r = np.sqrt(np.array([float(b.on[2]) for b in bows]))
    ends = np.array([[[float(x) for x in b.low], [float(x) for x in b.high]] for b in bows])
    # The box of an arc's ends and of the point where the tangents there meet holds the arc.
    middle = ends.mean(axis=1) - centre
    squared = np.einsum("ij,ij->i", middle, middle)
    tip = centre + middle * (r**2 / np.maximum(squared, 1e-12 * r**2))[:, None]
    corners = np.concatenate([ends, tip[:, None, :]], axis=1)
    margin = (HAIR * r + reach)[:, None]
    left, right = corners.min(axis=1) - margin, corners.max(axis=1) + margin
    line_low, line_high = np.minimum(low, high), np.maximum(low, high)
    step = high - low
    length = np.hypot(step[:, 0], step[:, 1])
    for i in range(len(bows)):
        near = (line_low <= right[i]).all(axis=1) & (line_high >= left[i]).all(axis=1)
        gap = centre[i] - low
        far = np.abs(step[:, 0] * gap[:, 1] - step[:, 1] * gap[:, 0]) / length
        for j in np.flatnonzero(near & (far <= r[i] * (1 + HAIR) + reach)).tolist():
            yield i, j
        rest = slice(i + 1, None)
        near = (left[rest] <= right[i]).all(axis=1) & (right[rest] >= left[i]).all(axis=1)
        apart = np.hypot(*(centre[rest] - centre[i]).T)
        near &= (apart <= (r[i] + r[rest]) * (1 + HAIR) + reach) & (
            apart >= np.abs(r[i] - r[rest]) * (1 - HAIR) - reach
        )
        for j in np.flatnonzero(near).tolist():
            yield i, len(low) + i + 1 + j


class _FloatStretch(NamedTuple):
    """A stretch in floats, to tell at a glance whether a point of its line is between its ends.
    ``h``, ``k`` and ``r`` are the centre and radius of an arc, not used by a straight one."""

    bow: bool
    h: float
    k: float
    r: float
    px: float
    py: float
    qx: float
    qy: float

    @classmethod
    def of(cls, s: Stretch) -> _FloatStretch:
        bow = isinstance(s, ArcStretch)
        h, k, r2 = (float(v) for v in s.on) if bow else (0.0, 0.0, 0.0)
        return cls(bow, h, k, sqrt(r2), *(float(x) for p in (s.low, s.high) for x in p))

    def holds(self, x: float, y: float) -> bool | None:
        """True inside, False outside, None within a hair of an end."""
        if not self.bow:
            dx, dy = self.qx - self.px, self.qy - self.py
            whole = dx * dx + dy * dy
            along = (x - self.px) * dx + (y - self.py) * dy
            low, high, hair = along, whole - along, HAIR * whole
        else:
            ux, uy, vx, vy = self.px - self.h, self.py - self.k, self.qx - self.h, self.qy - self.k
            x, y = x - self.h, y - self.k
            low, high = ux * y - uy * x, x * vy - y * vx
            hair = HAIR * (ux * ux + uy * uy)
        if low < -hair or high < -hair:
            return False
        return True if low > hair and high > hair else None

    def nearly_holds(self, x: float, y: float, reach: float) -> bool:
        """Does a place lie within ``reach`` of the stretch, between its ends?"""
        if not self.bow:
            dx, dy, u, v = self.qx - self.px, self.qy - self.py, x - self.px, y - self.py
            square = dx * dx + dy * dy
            return abs(dx * v - dy * u) <= reach * sqrt(square) and 0 < u * dx + v * dy < square
        u, v = x - self.h, y - self.k
        if abs(sqrt(u * u + v * v) - self.r) > reach:
            return False
        ax, ay, bx, by = self.px - self.h, self.py - self.k, self.qx - self.h, self.qy - self.k
        # Between its ends, and on its side of the circle.
        return ax * v - ay * u > 0 and u * by - v * bx > 0 and (ax + bx) * u + (ay + by) * v > 0


def holds(s: Stretch, spot: ScaledPoint) -> bool:
    """Is a point of the stretch's own line or circle between its ends (ends included)?"""
    if isinstance(s, LineStretch):
        axis = 0 if s.low[0] != s.high[0] else 1
        return bool(s.low[axis] <= spot[axis] <= s.high[axis])
    h, k, _ = s.on
    ux, uy, vx, vy = s.low[0] - h, s.low[1] - k, s.high[0] - h, s.high[1] - k
    x, y = spot[0] - h, spot[1] - k
    return bool(ux * y - uy * x >= 0 and x * vy - y * vx >= 0 and (ux + vx) * x + (uy + vy) * y > 0)


def _in_order(
    s: Stretch, chain: list[int], places: NDArray[np.float64], vertices: Vertices
) -> list[int]:
    """A stretch's vertices from low to high: by floats where they are well apart."""
    if isinstance(s, ArcStretch):
        return _round_in_order(s, chain, places, vertices)
    axis = 0 if abs(s.high[0] - s.low[0]) >= abs(s.high[1] - s.low[1]) else 1
    backward = s.low[axis] > s.high[axis]
    ordered = sorted(zip(places[chain, axis].tolist(), chain, strict=True), reverse=backward)
    hair = HAIR * (1 + max(abs(ordered[0][0]), abs(ordered[-1][0])))
    if any(abs(one - other) < hair for (one, _), (other, _) in pairwise(ordered)):
        return sorted(chain, key=lambda v: vertices.spot(v)[axis], reverse=backward)
    return [v for _, v in ordered]


def _round_in_order(
    s: ArcStretch, found: list[int], places: NDArray[np.float64], vertices: Vertices
) -> list[int]:
    h, k = float(s.on[0]), float(s.on[1])
    x, y = places[found, 0] - h, places[found, 1] - k
    ux, uy = float(s.low[0]) - h, float(s.low[1]) - k
    at = np.arctan2(ux * y - uy * x, ux * x + uy * y)
    order = np.argsort(at, kind="stable")
    chain = [found[k] for k in order.tolist()]
    steps = np.diff(at[order])
    if len(steps) and steps.min() < HAIR:
        # Too near for floats: bubble neighbours right by the exact turn from one to the next.
        spots = {v: vertices.spot(v) for v in chain}
        centre_x, centre_y, _ = s.on
        for _ in chain:
            for i, (u, v) in enumerate(pairwise(chain)):
                (ax, ay), (bx, by) = spots[u], spots[v]
                to, onward = (ax - centre_x, ay - centre_y), (bx - centre_x, by - centre_y)
                if to[0] * onward[1] - to[1] * onward[0] < 0:
                    chain[i], chain[i + 1] = v, u
    return chain
