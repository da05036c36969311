"""From pieces of seam between vertices to the faces they border."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cmp_to_key
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.stretches import ArcStretch, LineStretch, Scaled, Stretch
from inlet.core.geometry.vertices import Vertices

HalfEdge = int
"""A half-edge: 2k runs along edge k, 2k + 1 against it."""


class RawEdge(NamedTuple):
    """A piece of the stretch ``along`` from vertex ``start`` to vertex ``end``."""

    start: int
    end: int
    along: int


def raw_edges(
    stretches: Sequence[Stretch],
    chains: Sequence[Sequence[int]],
    places: NDArray[np.float64],
    size: tuple[float, float],
    reach: float,
) -> list[RawEdge]:
    """Every piece between neighbouring vertices, pieces outside the block left out. Where seams
    run along one another to within ``reach`` (see ``cut_at_crossings``), the first stands for
    all."""
    edges: list[RawEdge] = []
    between: dict[tuple[int, int], list[int]] = {}
    for s, chain in enumerate(chains):
        stretch = stretches[s]
        leaves = isinstance(stretch, ArcStretch) and stretch.leaves
        for u, v in pairwise(chain):
            if leaves and _outside(_middle(stretch, places, u, v), size):
                continue
            if reach:
                others = between.setdefault((min(u, v), max(u, v)), [])
                if others and any(
                    _apart(stretches[o], stretch, places, u, v) <= 2 * reach for o in others
                ):
                    continue
                others.append(s)
            edges.append(RawEdge(u, v, s))
    return edges


def _middle(stretch: Stretch, places: NDArray[np.float64], u: int, v: int) -> tuple[float, float]:
    """The middle of a stretch's piece between two vertices."""
    x, y = (float(c) for c in (places[u] + places[v]) / 2)
    if isinstance(stretch, LineStretch):
        return x, y
    h, k, r2 = (float(c) for c in stretch.on)
    x, y = x - h, y - k
    far = r2**0.5 / (x * x + y * y) ** 0.5
    return h + x * far, k + y * far


def _outside(at: tuple[float, float], size: tuple[float, float]) -> bool:
    return not (0 < at[0] < size[0] and 0 < at[1] < size[1])


def _apart(one: Stretch, other: Stretch, places: NDArray[np.float64], u: int, v: int) -> float:
    (x, y), (a, b) = _middle(one, places, u, v), _middle(other, places, u, v)
    return float(max(abs(x - a), abs(y - b)))


# --- directions -------------------------------------------------------------------------------


class _Way(NamedTuple):
    """A half-edge as it leaves its vertex: a step that way, and how it bends (r² with the sign of
    its turning: above 0 clockwise; 0 straight)."""

    x: Scaled
    y: Scaled
    bend: Scaled


def _way(stretch: Stretch, spot: tuple[Scaled, Scaled], forward: bool) -> _Way:
    if isinstance(stretch, LineStretch):
        a, b, _ = stretch.on
        return _Way(b, -a, 0) if forward else _Way(-b, a, 0)
    h, k, r2 = stretch.on
    x, y = k - spot[1], spot[0] - h
    return _Way(x, y, r2) if forward else _Way(-x, -y, -r2)


def _later(u: _Way, v: _Way) -> int:
    """Does way u come after v, clockwise on screen from the direction of growing x?"""
    halves = [0 if w.y > 0 or (w.y == 0 and w.x > 0) else 1 for w in (u, v)]
    if halves[0] != halves[1]:
        return halves[0] - halves[1]
    turn = u.x * v.y - u.y * v.x
    if turn != 0:
        return -1 if turn > 0 else 1
    # The same direction: what bends more to the right comes after. Bends are ±1/r.
    if (u.bend > 0) - (u.bend < 0) != (v.bend > 0) - (v.bend < 0):
        return 1 if u.bend > v.bend else -1
    return 0 if u.bend == v.bend else (-1 if u.bend > v.bend else 1)


def order_round(
    edges: Sequence[RawEdge],
    table: NDArray[np.int64],
    stretches: Sequence[Stretch],
    places: NDArray[np.float64],
    vertices: Vertices,
    loose: bool,
) -> NDArray[np.float64]:
    """For each half-edge a number that grows clockwise round its vertex: the angle it leaves by,
    and where angles are too near for floats, its rank by exact comparison. ``table`` holds the
    edges, a row each.

    Where places are ``loose``, a vertex may lie a hair off the seams that meet there, so that their
    directions in it say nothing about which of two touching ones is on which side. There half-edges
    are sorted by where they are a little further on, see ``_angles_further_on``.
    """
    start, end, along = table.T
    x, y = _steps(stretches, places, start, end, along)
    if loose:
        return _angles_further_on(stretches, places, (start, end, along), x, y)
    angle = np.mod(np.arctan2(y, x), 2 * np.pi)
    origin = np.stack([start, end], axis=1).ravel()
    order = np.lexsort((angle, origin))
    gaps = np.diff(angle[order])
    same = np.diff(origin[order]) == 0
    doubtful = set(origin[order][:-1][same & (gaps < 1e-7)].tolist())
    bow = np.array([isinstance(s, ArcStretch) for s in stretches])
    if bow.any():  # Round the cut at angle 0 the first may really be the last.
        cut = (angle < 1e-7) | (angle > 2 * np.pi - 1e-7)
        doubtful |= set(origin[cut & np.repeat(bow[along], 2)].tolist())
    if doubtful:
        _rank_exactly(doubtful, edges, stretches, vertices, angle)
    return angle


Indices = NDArray[np.int64]
Floats = NDArray[np.float64]


def _steps(
    stretches: Sequence[Stretch], places: Floats, start: Indices, end: Indices, along: Indices
) -> tuple[Floats, Floats]:
    """A step in the direction each half-edge leaves its vertex by."""
    x, y = np.empty(2 * len(start)), np.empty(2 * len(start))
    forward = np.array(
        [
            (float(s.on[1]), -float(s.on[0])) if isinstance(s, LineStretch) else (0.0, 0.0)
            for s in stretches
        ]
    )
    x[0::2], y[0::2] = forward[along, 0], forward[along, 1]
    x[1::2], y[1::2] = -x[0::2], -y[0::2]
    curved = np.array([isinstance(s, ArcStretch) for s in stretches])[along]
    if curved.any():
        centre = np.array([(float(s.on[0]), float(s.on[1])) for s in stretches])
        for side, vertex, sign in ((0, start, 1), (1, end, -1)):
            arm = places[vertex] - centre[along]
            x[side::2] = np.where(curved, -sign * arm[:, 1], x[side::2])
            y[side::2] = np.where(curved, sign * arm[:, 0], y[side::2])
    return x, y


def _angles_further_on(
    stretches: Sequence[Stretch],
    places: Floats,
    edges: tuple[Indices, Indices, Indices],
    x: Floats,
    y: Floats,
) -> Floats:
    """The angle from each half-edge's vertex to where the edge is ρ away from it, ρ being half the
    distance to the nearest other end of an edge there: so no two edges cross before, and what lies
    off by a hair is off by no more than a hair/ρ in angle. A straight edge is seen as it is drawn,
    from vertex to vertex. A circle's chord of length ρ leaves its tangent by asin(ρ/2r)."""
    start, end, along = edges
    step = places[end] - places[start]
    straight = np.array([isinstance(s, LineStretch) for s in stretches])[along]
    for side, sign in ((0, 1.0), (1, -1.0)):
        x[side::2] = np.where(straight, sign * step[:, 0], x[side::2])
        y[side::2] = np.where(straight, sign * step[:, 1], y[side::2])
    angle = np.arctan2(y, x)
    if not straight.all():
        near = np.full(len(places), np.inf)
        length = np.hypot(step[:, 0], step[:, 1])
        np.minimum.at(near, start, length / 2)
        np.minimum.at(near, end, length / 2)
        r = np.array(
            [1.0 if isinstance(s, LineStretch) else float(s.on[2]) ** 0.5 for s in stretches]
        )
        for side, vertex, sign in ((0, start, 1.0), (1, end, -1.0)):
            bend = np.arcsin(np.minimum(1.0, near[vertex] / (2 * r[along])))
            angle[side::2] += np.where(straight, 0.0, sign * bend)
    return np.mod(angle, 2 * np.pi)


def _rank_exactly(
    doubtful: set[int],
    edges: Sequence[RawEdge],
    stretches: Sequence[Stretch],
    vertices: Vertices,
    angle: NDArray[np.float64],
) -> None:
    halves: dict[int, list[HalfEdge]] = {v: [] for v in doubtful}
    for k, (u, v, _) in enumerate(edges):
        if u in halves:
            halves[u].append(2 * k)
        if v in halves:
            halves[v].append(2 * k + 1)
    for vertex, ranked in halves.items():
        spot = vertices.spot(vertex)
        ways = {h: _way(stretches[edges[h // 2].along], spot, h % 2 == 0) for h in ranked}
        key = cmp_to_key(_later)
        ranked.sort(key=lambda half, ways=ways, key=key: key(ways[half]))  # type: ignore[misc]
        for rank, half in enumerate(ranked):
            angle[half] = rank


# --- cycles -----------------------------------------------------------------------------------


def trace(
    ends: NDArray[np.int64], angle: NDArray[np.float64]
) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Next half-edge round each face, and a label a cycle; the face is on the right hand on
    screen."""
    count = len(ends) * 2
    origin = ends.reshape(-1)
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


def signed_areas(
    table: NDArray[np.int64],
    stretches: Sequence[Stretch],
    places: NDArray[np.float64],
    label: NDArray[np.int64],
) -> NDArray[np.float64]:
    """The area each cycle of the edges in ``table`` goes round, above 0 clockwise: the shoelace,
    and for an edge along a circle r²(θ - sin θ)/2 more."""
    start, end, along = table.T
    p, q = places[start], places[end]
    each = (p[:, 0] * q[:, 1] - p[:, 1] * q[:, 0]) / 2
    curved = np.array([isinstance(s, ArcStretch) for s in stretches])[along]
    if curved.any():
        circle = np.array([[float(v) for v in s.on] for s in stretches])[along[curved]]
        u, v = p[curved] - circle[:, :2], q[curved] - circle[:, :2]
        angle = np.arctan2(u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0], (u * v).sum(axis=1))
        each[curved] += circle[:, 2] * (angle - np.sin(angle)) / 2
    both = np.empty(len(label))
    both[0::2], both[1::2] = each, -each
    return np.bincount(label, weights=both, minlength=int(label.max()) + 1).astype(np.float64)
