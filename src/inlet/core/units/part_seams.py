"""What breaking a block down asks of its drawing: the seams in a part and round it, the lines they
lie along, and which parts hang together."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from functools import cached_property
from typing import NamedTuple

from inlet.core.assembly import Faces, part_shape, rim, unpassed
from inlet.core.draft import Draft, grid_lines, points_of
from inlet.core.geometry import Circle, Curve, Line, Outline, is_rectangle

ROUND = object()
"""The slope of a circle."""


class BandLine(NamedTuple):
    """A line of the block's grid: after so many bands across (axis 0) or down (1)."""

    axis: int
    after: int


class PartSeams:
    """The seams of one draft. Edges, lines and vertices are those of its arrangement, by number."""

    def __init__(self, draft: Draft) -> None:
        arrangement, block = draft.arrangement, draft.block
        self.draft = draft
        self.edges = arrangement.edges
        self.edges_of = arrangement.edges_of
        self.slope = [_slope(line) for line in arrangement.lines]
        self.bands = block.columns, block.rows
        self._lines = [{x: i for i, x in enumerate(grid_lines(bands))} for bands in self.bands]
        self.band_line = [self._band_line(line) for line in arrangement.lines]
        self.on_band = [band_line is not None for band_line in self.band_line]
        self.straight = not block.curves
        self._latest: tuple[Faces, tuple[list[int], list[int]]] = (frozenset(), ([], []))

    def _band_line(self, line: Line | Circle) -> BandLine | None:
        """The line of the block's grid that a line of the drawing lies on."""
        if isinstance(line, Circle) or (line.a != 0 and line.b != 0):
            return None
        axis = 0 if line.b == 0 else 1
        band = self._lines[axis].get(line.c / (line.b if axis else line.a))
        return None if band is None else BandLine(axis, band)

    def is_round(self, edge: int) -> bool:
        """Is an edge a piece of a circle?"""
        return self.slope[self.edges[edge].line] is ROUND

    @cached_property
    def unpassed(self) -> set[int]:
        """The vertices where seams meet and none goes straight through."""
        return set(unpassed(self.draft))

    def shape(self, faces: Faces) -> Outline:
        """The outline of a part, finished lengths."""
        return part_shape(self.draft, faces)

    def is_rectangle(self, faces: Faces) -> bool:
        around = {self.edges[k].line for k in rim(self.draft, faces)}
        return len(around) == 4 and is_rectangle(self.shape(faces).corners)

    def of(self, faces: Faces) -> tuple[list[int], list[int]]:
        """The edges between a part's patches, and those round it. The last answer is kept: a part
        is asked for them by all who look at it."""
        known, answer = self._latest
        if known is not faces:
            answer = [], []
            inner, edge = answer
            edges = self.edges
            for f in faces:
                for k in self.edges_of[f]:
                    _, _, _, right, left = edges[k]
                    if right not in faces or left not in faces:
                        edge.append(k)
                    elif right == f:
                        inner.append(k)
            self._latest = faces, answer
        return answer

    def inside(self, faces: Faces) -> set[int]:
        """The vertices inside a part."""
        inner, edge = self.of(faces)
        return self._ends(inner) - self._ends(edge)

    def _ends(self, edges: Iterable[int]) -> set[int]:
        return {v for k in edges for v in (self.edges[k].start, self.edges[k].end)}

    def curve(self, k: int) -> Curve:
        """An edge at finished size; arcs are drawn only where both scales are one."""
        curve, points = self.draft.arrangement.curve(self.edges[k]), points_of(self.draft)
        centre = curve.centre and curve.centre.scaled(*self.draft.block.scale)
        return Curve(points[self.edges[k].start], points[self.edges[k].end], centre)

    def chords(self, faces: Faces, curved: bool = False) -> list[int]:
        """The lines along which seams run through a part from edge to edge; circles only if asked
        for."""
        inner, edge = self.of(faces)
        ends: dict[int, set[int]] = defaultdict(set)
        for k in inner:
            start, end, line, _, _ = self.edges[k]
            ends[line] ^= {start, end}
        boundary = self._ends(edge)
        # Vertices met by an odd number of the line's edges are where its seams begin and end: two
        # of them, both on the part's edge, and the seam runs through.
        return [
            line
            for line, odd in ends.items()
            if len(odd) == 2 and odd <= boundary and (curved or self.slope[line] is not ROUND)
        ]

    def curved_chords(self, faces: Faces) -> set[int]:
        """The circles along which seams run through a part from edge to edge."""
        return {line for line in self.chords(faces, True) if self.slope[line] is ROUND}

    def components(self, faces: Faces, open_edges: Sequence[int]) -> list[Faces]:
        """Patches that hang together by edges that are not sewn last."""
        beside: dict[int, list[int]] = defaultdict(list)
        for k in open_edges:
            right, left = self.edges[k].right, self.edges[k].left
            beside[right].append(left)
            beside[left].append(right)
        parts, seen = [], set()
        for f in sorted(faces):
            if f in seen:
                continue
            group, waiting = {f}, [f]
            while waiting:
                new = [g for g in beside[waiting.pop()] if g not in group]
                group.update(new)
                waiting += new
            seen |= group
            parts.append(frozenset(group))
        return parts


def _slope(line: Line | Circle) -> object:
    if isinstance(line, Circle):
        return ROUND
    return None if line.b == 0 else line.a / line.b
