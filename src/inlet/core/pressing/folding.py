"""Allowances folded as seams are pressed, exactly: what lies behind the block, layer on layer.

Each patch is its finished shape, which lies still, and a strip of allowance along each side. A seam
that is sewn and opened takes what lies beyond its line on both parts: the allowances of one part
lie over the other, and the other way round. Pressed toward a part, that part's are folded back
along the line, behind it, and the other's stay where they are, behind it as well; pressed open,
each part's are folded back on itself. What was folded before and reaches beyond the line is folded
with it, as cloth is.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby, pairwise
from typing import Literal, NamedTuple

from inlet.core.assembly.tree import Join, all_joins, faces_of
from inlet.core.draft.patches import Draft
from inlet.core.geometry.curve import exact_chain
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import (
    Line,
    Polygon,
    area,
    clip,
    contains,
    edges,
    flip,
    line_through,
    offset_sides,
)
from inlet.core.numbers.root2 import Exact
from inlet.core.stopping import check

Toward = Literal[0, 1] | None
"""Which of its two sides a join is pressed to; None where it is pressed open."""


class Layer(NamedTuple):
    """A piece of allowance as it lies behind the block: the patch it is cloth of, how often it was
    folded back, and its outline."""

    patch: int
    folds: int
    outline: Polygon


class Fold(NamedTuple):
    """A straight stretch of a seam. Seen from ``start`` to ``end``, the side ``right`` of the join
    lies on the right hand. ``reach`` is how far beyond each end what is folded goes: an allowance
    where the seam is sewn to the raw edge, nothing at a dot."""

    start: Point
    end: Point
    right: Literal[0, 1]
    reach: tuple[Exact | int, Exact | int]


def folded(
    draft: Draft, last: Join, seam: Exact, toward: Mapping[int, Toward]
) -> tuple[Layer, ...]:
    """The allowances of a block, each join pressed as ``toward`` says by its number, in the order
    in which they are sewn; a partial seam when it is finished. At the outer edge they stand out, as
    they do until the block is sewn on."""
    lying = {patch.face: _strips(draft, patch.face, seam) for patch in draft.patches}
    joins = list(all_joins(last))
    pressed_after: dict[int, list[Join]] = defaultdict(list)
    for join in joins:
        finished = [end.finished_by for end in join.left_open]
        pressed_after[max(finished, default=join.number)].append(join)
    for join in joins:
        check()
        for each in sorted(pressed_after[join.number], key=lambda j: -j.number):
            for fold in folds(draft, each, seam):
                for side in (0, 1):
                    back = toward[each.number] in (side, None)
                    for face in faces_of(each.sides[side]):
                        lying[face] = _beyond(lying[face], fold, side, back, seam)
    return tuple(layer for each in lying.values() for layer in each)


def folds(draft: Draft, join: Join, seam: Exact) -> Iterator[Fold]:
    """A seam's straight stretches; arcs in chords."""
    stops = {*join.dots, *join.pivots}
    for leg in join.legs:
        low, high = sorted((leg.begin, leg.end))
        ends = (low, high)
        reach = [0 if join.vertices[i] in stops else seam for i in ends]
        stretches = list(_straight(draft, join, low, high))
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

    for _, found in groupby(range(low, high), run_of):
        run = list(found)
        edge = arrangement.edges[join.edges[run[0]]]
        right = edge.right if edge.start == join.vertices[run[0]] else edge.left
        curve = join.curves[run[0]]
        end = join.curves[run[-1]].end
        chain = (*exact_chain(curve), end) if curve.centre else (curve.start, end)
        yield from ((p, q, right) for p, q in pairwise(chain))


def layers_at(draft: Draft, layers: Sequence[Layer], place: Point) -> int:
    """How many layers of cloth lie at a place that is on the edge of none: the patch there, and the
    allowances behind it."""
    patches = sum(contains(patch.polygon, place) > 0 for patch in draft.patches)
    return patches + sum(contains(layer.outline, place) > 0 for layer in layers)


def _strips(draft: Draft, face: int, seam: Exact) -> list[Layer]:
    """The allowance of a patch, a strip along each side, its tips trimmed an allowance beyond the
    ends of the side."""
    polygon = draft.patches[face].polygon
    raw = offset_sides(polygon, [seam] * len(polygon))
    out = []
    sides = zip(edges(polygon), edges(raw), strict=True)
    for (p, q), (outer_p, outer_q) in sides:
        strip: Polygon = (q, p, outer_p, outer_q)
        strip = strip if area(strip) > 0 else strip[::-1]
        for line in _ends(p, q, (seam, seam)):
            strip = clip(strip, line) if strip else strip
        if strip:
            out.append(Layer(face, 0, strip))
    return out


def _ends(p: Point, q: Point, reach: tuple[Exact | int, Exact | int]) -> tuple[Line, Line]:
    """The lines square to a stretch ``reach`` beyond its ends; it lies on their growing side."""
    step = q.minus(p)
    at_start = Line(step.x, step.y, step.x * p.x + step.y * p.y)
    at_end = Line(-step.x, -step.y, -(step.x * q.x + step.y * q.y))
    return at_start.shifted(-reach[0]), at_end.shifted(-reach[1])


def _beyond(layers: Sequence[Layer], fold: Fold, side: int, back: bool, seam: Exact) -> list[Layer]:
    """The layers of a part on one side of a seam once it is opened: what lies beyond its line, no
    farther than an allowance, is folded ``back`` or stays."""
    line = line_through(fold.start, fold.end)  # the right hand is its growing side
    beyond = line.opposite() if side == fold.right else line
    region = (beyond, beyond.shifted(seam).opposite(), *_ends(fold.start, fold.end, fold.reach))
    out = []
    for layer in layers:
        inside, outside = _split(layer.outline, region)
        if not inside or not back:
            out.append(layer)
            continue
        out += [layer._replace(outline=piece) for piece in outside]
        out.append(Layer(layer.patch, layer.folds + 1, flip(inside, line)))
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
