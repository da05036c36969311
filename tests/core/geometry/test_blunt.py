"""Sharp corners cut off square, against polygons grown by another library."""

from __future__ import annotations

import shapely
from hypothesis import given, settings

from inlet.core.geometry.blunt import cut_sides, is_sharp
from inlet.core.geometry.outline import Outline
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import offset
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import Exact
from inlet.core.templates.cut_line import cutting_sides, sewing_sides
from tests.blocks import point, ratios

SEAM = F(1, 4)
FARTHEST = 20.01
"""Allowances from a corner to where its moved sides may meet."""


def clockwise(*corners: Point) -> tuple[Point, ...]:
    """On screen, y down."""
    ring = shapely.LinearRing([p.floats() for p in corners])
    return corners if ring.is_ccw else corners[::-1]


@given(ratios(F(1, 10**6), 3), ratios(-2, 12), ratios(1, 12))
@settings(max_examples=200, deadline=None)
def test_all_round_a_triangle_the_allowance_is_there_and_no_tip_reaches_far(
    high: Exact, tip: Exact, base: Exact
) -> None:
    """However thin: what is within an allowance of the patch is on the piece."""
    triangle = clockwise(point(0, 0), point(base, 0), Point(tip, high))
    patch = shapely.Polygon([p.floats() for p in triangle])
    ends = cut_sides(triangle, SEAM)
    piece = shapely.Polygon([p.floats() for side in ends for p in side])
    assert piece.is_valid
    assert piece.buffer(1e-6).contains(patch.buffer(0.25 - 1e-6))
    for x, y in piece.exterior.coords:
        assert patch.distance(shapely.Point(x, y)) < FARTHEST * 0.25
    corners = zip(triangle[-1:] + triangle, triangle, triangle[1:] + triangle[:1], strict=False)
    if not any(is_sharp(*three) for three in corners):
        raw = offset(triangle, SEAM)
        assert [start for start, _ in ends] == list(raw)


def test_a_notch_however_narrow_is_not_cut_off() -> None:
    """It turns inward: its moved sides meet inside, not far out."""
    notch = clockwise(point(0, 0), point(4, 0), point(4, 4), point("201/100", 4), point(2, 1),
                      point("199/100", 4), point(0, 4))  # fmt: skip
    at = notch.index(point(2, 1))
    assert not is_sharp(notch[at - 1], notch[at], notch[(at + 1) % 7])
    assert len(cutting_sides(sewing_sides(Outline(notch)), 0.25)) == 7
