"""Where the pieces of a block came to lie, in many sewings at once; and one set of points laid on
another.

For points ``a`` that stay and ``b`` that come, with means ``a̅``, ``b̅``, the least squares of their
distances are reached by the turn of angle ``atan2(Σ b×a, Σ b·a)`` about the means.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from inlet.core.tolerance.pieces import Array, Numbers, Pieces


@dataclass(frozen=True, eq=False)
class SewnPieces:
    """``n`` sewings of one block. ``raw`` is how far each half-edge was cut beyond its raw edge at
    both ends (H, 2, n), ``offset`` how far its stitch line lies beyond the finished edge. Each
    piece was turned by ``cos``, ``sin`` (F, n) and moved by ``by`` (F, 2, n)."""

    pieces: Pieces
    raw: Array
    offset: Array
    cos: Array
    sin: Array
    by: Array

    def corners(self, halves: Numbers) -> Array:
        """Where the corners at the start of half-edges came to lie, (2, k, n)."""
        local = self.on_pieces(halves)
        return placed(local, self.cos, self.sin, self.by, self.pieces.piece[halves])

    def on_pieces(self, halves: Numbers) -> Array:
        """Corners at the start of half-edges, each on its piece as that is drawn, (2, k, n)."""
        pieces = self.pieces
        before, after = self.offset[pieces.before[halves], 1], self.offset[halves, 0]
        return np.stack(
            [
                pieces.at[halves, i, None]
                + pieces.by_before[halves, i, None] * before
                + pieces.by_after[halves, i, None] * after
                for i in (0, 1)
            ]
        )

    def looks(self, halves: Numbers, ends: Numbers) -> Array:
        """Which way half-edges look now, each at one of its ends, (2, k, n)."""
        nx, ny = self.pieces.normal[halves, ends].T[:, :, None]
        cos, sin = self.cos[self.pieces.piece[halves]], self.sin[self.pieces.piece[halves]]
        return np.stack([cos * nx - sin * ny, sin * nx + cos * ny])

    def normals(self, halves: Numbers, end: int) -> Array:
        """Which way half-edges look now, at their start (0) or end (1), (2, k, n)."""
        return self.looks(halves, np.full(len(halves), end, dtype=np.intp))


def laid_on(stay: Array, come: Array, weight: Array) -> tuple[Array, Array, Array]:
    """The turn (cos, sin) and step (2, n) that lay points (2, k, n) on others, by weights (k, 1)
    that make 1."""
    middle, own_middle = (stay * weight).sum(axis=1), (come * weight).sum(axis=1)
    ax, ay = (stay - middle[:, None]) * weight
    bx, by = come - own_middle[:, None]
    cos, sin = (bx * ax + by * ay).sum(axis=0), (bx * ay - by * ax).sum(axis=0)
    long = np.hypot(cos, sin)
    cos, sin = cos / long, sin / long
    x, y = own_middle
    return cos, sin, middle - np.stack([cos * x - sin * y, sin * x + cos * y])


def placed(local: Array, cos: Array, sin: Array, by: Array, piece: Numbers) -> Array:
    """Places on pieces, where these came to lie."""
    x, y = local
    c, s = cos[piece], sin[piece]
    return np.stack([c * x - s * y + by[piece, 0], s * x + c * y + by[piece, 1]])
