"""The patches of a top as they lie, for every picture of it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.draft import draft
from inlet.core.geometry import ORIGIN, Point, polyline
from inlet.core.improvised import ImprovisedSquare, square_picture
from inlet.core.memo import memo
from inlet.core.numbers import Fraction
from inlet.core.project import Block, Pair, Project, Quilt
from inlet.core.setting.colourways import in_colourway
from inlet.core.setting.improvised_blocks import squares_on_top
from inlet.core.setting.pieces import Lying
from inlet.core.setting.places import Placed
from inlet.core.setting.top import Top, single_pieces

Place = tuple[float, float]
Corners = tuple[Place, ...]
FINE = 400
"""An arc is drawn to so small a part of its block."""


class Matrix(NamedTuple):
    """Where a point of a block lies on the top: (a x + c y + e, b x + d y + f)."""

    a: float
    b: float
    c: float
    d: float
    e: float
    f: float

    def __call__(self, p: Place) -> Place:
        x, y = p
        return self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f


class PatchPicture(NamedTuple):
    """A patch in finished lengths of its block: outer outline, holes, fabric."""

    outline: Corners
    holes: tuple[Corners, ...]
    fabric: str | None


class BlockOnTop(NamedTuple):
    """A block of the top: as it is drawn there, in its colourway, and how it lies; its patches
    where its corners are improvised, else None."""

    block: Block
    lying: Lying
    improvised: tuple[PatchPicture, ...] | None = None

    @property
    def patches(self) -> tuple[PatchPicture, ...]:
        """What is drawn of it, from its top left."""
        return patches_of(self.block) if self.improvised is None else self.improvised

    @property
    def matrix(self) -> Matrix:
        """Where a point of the drawing lies on the top; a block that came out larger is drawn
        larger."""
        lying = self.lying
        a, b, c, d = _turned(lying.size, self.block.finished, lying.eighths, lying.placed.mirror)
        wide, high = self.block.finished
        x, y = lying.middle.floats()
        half_wide, half_high = float(wide) / 2, float(high) / 2
        return Matrix(
            a, b, c, d, x - a * half_wide - c * half_high, y - b * half_wide - d * half_high
        )


@memo(500)
def _turned(
    made: Pair, drawn: Pair, eighths: int, mirror: bool
) -> tuple[float, float, float, float]:
    """The turn of a block, and how much larger it is than drawn."""
    lying = Lying(Placed(0, 0, "", mirror=mirror), made, ORIGIN, eighths)
    zero = Fraction(0)
    origin = lying(ORIGIN)
    right = lying(Point(made[0] / drawn[0], zero)).minus(origin)
    down = lying(Point(zero, made[1] / drawn[1])).minus(origin)
    return (*right.floats(), *down.floats())


def patches_of(block: Block) -> tuple[PatchPicture, ...]:
    """A block's patches to draw."""
    sagitta = float(max(block.finished)) / FINE
    return tuple(
        PatchPicture(
            tuple(polyline(patch.shape, sagitta)),
            tuple(tuple(polyline(hole, sagitta)) for hole in patch.holes),
            patch.fabric,
        )
        for patch in draft(block).patches
    )


def _corners_of(square: ImprovisedSquare, block: Block, project: Project) -> Iterator[PatchPicture]:
    """What shows of an improvised square."""
    background = block.fabric_at[0].fabric if block.fabric_at else None
    for outline, fabric in square_picture(square, block.finished, project.measure, background):
        yield PatchPicture(tuple(p.floats() for p in outline), (), fabric)


def blocks_on_top(top: Top, project: Project) -> Iterator[BlockOnTop]:
    """Every block of the top; equal ones in one colourway share one drawing, but for improvised
    squares."""
    quilt = project.quilt or Quilt()
    known_blocks: dict[tuple[str, str], Block] = {}
    squares = squares_on_top(top, project)
    for number, piece in enumerate(single_pieces(top, quilt)):
        if piece.lying is None:
            continue
        key = piece.lying.placed.block, piece.lying.placed.colourway
        if key not in known_blocks:
            known_blocks[key] = in_colourway(project.block(key[0]), quilt.colourway(key[1]))
        block, improvised = known_blocks[key], None
        square = squares.at(number)
        if square is not None:
            improvised = tuple(_corners_of(square, block, project))
        yield BlockOnTop(block, piece.lying, improvised)
