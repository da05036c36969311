"""Where seams touch, nearly touch, or lie nearer to one another than numbers tell apart."""

from __future__ import annotations

import sys
from math import sqrt

import numpy as np
import pytest

from inlet.core.draft.checks import drawing_problems
from inlet.core.draft.edit import anchor_in
from inlet.core.draft.patches import draft
from inlet.core.draft.snapping import nearest_snap
from inlet.core.geometry.arrange import arrange
from inlet.core.geometry.curve import Curve, arc_fault
from inlet.core.geometry.faces import trace
from inlet.core.geometry.point import Point
from inlet.core.geometry.soundness import Unsound, check_faces, check_order
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.block import Block, FabricAt, seam_along
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from tests.blocks import point
from tests.fuzz.drafts import seam_fault, tiling_fault


def block_of(width: int, *curves: Curve) -> Block:
    return Block(
        id="t",
        columns=(F(1),) * width,
        rows=(F(1),) * width,
        seams=tuple(seam_along(c) for c in curves),
    )


def line(x, y, u, v) -> Curve:
    return Curve(point(x, y), point(u, v))


def arc(start, end, centre) -> Curve:
    return Curve(point(*start), point(*end), point(*centre))


def told(block: Block) -> list[str]:
    return [p.code for p in drawing_problems(draft(block), Project()) if p.level == "error"]


def faults(block: Block) -> set[str]:
    return {f.kind for f in draft(block).arrangement.faults}


@pytest.mark.parametrize(
    ("width", "curves", "patches"),
    [
        # An arc drawn to the top edge, its end 1 + √5 to 12 places.
        (4, [arc((4, 2), ("3.236067977500", 0), (1, 2))], 2),
        # A line beside the place where an arc touches the top edge, by less than numbers tell.
        (
            4,
            [
                arc(("0.999999999", 0), ("1.999999999", 1), ("0.999999999", 1)),
                line(1, 0, 1, 4),
                line("1.999999999", 1, "1.999999999", 4),
            ],
            3,
        ),
        # A tangent to a place on the circle, to 12 places.
        (
            4,
            [
                arc((3, 0), (0, 3), (0, 0)),
                line("2.121320343560", "2.121320343560", 4, "0.242640687120"),
                line("2.121320343560", "2.121320343560", "0.242640687120", 4),
            ],
            4,
        ),
        # The third seam to where an arc meets a line outside the field.
        (
            6,
            [
                arc((5, 0), (0, 5), (0, 0)),
                line(0, 3, 5, 1),
                line(0, 0, "4.770329614269", "1.091868154292"),
            ],
            4,  # the disc in three, and the rest: the line's end beyond the arc parts nothing
        ),
    ],
)
def test_located_ends_meet_what_they_were_drawn_to(width, curves, patches):
    block = block_of(width, *curves)
    found = draft(block)
    assert tiling_fault(found) is None
    assert len(found.patches) == patches
    loose = width == 6  # the line there is drawn on past the arc, and stops
    assert faults(block) == ({"stops"} if loose else set())
    assert loose or seam_fault(found) is None


@pytest.mark.parametrize("digits", [12, 11, 10])
def test_an_arc_to_the_edge_is_neither_outside_nor_nearly_meeting(digits):
    end = F(round((1 + sqrt(5)) * 10**digits), 10**digits)
    block = block_of(4, arc((4, 2), (end, 0), (1, 2)))
    assert told(block) == ["patch-without-fabric"] * 2


def test_a_line_a_hair_beside_a_touching_arc_touches_it():
    curves = [
        arc((3, 0), (0, 3), (0, 0)),
        arc((3, 0), (6, 3), (6, 0)),
        line("2.999999999999", 0, 3, 6),
    ]
    upright = Curve(Point(F(3) - F(1, 10**12), F(0)), Point(F(3) - F(1, 10**12), F(6)))
    for third in (curves[2], upright):
        block = block_of(6, *curves[:2], third)
        found = draft(block)
        assert tiling_fault(found) is None
        assert seam_fault(found) is None
        assert len(found.patches) == 4


@pytest.mark.parametrize("digits", range(3, 14))
def test_arcs_a_hair_apart_tile_or_are_told(digits):
    hair = F(1, 10**digits)
    moved = Curve(Point(F(2), 4 - hair), Point(4 - hair, F(2)), point(2, 2))
    turned = Curve(Point(F(2) + hair, F(4)), Point(F(4), F(2) + hair), Point(F(2) + hair, 2 + hair))
    for other in (moved, turned):
        if arc_fault(*other.ends, other.centre):
            continue
        block = block_of(4, arc((2, 4), (4, 2), (2, 2)), other)
        found = draft(block)
        assert tiling_fault(found) is None
        if not faults(block) & {"outside", "stops", "unclear", "island"}:
            assert seam_fault(found) is None


def test_seams_nearer_than_numbers_tell_are_told_with_their_place():
    wedge = line(0, 0, F(1, 10**11), 1)
    block = block_of(4, wedge)
    assert len(draft(block).patches) == 1
    assert faults(block) & {"unclear", "duplicate", "stops"}
    nearest_snap(draft(block), 0.0, 0.5, 2)
    pair = [line(1, 0, 3, 4), Curve(point(1, 0), Point(F(3) + F(1, 10**11), F(4)))]
    assert tiling_fault(draft(block_of(4, *pair))) is None


@pytest.mark.parametrize("hair", [F(0), F(1, 10**11), -F(1, 10**11), F(-9, 10**12)])
def test_a_line_that_touches_an_arc_to_within_a_hair_touches_it_once(hair):
    """In the middle of both: the quarter disc, what is beyond the line, and what is between them on
    either side of the place they touch at."""
    x, y = F(16, 5) + hair * F(4, 5), F(12, 5) + hair * F(3, 5)
    tangent = Curve(Point(x + y * F(3, 4), F(0)), Point(F(0), y + x * F(4, 3)))
    block = block_of(7, arc((4, 0), (0, 4), (0, 0)), tangent)
    assert faults(block) == set()
    assert len(draft(block).patches) == 4
    assert tiling_fault(draft(block)) is None
    assert seam_fault(draft(block)) is None


def test_edges_in_a_wrong_order_round_a_vertex_are_noticed():
    """A cross in a square: with two of the arms at its middle exchanged the faces no longer add up
    to Euler's count, and the place told is the middle."""
    found = arrange(F(2), F(2), [line(1, 0, 1, 2), line(0, 1, 2, 1)])
    ends = np.array([e[:2] for e in found.edges])
    middle = found.points.index(point(1, 1))
    steps = np.array([found.places[v] for v in ends[:, 1]]) - np.array(
        [found.places[v] for v in ends[:, 0]]
    )
    angle = np.empty(2 * len(ends))
    angle[0::2] = np.arctan2(steps[:, 1], steps[:, 0]) % (2 * np.pi)
    angle[1::2] = np.arctan2(-steps[:, 1], -steps[:, 0]) % (2 * np.pi)
    _, label = trace(ends, angle)
    check_order(ends, angle, label, found.points)
    (first, *_) = arms = sorted(np.flatnonzero(ends.ravel() == middle), key=lambda h: angle[h])
    angle[[first, arms[1]]] = angle[[arms[1], first]]
    _, label = trace(ends, angle)
    with pytest.raises(Unsound) as why:
        check_order(ends, angle, label, found.points)
    assert len(why.value.places) == 1


def test_areas_that_do_not_add_up_are_noticed():
    found = arrange(F(4), F(4), [line(1, 0, 1, 4), arc((4, 0), (1, 3), (1, 0))])
    places = np.array(found.places)
    check_faces(found.faces, 16.0, found.points, places, 1)
    for faces, whole in ((found.faces, 15.9), (found.faces[1:], 16.0)):
        with pytest.raises(Unsound):
            check_faces(faces, whole, found.points, places, 1)


def test_what_is_left_out_is_the_seam_drawn_last_and_the_rest_stays():
    made = sys.modules["inlet.core.geometry.arrange"]
    real = made.check_faces
    seams = [line(0, 2, 4, 2), line(2, 0, 2, 4), line(0, 0, 4, 4)]

    def broken(faces, *rest):
        if len(faces) > 4:
            raise Unsound([point(3, 3)])
        real(faces, *rest)

    made.check_faces = broken
    try:
        found = arrange(F(4), F(4), seams)
    finally:
        made.check_faces = real
    assert [(f.kind, f.seam) for f in found.faults] == [("unclear", 2)]
    assert len(found.faces) == 4


def test_half_a_circle_is_no_arc_however_its_ends_are_written():
    assert arc_fault(point(0, 2), point(4, "2.000000000001"), point(2, 2))
    assert arc_fault(point(0, 2), point(2, 4), point(2, 2)) is None


def test_fabric_is_kept_by_a_point_that_a_file_holds():
    thin = Curve(point("0.142857142857", 0), Point(F(1, 7) + F(1, 10**9), F(4)))
    block = block_of(4, line("0.142857142857", 0, "0.142857142857", 4), thin)
    found = draft(block).arrangement
    for face in range(len(found.faces)):
        at = anchor_in(found, face)
        if at is not None:
            assert all(x.denominator <= 10**12 for x in at)
            whole = replace(block, fabric_at=(FabricAt(point=at, fabric="a"),))
            assert draft(whole).homes == (face,)
