"""Arcs in the arrangement: what they enclose, where they cross, and what is not left to chance."""

from __future__ import annotations

from math import atan2, hypot, pi

import pytest
import shapely
import shapely.ops
from hypothesis import example, given, settings
from hypothesis import strategies as st

from inlet.core.draft.compass import quarter_arc
from inlet.core.draft.symmetry import image, turner
from inlet.core.geometry.arrange import arrange
from inlet.core.geometry.curve import Curve, arc_fault, circle_of, flattened, sweep
from inlet.core.geometry.inside import inside_point, side
from inlet.core.geometry.outline import outline_area, polyline
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from tests.blocks import grid_segments, mixed_seams, point, turns


def areas(found) -> list[float]:
    return [outline_area(o) for o in found.outlines]


def touching(drawn: list[Curve]) -> list[tuple[float, float]]:
    """Where lines and circles touch circles, which chords of them would miss."""
    found = []
    for arc in (c for c in drawn if c.centre is not None):
        (h, k), r = arc.centre.floats(), float(circle_of(arc).squared) ** 0.5
        for c in drawn:
            if c.centre is None:
                (px, py), (qx, qy) = (p.floats() for p in c.ends)
                t = ((h - px) * (qx - px) + (k - py) * (qy - py)) / hypot(qx - px, qy - py) ** 2
                foot = px + t * (qx - px), py + t * (qy - py)
            elif c.centre != arc.centre:
                (u, v) = c.centre.floats()
                ahead = -1 if float(circle_of(c).squared) > hypot(u - h, v - k) ** 2 else 1
                t = ahead * r / hypot(u - h, v - k)
                foot = h + t * (u - h), k + t * (v - k)
                if abs(hypot(foot[0] - u, foot[1] - v) ** 2 - float(circle_of(c).squared)) > 1e-9:
                    continue
            else:
                continue
            if abs(hypot(foot[0] - h, foot[1] - k) - r) < 1e-9:
                found.append(foot)
    return found


def chords(curve: Curve, ends: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """A seam in short straight pieces, through those of the places that lie on it."""
    if curve.centre is None:
        return [p.floats() for p in curve.ends]
    (h, k), squared = curve.centre.floats(), float(circle_of(curve).squared)
    on = [p for p in ends if abs(hypot(p[0] - h, p[1] - k) ** 2 - squared) < 1e-9]
    rough = [*flattened(curve, 1e-5), curve.end.floats(), *on]
    x, y = curve.centre.floats()
    (ax, ay), turn = curve.start.floats(), 1 if sweep(curve) > 0 else -1

    def along(p: tuple[float, float]) -> float:
        u, v = (ax - x, ay - y), (p[0] - x, p[1] - y)
        return turn * atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1])

    return sorted((p for p in set(rough) if -1e-9 < along(p) < abs(sweep(curve)) + 1e-9), key=along)


EDGE = [(0, 0, 6, 0), (6, 0, 6, 6), (6, 6, 0, 6), (0, 6, 0, 0)]


def whole(found) -> float:
    holes = sum(outline_area(found.traced(hole)) for face in found.faces for hole in face.holes)
    return sum(areas(found)) + holes  # seen from inside, a hole runs the other way round


@given(mixed_seams(most=10))
@settings(max_examples=80, deadline=None)
def test_patches_of_lines_and_arcs_tile_the_block(drawn):
    found = arrange(F(6), F(6), drawn)
    assert abs(whole(found) - 36) < 1e-9
    for outline in found.outlines:
        assert outline_area(outline) > 0


@given(mixed_seams(most=8))
@example([Curve(point(0, 0), point(3, 6)), Curve(point(2, 6), point(1, 3), point(0, 5))])
@settings(max_examples=60, deadline=None)
def test_patches_are_those_of_an_independent_library(drawn):
    found = arrange(F(6), F(6), drawn)
    if any(face.holes for face in found.faces):
        return
    edge = [Curve(point(x, y), point(u, v)) for x, y, u, v in EDGE]
    ends = [p.floats() for c in drawn for p in c.ends] + touching([*drawn, *edge])
    lines = [shapely.LineString(chords(c, ends)) for c in drawn]
    lines.append(shapely.box(0, 0, 6, 6).exterior)
    theirs = shapely.ops.polygonize(shapely.unary_union(lines, grid_size=1e-9))
    theirs = sorted(t.area for t in theirs if t.area > 1e-3 and shapely.box(0, 0, 6, 6).contains(
        t.representative_point()))  # fmt: skip
    ours = sorted(a for a in areas(found) if a > 1e-3)
    assert len(ours) == len(theirs)
    assert all(abs(a - b) < 2e-3 for a, b in zip(ours, theirs, strict=True))


@given(mixed_seams(most=8), turns)
@settings(max_examples=60, deadline=None)
def test_turning_or_mirroring_turns_the_patches(drawn, turn):
    move = turner(turn, F(6), F(6))
    plain, other = (arrange(F(6), F(6), d) for d in (drawn, [image(c, move) for c in drawn]))
    assert len(plain.faces) == len(other.faces)
    assert sorted(round(a, 9) for a in areas(plain)) == sorted(round(a, 9) for a in areas(other))
    islands = any(face.holes for face in plain.faces)  # an inside point may be on one
    for outline in () if islands else plain.outlines:
        moved = move(inside_point(outline))
        assert other.locate(moved) is not None


@given(mixed_seams(most=8))
@settings(max_examples=60, deadline=None)
def test_many_points_are_found_as_one_by_one(drawn):
    """On seams, at corners, in holes, outside, and a hair from a seam."""
    found = arrange(F(6), F(6), drawn)
    points = [point(F(x, 2), F(y, 2)) for x in range(-1, 14) for y in range(-1, 14)]
    points += [Point(p.x, p.y + F(1, 10**10)) for p in found.points]
    points += [inside_point(outline) for outline in found.outlines]
    assert found.locate_all(points) == tuple(map(found.locate, points))
    assert found.locate_all([]) == ()


@given(mixed_seams(most=6))
@settings(max_examples=60, deadline=None)
def test_an_inside_point_is_inside(drawn):
    found = arrange(F(6), F(6), drawn)
    for outline in found.outlines:
        p = inside_point(outline)
        assert side(outline, p) > 0
        rough = shapely.Polygon(polyline(outline, 1e-4))
        assert rough.buffer(1e-3).contains(shapely.Point(p.floats()))


def test_three_seams_through_one_point_outside_the_field_meet_in_it():
    left = Curve(point(3, 0), point(0, 3), point(0, 0))
    right = Curve(point(1, 0), point(4, 3), point(4, 0))
    upright = Curve(point(2, 0), point(2, 4))
    found = arrange(F(4), F(4), [left, right, upright])
    # Both circles have radius 3 and meet at height √5 on the line between their centres.
    (crossing,) = (p for p in found.points if abs(float(p.y) - 5**0.5) < 1e-9)
    assert float(crossing.x) == 2
    assert len(found.faces) == 6
    degree = sum(crossing in (found.points[e.start], found.points[e.end]) for e in found.edges)
    assert degree == 6


@given(grid_segments(most=4), st.integers(0, 3))
@settings(max_examples=60, deadline=None)
def test_a_seam_drawn_to_a_located_crossing_ends_on_it(drawn, pick):
    arc = Curve(point(5, 0), point(0, 5), point(0, 0))
    before = arrange(F(6), F(6), [arc, *drawn])
    located = [p for p in before.points if isinstance(p.x, F) and p.x.denominator > 10**6]
    if not located:
        return
    spot = located[pick % len(located)]
    after = arrange(F(6), F(6), [arc, *drawn, Curve(spot, point(6, 6)), Curve(spot, point(0, 0))])
    assert abs(whole(after) - 36) < 1e-6
    used = {after.points[v] for edge in after.edges for v in edge[:2]}
    near = [p for p in used if abs(float(p.x - spot.x)) + abs(float(p.y - spot.y)) < 1e-6]
    assert near == [spot]
    stops = {f.point for f in after.faults if f.kind == "stops"}
    assert spot not in stops


def test_an_arc_with_one_located_end_keeps_to_the_circle_of_the_other():
    """(3, √7) to 12 decimals lies a hair outside the circle of radius 4; a circle through it would
    leave the block near (4, 0), which it only touches."""
    arc = Curve(Point(F(3), F("2.645751311065")), point(4, 0), point(0, 0))
    found = arrange(F(4), F(4), [arc, Curve(point(3, 0), point(3, 4))])
    assert [f.kind for f in found.faults] == []
    assert len(found.faces) == 3
    assert abs(whole(found) - 16) < 1e-9


def test_crossings_in_the_field_are_exact():
    arc = Curve(point(2, 0), point(0, 2), point(0, 0))
    found = arrange(F(2), F(2), [arc, Curve(point(0, 0), point(2, 2))])
    assert Point(ROOT2, ROOT2) in found.points
    assert sorted(round(a, 9) for a in areas(found)) == sorted(
        round(a, 9) for a in (pi / 2, pi / 2, (4 - pi) / 2, (4 - pi) / 2)
    )


def test_an_inscribed_circle_touches_and_does_not_cross():
    quarters = [("1 0", "2 1"), ("2 1", "1 2"), ("1 2", "0 1"), ("0 1", "1 0")]
    circle = [Curve(point(*p.split()), point(*q.split()), point(1, 1)) for p, q in quarters]
    found = arrange(F(2), F(2), circle)
    assert [len(o.corners) for o in found.outlines] == [3, 4, 3, 3, 3]
    assert abs(max(areas(found)) - pi) < 1e-12
    assert found.faults == ()
    assert found.locate(point(1, 1)) == areas(found).index(max(areas(found)))


def test_faults_of_arcs_name_their_place():
    def kinds(*drawn: Curve) -> list[str]:
        return [f.kind for f in arrange(F(4), F(4), drawn).faults]

    arc = Curve(point(2, 0), point(0, 2), point(0, 0))
    assert kinds(arc) == []
    assert kinds(arc, Curve(point(0, 2), point(2, 0), point(0, 0))) == ["duplicate"]
    assert kinds(Curve(point(1, 2), point(2, 3), point(1, 3))) == ["stops", "stops"]
    out = arrange(F(4), F(4), [quarter_arc(point(0, "1/4"), point(4, "1/4"))])
    assert [f.kind for f in out.faults] == ["outside"]
    assert abs(whole(out) - 16) < 1e-9


@pytest.mark.parametrize(
    ("ends", "why"),
    [("0 0 0 0 1 1", "same point"), ("0 1 1 0 0 1", "one of its ends"),
     ("0 0 2 0 1 0", "opposite"), ("0 0 2 1 1 0", "equally far")],
)  # fmt: skip
def test_points_that_make_no_arc(ends, why):
    n = ends.split()
    assert why in arc_fault(point(*n[:2]), point(*n[2:4]), point(*n[4:]))
