"""Scraps over corners, by polygons of another library; squares by chance."""

from __future__ import annotations

import random
from math import hypot

import pytest
import shapely

from inlet.core.geometry.point import Point
from inlet.core.improvised.coverage import LeastScrap, coverage, least_scrap, scrap_over, to_cover
from inlet.core.improvised.field import (
    CornerRules,
    Spot,
    as_it_lies,
    field_of,
    improvised_squares,
)
from inlet.core.improvised.seams import CornerSeam, ends_of, lengths_within
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.improvised import Improvised
from inlet.core.project.measure import INCH
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
    """Legs 1 1/4 and 2 1/2 in: 2.795 in of seam, 1.118 deep: a strip 3 1/2 long, 1 3/8 wide; it
    covers as it is laid, and slid an eighth to either side no longer."""
    seam, size = CornerSeam(corner, F(5, 4), F(5, 2)), (F(13, 2), F(13, 2))
    least = least_scrap(seam, INCH)
    assert least == (F(7, 2), F(11, 8))

    def covers(scrap, slide=0):
        return coverage(scrap_over(seam, size, scrap, INCH.seam, F(slide)), seam, size, INCH.seam)

    assert covers(least).covers
    narrow = covers(LeastScrap(least.length, least.width - F(1, 8)))
    assert not narrow.covers
    assert narrow.margin == pytest.approx(1.25 - 1.11803 - 0.25, abs=1e-3)
    assert not covers(LeastScrap(least.length - F(1, 8), least.width)).covers
    assert [covers(least, F(n, 8)).covers for n in (-1, 1)] == [False, False]


@pytest.mark.parametrize("turn", [(quarters, mirror) for quarters in range(4)
                                  for mirror in (False, True)])  # fmt: skip
def test_a_seam_on_a_turned_square_lies_where_turning_its_ends_brings_it(turn):
    quarters, mirror = turn
    seam, size = CornerSeam(1, F(5, 4), F(5, 2)), (F(6), F(6))
    points = [p.floats() for p in ends_of(seam, size)]
    if mirror:
        points = [(6 - x, y) for x, y in points]
    for _ in range(quarters):
        points = [(6 - y, x) for x, y in points]
    corner, level, upright = as_it_lies(seam, Spot(0, (0, 0), quarters, mirror))
    there = [p.floats() for p in ends_of(CornerSeam(corner, level, upright), size)]
    assert there[0] == points[0]
    assert set(there) == set(points)


BOUNDS = Improvised(fabrics=("a",), nearest=F(1), farthest=F(3), step=F(1, 4), steepest=F(2))


def test_squares_by_chance_keep_the_bounds_and_never_repeat_beside_themselves():
    lengths = lengths_within(BOUNDS, (F(13, 2), F(13, 2)), INCH.seam)
    rules = CornerRules(lengths, tuple("abcd"), 1, 3, 11)
    squares = list(improvised_squares(field_of(40, 50), rules))
    assert squares == list(improvised_squares(field_of(40, 50), rules))
    assert squares != list(improvised_squares(field_of(40, 50), rules._replace(seed=12)))
    assert len(squares) == 2000
    number = dict.fromkeys("abcd", 0)
    for i, square in enumerate(squares):
        assert 1 <= len(square.seams) == len(square.fabrics) <= 3
        assert len({s.corner for s in square.seams}) == len(square.seams)
        for seam, fabric in zip(square.seams, square.fabrics, strict=True):
            number[fabric] += 1
            assert {(leg * 4).denominator for leg in seam[1:]} == {1}
            assert 1 <= min(seam[1:]) <= max(seam[1:]) <= min(3, 2 * min(seam[1:]))
            for other in (i - 1 if i % 40 else -1, i - 40):
                if other >= 0:
                    pairs = zip(squares[other].seams, squares[other].fabrics, strict=True)
                    for there, worn in pairs:
                        assert there != seam
                        assert there.corner != seam.corner or worn != fabric
    assert max(number.values()) - min(number.values()) < 10


def test_turned_squares_do_not_repeat_as_they_lie():
    lengths = ((F(1), F(1)), (F(1), F(2)), (F(2), F(1)))
    rules = CornerRules(lengths, tuple("abcdefgh"), 4, 4, 5)
    spots = [Spot(n, (n % 9, n // 9), (n % 9 + n // 9) % 4, n % 2 > 0) for n in range(72)]
    squares = list(improvised_squares(spots, rules))
    lie = [
        {(*as_it_lies(seam, spot), f) for seam, f in zip(*square, strict=True)}
        for spot, square in zip(spots, squares, strict=True)
    ]
    for n in range(72):
        for other in (n - 1 if n % 9 else n, n - 9):
            if other >= 0 and other != n:
                beside = {(corner, f) for corner, _, _, f in lie[other]}
                assert not beside & {(corner, f) for corner, _, _, f in lie[n]}


def test_a_place_keeps_its_square_whatever_lies_elsewhere():
    """Chance begins with the place: without balance, squares far apart do not know each other."""
    rules = CornerRules(((F(1), F(1)), (F(1), F(2))), ("a",), 1, 4, 5, False)
    spots = list(field_of(20, 1))
    whole = list(improvised_squares(spots, rules))
    part = list(improvised_squares([*spots[:3], *spots[10:]], rules))
    assert [len(s.seams) for s in part] == [len(s.seams) for s in (*whole[:3], *whole[10:])]


def test_bounds_that_allow_nothing_give_nothing():
    size = F(5), F(5)
    close = Improvised(fabrics=("a",), nearest=F(1, 4), farthest=F(1, 2), step=F(1, 8))
    assert not lengths_within(close, size, F(1, 4))  # all of it lies within the allowance
    far = Improvised(fabrics=("a",), nearest=F(6), farthest=F(7), step=F(1))
    assert not lengths_within(far, size, F(1, 4))
    for lengths, fabrics in (((), ("a",)), (((F(1), F(1)),), ())):
        assert not list(improvised_squares(field_of(3, 3), CornerRules(lengths, fabrics, 1, 3, 1)))
