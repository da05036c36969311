"""Allowances folded as seams are pressed, exactly: what lies behind the block, layer on layer.

Each patch is its finished shape, which lies still, and a strip of allowance along each side. A seam
that is sewn and opened takes what lies beyond its line on both parts: the allowances of one part
lie over the other, and the other way round. Pressed toward a part, that part's are folded back
along the line, behind it, and the other's stay where they are, behind it as well; pressed open,
each part's are folded back on itself. What was folded before and reaches beyond the line is folded
with it, as fabric is.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import groupby, pairwise
from typing import Literal, NamedTuple

from inlet.core.assembly import Join, faces_of
from inlet.core.cancellation import check
from inlet.core.draft import Draft
from inlet.core.geometry import (
    Line,
    Point,
    Polygon,
    area,
    clip,
    contains,
    edges,
    exact_chain,
    flip,
    line_through,
    narrowest,
    offset_sides,
)
from inlet.core.numbers import Exact
from inlet.core.pressing.junctions import Spin
from inlet.core.pressing.spans import PressedSeams, Toward


class Layer(NamedTuple):
    """A piece of allowance as it lies behind the block: the patch it is fabric of, how often it was
    folded back, its outline, and how far from the front it lies: what was pressed later lies
    behind, and of one seam the part's own allowance before the other's."""

    patch: int
    folds: int
    outline: Polygon
    depth: int = 0


class Fold(NamedTuple):
    """A straight stretch of a seam. Seen from ``start`` to ``end``, the side ``right`` of the join
    lies on the right hand. ``reach`` is how far beyond each end what is folded goes: an allowance
    where the seam is sewn to the raw edge, nothing at a dot."""

    start: Point
    end: Point
    right: Literal[0, 1]
    reach: tuple[Exact | int, Exact | int]


def folded(seams: PressedSeams, seam: Exact, ways: Sequence[Toward]) -> tuple[Layer, ...]:
    """The allowances of a block, its spans pressed ``ways``, in the order in which that is done. At
    the outer edge they stand out, as they do until the block is sewn on."""
    draft = seams.draft
    lying = {patch.face: _strips(draft, patch.face, seam) for patch in draft.patches}
    spins = {j.vertex: j.spin for j in seams.junctions if j.spin}
    corners = _at_corners(seams)
    for order, join in enumerate(seams.joins, 1):
        check()
        for run in _runs(seams, ways, join, spins):
            for side in (0, 1):
                back = run.toward in (side, None)
                depth = 2 * order + (not back)
                for face in faces_of(join.sides[side]) - (corners[join.number] - run.along):
                    ends = [_at_end(end, face, seam) for end in run.ends]
                    if _ELSEWHERE in ends:
                        continue
                    for fold in _folds(draft, join, run, (ends[0], ends[1])):
                        lying[face] = _beyond(lying[face], fold, side, back, seam, depth)
    return tuple(layer for each in lying.values() for layer in each)


THIN = 12
"""A piece narrower than this part of an allowance is a sliver."""


def without_slivers(draft: Draft, layers: Iterable[Layer], seam: Exact) -> tuple[Layer, ...]:
    """Layers to draw: arcs are folded chord by chord, which leaves slivers where fabric is
    eased."""
    if not any(patch.arcs for patch in draft.patches):
        return tuple(layers)
    least = float(seam) / THIN
    return tuple(
        layer for layer in layers if narrowest([p.floats() for p in layer.outline]) > least
    )


class _Run(NamedTuple):
    """Edges ``begin`` up to ``end`` of a join pressed one way, ``along`` those patches. Its
    ``ends`` are a stop (None), the raw edge (an empty mapping), or a whirled centre (which patches
    go with this run there)."""

    begin: int
    end: int
    toward: Toward
    along: frozenset[int]
    ends: tuple[Mapping[int, bool] | None, Mapping[int, bool] | None]


def _at_corners(seams: PressedSeams) -> Mapping[int, frozenset[int]]:
    """For each join, the patches at the corners it turns: there, one that does not lie along a leg
    is out of its way."""
    corner_folds: dict[int, frozenset[int]] = defaultdict(frozenset)
    for junction in seams.junctions:
        for seat in junction.seats:
            if seat.turns:
                corner_folds[seat.join.number] |= frozenset(junction.faces)
    return corner_folds


_ELSEWHERE = -1


def _at_end(end: Mapping[int, bool] | None, face: int, seam: Exact) -> Exact | int:
    """How far beyond a run's end a patch is folded with it; elsewhere if with the next run."""
    if not end:
        return 0 if end is None else seam
    goes_with = end.get(face)
    return 0 if goes_with is None else seam if goes_with else _ELSEWHERE


def _runs(
    seams: PressedSeams, ways: Sequence[Toward], join: Join, spins: Mapping[int, Spin]
) -> Iterator[_Run]:
    stops = {*join.dots, *join.pivots}
    for leg in join.legs:
        low, high = sorted((leg.begin, leg.end))
        begin = low
        for place in range(low, high):
            here = seams.toward(ways, join, place)
            if place + 1 < high and seams.toward(ways, join, place + 1) == here:
                continue
            ends: list[Mapping[int, bool] | None] = []
            for i, outer, last in ((begin, low, begin), (place + 1, high, place)):
                v = join.vertices[i]
                if i == outer:
                    ends.append(None if v in stops else {})
                else:
                    beside = spins[v].beside
                    ends.append({f: arm.place == last for f, arm in beside.items()})
            edges = (seams.draft.arrangement.edges[k] for k in join.edges[begin : place + 1])
            along = frozenset(face for edge in edges for face in (edge.right, edge.left))
            yield _Run(begin, place + 1, here, along, (ends[0], ends[1]))
            begin = place + 1


def _folds(
    draft: Draft, join: Join, run: _Run, reach: tuple[Exact | int, Exact | int]
) -> Iterator[Fold]:
    """A run's straight stretches; arcs in chords."""
    stretches = list(_straight(draft, join, run.begin, run.end))
    last = len(stretches) - 1
    for k, (p, q, right) in enumerate(stretches):
        side: Literal[0, 1] = 0 if right in faces_of(join.sides[0]) else 1
        yield Fold(p, q, side, (reach[0] if k == 0 else 0, reach[1] if k == last else 0))


def _straight(draft: Draft, join: Join, low: int, high: int) -> Iterator[tuple[Point, Point, int]]:
    """The pieces of a seam between two of its vertices that lie on one line each, with a patch on
    their right hand."""
    arrangement = draft.arrangement

    def run_of(i: int) -> object:
        return i if join.curves[i].centre else arrangement.edges[join.edges[i]].line

    for _, straight_edges in groupby(range(low, high), run_of):
        run = list(straight_edges)
        edge = arrangement.edges[join.edges[run[0]]]
        right = edge.right if edge.start == join.vertices[run[0]] else edge.left
        curve = join.curves[run[0]]
        end = join.curves[run[-1]].end
        chain = (*exact_chain(curve), end) if curve.centre else (curve.start, end)
        yield from ((p, q, right) for p, q in pairwise(chain))


def layers_at(draft: Draft, layers: Sequence[Layer], place: Point) -> int:
    """How many layers of fabric lie at a place that is on the edge of none: the patch there, and
    the allowances behind it."""
    patches = sum(contains(patch.polygon, place) > 0 for patch in draft.patches)
    return patches + sum(contains(layer.outline, place) > 0 for layer in layers)


def _strips(draft: Draft, face: int, seam: Exact) -> list[Layer]:
    """The allowance of a patch, a strip along each side, its tips trimmed an allowance beyond the
    ends of the side."""
    polygon = draft.patches[face].polygon
    raw = offset_sides(polygon, [seam] * len(polygon))
    strips = []
    sides = zip(edges(polygon), edges(raw), strict=True)
    for (p, q), (outer_p, outer_q) in sides:
        strip: Polygon = (q, p, outer_p, outer_q)
        strip = strip if area(strip) > 0 else strip[::-1]
        for line in _ends(p, q, (seam, seam)):
            strip = clip(strip, line) if strip else strip
        if strip:
            strips.append(Layer(face, 0, strip))
    return strips


def _ends(p: Point, q: Point, reach: tuple[Exact | int, Exact | int]) -> tuple[Line, Line]:
    """The lines square to a stretch ``reach`` beyond its ends; it lies on their growing side."""
    step = q.minus(p)
    at_start = Line(step.x, step.y, step.x * p.x + step.y * p.y)
    at_end = Line(-step.x, -step.y, -(step.x * q.x + step.y * q.y))
    return at_start.shifted(-reach[0]), at_end.shifted(-reach[1])


def _beyond(
    layers: Sequence[Layer], fold: Fold, side: int, back: bool, seam: Exact, depth: int
) -> list[Layer]:
    """The layers of a part on one side of a seam once it is opened: what lies beyond its line, no
    farther than an allowance, is folded ``back`` or stays, and lies at a new ``depth``."""
    line = line_through(fold.start, fold.end)  # the right hand is its growing side
    beyond = line.opposite() if side == fold.right else line
    region = (beyond, beyond.shifted(seam).opposite(), *_ends(fold.start, fold.end, fold.reach))
    out = []
    for layer in layers:
        inside, outside = _split(layer.outline, region)
        if not inside:
            out.append(layer)
            continue
        out += [layer._replace(outline=piece) for piece in outside]
        turned = flip(inside, line) if back else inside
        out.append(Layer(layer.patch, layer.folds + back, turned, depth))
    return out


def _split(polygon: Polygon, region: Sequence[Line]) -> tuple[Polygon, list[Polygon]]:
    """A convex polygon's part on the growing side of every line, and what is cut off it."""
    outside = []
    for line in region:
        if not polygon:
            break
        cut = clip(polygon, line.opposite())
        if cut:
            outside.append(cut)
        polygon = clip(polygon, line)
    return polygon, outside
