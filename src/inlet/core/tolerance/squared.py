"""Units whose outer edges do not come from their own pieces' edges: trimmed to size with a ruler
laid on the seams, or sewn over a base whose edges are the unit's.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from inlet.core.assembly import Faces, Join, all_joins
from inlet.core.geometry import is_rectangle
from inlet.core.planning import UnitPlan
from inlet.core.tolerance.pieces import Array, Numbers, Pieces
from inlet.core.tolerance.sewn import SewnPieces, laid_on, placed
from inlet.core.tolerance.sides import sides_of

ON_BASE = frozenset({"corner-squares", "folded"})
"""Methods that sew or fold pieces over a base, which keeps the unit's size."""


@dataclass(frozen=True, eq=False)
class SquaredUnit:
    """A unit in one place, squared once the seam number ``after`` is sewn. ``outer`` are the
    half-edges on its four sides, each with its ``side``. Where it is trimmed the ruler is laid on
    its seams, which the corners of ``inner`` half-edges say, and no more is left than there is,
    ``spare`` beyond the size it is trimmed to. Else it lies as its ``base`` does, a piece."""

    plan: UnitPlan
    faces: Faces
    after: int
    outer: Numbers
    side: Numbers
    inner: Numbers
    base: int = -1
    spare: float = 0.0

    @property
    def trimmed(self) -> bool:
        return self.base < 0

    def square(self, sewn: SewnPieces, more: Array) -> None:
        """Cut the outer edges of each sewing where they should lie, ``more`` beyond (4, n)."""
        pieces, n = sewn.pieces, more.shape[1]
        cos, sin, by = (x[[self.base]] for x in (sewn.cos, sewn.sin, sewn.by))
        if self.trimmed:
            drawn = np.repeat(pieces.at[self.inner].T[:, :, None], n, axis=2)
            weight = np.full((len(self.inner), 1), 1 / len(self.inner))
            laid = laid_on(sewn.corners(self.inner), drawn, weight)
            cos, sin, by = (x[None] for x in laid)
        first = np.zeros(len(self.outer), dtype=np.intp)
        for end, halves in enumerate((self.outer, pieces.after[self.outer])):
            at = np.repeat(pieces.at[halves].T[:, :, None], n, axis=2)
            ideal = placed(at, cos, sin, by, first)
            lies = placed(at, sewn.cos, sewn.sin, sewn.by, pieces.piece[self.outer])
            nx, ny = sewn.normals(self.outer, end)
            wanted = (ideal[0] - lies[0]) * nx + (ideal[1] - lies[1]) * ny + more[self.side]
            if self.trimmed:
                wanted = np.minimum(wanted, sewn.raw[self.outer, end] + self.spare)
            sewn.raw[self.outer, end] = sewn.offset[self.outer, end] = wanted


def squared_units(pieces: Pieces, units: Sequence[UnitPlan], last: Join) -> list[SquaredUnit]:
    """The units of a block that are trimmed or sewn over a base, place by place."""
    made_by = {join.faces: i for i, join in enumerate(all_joins(last))}
    squared: list[SquaredUnit] = []
    for plan in units:
        trimmed = plan.in_use.trim_to is not None
        if not trimmed and plan.in_use.name not in ON_BASE:
            continue
        for place in plan.unit.places:
            part = place.part
            if part.faces in made_by and is_rectangle(part.outline):
                squared.append(_squared(pieces, plan, part.faces, made_by[part.faces], trimmed))
    return sorted(squared, key=lambda unit: unit.after)


def _squared(
    pieces: Pieces, plan: UnitPlan, faces: frozenset[int], after: int, trimmed: bool
) -> SquaredUnit:
    sides = sides_of(pieces, faces)
    if not trimmed:
        base = max(sorted(faces), key=lambda face: _area(pieces, face))
        none = np.zeros(0, dtype=np.intp)
        return SquaredUnit(plan, faces, after, sides.halves, sides.side, none, base)
    within = np.setdiff1d(np.flatnonzero(np.isin(pieces.piece, sorted(faces))), sides.halves)
    inner = np.union1d(within, pieces.after[within])
    return SquaredUnit(plan, faces, after, sides.halves, sides.side, inner, spare=_spare(plan))


def _area(pieces: Pieces, face: int) -> float:
    halves = np.flatnonzero(pieces.piece == face)
    (x, y), (u, v) = pieces.at[halves].T, pieces.at[pieces.after[halves]].T
    return abs(float((x * v - u * y).sum()))


def _spare(plan: UnitPlan) -> float:
    """How far a unit that is cut large reaches beyond the size it is trimmed to, on each side."""
    trim = plan.in_use.trim
    if trim is not None:
        outline = [p.floats() for shape, _ in trim.sheet for p in shape]
        low, high = np.min(outline, axis=0), np.max(outline, axis=0)
        kept = np.array([float(x) for x in trim.box])
        return float(min((kept[:2] - low).min(), (high - kept[2:]).min()))
    cut = (float(c - e) for piece in plan.in_use.pieces
           for c, e in zip(piece.cut, piece.piece.exact, strict=True))  # fmt: skip
    return max(0.0, min(cut, default=0.0)) / 2
