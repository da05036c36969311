"""The exact planar arrangement: from seams drawn in a rectangle to the patches between them.

Where it spends its time is decided by floats, what it decides is decided exactly. NumPy finds which
pairs of seams may cross (``crossings``); a pair that crosses well inside both needs no more than
the exact point; only pairs that meet within a hair of an end are put to exact predicates. Points
are told apart by exact keys, and the edges round a point are sorted exactly where floats cannot
tell (``faces``).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry import outline
from inlet.core.geometry.crossings import HAIR, Vertices, cut_at_crossings
from inlet.core.geometry.curve import Circle, Curve
from inlet.core.geometry.faces import RawEdge, order_round, raw_edges, signed_areas, trace
from inlet.core.geometry.outline import Outline
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Line, area, contains
from inlet.core.geometry.stretches import (
    UNIT,
    Bow,
    Fault,
    Stretch,
    beyond,
    common_denominator,
    is_long,
    merge,
    within_block,
)
from inlet.core.numbers import Exact

Seamlike = Curve | tuple[Point, Point] | tuple[Point, Point, Point | None]
"""A seam to arrange: its two ends, and the centre of an arc."""


class Edge(NamedTuple):
    """A piece of seam (or of the block's edge) between two vertices that nothing interrupts.

    ``start`` and ``end`` index ``Arrangement.points``; going that way, face ``right`` is on the
    right hand on screen and ``left`` on the left; -1 is outside the block. ``line`` indexes
    ``Arrangement.lines``: edges of one straight line, or of one circle, share it. Along a circle
    ``start`` to ``end`` runs clockwise on screen.
    """

    start: int
    end: int
    line: int
    right: int
    left: int


class Loop(NamedTuple):
    """A closed way round: ``corners`` are the vertices where it goes over from one line or circle
    to another (never more than half a circle apart); ``centres`` are, for the side from each corner
    to the next, the centre of its circle, or None where it is straight."""

    corners: tuple[int, ...]
    centres: tuple[Point | None, ...]


class Face(NamedTuple):
    """A patch: ``ring`` are the vertices met going round it clockwise on screen, T junctions in
    mid-side included; ``loop`` leaves those out. ``holes`` go round islands inside it."""

    ring: tuple[int, ...]
    loop: Loop
    holes: tuple[Loop, ...]


@dataclass(frozen=True, eq=False)
class Arrangement:
    """Everything known about a drawing's faces, in the units of the drawing."""

    points: tuple[Point, ...]
    lines: tuple[Line | Circle, ...]
    edges: tuple[Edge, ...]
    faces: tuple[Face, ...]
    faults: tuple[Fault, ...]

    @cached_property
    def places(self) -> tuple[tuple[float, float], ...]:
        """The points as floats."""
        return tuple(p.floats() for p in self.points)

    @cached_property
    def edges_of(self) -> tuple[tuple[int, ...], ...]:
        """The edges round each face."""
        out: list[list[int]] = [[] for _ in self.faces]
        for k, edge in enumerate(self.edges):
            for face in {edge.right, edge.left}:
                if face >= 0:
                    out[face].append(k)
        return tuple(map(tuple, out))

    @cached_property
    def outlines(self) -> tuple[Outline, ...]:
        """The outline of each face."""
        return tuple(self.traced(face.loop) for face in self.faces)

    @cached_property
    def shapes(self) -> tuple[tuple[object, ...], ...]:
        """A key for each face, equal for faces of one shape in one place, holes and all."""
        return tuple(
            (
                outline.shape_key(self.outlines[i]),
                *(outline.shape_key(self.traced(hole)) for hole in face.holes),
            )
            for i, face in enumerate(self.faces)
        )

    @cached_property
    def boxes(self) -> NDArray[np.float64]:
        """(faces, 4): left, top, right, bottom of each face."""
        return np.array([outline.box(o) for o in self.outlines])

    def traced(self, loop: Loop) -> Outline:
        return Outline(
            tuple(self.points[i] for i in loop.corners),
            tuple((i, c) for i, c in enumerate(loop.centres) if c is not None),
        )

    def curve(self, edge: Edge) -> Curve:
        """An edge as a curve from its start to its end."""
        on = self.lines[edge.line]
        centre = on.centre if isinstance(on, Circle) else None
        return Curve(self.points[edge.start], self.points[edge.end], centre)

    def locate(self, point: Point) -> int | None:
        """The face strictly around a point; None on a seam or outside. Boxes are compared as
        floats; only a face whose box holds the point is asked exactly."""
        x, y = point.floats()
        boxes = self.boxes
        near = (boxes[:, 0] <= x + HAIR) & (boxes[:, 2] >= x - HAIR)
        near &= (boxes[:, 1] <= y + HAIR) & (boxes[:, 3] >= y - HAIR)
        around = (f for f in np.flatnonzero(near).tolist() if self._holds(f, point))
        return next(around, None)

    def _holds(self, face: int, point: Point) -> bool:
        found = self.faces[face]
        return self._side(found.loop, point) > 0 and all(
            self._side(hole, point) < 0 for hole in found.holes
        )

    def _side(self, loop: Loop, point: Point) -> int:
        if any(loop.centres):
            return outline.side(self.traced(loop), point)
        places = [self.places[v] for v in loop.corners]
        return contains([self.points[v] for v in loop.corners], point, places)


def arrange(width: Exact, height: Exact, seams: Sequence[Seamlike]) -> Arrangement:
    """The arrangement of ``seams`` in the rectangle from (0, 0) to (width, height).

    Seams may overlap, cross, run outside (what is outside is left out) or stop anywhere (what
    borders no two faces is left out); each such thing is a ``Fault``. Points are in the seams'
    units. The faces tile the rectangle exactly, apart from holes, which other faces fill.
    """
    faults: list[Fault] = []
    pieces = _pieces(width, height, seams, faults)
    corners = [p for seam, _, _ in pieces for p in seam if p is not None]
    scale = common_denominator(corners)
    loose = any(is_long(x, 9) for p in corners for x in p)
    stretches = merge(pieces, scale, loose, faults)
    vertices = Vertices()
    chains = cut_at_crossings(stretches, vertices, scale, loose)
    places = vertices.floats()
    raw = raw_edges(stretches, chains, places, (float(width * scale), float(height * scale)))
    angle = order_round(raw, stretches, places, vertices)
    ends = np.array([edge[:2] for edge in raw], dtype=np.int64)
    next_half, label = trace(ends, angle)
    bridge = label[0::2] == label[1::2]
    points = vertices.points(scale)
    if bridge.any():
        degree = np.bincount(ends.ravel(), minlength=len(points))
        faults += [
            Fault("stops", points[v], -1)
            for v in sorted(set(ends[bridge].ravel().tolist()))
            if degree[v] == 1
        ]
        raw = [edge for edge, gone in zip(raw, bridge.tolist(), strict=True) if not gone]
        next_half, label = trace(ends[~bridge], angle[np.repeat(~bridge, 2)])
    builder = _Builder(points, stretches, raw, places, next_half.tolist(), label, scale)
    return builder.build(faults)


def _pieces(
    width: Exact, height: Exact, seams: Sequence[Seamlike], faults: list[Fault]
) -> list[tuple[Curve, int, bool]]:
    """The block's edge and the seams, each with its index (-1 for the edge) and whether it may
    leave the block; straight ones already cut off there."""
    zero: Exact = Fraction(0)
    box = (Point(zero, zero), Point(width, zero), Point(width, height), Point(zero, height))
    out = [(Curve(box[i - 1], box[i]), -1, False) for i in range(4)]
    for index, drawn in enumerate(seams):
        seam = Curve(*drawn)
        kept = within_block(seam, width, height)
        if seam.centre is not None:
            far = beyond(seam, width, height)
            if far is not None:
                faults.append(Fault("outside", far, index))
            out.append((seam, index, far is not None))
            continue
        if kept != seam:
            far = seam.end if kept and kept.start == seam.start else seam.start
            faults.append(Fault("outside", far, index))
        if kept and kept.start != kept.end:
            out.append((kept, index, False))
    return out


class _Builder:
    """Cycles to faces with holes, in reading order; edges with a face on either hand."""

    def __init__(
        self,
        points: tuple[Point, ...],
        stretches: Sequence[Stretch],
        raw: Sequence[RawEdge],
        places: NDArray[np.float64],
        following: list[int],
        label: NDArray[np.int64],
        scale: int,
    ) -> None:
        self.points, self.stretches, self.raw = points, stretches, raw
        self.places, self.following, self.label = places, following, label
        self.scale = scale
        number: dict[tuple[bool, Any], int] = {}
        self.line_of = [
            number.setdefault((isinstance(s, Bow), s.on), len(number)) for s in stretches
        ]
        self.lines = tuple(
            Circle(Point(UNIT * h / scale, UNIT * k / scale), UNIT * c / scale / scale)
            if round_
            else Line(UNIT * h, UNIT * k, UNIT * c / scale)
            for round_, (h, k, c) in number
        )
        lines_raw = [self.line_of[edge.along] for edge in raw]
        self.half_line = np.repeat(np.array(lines_raw, dtype=np.int64), 2).tolist()
        self.origin = np.array([e[:2] for e in raw], dtype=np.int64).reshape(-1).tolist()

    def build(self, faults: list[Fault]) -> Arrangement:
        _, first_half = np.unique(self.label, return_index=True)
        rings: list[tuple[int, ...]] = []
        loops: list[Loop] = []
        for start in first_half.tolist():
            halves = [int(start)]
            while (h := self.following[halves[-1]]) != start:
                halves.append(h)
            rings.append(tuple(self.origin[h] for h in halves))
            loops.append(self._loop(halves))
        signed = signed_areas(self.raw, self.stretches, self.places, self.label)
        positive = signed > 0
        doubtful = np.abs(signed) < HAIR * np.abs(signed).max()
        for cycle in np.flatnonzero(doubtful).tolist():
            if not any(loops[cycle].centres):
                positive[cycle] = area([self.points[v] for v in rings[cycle]]) > 0
        outer = np.flatnonzero(positive).tolist()
        tops = [min(self.places[v, 1] for v in rings[c]) / self.scale for c in outer]
        lefts = [min(self.places[v, 0] for v in rings[c]) / self.scale for c in outer]
        outer = [
            c for _, _, c in sorted(zip(np.round(tops, 6), np.round(lefts, 6), outer, strict=True))
        ]
        holes: dict[int, list[Loop]] = {}
        face_of = {cycle: i for i, cycle in enumerate(outer)}
        negative = np.flatnonzero(~positive).tolist()
        outside = max(negative, key=lambda c: -signed[c])  # the block's own edge, from without
        face_of[outside] = -1
        for cycle in negative:
            if cycle == outside:
                continue
            home = self._around(rings, loops, outer, rings[cycle][0], signed)
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
        return Arrangement(self.points, self.lines, edges, faces, tuple(faults))

    def _loop(self, halves: Sequence[int]) -> Loop:
        """The corners of a cycle of half-edges and the centres of its sides."""
        n = len(halves)
        corners = [
            i for i in range(n) if self.half_line[halves[i]] != self.half_line[halves[i - 1]]
        ]
        if not corners:  # one whole circle: every vertex on it is a corner
            corners = list(range(n))
        out: list[int] = []
        for i, j in zip(corners, (*corners[1:], corners[0] + n), strict=True):
            out.append(i)
            if j - i > 1 and isinstance(self._circle(halves[i]), Circle):
                out += self._half_circle_breaks(halves, i, j)
        return Loop(
            tuple(self.origin[halves[i]] for i in out),
            tuple(
                on.centre if isinstance(on := self._circle(halves[i]), Circle) else None
                for i in out
            ),
        )

    def _circle(self, half: int) -> Line | Circle:
        return self.lines[self.half_line[half]]

    def _half_circle_breaks(self, halves: Sequence[int], i: int, j: int) -> list[int]:
        """Where to break the side from i to j of a cycle, all on one circle, so that each part is
        less than half of it."""
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
            if turn * way <= 0 and m - 1 > (breaks[-1] if breaks else i):
                breaks.append(m - 1)
                begin = self.points[self.origin[halves[(m - 1) % n]]]
        return breaks

    def _around(
        self,
        rings: Sequence[tuple[int, ...]],
        loops: Sequence[Loop],
        outer: Sequence[int],
        vertex: int,
        signed: NDArray[np.float64],
    ) -> int:
        """The smallest face cycle that has ``vertex`` strictly inside it: an island's home."""
        p = self.points[vertex]

        def traced(c: int) -> Outline:
            loop = loops[c]
            return Outline(
                tuple(self.points[i] for i in loop.corners),
                tuple((i, at) for i, at in enumerate(loop.centres) if at is not None),
            )

        homes = [c for c in outer if vertex not in rings[c] and outline.side(traced(c), p) > 0]
        return min(homes, key=lambda c: float(signed[c]))
