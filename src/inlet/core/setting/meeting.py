"""Where edges of a top meet that differ: pieces as large as they come out, sewn to one another.

Every piece has a length along each of its edges. Along a line of seams these give stretches between
junctions that both sides have; the two sides of a stretch are eased to one another, or trimmed,
where they differ.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from math import hypot
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.fitting import EdgeSpan, stretches
from inlet.core.geometry import bounds
from inlet.core.planning import cut_to_meet
from inlet.core.project import Measure, Project, Quilt
from inlet.core.setting.block_sizes import as_lying
from inlet.core.setting.cuts import NAMES
from inlet.core.setting.pieces import TopPiece
from inlet.core.setting.sewn_pieces import sewn_size
from inlet.core.setting.top import Top

HAIR = 2e-4
"""Lengths that come out are known to a ten-thousandth each."""
FINE = 5
"""Decimals by which places on a top are the same."""
Place = tuple[float, float]


class Apart(NamedTuple):
    """A seam whose edges differ by more than a thread: where it runs, what is sewn to what, how
    long the longer edge is and by how much it is longer."""

    begin: Place
    end: Place
    what: tuple[str, str]
    length: float
    differs: float


class _Edge(NamedTuple):
    """One edge of a piece: whose it is, and how long it comes out."""

    what: str
    length: float


def edges_apart(top: Top, project: Project) -> tuple[Apart, ...]:
    """Every seam of the top whose edges differ by more than a thread."""
    least = float(project.measure.system.thread) + HAIR
    return tuple(apart for apart in _seams(top, project) if apart.differs > least)


def _seams(top: Top, project: Project) -> Iterator[Apart]:
    """Every stretch of the top's seams, the longer edge first."""
    edges: list[_Edge] = []
    lines: dict[tuple[object, ...], tuple[list[EdgeSpan], list[EdgeSpan]]] = defaultdict(
        lambda: ([], [])
    )
    for piece, what, lengths in _pieces(top, project):
        check()
        corners = [(round(x, FINE), round(y, FINE)) for x, y in (p.floats() for p in piece.outline)]
        for i, begin in enumerate(corners):
            end = corners[(i + 1) % len(corners)]
            length = _along(begin, end, lengths) if begin != end else None
            if length is None:
                continue
            first, last = sorted((begin, end))
            lines[_line(first, last)][first == begin].append(EdgeSpan(first, last, len(edges)))
            edges.append(_Edge(what, length))
    for pair in lines.values():
        spans = {span.number: span for side in pair for span in side}
        for stretch in stretches(*pair):
            one, other = (tuple(edges[i] for i in side) for side in stretch)
            if sum(e.length for e in one) < sum(e.length for e in other):
                one, other = other, one
            length = sum(e.length for e in one)
            yield Apart(
                spans[stretch.one[0]].begin,
                spans[stretch.one[-1]].end,
                (_named(one), _named(other)),
                length,
                length - sum(e.length for e in other),
            )


def _line(begin: Place, end: Place) -> tuple[object, ...]:
    """The line through two places, the same for all on it."""
    dx, dy = end[0] - begin[0], end[1] - begin[1]
    long = hypot(dx, dy)
    dx, dy = round(dx / long, 6), round(dy / long, 6)
    return dx, dy, round(dx * begin[1] - dy * begin[0], FINE - 1)


Lengths = Mapping[str, float]
"""What a piece shows along x and y, or, on point, along u and v."""


def _along(begin: Place, end: Place, lengths: Lengths) -> float | None:
    """How long an edge comes out; None of a slanted one."""
    dx, dy = abs(end[0] - begin[0]), abs(end[1] - begin[1])
    if min(dx, dy) < 10**-FINE:
        return lengths.get("x" if dx > dy else "y")
    down_right = (end[0] > begin[0]) == (end[1] > begin[1])
    return lengths.get("u" if down_right else "v")


def _pieces(top: Top, project: Project) -> Iterator[tuple[TopPiece, str, Lengths]]:
    """Every piece with its name and what it shows."""
    quilt, measure = project.quilt or Quilt(), project.measure
    names = {block.id: block.title for block in project.blocks}
    names |= {motif.id: motif.name or motif.id for motif in quilt.motifs}
    axes = ("u", "v") if quilt.on_point else ("x", "y")
    kinds = {kind: name.removesuffix("s").lower() for kind, name in NAMES.items()}
    for row in top.rows:
        for piece in row.pieces:
            what = names[piece.lying.placed.block] if piece.lying else kinds[piece.kind]
            size = sewn_size(piece, top, quilt.on_point, measure)
            lengths = {} if size is None else dict(zip(axes, map(float, size), strict=True))
            yield piece, what, lengths
    for each in top.borders:
        for piece in each.pieces:
            placed = piece.placed
            if placed is not None:
                wide, high = as_lying(top.sizes[placed.block].in_use, placed)
                yield piece, names[placed.block], {"x": float(wide), "y": float(high)}
            else:
                yield piece, each.label.lower(), {} if each.mitred else _strip(piece, measure)


def _strip(piece: TopPiece, measure: Measure) -> Lengths:
    """A strip of a border is cut to what it is sewn to."""
    left, head, right, foot = bounds(piece.outline)
    twice = 2 * measure.seam
    wide, high = (
        cut_to_meet(side + twice, measure) - twice for side in (right - left, foot - head)
    )
    return {"x": float(wide), "y": float(high)}


def _named(edges: tuple[_Edge, ...]) -> str:
    """What lies on one side of a seam: what it is, or that there are several."""
    what = list(dict.fromkeys(edge.what for edge in edges))
    listed = " and ".join(what[:2]) if len(what) < 3 else f"{what[0]}, {what[1]} and others"
    return listed if len(edges) == 1 else f"{len(edges)} pieces ({listed})"
