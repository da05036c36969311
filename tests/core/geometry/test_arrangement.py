"""Seams to patches."""

from __future__ import annotations

import shapely
import shapely.ops
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.geometry.arrange import arrange
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import area, from_first_corner
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from tests.blocks import grid_segments, point, seams


def total_area(found) -> F:
    total = F(0)
    for i, face in enumerate(found.faces):
        total = total + area(found.outlines[i].corners)
        for hole in face.holes:  # seen from inside, a hole runs the other way round
            total = total + area([found.points[v] for v in hole.corners])
    return total


def outlines(found) -> set:
    return {from_first_corner(found.outlines[i].corners) for i in range(len(found.faces))}


@given(grid_segments(most=14))
@settings(max_examples=150)
def test_patches_tile_the_block_exactly(drawn):
    found = arrange(F(6), F(6), drawn)
    assert total_area(found) == 36
    assert all(area(found.outlines[i].corners) > 0 for i in range(len(found.faces)))


@given(grid_segments(most=10))
@settings(max_examples=60)
def test_patches_are_those_of_an_independent_library(drawn):
    found = arrange(F(6), F(6), drawn)
    lines = [shapely.LineString([p.floats(), q.floats()]) for p, q in drawn]
    lines.append(shapely.box(0, 0, 6, 6).exterior)
    theirs = list(shapely.ops.polygonize(shapely.unary_union(lines)))
    if not any(face.holes for face in found.faces):
        ours = sorted(float(area(found.outlines[i].corners)) for i in range(len(found.faces)))
        assert len(ours) == len(theirs)
        assert all(
            abs(a - b) < 1e-9 for a, b in zip(ours, sorted(t.area for t in theirs), strict=True)
        )


@given(grid_segments(most=10), st.randoms())
@settings(max_examples=60)
def test_neither_the_order_of_seams_nor_their_direction_matters(drawn, random):
    other = [(q, p) if random.random() < 0.5 else (p, q) for p, q in drawn]
    random.shuffle(other)
    assert outlines(arrange(F(6), F(6), drawn)) == outlines(arrange(F(6), F(6), other))


@given(grid_segments(most=8), st.sampled_from([ROOT2, 1 + ROOT2, F(1, 7), 3 - ROOT2]))
@settings(max_examples=40)
def test_scaling_by_any_exact_number_scales_the_patches(drawn, k):
    grown = [(p.scaled(k, k), q.scaled(k, k)) for p, q in drawn]
    small, large = arrange(F(6), F(6), drawn), arrange(6 * k, 6 * k, grown)
    assert {
        from_first_corner(tuple(p.scaled(k, k) for p in outline)) for outline in outlines(small)
    } == outlines(large)


@given(grid_segments(most=10))
@settings(max_examples=60)
def test_each_edge_has_its_faces_on_the_right_hands(drawn):
    found = arrange(F(6), F(6), drawn)
    round_each = {
        (ring[i - 1], ring[i]): f
        for f, face in enumerate(found.faces)
        for ring in (face.ring,)
        for i in range(len(ring))
    }
    for edge in found.edges:
        line = found.lines[edge.line]
        assert line.side(found.points[edge.start]) == 0 == line.side(found.points[edge.end])
        assert edge.right != edge.left
        if not any(face.holes for face in found.faces):
            assert round_each.get((edge.start, edge.end), -1) == edge.right
            assert round_each.get((edge.end, edge.start), -1) == edge.left


def test_an_eight_pointed_crossing_of_irrational_seams_meets_in_one_point():
    k = 3 - ROOT2 * F(3, 2)
    drawn = [
        (Point(k, F(0)), Point(3 - k, F(3))),
        (Point(3 - k, F(0)), Point(k, F(3))),
        (Point(F(0), k), Point(F(3), 3 - k)),
        (Point(F(0), 3 - k), Point(F(3), k)),
    ]
    found = arrange(F(3), F(3), drawn)
    assert len(found.faces) == 8
    assert point("3/2", "3/2") in found.points
    assert total_area(found) == 9


def test_seams_a_hair_apart_are_not_one():
    thin = F(1, 10**9)
    drawn = [(point(1, 0), point(1, 3)), (Point(1 + thin, F(0)), Point(1 + thin, F(3)))]
    found = arrange(F(3), F(3), drawn)
    assert len(found.faces) == 3
    assert thin * 3 in {area(found.outlines[i].corners) for i in range(3)}


def faults(drawn: str) -> list[tuple[str, Point, int]]:
    return [tuple(f) for f in arrange(F(3), F(3), seams(drawn)).faults]


def test_faults_name_their_place():
    assert faults("1 0 1 3 / 2 0 2 3") == []
    assert faults("0 1 2 1") == [("stops", point(2, 1), -1)]
    assert faults("1 1 4 1 / 1 0 1 3") == [("outside", point(4, 1), 0)]
    assert faults("1 0 1 3 / 1 1 1 2") == [("duplicate", point(1, 1), 1)]
    assert faults("0 0 0 3")[0][0] == "duplicate"
    assert faults("1 1 2 1 / 2 1 2 2 / 2 2 1 2 / 1 2 1 1") == [("island", point(1, 1), -1)]
    assert {f[0] for f in faults("1 1 2 1 / 2 1 1 2 / 1 2 1 1 / 1 1 0 0")} == {"island"}


def test_an_island_is_a_hole_in_one_patch_and_a_patch_itself():
    found = arrange(F(3), F(3), seams("1 1 2 1 / 2 1 2 2 / 2 2 1 2 / 1 2 1 1"))
    assert [len(face.holes) for face in found.faces] == [1, 0]
    assert total_area(found) == 9


def test_a_seam_wholly_outside_changes_nothing():
    found = arrange(F(3), F(3), seams("4 0 4 3"))
    assert len(found.faces) == 1
    assert found.faults[0].kind == "outside"
