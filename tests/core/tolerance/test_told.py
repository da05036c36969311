"""What is drawn and said of a forecast: the block as sewn, chances in words, other ways, rows."""

from __future__ import annotations

import dataclasses
from datetime import datetime
from itertools import pairwise

import numpy as np
import pytest
from shapely import Polygon

from inlet.core.draft.patches import patch_polygons
from inlet.core.draft.tray import tray_units
from inlet.core.hand.crossings import TYPES as SEAM_TYPES
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.quilt import Border, Quilt
from inlet.core.project.value import replace
from inlet.core.tolerance.forecast import VISIBLE, Watched, all_outcomes, forecast, forecast_of
from inlet.core.tolerance.quilt_rows import BorderSpread, RowSpread, seams_between_rows
from inlet.core.tolerance.seen import as_sewn
from inlet.core.tolerance.sewing_hand import BEGINNER, PERFECT, THREAD, USUAL, SewingHand
from inlet.core.tolerance.shares import Share, shares
from inlet.core.tolerance.simulated import simulated
from inlet.core.tolerance.sources import block_model
from inlet.core.tolerance.variants import variants
from inlet.core.tolerance.words import (
    advice_lines,
    blocks_text,
    border_line,
    chance_text,
    forecast_lines,
    risk_level,
    row_line,
    share_lines,
    thread_text,
)
from tests.blocks import block_of, project_of, tray_block
from tests.core.assembly.corpus import corpus
from tests.sample import sampled

TRAY = {unit.words: unit for unit in tray_units()}
CORPUS = {name: block for name, block, _, _ in corpus()}


def planned(block, copies=1, **measure):
    project = project_of(block, **measure)
    return plan_block(project, project.blocks[0], copies)


def exact_model(block):
    model = block_model(planned(block, style="exact"))
    if model is None:
        return None
    return dataclasses.replace(model, drawn=model.drawn * 0, drawn_units=model.drawn_units * 0)


@pytest.mark.parametrize("name", sampled(sorted(CORPUS), 5))
def test_a_block_without_errors_looks_as_it_is_drawn(name):
    """Piece by piece: the same outline, arcs to what chords leave out, less than a fiftieth."""
    model = exact_model(CORPUS[name])
    if model is None:
        return
    draft = model.block.draft
    for look in (as_sewn(model, PERFECT), as_sewn(model, PERFECT, 5, 4)):
        for piece, outline, patch in zip(
            look.pieces, patch_polygons(draft), draft.patches, strict=True
        ):
            drawn = Polygon([p.floats() for p in outline])
            shown = Polygon(piece.corners)
            assert shown.symmetric_difference(drawn).area < 0.02 * drawn.area + 1e-9
            assert piece.fabric == patch.fabric
        places = [p.floats() for p in model.block.draft.arrangement.points]
        sx, sy = map(float, draft.block.scale)
        for vertex, at in look.vertices.items():
            assert at == pytest.approx((places[vertex][0] * sx, places[vertex][1] * sy), abs=1e-9)


def test_drawn_so_many_times_as_far_off_a_block_shrinks_so_many_times_as_much():
    model = exact_model(tray_block(TRAY["Strips"], 4))
    hand = SewingHand(dict.fromkeys(SEAM_TYPES, 0.02), 0.01, 0.004, 0.01)
    high = []
    for times in (1, 3):
        look = as_sewn(model, hand._replace(cut=0.0), None, times)
        ys = [y for piece in look.pieces for _, y in piece.corners]
        high.append(12 - (max(ys) - min(ys)))
    assert high == pytest.approx([2 * 2 * 0.02, 3 * 2 * 2 * 0.02])
    assert as_sewn(model, hand, 3) == as_sewn(model, hand, 3)
    assert as_sewn(model, hand, 3) != as_sewn(model, hand, 4)


def test_a_pinned_crossing_is_off_by_what_cannot_be_eased():
    """Of a nine-patch 3 in from its ends: a sixteenth in a foot is a 64th there."""
    watched = Watched(block_model(planned(tray_block(TRAY["Nine-patch"]))))
    outcomes = all_outcomes(watched, BEGINNER, 3000, 4)
    result = forecast_of(watched, outcomes)
    assert len(result.crossings) == 4
    for crossing, gaps in zip(result.crossings, np.abs(outcomes.apart), strict=True):
        assert crossing.off == pytest.approx((gaps > VISIBLE).mean())
        assert crossing.off_pinned == pytest.approx((gaps > VISIBLE + 3 / 192).mean())
        assert crossing.spread == pytest.approx(np.quantile(gaps, 2 / 3))


def test_points_are_told_place_by_place():
    watched = Watched(block_model(planned(tray_block(TRAY["Flying geese"]))))
    outcomes = all_outcomes(watched, BEGINNER, 2000, 4)
    result = forecast_of(watched, outcomes)
    assert {spot.vertex for spot in watched.points} == {point.vertex for point in result.points}
    for point in result.points:
        tips = [i for i, spot in enumerate(watched.points) if spot.vertex == point.vertex]
        off = outcomes.beyond[tips]
        assert point.cut_off == pytest.approx((off > VISIBLE).any(axis=0).mean())
        assert point.floats == pytest.approx((off < -VISIBLE).any(axis=0).mean())
        assert point.off == pytest.approx((np.abs(off) > VISIBLE).any(axis=0).mean())
    cut = (outcomes.beyond > VISIBLE).any(axis=0).mean()
    assert result.any_cut == pytest.approx(cut)
    low, high = np.quantile(outcomes.sizes[0, 0], (0.05, 0.95))
    assert (result.block.low[0], result.block.high[0]) == pytest.approx((low, high))


def test_chances_in_words():
    said = [chance_text(c) for c in (0.0, 0.004, 0.011, 0.099, 0.1, 0.34, 0.949, 0.96, 1.0)]
    assert said == [
        "almost never", "almost never", "in 1 of 100", "in 10 of 100", "in 1 of 10", "in 3 of 10",
        "in 9 of 10", "in more than 9 of 10", "almost always",
    ]  # fmt: skip
    assert blocks_text(0) == "in hardly any block"
    assert blocks_text(1) == "in nearly every block"
    assert blocks_text(0.42) == "in 4 of 10 blocks"
    assert [risk_level(c) for c in (0.24, 0.25, 0.49, 0.5)] == ["low", "some", "some", "high"]


def test_a_slider_in_words():
    measure = planned(tray_block(TRAY["Strips"])).measure
    for threads, said in (
        (0, "As it is: the seam takes 0.250 in. Move the slider to sew wider or narrower."),
        (1, "A thread wider: the seam takes 0.266 in."),
        (-1.5, "1.5 threads narrower: the seam takes 0.227 in."),
        (0.25, "0.25 of a thread wider: the seam takes 0.254 in."),
    ):
        wider = threads * THREAD
        assert thread_text(USUAL.sewing_wider(wider), wider, measure) == said


def test_shares_and_rows_and_borders_in_words():
    lines = list(share_lines([Share("sewing unit A", 0.7, 0.05), Share("x", 0.3, 0.95)]))
    assert lines == [
        "What makes the block's size uneven: sewing unit A (70 %), x (30 %).",
        "What makes points and crossings uneven: x (95 %).",
    ]
    measure = planned(tray_block(TRAY["Strips"])).measure
    row = RowSpread("Row 1", 18.0, 17.9, 17.8, 18.05, "Row 2", 0.5, 0.0)
    assert row_line(row, measure) == (
        "Row 1: 18.00 in planned, 17.80 to 18.05 in; a crossing with Row 2 is off in 5 of 10 laid "
        "flat, almost never pinned."
    )
    assert row_line(row._replace(next="", low=18.0, high=18.0), measure) == (
        "Row 1: 18.00 in planned, 18.00 in."
    )
    border = BorderSpread("Border 1", "sides", 60.0, 59.5, 60.2, 0.02)
    assert border_line(border, measure) == (
        "Border 1, sides: 60.00 in planned, the quilt comes out 59.50 to 60.20 in. Cut to the "
        "measured middle: as planned it would not fit in 2 of 100."
    )
    assert border_line(border._replace(misfit=0), measure).endswith("59.50 to 60.20 in.")


def test_a_block_that_is_sharp_needs_no_help_and_says_both_sides_of_an_oblong():
    plan = planned(tray_block(TRAY["Flying geese"]))
    result = forecast(Watched(block_model(plan)), SewingHand(), 5)
    assert list(advice_lines((), result)) == [
        "Nothing needs help: points and crossings come out sharp."
    ]
    wild = forecast(Watched(block_model(plan)), BEGINNER, 200)
    assert list(advice_lines((), wild)) == [
        "No other method, cutting style or size was found that helps clearly."
    ]
    lines = list(forecast_lines(result, (), plan.measure))
    assert lines == [
        "At least one of the 3 points is cut off in hardly any block.",
        "The block: 6 1/2 x 3 1/2 in planned; nine in ten come out 6.50 in wide, 3.50 in high.",
    ]


def test_other_ways_are_those_there_are():
    by_edge = {"half-square-triangle": "two-at-a-time"}
    block = replace(tray_block(TRAY["Half-square triangle"], F(10, 3)), methods=by_edge)
    ways = {way.advice: way for way in variants(planned(block, style="exact"))}
    assert ways["Cut unit A larger and trim it to size"].block.units[0].style == "trim"
    assert "Make unit A another way: single triangles" in ways
    assert not any("two at a time" in advice for advice in ways)
    assert ways["Take a seam allowance of 3/8 in"].project.measure.seam == F(3, 8)
    sizes = [w for a, w in ways.items() if a.startswith("Draw the block ")]
    assert sizes
    assert all(w.block.finished != block.finished for w in sizes)
    trimmed = {way.advice for way in variants(planned(block, style="trim"))}
    assert "Cut unit A larger and trim it to size" not in trimmed
    friendly = {way.advice for way in variants(planned(tray_block(TRAY["Nine-patch"])))}
    assert not any(advice.startswith("Draw the block ") for advice in friendly)


def test_pieces_of_one_fabric_are_cut_as_one_where_they_stay_simple():
    """Strips a a b b: two pairs; two triangles of one fabric that make a square; none of an ell."""
    strips = block_of("1 0 1 1 / 2 0 2 1 / 3 0 3 1", 4, 1, (8, 2), "aabb")
    ways = {way.advice: way.block for way in variants(planned(strips))}
    as_one = "Cut pieces of the same fabric that lie side by side as one: 2 seams fewer"
    plan = planned(ways[as_one])
    assert len(plan.draft.patches) == 2
    assert {patch.fabric for patch in plan.draft.patches} == {"a", "b"}
    square = {way.advice for way in variants(planned(block_of("0 0 1 1", 1, 1, (6, 6), "a")))}
    assert "Cut pieces of the same fabric that lie side by side as one: a seam fewer" in square
    ell = block_of("1 0 1 2 / 0 1 1 1", 2, 2, (6, 6), "aab")
    assert not any("as one" in way.advice for way in variants(planned(ell)))


def test_trims_have_their_own_share():
    by_edge = {"half-square-triangle": "two-at-a-time"}
    block = replace(tray_block(TRAY["Half-square triangle"]), methods=by_edge)
    watched = Watched(block_model(planned(block, style="trim")))
    hand = SewingHand(trim=0.0, trim_spread=0.01)
    assert [part.work for part in shares(watched, hand)] == ["trimming unit A"]


@pytest.mark.parametrize("setting", ["straight", "on-point"])
def test_seams_between_rows_lie_between_their_blocks(setting):
    """Each lies as far from the middles of the blocks of its row as from those of the next."""
    block = block_of("1 0 1 1", 2, 1, (6, 6), "ab")
    border = Border(width=F(2), fabric="c")
    quilt = Quilt(block="test", columns=3, rows=3, setting=setting, borders=(border,))
    plan = plan_quilt(replace(project_of(block), quilt=quilt))
    pairs = {row.label: (row, beside) for row, beside in pairwise(plan.top.rows)}
    seams = {label: (begin, end) for label, begin, end in seams_between_rows(plan)}
    assert seams
    for label, (begin, end) in seams.items():
        way = np.subtract(end, begin)
        normal = np.array([-way[1], way[0]]) / np.hypot(*way)
        far = []
        for row in pairs[label]:
            blocks = [p for p in row.pieces if p.kind == "block"]
            if blocks:
                middle = blocks[0].lying.middle.floats()
                far.append(np.subtract(middle, begin) @ normal)
        assert all(abs(x) == pytest.approx(3) for x in far)
        if len(far) == 2:
            assert far[0] == pytest.approx(-far[1])
        number = sum(p.kind == "block" for p in pairs[label][0].pieces)
        assert np.hypot(*way) == pytest.approx(6 * number)


def test_a_simulated_evening_ends_when_the_sitting_does():
    """No job begins after an hour; each evening begins at seven, a day later."""
    plan = planned(tray_block(TRAY["Nine-patch"]), 60)
    _ = plan.fabric_plans.best
    log = simulated(plan, plan.project, BEGINNER, 3, "2026-12-30").project.log
    days = {}
    for entry in log:
        days.setdefault(entry.at[:10], []).append(entry)
    assert list(days)[:3] == ["2026-12-30", "2026-12-31", "2027-01-01"]
    for day, entries in days.items():
        begins = datetime.fromisoformat(f"{day}T19:00")
        for entry in entries:
            if entry.minutes:
                ended = datetime.fromisoformat(entry.at)
                began = (ended - begins).total_seconds() / 60 - entry.minutes
                assert -1 <= began < 60
