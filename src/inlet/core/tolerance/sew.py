"""Pieces sewn up as a hand cuts and sews them, many times at once.

Each seam is sewn so: stitch lines of both sides are laid on one another, edge on edge, as well as
two stiff pieces can be: the least squares of the distances between the ends of their edges, each
counted as much as the edge is long.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from inlet.core.cancellation import check
from inlet.core.tolerance.pieces import Array, Numbers, Pieces, SeamToSew
from inlet.core.tolerance.sewn import SewnPieces, laid_on
from inlet.core.tolerance.squared import SquaredUnit


def sewn_up(
    pieces: Pieces, raw: Array, seams: Array, units: Sequence[SquaredUnit], squared: Array
) -> SewnPieces:
    """The block sewn of pieces cut ``raw`` beyond their raw edges (H, 2, n), each seam taking so
    much more than planned (S, n); what is ``squared`` by the ruler or its base after a seam comes
    out so much too large on each side (U, 4, n)."""
    n = raw.shape[2]
    raw, offset = raw.copy(), raw.copy()
    cos, sin = np.ones((pieces.count, n)), np.zeros((pieces.count, n))
    by = np.zeros((pieces.count, 2, n))
    sewn = SewnPieces(pieces, raw, offset, cos, sin, by)
    after: dict[int, list[int]] = {}
    for i, unit in enumerate(units):
        after.setdefault(unit.after, []).append(i)
    for i, seam in enumerate(pieces.seams):
        check()
        _sew(sewn, seam, seams[i])
        for halves in (seam.stays, seam.comes):
            offset[halves] -= seams[i]
        for which in after.get(i, ()):
            units[which].square(sewn, squared[which])
    return sewn


def _sew(sewn: SewnPieces, seam: SeamToSew, more: Array) -> None:
    """Ends are matched as the raw edges lie, before it is known how much the seam takes: each end
    of an edge then goes in by that, square to it."""
    half = np.concatenate([seam.lengths, seam.lengths])[:, None] / (2 * seam.lengths.sum())
    stay = _matched(sewn, seam.stays, more, (0, 1))
    come = _matched(sewn, seam.comes, more, (1, 0))
    c, s, step = laid_on(stay, come, half)
    moved = seam.moved
    cos, sin, by = sewn.cos[moved], sewn.sin[moved], sewn.by[moved]
    sewn.cos[moved], sewn.sin[moved] = c * cos - s * sin, s * cos + c * sin
    sewn.by[moved, 0] = c * by[:, 0] - s * by[:, 1] + step[0]
    sewn.by[moved, 1] = s * by[:, 0] + c * by[:, 1] + step[1]


def _matched(sewn: SewnPieces, halves: Numbers, more: Array, ends: tuple[int, int]) -> Array:
    """The ends of half-edges, all of the one kind (0: starts) first, where they are sewn."""
    corners = (halves, sewn.pieces.after[halves])
    return np.concatenate(
        [sewn.corners(corners[end]) - more * sewn.normals(halves, end) for end in ends], axis=1
    )
