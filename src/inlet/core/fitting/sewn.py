"""A block sewn up from pieces as they are cut: where edges that meet differ, what parts measure.

Along each straight line of seams lie runs on either side of it, and between junctions that both
sides have, stretches (see ``stretches``). This holds whatever the order of sewing: the last seam
sewn along a stretch closes it.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

from inlet.core.assembly import Faces, Join, all_joins, rim
from inlet.core.draft import Draft, float_points_of
from inlet.core.fitting.runs import Run
from inlet.core.fitting.stretches import EdgeSpan, SewnStretch, stretches
from inlet.core.geometry import Polygon, is_rectangle

Size = tuple[float, float]
Side = list[list[int]]


class Layout:
    """Where the runs of a drawing lie, however long they come out: ``stretches`` are its seams,
    ``at`` the run on an edge with a patch behind it."""

    def __init__(self, draft: Draft, runs: Sequence[Run]) -> None:
        self.draft = draft
        self.places = float_points_of(draft)
        self.at = {(k, run.face): i for i, run in enumerate(runs) for k in run.edges}
        self.stretches = tuple(self._stretches(runs))

    def _stretches(self, runs: Sequence[Run]) -> Iterator[SewnStretch]:
        edges, places = self.draft.arrangement.edges, self.places
        sides: dict[int, tuple[list[EdgeSpan], list[EdgeSpan]]] = defaultdict(lambda: ([], []))
        for i, run in enumerate(runs):
            first = edges[run.edges[0]]
            ends = sorted({places[v] for k in run.edges for v in edges[k][:2]})
            along = places[first.start] < places[first.end]
            sides[first.line][(first.right == run.face) == along].append(
                EdgeSpan(ends[0], ends[-1], i)
            )
        for _, pair in sorted(sides.items()):
            yield from stretches(*pair)

    def sides(self, faces: Faces, outline: Polygon) -> tuple[Side, Side] | None:
        """The runs along the sides of a rectangle of patches: along its first side and the one
        across from it, then along the others. None for another shape."""
        if not is_rectangle(outline):
            return None
        edges, places = self.draft.arrangement.edges, self.places
        (x0, y0), (x1, y1) = (p.floats() for p in outline[:2])
        beside: dict[int, list[int]] = {}
        across: dict[int, list[int]] = {}
        for k in sorted(rim(self.draft, faces)):
            edge = edges[k]
            run = self.at.get((k, edge.right if edge.right in faces else edge.left))
            if run is None:
                return None
            (x, y), (u, v) = places[edge.start], places[edge.end]
            along = abs((x1 - x0) * (u - x) + (y1 - y0) * (v - y))
            square = abs((x1 - x0) * (v - y) - (y1 - y0) * (u - x))
            side = (beside if along > square else across).setdefault(edge.line, [])
            if run not in side:
                side.append(run)
        return list(beside.values()), list(across.values())


def lengths_of(runs: Sequence[Run], layout: Layout) -> list[float]:
    """How long each run comes out: as made; loose ones as long as what they are sewn to."""
    long = [run.made for run in runs]
    loose = {i for i, run in enumerate(runs) if run.loose}
    while loose:
        known: dict[int, float] = {}
        for stretch in layout.stretches:
            for these, those in (stretch, stretch[::-1]):
                if len(these) == 1 and these[0] in loose and loose.isdisjoint(those):
                    known[runs[these[0]].face] = sum(long[i] for i in those)
        solved = [i for i in loose if runs[i].face in known]
        if not solved:
            break
        for i in solved:
            long[i] = known[runs[i].face]
        loose.difference_update(solved)
    return long


@dataclass(frozen=True, eq=False)
class SewnUp:
    """A block sewn from what is cut: ``long`` is how long each run comes out."""

    layout: Layout
    runs: Sequence[Run]
    long: Sequence[float]

    @cached_property
    def differences(self) -> tuple[float, ...]:
        """By how much the two edges of each stretch differ."""
        return tuple(abs(s.differs(self.long)) for s in self.layout.stretches)

    @cached_property
    def worst(self) -> float:
        return max(self.differences, default=0.0)

    def size(self, faces: Faces, outline: Polygon) -> Size | None:
        """What a rectangle of patches shows, (along its first side, along the other): opposite
        sides eased to one another. None for another shape."""
        sides = self.layout.sides(faces, outline)
        if sides is None:
            return None
        sums = [[sum(self.long[i] for i in found) for found in pair] for pair in sides]
        return sum(sums[0]) / 2, sum(sums[1]) / 2

    def block_size(self, faces: Faces, outline: Polygon) -> Size | None:
        """``size`` of a rectangle that lies square to the block's edges, its width first, from
        whichever corner its outline begins."""
        size = self.size(faces, outline)
        upright = outline[0].x == outline[1].x
        return size if size is None or not upright else size[::-1]

    def at_joins(self, last: Join) -> dict[int, float]:
        """By the number of each join: how far its edges differ, as far as it closes stretches."""
        closes = {k: join.number for join in all_joins(last) for k in join.edges}
        out: dict[int, float] = dict.fromkeys(sorted(set(closes.values())), 0.0)
        for stretch, differs in zip(self.layout.stretches, self.differences, strict=True):
            edges = {k for i in stretch.one for k in self.runs[i].edges}
            late = max((closes[k] for k in edges if k in closes), default=None)
            if late is not None:
                out[late] = max(out[late], differs)
        return out
