"""Figures that close across the seams between blocks, by polygons of another library."""

from __future__ import annotations

from math import dist

import pytest
import shapely
from shapely import affinity

from inlet.core.draft.patches import draft
from inlet.core.remake.closed_figures import closed_figures
from inlet.core.remake.repeats import picture_of_repeat, repeats
from tests.blocks import block_of, in_fabrics
from tests.core.remake.test_repeats import CORNERED, FLAG, HALF, OBLONG, PLAIN
from tests.core.remake.test_slices import PINWHEEL

TILES = 5


def framed():
    """A square of two triangles of one fabric in the middle of a block: a figure no seam between
    blocks goes through."""
    drawn = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2 / 1 1 2 2"
    block = block_of(drawn, 3, 3, (6, 6), "a")
    halves = ["b" if len(patch.outline) == 3 else "a" for patch in draft(block).patches]
    return in_fabrics(block, "".join(halves))


def outlined_by_polygons(picture, wide, high, cell):
    """How long the outlines are, for one repeat: of every component of a fabric, in a floor of many
    repeats, that a seam between blocks goes through and that does not reach the floor's edge; that
    with its lowest corner in the middle repeat stands for all like it."""
    by_fabric = {}
    for outline, fabric in picture:
        by_fabric.setdefault(fabric, []).append(shapely.Polygon([p.floats() for p in outline]))
    floor = shapely.box(0, 0, TILES * wide, TILES * high)
    seams = [
        shapely.LineString([(x, 0), (x, TILES * high)])
        for x in (k * cell[0] for k in range(2 * TILES + 1))
    ]
    seams += [shapely.LineString([(0, y), (TILES * wide, y)])
              for y in (k * cell[1] for k in range(2 * TILES + 1))]  # fmt: skip
    total = 0.0
    for polygons in by_fabric.values():
        tiled = [
            affinity.translate(polygon, i * wide, j * high)
            for polygon in polygons for i in range(TILES) for j in range(TILES)
        ]  # fmt: skip
        whole = shapely.unary_union(shapely.set_precision(tiled, 1e-6))
        for part in shapely.get_parts(whole):
            left, top, _, _ = part.bounds
            here = TILES // 2
            mine = here * wide - 1e-6 <= left < (here + 1) * wide - 1e-6
            mine &= here * high - 1e-6 <= top < (here + 1) * high - 1e-6
            inside = part.buffer(-1e-3)
            if not mine or part.distance(floor.boundary) < 1e-6:
                continue
            if any(inside.intersects(seam) for seam in seams):
                total += part.length
    return total


@pytest.mark.parametrize("block", [HALF, CORNERED, FLAG, OBLONG, PLAIN, PINWHEEL, framed()])
@pytest.mark.parametrize("partner", [None, HALF])
def test_the_outlines_are_those_of_closed_components(block, partner):
    if partner is not None and block.finished != partner.finished:
        partner = None
    start, beside = draft(block), draft(partner) if partner is not None else None
    wide, high = start.block.finished
    listed = repeats(start, beside)
    for repeat in listed[:: max(1, len(listed) // 12)]:
        picture = picture_of_repeat(start, repeat, beside)
        segments = closed_figures(picture, (2 * wide, 2 * high), (wide, high))
        length = sum(dist(p.floats(), q.floats()) for p, q in segments)
        expected = outlined_by_polygons(
            picture, float(2 * wide), float(2 * high), (float(wide), float(high))
        )
        assert length == pytest.approx(expected, abs=1e-3)
