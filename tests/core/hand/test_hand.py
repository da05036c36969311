"""The hand learnt from measurements of hidden hands; what seams take, against polygons moved."""

from __future__ import annotations

from itertools import pairwise
from math import hypot, sqrt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from inlet.core.bench.made import made_things
from inlet.core.draft.patches import draft
from inlet.core.hand.crossings import _along, _Shape, crossings
from inlet.core.hand.estimate import HandMeasure, learnt
from inlet.core.hand.measures import hand_measures
from inlet.core.hand.words import hand_lines
from inlet.core.numbers import CENTIMETRES
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project import measured_in
from inlet.core.project.log import LogEntry
from inlet.core.project.measure import SeamTest
from inlet.core.project.value import replace
from inlet.core.units.breakdown import break_down
from tests.blocks import block_of, project_of
from tests.sample import sampled

MARK = 1 / 16


def sides(drawn: str, columns: int, rows: int, size=(9, 9)):
    block = draft(block_of(drawn, columns, rows, size, "abcd"))
    return crossings(block, break_down(block))


def test_seams_take_what_the_formulas_of_the_craft_say():
    """Two strips' seams 4; a half-square triangle √2, an hourglass 2√2 (f + 2s + 2s√2 is cut)."""
    across, down = sides("1 0 1 3 / 2 0 2 3", 3, 3)
    assert across.takes == {"straight": 4.0}
    assert (across.squares, across.pieces) == (8.0, 3)
    assert down.takes == {}
    assert down.pieces == 1
    for side in sides("0 0 1 1", 1, 1):
        assert side.takes == {"bias": pytest.approx(sqrt(2))}
    for side in sides("0 0 1 1 / 1 0 0 1", 1, 1):
        assert side.takes == {"bias": pytest.approx(2 * sqrt(2))}
    across, down = sides("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3)
    assert across.takes == down.takes == {"straight": 4.0}


@given(st.lists(st.floats(-0.6, 0.6), min_size=1, max_size=4))
def test_a_leaning_seam_takes_what_its_pieces_move(leans):
    """Strips with leaning seams between: each piece moves by 2s square to its seam; how far the
    right side of the last comes nearer is what all take."""
    n = len(leans) + 1
    width = 4.0
    lines = []
    for i, lean in enumerate(leans, 1):
        lines.append((i * width - lean, i * width + lean))
    xs = [(0.0, 0.0), *lines, (n * width, n * width)]
    shapes = [
        _Shape([(a0, 0.0), (b0, 0.0), (b1, 3.0), (a1, 3.0)], False, None)
        for (a0, a1), (b0, b1) in pairwise(xs)
    ]
    s = 0.25
    moved = sum(2 * s * 3.0 / hypot(3.0, 2 * lean) for lean in leans)
    assert _along(shapes).all * s == pytest.approx(moved)


class HiddenHand:
    """A maker whose seam and spread are hidden: sews units of so many seams, measures to a mark,
    slips now and then."""

    def __init__(self, seed: int, slips: float = 0.05) -> None:
        self.chance = np.random.default_rng(seed)
        self.more = self.chance.uniform(-0.03, 0.03)
        self.spread = self.chance.uniform(0.008, 0.02)
        self.slips = slips

    def measured(self, number: int) -> list[HandMeasure]:
        found = []
        for _ in range(number):
            seams = int(self.chance.integers(1, 5))
            took = 2 * (self.more + self.chance.normal(0, self.spread, seams)).sum()
            cut = self.chance.normal(0, 1 / 96, seams + 1).sum()
            off = cut - took
            if self.chance.random() < self.slips:
                off += self.chance.choice([-1, 1]) * self.chance.uniform(0.2, 0.4)
            off = round(off / MARK) * MARK
            found.append(HandMeasure(off, {"straight": 2.0 * seams}, 4.0 * seams, seams + 1))
        return found


@pytest.mark.parametrize("seed", sampled(range(40), 12))
def test_a_hidden_seam_is_found_within_five_thousandths(seed):
    hand = HiddenHand(seed)
    estimate = learnt(hand.measured(40), MARK)
    assert abs(estimate.together.more - hand.more) < 0.005 + estimate.together.within / 2


def test_seam_and_spread_of_many_hands_and_how_often_the_interval_is_right():
    """Nine in ten times the truth lies in the interval; seam and spread are right in the middle of
    all hands, the seam within five thousandths, the spread within a fifth."""
    hits, off, spreads = 0, [], []
    for seed in range(500):
        hand = HiddenHand(seed)
        estimate = learnt(hand.measured(40), MARK)
        error = estimate.together.more - hand.more
        hits += abs(error) <= estimate.together.within
        off.append(abs(error))
        spreads.append(estimate.spread / hand.spread)
    assert 425 <= hits <= 475
    assert np.quantile(off, 0.95) < 0.005
    assert abs(np.median(spreads) - 1) < 0.1
    assert np.mean(np.abs(np.array(spreads) - 1) < 0.2) > 0.6


def test_slips_are_told_and_not_counted():
    hand = HiddenHand(3, slips=0.0)
    clean = hand.measured(30)
    slipped = [*clean, clean[0]._replace(off=0.375, of="Make A"), clean[1]._replace(off=-0.5)]
    estimate = learnt(slipped, MARK)
    assert set(estimate.slips) >= {30, 31}
    assert abs(estimate.together.more - learnt(clean, MARK).together.more) < 0.002


def test_types_are_told_apart_only_where_they_come_apart():
    hand = np.random.default_rng(1)
    mixed = []
    for _ in range(60):
        straight, bias = int(hand.integers(0, 3)), int(hand.integers(0, 3))
        if straight + bias:
            off = -2 * straight * 0.01 - sqrt(2) * bias * 0.03 + hand.normal(0, 0.01)
            takes = {"straight": 2.0 * straight, "bias": sqrt(2) * bias}
            squares = 4.0 * straight + 2 * bias
            mixed.append(HandMeasure(off, takes, squares, straight + 1))
    estimate = learnt(mixed, MARK)
    assert estimate.apart == ()
    assert estimate.seams["straight"].more == pytest.approx(0.01, abs=0.004)
    assert estimate.seams["bias"].more == pytest.approx(0.03, abs=0.006)
    together = [m._replace(takes={"straight": 2.0, "bias": sqrt(2)}, squares=6.0) for m in mixed]
    estimate = learnt(together, MARK)
    assert set(estimate.apart) == {"straight", "bias"}
    assert estimate.seams == {}


def test_a_wide_cut_is_told_from_a_narrow_seam_by_sides_without_seams():
    wide = 0.02
    plain = [HandMeasure(wide, {}, 0.0, 1)] * 4
    sewn = [HandMeasure((n + 1) * wide - 2 * n * 0.01, {"straight": 2.0 * n}, 4.0 * n, n + 1)
            for n in (1, 2, 3, 1, 2, 3)]  # fmt: skip
    estimate = learnt([*sewn, *plain], MARK)
    assert estimate.cut == pytest.approx(wide)
    assert estimate.together.more == pytest.approx(0.01, abs=1e-6)


@pytest.mark.parametrize("few", [[], [HandMeasure(0.0, {"straight": 2.0}, 4.0, 2)] * 3,
                                 [HandMeasure(0.1, {}, 0.0, 1)] * 9])  # fmt: skip
def test_too_little_says_so(few):
    assert learnt(few, MARK) is None
    lines = list(hand_lines(None, few, project_of(block_of("0 0 1 1", 1, 1))))
    assert "of 4 measurements" in lines[0]


def test_all_alike_is_no_spread_at_all():
    alike = [HandMeasure(-0.0625, {"straight": 2.0}, 4.0, 2)] * 8
    estimate = learnt(alike, MARK)
    assert estimate.together.more == pytest.approx(1 / 32)
    assert estimate.spread < 0.01


# --- from the log ---------------------------------------------------------------------------------

STRIPS = "1 0 1 3 / 2 0 2 3"


def logged(*sizes: tuple[F, F], seam_test: SeamTest | None = None):
    """A block of three strips, measured so."""
    block = block_of(STRIPS, 3, 3, (F(9), F(9)), "abc")
    project = replace(project_of(block), seam_test=seam_test)
    plan = plan_block(project, block)
    thing = next(m.thing for m in made_things(plan))
    log = tuple(
        LogEntry(what=thing.name, did="measured", size=size, drawn=thing.drawn, number=2)
        for size in sizes
    )
    return plan, replace(project, log=log)


def test_what_is_in_the_log_is_learnt_and_told():
    """Three strips that come out an eighth narrow, two seams: each seam takes 1/32 in more a
    side."""
    narrow = F(19, 2) - F(1, 8)
    plan, project = logged(*[(narrow, F(19, 2))] * 4)
    measures = hand_measures(plan, project)
    assert len(measures) == 16
    assert {m.squares for m in measures} == {8.0, 0.0}
    estimate = learnt(measures, float(project.measure.mark))
    assert estimate.together.more == pytest.approx(1 / 32)
    lines = " ".join(hand_lines(estimate, measures, project))
    assert "Your seam takes 0.281 in" in lines
    assert "Move the guide ¹⁄₃₂ in toward the needle" in lines
    plan, project = logged(*[(narrow, F(19, 2))] * 4, seam_test=SeamTest(
        strip=F(3, 2), middle=F(15, 16)))  # fmt: skip
    lines = " ".join(hand_lines(estimate, measures, project))
    assert "The seam allowance test says the same" in lines


@pytest.mark.parametrize(
    ("off", "words"),
    [
        (F(36, 100), "Move the guide 0.10 cm toward the needle"),  # 9/100 cm, to half a millimetre
        (F(-2, 10), "Move the guide 0.05 cm away from the needle"),
        (F(6), "off by more than whole seams"),
        (F(-25), "these units, and in cm"),
    ],
)
def test_in_centimetres_and_far_off(off, words):
    block = block_of(STRIPS, 3, 3, (F(24), F(24)), "abc")
    metric = measured_in(project_of(block), CENTIMETRES)
    block = replace(metric.blocks[0], finished=(F(24), F(24)))
    metric = metric.with_block(block)
    plan = plan_block(metric, block)
    made = next(iter(made_things(plan)))
    size = made.planned[0] - off, made.planned[1]
    entry = LogEntry(
        what=made.thing.name, did="measured", size=size, drawn=made.thing.drawn, number=8
    )
    metric = replace(metric, log=(entry,))
    measures = hand_measures(plan, metric)
    estimate = learnt(measures, float(metric.measure.mark / metric.measure.system.per_inch))
    assert words in " ".join(hand_lines(estimate, measures, metric))


def test_what_was_trimmed_takes_nothing_of_the_block_it_is_sewn_into():
    """Four half-square triangles, each trimmed by the ruler: across the block lies one seam of two
    pieces. Cut exactly, their own seams count, too."""
    drawn = "1 0 1 2 / 0 1 2 1 / 0 0 1 1 / 1 0 2 1 / 0 1 1 2 / 1 1 2 2"
    block = block_of(drawn, 2, 2, (F(6), F(6)), "abababab")
    for style, takes in (("trim", 2.0), ("exact", 2.0 + 2 * sqrt(2))):
        project = project_of(block)
        project = replace(project, measure=replace(project.measure, style=style))
        plan = plan_block(project, block)
        whole = list(made_things(plan))[-1]
        entry = LogEntry(what=whole.thing.name, did="measured", size=whole.planned,
                         drawn=whole.thing.drawn, number=1)  # fmt: skip
        (measured,) = hand_measures(plan, replace(project, log=(entry,)))
        assert sum(measured.takes.values()) == pytest.approx(takes)
        assert measured.pieces == (2 if style == "trim" else 4)


def test_what_is_of_another_plan_is_left_out():
    plan, project = logged((F(9), F(9)))
    other = LogEntry(what="Make X", did="measured", size=(F(3), F(3)), drawn="another", number=1)
    assert hand_measures(plan, replace(project, log=(other,))) == []


def test_a_seam_is_long_from_ten_inches_on_whatever_it_is_made_of():
    """A seam of 12 in between two rows of three is one long seam, in centimetres, too."""
    rows = "0 1 3 1 / 1 0 1 2 / 2 0 2 2"
    across, down = sides(rows, 3, 2, (12, 8))
    assert (across.takes, down.takes) == ({"straight": 4.0}, {"long": 2.0})
    block = draft(block_of(rows, 3, 2, (24, 16), "abcd"))
    _, down = crossings(block, break_down(block), long=10 * 2.54)
    assert down.takes == {"straight": 2.0}
