"""Blocks on point: diagonal rows with their triangles, with sashing or without.

Along u, down to the right, and v, down to the left, a block's middle lies at (ip, jp), where p is
its size f and the sashing w together. With x = (u - v)/√2 and y = (u + v)/√2 such a point has
x = (i - j)D/2 and y = (i + j)D/2, D = p√2: inside the quilt it is a block, on its edge the middle
of the square that a setting triangle is half of, in its corner a quarter. So the quilt is
``columns`` D by ``rows`` D. Rows are strips along v; what reaches over the edge is cut off there,
and that gives every triangle exactly, also where the edge is set further out for blocks to float.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.cancellation import check
from inlet.core.geometry import Line, Point, Polygon, clip, line_through
from inlet.core.numbers import HALF_ROOT2, ROOT2, Exact, Fraction
from inlet.core.project import Measure, Pair, Quilt
from inlet.core.setting.pieces import Cell, Lying, PieceKind, Row, TopPiece, rectangle
from inlet.core.setting.places import Placed, diagonal
from inlet.core.setting.straight import strips_of

ZERO = Fraction(0)


def on_point_rows(
    quilt: Quilt, places: Sequence[Placed], size: Exact, measure: Measure
) -> tuple[Pair, tuple[Row, ...]]:
    """The size of all rows together, and the diagonal rows with the sashing between them, from the
    upper left corner; ``size`` is that of every block."""
    return _OnPoint(quilt, places, size, measure).rows()


def floats_by(quilt: Quilt) -> Exact:
    """How far the blocks lie inside the edge."""
    triangles = quilt.triangles
    if triangles is None or triangles.fit != "float" or triangles.float_by is None:
        return ZERO
    return triangles.float_by


class _OnPoint:
    def __init__(
        self, quilt: Quilt, places: Sequence[Placed], size: Exact, measure: Measure
    ) -> None:
        self.quilt, self.size = quilt, size
        self.strips = strips_of(quilt.sashing, measure)
        self.across = self.strips.beside
        self.pitch = size + self.across
        self.columns, self.lines = quilt.columns or 0, quilt.rows or 0
        self.place_at = {}
        for place in places:
            i, j = diagonal(place.column, place.row)
            self.place_at[i + 1, j] = place
        self.beyond = floats_by(quilt)
        step = self.pitch * ROOT2
        wide, high = self.columns * step, self.lines * step
        d = self.beyond
        whole = rectangle(-d, -d, wide + 2 * d, high + 2 * d)
        self.whole: Pair = (wide + 2 * d, high + 2 * d)
        self.edges: list[Line] = [
            line_through(p, q) for p, q in zip(whole, (*whole[1:], whole[0]), strict=True)
        ]
        inside = Point(wide / 2, high / 2)
        if self.edges and self.edges[0].side(inside) < 0:
            self.edges = [line_through(q, p) for p, q in
                          zip(whole, (*whole[1:], whole[0]), strict=True)]  # fmt: skip
        self.far = wide + high + 4 * d + self.pitch  # beyond every edge, along u and v
        fabric = quilt.triangles.fabric if quilt.triangles is not None else ""
        self.fabric = fabric or quilt.filler

    def rows(self) -> tuple[Pair, tuple[Row, ...]]:
        last = self.columns + self.lines
        half = self.size / 2
        rows = []
        for i in range(last + 1):
            check()
            low = i * self.pitch - half if i else -self.far
            high = i * self.pitch + half if i < last else self.far
            label = "Corner" if i in (0, last) else f"Row {i}"
            rows.append(Row(label, tuple(self._blocks(i, low, high))))
            if self.across and i < last:
                rows.append(Row(f"Sashing {i + 1}", tuple(self._sashes(i, high))))
        by = Point(self.beyond, self.beyond)
        return self.whole, tuple(row.moved(by) for row in rows)

    def _inside(self, i: int) -> list[int]:
        """The places of a row, from the upper right to the lower left."""
        return sorted(j for (row, j) in self.place_at if row == i)

    def _blocks(self, i: int, low: Exact, high: Exact) -> Iterator[Cell]:
        """A row: a triangle, blocks with sashing between, a triangle."""
        found = self._inside(i)
        half = self.size / 2
        if not found:  # a corner of the quilt
            yield from self._cell("corner", (low, high, -self.far, self.far), self.fabric)
            return
        first, last = found[0], found[-1]
        for j in range(first - 1, last + 2):
            check()
            near = j * self.pitch - half if j >= first else -self.far
            end = j * self.pitch + half if j <= last else self.far
            if first <= j <= last:
                yield (self._block(i, j),)
            else:
                kind: PieceKind = "corner" if self._is_corner(i, j) else "side"
                yield from self._cell(kind, (low, high, near, end), self.fabric)
            if self.across and j <= last:
                sash = (low, high, end, end + self.across)
                yield from self._cell("sash", sash, self.strips.fabric)

    def _is_corner(self, i: int, j: int) -> bool:
        """Is it a corner of the quilt whose square's middle is at (i, j)?"""
        return (i - j) in (0, 2 * self.columns) and (i + j) in (0, 2 * self.lines)

    def _block(self, i: int, j: int) -> TopPiece:
        place, half = self.place_at[i, j], self.size / 2
        u, v = i * self.pitch, j * self.pitch
        outline = _slanted(u - half, u + half, v - half, v + half)
        if not place.block:
            return TopPiece("plain", outline, place.fabric, None, place)
        lying = Lying(place, (self.size, self.size), _point(u, v), 2 * place.turn + 1)
        return TopPiece("block", outline, "", lying)

    def _sashes(self, i: int, low: Exact) -> Iterator[Cell]:
        """The sashing after row i, in one strip or in pieces with squares between them."""
        strips, half = self.strips, self.size / 2
        high = low + self.across
        if not strips.corner_fabric:
            yield from self._cell("sash", (low, high, -self.far, self.far), strips.fabric)
            return
        # Between rows i and i + 1, by each place that is on the edge or inside in both.
        found = self._beside(i)
        first, last = found[0], found[-1]
        begin = first * self.pitch - half
        yield from self._cell("edge-corner", (low, high, -self.far, begin), strips.corner_fabric)
        for j in found:
            near, end = j * self.pitch - half, j * self.pitch + half
            yield from self._cell("sash", (low, high, near, end), strips.fabric)
            if j < last:
                corner = (low, high, end, end + self.across)
                yield from self._cell("corner-square", corner, strips.corner_fabric)
        end = last * self.pitch + half
        yield from self._cell("edge-corner", (low, high, end, self.far), strips.corner_fabric)

    def _beside(self, i: int) -> list[int]:
        """The places along the sashing after row i: where either row beside it has a block."""
        found = {*self._inside(i), *self._inside(i + 1)}
        return list(range(min(found), max(found) + 1))

    def _cell(
        self, kind: PieceKind, place: tuple[Exact, Exact, Exact, Exact], fabric: str
    ) -> Iterator[Cell]:
        """A piece between two us and two vs, as far as it lies on the quilt."""
        outline = _slanted(*place)
        whole = kind == "corner-square" or (kind == "sash" and place[3] - place[2] <= self.size)
        for edge in () if whole else self.edges:  # the others reach to an edge, or over it
            outline = clip(outline, edge)
            if not outline:
                return
        yield (TopPiece(kind, outline, fabric),)


def _point(u: Exact, v: Exact) -> Point:
    return Point((u - v) * HALF_ROOT2, (u + v) * HALF_ROOT2)


def _slanted(low: Exact, high: Exact, near: Exact, end: Exact) -> Polygon:
    """The corners of a piece between two us and two vs, clockwise on screen."""
    return _point(low, near), _point(high, near), _point(high, end), _point(low, end)
