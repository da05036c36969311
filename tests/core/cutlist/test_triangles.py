"""Squares cut into triangles: shared by all units of a block, their diagonals counted once."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace as dataclass_replace
from math import ceil

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.methods.catalogue import methods_for
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.planning.cut_piece import triangle_key
from inlet.core.project.value import replace
from inlet.core.schedule.batches import Batch
from inlet.core.schedule.sittings import sittings
from inlet.core.schedule.tasks import plain_tasks
from inlet.core.table.pieces import piece_for
from inlet.files.text.plan_text import plan_text
from tests.blocks import block_of, project_of, unit_blocks
from tests.sample import many

SINGLE = dict.fromkeys(
    ("half-square-triangle", "quarter-square-triangle", "three-triangle", "flying-geese"),
    "single-triangles",
)


@given(unit_blocks(), st.integers(1, 4))
@settings(max_examples=many(17, 35), deadline=None)
def test_as_few_squares_are_cut_as_give_all_triangles(block, copies):
    """Counted patch by patch from the drawing: triangles of one size and fabric over those a square
    gives, rounded up once for the whole block; what is left is told as over."""
    block = replace(block, methods=SINGLE)
    plan = plan_block(project_of(block), block, copies)
    wanted = Counter()
    for patch in plan.draft.patches:
        piece = piece_for(patch.outline, patch.fabric, F(1, 4))
        if piece.crosscut in ("once", "twice"):
            wanted[piece.fabric, piece.exact[0], piece.crosscut] += copies
    of_cut = {}
    for unit in plan.units:
        for each in unit.in_use.pieces:
            key = each.piece.fabric, each.piece.exact[0], each.piece.crosscut
            of_cut.setdefault((each.piece.fabric, each.cut, each.piece.crosscut), key)
    found = {of_cut[c.fabric, c.cut, c.crosscut]: c for c in plan.cuts if c.crosscut != "none"}
    assert set(found) == set(wanted)
    for key, triangles in wanted.items():
        each = {"once": 2, "twice": 4}[key[2]]
        assert found[key].number == ceil(triangles / each)
        assert found[key].over == found[key].number * each - triangles


def test_what_a_unit_takes_of_anothers_squares_is_said():
    """An hourglass of two fabrics and a three-triangle unit: 2 quarters of each, and 2 of A. Four
    of a fabric come off one square: the second unit cuts none, and says that it takes them."""
    drawn = "1 0 1 1 / 0 0 1 1 / 0 1 1 0 / 1 0 2 1 / 3/2 1/2 1 1"
    block = replace(block_of(drawn, 2, 1, (6, 3), "abababa"), methods=SINGLE)
    plan = plan_block(project_of(block), block)
    quarters = [c for c in plan.cuts if c.crosscut == "twice"]
    assert [(c.number, c.over) for c in quarters] == [(1, 0), (1, 2)]
    text = plan_text(plan)
    assert "take 2 triangles over of A" in text
    assert "2 triangles over of A" in plan.steps[1].text
    assert "0 ×" not in text


def test_a_patch_that_is_a_unit_takes_what_is_over_and_nothing_is_cut_for_it():
    """Two triangle squares and a triangle beside a slanted patch: three triangles of A and two of B
    come off two squares and one. Sittings say that the last is taken, not cut."""
    drawn = "1 0 1 1 / 0 0 1 1 / 1 1 2 0 / 2 0 2 1"
    block = replace(block_of(drawn, 3, 1, (9, 3), "abbac"), methods=SINGLE)
    plan = plan_block(project_of(block), block)
    for unit in plan.units:
        if all(c.number == 0 for c in unit.in_use.pieces) and unit.in_use.pieces:
            tasks = plain_tasks(unit, plan.rates)
            assert [(t.verb, t.minutes) for t in tasks] == [("take", 0.0)]
    assert plan.work.sittings
    one = next(u for u in plan.units if any(c.piece.crosscut == "once" for c in u.in_use.pieces))
    none_cut = dataclass_replace(one, spare={triangle_key(c): 99 for c in one.in_use.pieces})
    assert [c.number for c in none_cut.in_use.pieces] == [0] * len(none_cut.in_use.pieces)
    (task,) = plain_tasks(none_cut, plan.rates)
    assert (task.verb, task.times) == ("take", sum(c.spare for c in none_cut.in_use.pieces))
    assert sittings([Batch("mat", (task,))], 5)[0].batches[0].tasks == (task,)


def test_a_diagonal_is_a_cut_of_each_square():
    """Nine triangle squares of single triangles: 5 squares of each fabric, each cut once: 20 cuts;
    sewn two at a time 10 squares and 5 runs of one cut: 15, and 5 lines to draw."""
    block = replace(block_of("0 0 1 1", 1, 1, (3, 3), "ab"))
    plan = plan_block(project_of(block), block, 9)
    costs = {c.plan.name: c for c in plan.compared["A"].costs}
    assert costs["single-triangles"].cuts == 20
    assert costs["two-at-a-time"].cuts == 15
    rates = plan.rates
    more = replace(rates, mark=rates.mark + 60)
    again = replace(project_of(block), rates=more)
    later = {c.plan.name: c for c in plan_block(again, block, 9).compared["A"].costs}
    assert later["two-at-a-time"].minutes == pytest.approx(costs["two-at-a-time"].minutes + 5)
    assert later["single-triangles"].minutes == costs["single-triangles"].minutes


@pytest.mark.parametrize(
    ("drawn", "wide", "name"),
    [
        ("0 0 1 1 / 0 1 1 0", 1, "crossed-pairs"),
        ("0 0 1 1 / 1/2 1/2 0 1", 1, "crossed-pairs"),
        ("0 1 1 0 / 1 0 2 1", 2, "no-waste"),
    ],
)
def test_every_cut_of_a_unit_is_in_its_text(drawn, wide, name):
    """Crossed pairs and geese are cut a second time."""
    kinds = dict.fromkeys(("quarter-square-triangle", "three-triangle", "flying-geese"), name)
    block = replace(block_of(drawn, wide, 1, (3 * wide, 3), "abca"), methods=kinds)
    plan = plan_block(project_of(), block)
    (unit,) = plan.units
    cuts = [m.text for m in unit.in_use.moves if m.do == "cut-apart"]
    assert unit.in_use.name == name
    assert len(cuts) == len(set(cuts)) == 2
    assert all(text in plan.steps[0].text for text in cuts)


@pytest.mark.parametrize(
    "drawn", ["0 0 1 1", "0 0 1 1 / 0 1 1 0", "0 0 1 1 / 1/2 1/2 0 1", "1/2 0 1 1/2"]
)
def test_a_line_that_is_sewn_beside_was_drawn_before(drawn):
    plan = plan_block(project_of(), block_of(drawn, 1, 1, (3, 3), "abc"))
    for method in methods_for(plan.units[0].unit, F(1, 4)):
        drawn_so_far = 0
        for move in method.moves:
            kinds = [line.kind for line in move.lines]
            if move.do == "mark":
                drawn_so_far += kinds.count("mark") * move.times
            elif move.do == "sew":
                assert kinds.count("mark") * move.times <= drawn_so_far, (method.name, move.text)
        assert method.effort.marks >= drawn_so_far


def test_a_unit_that_holds_another_wastes_what_its_own_fabric_leaves():
    """A four-patch in a square in a square, 8 in: the corners come to the unfinished unit and both
    sides of the four seams round the middle, less the middle with its own allowance."""
    drawn = "1 0 2 1 / 2 1 1 2 / 1 2 0 1 / 0 1 1 0 / 1/2 1/2 3/2 3/2 / 3/2 1/2 1/2 3/2"
    plan = plan_block(project_of(), block_of(drawn, 2, 2, (8, 8), "abcab"))
    outer = next(u for u in plan.units if u.inside)
    (cost,) = [c for c in plan.compared[outer.unit.label].costs if c.plan.name == outer.in_use.name]
    side = 32**0.5
    corners = 8.5**2 + 2 * 0.25 * 4 * side - (side + 0.5) ** 2
    assert cost.wasted == pytest.approx(cost.fabric - corners)
    assert 0 < cost.wasted < cost.fabric / 4
