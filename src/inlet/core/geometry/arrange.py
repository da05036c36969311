"""The exact planar arrangement: from seams drawn in a rectangle to the patches between them.

Where it spends its time is decided by floats, what it decides is decided exactly. NumPy finds which
pairs of seams may cross (``crossings``); a pair that crosses well inside both needs no more than
the exact point; only pairs that meet within a hair of an end are put to exact predicates. Points
are told apart by exact keys, and the edges round a point are sorted exactly where floats cannot
tell (``faces``).

What comes out is checked (``soundness``). Where it does not hold, seams lie nearer to one another
than numbers tell apart: then places ``CLOSE`` to one another are taken for one, and if that does
not hold either, the seam drawn last at the place is left out and told. So the faces always tile
the rectangle, whatever is drawn.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.arrangement import Arrangement, Edge, Face, Loop
from inlet.core.geometry.crossings import cut_at_crossings
from inlet.core.geometry.curve import Circle, Curve, arc_fault, distance_to
from inlet.core.geometry.faces import RawEdge, order_round, raw_edges, signed_areas, trace
from inlet.core.geometry.inside import side
from inlet.core.geometry.located import is_located
from inlet.core.geometry.outline import Outline, box
from inlet.core.geometry.point import HAIR, Point
from inlet.core.geometry.polygon import Line
from inlet.core.geometry.soundness import (
    Unsound,
    check_chains,
    check_faces,
    check_order,
    check_places,
    connected,
)
from inlet.core.geometry.stretches import (
    CLOSE,
    UNIT,
    ArcStretch,
    Fault,
    Scaled,
    Stretch,
    beyond,
    common_denominator,
    merge,
    within_block,
)
from inlet.core.geometry.vertices import Vertices
from inlet.core.numbers import Exact, Fraction

Seamlike = Curve | tuple[Point, Point] | tuple[Point, Point, Point | None]
"""A seam to arrange: its two ends, and the centre of an arc."""


def arrange(width: Exact, height: Exact, seams: Sequence[Seamlike]) -> Arrangement:
    """The arrangement of ``seams`` in the rectangle from (0, 0) to (width, height).

    Seams may overlap, cross, run outside (what is outside is left out), stop anywhere (what
    borders no two faces is left out) or lie too near to one another to tell (the later is left
    out); each such thing is a ``Fault``. Points are in the seams' units. The faces tile the
    rectangle exactly, apart from holes, which other faces fill.
    """
    curves = [Curve(*drawn) for drawn in seams]
    places = [p for seam in curves for p in seam if p is not None]
    loose = any(is_located(x) for p in (*places, Point(width, height)) for x in p)
    left_out: dict[int, Point] = {}
    while True:
        try:
            return _arranged(width, height, curves, left_out, loose)
        except Unsound as unsound:
            if loose:
                _leave_out(curves, left_out, unsound.places)
            loose = True


def _leave_out(
    curves: Sequence[Curve], left_out: dict[int, Point], places: Sequence[Point]
) -> None:
    """Put the seam drawn last at each place among those left out; and as many of the last ones
    besides as there are left out, so that a hopeless drawing is soon given up."""
    kept = [i for i in range(len(curves)) if i not in left_out]
    at_least = 2 * len(left_out)
    for place in places:
        far = {i: distance_to(curves[i], place.floats()) for i in kept}
        nearest = min(far.values())
        last = max(i for i in kept if far[i] <= max(10 * CLOSE, 2 * nearest))
        left_out.setdefault(last, place)
    for i in reversed(kept):
        if len(left_out) < at_least:
            left_out.setdefault(i, places[0])


def _arranged(
    width: Exact,
    height: Exact,
    curves: Sequence[Curve],
    left_out: dict[int, Point],
    loose: bool,
) -> Arrangement:
    """The arrangement without some seams; raises ``Unsound`` where it does not hold."""
    reach = CLOSE if loose else 0.0
    faults = [Fault("unclear", place, i) for i, place in sorted(left_out.items())]
    pieces = _pieces(width, height, curves, left_out, reach, faults)
    scale = common_denominator(p for seam, _, _ in pieces for p in seam if p is not None)
    stretches = merge(pieces, scale, loose, faults)
    vertices = Vertices()
    chains = cut_at_crossings(stretches, vertices, scale, loose)
    places = vertices.floats()
    check_chains(stretches, chains, places, scale)
    size = (float(width * scale), float(height * scale))
    raw = raw_edges(stretches, chains, places, size, reach * scale)
    table = np.array(raw, dtype=np.int64)
    angle = order_round(raw, table, stretches, places, vertices, loose)
    ends = np.ascontiguousarray(table[:, :2])
    next_half, label = trace(ends, angle)
    points = vertices.points(scale)
    check_places(ends, places, scale)
    check_order(ends, angle, label, points)
    bridge = label[0::2] == label[1::2]
    if bridge.any():
        degree = np.bincount(ends.ravel(), minlength=len(points))
        faults += [
            Fault("stops", points[v], -1)
            for v in sorted(set(ends[bridge].ravel().tolist()))
            if degree[v] == 1
        ]
        raw = [edge for edge, gone in zip(raw, bridge.tolist(), strict=True) if not gone]
        table, ends = table[~bridge], ends[~bridge]
        next_half, label = trace(ends, angle[np.repeat(~bridge, 2)])
    builder = _Builder(points, stretches, raw, table, places, next_half.tolist(), label, scale)
    return builder.build(size[0] * size[1], faults)


def _pieces(
    width: Exact,
    height: Exact,
    curves: Sequence[Curve],
    left_out: dict[int, Point],
    reach: float,
    faults: list[Fault],
) -> list[tuple[Curve, int, bool]]:
    """The block's edge and the seams, each with its index (-1 for the edge) and whether it may
    leave the block; straight ones already cut off there. What leaves it by no more than ``reach``
    is no fault."""
    zero: Exact = Fraction(0)
    box = (Point(zero, zero), Point(width, zero), Point(width, height), Point(zero, height))
    pieces = [(Curve(box[i - 1], box[i]), -1, False) for i in range(4)]
    for index, seam in enumerate(curves):
        if index in left_out:
            continue
        if seam.start == seam.end or (
            seam.centre is not None and arc_fault(*seam.ends, seam.centre) is not None
        ):
            faults.append(Fault("unclear", seam.start, index))
            continue
        if seam.centre is not None:
            far, leaves = beyond(seam, width, height, reach)
            if far is not None:
                faults.append(Fault("outside", far, index))
            pieces.append((seam, index, leaves))
            continue
        kept = within_block(seam, width, height)
        if kept != seam:
            far = seam.end if kept and kept.start == seam.start else seam.start
            past = max(-far.x, far.x - width, -far.y, far.y - height)
            if kept is None or float(past) > reach:
                faults.append(Fault("outside", far, index))
        if kept and kept.start != kept.end:
            pieces.append((kept, index, False))
    return pieces


class _Builder:
    """Cycles to faces with holes, in reading order; edges with a face on either hand."""

    def __init__(
        self,
        points: tuple[Point, ...],
        stretches: Sequence[Stretch],
        raw: Sequence[RawEdge],
        table: NDArray[np.int64],
        places: NDArray[np.float64],
        following: list[int],
        label: NDArray[np.int64],
        scale: int,
    ) -> None:
        self.points, self.stretches, self.raw = points, stretches, raw
        self.places, self.following, self.label = places, following, label
        self.scale = scale
        number: dict[tuple[bool, tuple[Scaled, Scaled, Scaled]], int] = {}
        self.line_of = [
            number.setdefault((isinstance(s, ArcStretch), s.on), len(number)) for s in stretches
        ]
        self.lines = tuple(
            Circle(Point(UNIT * h / scale, UNIT * k / scale), UNIT * c / scale / scale)
            if round_
            else Line(UNIT * h, UNIT * k, UNIT * c / scale)
            for round_, (h, k, c) in number
        )
        self.table = table
        self.half_line: list[int] = np.repeat(np.array(self.line_of)[table[:, 2]], 2).tolist()
        self.ends = np.ascontiguousarray(table[:, :2])
        self.origin = self.ends.reshape(-1).tolist()

    def build(self, whole: float, faults: list[Fault]) -> Arrangement:
        """The arrangement of a block of area ``whole`` (scaled)."""
        _, first_half = np.unique(self.label, return_index=True)
        rings: list[tuple[int, ...]] = []
        loops: list[Loop] = []
        for start in first_half.tolist():
            halves = [int(start)]
            while (h := self.following[halves[-1]]) != start:
                halves.append(h)
            rings.append(tuple(self.origin[h] for h in halves))
            loops.append(self._loop(halves))
        signed = signed_areas(self.table, self.stretches, self.places, self.label)
        outermost, islands = self._outer_cycles(rings, signed)
        outside_in = {outermost, *islands}
        outer = [c for c in range(len(rings)) if c not in outside_in]
        tops = [min(self.places[v, 1] for v in rings[c]) / self.scale for c in outer]
        lefts = [min(self.places[v, 0] for v in rings[c]) / self.scale for c in outer]
        outer = [
            c for _, _, c in sorted(zip(np.round(tops, 6), np.round(lefts, 6), outer, strict=True))
        ]
        holes: dict[int, list[Loop]] = {}
        face_of = {cycle: i for i, cycle in enumerate(outer)}
        face_of[outermost] = -1
        homes = _Homes(self, rings, loops, outer, signed)
        for cycle in islands:
            home = homes.around(rings[cycle][0])
            holes.setdefault(home, []).append(loops[cycle])
            face_of[cycle] = face_of[home]
            faults.append(Fault("island", min(self.points[v] for v in rings[cycle]), -1))
        faces = tuple(
            Face(rings[c], loops[c], tuple(sorted(holes.get(c, ()), key=lambda h: h.corners)))
            for c in outer
        )
        labels = self.label.tolist()
        edges = tuple(
            Edge(u, v, self.line_of[along], face_of[labels[2 * k]], face_of[labels[2 * k + 1]])
            for k, (u, v, along) in enumerate(self.raw)
        )
        check_faces(faces, whole, self.points, self.places, self.scale)
        return Arrangement(self.points, self.lines, edges, faces, tuple(faults))

    def _outer_cycles(
        self, rings: Sequence[tuple[int, ...]], signed: NDArray[np.float64]
    ) -> tuple[int, list[int]]:
        """The cycle round the block's edge from without, and those round islands. Of the cycles of
        edges that hang together all but one go clockwise round a face, and that one round all of
        them the other way: its area is the lowest, however small they are."""
        group = connected(self.ends, len(self.places)).tolist()
        lowest: dict[int, int] = {}
        for c, ring in enumerate(rings):
            g = group[ring[0]]
            if g not in lowest or signed[c] < signed[lowest[g]]:
                lowest[g] = c
        corner = group[int(self.ends[0, 0])]  # the first edge is one of the block's
        outermost = lowest.pop(corner)
        return outermost, sorted(lowest.values())

    def _loop(self, halves: Sequence[int]) -> Loop:
        """The corners of a cycle of half-edges and the centres of its sides."""
        n = len(halves)
        corners = [
            i for i in range(n) if self.half_line[halves[i]] != self.half_line[halves[i - 1]]
        ]
        if not corners:  # one whole circle: every vertex on it is a corner
            corners = list(range(n))
        loop: list[int] = []
        for i, j in zip(corners, (*corners[1:], corners[0] + n), strict=True):
            loop.append(i)
            if j - i > 1 and isinstance(self._circle(halves[i]), Circle):
                loop += self._half_circle_breaks(halves, i, j)
        return Loop(
            tuple(self.origin[halves[i % n]] for i in loop),
            tuple(
                on.centre if isinstance(on := self._circle(halves[i % n]), Circle) else None
                for i in loop
            ),
        )

    def _circle(self, half: int) -> Line | Circle:
        return self.lines[self.half_line[half]]

    def _half_circle_breaks(self, halves: Sequence[int], i: int, j: int) -> list[int]:
        """Where to break the side from i to j of a cycle, all on one circle, so that each part is
        less than half of it by more than a hair (see ``arc_fault``)."""
        on = self._circle(halves[i])
        assert isinstance(on, Circle)
        n = len(halves)
        h, k = on.centre
        way = 1 if halves[i] % 2 == 0 else -1
        breaks: list[int] = []
        begin = self.points[self.origin[halves[i]]]
        for m in range(i + 1, j + 1):
            p = self.points[self.origin[halves[m % n]]]
            turn = (begin.x - h) * (p.y - k) - (begin.y - k) * (p.x - h)
            if float(turn) * way <= HAIR * float(on.squared) and m - 1 > (
                breaks[-1] if breaks else i
            ):
                breaks.append(m - 1)
                begin = self.points[self.origin[halves[(m - 1) % n]]]
        return breaks


class _Homes:
    """Finds the face that an island lies in."""

    def __init__(
        self,
        builder: _Builder,
        rings: Sequence[tuple[int, ...]],
        loops: Sequence[Loop],
        outer: Sequence[int],
        signed: NDArray[np.float64],
    ) -> None:
        self.points, self.rings, self.outer = builder.points, rings, outer
        self.loops, self.signed = loops, signed
        self._traced: dict[int, Outline] = {}
        self._boxes: NDArray[np.float64] | None = None

    def _outline(self, cycle: int) -> Outline:
        if cycle not in self._traced:
            loop = self.loops[cycle]
            self._traced[cycle] = Outline(
                tuple(self.points[i] for i in loop.corners),
                tuple((i, at) for i, at in enumerate(loop.centres) if at is not None),
            )
        return self._traced[cycle]

    def around(self, vertex: int) -> int:
        """The smallest face cycle that has ``vertex`` strictly inside it."""
        p = self.points[vertex]
        if self._boxes is None:
            self._boxes = np.array([box(self._outline(c)) for c in self.outer])
        (x, y), boxes = p.floats(), self._boxes
        near = (boxes[:, 0] <= x + CLOSE) & (boxes[:, 2] >= x - CLOSE)
        near &= (boxes[:, 1] <= y + CLOSE) & (boxes[:, 3] >= y - CLOSE)
        some = (self.outer[k] for k in np.flatnonzero(near).tolist())
        homes = [c for c in some if vertex not in self.rings[c] and side(self._outline(c), p) > 0]
        if not homes:
            raise Unsound([p])
        return min(homes, key=lambda c: float(self.signed[c]))
