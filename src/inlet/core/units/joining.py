"""The joins of a whole block, once it is known what is sewn of what.

Each part comes with an order of its own: an awkward one as the assembler found it, a row from its
first part on, or in pairs. In such an order the ready parts are the part's parts. Here they are
put together: what made a part takes its place in the next, and the joins are numbered through,
those of the first of two sides before those of the second.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import NamedTuple

from inlet.core.assembly import (
    Faces,
    Finish,
    Join,
    LeftOpen,
    Leg,
    Order,
    Side,
    faces_of,
    shared_edges,
)
from inlet.core.cancellation import check
from inlet.core.draft import Draft, points_of
from inlet.core.geometry import Curve, from_first_corner
from inlet.core.trampoline import Steps, run
from inlet.core.units.parts import Part, walk

LONG_ROW = 6
"""Equal parts in a row from which on they are joined in pairs."""


def with_joins(draft: Draft, root: Part, orders: Mapping[Faces, Order]) -> Part:
    """A tree of parts with the joins that sew each of them; ``orders`` are those of its awkward
    parts, by their patches."""
    joins = [orders[part.faces] for part in walk(root) if part.awkward and not part.stuck]
    turns = {v for order in joins for join in order.joins for v in join.pivots}
    return run(_Tree(draft, orders, turns, {}).part(root, 1)) if root.parts else root


class _Tree(NamedTuple):
    """``turns`` are the vertices where some seam of the block turns a corner, ``made`` what parts
    have become, by their patches."""

    draft: Draft
    orders: Mapping[Faces, Order]
    turns: set[int]
    made: dict[Faces, Part]

    def part(self, part: Part, first: int) -> Steps[Part]:
        """A part with its joins, those inside it numbered from ``first`` on."""
        check()
        order = self.order(part)
        starts, numbers = _numbered(order, first) if order else ({}, [])
        parts = []
        for inner in part.parts:
            if inner.parts:
                inner = yield self.part(inner, starts.get(inner.faces, first))
            else:
                self.made[inner.faces] = inner
            parts.append(inner)
        joins = self.joins({p.faces: p.side for p in parts}, order, numbers)
        nested = tuple(self.made[inner.faces] for inner in part.nested)
        whole = part._replace(parts=tuple(parts), joins=joins, nested=nested)
        self.made[part.faces] = whole
        return whole

    def order(self, part: Part) -> Sequence[Join]:
        if part.stuck:
            return ()
        return self.orders[part.faces].joins if part.awkward else _row(self.draft, part)

    def joins(
        self, ready: Mapping[Faces, Side], order: Sequence[Join], numbers: Sequence[int]
    ) -> tuple[Join, ...]:
        """A part's order as joins of the block, with what made its parts in their place; the n-th
        of it gets the n-th of ``numbers``."""
        new: list[Join] = []
        for number, join in zip(numbers, order, strict=True):
            one, other = join.sides
            seam = Join(
                number,
                (
                    new[one.number - 1] if isinstance(one, Join) else ready[one],
                    new[other.number - 1] if isinstance(other, Join) else ready[other],
                ),
                join.faces,
                join.edges,
                join.vertices,
                join.curves,
                join.legs,
                join.pivots,
                tuple(v for v in sorted(set(join.ends)) if v in self.turns) if self.turns else (),
                tuple(LeftOpen(v, numbers[late - 1]) for v, late in join.left_open),
                tuple(Finish(v, new[early.number - 1]) for v, early in join.finishes),
            )
            new.append(seam)
        return tuple(new)


def _numbered(order: Sequence[Join], first: int) -> tuple[dict[Faces, int], list[int]]:
    """Where the joins inside each ready part of an order begin to be numbered, and the numbers of
    the order's own joins: everything in the first of two sides is sewn before the second."""
    starts: dict[Faces, int] = {}
    numbers = [0] * len(order)
    at = first
    left: list[tuple[Side, bool]] = [(order[-1], False)]
    while left:
        side, sides_done = left.pop()
        if not isinstance(side, Join):
            starts[side] = at
            at += len(side) - 1  # a part takes a join less than it has patches
        elif sides_done:
            numbers[side.number - 1] = at
            at += 1
        else:
            one, other = side.sides
            left += [(side, True), (other, False), (one, False)]
    return starts, numbers


# --- rows -----------------------------------------------------------------------------------------


def _row(draft: Draft, part: Part) -> list[Join]:
    """The joins of a row, its parts ready. Long rows of equal parts are joined in pairs, then in
    pairs of pairs, an odd one last; others from their first part on."""
    between = [
        _chain(draft, shared_edges(draft, one.faces, other.faces))
        for one, other in pairwise(part.parts)
    ]
    points = points_of(draft)
    joins: list[Join] = []

    def join(one: _Stretch, other: _Stretch) -> _Stretch:
        edges, vertices = between[one.last]
        curves = tuple(Curve(points[v], points[w]) for v, w in pairwise(vertices))
        faces = faces_of(one.side) | faces_of(other.side)
        sides, legs = (one.side, other.side), (Leg(0, len(edges)),)
        joins.append(Join(len(joins) + 1, sides, faces, edges, vertices, curves, legs))
        return _Stretch(joins[-1], other.last)

    left = [_Stretch(inner.faces, i) for i, inner in enumerate(part.parts)]
    if len(left) < LONG_ROW or not _all_alike(part.parts):
        so_far = left[0]
        for stretch in left[1:]:
            so_far = join(so_far, stretch)
        return joins
    while len(left) > 1:
        pairs = [join(*pair) for pair in zip(left[::2], left[1::2], strict=False)]
        left = pairs + left[2 * len(pairs) :]
    return joins


class _Stretch(NamedTuple):
    """A stretch of a row sewn together, as far as its ``last`` part."""

    side: Side
    last: int


def _chain(draft: Draft, edges: Sequence[int]) -> tuple[tuple[int, ...], tuple[int, ...]]:
    """The edges of a seam in order, and the vertices along them, from the end of lower number."""
    chain = draft.arrangement.edges
    if len(edges) == 1:
        edge = chain[edges[0]]
        return (edges[0],), (min(edge.start, edge.end), max(edge.start, edge.end))
    at: dict[int, list[int]] = {}
    for k in edges:
        for v in (chain[k].start, chain[k].end):
            at.setdefault(v, []).append(k)
    v = min(v for v, met in at.items() if len(met) == 1)
    walked, vertices = list[int](), [v]
    while left := at[v]:
        onward = left.pop()
        v = chain[onward].end if chain[onward].start == v else chain[onward].start
        at[v].remove(onward)
        walked.append(onward)
        vertices.append(v)
    return tuple(walked), tuple(vertices)


def _all_alike(parts: Sequence[Part]) -> bool:
    """Are they of one outline, moved, and of as many patches?"""
    first = _moved_away(parts[0])
    return all(_moved_away(part) == first for part in parts[1:])


def _moved_away(part: Part) -> tuple[int, tuple[object, ...]]:
    """How many patches a part has, and its outline from its first corner on."""
    outline = from_first_corner(part.outline)
    return len(part.faces), tuple(p.minus(outline[0]) for p in outline)
