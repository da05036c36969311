"""The exact planar arrangement: from seams drawn in a rectangle to the patches between them.

Where it spends its time is decided by floats, what it decides is decided exactly. NumPy finds which
pairs of seams may cross; a pair that crosses well inside both needs no more than the exact point;
only pairs that meet within a hair of an end are put to exact predicates. Points are told apart by
exact homogeneous keys, never by distance.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property, cmp_to_key
from itertools import pairwise
from math import gcd, lcm
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Line, area, contains
from inlet.core.numbers import Exact, Root2

Segment = tuple[Point, Point]
_UNIT = Fraction(1)
"""Times an int or Root2, an ``Exact``."""


class Fault(NamedTuple):
    """Something in the drawing that makes no patch border.

    ``kind`` is ``outside`` (part of the seam leaves the block), ``duplicate`` (the seam lies on
    another, or on the block's edge), ``stops`` (a seam ends inside a patch) or ``island`` (seams
    that close a shape but touch nothing else). ``seam`` is the index of the seam drawn, or -1.
    """

    kind: str
    point: Point
    seam: int


class Edge(NamedTuple):
    """A piece of seam (or of the block's edge) between two vertices that nothing interrupts.

    ``start`` and ``end`` index ``Arrangement.points``; going that way, face ``right`` is on the
    right hand on screen and ``left`` on the left; -1 is outside the block. ``line`` indexes
    ``Arrangement.lines``: edges of one straight line share it.
    """

    start: int
    end: int
    line: int
    right: int
    left: int


class Face(NamedTuple):
    """A patch: ``ring`` are the vertices met going round it clockwise on screen, T junctions in
    mid-side included; ``corners`` leaves those out. ``holes`` are rings of islands inside it."""

    ring: tuple[int, ...]
    corners: tuple[int, ...]
    holes: tuple[tuple[int, ...], ...]


@dataclass(frozen=True, eq=False)
class Arrangement:
    """Everything known about a drawing's faces, in the units of the drawing."""

    points: tuple[Point, ...]
    lines: tuple[Line, ...]
    edges: tuple[Edge, ...]
    faces: tuple[Face, ...]
    faults: tuple[Fault, ...]

    @cached_property
    def places(self) -> tuple[tuple[float, float], ...]:
        """The points as floats."""
        return tuple(p.floats() for p in self.points)

    @cached_property
    def boxes(self) -> NDArray[np.float64]:
        """(faces, 4): left, top, right, bottom of each face."""
        corners = [np.array([self.places[v] for v in face.corners]) for face in self.faces]
        return np.array([(*c.min(axis=0), *c.max(axis=0)) for c in corners])

    def locate(self, point: Point) -> int | None:
        """The face strictly around a point; None on a seam or outside. Boxes are compared as
        floats; only a face whose box holds the point is asked exactly."""
        x, y = point.floats()
        boxes = self.boxes
        near = (boxes[:, 0] <= x + _HAIR) & (boxes[:, 2] >= x - _HAIR)
        near &= (boxes[:, 1] <= y + _HAIR) & (boxes[:, 3] >= y - _HAIR)
        around = (f for f in np.flatnonzero(near).tolist() if self._holds(f, point))
        return next(around, None)

    def _holds(self, face: int, point: Point) -> bool:
        rings = (self.faces[face].corners, *self.faces[face].holes)
        sides = [
            contains([self.points[v] for v in ring], point, [self.places[v] for v in ring])
            for ring in rings
        ]
        return sides[0] > 0 and all(side < 0 for side in sides[1:])

    def outline(self, face: int) -> tuple[Point, ...]:
        """The corners of a face, clockwise on screen."""
        return tuple(self.points[i] for i in self.faces[face].corners)


def arrange(width: Exact, height: Exact, seams: Sequence[Segment]) -> Arrangement:
    """The arrangement of straight ``seams`` in the rectangle from (0, 0) to (width, height).

    Seams may overlap, cross, run outside (what is outside is left out) or stop anywhere (what
    borders no two faces is left out); each such thing is a ``Fault``. Points are in the seams'
    units. The faces tile the rectangle exactly, apart from holes, which other faces fill.
    """
    zero: Exact = Fraction(0)
    box = (Point(zero, zero), Point(width, zero), Point(width, height), Point(zero, height))
    faults: list[Fault] = []
    inside: list[tuple[Segment, int]] = []
    for index, seam in enumerate(seams):
        kept = _within(seam, width, height)
        if kept != seam:
            beyond = seam[1] if kept and kept[0] == seam[0] else seam[0]
            faults.append(Fault("outside", beyond, index))
        if kept and kept[0] != kept[1]:
            inside.append((kept, index))
    border = [((box[i - 1], box[i]), -1) for i in range(4)]
    scale = _common_denominator(p for (segment, _) in border + inside for p in segment)

    stretches = _merge(border + inside, scale, faults)
    vertices = _Vertices()
    chains = _cut_at_crossings(stretches, vertices)
    raw_edges = [
        (u, v, stretches[s].line) for s, chain in enumerate(chains) for u, v in pairwise(chain)
    ]
    lines, line_of = _index_lines(raw_edges)
    ends = np.array([(u, v) for u, v, _ in raw_edges], dtype=np.int64)
    ranks = _direction_ranks(lines)[line_of]

    next_half, label = _trace(ends, ranks)
    bridge = label[0::2] == label[1::2]
    points = vertices.points(scale)
    if bridge.any():
        degree = np.bincount(ends.ravel(), minlength=len(points))
        faults += [
            Fault("stops", points[v], -1)
            for v in sorted(set(ends[bridge].ravel().tolist()))
            if degree[v] == 1
        ]
        ends, line_of, ranks = ends[~bridge], line_of[~bridge], ranks[~bridge]
        next_half, label = _trace(ends, ranks)
    exact_lines = tuple(Line(_UNIT * a, _UNIT * b, _UNIT * c / scale) for a, b, c in lines)
    return _faces(points, vertices, exact_lines, ends, line_of, next_half, label, faults)


# --- seams to stretches -----------------------------------------------------------------------


def _within(seam: Segment, width: Exact, height: Exact) -> Segment | None:
    """The part of a seam in the rectangle, None if no part is; both ends kept where inside."""
    p, q = seam
    if 0 <= p.x <= width and 0 <= q.x <= width and 0 <= p.y <= height and 0 <= q.y <= height:
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
    return start, end


def _common_denominator(points: Iterable[Point]) -> int:
    """The factor that makes every coordinate an integer, or integers a + b√2."""
    return lcm(*{
        x.d if isinstance(x, Root2) else x.denominator for p in points for x in p
    })  # fmt: skip


# Scaled coordinates: int where rational, else a Root2 (whose d is then 1). Both kinds mix freely.
Scaled = Any
LineKey = tuple[Scaled, Scaled, Scaled]


class _Stretch(NamedTuple):
    """A straight stretch of seam, overlaps merged, from ``low`` to ``high`` (by x, then y)."""

    line: LineKey
    low: tuple[Scaled, Scaled]
    high: tuple[Scaled, Scaled]


def _scaled(p: Point, scale: int) -> tuple[Scaled, Scaled]:
    x, y = p.x * scale, p.y * scale
    return (
        x if isinstance(x, Root2) else x.numerator,
        y if isinstance(y, Root2) else y.numerator,
    )


def _line_key(p: tuple[Scaled, Scaled], q: tuple[Scaled, Scaled]) -> LineKey:
    """The line through two points as (a, b, c) with a·x + b·y = c, the same for any two points of
    it: integers without common factor where the line is rational, else led by 1; going from the
    smaller point to the larger, (b, -a) points forward."""
    a, b = p[1] - q[1], q[0] - p[0]
    c = a * p[0] + b * p[1]
    if isinstance(a, Root2) or isinstance(b, Root2) or isinstance(c, Root2):
        lead = b if b != 0 else -a
        parts = [_UNIT * x / lead for x in (a, b, c)]
        if any(isinstance(x, Root2) for x in parts):
            return (parts[0], parts[1], parts[2])
        factor = lcm(*(x.denominator for x in parts))
        a, b, c = (int(x * factor) for x in parts)
    if isinstance(a, Fraction) or isinstance(b, Fraction) or isinstance(c, Fraction):
        a, b, c = int(a), int(b), int(c)
    g = gcd(a, b, c)
    if b < 0 or (b == 0 and a > 0):
        g = -g
    return (a // g, b // g, c // g)


def _merge(
    segments: Sequence[tuple[Segment, int]], scale: int, faults: list[Fault]
) -> list[_Stretch]:
    """One stretch for each connected straight piece; overlaps become ``duplicate`` faults."""
    on_line: dict[LineKey, list[tuple[Any, Any, int]]] = {}
    for (p, q), index in segments:
        low, high = sorted((_scaled(p, scale), _scaled(q, scale)))
        on_line.setdefault(_line_key(low, high), []).append((low, high, index))
    stretches = []
    for line, pieces in on_line.items():
        pieces.sort(key=lambda piece: piece[:2])
        low, high, _ = pieces[0]
        for i, (next_low, next_high, index) in enumerate(pieces[1:], 1):
            if next_low > high:
                stretches.append(_Stretch(line, low, high))
                low, high = next_low, next_high
                continue
            if next_low < high:
                culprit = index if index >= 0 else pieces[i - 1][2]
                middle = Point(_UNIT * next_low[0] / scale, _UNIT * next_low[1] / scale)
                faults.append(Fault("duplicate", middle, culprit))
            high = max(high, next_high)
        stretches.append(_Stretch(line, low, high))
    return stretches


# --- crossings --------------------------------------------------------------------------------


class _Vertices:
    """Points told apart exactly, each with a float position for sorting."""

    def __init__(self) -> None:
        self._index: dict[tuple[Any, ...], int] = {}
        self._keys: list[tuple[Any, ...]] = []

    def at(self, key: tuple[Any, ...]) -> int:
        found = self._index.get(key)
        if found is None:
            found = self._index[key] = len(self._keys)
            self._keys.append(key)
        return found

    def floats(self) -> NDArray[np.float64]:
        return np.array(
            [
                (k[0] / k[2], k[1] / k[2]) if len(k) == 3 else (float(k[0]), float(k[1]))
                for k in self._keys
            ]
        )

    def points(self, scale: int) -> tuple[Point, ...]:
        return tuple(
            Point(Fraction(k[0], k[2] * scale), Fraction(k[1], k[2] * scale))
            if len(k) == 3
            else Point(k[0] / scale, k[1] / scale)
            for k in self._keys
        )


def _end_key(p: tuple[Scaled, Scaled]) -> tuple[Any, ...]:
    x, y = p
    if isinstance(x, int) and isinstance(y, int):
        return (x, y, 1)
    return (_UNIT * x, _UNIT * y)


def _crossing_key(m: LineKey, n: LineKey) -> tuple[Any, ...]:
    """Where two lines that are not parallel meet: (x, y, w) for the point (x/w, y/w) in integers
    without common factor and w > 0, or (x, y) in Q(√2) when a coordinate is irrational."""
    a, b, c = m
    d, e, f = n
    det, x, y = a * e - d * b, c * e - f * b, a * f - d * c
    if isinstance(det, int) and isinstance(x, int) and isinstance(y, int):
        g = gcd(x, y, det)
        if det < 0:
            g = -g
        return (x // g, y // g, det // g)
    px, py = _UNIT * x / det, _UNIT * y / det
    if isinstance(px, Fraction) and isinstance(py, Fraction):
        w = lcm(px.denominator, py.denominator)
        return (int(px * w), int(py * w), w)
    return (px, py)


_HAIR = 1e-9
"""Of a stretch's length: crossings this near to an end are decided exactly."""
_FLAT = 1e-6
"""Sine of the angle below which float crossings are not trusted."""


def _cut_at_crossings(stretches: Sequence[_Stretch], vertices: _Vertices) -> list[list[int]]:
    """For each stretch, its vertices in order: its two ends and every crossing on it."""
    low = np.array([[float(x) for x in s.low] for s in stretches])
    high = np.array([[float(x) for x in s.high] for s in stretches])
    on: list[list[int]] = [
        [vertices.at(_end_key(s.low)), vertices.at(_end_key(s.high))] for s in stretches
    ]
    for i, j, sure in _candidates(low, high):
        m, n = stretches[i], stretches[j]
        if not sure:
            if m.line[0] * n.line[1] == n.line[0] * m.line[1]:
                continue
            key = _crossing_key(m.line, n.line)
            if not (_spans(m, key) and _spans(n, key)):
                continue
        else:
            key = _crossing_key(m.line, n.line)
        v = vertices.at(key)
        on[i].append(v)
        on[j].append(v)
    places = vertices.floats()
    return [_in_order(s, on[k], places, vertices) for k, s in enumerate(stretches)]


def _candidates(
    low: NDArray[np.float64], high: NDArray[np.float64]
) -> Iterable[tuple[int, int, bool]]:
    """Pairs i < j that may cross, with True where they surely do, well inside both."""
    d = high - low
    length = np.hypot(d[:, 0], d[:, 1])
    for i in range(len(low) - 1):
        rest = slice(i + 1, None)
        sine = d[i, 0] * d[rest, 1] - d[i, 1] * d[rest, 0]
        gap = low[rest] - low[i]
        flat = np.abs(sine) < _FLAT * length[i] * length[rest]
        safe = np.where(flat, 1.0, sine)
        t = (gap[:, 0] * d[rest, 1] - gap[:, 1] * d[rest, 0]) / safe
        u = (gap[:, 0] * d[i, 1] - gap[:, 1] * d[i, 0]) / safe
        nearest = np.minimum(np.minimum(t, 1 - t), np.minimum(u, 1 - u))
        for k in np.flatnonzero(flat | (nearest > -_HAIR)).tolist():
            yield i, i + 1 + k, bool(not flat[k] and nearest[k] > _HAIR)


def _spans(s: _Stretch, key: tuple[Any, ...]) -> bool:
    """Is a point of the stretch's line between its ends (ends included)?"""
    axis = 0 if s.low[0] != s.high[0] else 1
    w = key[2] if len(key) == 3 else 1
    return bool(s.low[axis] * w <= key[axis] <= s.high[axis] * w)


def _in_order(
    s: _Stretch, on: list[int], places: NDArray[np.float64], vertices: _Vertices
) -> list[int]:
    """A stretch's vertices from low to high, each once: by floats where they are well apart."""
    found = np.unique(np.array(on))
    axis = 0 if abs(s.high[0] - s.low[0]) >= abs(s.high[1] - s.low[1]) else 1
    at = places[found, axis]
    order = np.argsort(at if s.low[axis] <= s.high[axis] else -at)
    steps = np.abs(np.diff(at[order]))
    if len(steps) and steps.min() < _HAIR * (1 + np.abs(at).max()):
        points = vertices.points(1)
        backward = s.low[axis] > s.high[axis]
        return sorted(found.tolist(), key=lambda v: points[v][axis], reverse=backward)
    return [int(v) for v in found[order]]


# --- faces ------------------------------------------------------------------------------------


def _index_lines(
    raw_edges: Sequence[tuple[int, int, LineKey]],
) -> tuple[list[LineKey], NDArray[np.int64]]:
    number: dict[LineKey, int] = {}
    line_of = [number.setdefault(line, len(number)) for _, _, line in raw_edges]
    return list(number), np.array(line_of, dtype=np.int64)


def _direction_ranks(lines: Sequence[LineKey]) -> NDArray[np.int64]:
    """For each line, its place among all directions by angle, equal for parallels. Forward
    directions (b, -a) all lie in one half turn, so one cross product compares two exactly."""

    def later(i: int, j: int) -> int:
        return _turns(lines[j], lines[i]) - _turns(lines[i], lines[j])

    order = sorted(range(len(lines)), key=cmp_to_key(later))
    ranks = np.zeros(len(lines), dtype=np.int64)
    rank = 0
    for before, now in pairwise(order):
        rank += bool(_turns(lines[before], lines[now]))
        ranks[now] = rank
    return ranks


def _turns(m: LineKey, n: LineKey) -> bool:
    """Does direction n come after m by angle? (b, -a) × (e, -d) = -b·d + a·e."""
    return bool(m[0] * n[1] - m[1] * n[0] > 0)


def _trace(
    ends: NDArray[np.int64], ranks: NDArray[np.int64]
) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Next half-edge round each face, and a label a cycle. Half-edge 2k runs along edge k, 2k+1
    against it; the face is on the right hand on screen."""
    count = len(ends) * 2
    origin = ends.reshape(-1)
    turn = int(ranks.max()) + 1
    angle = np.empty(count, dtype=np.int64)
    angle[0::2], angle[1::2] = ranks, ranks + turn
    order = np.lexsort((angle, origin))
    sorted_origin = origin[order]
    first = np.r_[True, sorted_origin[1:] != sorted_origin[:-1]]
    starts = np.flatnonzero(first)
    sizes = np.diff(np.r_[starts, count])
    before = np.arange(count) - 1
    before[starts] = starts + sizes - 1
    previous = np.empty(count, dtype=np.int64)  # the half-edge before each, round its origin
    previous[order] = order[before]
    next_half = previous[np.arange(count) ^ 1]

    following = next_half.tolist()
    label = [-1] * count
    cycles = 0
    for h in range(count):
        if label[h] < 0:
            while label[h] < 0:
                label[h] = cycles
                h = following[h]
            cycles += 1
    return next_half, np.array(label, dtype=np.int64)


def _faces(
    points: tuple[Point, ...],
    vertices: _Vertices,
    lines: tuple[Line, ...],
    ends: NDArray[np.int64],
    line_of: NDArray[np.int64],
    next_half: NDArray[np.int64],
    label: NDArray[np.int64],
    faults: list[Fault],
) -> Arrangement:
    """Cycles to faces with holes, in reading order; edges with a face on either hand."""
    origin = ends.reshape(-1).tolist()
    half_line = np.repeat(line_of, 2).tolist()
    following = next_half.tolist()
    count = int(label.max()) + 1
    _, first_half = np.unique(label, return_index=True)
    rings, corner_rings = [], []
    for start in first_half.tolist():
        ring, corners, h = [], [], int(start)
        while True:
            ring.append(origin[h])
            n = following[h]
            if half_line[n] != half_line[h]:
                corners.append(origin[n])
            h = n
            if h == start:
                break
        rings.append(tuple(ring))
        corner_rings.append(tuple(corners))

    places = vertices.floats()
    signed = _float_areas(places, ends, label, count)
    doubtful = np.abs(signed) < _HAIR * np.abs(signed).max()
    positive = signed > 0
    for cycle in np.flatnonzero(doubtful).tolist():
        positive[cycle] = area([points[v] for v in rings[cycle]]) > 0
    outer = np.flatnonzero(positive).tolist()
    tops = [min(places[v, 1] for v in rings[c]) for c in outer]
    lefts = [min(places[v, 0] for v in rings[c]) for c in outer]
    outer = [
        c for _, _, c in sorted(zip(np.round(tops, 6), np.round(lefts, 6), outer, strict=True))
    ]
    holes: dict[int, list[tuple[int, ...]]] = {}
    face_of = {cycle: i for i, cycle in enumerate(outer)}
    negative = np.flatnonzero(~positive).tolist()
    outside = max(negative, key=lambda c: -signed[c])  # the block's own edge, seen from without
    face_of[outside] = -1
    for cycle in negative:
        if cycle == outside:
            continue
        home = _around(points, rings, corner_rings, outer, rings[cycle][0], signed)
        holes.setdefault(home, []).append(corner_rings[cycle])
        face_of[cycle] = face_of[home]
        faults.append(Fault("island", min(points[v] for v in rings[cycle]), -1))
    faces = tuple(Face(rings[c], corner_rings[c], tuple(sorted(holes.get(c, ())))) for c in outer)
    labels = label.tolist()
    edges = tuple(
        Edge(u, v, line, face_of[labels[2 * k]], face_of[labels[2 * k + 1]])
        for k, ((u, v), line) in enumerate(zip(ends.tolist(), line_of.tolist(), strict=True))
    )
    return Arrangement(points, lines, edges, faces, tuple(faults))


def _float_areas(
    places: NDArray[np.float64], ends: NDArray[np.int64], label: NDArray[np.int64], count: int
) -> NDArray[np.float64]:
    p, q = places[ends[:, 0]], places[ends[:, 1]]
    each = (p[:, 0] * q[:, 1] - p[:, 1] * q[:, 0]) / 2
    both = np.empty(len(label))
    both[0::2], both[1::2] = each, -each
    return np.bincount(label, weights=both, minlength=count).astype(np.float64)


def _around(
    points: tuple[Point, ...],
    rings: Sequence[tuple[int, ...]],
    corner_rings: Sequence[tuple[int, ...]],
    outer: Sequence[int],
    vertex: int,
    signed: NDArray[np.float64],
) -> int:
    """The smallest face cycle that has ``vertex`` strictly inside it: an island's home."""
    p = points[vertex]
    homes = [
        c
        for c in outer
        if vertex not in rings[c] and contains([points[v] for v in corner_rings[c]], p) > 0
    ]
    return min(homes, key=lambda c: float(signed[c]))
