"""What a ruler tells of a part that is a rectangle, raw edge to raw edge, in each sewing."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from inlet.core.assembly import Faces, rim
from inlet.core.geometry import is_rectangle
from inlet.core.tolerance.pieces import Array, Numbers, Pieces
from inlet.core.tolerance.sewn import SewnPieces, laid_on, placed
from inlet.core.units import Part


class PartSides(NamedTuple):
    """The half-edges round a part, on which of its four sides each lies, by which way they look as
    drawn: (4, 2), opposite sides two apart. ``upright``: its sides lie along the block's, the first
    two then are its width's."""

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
    """Width and height (2, n), unfinished: from the middle of one raw edge to that of the other,
    square to how the part lies."""
    pieces, halves = sewn.pieces, sides.halves
    ends = np.concatenate([halves, pieces.after[halves]])
    there = _raw_ends(sewn, halves)
    drawn = np.repeat(pieces.at[ends].T[:, :, None], there.shape[2], axis=2)
    weight = np.full((len(ends), 1), 1 / len(ends))
    cos, sin, step = laid_on(drawn, there, weight)
    level = placed(there, cos[None], sin[None], step[None], np.zeros(len(ends), dtype=np.intp))
    side = np.concatenate([sides.side, sides.side])
    long = np.concatenate([pieces.length[halves]] * 2)
    reach = []
    for k, (nx, ny) in enumerate(sides.looks):
        on = side == k
        far = nx * level[0, on] + ny * level[1, on]
        reach.append((far * long[on, None]).sum(axis=0) / long[on].sum())
    out: Array = np.stack([reach[0] + reach[2], reach[1] + reach[3]]) + 2 * seam
    return out


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
