"""Improvised squares as they show, and the scraps they take, by polygons of another library."""

from __future__ import annotations

from collections import Counter

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.measure import INCH
from inlet.core.remake.corners import CornerSeam, LeastScrap, ends_of, least_scrap
from inlet.core.remake.improvised import CornerBounds, ImprovisedSquare, improvised
from inlet.core.remake.squares import scrap_pool, square_picture
from tests.sample import many

RAW = F(13, 2), F(9, 2)
legs = st.integers(1, 30).map(lambda n: F(n, 8))


@given(st.lists(st.tuples(st.integers(0, 3), legs, legs), max_size=4, unique_by=lambda s: s[0]))
@settings(max_examples=many(60, 200), deadline=None)
def test_each_scrap_covers_what_lies_beyond_its_seam(drawn):
    """Triangles over the raw corners, one after the other; what is left of each below the next, and
    of all of it inside the allowances."""
    seams = tuple(CornerSeam(corner, along, down) for corner, along, down in sorted(drawn))
    square = ImprovisedSquare(seams, tuple("abcd"[seam.corner] for seam in seams))
    wide, high = map(float, RAW)
    left = {"ground": shapely.box(0, 0, wide, high)}
    for seam, fabric in zip(square.seams, square.fabrics, strict=True):
        triangle = shapely.Polygon([p.floats() for p in ends_of(seam, RAW)])
        left = {name: part.difference(triangle) for name, part in left.items()}
        left[fabric] = triangle
    inside = shapely.box(0.25, 0.25, wide - 0.25, high - 0.25)
    shown = {}
    for outline, fabric in square_picture(square, RAW, INCH.seam, "ground"):
        polygon = shapely.Polygon([(p.x + F(1, 4), p.y + F(1, 4)) for p in outline])
        shown.setdefault(fabric, []).append(polygon)
    for fabric, part in left.items():
        seen = shapely.unary_union(shown.get(fabric, []))
        assert part.intersection(inside).symmetric_difference(seen).area < 1e-9
    assert sum(p.area for parts in shown.values() for p in parts) == pytest.approx(inside.area)


def test_scraps_are_pooled_by_size_and_fabric():
    """A corner 2 by 2 needs 3 3/8 x 1 3/4 in at least, 3 1/2 x 2 of half-inch sizes; every scrap of
    the pool is as large as its corner asks, and by less than the step larger."""
    seam = CornerSeam(0, F(2), F(2))
    squares = [ImprovisedSquare((seam,), ("a",))] * 3 + [ImprovisedSquare((seam, seam), ("a", "b"))]
    pool = scrap_pool(squares, INCH, F(1, 2))
    assert pool.scraps == Counter(
        {(LeastScrap(F(7, 2), F(2)), "a"): 4, (LeastScrap(F(7, 2), F(2)), "b"): 1}
    )
    assert pool.corners == 5
    bounds = CornerBounds(F(1), F(3), F(1, 8), F(3), 1, 4)
    many_squares = list(improvised(20, 20, bounds, "abcdef", 3))
    pool = scrap_pool(many_squares, INCH, F(1, 2))
    assert pool.corners == sum(len(square.seams) for square in many_squares)
    sizes = {size for size, _ in pool.scraps}
    for square in many_squares:
        for seam in square.seams:
            least = least_scrap(seam, INCH)
            assert any(
                0 <= size.length - least.length < F(1, 2)
                and 0 <= size.width - least.width < F(1, 2)
                for size in sizes
            )
