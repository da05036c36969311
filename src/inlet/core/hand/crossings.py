"""Which seams lie between one side of a unit and the other, and how much each takes off its size.

A seam that takes ``s`` of each side brings the pieces ``2s`` closer, square to itself. Of the width
it takes the part of that step that goes across: ``2s |n|``, where ``n`` is how far the seam's
normal goes across. Along a path from the left side to the right these add up: of a half-square
triangle ``2s/√2``, as in f + 2s + s√2 for what is cut.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from math import hypot
from typing import Literal, NamedTuple

from inlet.core.draft import Draft
from inlet.core.units import Part

SeamType = Literal["straight", "bias", "curve"]
TYPES: tuple[SeamType, ...] = ("straight", "bias", "curve")
PATHS = (0.4142, 0.6180, 0.2929)
"""Where across a unit is looked, as shares of its height: at no corner of a usual drawing."""
NEARLY = 0.02
"""Of a normal's length: a seam is square to the path, or on the bias."""
Corner = tuple[float, float]


class Crossings(NamedTuple):
    """What lies between two sides: how much of each seam's allowance comes off the size, by type;
    the squares of that for each seam, added up; how many pieces."""

    takes: dict[str, float]
    squares: float
    pieces: int

    @property
    def all(self) -> float:
        return sum(self.takes.values())


class _Piece(NamedTuple):
    low: float
    high: float
    normal: float  # of its far side, how much goes along the path
    curved: bool


def crossings(draft: Draft, part: Part) -> tuple[Crossings, Crossings]:
    """Across a part of a block, and down it."""
    patches = [(draft.patches[face].polygon, bool(draft.patches[face].arcs)) for face in part.faces]
    shapes = [([p.floats() for p in polygon], curved) for polygon, curved in patches]
    turned = [([(y, x) for x, y in corners], curved) for corners, curved in shapes]
    return _along(shapes), _along(turned)


def _along(shapes: list[tuple[list[Corner], bool]]) -> Crossings:
    """Along the path, of some, that is in the middle of what the seams take on all of them."""
    ys = [y for corners, _ in shapes for _, y in corners]
    low, high = min(ys), max(ys)
    found = [_on_path(shapes, low + share * (high - low)) for share in PATHS]
    return sorted(found, key=lambda crossed: crossed.all)[len(found) // 2]


def _on_path(shapes: list[tuple[list[Corner], bool]], y: float) -> Crossings:
    pieces = sorted(piece for corners, curved in shapes for piece in _cut(corners, curved, y))
    takes: dict[str, float] = {}
    squares = 0.0
    for piece, beside in pairwise(pieces):
        seam = 2 * piece.normal
        kind: SeamType = "straight" if piece.normal > 1 - NEARLY else "bias"
        if piece.curved and beside.curved:
            kind = "curve"
        takes[kind] = takes.get(kind, 0.0) + seam
        squares += seam * seam
    return Crossings(takes, squares, len(pieces))


def _cut(corners: list[Corner], curved: bool, y: float) -> Iterator[_Piece]:
    """The stretches of a path inside an outline."""
    hits = []
    for (x0, y0), (x1, y1) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if (y0 < y) != (y1 < y):
            x = x0 + (y - y0) / (y1 - y0) * (x1 - x0)
            hits.append((x, abs(y1 - y0) / hypot(x1 - x0, y1 - y0)))
    hits.sort()
    for (low, _), (high, normal) in zip(hits[::2], hits[1::2], strict=True):
        yield _Piece(low, high, normal, curved)
