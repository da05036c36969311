"""What is said to help does help; shares, quilts, hands that cannot sew."""

from __future__ import annotations

import random

import numpy as np
import pytest

from inlet.core.draft.tray import tray_units
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.quilt import Border, Quilt, Sashing
from inlet.core.project.value import replace
from inlet.core.tolerance.advice import GUIDE, PINS, advised, expected
from inlet.core.tolerance.faults import hand_fault
from inlet.core.tolerance.forecast import Watched, forecast
from inlet.core.tolerance.outlook import look_ahead, ticket_line
from inlet.core.tolerance.quilt_rows import quilt_forecast
from inlet.core.tolerance.sewing_hand import BEGINNER, PERFECT, STEADY, USUAL, SewingHand
from inlet.core.tolerance.shares import shares
from inlet.core.tolerance.sources import block_model
from inlet.core.tolerance.words import quilt_lines, risk_line, size_at
from tests.blocks import block_of, project_of, split_block, tray_block
from tests.core.assembly.corpus import corpus
from tests.sample import sampled

CORPUS = [block for _, block, _, _ in corpus()]
TRAY = {unit.words: unit for unit in tray_units()}


def planned(block, **measure):
    project = project_of(block, **measure)
    return plan_block(project, project.blocks[0])


def random_hand(chance):
    more = {kind: chance.uniform(-0.02, 0.04) for kind in ("straight", "long", "bias", "curve")}
    return SewingHand(more, chance.uniform(0.004, 0.02), 0.0, chance.uniform(0.004, 0.02))


@pytest.mark.parametrize("seed", sampled(range(50), 5))
def test_the_first_advice_lowers_the_chance_of_a_cut_point_in_an_independent_run(seed):
    chance = random.Random(seed)
    block = split_block(chance.randint, 8) if seed % 2 else CORPUS[seed % len(CORPUS)]
    plan, hand = planned(block), random_hand(chance)
    advice = advised(plan, hand)
    if not advice:
        return
    first = advice[0]
    cut, off = expected(forecast(Watched(block_model(plan)), hand, 2000, 900 + seed))
    better = _taken(plan, hand, first, 901 + seed)
    if first.text != PINS and first.cut_before > 0.05:
        assert better[0] < cut + 0.02
    assert better[1] < off


def _taken(plan, hand, advice, seed):
    """What comes of an advice, sewn again with other errors."""
    if advice.project is None:
        hand = hand._replace(more={}) if advice.text == GUIDE else hand
        result = forecast(Watched(block_model(plan)), hand, 2000, seed)
        return expected(result, pinned=advice.text == PINS)
    again = plan_block(advice.project, advice.project.blocks[0])
    return expected(forecast(Watched(block_model(again)), hand, 2000, seed))


def test_shares_add_up_and_a_hand_that_only_cuts_unevenly_has_no_share_of_sewing():
    watched = Watched(block_model(planned(tray_block(TRAY["Nine-patch"]))))
    for hand in (USUAL, BEGINNER):
        parts = shares(watched, hand)
        assert sum(part.size for part in parts) == pytest.approx(1)
        assert sum(part.sharp for part in parts) == pytest.approx(1)
    only_cuts = shares(watched, SewingHand(cut_spread=0.01))
    assert {part.work.split()[0] for part in only_cuts} == {"cutting"}


def test_shares_are_those_of_the_variances_of_many_sewings():
    """Strips: cuts τ² each, seams 4 σ² each."""
    watched = Watched(block_model(planned(tray_block(TRAY["Strips"]))))
    hand = SewingHand(spread=0.01, cut_spread=0.02)
    parts = {part.work.split()[0]: part.size for part in shares(watched, hand)}
    # across the strips 3 cuts and 2 seams; along them the strip in the middle is cut
    cut, sewn = 3 * 0.02**2 + 0.02**2, 2 * 4 * 0.01**2
    assert parts["sewing"] == pytest.approx(sewn / (cut + sewn), rel=0.02)


def test_trimming_makes_a_unit_even_whatever_the_seam():
    """Trimmed to size: of no spread of its seam, as large as the ruler; too little cannot grow."""
    by_edge = {"half-square-triangle": "two-at-a-time"}
    block = replace(tray_block(TRAY["Half-square triangle"]), methods=by_edge)
    hand = SewingHand({"bias": 0.02, "straight": 0.02}, 0.02)
    spread = {}
    for style in ("exact", "trim"):
        size = forecast(Watched(block_model(planned(block, style=style))), hand, 500).block
        spread[style] = size.high[0] - size.low[0]
    assert spread["trim"] < 1e-6 < spread["exact"]
    wide = hand._replace(more={"bias": 0.3})
    size = forecast(Watched(block_model(planned(block, style="trim"))), wide, 200).block
    assert size.middle[0] < 3.5 - 0.1


QUILT = Quilt(block="test", columns=3, rows=4, borders=(Border(width=F(2), fabric="c"),))


def quilt_of(block, quilt=QUILT, **measure):
    return plan_quilt(replace(project_of(block, **measure), quilt=quilt))


@pytest.mark.parametrize("setting", ["straight", "on-point"])
@pytest.mark.parametrize("sashing", [None, Sashing(width=F(1), fabric="b", corner_fabric="c")])
def test_without_errors_rows_match_and_borders_fit(setting, sashing):
    block = block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (7, 7), "abc")
    quilt = replace(QUILT, setting=setting, sashing=sashing)
    result = quilt_forecast(quilt_of(block, quilt), PERFECT, 3)
    assert result.rows
    for row in result.rows:
        assert row.low == pytest.approx(row.planned)
        assert row.off == row.off_pinned == 0
    for border in result.borders:
        assert (border.low, border.misfit) == (pytest.approx(border.planned), 0)


def test_rows_are_as_linear_theory_says():
    """A row of n blocks that are one piece: n cuts and n - 1 seams."""
    block = replace(block_of("", 1, 1, (6, 6), "a"), finished=(F(6), F(6)))
    quilt = replace(QUILT, borders=())
    hand = SewingHand({"straight": 0.01}, 0.012, 0.0, 0.01)
    rows = quilt_forecast(quilt_of(block, quilt), hand, 8000).rows
    spread = np.sqrt(3 * 0.01**2 + 2 * 4 * 0.012**2)
    for row in rows:
        assert row.middle == pytest.approx(18 - 2 * 2 * 0.01, abs=0.002)
        assert (row.high - row.low) / 2 == pytest.approx(1.645 * spread, rel=0.05)
    assert [row.next for row in rows] == ["Row 2", "Row 3", "Row 4", ""]


@pytest.mark.parametrize("columns", [1, 3])
def test_borders_meet_what_rows_and_sashing_come_to(columns):
    """Blocks of one piece, 6 in, in four rows with strips between: down the quilt each row is the
    mean of its cuts, each strip a cut, six seams between; the top border lies across the first."""
    sashing = Sashing(width=F(1), fabric="b")
    border = Border(width=F(2), fabric="c")
    quilt = replace(QUILT, columns=columns, sashing=sashing, borders=(border,))
    hand = SewingHand({"straight": 0.01}, 0.012, 0.004, 0.01)
    plan = quilt_of(block_of("", 1, 1, (6, 6), "a"), quilt)
    borders = {b.side: b for b in quilt_forecast(plan, hand, 8000).borders}
    sides = borders["sides"]
    down = 4 * 6 + 3 * 1
    assert sides.planned == pytest.approx(down)
    cells = 2 * columns - 1  # of a row, strips beside its blocks among them
    spread = np.sqrt((4 / cells + 3) * 0.01**2 + 6 * 4 * 0.012**2)
    middle = down + 7 * 0.004 - 6 * 2 * 0.01
    assert (sides.low + sides.high) / 2 == pytest.approx(middle, abs=0.004)
    assert (sides.high - sides.low) / 2 == pytest.approx(1.645 * spread, rel=0.05)
    across = borders["top and bottom"]  # over the rows, the strips at their sides, two seams more
    assert across.planned == pytest.approx(7 * columns - 1 + 2 * 2)
    middle = across.planned + (cells + 2) * 0.004 - (cells + 1) * 2 * 0.01
    rows = 4 if columns > 1 else 7  # without seams a strip between is a row like the others
    spread = np.sqrt((cells / rows + 2) * 0.01**2 + ((cells - 1) / rows + 2) * 4 * 0.012**2)
    assert (across.low + across.high) / 2 == pytest.approx(middle, abs=0.004)
    assert (across.high - across.low) / 2 == pytest.approx(1.645 * spread, rel=0.05)


def test_a_row_varies_as_its_blocks_and_seams():
    """Three nine-patches, two of them turned: three times the block's variance, and 8 σ²."""
    block = tray_block(TRAY["Nine-patch"])
    quilt = replace(QUILT, borders=(), turning="checker")
    plan = quilt_of(block, quilt)
    hand = SewingHand({"straight": 0.01}, 0.012, 0.0, 0.01)
    size = forecast(Watched(block_model(plan.sewn[0])), hand, 4000).block
    one = (size.high[0] - size.low[0]) / 2 / 1.645
    spread = np.sqrt(3 * one**2 + 2 * 4 * 0.012**2)
    for row in quilt_forecast(plan, hand, 4000).rows:
        assert (row.high - row.low) / 2 == pytest.approx(1.645 * spread, rel=0.08)


@pytest.mark.parametrize("block", sampled(CORPUS, 6), ids=lambda block: block.name or "block")
def test_without_errors_sizes_are_those_planned(block):
    """Of the block and its units, as they lie, to the 16th that slanted pieces cut at marks make
    otherwise than their sides tell: width and height not changed over."""
    oblong = replace(block, finished=(block.finished[0] * 2, block.finished[1]))
    for each in (block, oblong) if not block.curves else (block,):
        model = block_model(planned(each, style="exact"))
        if model is None:
            continue
        for size in forecast(Watched(model), PERFECT, 1).sizes:
            for side in (0, 1):
                assert size.middle[side] == pytest.approx(float(size.planned[side]), abs=0.08)


def test_the_worse_the_hand_the_more_is_off_and_words_say_so():
    block = block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (F(15, 2), F(15, 2)), "abc")
    plan = quilt_of(block)
    steady, beginner = (quilt_forecast(plan, hand) for hand in (STEADY, BEGINNER))
    for calm, wild in zip(steady.rows, beginner.rows, strict=True):
        assert calm.off <= wild.off
        assert calm.high - calm.low < wild.high - wild.low
    lines = list(quilt_lines(beginner, plan.measure, "your seam"))
    assert len(lines) == 1 + len(beginner.rows) + len(beginner.borders)
    assert lines[1].startswith("Row 1: 22.50 in planned, ")


def test_a_hand_that_leaves_nothing_of_a_piece_cannot_sew():
    plan = planned(block_of("1 0 1 1", 8, 1, (8, 4), "ab"))
    assert hand_fault(BEGINNER, plan) == ""
    wide = SewingHand({"straight": 0.6})
    assert hand_fault(wide, plan) == (
        "a seam that takes 0.85 in leaves nothing of a piece cut 1 1/2 in wide"
    )
    assert hand_fault(SewingHand(spread=-0.01), plan) == "a spread of a hand is not below 0"
    assert hand_fault(
        SewingHand({"curve": -0.3, "straight": -0.3, "long": -0.3, "bias": -0.3}), plan
    )
    result = look_ahead(plan, plan, wide, "this hand")
    assert result.forecast is None
    assert result.fault.startswith("A seam that takes")


def test_the_ticket_says_what_the_page_says():
    block = tray_block(TRAY["Flying geese"])
    plan = planned(block)
    line = ticket_line(plan, plan, plan.project)
    result = look_ahead(plan, plan, USUAL, "a usual seam")
    assert line == risk_line(result.forecast, "a usual seam")
    assert line.endswith("at risk with a usual seam.")
    one_piece = planned(block_of("", 1, 1, (6, 6), "a"))
    assert ticket_line(one_piece, one_piece, one_piece.project) == ""
    assert look_ahead(one_piece, one_piece, USUAL, "x").fault == (
        "This block has no seams, or cannot be sewn yet."
    )


def test_sizes_are_told_of_the_unit_pointed_at():
    block = block_of("3 0 3 3 / 0 0 3 3", 6, 3, (6, 3), "abc")
    plan = planned(block)
    result = forecast(Watched(block_model(plan)), USUAL, 200)
    assert size_at(result, plan, (1, 2)).name.startswith("Unit")
    assert size_at(result, plan, (5, 2)).name == "Block"
    assert size_at(result, plan, (-1, 2)).name == "Block"
    wide = planned(block_of("3 0 3 3 / 0 0 3 3", 6, 3, (12, 3), "abc"))
    result = forecast(Watched(block_model(wide)), USUAL, 200)
    assert size_at(result, wide, (5, 1)).name.startswith("Unit")
    assert size_at(result, wide, (7, 1)).name == "Block"


def test_the_same_seed_gives_the_same_forecast_in_either_system():
    block = tray_block(TRAY["Flying geese"])
    plan = planned(block)
    results = [forecast(Watched(block_model(plan)), BEGINNER, 300, 5) for _ in range(2)]
    assert results[0] == results[1]
    assert results[0] != forecast(Watched(block_model(plan)), BEGINNER, 300, 6)
