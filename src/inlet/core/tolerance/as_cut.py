"""How far edges lie beyond where they are drawn because pieces are cut at the ruler's marks.

From the lengths that sides come out (``fitting``): of a patch, offsets ``o`` of its sides move its
corners (see ``pieces``), so each length changes by ``(d_end - d_start)·t``, which is linear in
them; the least offsets that give the lengths are taken. Of a unit whose moves or trim give its
size, each pair of sides lies half of the difference farther apart on either side.
"""

from __future__ import annotations

from collections import defaultdict

import numpy as np

from inlet.core.assembly import Faces
from inlet.core.fitting import made_whole, runs_of
from inlet.core.plan import PreparedBlock
from inlet.core.tolerance.pieces import Array, Pieces
from inlet.core.tolerance.sides import PartSides, sides_of
from inlet.core.tolerance.squared import SquaredUnit

NEARLY = 1e-9


class LengthChanges:
    """By how much sides come out longer than drawn, by their half-edges."""

    def __init__(self, pieces: Pieces, block: PreparedBlock) -> None:
        number = {
            (int(f), int(k)): i
            for i, (f, k) in enumerate(zip(pieces.piece, pieces.edge, strict=True))
        }
        self.pieces = pieces
        self.sides: dict[int, float] = {}
        """By the first half-edge of a side that comes out longer."""
        self.whole = [
            place.part.faces
            for plan in block.units if made_whole(plan)
            for place in plan.unit.places
        ]  # fmt: skip
        self.of_unit: dict[Faces, list[float]] = {}
        if block.fit is None:
            return
        long = block.fit.sewn.long
        for run, made in zip(runs_of(pieces.draft, block.units), long, strict=True):
            halves = [number[run.face, k] for k in run.edges if (run.face, k) in number]
            if halves and abs(made - run.exact) > NEARLY:
                self.sides[halves[0]] = made - run.exact

    def offsets(self, units: list[SquaredUnit]) -> tuple[Array, Array]:
        """(H, 2) offsets of the edges of pieces, and (U, 4) of the sides of squared units."""
        offsets = np.zeros((self.pieces.halves, 2))
        left = dict(self.sides)
        for faces in self.whole:
            sides = sides_of(self.pieces, faces)
            inside = {h: left.pop(h) for h in sides.halves.tolist() if h in left}
            out = _farther_out(sides, inside)
            offsets[sides.halves] = np.array(out)[sides.side, None]
            self.of_unit[faces] = out
        by_piece: dict[int, dict[int, float]] = defaultdict(dict)
        for half, more in left.items():
            by_piece[int(self.pieces.piece[half])][half] = more
        for piece, sides_of_piece in by_piece.items():
            self._patch(piece, sides_of_piece, offsets)
        still = [0.0] * 4
        return offsets, np.array([self.of_unit.get(unit.faces, still) for unit in units])

    def _patch(self, piece: int, longer: dict[int, float], offsets: Array) -> None:
        """The least offsets of a patch's sides that lengthen them so."""
        pieces, edges = self.pieces, self.pieces.draft.arrangement.edges
        halves = np.flatnonzero(pieces.piece == piece).tolist()
        keys = {
            h: (edges[pieces.edge[h]].line, *np.round(pieces.normal[h, 0], 6).tolist())
            for h in halves
        }
        number = {key: i for i, key in enumerate(dict.fromkeys(keys.values()))}
        lengthens = np.zeros((len(number), len(number)))
        changes = np.zeros(len(number))
        for h in halves:
            row = number[keys[h]]
            changes[row] += longer.get(h, 0.0)
            along = np.array([-pieces.normal[h, 0, 1], pieces.normal[h, 0, 0]])
            for corner, sign in ((int(pieces.after[h]), 1), (h, -1)):
                before = int(pieces.before[corner])
                lengthens[row, number[keys[before]]] += sign * pieces.by_before[corner] @ along
                lengthens[row, number[keys[corner]]] += sign * pieces.by_after[corner] @ along
        least = np.linalg.lstsq(lengthens, changes, rcond=1e-9)[0]
        for h in halves:
            offsets[h] = least[number[keys[h]]]


def _farther_out(sides: PartSides, longer: dict[int, float]) -> list[float]:
    """Each side of a unit lies half as far out as the two square to it are longer, on average."""
    more = [0.0] * 4
    for h, side in zip(sides.halves.tolist(), sides.side.tolist(), strict=True):
        more[side] += longer.get(h, 0.0)
    across, down = (more[1] + more[3]) / 4, (more[0] + more[2]) / 4
    return [across, down, across, down]
