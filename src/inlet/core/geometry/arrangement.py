"""What a drawing's seams part the block into: vertices, edges and faces. ``arrange`` makes it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.geometry.curve import Circle, Curve
from inlet.core.geometry.inside import RoughSide, rough_sides, side
from inlet.core.geometry.outline import Outline, box, shape_key
from inlet.core.geometry.point import HAIR, Point
from inlet.core.geometry.polygon import Line, contains
from inlet.core.geometry.stretches import Fault


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
        edges: list[list[int]] = [[] for _ in self.faces]
        for k, edge in enumerate(self.edges):
            for face in {edge.right, edge.left}:
                if face >= 0:
                    edges[face].append(k)
        return tuple(map(tuple, edges))

    @cached_property
    def edges_at(self) -> tuple[tuple[int, ...], ...]:
        """The edges that end at each vertex."""
        edges: list[list[int]] = [[] for _ in self.points]
        for k, edge in enumerate(self.edges):
            edges[edge.start].append(k)
            edges[edge.end].append(k)
        return tuple(map(tuple, edges))

    @cached_property
    def rims(self) -> dict[frozenset[int], frozenset[int]]:
        """The edges round sets of faces, as far as they were asked for (see ``assembly.shape``)."""
        return {}

    @cached_property
    def outlines(self) -> tuple[Outline, ...]:
        """The outline of each face."""
        return tuple(self.traced(face.loop) for face in self.faces)

    @cached_property
    def shapes(self) -> tuple[tuple[object, ...], ...]:
        """A key for each face, equal for faces of one shape in one place, holes and all."""
        return tuple(
            (
                shape_key(self.outlines[i]),
                *(shape_key(self.traced(hole)) for hole in face.holes),
            )
            for i, face in enumerate(self.faces)
        )

    @cached_property
    def boxes(self) -> NDArray[np.float64]:
        """(faces, 4): left, top, right, bottom of each face."""
        return np.array([box(o) for o in self.outlines])

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

    def locate_all(self, points: Sequence[Point]) -> tuple[int | None, ...]:
        """The face strictly around each of many points, as ``locate`` tells it."""
        located: list[int | None] = [None] * len(points)
        if not points:
            return ()
        at = np.array([p.floats() for p in points])
        x, y = at[:, 0, None], at[:, 1, None]
        left, top, right, bottom = self.boxes.T
        near = (left <= x + HAIR) & (right >= x - HAIR) & (top <= y + HAIR) & (bottom >= y - HAIR)
        which, faces = np.nonzero(near)
        array = self._told(at[which], faces)
        for point, face, sign in zip(which.tolist(), faces.tolist(), array.tolist(), strict=True):
            if sign > 0 or (
                sign == 0 and located[point] is None and self._holds(face, points[point])
            ):
                located[point] = face
        return tuple(located)

    def _told(self, at: NDArray[np.float64], faces: NDArray[np.intp]) -> NDArray[np.int8]:
        """For places ``at`` (n, 2) with a face each: 1 inside, -1 outside, as ``contains`` tells it
        in floats; 0 where floats are too near to a tie, and for faces with arcs or holes."""
        array = np.zeros(len(faces), np.int8)
        places = np.array(self.places)
        for same in self._straight.values():
            which = np.flatnonzero(np.isin(faces, list(same)))
            if not len(which):
                continue
            corners = places[np.array([same[f] for f in faces[which].tolist()])]
            one, other = np.roll(corners, 1, axis=1), corners
            gap = at[which][:, None] - one
            step = other - one
            turn = step[..., 0] * gap[..., 1] - step[..., 1] * gap[..., 0]
            hair = HAIR * (1 + np.abs(corners).max(axis=(1, 2)) ** 2)
            y = at[which, 1, None]
            rise = np.minimum(np.abs(one[..., 1] - y), np.abs(other[..., 1] - y))
            sure = (np.minimum(np.abs(turn), rise) >= hair[:, None]).all(axis=1)
            above, below = one[..., 1] > y, other[..., 1] > y
            crossed = (above != below) & ((turn > 0) == below)
            inside = np.count_nonzero(crossed, axis=1) % 2 == 1
            array[which] = np.where(sure, np.where(inside, 1, -1), 0)
        return array

    @cached_property
    def _straight(self) -> dict[int, dict[int, tuple[int, ...]]]:
        """The corners of each face without arcs or holes, by how many there are."""
        crossings: dict[int, dict[int, tuple[int, ...]]] = defaultdict(dict)
        for i, face in enumerate(self.faces):
            if not face.holes and not any(face.loop.centres):
                crossings[len(face.loop.corners)][i] = face.loop.corners
        return crossings

    def _holds(self, face: int, point: Point) -> bool:
        face_there = self.faces[face]
        return self._side(face_there.loop, point) > 0 and all(
            self._side(hole, point) < 0 for hole in face_there.holes
        )

    def _side(self, loop: Loop, point: Point) -> int:
        if any(loop.centres):
            known = self._rough.get(id(loop))
            if known is None:
                traced = self.traced(loop)
                known = self._rough[id(loop)] = (traced, rough_sides(traced))
            return side(known[0], point, known[1])
        places = [self.places[v] for v in loop.corners]
        return contains([self.points[v] for v in loop.corners], point, places)

    @cached_property
    def _rough(self) -> dict[int, tuple[Outline, list[RoughSide]]]:
        """Curved loops asked for, by identity, with their sides in floats."""
        return {}
