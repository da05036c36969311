"""Pieces cut from strips at an angle: sizes by hand, and strips cut up by polygons."""

from __future__ import annotations

from math import cos, hypot, radians, sin, sqrt, tan

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.cutting.angles import angled, angled_lines
from inlet.core.cutting.cut_line import cutting_sides, sewing_sides
from inlet.core.cutting.cuts import Cut
from inlet.core.geometry.outline import Outline
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.project.measure import INCH, METRIC


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
    raw = [s.start for s in cutting_sides(sewing_sides(Outline(outline)), float(measure.seam))]
    piece = shapely.Polygon(raw)
    assert piece.area == pytest.approx(found.each * found.strip)
    assert 0 < found.angles[0] <= found.angles[1] <= 90 + 1e-9
    room = float(measure.system.cloth_width)
    number = found.from_strip(measure.system.cloth_width)
    used = found.first + number * found.each
    assert used <= room + 1e-6 or number == 0
    assert found.strip <= float(found.strip_mark) + float(measure.system.thread) + 1e-9


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
    assert angled(shape((0, 0), (4, 0), (4, 3)), INCH) is None
    assert angled(shape((0, 0), (5, 1), (4, 3), (0, 2)), INCH) is None
    square = Cut("a", "square", (F(3), F(3)), "none", 1, ("A",))
    assert list(angled_lines(square, INCH, F(40))) == []
