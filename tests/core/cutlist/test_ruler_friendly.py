"""Ruler-friendly sizes, and those that fabric cut already gives."""

from __future__ import annotations

from hypothesis import given, settings

from inlet.core.cutlist import stash_sizes
from inlet.core.cutlist.ruler_friendly import ruler_friendly
from inlet.core.cutlist.stash_sizes import sizes_from
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import BlockPlan, plan_block
from inlet.core.planning.stock import Stock
from inlet.core.project.block import Block
from inlet.core.project.measure import METRIC
from inlet.core.project.value import replace
from tests.blocks import block_of, project_of, ratios, unit_blocks

NINE = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"


def plan_of(block: Block, **measure: object) -> BlockPlan:
    return plan_block(project_of(block, **measure), block)


def test_three_by_three_is_comfortable_at_nine_and_awkward_at_ten():
    nine = plan_of(block_of(NINE + " / 0 0 1 1", 3, 3, (9, 9), "abc")).ruler_friendly
    assert nine.misses == ()
    ten = plan_of(block_of(NINE, 3, 3, (10, 10), "abc")).ruler_friendly
    # Cut 3 1/3 + 1/2: a 24th short of 3 7/8. Cells on the mark: every 3/8 of the block.
    assert [(m.length, m.short) for m in ten.misses] == [(F(23, 6), F(1, 24))]
    assert (ten.smaller, ten.larger) == ((F(39, 4), F(39, 4)), (F(81, 8), F(81, 8)))
    # On a millimetre ruler cells are whole tenths of a cm less 1.5: blocks by 0.3 cm, 25.4 between.
    assert (ten.other_smaller[0], ten.other_larger[0]) == (F(252, 10), F(255, 10))


@given(unit_blocks(most=2), ratios(min_value=2, max_value=15, max_denominator=12))
@settings(max_examples=15, deadline=None)
def test_at_the_sizes_named_every_cut_lands(block, size):
    block = replace(block, finished=(size, size))
    sizes = plan_of(block).ruler_friendly
    for near in (sizes.smaller, sizes.larger):
        if near is not None:
            assert plan_of(replace(block, finished=near)).ruler_friendly.misses == ()
    assert sizes.smaller is None or sizes.smaller[0] < size
    assert sizes.larger is None or sizes.larger[0] > size
    for near in (sizes.other_smaller, sizes.other_larger):
        if near is not None:
            metric = replace(project_of(block), measure=METRIC)
            assert plan_block(metric, replace(block, finished=near)).ruler_friendly.misses == ()


def test_a_side_that_grows_by_root_two_lands_at_no_size():
    plan = plan_of(block_of("1 0 2 1 / 2 1 1 2 / 1 2 0 1 / 0 1 1 0", 2, 2, (4, 4), "babbb"))
    assert plan.ruler_friendly.never


def test_a_sliver_that_no_size_makes_larger_sets_no_size(monkeypatch):
    plan = plan_of(block_of(NINE, 3, 3, (9, 9), "abc"))
    grown = stash_sizes.growths(plan.units)
    slivers = [grown[0]._replace(label="Z", grows=F(n, 10**6)) for n in (0, -1)]
    monkeypatch.setattr(stash_sizes, "growths", lambda _: [*slivers, *grown])
    (strip,) = sizes_from(Stock("strip", F(5, 2)), plan.units, plan.block, plan.measure)
    assert (strip.finished, strip.fills) == ((6, 6), grown[0].label)


def test_sizes_from_strips_and_squares_owned():
    plan = plan_of(block_of(NINE, 3, 3, (9, 9), "abc"))
    (strip,) = sizes_from(Stock("strip", F(5, 2)), plan.units, plan.block, plan.measure)
    assert strip.finished == (6, 6)
    assert strip.on_marks
    (square,) = sizes_from(Stock("square", F(5)), plan.units, plan.block, plan.measure)
    assert square.finished == (F(27, 2), F(27, 2))
    two = {"half-square-triangle": "two-at-a-time"}
    hst = plan_of(replace(block_of("0 0 1 1", size=(3, 3)), methods=two))
    # From a 5 in square two at a time: 5 - 0.854 = 4.146, on the mark 4 1/8.
    (made,) = sizes_from(Stock("square", F(5)), hst.units, hst.block, hst.measure)
    assert made.finished == (F(33, 8), F(33, 8))
    assert ruler_friendly(hst.units, hst.block, hst.measure).misses == ()
