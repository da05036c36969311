"""Points that lie at the edge of what is sewn: the next seam must just touch them."""

from __future__ import annotations

from inlet.core.assembly import Faces, heading, rim, unit_heading
from inlet.core.draft import Draft
from inlet.core.geometry import dot


class EdgePoints:
    """The points at the edges of the parts of one draft."""

    def __init__(self, draft: Draft) -> None:
        self.draft = draft
        self._known: dict[tuple[int, int, int], bool] = {}

    def of(self, faces: Faces) -> tuple[int, ...]:
        """The vertices in a part's straight edges where seams end at a slant."""
        arrangement = self.draft.arrangement
        edges, round_it = arrangement.edges, rim(self.draft, faces)
        line_at: dict[int, int] = {}  # of the sides that end at a vertex; -1 if there are two
        side_at: dict[int, int] = {}
        for k in round_it:
            start, end, line, _, _ = edges[k]
            for v in (start, end):
                line_at[v] = line if line_at.setdefault(v, line) == line else -1
                side_at[v] = k
        found = (v for v, line in line_at.items() if line >= 0)
        return tuple(sorted(v for v in found if self._slanted(v, side_at[v], faces, round_it)))

    def slanted_at(self, v: int, faces: Faces) -> list[int]:
        """The seams inside a part that end at a slant at a vertex in its straight edge."""
        round_it = rim(self.draft, faces)
        side = next(k for k in self.draft.arrangement.edges_at[v] if k in round_it)
        return self._slanted(v, side, faces, round_it)

    def _slanted(self, v: int, side: int, faces: Faces, round_it: frozenset[int]) -> list[int]:
        arrangement = self.draft.arrangement
        inside = (
            k
            for k in arrangement.edges_at[v]
            if k not in round_it and arrangement.edges[k].right in faces
        )
        return [k for k in inside if self._slants(v, k, side)]

    def _slants(self, v: int, k: int, side: int) -> bool:
        """Does an edge meet a side of a part at a vertex at anything but a right angle?"""
        key = (v, k, self.draft.arrangement.edges[side].line)
        if key not in self._known:
            self._known[key] = _slants(self.draft, v, (k, side))
        return self._known[key]


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


def points_text(number: int, seam: str) -> str:
    """Where those points must lie, in a sentence."""
    if number == 1:
        return f"The point at its edge lies exactly {seam} from the raw edge."
    return f"The {number} points at its edges lie exactly {seam} from the raw edge."
