"""From a block to its patches: faces of the arrangement, at finished size, with their cloth."""

from __future__ import annotations

from collections import deque
from functools import lru_cache
from typing import NamedTuple

from inlet.core.geometry.arrangement import Arrangement, Segment, arrange
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon
from inlet.core.numbers import Exact
from inlet.core.project import Block


class Patch(NamedTuple):
    """One piece of cloth as it shows. ``face`` indexes the arrangement; ``outline`` (and the rings
    of islands in ``holes``) are in finished length from the block's top left, clockwise."""

    id: str
    face: int
    fabric: str | None
    outline: Polygon
    holes: tuple[Polygon, ...] = ()


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


_LATEST: deque[Draft] = deque(maxlen=4)


def draft(block: Block) -> Draft:
    """The patches of ``block``, in reading order. Drawing faults are in the arrangement; nothing
    here raises for them. The last few are remembered."""
    for known in tuple(_LATEST):
        if known.block is block:
            return known
    made = _draft(block)
    _LATEST.append(made)
    return made


def _draft(block: Block) -> Draft:
    width, height = block.grid
    arrangement = _arrangement(width, height, tuple(seam.ends for seam in block.seams))
    homes = tuple(arrangement.locate(Point(*spot.point)) for spot in block.fabric_at)
    cloth = {
        home: spot.fabric
        for home, spot in zip(homes, block.fabric_at, strict=True)
        if home is not None
    }
    sx, sy = block.scale
    points = [p.scaled(sx, sy) for p in arrangement.points]
    patches = tuple(
        Patch(
            f"p{i + 1}",
            i,
            cloth.get(i),
            tuple(points[v] for v in face.corners),
            tuple(tuple(points[v] for v in hole) for hole in face.holes),
        )
        for i, face in enumerate(arrangement.faces)
    )
    return Draft(block, arrangement, patches, homes)


@lru_cache(maxsize=64)
def _arrangement(width: Exact, height: Exact, seams: tuple[Segment, ...]) -> Arrangement:
    """Cached: painting, naming and re-sizing a block leave its geometry alone."""
    return arrange(width, height, seams)
