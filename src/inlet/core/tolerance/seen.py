"""A block as it comes out of one sewing, to look at: its pieces where they came to lie."""

from __future__ import annotations

from math import atan2, cos, pi, sin
from typing import NamedTuple

import numpy as np

from inlet.core.geometry import Circle
from inlet.core.tolerance.pieces import Array, Pieces
from inlet.core.tolerance.sewing_hand import SewingHand
from inlet.core.tolerance.sewn import SewnPieces, laid_on, placed
from inlet.core.tolerance.sources import BlockModel

CHORD = pi / 36


class SewnLook(NamedTuple):
    """The ``pieces`` of a block, and where its vertices came to lie, in finished lengths."""

    pieces: tuple[SewnPiece, ...]
    vertices: dict[int, tuple[float, float]]


class SewnPiece(NamedTuple):
    """A piece as it shows: its corners round it in finished lengths, and its fabric."""

    corners: tuple[tuple[float, float], ...]
    fabric: str | None


def as_sewn(
    model: BlockModel, hand: SewingHand, seed: int | None = None, times: float = 1.0
) -> SewnLook:
    """The block sewn by a hand: what it always does, and, with a ``seed``, what it does by chance;
    all of it so many ``times`` as far off, to be seen. It lies as near to the drawing as it can."""
    spreads = model.spreads(hand)[:, None]
    errors = np.zeros_like(spreads)
    if seed is not None:
        errors = np.random.default_rng(seed).standard_normal(spreads.shape) * spreads * times
    more = {kind: off * times for kind, off in hand.more.items()}
    sewn = model.sewn(hand._replace(more=more, cut=hand.cut * times), errors)
    pieces = sewn.pieces
    everywhere = np.arange(pieces.halves)
    weight = np.full((pieces.halves, 1), 1 / pieces.halves)
    corners = sewn.corners(everywhere)
    cos_, sin_, step = laid_on(pieces.at.T[:, :, None], corners, weight)
    level_corners = placed(
        corners, cos_[None], sin_[None], step[None], np.zeros(pieces.halves, dtype=np.intp)
    )[:, :, 0].T
    shown = []
    for face, patch in enumerate(model.block.draft.patches):
        local = np.array(list(_round(pieces, sewn, face))).T[:, :, None]
        there = placed(local, sewn.cos, sewn.sin, sewn.by, np.full(local.shape[1], face))
        level = placed(there, cos_[None], sin_[None], step[None], np.zeros(local.shape[1], int))
        shown.append(SewnPiece(tuple(map(tuple, level[:, :, 0].T.tolist())), patch.fabric))
    vertices = {
        v: tuple(level_corners[pieces.vertex == v].mean(axis=0).tolist())
        for v in np.unique(pieces.vertex).tolist()
    }
    return SewnLook(tuple(shown), vertices)


def _round(pieces: Pieces, sewn: SewnPieces, face: int) -> list[Array]:
    """The corners round a piece on itself, arcs in chords: each as far off as between its ends."""
    halves = np.flatnonzero(pieces.piece == face)
    first = half = int(halves[np.argmin(pieces.vertex[halves])])
    outline: list[Array] = []
    while True:
        outline += _side(pieces, sewn, half)
        half = int(pieces.after[half])
        if half == first or len(outline) > 10_000:
            return outline


def _side(pieces: Pieces, sewn: SewnPieces, half: int) -> list[Array]:
    """A side from its first corner on, without its last."""
    ends = sewn.on_pieces(np.array([half, int(pieces.after[half])]))[:, :, 0].T
    arrangement = pieces.draft.arrangement
    on = arrangement.lines[arrangement.edges[int(pieces.edge[half])].line]
    if not isinstance(on, Circle):
        return [ends[0]]
    scale = np.array([float(x) for x in pieces.draft.block.scale])
    centre = np.array(on.centre.floats()) * scale
    drawn = [pieces.at[h] - centre for h in (half, int(pieces.after[half]))]
    begin, end = (atan2(y, x) for x, y in drawn)
    turn = (end - begin + pi) % (2 * pi) - pi
    radius = float(np.hypot(*drawn[0]))
    number = max(1, round(abs(turn) / CHORD))
    chain = []
    for i in range(number):
        part = i / number
        angle = begin + turn * part
        exact = centre + radius * np.array([cos(angle), sin(angle)])
        off = (ends[0] - centre - drawn[0]) * (1 - part) + (ends[1] - centre - drawn[1]) * part
        chain.append(exact + off)
    return chain
