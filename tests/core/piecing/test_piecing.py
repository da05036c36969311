"""Joins, steps, what cannot be sewn, and the proof of whole plans."""

from __future__ import annotations

import random
from collections import Counter

import pytest
import shapely
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from inlet.core.assembly.tree import all_joins
from inlet.core.draft.symmetry import turned
from inlet.core.fitting.words import block_text
from inlet.core.geometry.motion import canonical
from inlet.core.geometry.polygon import clip, edges, line_through
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.piecing.pictures import raw_sheet, step_moves
from inlet.core.piecing.resew import resewn
from inlet.core.plan.block import plan_block
from inlet.core.project.value import replace
from inlet.core.table.sheets import size
from inlet.core.units.units import picture_of
from tests.blocks import (
    GOOSE,
    block_of,
    point,
    project_of,
    split_block,
    through_blocks,
    turns,
    unit_blocks,
)
from tests.sample import many, sampled

RING = "0 1 2 1 / 2 0 2 2 / 1 2 3 2 / 1 1 1 3"


def plan_of(block, copies=1, **measure):
    return plan_block(project_of(block, **measure), block, copies)


def is_sewn(block) -> None:
    plan = plan_of(block)
    assert not plan.errors, [p.text for p in plan.errors]
    assert plan.resewn
    patches = len(plan.draft.patches)
    assert len(list(all_joins(plan.assembly))) == patches - 1
    assert sum(len(p.part.faces) for u in plan.units for p in u.unit.places) == patches


@given(through_blocks(most=30))
@settings(
    max_examples=many(20, 40),
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)
def test_whatever_straight_through_seams_can_sew_is_sewn_and_proved(block):
    is_sewn(block)


@pytest.mark.parametrize("seed", sampled(range(12), 2))
def test_blocks_of_about_sixty_patches_too(seed):
    block = split_block(random.Random(seed).randint, 62)
    assert 40 <= len(plan_of(block).draft.patches) <= 63
    is_sewn(block)


@given(unit_blocks() | through_blocks(most=14), turns)
@settings(max_examples=many(30, 60))
def test_turning_or_mirroring_a_block_changes_no_cut_size(block, turn):
    one, two = plan_of(block), plan_of(turned(block, turn))
    assert one.resewn
    assert two.resewn

    def cuts(plan):
        return Counter((c.fabric, c.shape, c.cut, c.crosscut, c.number) for c in plan.cuts)

    assert cuts(one) == cuts(two)
    assert sorted(u.unit.kind for u in one.units) == sorted(u.unit.kind for u in two.units)
    assert len(one.steps) == len(two.steps)


@given(unit_blocks(most=2), st.integers(2, 7))
@settings(max_examples=many(10, 20))
def test_more_copies_need_that_many_more_units_and_pieces_enough(block, copies):
    one, many = plan_of(block), plan_of(block, copies)
    for a, b in zip(one.units, many.units, strict=True):
        assert b.count == copies * a.count
        for method in b.methods:
            assert method.runs * method.method.makes == b.count + method.surplus
            assert 0 <= method.surplus < method.method.makes


def test_the_proof_fails_for_another_drawing():
    block = block_of("1 0 1 2 / 0 1 2 1 / 0 0 1 1", 2, 2, (8, 8))
    plan = plan_of(block)
    assert plan.resewn
    for other in (
        replace(block, finished=(F(8), F(9))),
        replace(block, seams=(*block.seams[:2], *block_of("1 1 2 2", 2, 2).seams)),
        replace(block, fabric_at=block.fabric_at[:-1]),
    ):
        drawn = plan_of(other).draft
        assert not resewn(drawn, plan.root, plan.units, F(1, 4))


def test_an_island_cannot_be_sewn_and_says_so():
    plan = plan_of(block_of("1 1 2 1 / 2 1 2 2 / 2 2 1 2 / 1 2 1 1", 3, 3))
    assert {p.code for p in plan.errors} == {"seam-island"}
    assert (plan.resewn, plan.assembly) == (False, None)
    # its cuts are listed all the same
    assert sum(c.number for c in plan.cuts) == 2


def test_a_partial_seam_with_no_room_to_stop_is_told():
    plan = plan_of(replace(block_of(RING, 3, 3), finished=(F(1), F(1))))
    (problem,) = [p for p in plan.problems if p.code == "short-partial"]
    assert problem.at[0] in {point(1, 1), point(2, 1), point(2, 2), point(1, 2)}
    assert plan.resewn
    assert "short-partial" not in {p.code for p in plan_of(block_of(RING, 3, 3)).problems}


def test_units_inside_a_ring_are_units():
    plan = plan_of(block_of(f"{RING} / 1 1 2 2 / 0 1/2 2 1/2", 3, 3))
    kinds = Counter(u.unit.kind for u in plan.units)
    assert kinds["half-square-triangle"] == 1
    assert kinds["strips"] == 1


def test_steps_go_from_units_to_rows_to_the_block():
    drawn = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2 / 0 0 1 1 / 2 2 3 3"
    plan = plan_of(block_of(drawn, 3, 3, (9, 9), "ab"), 2)
    assert [(s.makes, s.times) for s in plan.steps][-1] == ("block", 2)
    assert [s.number for s in plan.steps] == list(range(1, len(plan.steps) + 1))
    unit, last = plan.steps[0], plan.steps[-1]
    assert unit.makes == "A"
    # squares cut 3 7/8 for 3.854 make triangle squares 0.0214 larger, eased to their neighbours
    assert unit.measures == (F(225, 64), F(225, 64))
    assert last.measures == (F(609, 64), F(609, 64))
    row = next(s for s in plan.steps if s.makes == "row 1")
    assert row.measures == (F(609, 64), F(225, 64))
    assert row.after_each == ((F(417, 64), F(225, 64)),)
    for step in plan.steps:
        assert "{" not in step.text
        moves = step_moves(plan.draft, step, F(1, 4))
        assert moves
        made = next(s for s in plan.steps if s.makes == step.makes)
        if step.unit is None:
            sizes = zip(size(moves[-1].lower), made.measures, strict=True)
            assert max(abs(exact - measured) for exact, measured in sizes) <= F(1, 32)


def test_equal_rows_are_sewn_together_even_when_turned():
    block = block_of("0 1 2 1 / 1 0 1 2", 2, 2, (8, 8), "abba")
    plan = plan_of(replace(block, columns=(F(2),)))
    assert [u.unit.kind for u in plan.units] == ["four-patch"]
    rows = "0 1 3 1 / 1 0 1 2 / 2 0 2 2"
    plan = plan_of(block_of(rows, 3, 2, (9, 6), "abccba"))
    assert [(s.makes, s.times) for s in plan.steps] == [("row 1", 2), ("block", 1)]


@given(unit_blocks(most=2))
@settings(max_examples=many(10, 20))
def test_sewn_pictures_cover_their_raw_size(block):
    plan = plan_of(block)
    sheet = raw_sheet(plan.draft, plan.root.faces, F(1, 4))
    assert size(sheet) == plan.unfinished
    covered = shapely.union_all([shapely.Polygon([p.floats() for p in o]) for o, _ in sheet])
    assert covered.area == pytest.approx(float(plan.unfinished[0] * plan.unfinished[1]))
    shown = [(clipped, f) for o, f in sheet if (clipped := _inside(o, plan.root.outline))]
    assert canonical(tuple(shown)) == canonical(picture_of(plan.draft, plan.root.faces))


def _inside(outline, frame):
    for p, q in edges(frame):
        outline = clip(outline, line_through(p, q)) if outline else outline
    return outline


def test_methods_are_taken_from_the_block_and_refused_in_words():
    block = block_of(GOOSE, 2, 1, (4, 2), "aba")
    chosen = plan_of(replace(block, methods={"flying-geese": "single-triangles"}))
    assert chosen.units[0].in_use.name == "single-triangles"
    assert [p.code for p in chosen.problems] == ["comes-out"]  # on eighths, 3/64 in over
    odd = plan_of(replace(block, methods={"flying-geese": "eight-at-a-time"}))
    assert odd.units[0].in_use.name == "corner-squares"  # advised for a single one
    assert [p.code for p in odd.problems] == ["method"]


def test_comfortable_and_odd_sizes():
    drawn = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"
    assert plan_of(block_of(drawn, 3, 3, (9, 9), "abc")).problems == ()
    plain = {"nine-patch": "plain", "checkerboard": "plain"}
    odd = plan_of(replace(block_of(drawn, 3, 3, (10, 10), "abc"), methods=plain))
    assert {p.code for p in odd.problems} == {"odd-size"}
    assert odd.resewn
    said = odd.problems[0].text
    assert "Cut 9 shapes on the 1/16 in marks (half way between two 1/8 in marks)" in said
    assert block_text(odd.fit, odd.measure) == "9 15/16 in"
    assert all(c.cut == (F(61, 16), F(61, 16)) for c in odd.cuts)


def test_a_block_of_one_patch_has_nothing_to_sew():
    plan = plan_of(block_of(fabrics="a"))
    assert plan.resewn
    assert plan.steps == ()
    assert plan.assembly is None
