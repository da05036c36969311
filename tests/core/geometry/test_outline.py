"""Curves and curved outlines on their own, against an independent library and plain integration."""

from __future__ import annotations

from math import hypot, isclose, pi

import numpy as np
import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from inlet.core.draft.compass import quarter_arc
from inlet.core.draft.snapping import curve_distance
from inlet.core.draft.symmetry import image, turner
from inlet.core.geometry.arrange import arrange
from inlet.core.geometry.curve import (
    Curve,
    circle_of,
    curve_length,
    exact_chain,
    extremes,
    flattened,
    float_chain,
    radius,
    sweep,
    within_arc,
)
from inlet.core.geometry.inside import exact_side, inside_point, rough_sides, side, surely
from inlet.core.geometry.located import is_located
from inlet.core.geometry.outline import (
    Outline,
    box,
    outline_area,
    outline_width,
    polygon_of,
    polyline,
    shape_key,
)
from inlet.core.geometry.point import Point, dot
from inlet.core.geometry.polygon import line_through
from inlet.core.geometry.vertices import line_meets_circle
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from tests.blocks import mixed_seams, point, ratios, turns

arcs = mixed_seams(most=1).filter(lambda drawn: bool(drawn) and drawn[0].centre is not None)
spots = st.builds(
    point,
    ratios(min_value=0, max_value=6, max_denominator=12),
    ratios(min_value=0, max_value=6, max_denominator=12),
)


def fine(curve: Curve) -> list[tuple[float, float]]:
    return [*flattened(curve, 1e-7), curve.end.floats()]


@given(arcs)
@settings(max_examples=80)
def test_length_box_and_sweep_are_those_of_the_arc(drawn_arcs):
    (arc,) = drawn_arcs
    points = fine(arc)
    line = shapely.LineString(points)
    assert isclose(line.length, curve_length(arc), rel_tol=1e-5)
    assert all(abs(a - b) < 1e-4 for a, b in zip(line.bounds, extremes(arc), strict=True))
    assert isclose(abs(sweep(arc)) * float(radius(arc)), curve_length(arc), rel_tol=1e-12)
    assert abs(sweep(arc)) < pi
    back = Curve(arc.end, arc.start, arc.centre)
    assert sweep(back) == -sweep(arc)
    assert back.clockwise != arc.clockwise
    r = float(circle_of(arc).squared) ** 0.5
    x, y = arc.centre.floats()
    assert all(isclose(hypot(px - x, py - y), r, rel_tol=1e-9) for px, py in points)


@given(arcs, turns)
@settings(max_examples=60)
def test_the_exact_chain_of_a_turned_arc_is_the_chain_turned(drawn_arcs, turn):
    (arc,) = drawn_arcs
    move = turner(turn, F(6), F(6))
    moved = image(arc, move)
    there = [*exact_chain(moved), moved.end]
    here = [move(p) for p in (*exact_chain(arc), arc.end)]
    assert there == here
    circle = circle_of(arc)
    u, v = arc.start.minus(arc.centre), arc.end.minus(arc.centre)
    if dot(u, v) == 0:  # a quarter: the weight √2/2 is exact, so the points are on it
        assert all(circle.side(p) == 0 for p in exact_chain(arc))


@given(arcs, st.fractions(F(1, 9), 9).map(F))
@settings(max_examples=60)
def test_an_arc_in_a_stretched_block_is_drawn_stretched(drawn_arcs, by):
    """Its points are those of the circle, stretched."""
    (arc,) = drawn_arcs
    u, v = arc.start.minus(arc.centre), arc.end.minus(arc.centre)
    assume(abs(u.y * u.y - v.y * v.y) > F(1, 1000))

    def move(p):
        return Point(p.x, p.y * by)

    stretched = image(arc, move)
    assert exact_chain(stretched) == tuple(map(move, exact_chain(arc)))
    for curve in (arc, stretched):
        exact = [p.floats() for p in exact_chain(curve)]
        assert np.allclose(float_chain(curve), exact, rtol=1e-9, atol=1e-9)


@given(mixed_seams(most=6), spots)
@settings(max_examples=80, deadline=None)
def test_inside_and_outside_as_an_independent_library_sees_them(seams, spot):
    found = arrange(F(6), F(6), seams)
    place = shapely.Point(spot.floats())
    for outline in found.outlines:
        for p in (spot, *(q for o in found.outlines for q in o.corners)):
            assert surely(rough_sides(outline), *p.floats()) in (0, exact_side(outline, p))
        rough = shapely.Polygon(polyline(outline, 1e-6)).buffer(0)
        if rough.boundary.distance(place) > 1e-4:
            assert (side(outline, spot) > 0) == rough.contains(place)
        assert isclose(rough.area, outline_area(outline), abs_tol=1e-3)
        edges = zip(rough.bounds, box(outline), strict=True)
        assert all(abs(a - b) < 1e-3 for a, b in edges)
        hull = rough.minimum_rotated_rectangle
        assert outline_width(outline) <= hull.length / 2 + 1e-6


@given(mixed_seams(most=6))
@settings(max_examples=40, deadline=None)
def test_corners_and_points_on_the_seams_are_on_the_outline(seams):
    found = arrange(F(6), F(6), seams)
    for outline in found.outlines:
        exact = [p for p in outline.corners if not any(map(is_located, p))]
        assert all(side(outline, p) == 0 for p in exact)
        turned = Outline(
            outline.corners[1:] + outline.corners[:1],
            tuple(sorted(((i - 1) % len(outline.corners), c) for i, c in outline.arcs)),
        )
        assert shape_key(turned) == shape_key(outline)
        rough = shapely.Polygon([p.floats() for p in polygon_of(outline)])
        assert abs(rough.area - outline_area(outline)) < 0.2


@given(arcs, spots)
@settings(max_examples=60)
def test_the_distance_to_a_curve(drawn_arcs, spot):
    (arc,) = drawn_arcs
    far = curve_distance(arc, spot.floats())
    assert isclose(far, shapely.LineString(fine(arc)).distance(shapely.Point(spot.floats())),
                   abs_tol=3e-3)  # fmt: skip


@given(spots, spots, spots)
@settings(max_examples=80)
def test_a_line_meets_a_circle_on_both(centre, on, other):
    if on in (centre, other) or other == centre:
        return
    circle = circle_of(Curve(on, on, centre))
    for p in line_meets_circle(line_through(on, other), circle):
        assert abs(float(circle.side(p))) < 1e-9
        assert abs(float(line_through(on, other).side(p))) < 1e-9
    assert any(
        abs(float(p.x - on.x)) + abs(float(p.y - on.y)) < 1e-9
        for p in line_meets_circle(line_through(on, other), circle)
    )


def test_a_tangent_touches_in_one_exact_point():
    circle = circle_of(Curve(point(1, 0), point(0, 1), point(0, 0)))
    slanted = line_through(Point(ROOT2, F(0)), Point(F(0), ROOT2))
    assert line_meets_circle(slanted, circle) == [Point(ROOT2 / 2, ROOT2 / 2)]
    assert line_meets_circle(line_through(point(0, 2), point(2, 2)), circle) == []


@pytest.mark.parametrize("count", [2, 3, 5])
def test_nested_arcs_about_one_centre_part_their_square_in_rings(count):
    seams = [Curve(point(k, 0), point(0, k), point(0, 0)) for k in range(1, count + 1)]
    found = arrange(F(count), F(count), seams)
    assert found.faults == ()
    sizes = sorted(outline_area(o) for o in found.outlines)
    rings = [pi / 4 * (2 * k - 1) for k in range(1, count + 1)]
    rest = count * count - sum(rings)
    assert all(isclose(a, b) for a, b in zip(sizes, sorted([*rings, rest]), strict=True))


def test_arcs_that_touch_are_told_apart_by_their_bend():
    """Four seams leave (2, 0) the same way: a line and three arcs that touch it there."""
    start = point(2, 0)
    seams = [
        Curve(start, point(2, 4)),
        Curve(start, point(4, 2), point(4, 0)),
        Curve(start, point(0, 2), point(0, 0)),
        Curve(start, point(3, 1), point(3, 0)),
    ]
    for order in (seams, seams[::-1]):
        found = arrange(F(4), F(4), [*order, Curve(point(3, 1), point(4, 1))])
        assert [f.kind for f in found.faults] == []
        assert len(found.faces) == 5
        assert isclose(sum(outline_area(o) for o in found.outlines), 16)


@given(st.integers(1, 5), st.integers(1, 5), st.booleans())
def test_arcs_that_overlap_become_one_seam_and_are_told(a, b, backward):
    """Two quarters of one circle, one begun part of the way along the other by a 3-4-5 point."""
    whole = quarter_arc(point(10, 0), point(0, 10))
    near, far = sorted([Point(F(8), F(6)), Point(F(6), F(8))])
    part = Curve(near, far, whole.centre) if backward else Curve(far, near, whole.centre)
    seams = [whole] * a + [part] * b
    found = arrange(F(10), F(10), seams)
    assert len(found.faces) == 2
    assert [f.kind for f in found.faults] == ["duplicate"] * (a + b - 1)
    assert {p for p in found.points if p in (near, far)} == {near, far}
    assert within_arc(near, point(10, 0), point(0, 10), point(0, 0))


@given(st.integers(3, 10**9), st.integers(1, 9))
def test_however_thin_a_cap_is_it_has_an_inside(n, radius):
    """Between a chord and its arc, the half angle atan(1/n): about r/2n² high."""
    t, r = F(1, n), F(radius)
    x, y = r * (1 - t * t) / (1 + t * t), r * 2 * t / (1 + t * t)
    cap = Outline((point(x, -y), point(x, y)), ((0, point(0, 0)),))
    assert side(cap, inside_point(cap)) > 0
