"""Blocks in straight rows, with sashing or without: exact places from the top left."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.geometry import Point
from inlet.core.numbers import Exact, Fraction
from inlet.core.planning import usual_rule
from inlet.core.project import Measure, Pair, Quilt, Sashing
from inlet.core.setting.block_sizes import PlaceSizes, as_lying, mean
from inlet.core.setting.pieces import Cell, Lying, Row, TopPiece, rectangle
from inlet.core.setting.places import Placed

ZERO = Fraction(0)


class Strips(NamedTuple):
    """Sashing as it is used: ``beside`` blocks, ``below`` rows, finished as they come out cut, both
    0 where there is none."""

    beside: Exact
    below: Exact
    fabric: str
    corner_fabric: str
    outside: bool


def strips_of(sashing: Sashing | None, measure: Measure) -> Strips:
    if sashing is None or not sashing.width:
        return Strips(ZERO, ZERO, "", "", False)
    below = sashing.down if sashing.down is not None else sashing.width
    return Strips(
        width_as_cut(sashing.width, measure),
        width_as_cut(below, measure),
        sashing.fabric,
        sashing.corner_fabric,
        sashing.outside,
    )


def width_as_cut(width: Exact, measure: Measure) -> Exact:
    """What a strip shows that is to be so wide, cut at the ruler's mark: one mark at least; nothing
    of no strip."""
    if not width:
        return ZERO
    twice = 2 * measure.seam
    return max(usual_rule(measure).as_sewn(width + twice) - twice, measure.mark)


def straight_rows(
    quilt: Quilt, places: Sequence[Placed], sizes: PlaceSizes, measure: Measure
) -> tuple[Pair, tuple[Row, ...]]:
    """The size of all rows together, and the rows with the sashing between them, top to bottom."""
    strips = strips_of(quilt.sashing, measure)
    by_row: dict[int, list[Placed]] = {}
    for place in places:
        by_row.setdefault(place.row, []).append(place)
    lines = [_Line(line, sizes, strips) for line in by_row.values()]
    drawn = max((line.drawn_width for line in lines), default=ZERO)
    whole = [line for line in lines if line.drawn_width == drawn]
    width = mean(line.width for line in whole) if whole else ZERO
    for line in lines:
        if line.drawn_width == drawn or line.width > width:
            line.ease_to(width)
    if len({line.columns for line in lines}) > 1:  # no square would meet the strips of both rows
        strips = strips._replace(corner_fabric="")
    rows: list[Row] = []
    y: Exact = ZERO
    for i, line in enumerate(lines):
        if strips.below and (i or strips.outside):
            rows.append(_between(line, width, y, strips))
            y += strips.below
        rows.append(Row(f"Row {i + 1}", tuple(line.cells(width, y, quilt.filler))))
        y += line.height
    if strips.below and strips.outside and lines:
        rows.append(_between(lines[-1], width, y, strips))
        y += strips.below
    number = 0
    for i, row in enumerate(rows):
        if not row.label:
            number += 1
            rows[i] = row._replace(label=f"Sashing {number}")
    return (width, y), tuple(rows)


class _Line:
    """One row of blocks."""

    def __init__(self, places: Sequence[Placed], sizes: PlaceSizes, strips: Strips) -> None:
        self.places, self.strips = places, strips
        self.sizes = [sizes.lying(place) for place in places]
        self.drawn = [sizes.drawn(place) for place in places]
        between = len(places) - 1 + (2 if strips.outside else 0)
        self.drawn_width = sum((size[0] for size in self.drawn), strips.beside * between)
        self.width = sum((size[0] for size in self.sizes), strips.beside * between)
        self.drawn_height = max((size[1] for size in self.drawn), default=ZERO)
        self.height = mean(
            size[1] for size, drawn in zip(self.sizes, self.drawn, strict=True)
            if drawn[1] == self.drawn_height
        )  # fmt: skip

    def ease_to(self, width: Exact) -> None:
        """Make the places of a row that is drawn as long as the others together as long."""
        if self.width != width:
            more = (width - self.width) / len(self.sizes)
            self.sizes = [(wide + more, high) for wide, high in self.sizes]
            self.width = width

    @property
    def columns(self) -> tuple[Exact, ...]:
        return tuple(size[0] for size in self.sizes)

    def cells(self, width: Exact, y: Exact, filler: str) -> Iterator[Cell]:
        """From left to right; a row that is short is filled up at both ends."""
        strips, high = self.strips, self.height
        spare = (width - self.width) / 2
        x: Exact = ZERO
        if spare > 0:
            yield (TopPiece("filler", rectangle(x, y, spare, high), filler),)
            x += spare
        for i, place in enumerate(self.places):
            check()
            if strips.beside and (i or strips.outside):
                yield (TopPiece("sash", rectangle(x, y, strips.beside, high), strips.fabric),)
                x += strips.beside
            yield tuple(self._cell(i, place, x, y, filler))
            x += self.sizes[i][0]
        if strips.beside and strips.outside:
            yield (TopPiece("sash", rectangle(x, y, strips.beside, high), strips.fabric),)
            x += strips.beside
        if spare > 0:
            yield (TopPiece("filler", rectangle(x, y, spare, high), filler),)

    def _cell(self, i: int, place: Placed, x: Exact, y: Exact, filler: str) -> Iterator[TopPiece]:
        """A block, with fabric above and below where it is lower than its row."""
        wide, high = self.sizes[i]
        if self.drawn[i][1] == self.drawn_height:
            high = self.height  # what it misses is eased
        high = min(high, self.height)
        spare = (self.height - high) / 2
        if spare > 0:
            yield TopPiece("filler", rectangle(x, y, wide, spare), filler)
        yield _block(place, (wide, high), x, y + spare)
        if spare > 0:
            yield TopPiece("filler", rectangle(x, y + spare + high, wide, spare), filler)


def _block(place: Placed, size: Pair, x: Exact, y: Exact) -> TopPiece:
    outline = rectangle(x, y, *size)
    if not place.block:
        return TopPiece("plain", outline, place.fabric, None, place)
    middle = Point(x + size[0] / 2, y + size[1] / 2)
    return TopPiece(
        "block", outline, "", Lying(place, as_lying(size, place), middle, 2 * place.turn)
    )


def _between(line: _Line, width: Exact, y: Exact, strips: Strips) -> Row:
    """Sashing between two rows, or at the edge of one: with squares in it where all rows are as
    ``line`` is, else in one strip."""
    high = strips.below
    if not strips.corner_fabric:
        return Row("", ((TopPiece("sash", rectangle(ZERO, y, width, high), strips.fabric),),))
    cells: list[Cell] = []
    x: Exact = ZERO

    def corner(x: Exact) -> Cell:
        outline = rectangle(x, y, strips.beside, high)
        return (TopPiece("corner-square", outline, strips.corner_fabric),)

    for i, wide in enumerate(line.columns):
        check()
        if i or strips.outside:
            cells.append(corner(x))
            x += strips.beside
        cells.append((TopPiece("sash", rectangle(x, y, wide, high), strips.fabric),))
        x += wide
    if strips.outside:
        cells.append(corner(x))
    return Row("", tuple(cells))
