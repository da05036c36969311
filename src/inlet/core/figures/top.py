"""A quilt top: each block drawn once, and where it lies; the other pieces in their fabrics."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.figures.display import Box, Corners, FabricArea, bounds_of
from inlet.core.project import Block, Project, Quilt
from inlet.core.setting import (
    BlockOnTop,
    PatchPicture,
    Top,
    blocks_on_top,
    single_pieces,
)


class TopBlock(NamedTuple):
    """A block where it lies: the number of its drawing, and how far it reaches."""

    drawing: int
    on_top: BlockOnTop
    reach: Box


class TopFigure(NamedTuple):
    """A top in finished lengths."""

    size: tuple[float, float]
    drawings: tuple[tuple[Block, tuple[PatchPicture, ...]], ...]
    blocks: tuple[TopBlock, ...]
    others: tuple[FabricArea, ...]

    @property
    def many(self) -> int:
        """How many areas it has."""
        return len(self.others) + sum(len(self.drawings[b.drawing][1]) for b in self.blocks)

    def areas(self) -> Iterator[FabricArea]:
        """All of it, piece by piece; what has a hole before what lies in it."""
        yield from self.others
        ordered = [sorted(drawn, key=lambda p: not p.holes) for _, drawn in self.drawings]
        for top_block in self.blocks:
            check()
            matrix = top_block.on_top.matrix
            for patch in ordered[top_block.drawing]:
                yield FabricArea(tuple(matrix(p) for p in patch.outline), patch.fabric)


def top_figure(top: Top, project: Project) -> TopFigure:
    """The top of a project's quilt."""
    numbers: dict[int, int] = {}
    drawings: list[tuple[Block, tuple[PatchPicture, ...]]] = []
    blocks = []
    for on_top in blocks_on_top(top, project):
        check()
        number = numbers.get(id(on_top.block)) if on_top.improvised is None else None
        if number is None:
            number = len(drawings)
            if on_top.improvised is None:
                numbers[id(on_top.block)] = number
            drawings.append((on_top.block, on_top.patches))
        blocks.append(TopBlock(number, on_top, _reach(on_top)))
    others = [
        FabricArea(tuple(p.floats() for p in piece.outline), piece.fabric or None)
        for piece in single_pieces(top, project.quilt or Quilt())
        if piece.lying is None
    ]
    size = float(top.size[0]), float(top.size[1])
    return TopFigure(size, tuple(drawings), tuple(blocks), tuple(others))


def _reach(on_top: BlockOnTop) -> Box:
    matrix, (wide, high) = on_top.matrix, (float(side) for side in on_top.block.finished)
    corners: Corners = tuple(matrix(p) for p in ((0, 0), (wide, 0), (wide, high), (0, high)))
    return bounds_of([corners])
