"""Points that lie at the edge of what is sewn: the next seam must just touch them."""

from __future__ import annotations

from collections import defaultdict

from inlet.core.assembly.net import Faces, heading
from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import dot
from inlet.core.numbers import Exact


def tips_of(draft: Draft, faces: Faces) -> tuple[int, ...]:
    """The vertices in a part's straight edges where seams end at a slant."""
    arrangement = draft.arrangement
    rim: dict[int, list[int]] = defaultdict(list)
    inner: dict[int, list[int]] = defaultdict(list)
    for k in {k for f in faces for k in arrangement.edges_of[f]}:
        edge = arrangement.edges[k]
        within = edge.right in faces and edge.left in faces
        for v in (edge.start, edge.end):
            (inner if within else rim)[v].append(k)
    sx, sy = draft.block.scale
    return tuple(
        v
        for v, sides in sorted(rim.items())
        if len({arrangement.edges[k].line for k in sides}) == 1
        and any(_slants(draft, v, (k, sides[0]), sx, sy) for k in inner.get(v, ()))
    )


def _slants(draft: Draft, v: int, pair: tuple[int, int], sx: Exact, sy: Exact) -> bool:
    """Do two edges meet at a vertex at anything but a right angle?"""
    p, q = (heading(draft, v, k).scaled(sx, sy) for k in pair)
    return dot(p, q) != 0


def tips_text(number: int, seam: str) -> str:
    """Where those points must lie, in a sentence."""
    if number == 1:
        return f"The point at its edge lies exactly {seam} from the raw edge."
    return f"The {number} points at its edges lie exactly {seam} from the raw edge."
