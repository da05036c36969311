"""Units that no straight seam runs through: their moves, drawn from their geometry."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.tray import tray_units
from inlet.core.geometry.polygon import area, common_stretch, offset, offset_sides
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.table.seam_words import CURVE, DOT, FINISH, SET_IN
from inlet.core.table.sheets import box, raw_cell
from tests.blocks import allowances, lengths, point, turns
from tests.core.methods.test_catalogue import method_of, unit_of
from tests.core.planning.test_unit_plan import QUARTER

INSET = {"ring": "partial-seam", "set-in": "template", "quarter-circle": "template",
         "eight-point-star": "template"}  # fmt: skip


SIX = F(6)


def moves_of(kind, size=SIX, seam=QUARTER, turn=(0, False)):
    unit = unit_of(kind, [size], "abc", turn)
    return unit, method_of(unit, seam, INSET[kind]).moves


@given(st.sampled_from(sorted(INSET)), lengths, allowances, turns)
@settings(max_examples=30, deadline=None)
def test_the_last_picture_is_the_unit_with_its_allowance(kind, size, seam, turn):
    size = max(size, 8 * seam)
    unit, moves = moves_of(kind, size, seam, turn)
    left, top, right, bottom = (float(x) for x in box(moves[-1].lower))
    assert right - left == pytest.approx(float(unit.size[0] + 2 * seam))
    assert bottom - top == pytest.approx(float(unit.size[1] + 2 * seam))
    whole = sum(float(area(outline)) for outline, _ in moves[-1].lower)
    raw = float((unit.size[0] + 2 * seam) * (unit.size[1] + 2 * seam))
    if kind == "eight-point-star":  # beyond the tips on its edge allowances lie on one another
        assert whole > raw
    else:  # arcs are drawn in chords: what they leave out of one patch they give to its neighbour
        assert whole == pytest.approx(raw, rel=2e-2 if kind == "quarter-circle" else 1e-12)


@pytest.mark.parametrize("kind", sorted(INSET))
def test_every_seam_is_drawn_where_it_is_sewn(kind):
    unit, moves = moves_of(kind)
    sewn = [m for m in moves if m.do == "sew"]
    assert all(m.lines for m in sewn)
    texts = " ".join(m.text for m in sewn)
    wanted = {"ring": ("Start at the", FINISH), "set-in": (SET_IN,), "quarter-circle": (CURVE,),
              "eight-point-star": (DOT, SET_IN)}[kind]  # fmt: skip
    assert all(words in texts for words in wanted)
    if kind == "ring":
        # partial first, then three arms each along a whole side, the first finished last
        assert [m.seams for m in sewn] == [1, 1, 1, 2, 0]
    if kind == "eight-point-star":
        one = unit_of(kind, [F(6)], "a")
        sewn = [m for m in method_of(one, QUARTER, "template").moves if m.do == "sew"]
        # pairs, halves, the whole, then what is set in: triangles and squares, in two legs each
        assert [(m.times, m.seams) for m in sewn] == [(4, 1), (2, 1), (1, 1), (4, 2), (4, 2)]
    # each new move shows more, until all cells are there
    shown = [len(m.lower) for m in moves if m.do == "open"]
    assert shown == sorted(shown)
    assert shown[-1] == len(unit.picture)


@pytest.mark.parametrize("hand", [False, True])
def test_both_hands_of_a_ring_are_sewn_in_their_own_order(hand):
    _, moves = moves_of("ring", turn=(0, hand))
    second = next(m for m in moves[3:] if m.do == "sew")
    # the second arm lies along the first and the centre: two stretches in one line
    assert len({(line.start.x, line.end.x) for line in second.lines}) == 1 or (
        len({(line.start.y, line.end.y) for line in second.lines}) == 1
    )


def test_sides_are_moved_out_each_by_its_own():
    square = (point(0, 0), point(4, 0), point(4, 4), point(0, 4))
    moved = offset_sides(square, [1, 0, 2, 0])
    assert moved == (point(0, -1), point(4, -1), point(4, 6), point(0, 6))
    assert offset_sides(square, [F(1, 4)] * 4) == offset(square, F(1, 4))


def test_a_cell_reaches_beyond_its_own_edge_only():
    halves = (
        ((point(0, 0), point(2, 0), point(2, 4), point(0, 4)), "a"),
        ((point(2, 0), point(4, 0), point(4, 4), point(2, 4)), "b"),
    )
    outline = (point(0, 0), point(4, 0), point(4, 4), point(0, 4))
    left, right = raw_cell(halves, outline, F(1, 4))
    assert box((left,)) == (F(-1, 4), F(-1, 4), F(2), F(17, 4))
    assert box((right,)) == (F(2), F(-1, 4), F(17, 4), F(17, 4))


@given(st.integers(0, 6), st.integers(0, 6), st.integers(0, 6), st.integers(0, 6))
def test_what_two_sides_have_in_common(a, b, c, d):
    """On one line, against counting; and nothing across."""
    if a == b or c == d:
        return
    p, q, r, t = (point(k, 2 * k) for k in (a, b, c, d))
    found = common_stretch(p, q, r, t)
    low, high = max(min(a, b), min(c, d)), min(max(a, b), max(c, d))
    if low >= high:
        assert found is None
    else:
        ends = (point(low, 2 * low), point(high, 2 * high))
        assert found == (ends if a < b else ends[::-1])
    assert common_stretch(p, q, point(0, 1), point(1, 4)) is None


def test_every_unit_of_the_tray_has_moves_that_can_be_drawn():
    for tray_unit in tray_units():
        unit = unit_of(
            tray_unit.kind, [F(6) * n for n in tray_unit.size], "abc" if tray_unit.curved else "ab"
        )
        for method in (method_of(unit, QUARTER, w) for w in set(INSET.values()) & names(unit)):
            for move in method.moves:
                assert move.lower or move.upper
                for outline, _ in (*move.lower, *move.upper):
                    assert len(outline) > 2
                    assert area(outline) > 0


def names(unit):
    from inlet.core.methods.catalogue import methods_for

    return {method.name for method in methods_for(unit, QUARTER)}
