"""The pieces of a block and its seams as arrays: what a simulated sewing starts from.

Round each piece run half-edges, clockwise, each with its piece behind it. Its stitch line lies
``o`` beyond its finished edge; so a corner of the piece, where two such lines with outward normals
``n₁``, ``n₂`` meet, is moved by the ``d`` with ``n₁·d = o₁`` and ``n₂·d = o₂``: ``d = u₁o₁ + u₂o₂``
with the dual vectors ``u``. That holds for the tangents of arcs, too, to first order.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import atan2, cos, hypot, pi, sin
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.assembly import Join, all_joins, faces_of
from inlet.core.draft import Draft, float_points_of
from inlet.core.geometry import Arrangement, Circle, Curve, sweep
from inlet.core.hand import LONG, SeamType

Array = NDArray[np.float64]
Numbers = NDArray[np.intp]
FLAT = 0.08
"""Of the sine between two edges: less, and they go on straight, or end in a needle, whose tip is
wherever it is pressed: the corner goes half the way of each."""
LEANING = 0.02
"""Of a seam's direction: more off both of the block's edges, and it is on the bias."""


class SeamToSew(NamedTuple):
    """A join to be sewn: its ``type``; the half-edges of the side that stays and, edge by edge, of
    the side that is ``moved`` to it, with all of its pieces; how long each edge is; which of the
    edges are arcs, and the middles of those."""

    type: SeamType
    stays: Numbers
    comes: Numbers
    moved: Numbers
    lengths: Array
    arcs: Numbers
    middles: Array


@dataclass(frozen=True, eq=False)
class Pieces:
    """``half`` edges are (H): of which ``piece``, on which ``edge`` of the arrangement, the half
    ``before`` and ``after`` it round the piece; its ``vertex`` and place ``at`` (H, 2) where it
    starts; its outward ``normal`` at both ends (H, 2, 2); its ``length``. The corner at its start
    is moved by ``by_before`` times the offset at the end of the half before it, and ``by_after``
    times its own. ``seams`` are in sewing order, ``sewn_by`` the seam of each half, -1 on the
    block's edge."""

    draft: Draft
    piece: Numbers
    edge: Numbers
    before: Numbers
    after: Numbers
    vertex: Numbers
    at: Array
    normal: Array
    length: Array
    by_before: Array
    by_after: Array
    seams: tuple[SeamToSew, ...]
    sewn_by: Numbers

    @property
    def count(self) -> int:
        """How many pieces there are."""
        return len(self.draft.patches)

    @property
    def halves(self) -> int:
        return len(self.piece)


def pieces_of(draft: Draft, last: Join | None, per_inch: float = 1.0) -> Pieces:
    """The pieces of a drawing, and the seams up to its ``last`` join, in the order of sewing; its
    lengths are ``per_inch`` to an inch."""
    arrangement, places = draft.arrangement, float_points_of(draft)
    half_edges = list(_half_edges(arrangement))
    starts = np.array([places[start] for _, _, start, _, _ in half_edges])
    ends = np.array([places[end] for _, _, _, end, _ in half_edges])
    scale = tuple(map(float, draft.block.scale))
    normal = np.array(
        [
            _normals(arrangement, edge, along, start, end, scale)
            for (_, edge, _, _, along), start, end in zip(half_edges, starts, ends, strict=True)
        ]
    )
    after = _after(half_edges, normal)
    before = np.empty_like(after)
    before[after] = np.arange(len(after))
    by_before, by_after = _dual(normal[before, 1], normal[:, 0])
    number = {(face, edge): i for i, (face, edge, _, _, _) in enumerate(half_edges)}
    length = np.hypot(*(ends - starts).T)
    joins = list(all_joins(last))
    sewn_by = np.full(len(half_edges), -1, dtype=np.intp)
    seams = []
    for i, join in enumerate(joins):
        seam = _seam(draft, join, number, length, per_inch)
        sewn_by[seam.stays] = sewn_by[seam.comes] = i
        seams.append(seam)
    return Pieces(
        draft,
        np.array([face for face, *_ in half_edges], dtype=np.intp),
        np.array([edge for _, edge, *_ in half_edges], dtype=np.intp),
        before, after,
        np.array([start for _, _, start, _, _ in half_edges], dtype=np.intp),
        starts, normal, length, by_before, by_after, tuple(seams), sewn_by,
    )  # fmt: skip


HalfEdge = tuple[int, int, int, int, bool]
"""A piece, an edge round it, the vertices it goes from and to clockwise round the piece, and
whether that is the way of the edge."""


def _half_edges(arrangement: Arrangement) -> Iterator[HalfEdge]:
    for k, edge in enumerate(arrangement.edges):
        if edge.right >= 0:
            yield edge.right, k, edge.start, edge.end, True
        if edge.left >= 0:
            yield edge.left, k, edge.end, edge.start, False


def _normals(
    arrangement: Arrangement, k: int, along: bool, start: Array, end: Array,
    scale: tuple[float, ...],
) -> tuple[tuple[float, float], tuple[float, float]]:  # fmt: skip
    """The outward normals of a half-edge at its start and end. Going round clockwise on screen, out
    is to the left: (dy, -dx) where y goes down. Along a circle clockwise its centre is on the
    right, so out is away from it."""
    on = arrangement.lines[arrangement.edges[k].line]
    if not isinstance(on, Circle):
        dx, dy = end - start
        long = hypot(dx, dy)
        straight = (dy / long, -dx / long)
        return straight, straight
    x, y = on.centre.floats()
    sign = 1 if along else -1
    normals = []
    for px, py in (start, end):
        rx, ry = px - x * scale[0], py - y * scale[1]
        far = hypot(rx, ry)
        normals.append((sign * rx / far, sign * ry / far))
    return normals[0], normals[1]


def _after(half_edges: list[HalfEdge], normal: Array) -> Numbers:
    """Which half-edge follows each round its piece. Where a piece meets a vertex twice, the next is
    the one that leaves the least of a turn between, from the way back on, counter-clockwise on
    screen: the piece lies between."""
    leaving: dict[tuple[int, int], list[int]] = {}
    for i, (face, _, start, _, _) in enumerate(half_edges):
        leaving.setdefault((face, start), []).append(i)
    after = np.empty(len(half_edges), dtype=np.intp)
    for i, (face, _, _, end, _) in enumerate(half_edges):
        choices = leaving[face, end]
        back = _turn(-_along(normal[i, 1]))
        after[i] = min(
            choices, key=lambda j: (_turn(_along(normal[j, 0])) - back - 1e-9) % (2 * pi)
        )
    return after


def _along(normal: Array) -> Array:
    """The way a half-edge goes, by its outward normal."""
    return np.array([-normal[1], normal[0]])


def _turn(way: Array) -> float:
    """An angle, counter-clockwise on screen."""
    return atan2(-way[1], way[0])


def _dual(first: Array, second: Array) -> tuple[Array, Array]:
    """The dual vectors of pairs of normals; of two that nearly agree, half of each."""
    det = first[:, 0] * second[:, 1] - first[:, 1] * second[:, 0]
    flat = np.abs(det) < FLAT
    safe = np.where(flat, 1.0, det)[:, None]
    by_first = np.where(flat[:, None], first / 2, np.stack([second[:, 1], -second[:, 0]], 1) / safe)
    by_second = np.where(flat[:, None], second / 2, np.stack([-first[:, 1], first[:, 0]], 1) / safe)
    return by_first, by_second


def _seam(
    draft: Draft, join: Join, number: dict[tuple[int, int], int], length: Array, per_inch: float
) -> SeamToSew:
    one, other = map(faces_of, join.sides)
    if len(one) < len(other):
        one, other = other, one
    edges = draft.arrangement.edges
    stays, comes = [], []
    for k in join.edges:
        right, left = edges[k].right, edges[k].left
        stays.append(number[(right if right in one else left), k])
        comes.append(number[(left if right in one else right), k])
    halves = np.array(stays, dtype=np.intp)
    return SeamToSew(
        _type(join, per_inch),
        halves,
        np.array(comes, dtype=np.intp),
        np.array(sorted(other), dtype=np.intp),
        length[halves],
        np.array([i for i, curve in enumerate(join.curves) if curve.centre], dtype=np.intp),
        np.array([middle_of(curve) for curve in join.curves if curve.centre]).reshape(-1, 2),
    )


def middle_of(curve: Curve) -> tuple[float, float]:
    """The middle of an arc."""
    assert curve.centre is not None
    (x, y), (px, py), half = curve.centre.floats(), curve.start.floats(), sweep(curve) / 2
    c, s = cos(half), sin(half)
    return x + c * (px - x) - s * (py - y), y + s * (px - x) + c * (py - y)


def _type(join: Join, per_inch: float) -> SeamType:
    if any(curve.centre for curve in join.curves):
        return "curve"
    (x, y), (u, v) = join.points[0].floats(), join.points[-1].floats()
    long = hypot(u - x, v - y) or 1.0
    if min(abs(u - x), abs(v - y)) / long > LEANING:
        return "bias"
    return "long" if long >= LONG * per_inch else "straight"
