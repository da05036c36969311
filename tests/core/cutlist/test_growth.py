"""How cuts grow with a block: ruler-friendly sizes, and sizes from fabric cut already."""

from __future__ import annotations

from itertools import compress

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.cutlist.growth import Series, _meet, _without_root, growths
from inlet.core.cutlist.stash_sizes import sizes_from
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES, INCHES
from inlet.core.numbers.text import NumberError
from inlet.core.plan.block import plan_block
from inlet.core.planning.stock import Stock, parse_stock
from inlet.core.project.value import replace
from inlet.files.text.plan_json import plan_dict, stock_list
from tests.blocks import (
    allowances,
    block_of,
    project_of,
    ratios,
    unit_blocks,
)


@given(unit_blocks(most=2), allowances, ratios(min_value=F(1, 3), max_value=4))
@settings(max_examples=15, deadline=None)
def test_every_cut_grows_evenly_with_its_block(block, seam, k):
    project = project_of(block, seam=seam)
    other = replace(block, finished=(block.finished[0] * k, block.finished[1] * k))
    plans = [plan_block(project, b).units for b in (block, other)]
    # A unit's usual method may change with its size; growth speaks of one method.
    kept = [p.in_use.name == q.in_use.name for p, q in zip(*plans, strict=True)]
    now, then = (growths(list(compress(units, kept))) for units in plans)
    assert [(g.label, g.side) for g in now] == [(g.label, g.side) for g in then]
    for g, h in zip(now, then, strict=True):
        assert h.piece.exact[h.side] == g.grows * k + g.adds


series = st.builds(
    Series,
    ratios(min_value=0, max_value=3, max_denominator=12),
    ratios(min_value=F(1, 12), max_value=3, max_denominator=12),
)


@given(series, series)
@settings(max_examples=60)
def test_what_two_series_have_in_common_is_what_counting_finds(one, other):
    met = _meet(one, other)
    lists = [{s.first % s.step + s.step * i for i in range(600)} for s in (one, other)]
    common = sorted(x for x in lists[0] & lists[1] if x < 40)
    if met is None:
        assert common == []
    else:
        counted = [met.first % met.step + met.step * i for i in range(600)]
        assert [x for x in counted if x < 40] == common


@given(unit_blocks(most=2), st.sampled_from(["strip", "square"]), st.sampled_from([F(5, 2), F(5)]))
@settings(max_examples=12, deadline=None)
def test_a_size_from_stock_can_be_cut_from_it(block, shape, width):
    project = project_of(block)
    plan = plan_block(project, block)
    for size in sizes_from(Stock(shape, width), plan.units, block, plan.measure):
        then = plan_block(project, replace(block, finished=size.finished))
        for g in growths(then.units):
            if g.label in size.whole and (shape == "square" or g.side == 0):
                assert g.piece.exact[g.side] <= width
        assert set(size.whole) | set(size.others) == {g.label for g in growths(then.units)}
        if size.on_marks:
            assert then.ruler_friendly.misses == ()


@pytest.mark.parametrize(
    ("text", "system", "stock"),
    [
        ("2 1/2 strips, 5 squares", INCHES, [("strip", F(5, 2)), ("square", F(5))]),
        ("10 in Squares;", INCHES, [("square", F(10))]),
        ("6 cm strip, 120mm squares", CENTIMETRES, [("strip", F(6)), ("square", F(12))]),
        ("9 x 7 scraps", INCHES, [("scrap", F(7), F(9))]),
        (
            "10 in squares, 4 x 2 in scraps",
            CENTIMETRES,
            [("square", F(127, 5)), ("scrap", F(127, 25), F(254, 25))],
        ),
        ("", INCHES, []),
    ],
)
def test_stock_as_typed(text, system, stock):
    assert list(parse_stock(text, system)) == [Stock(*s) for s in stock]


@pytest.mark.parametrize(
    "text", ["5 ribbons", "squares", "0 squares", "x strips", "5", "7 scraps", "7 x 8 squares"]
)
def test_stock_that_is_none(text):
    with pytest.raises(NumberError):
        parse_stock(text, INCHES)


def test_sizes_are_in_the_plan_as_data():
    block = block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (10, 10), "abc")
    plan = plan_block(project_of(block), block)
    told = plan_dict(plan)["comfort"]
    assert told["misses"] == [{"length": "23/6", "for": ["A"], "short": "1/24"}]
    assert (told["smaller"], told["larger"]) == (["39/4", "39/4"], ["81/8", "81/8"])
    (from_stock,) = stock_list(plan, parse_stock("2 1/2 strips", INCHES))
    assert from_stock["finished"] == ["6", "6"]
    assert (from_stock["comfortable"], from_stock["others"]) == (True, [])


@pytest.mark.parametrize("grows", [F(1234567, 10**16 + 3), F(10**9 + 7, 3 * 10**9 + 1), F(7, 2)])
def test_what_grows_at_all_never_becomes_nothing(grows):
    """As of a sliver, of which a rounder number would be nothing: sizes are divided by it."""
    assert _without_root(grows) > 0
    assert abs(float(_without_root(grows) - grows)) < 1e-9
