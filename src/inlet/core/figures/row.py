"""A row of a quilt by itself, laid level, each block with a mark at the side that is its top."""

from __future__ import annotations

from collections.abc import Iterable
from math import atan2, cos, hypot, sin
from typing import NamedTuple

from inlet.core.figures.display import Corners, FabricArea, Spot, bounds_of
from inlet.core.figures.top import TopFigure
from inlet.core.setting import Row

MARK = 0.09
"""Of a block's width: half the width of the mark at its top."""


class RowFigure(NamedTuple):
    """A row in finished lengths: its pieces, and the marks of the blocks' tops."""

    width: float
    height: float
    areas: tuple[FabricArea, ...]
    marks: tuple[Corners, ...]


def row_of_top(row: Row, top: TopFigure) -> RowFigure:
    """The pieces of a top that lie in a row. A row that runs aslant, on point, is turned level:
    about the angle from its first piece to its last."""
    outlines = [tuple(p.floats() for p in piece.outline) for piece in row.pieces]
    areas: list[FabricArea] = []
    marks: list[Corners] = []
    for area in top.others:
        if _inside(_middle(area.outline), outlines):
            areas.append(area)
    for block in top.blocks:
        if not _inside(block.on_top.lying.middle.floats(), outlines):
            continue
        matrix = block.on_top.matrix
        areas += [
            FabricArea(tuple(matrix(p) for p in patch.outline), patch.fabric)
            for patch in sorted(top.drawings[block.drawing][1], key=lambda p: not p.holes)
        ]
        wide, high = (float(side) for side in block.on_top.block.finished)
        half = min(wide, high) * MARK
        marks.append(
            (matrix((wide / 2 - half, half / 2)), matrix((wide / 2 + half, half / 2)),
             matrix((wide / 2, 2 * half)))
        )  # fmt: skip
    return _levelled(areas, marks, outlines)


def _levelled(
    areas: Iterable[FabricArea], marks: Iterable[Corners], outlines: list[Corners]
) -> RowFigure:
    """Turned level, from (0, 0) on."""
    first, last = _middle(outlines[0]), _middle(outlines[-1])
    angle = atan2(last[1] - first[1], last[0] - first[0]) if first != last else _slant(outlines[0])
    c, s = cos(-angle), sin(-angle)

    def turned(corners: Corners) -> Corners:
        return tuple((x * c - y * s, x * s + y * c) for x, y in corners)

    left, top, right, bottom = bounds_of([turned(outline) for outline in outlines])

    def placed(corners: Corners) -> Corners:
        return tuple((x - left, y - top) for x, y in turned(corners))

    return RowFigure(
        right - left, bottom - top,
        tuple(area._replace(outline=placed(area.outline)) for area in areas),
        tuple(placed(mark) for mark in marks),
    )  # fmt: skip


def _slant(outline: Corners) -> float:
    """The angle of a piece's longest side."""
    sides = zip(outline, (*outline[1:], outline[0]), strict=True)
    (x0, y0), (x1, y1) = max(sides, key=lambda ends: hypot(ends[1][0] - ends[0][0],
                                                           ends[1][1] - ends[0][1]))  # fmt: skip
    return atan2(y1 - y0, x1 - x0)


def _middle(outline: Corners) -> Spot:
    return (
        sum(x for x, _ in outline) / len(outline),
        sum(y for _, y in outline) / len(outline),
    )


def _inside(spot: Spot, outlines: Iterable[Corners]) -> bool:
    """Does a spot lie in one of some convex outlines, all gone round the same way?"""
    x, y = spot
    for outline in outlines:
        sides = zip(outline, (*outline[1:], outline[0]), strict=True)
        turns = [(x1 - x0) * (y - y0) - (y1 - y0) * (x - x0) for (x0, y0), (x1, y1) in sides]
        if all(turn >= -1e-9 for turn in turns) or all(turn <= 1e-9 for turn in turns):
            return True
    return False
