"""Pieces to cut, against the craft's own formulas, and fabric sewn and opened."""

from __future__ import annotations

from math import dist

import pytest
import shapely
import shapely.ops
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.cutlist.cuts import rises
from inlet.core.draft.symmetry import turned as turned_block
from inlet.core.geometry.motion import motion_between
from inlet.core.geometry.point import turned
from inlet.core.geometry.polygon import Line, area, line_through, offset
from inlet.core.layout.laid_places import places_of
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.plan.block import plan_block
from inlet.core.table.piece_words import diagonal_text
from inlet.core.table.pieces import piece_for, sewing_outline, sewn_shape
from inlet.core.table.sheets import (
    box,
    opened,
    pair_across,
    size,
    square_sheet,
    trimmed,
)
from tests.blocks import allowances, block_of, lengths, point, project_of, ratios, turns


def outline(*corners: tuple[object, object]):
    return tuple(point(x, y) for x, y in corners)


def rectangle(a, b):
    return outline((0, 0), (a, 0), (a, b), (0, b))


def triangle(leg):
    return outline((0, 0), (leg, 0), (0, leg))


def turned_outline(polygon, turn):
    out = tuple(turned(p, turn) for p in polygon)
    return out[::-1] if turn[1] else out


@given(lengths, lengths, allowances, turns)
def test_a_rectangle_is_cut_twice_the_seam_larger(a, b, s, turn):
    piece = piece_for(turned_outline(rectangle(a, b), turn), "x", s)
    assert piece.exact == (min(a, b) + 2 * s, max(a, b) + 2 * s)
    assert piece.shape == ("square" if a == b else "rectangle")
    assert piece.crosscut == "none"


@given(lengths, allowances, turns)
def test_a_triangle_with_legs_on_the_grain_is_half_a_square(leg, s, turn):
    piece = piece_for(turned_outline(triangle(leg), turn), "x", s)
    assert piece.exact == (leg + 2 * s + s * ROOT2,) * 2
    assert (piece.shape, piece.crosscut) == ("square", "once")


@given(lengths, allowances, turns)
def test_a_triangle_with_its_long_side_on_the_grain_is_a_quarter_of_a_square(base, s, turn):
    nose_up = outline((0, base / 2), (base / 2, 0), (base, base / 2))
    piece = piece_for(turned_outline(nose_up, turn), "x", s)
    assert piece.exact == (base + 2 * s + 2 * s * ROOT2,) * 2
    assert piece.crosscut == "twice"


@given(lengths, allowances)
def test_other_shapes_are_templates_with_the_box_round_them(a, s):
    kite = outline((0, 0), (2 * a, 0), (a, a), (0, a))
    piece = piece_for(kite, "x", s)
    assert piece.shape == "template"
    assert piece.outline == kite
    low, high = piece.exact
    assert low == a + 2 * s
    # s beyond the square end, and s (1 + √2) beyond the tip of the 45° end
    assert high == 2 * a + s + s * (1 + ROOT2)


@given(lengths, allowances, turns)
def test_the_cut_size_alone_gives_the_patch_back(a, s, turn):
    for shape in (rectangle(a, 2 * a), rectangle(a, a), triangle(a)):
        like = turned_outline(shape, turn)
        piece = piece_for(like, "x", s)
        made = sewn_shape(piece, s, like)
        assert made is not None
        assert motion_between(((made, None),), ((like, None),)).cos == 1
        assert area(sewing_outline(piece, s)) == area(like)
        larger = piece._replace(exact=(piece.exact[0] + F(1, 64), piece.exact[1] + F(1, 64)))
        assert sewn_shape(larger, s, like) is None


def test_sides_no_exact_number_holds_are_rounded_up_by_less_than_a_hair():
    tilted = outline((0, 1), (1, -1), (3, 0), (2, 2))  # a square of side √5
    piece = piece_for(tilted, "x", F(1, 4))
    assert piece.shape == "square"
    exact = 5**0.5 + 0.5
    assert exact <= float(piece.exact[0]) + 1e-15 < exact + 1e-9
    assert sewn_shape(piece, F(1, 4), tilted) == tilted


# --- fabric ------------------------------------------------------------------------------------


def total(sheet) -> F:
    return sum((area(o) for o, _ in sheet), F(0))


@given(lengths, allowances)
def test_two_squares_sewn_across_give_two_squares(side, s):
    one, two = square_sheet(side, "a"), square_sheet(side, "b")
    corners = one[0][0]
    halves = pair_across(one, two, line_through(corners[0], corners[2]), s)
    for half in halves:
        if side > s * ROOT2:
            assert size(half) == (side - s * ROOT2,) * 2
            assert total(half) == (side - s * ROOT2) * (side - s * ROOT2)
            assert {fabric for _, fabric in half} == {"a", "b"}
        else:
            assert half == ()


@given(lengths, ratios(min_value=F(1, 16), max_value=F(1, 5)))
def test_opened_fabric_loses_its_allowance_on_both_sides(side, s):
    one, two = square_sheet(side, "a"), square_sheet(side, "b")
    seam = Line(F(-1), F(0), s - side)  # s in from the right edge, the sheet on the growing side
    whole = opened(one, two, seam)
    assert size(whole) == (2 * (side - s), side)
    assert box(whole)[0] == 0
    shown = trimmed(whole, s)
    assert size(shown) == (2 * (side - s) - 2 * s, side - 2 * s)


@pytest.mark.parametrize("quarters", range(4))
def test_turning_a_triangle_changes_neither_cut_nor_grain(quarters):
    piece = piece_for(turned_outline(triangle(F(3)), (quarters, False)), "x", F(1, 4))
    assert piece.exact[0] == F(7, 2) + ROOT2 / 4


def clockwise_sides(corners):
    """The sides of a polygon going round it one way on screen, from the shortest on: a mirror image
    has them the other way round."""
    ring = shapely.Polygon(corners).exterior
    points = list(ring.coords)[:-1] if ring.is_ccw else list(ring.coords)[:-1][::-1]
    sides = [round(dist(p, q), 6) for p, q in zip(points, points[1:] + points[:1], strict=True)]
    at = sides.index(min(sides))
    return sides[at:] + sides[:at]


def halves_of(box, diagonal):
    """What a rectangle is cut into along a line."""
    parts = shapely.ops.split(shapely.box(*box), shapely.LineString(diagonal)).geoms
    assert len(parts) == 2
    return [clockwise_sides(list(part.exterior.coords)[:-1]) for part in parts]


@given(st.integers(2, 9).map(F), st.integers(2, 5), turns)
@settings(deadline=None)
def test_half_rectangles_are_cut_the_way_they_lean(width, times, turn):
    """On the picture of the move and in the strip, both halves are the patch turned, not
    mirrored."""
    block = block_of("0 0 1 1", 1, 1, (width, width * times), "ab")
    plan = plan_block(project_of(block), turned_block(block, turn))
    (unit,) = plan.units
    wanted = clockwise_sides([p.floats() for p in offset(unit.unit.picture[0][0], F(1, 4))])
    move = next(m for m in unit.in_use.method.moves if m.do == "crosscut")
    line = move.lines[0]
    left, top, right, bottom = (float(x) for x in box(move.lower))
    halves = halves_of((left, top, right, bottom), [line.start.floats(), line.end.floats()])
    assert halves == [pytest.approx(wanted)] * 2
    cut = plan.cuts[0]
    for laid in (laid for fabric_plan in plan.fabric_plans.best for laid in fabric_plan.laid):
        for place in places_of(laid):  # on the mat the fabric's width runs upward
            low, high = (float(x) for x in unit.in_use.method.pieces[0].exact)
            upright = place.at.width > place.at.height
            wide, tall = (low, high) if upright else (high, low)
            ends = [(0, tall), (wide, 0)] if rises(cut, upright) else [(0, 0), (wide, tall)]
            assert halves_of((0, 0, wide, tall), ends) == [pytest.approx(wanted, abs=1e-5)] * 2
    words = f"{plan.cuts[0].lean} {diagonal_text('once', plan.cuts[0].lean)}"
    assert ("top left to bottom right" in words) == ("falling" in words)
    assert diagonal_text("once", plan.cuts[0].lean) in plan.steps[0].text
