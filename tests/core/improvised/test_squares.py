"""Improvised squares as they show, and the scraps they take, by polygons of another library."""

from __future__ import annotations

from collections import Counter

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.improvised.coverage import LeastScrap, least_scrap
from inlet.core.improvised.field import CornerRules, field_of, improvised_squares
from inlet.core.improvised.picture import square_picture
from inlet.core.improvised.scraps import offcut_area, scrap_pool, scrap_strips
from inlet.core.improvised.seams import CornerSeam, ImprovisedSquare, ends_of, lengths_within
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.improvised import Improvised
from inlet.core.project.measure import INCH
from tests.sample import many

RAW, FINISHED = (F(13, 2), F(9, 2)), (F(6), F(4))
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
    for outline, fabric in square_picture(square, FINISHED, INCH, "ground"):
        polygon = shapely.Polygon([(p.x + F(1, 4), p.y + F(1, 4)) for p in outline])
        shown.setdefault(fabric, []).append(polygon)
    for fabric, part in left.items():
        seen = shapely.unary_union(shown.get(fabric, []))
        assert part.intersection(inside).symmetric_difference(seen).area < 1e-9
    assert sum(p.area for parts in shown.values() for p in parts) == pytest.approx(inside.area)


def field():
    bounds = Improvised(fabrics=("a",), nearest=F(1), farthest=F(3), step=F(1, 8))
    lengths = lengths_within(bounds, (F(13, 2), F(13, 2)), INCH.seam)
    return list(
        improvised_squares(field_of(20, 20), CornerRules(lengths, tuple("abcdef"), 1, 4, 3))
    )


def test_scraps_are_pooled_by_size_and_fabric():
    """A corner 2 by 2 needs 3 3/8 x 1 3/4 in at least, 3 1/2 x 2 of half-inch sizes; every scrap of
    the pool is as large as its corner asks, and by less than the step larger."""
    seam = CornerSeam(0, F(2), F(2))
    squares = [ImprovisedSquare((seam,), ("a",))] * 3 + [ImprovisedSquare((seam, seam), ("a", "b"))]
    pool = scrap_pool(squares, INCH)
    assert pool.scraps == Counter(
        {(LeastScrap(F(7, 2), F(2)), "a"): 4, (LeastScrap(F(7, 2), F(2)), "b"): 1}
    )
    assert (pool.corners, pool.length) == (5, pytest.approx(5 * 8**0.5))
    squares = field()
    pool = scrap_pool(squares, INCH)
    assert pool.corners == sum(len(square.seams) for square in squares)
    sizes = {size for size, _ in pool.scraps}
    for square in squares:
        for seam in square.seams:
            least = least_scrap(seam, INCH)
            assert any(
                0 <= size.length - least.length < F(1, 2)
                and 0 <= size.width - least.width < F(1, 2)
                for size in sizes
            )


def test_strips_hold_every_scrap_of_their_width():
    """Cut again from the strips, longest first: none is left over, and no strip could be spared."""
    pool = scrap_pool(field(), INCH)
    strips = list(scrap_strips(pool, lambda _: F(40)))
    for fabric in "abcdef":
        for width in {size.width for size, of in pool.scraps if of == fabric}:
            lengths = sorted(
                (size.length for (size, of), n in pool.scraps.items()
                 for _ in range(n) if (of, size.width) == (fabric, width)),
                reverse=True,
            )  # fmt: skip
            own = [s for s in strips if (s.fabric, s.width) == (fabric, width)]
            room = [s.length for s in own for _ in range(s.number)]
            assert max(room) <= 40
            assert sum(room) < sum(lengths) + 40
            for length in lengths:
                at = next(i for i, left in enumerate(room) if left >= length)
                room[at] -= length


@given(legs, legs)
def test_an_offcut_is_the_corner_without_an_allowance_beside_the_seam(along, down):
    triangle = shapely.Polygon([(0, 0), (along, 0), (0, down)])
    seam = shapely.LineString([(along, 0), (0, down)])
    left = triangle.difference(seam.buffer(0.25, cap_style="square"))
    # The allowance reaches past the ends of the seam only where the corner is nearly flat.
    told = float(offcut_area(CornerSeam(2, along, down), INCH.seam))
    assert told == pytest.approx(left.area, abs=1e-6)
