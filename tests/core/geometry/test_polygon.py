"""Polygons: clipping, mirroring, growing, and what lies inside."""

from __future__ import annotations

from itertools import pairwise
from math import atan2

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from inlet.core.geometry.motion import (
    EIGHTH_TURN,
    Alike,
    Motion,
    canonical,
    mirrored,
    motion_between,
)
from inlet.core.geometry.point import Point, turned
from inlet.core.geometry.polygon import (
    area,
    chord,
    clip,
    clip_to_box,
    contains,
    corners_only,
    flip,
    inner_point,
    is_convex,
    line_through,
    narrowest,
    offset,
    squared_length,
)
from inlet.core.numbers.fraction import Fraction as F
from tests.blocks import allowances, grid_segments, lengths, point, turns

spots = st.builds(point, st.integers(-8, 8), st.integers(-8, 8))
lines = st.tuples(spots, spots).filter(lambda s: s[0] != s[1]).map(lambda s: line_through(*s))


@st.composite
def hulls(draw):
    """A convex polygon, clockwise on screen."""
    points = draw(st.lists(spots, min_size=3, max_size=8))
    hull = shapely.MultiPoint([p.floats() for p in points]).convex_hull
    assume(hull.geom_type == "Polygon")
    ring = tuple(point(round(x), round(y)) for x, y in hull.exterior.coords[:-1])
    return corners_only(ring if area(ring) > 0 else ring[::-1])


@given(hulls(), lines)
def test_a_cut_loses_nothing(polygon, line):
    one, two = clip(polygon, line), clip(polygon, line.opposite())
    assert (area(one) if one else 0) + (area(two) if two else 0) == area(polygon)
    ends = chord(polygon, line)
    assert bool(one and two) <= bool(ends)
    assert all(contains(polygon, p) == 0 == line.side(p) for p in ends or ())


@given(hulls(), spots, spots)
def test_what_lies_in_a_box_is_what_its_four_sides_leave(polygon, one, two):
    left, right = sorted((one.x, two.x))
    top, bottom = sorted((one.y, two.y))
    part = clip_to_box(polygon, (left, top, right, bottom))
    theirs = shapely.Polygon([p.floats() for p in polygon]).intersection(
        shapely.box(*map(float, (left, top, right, bottom)))
    )
    assert float(area(part) if part else 0) == pytest.approx(theirs.area, abs=1e-9)
    assert all(left <= p.x <= right and top <= p.y <= bottom for p in part)


@given(hulls(), lines)
def test_turning_over_twice_is_nothing(polygon, line):
    over = flip(polygon, line)
    assert area(over) == area(polygon)
    assert set(flip(over, line)) == set(polygon)


@given(lengths, lengths, allowances)
def test_a_rectangle_grows_by_twice_the_allowance(a, b, s):
    grown = offset((point(0, 0), point(a, 0), point(a, b), point(0, b)), s)
    assert squared_length(grown[0], grown[1]) == (a + 2 * s) ** 2
    assert squared_length(grown[1], grown[2]) == (b + 2 * s) ** 2
    assert set(offset(grown, -s)) == {point(0, 0), point(a, 0), point(a, b), point(0, b)}


@given(grid_segments(most=9), spots)
def test_inside_agrees_with_an_independent_library(drawn, p):
    from inlet.core.geometry.arrange import arrange

    found = arrange(F(6), F(6), drawn)
    for i in range(len(found.faces)):
        outline = found.outlines[i].corners
        shape = shapely.Polygon([q.floats() for q in outline])
        at = shapely.Point(p.floats())
        expected = 0 if shape.exterior.distance(at) < 1e-12 else 1 if shape.contains(at) else -1
        assert contains(outline, p) == expected
        assert contains(outline, inner_point(outline)) == 1


def test_inner_point_of_a_hook():
    hook = tuple(
        point(x, y) for x, y in ((0, 0), (6, 0), (6, 6), (5, 6), (5, 1), (1, 1), (1, 6), (0, 6))
    )
    assert not is_convex(hook)
    assert contains(hook, inner_point(hook)) == 1
    assert narrowest((point(0, 0), point(4, 0), point(4, 1), point(0, 1))) == 1


# Patches of a picture never lie on one another exactly: a picture is a set of them.
pictures = st.lists(
    st.tuples(hulls(), st.sampled_from("ab")),
    min_size=1,
    max_size=3,
    unique_by=lambda patch: frozenset(patch[0]),
).map(tuple)


@given(pictures, turns, spots)
def test_a_moved_picture_is_found_and_a_mirrored_one_is_not_mistaken(picture, turn, by):
    quarters, mirror = turn
    shown = mirrored(picture) if mirror else picture
    moved = tuple(
        (tuple(turned(p, (quarters, False)).plus(by) for p in outline), tag)
        for outline, tag in shown
    )
    motion = motion_between(shown, moved)
    assert motion is not None
    assert canonical(motion.picture(shown)) == canonical(moved)
    back = motion_between(picture, moved)
    assert back is None or canonical(back.picture(picture)) == canonical(moved)


@given(hulls())
def test_an_eighth_turn_keeps_size_and_eight_make_a_whole(polygon):
    picture = ((polygon, None),)
    for _ in range(8):
        assert motion_between(((polygon, None),), picture) is not None
        picture = EIGHTH_TURN.picture(picture)
    assert picture == ((polygon, None),)


@given(st.lists(st.tuples(pictures, spots, st.integers(0, 3)), min_size=1, max_size=6))
def test_groups_are_those_that_motions_make(cases):
    alike = Alike()
    seen = []
    for picture, by, quarters in cases:
        cos, sin = ((1, 0), (0, 1), (-1, 0), (0, -1))[quarters]
        for shown in (picture, Motion(F(cos), F(sin), by).picture(picture)):
            group, motion = alike.add(shown)
            assert canonical(motion.picture(alike.first[group])) == canonical(shown)
            seen.append((shown, group))
    for one, g in seen:
        for two, h in seen:
            assert (g == h) == (motion_between(one, two) is not None)


def test_a_point_knows_its_turns():
    assert turned(Point(F(1), F(0)), (1, False)) == point(0, 1)
    assert turned(Point(F(1), F(0)), (0, True)) == point(-1, 0)


@given(st.lists(st.tuples(lengths, lengths), min_size=3, max_size=7, unique=True))
def test_convex_as_an_independent_library_sees_it(corners):
    """Corners in the order of their angle about their middle: convex if the hull has them all on
    its edge."""
    x0, y0 = sum(x for x, _ in corners) / len(corners), sum(y for _, y in corners) / len(corners)
    angle = {c: atan2(float(c[1] - y0), float(c[0] - x0)) for c in corners}
    turns_ = sorted(angle.values())
    assume(all(b - a > 1e-6 for a, b in pairwise(turns_)) and (x0, y0) not in corners)
    outline = tuple(point(*c) for c in sorted(corners, key=angle.__getitem__))
    hull = shapely.MultiPoint([p.floats() for p in outline]).convex_hull
    assume(hull.geom_type == "Polygon")
    on_hull = all(hull.exterior.distance(shapely.Point(p.floats())) < 1e-12 for p in outline)
    assert is_convex(outline) == on_hull
