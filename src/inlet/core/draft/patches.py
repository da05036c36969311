"""From a block to its patches: faces of the arrangement, at finished size, with their fabric."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.geometry import (
    Arcs,
    Arrangement,
    Curve,
    Outline,
    Point,
    Polygon,
    arrange,
    polygon_of,
)
from inlet.core.memo import Latest, memo
from inlet.core.numbers import Exact
from inlet.core.project import Block


class Patch(NamedTuple):
    """One piece of fabric as it shows. ``face`` indexes the arrangement; ``outline`` (and those
    round islands in ``holes``) are in finished length from the block's top left, clockwise.
    ``arcs`` are the sides of ``outline`` that are curved, as (side, centre)."""

    id: str
    face: int
    fabric: str | None
    outline: Polygon
    arcs: Arcs = ()
    holes: tuple[Outline, ...] = ()

    @property
    def shape(self) -> Outline:
        return Outline(self.outline, self.arcs)

    @property
    def polygon(self) -> Polygon:
        """The outline with arcs in short exact chords."""
        return polygon_of(self.shape)


class Draft(NamedTuple):
    """A block with its patches. ``homes`` are, for each of the block's fabric points, the patch it
    lies in, or None (on a seam or outside)."""

    block: Block
    arrangement: Arrangement
    patches: tuple[Patch, ...]
    homes: tuple[int | None, ...]

    def patch_at(self, point: Point) -> Patch | None:
        """The patch around a point in grid units; None on a seam or outside."""
        face = self.arrangement.locate(point)
        return None if face is None else self.patches[face]


_DRAFTS: Latest[Block, Draft] = Latest(64)


def draft(block: Block) -> Draft:
    """The patches of ``block``, in reading order. Drawing faults are in the arrangement; nothing
    here raises for them. The last few are remembered."""
    return _DRAFTS.of(block, _draft)


def arrangement_of(block: Block) -> Arrangement:
    """The block's faces, without their fabric."""
    width, height = block.grid
    return _arrangement(width, height, tuple(seam.curve for seam in block.seams))


def in_fabric(block: Block, homes: tuple[int | None, ...]) -> Draft:
    """The draft of a block whose fabric points are known to lie in the patches ``homes``; it is
    remembered, so that ``draft`` need not look for them again."""
    return _DRAFTS.keep(block, _with_homes(block, arrangement_of(block), homes))


def _draft(block: Block) -> Draft:
    arrangement = arrangement_of(block)
    homes = arrangement.locate_all([Point(*spot.point) for spot in block.fabric_at])
    return _with_homes(block, arrangement, homes)


def _with_homes(block: Block, arrangement: Arrangement, homes: tuple[int | None, ...]) -> Draft:
    fabric = {
        home: spot.fabric
        for home, spot in zip(homes, block.fabric_at, strict=True)
        if home is not None
    }
    sx, sy = block.scale
    points = scaled_points(arrangement, sx, sy)
    patches = tuple(
        Patch(
            f"p{i + 1}",
            i,
            fabric.get(i),
            tuple(points[v] for v in face.loop.corners),
            tuple((k, c.scaled(sx, sy)) for k, c in enumerate(face.loop.centres) if c is not None),
            tuple(arrangement.traced(hole).scaled(sx, sy) for hole in face.holes),
        )
        for i, face in enumerate(arrangement.faces)
    )
    return Draft(block, arrangement, patches, homes)


def points_of(draft: Draft) -> tuple[Point, ...]:
    """The vertices of the arrangement at finished size."""
    return scaled_points(draft.arrangement, *draft.block.scale)


def float_points_of(draft: Draft) -> tuple[tuple[float, float], ...]:
    """The same as floats, for lengths that are compared, never cut."""
    return _float_points(draft.arrangement, *draft.block.scale)


def patch_polygons(draft: Draft) -> tuple[Polygon, ...]:
    """The patches as polygons to draw, see ``Patch.polygon``."""
    return _drawn(draft.arrangement, *draft.block.scale)


@memo(8)
def _drawn(arrangement: Arrangement, sx: Exact, sy: Exact) -> tuple[Polygon, ...]:
    return tuple(polygon_of(outline.scaled(sx, sy)) for outline in arrangement.outlines)


@memo(8)
def scaled_points(arrangement: Arrangement, sx: Exact, sy: Exact) -> tuple[Point, ...]:
    """The points of an arrangement at finished size. (Arrangements are told apart by identity.)"""
    return tuple(p.scaled(sx, sy) for p in arrangement.points)


@memo(8)
def _float_points(
    arrangement: Arrangement, sx: Exact, sy: Exact
) -> tuple[tuple[float, float], ...]:
    return tuple(p.floats() for p in scaled_points(arrangement, sx, sy))


@memo(64)
def _arrangement(width: Exact, height: Exact, seams: tuple[Curve, ...]) -> Arrangement:
    """Cached: painting, naming and re-sizing a block leave its geometry alone."""
    return arrange(width, height, seams)
