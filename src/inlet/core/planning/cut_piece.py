"""A piece at its cut size, and the triangles it comes apart into, which units may share."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.numbers import Exact, Fraction
from inlet.core.planning.upright import Facing, Upright
from inlet.core.table import PER_SQUARE, Crosscut, Lean, Piece

CutSize = tuple[Fraction, Fraction]


class CutPiece(NamedTuple):
    """A piece at its cut size: ``cut`` on the ruler's marks (see ``CutRule``);
    ``number`` of these shapes to cut for all the runs, beside ``spare`` triangles of those cut for
    other units. ``stock`` of what is cut already they come
    from, where they do. A strip's sizes are its width and its whole length. ``upright`` is how its
    patches lie, where they are of a print with a direction that is kept upright."""

    piece: Piece
    cut: CutSize
    number: int
    stock: int | None = None
    spare: int = 0
    upright: Upright | None = None

    @property
    def over(self) -> Exact:
        """How much the ruler mark is over the exact size, under it where it is below 0: of the
        longer side, of a strip's width."""
        side = 0 if self.piece.shape == "strip" else 1
        return self.cut[side] - self.piece.exact[side]

    def in_set(self, sets: Sequence[object]) -> bool:
        """Is it a strip for the method's strip sets, which may be shared with other units?"""
        return bool(sets) and self.piece.shape == "strip"


class TriangleKey(NamedTuple):
    """What triangles are alike by: fabric, cut size of their squares, how those are cut, their
    lean; and which way they face where their print is kept upright."""

    fabric: str | None
    cut: CutSize
    crosscut: Crosscut
    lean: Lean
    facing: Facing | None = None


def triangle_key(cut: CutPiece) -> TriangleKey | None:
    """What triangles of a piece may be shared by, whichever way they face; None where it is not cut
    into any, or comes from fabric cut already."""
    if PER_SQUARE[cut.piece.crosscut] == 1 or cut.stock is not None:
        return None
    return TriangleKey(cut.piece.fabric, cut.cut, cut.piece.crosscut, cut.piece.lean)


def triangles_in(cut: CutPiece, runs: int) -> int:
    """How many triangles of a piece so many runs take."""
    return -(-cut.piece.quantity * runs // cut.piece.runs)


def triangles_needed(cut: CutPiece, runs: int) -> Counter[TriangleKey]:
    """The triangles of a piece that so many runs take; none where they cannot be shared."""
    key = triangle_key(cut)
    if key is None:
        return Counter()
    if cut.upright is None:
        return Counter({key: triangles_in(cut, runs)})
    return Counter({key._replace(facing=f): number for f, number in cut.upright.needed.items()})


def triangles_given(cut: CutPiece) -> Counter[TriangleKey]:
    """The triangles that the squares to cut of a piece give."""
    key = triangle_key(cut)
    if key is None:
        return Counter()
    if cut.upright is None:
        return Counter({key: cut.number * PER_SQUARE[cut.piece.crosscut]})
    return Counter({key._replace(facing=f): number for f, number in cut.upright.given.items()})


def with_spare(cut: CutPiece, runs: int, left: Counter[TriangleKey]) -> CutPiece:
    """A piece that first takes of the triangles ``left`` over, which are taken off there."""
    needed = triangles_needed(cut, runs)
    taken = needed & left
    if not taken:
        return cut
    left.subtract(taken)
    if cut.upright is None:
        each = PER_SQUARE[cut.piece.crosscut]
        number = -(-(needed.total() - taken.total()) // each)
        return cut._replace(number=number, spare=taken.total())
    facings = {key.facing: number for key, number in taken.items() if key.facing is not None}
    upright = cut.upright._replace(spare=facings)
    return cut._replace(number=upright.number, spare=taken.total(), upright=upright)
