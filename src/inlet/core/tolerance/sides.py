"""What a ruler tells of a part that is a rectangle, raw edge to raw edge, in each sewing."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from inlet.core.assembly import Faces, rim
from inlet.core.geometry import is_rectangle
from inlet.core.tolerance.pieces import Array, Numbers, Pieces
from inlet.core.tolerance.sewn import SewnPieces, laid_on, placed
from inlet.core.units import Part

ACROSS = 0.4142
"""Where across a part it is measured, as a share of its side: the first path that the learning of
the hand looks along."""


class PartSides(NamedTuple):
    """The half-edges round a part, on which of its four sides each lies, by which way they look as
    drawn: (4, 2), opposite sides two apart."""

    halves: Numbers
    side: Numbers
    looks: Array


def part_sides(pieces: Pieces, part: Part) -> PartSides | None:
    """The sides of a part; None of one that is no rectangle."""
    if not is_rectangle(part.outline):
        return None
    return sides_of(pieces, part.faces)


def sides_of(pieces: Pieces, faces: Faces) -> PartSides:
    """The sides of a rectangle of pieces: first the one that looks most to the right."""
    around = rim(pieces.draft, faces)
    halves = np.array(
        [
            h
            for h in np.flatnonzero(np.isin(pieces.piece, sorted(faces))).tolist()
            if int(pieces.edge[h]) in around
        ],
        dtype=np.intp,
    )
    normals = pieces.normal[halves, 0]
    first = normals[np.argmax(normals[:, 0] - 1e-6 * np.abs(normals[:, 1]))]
    looks = np.array([first, (-first[1], first[0]), -first, (first[1], -first[0])])
    return PartSides(halves, np.argmax(normals @ looks.T, axis=1), looks)


def measured(sewn: SewnPieces, sides: PartSides, seam: float) -> Array:
    """Width and height (2, n), unfinished: a ruler laid across near the middle, from raw edge to
    raw edge, square to how the part lies."""
    pieces, halves = sewn.pieces, sides.halves
    ends = np.concatenate([halves, pieces.after[halves]])
    there = _raw_ends(sewn, halves)
    drawn = np.repeat(pieces.at[ends].T[:, :, None], there.shape[2], axis=2)
    weight = np.full((len(ends), 1), 1 / len(ends))
    cos, sin, step = laid_on(drawn, there, weight)
    level = placed(there, cos[None], sin[None], step[None], np.zeros(len(ends), dtype=np.intp))
    reach = []
    for k, (nx, ny) in enumerate(sides.looks):
        half, part = _near_middle(sides, pieces, k)
        begin, end = level[:, half], level[:, half + len(halves)]
        at = begin + (end - begin) * part
        reach.append(nx * at[0] + ny * at[1])
    out: Array = np.stack([reach[0] + reach[2], reach[1] + reach[3]]) + 2 * seam
    return out


def _near_middle(sides: PartSides, pieces: Pieces, side: int) -> tuple[int, float]:
    """Where the ruler crosses a side: which of the half-edges, and how far along it. Not in the
    very middle, where seams often lie; opposite sides are crossed opposite one another."""
    nx, ny = sides.looks[side % 2]  # both sides of a pair are counted the same way
    on = np.flatnonzero(sides.side == side)
    begin = pieces.at[sides.halves[on]] @ (-ny, nx)
    end = pieces.at[pieces.after[sides.halves[on]]] @ (-ny, nx)
    low, high = min(begin.min(), end.min()), max(begin.max(), end.max())
    wanted = low + ACROSS * (high - low)
    part = (wanted - begin) / np.where(end == begin, 1.0, end - begin)
    crossed = int(np.argmin(np.abs(part - 0.5)))
    return int(on[crossed]), float(part[crossed])


def _raw_ends(sewn: SewnPieces, halves: Numbers) -> Array:
    """Both ends of half-edges moved straight out to where they were cut, the allowance left out."""
    pieces = sewn.pieces
    ends = []
    for end, corners in enumerate((halves, pieces.after[halves])):
        out = sewn.raw[halves, end]
        local = np.stack(
            [
                pieces.at[corners, i, None] + pieces.normal[halves, end, i, None] * out
                for i in (0, 1)
            ]
        )
        ends.append(placed(local, sewn.cos, sewn.sin, sewn.by, pieces.piece[halves]))
    return np.concatenate(ends, axis=1)
