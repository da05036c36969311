"""From a block to its patches: faces of the arrangement, at finished size, with their cloth."""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

from inlet.core.geometry.arrangement import Arrangement, Segment, arrange
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon, contains
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
    """A block with its patches. ``unused_fabric_at`` are points that lie in no patch's inside."""

    block: Block
    arrangement: Arrangement
    patches: tuple[Patch, ...]
    unused_fabric_at: tuple[Point, ...]

    def patch_at(self, point: Point) -> Patch | None:
        """The patch around a point in grid units; None on a seam or outside."""
        face = locate(self.arrangement, point)
        return None if face is None else self.patches[face]


def draft(block: Block) -> Draft:
    """The patches of ``block``, in reading order. Drawing faults are in the arrangement; nothing
    here raises for them."""
    width, height = block.grid
    arrangement = _arrangement(width, height, tuple(seam.ends for seam in block.seams))
    cloth: dict[int, str] = {}
    unused = []
    for spot in block.fabric_at:
        face = locate(arrangement, Point(*spot.point))
        if face is None:
            unused.append(Point(*spot.point))
        else:
            cloth[face] = spot.fabric
    sx, sy = block.scale
    patches = tuple(
        Patch(
            f"p{i + 1}",
            i,
            cloth.get(i),
            _scaled(arrangement, face.corners, sx, sy),
            tuple(_scaled(arrangement, hole, sx, sy) for hole in face.holes),
        )
        for i, face in enumerate(arrangement.faces)
    )
    return Draft(block, arrangement, patches, tuple(unused))


@lru_cache(maxsize=64)
def _arrangement(width: Exact, height: Exact, seams: tuple[Segment, ...]) -> Arrangement:
    """Cached: painting, naming and re-sizing a block leave its geometry alone."""
    return arrange(width, height, seams)


def _scaled(arrangement: Arrangement, ring: tuple[int, ...], sx: Exact, sy: Exact) -> Polygon:
    return tuple(arrangement.points[v].scaled(sx, sy) for v in ring)


@lru_cache(maxsize=64)
def _boxes(arrangement: Arrangement) -> tuple[tuple[float, float, float, float], ...]:
    places = [p.floats() for p in arrangement.points]
    out = []
    for face in arrangement.faces:
        xs = [places[v][0] for v in face.corners]
        ys = [places[v][1] for v in face.corners]
        out.append((min(xs), min(ys), max(xs), max(ys)))
    return tuple(out)


def locate(arrangement: Arrangement, point: Point) -> int | None:
    """The face strictly around a point (drawing units); None on a seam or outside."""
    x, y = point.floats()
    for i, (left, top, right, bottom) in enumerate(_boxes(arrangement)):
        if not (left - 1e-9 <= x <= right + 1e-9 and top - 1e-9 <= y <= bottom + 1e-9):
            continue
        if contains(arrangement.outline(i), point) > 0 and not any(
            contains([arrangement.points[v] for v in hole], point) >= 0
            for hole in arrangement.faces[i].holes
        ):
            return i
    return None
