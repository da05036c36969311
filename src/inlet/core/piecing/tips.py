"""Points that lie at the edge of what is sewn: the next seam must just touch them."""

from __future__ import annotations

from collections import defaultdict

from inlet.core.assembly.net import Faces, heading, unit_heading
from inlet.core.assembly.shape import rim
from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import dot


def tips_of(draft: Draft, faces: Faces) -> tuple[int, ...]:
    """The vertices in a part's straight edges where seams end at a slant."""
    arrangement = draft.arrangement
    round_it = rim(draft, faces)
    sides_at: dict[int, list[int]] = defaultdict(list)
    for k in round_it:
        sides_at[arrangement.edges[k].start].append(k)
        sides_at[arrangement.edges[k].end].append(k)
    return tuple(
        v
        for v, sides in sorted(sides_at.items())
        if len({arrangement.edges[k].line for k in sides}) == 1
        and any(
            _slants(draft, v, (k, sides[0]))
            for k in arrangement.edges_at[v]
            if k not in round_it and arrangement.edges[k].right in faces
        )
    )


CLEAR = 1e-6
"""Cosine of an angle that floats tell from a right one."""


def _slants(draft: Draft, v: int, pair: tuple[int, int]) -> bool:
    """Do two edges meet at a vertex at anything but a right angle? Decided exactly only where
    floats cannot tell."""
    (px, py), (qx, qy) = (unit_heading(draft, v, k) for k in pair)
    if abs(px * qx + py * qy) > CLEAR:
        return True
    sx, sy = draft.block.scale
    p, q = (heading(draft, v, k).scaled(sx, sy) for k in pair)
    return dot(p, q) != 0


def tips_text(number: int, seam: str) -> str:
    """Where those points must lie, in a sentence."""
    if number == 1:
        return f"The point at its edge lies exactly {seam} from the raw edge."
    return f"The {number} points at its edges lie exactly {seam} from the raw edge."
