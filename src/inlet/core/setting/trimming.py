"""Blocks of a quilt trimmed to one size: which, how much, and which must not be.

A block is trimmed evenly all round. Where a seam reaches its edge on a slant, as at the point of a
flying goose, trimming cuts the point off: such a block is left as it is. A diagonal that ends in a
corner at 45 degrees stays in the corner.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.draft import draft, points_of
from inlet.core.geometry import Circle
from inlet.core.memo import Latest
from inlet.core.numbers import Exact, Fraction, nearest_mark
from inlet.core.project import Block, Pair, Project, Quilt
from inlet.core.setting.top import Top


class Trimming(NamedTuple):
    """Blocks and motifs to trim and the finished size of each then, by id; those that are too large
    as well, but have ``points`` at their edge."""

    sizes: dict[str, Pair]
    points: tuple[str, ...]


def trimming_of(top: Top, project: Project) -> Trimming:
    """How all that lies in the rows comes to one size for each length that is drawn: the smallest
    there is, read off a ruler. What is no more than a thread larger is left."""
    quilt, seam = project.quilt or Quilt(), project.measure.seam
    system = project.measure.system
    lying = {
        piece.lying.placed.block
        for row in top.rows
        for piece in row.pieces
        if piece.lying is not None
    }
    smallest: dict[Exact, Exact] = {}
    for name in lying:
        size = top.sizes[name]
        for drawn, length in zip(size.drawn, size.in_use, strict=True):
            smallest[drawn] = min(length, smallest.get(drawn, length))
    to = {
        drawn: nearest_mark(length + 2 * seam, system.checked_to) - 2 * seam
        for drawn, length in smallest.items()
    }
    sizes: dict[str, Pair] = {}
    points = []
    for name in sorted(lying):
        size = top.sizes[name]
        wanted = to[size.drawn[0]], to[size.drawn[1]]
        over = max(a - b for a, b in zip(size.in_use, wanted, strict=True))
        if over <= system.thread:
            continue
        if any(points_at_edge(project.block(block)) for block in _blocks_of(quilt, name)):
            points.append(name)
        else:
            sizes[name] = wanted
    return Trimming(sizes, tuple(points))


def _blocks_of(quilt: Quilt, name: str) -> Iterator[str]:
    """The blocks that something laid in a place is made of."""
    motif = quilt.motif(name)
    if motif is None:
        yield name
    else:
        yield from dict.fromkeys(filter(None, (motif.block, *(p.block for p in motif.places))))


_POINTS: Latest[Block, bool] = Latest(200)


def points_at_edge(block: Block) -> bool:
    """Does a straight seam reach the block's edge on a slant, other than into a corner at 45
    degrees?"""
    return _POINTS.of(block, _points_at_edge)


def _points_at_edge(block: Block) -> bool:
    drawn = draft(block)
    places = points_of(drawn)
    wide, high = block.finished
    zero = Fraction(0)
    for edge in drawn.arrangement.edges:
        if -1 in (edge.left, edge.right):
            continue
        if isinstance(drawn.arrangement.lines[edge.line], Circle):
            continue
        begin, end = places[edge.start], places[edge.end]
        across, down = abs(end.x - begin.x), abs(end.y - begin.y)
        if not across or not down:
            continue
        for p in (begin, end):
            at_side, at_end = p.x in (zero, wide), p.y in (zero, high)
            if (at_side or at_end) and not (at_side and at_end and across == down):
                return True
    return False


def trims_of(top: Top) -> Counter[str]:
    """How many of each block or motif in the rows are trimmed, by its id."""
    return Counter(
        piece.lying.placed.block
        for row in top.rows
        for piece in row.pieces
        if piece.lying is not None and top.sizes[piece.lying.placed.block].trimmed is not None
    )
