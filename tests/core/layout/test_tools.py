"""Rulers, mat and blade: how a cut is made, which lines tell it, in which lengths fabric comes."""

from __future__ import annotations

from itertools import pairwise, product
from math import ceil

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.layout.cut_lines import CuttingLine, cut_lines, line_at, next_cut
from inlet.core.layout.laid_places import length_used
from inlet.core.layout.lengths import in_lengths, least_bought, taken_off
from inlet.core.layout.stroke_words import line_text
from inlet.core.layout.strokes import strokes_of
from inlet.core.layout.tools import (
    FOLD_SECONDS,
    SECONDS,
    SHIFT_SECONDS,
    SetUp,
    Tools,
    best_set_ups,
    fewest_changes,
    limits_of_width,
    tools_of,
)
from inlet.core.layout.tools_typed import handled_typed, mat_typed, rulers_typed, tools_shown
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES, INCHES
from inlet.core.numbers.text import NumberError
from inlet.core.project.cutting import (
    Cutting,
    LaidFabric,
    LaidPieces,
    LaidRow,
    LaidSegment,
    LaidStrip,
)
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.project import Project
from tests.sample import many

sides = st.integers(2, 60).map(lambda n: F(n, 2))
pairs = st.tuples(sides, sides).map(lambda pair: (min(pair), max(pair)))
some_tools = st.builds(
    Tools, st.lists(pairs, min_size=1, max_size=3).map(tuple), pairs, st.integers(1, 8)
)
USUAL = tools_of(Project())


def quickest(size, length, layers, tools: Tools) -> int:
    """The least seconds by trying every ruler either way, alone and beside every other."""
    best = []
    for folds in range(4):
        if folds and layers * 2**folds > tools.blade:
            continue
        for i, j in product(range(len(tools.rulers)), repeat=2):
            for across, along in (tools.rulers[i], tools.rulers[i][::-1]):
                reach = min(along, max(tools.mat))
                moved = ceil(length / 2**folds / reach) - 1
                if moved > 0 and along < max(tools.rulers[i]):
                    continue
                by = "tape"
                if size <= across:
                    by = "ruler"
                elif i != j and size <= across + max(tools.rulers[j]):
                    by = "rulers"
                elif size <= min(tools.mat) or (
                    size <= max(tools.mat) and length / 2**folds <= min(tools.mat)
                ):
                    by = "mat"
                best.append(SECONDS[by] + FOLD_SECONDS * folds + SHIFT_SECONDS * max(0, moved))
    return min(best)


@given(sides, sides.map(lambda n: 3 * n), st.sampled_from([1, 2, 4]), some_tools)
@settings(max_examples=many(60, 300), deadline=None)
def test_a_cut_is_made_the_quickest_way_there_is(size, length, layers, tools):
    ways = best_set_ups(size, length, layers, tools)
    assert {way.seconds for way in ways} == {quickest(size, length, layers, tools)}


@given(sides.map(lambda n: 2 * n), st.sampled_from([1, 2]), some_tools)
@settings(max_examples=many(40, 200), deadline=None)
def test_limits_of_width_are_where_measuring_gets_slower(length, layers, tools):
    """Between two limits, and up to one, a strip takes as long; the told seconds are the steps."""
    limits = limits_of_width(length, layers, tools)
    seconds = quickest(F(0), length, layers, tools)
    for limit, more in limits:
        assert quickest(limit, length, layers, tools) == seconds
        seconds += more
        assert quickest(limit + F(1, 100), length, layers, tools) == seconds
    assert quickest(F(1000), length, layers, tools) == seconds


def test_usual_cuts_are_made_as_people_make_them():
    """A strip of 5 in off folded fabric: one ruler; of 9 in: the square beside it; of 30 in: the
    mat; a border of 80 in along the selvage, folded to 20 in where the blade goes through."""
    ruler, square = 0, 1
    assert best_set_ups(F(5), F(21), 2, USUAL) == (SetUp("ruler", ruler),)
    assert best_set_ups(F(9), F(21), 2, USUAL) == (SetUp("rulers", ruler, square),)
    assert best_set_ups(F(9), F(9), 4, USUAL) == (SetUp("ruler", square),)
    assert best_set_ups(F(30), F(21), 2, USUAL) == (SetUp("mat", ruler),)
    assert best_set_ups(F(83), F(21), 2, USUAL) == (SetUp("tape", ruler),)
    assert best_set_ups(F(5), F(80), 1, USUAL) == (SetUp("ruler", ruler, None, 2),)
    (moved,) = best_set_ups(F(5), F(80), 4, USUAL)
    assert (moved.folds, moved.shifts) == (0, 3)


@given(st.lists(st.sets(st.integers(0, 2), min_size=1), max_size=7))
@settings(max_examples=many(60, 200), deadline=None)
def test_the_ruler_is_changed_as_seldom_as_can_be(rulers):
    ways = [[SetUp("ruler", ruler) for ruler in sorted(each)] for each in rulers]
    chosen = [way.ruler for way in fewest_changes(ways)]
    changes = [sum(a != b for a, b in pairwise(c)) for c in product(*rulers)]
    assert len(chosen) == len(rulers)
    assert all(ruler in each for ruler, each in zip(chosen, rulers, strict=True))
    assert sum(a != b for a, b in pairwise(chosen)) == min(changes)


def strip(width, number, size=None, pieces=4) -> LaidStrip:
    own = LaidPieces(label="A", size=(size or width, width))
    rows = (LaidRow(width=width, pieces=(own,)),)
    segment = LaidSegment(width=size or width, rows=rows, count=pieces)
    return LaidStrip(width=width, segments=(segment,), count=number)


def fabric(*strips: LaidStrip, every=4, layers=2) -> LaidFabric:
    return LaidFabric(kind="new", width=F(42), length=F(2000), layers=layers, squaring=F(1, 2),
                      every=every, strips=strips)  # fmt: skip


def lines_of_strips(*strips: LaidStrip, **about) -> tuple[CuttingLine, ...]:
    return cut_lines(strokes_of(fabric(*strips, **about), USUAL), USUAL)


def test_forty_three_strips_are_one_line():
    lines = lines_of_strips(strip(F(5, 2), 43, F(5, 2), 8))
    said = [line_text(line, USUAL, INCH) for line in lines]
    assert said[1] == (
        "Cut 43 strips 2 1/2 in: two and a half, squaring the edge again after every 4, with the "
        "6 x 24 in ruler (2 layers)."
    )
    assert lines[1].number == 43
    assert said[2].startswith("Of each of 21 stacks: Trim off the selvages, 1/2 in at most, two")
    assert "Cut across the strip 4 times at 2 1/2 in" in said[2]
    assert dict(lines[2].finishes) == {"A": 21 * 4 * 4}
    assert len(lines) == 5  # and the last strip, which lies alone


rows_of_strips = st.lists(
    st.tuples(st.integers(8, 60).map(lambda n: F(n, 8)), st.integers(1, 9), st.integers(1, 2)),
    min_size=1, max_size=4,
)  # fmt: skip


@given(rows_of_strips, st.integers(0, 4), st.sampled_from([1, 2]))
@settings(max_examples=many(40, 150), deadline=None)
def test_lines_tell_every_cut_once_and_in_order(wanted, every, layers):
    """Unrolled, the lines are the cuts: same sizes, same order, and each card its own cut."""
    strips = [strip(width, n, width, 2 * p) for width, n, p in sorted(wanted, key=lambda w: -w[0])]
    strokes = strokes_of(fabric(*strips, every=every, layers=layers), USUAL)
    lines = cut_lines(strokes, USUAL)
    assert [line.first for line in lines] == [0, *(line.last for line in lines[:-1])]
    assert lines[-1].last == len(strokes)
    told = []
    for line in lines:
        parts = [part for part in line.parts for _ in range(part.number)] * line.rounds
        assert len(parts) == line.number
        told += [(part.stroke.what, part.stroke.size) for part in parts]
        squared = sum(part.squared for part in line.parts)
        assert not squared or strokes[line.last - 1].what == "strip"  # it lies in between
        assert line.last - line.first == line.number + squared
    again = [i for line in lines for part in line.parts if part.squared
             for i in range(line.first, line.last) if strokes[i].what == "square"]  # fmt: skip
    assert told == [(s.what, s.size) for i, s in enumerate(strokes) if i not in again]
    for at, stroke in enumerate(strokes):
        line = lines[line_at(lines, at)]
        part = next_cut(line, strokes, at, USUAL)
        assert part.stroke is stroke
        assert part.set_up in stroke.set_ups(USUAL)


@given(rows_of_strips, st.integers(0, 4), st.integers(10, 50), st.integers(1, 2))
@settings(max_examples=many(60, 200), deadline=None)
def test_lengths_hold_the_same_strips_in_their_order(wanted, every, handled, stacked):
    """None is longer than a quarter over what is handled, unless it is one strip; strips that need
    no more squaring apart are not squared more."""
    strips = [strip(width, n) for width, n, _ in sorted(wanted, key=lambda w: -w[0])]
    whole = fabric(*strips, every=every)
    lengths = in_lengths(whole, F(handled), stacked)

    def widths(laid):
        return [each.width for each in laid.strips for _ in range(each.count)]

    assert [w for laid in lengths for w in widths(laid)] == widths(whole)
    for laid in lengths:
        assert length_used(laid) <= handled * F(5, 4) or len(widths(laid)) == 1
    most = len(lengths) - 1
    assert 0 <= sum(map(length_used, lengths)) - length_used(whole) <= most * F(1, 2)
    bought = least_bought(lengths) + 3
    taken = list(taken_off(lengths, bought, F(1, 2)))
    assert sum(laid.length for laid in taken) == bought
    assert all(laid.length >= length_used(laid) + F(1, 2) for laid in taken)


def test_rulers_and_mats_are_typed():
    assert rulers_typed("6 x 24, 12 1/2", INCHES) == ((F(6), F(24)), (F(25, 2), F(25, 2)))
    assert rulers_typed(" ", INCHES) == ()
    assert mat_typed("24×36", INCHES) == (F(24), F(36))
    assert mat_typed("", INCHES) is None
    assert handled_typed("30", INCHES) == 30
    assert tools_shown(USUAL.rulers, INCHES) == "6 x 24, 12 1/2"
    for typed, text in (
        (rulers_typed, "6 x 24 x 3"), (rulers_typed, "0 x 24"), (mat_typed, "wide"),
        (rulers_typed, ", ".join(["6 x 24"] * 13)), (handled_typed, "1"),
    ):  # fmt: skip
        with pytest.raises(NumberError):
            typed(text, INCHES)
    cm = tools_of(Project(measure=METRIC))
    assert cm.rulers == CENTIMETRES.tools.rulers
    own = Project(cutting=Cutting(rulers=((F(24), F(6)),), mat=(F(36), F(24)), blade=6))
    assert tools_of(own) == Tools(((F(6), F(24)),), (F(24), F(36)), 6)
