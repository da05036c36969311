"""What must hold of every arrangement, checked cheaply each time one is made.

1. Each seam, cut at its vertices, is as long as it was.
2. Vertices are places apart, and the edges round them lie as in a plane (Euler: a connected
   drawing of V vertices and E edges has 2 + E - V faces, the one outside it included). Then an
   edge with one face on both sides parts nothing: each piece of seam is a border, or hangs loose
   and is told by its end, or by the island on it.
3. The faces' areas are above 0 and add up to the block's.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.arrangement import Face, Loop
from inlet.core.geometry.point import Point
from inlet.core.geometry.stretches import CLOSE, ArcStretch, Stretch
from inlet.core.numbers import Fraction

TIGHT = 1e-9
"""Of a length or an area: what floats may be off by."""

Floats = NDArray[np.float64]
Indices = NDArray[np.int64]


class Unsound(Exception):
    """The arrangement does not hold at some places, in the seams' units."""

    def __init__(self, places: Sequence[Point]) -> None:
        super().__init__(places)
        self.places = places


def connected(ends: Indices, count: int) -> Indices:
    """For each of ``count`` vertices the lowest one that it hangs together with by edges. Each
    round every vertex takes the lowest number met across its edges, then the number which that one
    has taken, so that the way halves."""
    lowest = np.arange(count)
    start, end = ends[:, 0], ends[:, 1]
    while True:
        least = np.minimum(lowest[start], lowest[end])
        taken = lowest.copy()
        np.minimum.at(taken, lowest[start], least)
        np.minimum.at(taken, lowest[end], least)
        taken = taken[taken]
        if np.array_equal(taken, lowest):
            return lowest
        lowest = taken


def check_chains(
    stretches: Sequence[Stretch], chains: Sequence[Sequence[int]], places: Floats, scale: int
) -> None:
    """A stretch's vertices go from its one end to the other, without a step back."""
    starts, ends, along = [], [], []
    bad: list[tuple[float, float]] = []
    for k, (stretch, chain) in enumerate(zip(stretches, chains, strict=True)):
        if len(chain) < 2:
            bad.append((float(stretch.low[0]), float(stretch.low[1])))
            continue
        for u, v in pairwise(chain):
            starts.append(u)
            ends.append(v)
            along.append(k)
    length = _lengths(stretches, places[starts], places[ends], np.array(along))
    low = np.array([[float(x) for x in s.low] for s in stretches])
    high = np.array([[float(x) for x in s.high] for s in stretches])
    whole = _lengths(stretches, low, high, np.arange(len(stretches)))
    array = np.bincount(along, weights=length, minlength=len(stretches))
    off = np.abs(array - whole) > TIGHT * whole + 4 * CLOSE * scale
    bad += [(low[k, 0], low[k, 1]) for k in np.flatnonzero(off).tolist() if len(chains[k]) > 1]
    if bad:
        raise Unsound([_near(x / scale, y / scale) for x, y in bad])


def _lengths(stretches: Sequence[Stretch], p: Floats, q: Floats, along: Indices) -> Floats:
    """How long pieces of stretches are, from the places p to q."""
    length: Floats = np.hypot(*(q - p).T)
    bows = np.array([isinstance(s, ArcStretch) for s in stretches])[along]
    if bows.any():
        circle = np.array([[float(v) for v in s.on] for s in stretches])[along[bows]]
        r = np.sqrt(circle[:, 2])
        length[bows] = 2 * r * np.arcsin(np.minimum(1.0, length[bows] / 2 / r))
    return length


def check_places(ends: Indices, places: Floats, scale: int) -> None:
    """No two vertices are the same place to the digits points are written to."""
    used = np.unique(ends)
    for shift in (0.0, 0.5):
        cells = np.floor(places[used] / (CLOSE * scale / 10) + shift)
        _, first, count = np.unique(cells, axis=0, return_index=True, return_counts=True)
        twice = first[count > 1]
        if len(twice):
            raise Unsound([_near(*(places[used[k]] / scale)) for k in twice.tolist()])


def _near(x: float, y: float) -> Point:
    """A place to point at, to six decimals."""
    return Point(Fraction(round(x * 10**6), 10**6), Fraction(round(y * 10**6), 10**6))


def check_order(ends: Indices, angle: Floats, label: Indices, points: Sequence[Point]) -> None:
    """The edges round each vertex lie as in a plane, by Euler's count of each connected part."""
    group = connected(ends, len(points))
    used = np.unique(ends)
    _, cycle_start = np.unique(label, return_index=True)
    origin = ends.reshape(-1)
    count = len(points)
    euler = np.bincount(group[used], minlength=count)
    euler -= np.bincount(group[ends[:, 0]], minlength=count)
    euler += np.bincount(group[origin[cycle_start]], minlength=count)
    parts = np.unique(group[used])
    crossed = parts[euler[parts] != 2]
    if not len(crossed):
        return
    raise Unsound([points[_tightest(origin, angle, group, g)] for g in crossed.tolist()])


def _tightest(origin: Indices, angle: Floats, group: Indices, part: int) -> int:
    """The vertex of a connected part at which two edges leave in the most alike directions."""
    halves = np.flatnonzero(group[origin] == part)
    order = halves[np.lexsort((angle[halves], origin[halves]))]
    gap = np.where(np.diff(origin[order]) == 0, np.diff(angle[order]), np.inf)
    return int(origin[order[int(np.argmin(gap))]])


def check_faces(
    faces: Sequence[Face], whole: float, points: Sequence[Point], places: Floats, scale: int
) -> None:
    """Every face goes round something, and together they cover the block (``whole``, scaled)."""
    area = loop_areas([face.loop for face in faces], places, scale)
    flat = [
        len(loop.corners) < 2 or (len(loop.corners) == 2 and not any(loop.centres))
        for loop in (face.loop for face in faces)
    ]
    bad = np.flatnonzero(np.array(flat) | (area < -TIGHT * whole)).tolist()
    holes = [hole for face in faces for hole in face.holes]
    total = float(area.sum()) + (float(loop_areas(holes, places, scale).sum()) if holes else 0.0)
    if not bad and abs(total - whole) > 10 * TIGHT * whole:
        bad = [0]
    if bad:
        raise Unsound([points[faces[i].ring[0]] for i in bad])


def loop_areas(loops: Sequence[Loop], places: Floats, scale: int) -> Floats:
    """The area each loop goes round, scaled, above 0 clockwise: the shoelace, and r²(θ - sin θ)/2
    for each side along a circle."""
    corners = np.array([v for loop in loops for v in loop.corners])
    sizes = np.array([len(loop.corners) for loop in loops])
    starts = np.r_[0, np.cumsum(sizes)[:-1]]
    following = np.arange(1, len(corners) + 1)
    following[starts + sizes - 1] = starts
    p = places[corners]
    q = p[following]
    each = (p[:, 0] * q[:, 1] - p[:, 1] * q[:, 0]) / 2
    centres = [c for loop in loops for c in loop.centres]
    curved = [i for i, c in enumerate(centres) if c is not None]
    if curved:
        known: dict[int, tuple[float, float]] = {}  # sides of one circle have one centre
        for c in centres:
            if c is not None and id(c) not in known:
                known[id(c)] = c.floats()
        at = np.array([known[id(c)] for c in centres if c is not None]) * scale
        u, v = p[curved] - at, q[curved] - at
        turn = np.arctan2(u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0], (u * v).sum(axis=1))
        each[curved] += (u * u).sum(axis=1) * (turn - np.sin(turn)) / 2
    return np.asarray(np.add.reduceat(each, starts))
