"""Strips filled kind by kind: what is counted while they are filled is what lies in them."""

from __future__ import annotations

from collections import Counter
from itertools import permutations

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from inlet.core.layout.filling import fill_in_turn, filled
from inlet.core.layout.patterns import Kind, Pattern, PatternSegment, Price, Room

ACROSS = 120
SIDES = st.integers(5, 40) | st.integers(5, ACROSS)
NUMBERS = st.integers(1, 6) | st.integers(1, 60)
PRICE, ROOM = Price(1.0, 0.0, 2.0, 3.0, ((40, 1.5),)), Room(ACROSS, 1000)
KINDS = st.lists(st.builds(Kind, SIDES, SIDES, NUMBERS, st.booleans()), min_size=1)


@given(KINDS, st.sampled_from([30, 1000]))
@example([Kind(20, 75, 1, False), Kind(40, 20, 6, False), Kind(20, 15, 3, False)], 1000)
def test_strips_being_filled_know_their_cuts_and_their_room(kinds, reach):
    ways = [kind.ways() for kind in kinds]
    strips = filled(kinds, ways, range(len(kinds)), Room(ACROSS, reach))
    held: Counter[int] = Counter()
    for strip in strips:
        segments = [PatternSegment(b.wide, pattern_rows(b, strip), b.number) for b in strip.blocks]
        one_by_one = [Pattern(strip.high, (segment,)).strokes - 1 for segment in segments]
        assert strip.strokes == 1 + sum(one_by_one)
        assert strip.free_below >= max(block.free for block in strip.blocks) >= 0
        assert strip.free == ACROSS - sum(s.wide * s.number for s in segments) >= 0
        for which, number in strip.pattern().counts().items():
            held[which] += number * strip.number
    assert held == {i: kind.number for i, kind in enumerate(kinds)}


def pattern_rows(block, strip):
    """The rows of one block, as a strip of this block alone gives them."""
    alone = type(strip)(strip.high, 0, 1, [block], 0)
    return alone.pattern().segments[0].rows


def cost(chosen):
    widths = {pattern.high for pattern, _ in chosen}
    return PRICE.width * len(widths) + sum(PRICE.of(p) * number for p, number in chosen)


@given(KINDS)
def test_the_order_chosen_costs_no_more_than_the_first(kinds):
    first, best = (cost(fill_in_turn(kinds, ROOM, PRICE, tries)) for tries in (0, 100))
    assert best <= first


@given(SIDES, SIDES, NUMBERS)
def test_pieces_of_one_size_lie_the_better_of_two_ways(wide, high, number):
    either = fill_in_turn([Kind(wide, high, number)], ROOM, PRICE)
    ways = [fill_in_turn([Kind(*size, number, False)], ROOM, PRICE)
            for size in [(wide, high), (high, wide)]]  # fmt: skip
    assert cost(either) <= min(map(cost, ways))


@given(st.lists(st.builds(Kind, SIDES, SIDES, NUMBERS, st.just(False)), min_size=3, max_size=3))
@settings(max_examples=300)
def test_of_three_kinds_that_lie_one_way_the_best_order_is_chosen(kinds):
    """Beside all six orders."""
    chosen = cost(fill_in_turn(kinds, ROOM, PRICE))
    ways = [kind.ways() for kind in kinds]
    costs = []
    for order in permutations(range(3)):
        strips = filled(kinds, ways, order, ROOM)
        costs.append(cost([(strip.pattern(), strip.number) for strip in strips]))
    assert chosen == pytest.approx(min(costs))
