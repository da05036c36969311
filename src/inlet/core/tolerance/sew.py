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
from inlet.core.tolerance.sewn import SewnPieces, laid_on, placed
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
    """Ends are matched as the raw edges lie, before it is known how much the seam takes: each place
    of an edge then goes in by that, square to it."""
    stay = _matched(sewn, seam, seam.stays, more, (0, 1))
    come = _matched(sewn, seam, seam.comes, more, (1, 0))
    c, s, step = laid_on(stay, come, _weights(seam))
    moved = seam.moved
    cos, sin, by = sewn.cos[moved], sewn.sin[moved], sewn.by[moved]
    sewn.cos[moved], sewn.sin[moved] = c * cos - s * sin, s * cos + c * sin
    sewn.by[moved, 0] = c * by[:, 0] - s * by[:, 1] + step[0]
    sewn.by[moved, 1] = s * by[:, 0] + c * by[:, 1] + step[1]


def _weights(seam: SeamToSew) -> Array:
    """How much each place counts: the ends of a straight edge half of its length each; of an arc a
    sixth, and its middle the rest, which is Simpson's rule for all places along it."""
    ends = seam.lengths / 2
    ends[seam.arcs] = seam.lengths[seam.arcs] / 6
    weights = np.concatenate([ends, ends, seam.lengths[seam.arcs] * 2 / 3])
    out: Array = weights[:, None] / weights.sum()
    return out


def _matched(
    sewn: SewnPieces, seam: SeamToSew, halves: Numbers, more: Array, ends: tuple[int, int]
) -> Array:
    """Where places of one side's edges are sewn: the ends of all half-edges, those of the one kind
    (0: starts) first, then the middles of arcs."""
    pieces = sewn.pieces
    corners = (halves, pieces.after[halves])
    places = [sewn.corners(corners[end]) - more * sewn.normals(halves, end) for end in ends]
    if len(seam.arcs):
        arcs = halves[seam.arcs]
        normal = pieces.normal[arcs].sum(axis=1)
        normal /= np.hypot(*normal.T)[:, None]
        out = sewn.offset[arcs].mean(axis=1) - more
        local = seam.middles.T[:, :, None] + normal.T[:, :, None] * out
        places.append(placed(local, sewn.cos, sewn.sin, sewn.by, pieces.piece[arcs]))
    return np.concatenate(places, axis=1)
