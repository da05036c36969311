"""Pieces to cut, against the craft's own formulas, and cloth sewn and opened."""

from __future__ import annotations

import pytest
from hypothesis import given

from inlet.core.geometry.motion import motion_between
from inlet.core.geometry.point import turned
from inlet.core.geometry.polygon import Line, area, line_through
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.table.pieces import piece_for, sewing_outline, sewn_shape
from inlet.core.table.sheets import (
    box,
    opened,
    pair_across,
    size,
    square_sheet,
    trimmed,
)
from tests.blocks import allowances, lengths, point, ratios, turns


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


# --- cloth ------------------------------------------------------------------------------------


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
def test_opened_cloth_loses_its_allowance_on_both_sides(side, s):
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
