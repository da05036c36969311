"""What a quilt top is made of: pieces with their exact places, cells, rows, borders."""

from __future__ import annotations

from typing import Literal, NamedTuple

from inlet.core.cancellation import check
from inlet.core.geometry import EIGHTH_TURN, STILL, Motion, Point, Polygon, turned
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Pair
from inlet.core.setting.places import Placed

PieceKind = Literal[
    "block", "plain", "side", "corner", "sash", "corner-square", "edge-corner", "filler", "spacer",
    "border", "border-corner",
]  # fmt: skip
"""Blocks and plain squares; setting triangles; strips between blocks, squares where they meet and
what is left of those at the edge of a quilt on point; what fills up short rows and low cells, or
makes a pieced border fit; borders and their corners."""


class Lying(NamedTuple):
    """How a block or a motif lies on the top: the ``size`` of its place, as the block is drawn;
    mirrored if so, turned about its middle by so many ``eighths`` clockwise, its ``middle`` on the
    top."""

    placed: Placed
    size: Pair
    middle: Point
    eighths: int

    def __call__(self, p: Point) -> Point:
        """Where a point of the block, measured from its top left, lies on the top."""
        centred = Point(p.x - self.size[0] / 2, p.y - self.size[1] / 2)
        at = turned(centred, (self.eighths // 2, self.placed.mirror))
        way: Motion = EIGHTH_TURN if self.eighths % 2 else STILL
        return way(at).plus(self.middle)

    @property
    def corners(self) -> Polygon:
        """The block's corners on the top, clockwise."""
        wide, high = self.size
        zero = Fraction(0)
        own_points = (Point(zero, zero), Point(wide, zero), Point(wide, high), Point(zero, high))
        points = tuple(self(p) for p in own_points)
        return tuple(reversed(points)) if self.placed.mirror else points


class TopPiece(NamedTuple):
    """One piece: its finished ``outline`` on the top, clockwise, and its fabric; of a block, how it
    lies; of a plain square, its ``place``."""

    kind: PieceKind
    outline: Polygon
    fabric: str = ""
    lying: Lying | None = None
    place: Placed | None = None

    @property
    def placed(self) -> Placed | None:
        """The place of the quilt it lies in, of a block or a plain square."""
        return self.lying.placed if self.lying is not None else self.place

    def moved(self, by: Point) -> TopPiece:
        lying = self.lying
        if lying is not None:
            lying = lying._replace(middle=lying.middle.plus(by))
        outline = tuple(p.plus(by) for p in self.outline)
        return self._replace(outline=outline, lying=lying)


Cell = tuple[TopPiece, ...]
"""Pieces sewn to one another, top to bottom, before they are sewn into their row."""


class Row(NamedTuple):
    """Cells in the order they are sewn, from one end to the other; its ``label``."""

    label: str
    cells: tuple[Cell, ...]

    @property
    def pieces(self) -> list[TopPiece]:
        return [piece for cell in self.cells for piece in cell]

    def moved(self, by: Point) -> Row:
        check()
        cells = tuple(tuple(piece.moved(by) for piece in cell) for cell in self.cells)
        return self._replace(cells=cells)


class Round(NamedTuple):
    """One border: strips sewn on in pairs, each a row of one or more pieces. ``mitred`` strips are
    sewn on all round, then their corners are closed. ``inner`` is the size it is sewn to."""

    label: str
    pairs: tuple[tuple[Row, Row], ...]
    inner: Pair
    mitred: bool = False

    @property
    def pieces(self) -> list[TopPiece]:
        return [piece for pair in self.pairs for strip in pair for piece in strip.pieces]

    def moved(self, by: Point) -> Round:
        pairs = tuple((row.moved(by), other_row.moved(by)) for row, other_row in self.pairs)
        return self._replace(pairs=pairs)


def rectangle(x: Exact, y: Exact, wide: Exact, high: Exact) -> Polygon:
    """Its corners, clockwise from the top left."""
    right, foot = x + wide, y + high
    return Point(x, y), Point(right, y), Point(right, foot), Point(x, foot)
