"""The outline of patches taken together, and what two such parts share."""

from __future__ import annotations

from inlet.core.assembly.net import Faces
from inlet.core.assembly.tree import Join, faces_of
from inlet.core.draft import Draft, scaled_points
from inlet.core.geometry import Arrangement, Circle, Outline
from inlet.core.memo import memo
from inlet.core.numbers import Exact


def rim(draft: Draft, faces: Faces) -> frozenset[int]:
    """The edges round a part: those of an odd number of its patches."""
    return _rim(draft.arrangement, faces)


def _rim(arrangement: Arrangement, faces: Faces) -> frozenset[int]:
    known = arrangement.rims
    rim_edges = known.get(faces)
    if rim_edges is None:
        around: set[int] = set()
        for f in faces:
            around.symmetric_difference_update(arrangement.edges_of[f])
        rim_edges = known[faces] = frozenset(around)
    return rim_edges


def join_rims(draft: Draft, join: Join) -> Faces:
    """The patches a join makes one part of. What runs round them runs round just one of its two
    sides, which is quicker told, and remembered here, than from every patch."""
    if join.faces not in draft.arrangement.rims:
        one, other = map(faces_of, join.sides)
        draft.arrangement.rims[join.faces] = rim(draft, one) ^ rim(draft, other)
    return join.faces


def part_shape(draft: Draft, faces: Faces) -> Outline:
    """The outline of a part, clockwise, at finished size, arcs with a corner at every vertex;
    empty where its edge is no single loop that meets each vertex once."""
    return _part_shape(draft.arrangement, draft.block.scale, faces)


@memo(2000)
def _part_shape(arrangement: Arrangement, scale: tuple[Exact, Exact], faces: Faces) -> Outline:
    """Remembered: a part is asked for its shape by each seam at it."""
    following: dict[int, tuple[int, int]] = {}
    for k in _rim(arrangement, faces):
        edge = arrangement.edges[k]
        if edge.right in faces:
            following[edge.start] = (edge.end, edge.line)
        else:
            following[edge.end] = (edge.start, edge.line)
    places = arrangement.places
    first = min(following, key=lambda v: (places[v][1], places[v][0]))
    corners: list[tuple[int, int]] = []
    at, last = first, -1
    start_line = following[first][1]
    lines = arrangement.lines
    for _ in range(len(following)):
        to, line = following[at]
        if line != last or isinstance(lines[line], Circle):
            corners.append((at, line))
        at, last = to, line
        if at == first:
            break
    else:
        return Outline(())
    if start_line == last and len(corners) > 1 and not isinstance(lines[last], Circle):
        corners = corners[1:]
    sx, sy = scale
    points = scaled_points(arrangement, sx, sy)
    arcs = [
        (i, on.centre.scaled(sx, sy))
        for i, (_, line) in enumerate(corners)
        if isinstance(on := lines[line], Circle)
    ]
    return Outline(tuple(points[v] for v, _ in corners), tuple(arcs))


def shared_edges(draft: Draft, one: Faces, other: Faces) -> list[int]:
    """The edges of the arrangement between two parts: those round both of them."""
    return sorted(rim(draft, one) & rim(draft, other))
