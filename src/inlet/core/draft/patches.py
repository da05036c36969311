"""From a block to its patches: faces of the arrangement, at finished size, with their cloth."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

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
        (face,) = locate(self.arrangement, [point])
        return None if face is None else self.patches[face]


def draft(block: Block) -> Draft:
    """The patches of ``block``, in reading order. Drawing faults are in the arrangement; nothing
    here raises for them."""
    width, height = block.grid
    arrangement = _arrangement(width, height, tuple(seam.ends for seam in block.seams))
    cloth: dict[int, str] = {}
    unused = []
    spots = [Point(*spot.point) for spot in block.fabric_at]
    for spot, at, face in zip(block.fabric_at, spots, locate(arrangement, spots), strict=True):
        if face is None:
            unused.append(at)
        else:
            cloth[face] = spot.fabric
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
    return Draft(block, arrangement, patches, tuple(unused))


@lru_cache(maxsize=64)
def _arrangement(width: Exact, height: Exact, seams: tuple[Segment, ...]) -> Arrangement:
    """Cached: painting, naming and re-sizing a block leave its geometry alone."""
    return arrange(width, height, seams)


@lru_cache(maxsize=64)
def _boxes(arrangement: Arrangement) -> NDArray[np.float64]:
    """(faces, 4): left, top, right, bottom of each face."""
    places = [p.floats() for p in arrangement.points]
    corners = [np.array([places[v] for v in face.corners]) for face in arrangement.faces]
    return np.array([(*c.min(axis=0), *c.max(axis=0)) for c in corners])


_HAIR = 1e-9


def locate(arrangement: Arrangement, points: Sequence[Point]) -> list[int | None]:
    """For each point (drawing units), the face strictly around it; None on a seam or outside.
    Boxes are compared as floats; only a face whose box holds the point is asked exactly."""
    boxes = _boxes(arrangement)
    out: list[int | None] = []
    for point in points:
        x, y = point.floats()
        near = (boxes[:, 0] <= x + _HAIR) & (boxes[:, 2] >= x - _HAIR)
        near &= (boxes[:, 1] <= y + _HAIR) & (boxes[:, 3] >= y - _HAIR)
        around = (f for f in np.flatnonzero(near).tolist() if _inside(arrangement, f, point))
        out.append(next(around, None))
    return out


def _inside(arrangement: Arrangement, face: int, point: Point) -> bool:
    if contains(arrangement.outline(face), point) <= 0:
        return False
    holes = arrangement.faces[face].holes
    return all(contains([arrangement.points[v] for v in hole], point) < 0 for hole in holes)
