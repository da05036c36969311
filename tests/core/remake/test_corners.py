"""Scraps over corners, by polygons of another library; squares by chance."""

from __future__ import annotations

import random
from math import hypot

import pytest
import shapely

from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.measure import INCH
from inlet.core.remake.corners import (
    CornerSeam,
    coverage,
    ends_of,
    least_scrap,
    to_cover,
)
from inlet.core.remake.improvised import CornerBounds, improvised, seams_within
from tests.sample import many

SIZE = F(13, 2), F(9, 2)


def mirrored_in(polygon, p, q):
    """Each corner of a polygon across the line through two places."""
    (px, py), (qx, qy) = p, q
    length = hypot(qx - px, qy - py)
    ux, uy = (qx - px) / length, (qy - py) / length
    out = []
    for x, y in polygon:
        along = (x - px) * ux + (y - py) * uy
        foot = px + along * ux, py + along * uy
        out.append((2 * foot[0] - x, 2 * foot[1] - y))
    return shapely.Polygon(out)


def random_seam(chance):
    return CornerSeam(chance.randrange(4), F(chance.randint(4, 32), 8), F(chance.randint(4, 32), 8))


def random_scrap(chance, seam):
    """A convex scrap somewhere about the seam."""
    _, p, q = ends_of(seam, SIZE)
    x, y = float(p.x + q.x) / 2, float(p.y + q.y) / 2
    spots = [
        (round(8 * (x + chance.uniform(-6, 6))), round(8 * (y + chance.uniform(-6, 6))))
        for _ in range(9)
    ]
    hull = shapely.MultiPoint(spots).convex_hull
    if hull.geom_type != "Polygon":
        return None
    ring = list(shapely.geometry.polygon.orient(hull, 1).exterior.coords)[:-1]
    return tuple(Point(F(round(u), 8), F(round(v), 8)) for u, v in ring)


def test_a_scrap_covers_what_polygons_say_it_covers():
    chance = random.Random(7)
    seen = {True: 0, False: 0}
    for _ in range(many(1500, 10_000)):
        seam = random_seam(chance)
        scrap = random_scrap(chance, seam)
        if scrap is None:
            continue
        corner, p, q = (v.floats() for v in ends_of(seam, SIZE))
        flipped = mirrored_in([v.floats() for v in scrap], p, q)
        # The raw square beyond the seam, and an allowance more: what lies no farther from the
        # corner's side of it.
        depth = shapely.LineString([p, q])
        far = depth.parallel_offset(40, "left"), depth.parallel_offset(40, "right")
        side = min(far, key=lambda line: line.distance(shapely.Point(corner)))
        length = hypot(q[0] - p[0], q[1] - p[1])
        ux, uy = (q[0] - p[0]) / length * 40, (q[1] - p[1]) / length * 40
        band = shapely.Polygon(
            [(p[0] - ux, p[1] - uy), (q[0] + ux, q[1] + uy), *list(side.coords)]
        ).convex_hull
        long = shapely.LineString([(p[0] - ux, p[1] - uy), (q[0] + ux, q[1] + uy)])
        beyond = band.union(long.buffer(0.25, cap_style="flat"))
        wanted = beyond.intersection(shapely.box(0, 0, *map(float, SIZE)))
        told = coverage(scrap, seam, SIZE, INCH.seam)
        shown = shapely.Polygon([v.floats() for v in to_cover(seam, SIZE, INCH.seam)])
        if abs(told.margin) > 1e-6:
            assert told.covers == flipped.buffer(1e-7).contains(shown) == (told.margin > 0)
            seen[told.covers] += 1
        if wanted.geom_type == "Polygon" and wanted.buffer(-1e-3).contains(shapely.Point(
            (0.9 * corner[0] + 0.05 * (p[0] + q[0]), 0.9 * corner[1] + 0.05 * (p[1] + q[1])))
        ):  # fmt: skip
            assert shown.symmetric_difference(wanted).area < 0.05 * (1 + wanted.area)
    assert min(seen.values()) > 30


@pytest.mark.parametrize("corner", range(4))
def test_the_least_scrap_covers_and_a_mark_less_does_not(corner):
    """Legs 1 1/4 and 2 1/2 in: 2.795 in of seam, 1.118 deep: a strip 3 1/2 long, 1 3/8 wide."""
    seam = CornerSeam(corner, F(5, 4), F(5, 2))
    least = least_scrap(seam, INCH)
    assert least == (F(7, 2), F(11, 8))
    size = F(13, 2), F(13, 2)
    _, p, q = ends_of(seam, size)
    margins = {}
    for less in (0, 1):
        width = least.width - F(less, 8)
        scrap = laid_along(p, q, ends_of(seam, size)[0], least.length, width)
        margins[less] = coverage(scrap, seam, size, INCH.seam)
    assert margins[0].covers
    assert not margins[1].covers
    assert margins[1].margin == pytest.approx(1.25 - 1.11803 - 0.25, abs=1e-3)


def laid_along(p, q, corner, length, width):
    """A strip laid along a seam, an allowance of it on the corner's side, in thousandths."""
    (px, py), (qx, qy), (cx, cy) = p.floats(), q.floats(), corner.floats()
    c = hypot(qx - px, qy - py)
    ux, uy = (qx - px) / c, (qy - py) / c
    nx, ny = -uy, ux
    if (cx - px) * nx + (cy - py) * ny < 0:
        nx, ny = -nx, -ny
    # The corner's deepest point does not lie over the middle: the strip begins at the wider side.
    depth = (cx - px) * nx + (cy - py) * ny
    along = (cx - px) * ux + (cy - py) * uy
    begin = along - (depth + 0.25) * along / depth - 1e-4
    corners = []
    near = 0.25 + 1e-5
    for at, off in ((begin, near), (begin + float(length), near),
                    (begin + float(length), near - float(width)),
                    (begin, near - float(width))):  # fmt: skip
        corners.append((px + at * ux + off * nx, py + at * uy + off * ny))
    return tuple(Point(F(round(x * 10**6), 10**6), F(round(y * 10**6), 10**6)) for x, y in corners)


def test_squares_by_chance_keep_the_bounds_and_never_repeat_beside_themselves():
    bounds = CornerBounds(F(1), F(3), F(1, 4), F(2), 1, 3)
    squares = list(improvised(40, 50, bounds, "abcd", 11))
    assert squares == list(improvised(40, 50, bounds, "abcd", 11))
    assert squares != list(improvised(40, 50, bounds, "abcd", 12))
    assert len(squares) == 2000
    for i, square in enumerate(squares):
        assert 1 <= len(square.seams) == len(square.fabrics) <= 3
        assert len({s.corner for s in square.seams}) == len(square.seams)
        for seam, fabric in zip(square.seams, square.fabrics, strict=True):
            assert {(leg * 4).denominator for leg in seam[1:]} == {1}
            assert 1 <= min(seam[1:]) <= max(seam[1:]) <= min(3, 2 * min(seam[1:]))
            for other in (i - 1 if i % 40 else -1, i - 40):
                if other >= 0:
                    pairs = zip(squares[other].seams, squares[other].fabrics, strict=True)
                    for there, worn in pairs:
                        assert there != seam
                        assert there.corner != seam.corner or worn != fabric


def test_bounds_that_allow_nothing_give_nothing():
    assert not seams_within(CornerBounds(F(3), F(2), F(1, 4), F(2), 1, 3))
    assert not list(improvised(3, 3, CornerBounds(F(3), F(2), F(1, 4), F(2), 1, 3), "a", 1))
    assert not list(improvised(3, 3, CornerBounds(F(1), F(2), F(1, 4), F(2), 1, 3), "", 1))
