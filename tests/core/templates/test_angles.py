"""Pieces cut from strips at an angle: sizes by hand, and strips cut up by polygons."""

from __future__ import annotations

import json
from collections import Counter
from math import cos, hypot, radians, sin, sqrt, tan

import numpy as np
import pytest
import shapely
from hypothesis import example, given, settings
from hypothesis import strategies as st

from inlet.core.cutlist.cuts import Cut
from inlet.core.geometry.outline import Outline
from inlet.core.geometry.point import Point
from inlet.core.layout.cards import stack_ready
from inlet.core.layout.fabric_plan import ToCut
from inlet.core.layout.laid_places import places_of
from inlet.core.layout.layout import FEW, lay_out
from inlet.core.layout.progress import begin
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.marks import next_mark
from inlet.core.numbers.root2 import ROOT2
from inlet.core.project.block import Block
from inlet.core.project.cutting import Cutting
from inlet.core.project.fabric import Fabric
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.project import Project
from inlet.core.table.pieces import piece_for
from inlet.core.templates.angles import angled, angled_lines, stack_shape
from inlet.core.templates.cut_line import cutting_sides, sewing_sides
from inlet.core.templates.laid_outlines import in_box, laid_outlines
from inlet.files.project.project_json import dumps, loads
from inlet.files.text.cutting_json import cutting_list
from tests.core.layout.mat import follow


def shape(*places):
    return tuple(Point(x if not isinstance(x, int) else F(x), F(y)) for x, y in places)


def test_a_star_diamond_of_45_degrees():
    """Sides 3 in: 3/√2 between them, so the strip is 3/√2 + 1/2 = 2.6213 in, and so is the step."""
    side = 3 * ROOT2 / 2
    diamond = (Point(F(0), F(0)), Point(F(3), F(0)), Point(3 + side, side), Point(side, side))
    found = angled(diamond, INCH)
    assert found.kind == "diamond"
    assert found.angles == pytest.approx((45, 45))
    assert found.strip == pytest.approx(3 / sqrt(2) + 0.5)
    assert found.step == pytest.approx(found.strip)
    assert found.strip_mark == F(21, 8)
    assert found.leans == "left"  # of a base above, drawn with y down
    assert found.each == pytest.approx(found.strip * sqrt(2))
    assert found.from_strip(F(83, 2)) == int((41.5 - found.strip) / (found.strip * sqrt(2)))


def test_a_mitred_end():
    """A strip 2 x 10 in with one end at 45°: cut 2 1/2 wide; the long edge grows by the allowance
    at the square end and by 1/4·(1 + √2) at the tip."""
    mitred = shape((0, 0), (10, 0), (8, 2), (0, 2))
    found = angled(mitred, INCH)
    assert (found.kind, found.strip_mark, found.leans) == ("trapezoid", F(5, 2), "")
    assert found.angles == pytest.approx((45, 90))
    assert found.long == pytest.approx(10 + 0.25 + 0.25 * (1 + sqrt(2)))
    assert found.short == pytest.approx(found.long - 2.5)
    lines = list(angled_lines(Cut("a", "template", (F(5, 2), F(11)), "none", 4, ("A",), mitred),
                              INCH, F(83, 2)))  # fmt: skip
    assert "cut strips 2 1/2 in wide" in lines[0]
    assert "square and at 45° by turns" in lines[1]


@given(
    st.integers(3, 12), st.integers(1, 8), st.integers(-6, 6), st.integers(-6, 6),
    st.sampled_from([INCH, METRIC]),
)  # fmt: skip
@settings(max_examples=60, deadline=None)
def test_strips_cut_up_so_give_the_pieces(base, high, left, right, measure):
    """As many pieces as are told, each turned half round from the one before, lie in the strip
    without lying on one another, whatever the slants."""
    top_left, top_right = left, base + right
    if top_right - top_left < 2 or (left == 0 and right == 0):
        return
    outline = shape((top_left, 0), (top_right, 0), (base, high), (0, high))
    found = angled(outline, measure)
    assert found is not None
    piece = cut_round(outline, measure)
    assert piece.area == pytest.approx(found.each * found.strip)
    assert 0 < found.angles[0] <= found.angles[1] <= 90 + 1e-9
    room = measure.system.fabric_width
    number = found.from_strip(room)
    assert number == 0 or found.room_for(number) <= float(room) + 1e-6
    assert found.room_for(number + 1) > float(room)
    strip_lies_at_a_mark(found, measure)
    lies_head_to_tail(found, piece, 2)
    lies_head_to_tail(found, piece, 5)


def strip_lies_at_a_mark(found, measure):
    """Never short by more than half a thread, nor too wide by a whole half mark."""
    assert found.strip <= float(found.strip_mark) + float(measure.system.thread) / 2 + 1e-9
    assert float(found.strip_mark) < found.strip + float(measure.finest)
    assert found.strip_mark % measure.finest == 0


def cut_round(outline, measure):
    sides = cutting_sides(sewing_sides(Outline(outline)), float(measure.seam))
    return shapely.Polygon([side.start for side in sides])


def lies_head_to_tail(found, piece, number):
    """Each is the piece turned half round or not, never mirrored; they fill one another's gaps."""
    lying = [shapely.Polygon(corners) for corners in found.pieces(number)]
    for polygon in lying:
        assert polygon.area == pytest.approx(piece.area)
        own = corners_of(polygon)
        assert any(np.allclose(np.roll(own, k, axis=0), corners_of(piece)) for k in range(len(own)))
    together = shapely.union_all([p.buffer(1e-7) for p in lying])
    assert together.area == pytest.approx(number * piece.area, rel=1e-4)
    left, top, right, bottom = together.bounds
    assert (left, top) == pytest.approx((0, 0), abs=1e-6)
    assert (right, bottom) == pytest.approx((found.room_for(number), found.strip), abs=1e-6)


def mirrored_or_not(triangle):
    """Its sides all one way round, from each of them on."""
    own = corners_of(triangle)[:, 0].round(5)
    return {tuple(np.roll(own, k).tolist()) for k in range(3)}


def corners_of(polygon):
    """The length of each side and the turn after it, all one way round: the same for a turned
    piece, not for a mirrored one."""
    places = np.array(shapely.geometry.polygon.orient(polygon).exterior.coords[:-1])
    steps = np.roll(places, -1, axis=0) - places
    after = np.roll(steps, -1, axis=0)
    turn = steps[:, 0] * after[:, 1] - steps[:, 1] * after[:, 0]
    return np.column_stack([np.hypot(*steps.T), turn])


@given(
    st.integers(2, 9), st.integers(2, 9), st.integers(-4, 9), st.integers(1, 60),
    st.sampled_from([0, 1, 2]), st.sampled_from([0, FEW]), st.sampled_from(["", "one-way"]),
)  # fmt: skip
@settings(max_examples=25, deadline=None)
def test_triangles_of_any_kind_are_laid_head_to_tail(base, high, tip, n, folds, work, direction):
    """No more fabric than one by one, all of them there, followed on the mat; a print with a top is
    not turned half round."""
    outline = shape((0, 0), (base, 0), (tip, high))
    found = angled(outline, INCH)
    strip_lies_at_a_mark(found, INCH)
    strip_lies_at_a_mark(angled(outline, METRIC), METRIC)
    lies_head_to_tail(found, cut_round(outline, INCH), 3)
    piece = piece_for(outline, None, F(1, 4))
    if piece.shape != "template":
        return  # a right angle: halves of rectangles
    size = tuple(sorted(next_mark(side, INCH.mark) for side in piece.exact))
    cut = Cut("a", "template", size, "none", n, ("A",), outline, label="A")
    project = Project(fabrics=(Fabric(id="a", direction=direction),), cutting=Cutting(folds=folds))
    plans = lay_out(project, ToCut((cut,), {}), work)
    ready = sum(
        (follow(fabric) for fabric in json.loads(json.dumps(cutting_list(plans, project)))),
        Counter(),
    )
    assert n <= ready["A"]
    places = [place for fabric in plans[0].laid for place in places_of(fabric)]
    assert not (direction and any(place.holds > 1 for place in places))
    for place in places:
        box = float(place.at.height), float(place.at.width)  # on the mat fabric lies on its side
        for corners in laid_outlines(cut, place.holds, INCH):
            lying = shapely.Polygon(in_box(corners, *box, place.turned))
            assert shapely.box(-0.02, -0.02, box[0] + 0.02, box[1] + 0.02).contains(lying)
            assert mirrored_or_not(lying) == mirrored_or_not(cut_round(outline, INCH))
        wide, across = place.at.width, place.at.height
        if place.turned:
            wide, across = across, wide
        if place.holds > 1:
            assert wide >= found.room_for(place.holds) - 1e-9
            assert across == found.strip_mark
    one_by_one = Cut("a", "rectangle", size, "none", n, ("A",), label="A")
    box = lay_out(project, ToCut((one_by_one,), {}), 0)[0]
    assert plans[0].length <= box.length
    assert plans[0].bound <= plans[0].length


def test_three_dozen_diamonds_take_half_the_fabric():
    """Ten in a strip instead of six, and a strip 2 5/8 in instead of boxes that wide: 36 by hand
    are four strips, squared once, 11 in."""
    side = 3 * ROOT2 / 2
    diamond = (Point(F(0), F(0)), Point(F(3), F(0)), Point(3 + side, side), Point(side, side))
    cut = Cut("a", "template", (F(21, 8), F(51, 8)), "none", 36, ("A",), diamond, label="A")
    block = Block(id="b", name="B")
    project = Project(fabrics=(Fabric(id="a"),), blocks=(block,), cutting=Cutting(folds=0))
    (plan,) = lay_out(project, ToCut((cut,), {}), 0)
    assert plan.length == 4 * F(21, 8) + F(1, 2)
    notes = " ".join(stack_ready(cut, (), project).notes)
    assert "10 from a strip" in notes
    saved = loads(dumps(begin(project, block.id, 1, "a", plan.new)))
    (begun,) = saved.cutting.begun
    again = lay_out(saved, ToCut((cut,), {}, (begun,)), 0)[0]
    assert (again.begun, len(again.laid), again.missing) == (1, 1, ())


def test_a_parallelogram_leans_as_it_is_drawn():
    """Its top shifted to the right leans right; mirrored, left."""
    right = shape((2, 0), (8, 0), (6, 3), (0, 3))
    left = shape((0, 0), (6, 0), (8, 3), (2, 3))
    assert (angled(right, INCH).leans, angled(left, INCH).leans) == ("right", "left")
    found = angled(right, INCH)
    slope = hypot(2, 3)
    assert found.angles[0] == pytest.approx(56.309932474020215)
    assert found.step == pytest.approx(6 * 3 / slope + 0.5)
    assert found.first == pytest.approx(found.strip / tan(radians(found.angles[0])))
    assert sin(radians(found.angles[0])) == pytest.approx(3 / slope)
    assert cos(radians(found.angles[0])) == pytest.approx(2 / slope)


def test_what_is_cut_otherwise_is_not_angled():
    assert angled(shape((0, 0), (4, 0), (4, 3), (0, 3)), INCH) is None
    assert angled(shape((0, 0), (5, 1), (4, 3), (0, 2)), INCH) is None
    square = Cut("a", "square", (F(3), F(3)), "none", 1, ("A",))
    assert list(angled_lines(square, INCH, F(40))) == []


@given(st.integers(2, 9), st.integers(1, 6), st.integers(-5, 5), st.integers(1, 8))
@example(5, 4, 3, 5)
@settings(max_examples=60, deadline=None)
def test_a_shape_and_its_mirror_image_are_told_apart(base, high, lean, top):
    """By words alone: turned, a piece is told the same; mirrored, in other words, unless it is its
    own mirror image."""

    def told(corners):
        outline = tuple(Point(F(x), F(y)) for x, y in corners)
        cut = Cut("a", "template", (F(1), F(1)), "none", 2, ("A",), outline=outline)
        return stack_shape(cut, INCH)

    # Clockwise on screen, from the upper left.
    corners = [(lean, 0), (lean + top, 0), (base, high), (0, high)]
    mirrored = [(-x, y) for x, y in reversed(corners)]
    half = [(-x, -y) for x, y in corners]
    if told(corners) == "template":
        return  # a rectangle
    assert told(half) == told(corners)
    even = lean == base - lean - top
    diamond = top == base and lean * lean + high * high == base * base
    assert (told(mirrored) == told(corners)) == (even or diamond)
