"""The least of a sum of tables, against every assignment tried and another solver."""

from __future__ import annotations

import random
from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.minimum import reducing, solving
from inlet.core.minimum.bounding import Bound
from inlet.core.minimum.ordering import HUBS, Ordered, good_orders
from inlet.core.minimum.reducing import reduced
from inlet.core.minimum.regions import Regions
from inlet.core.minimum.searching import search
from inlet.core.minimum.solving import least_of
from inlet.core.minimum.table_sum import IMPOSSIBLE, summed
from tests.core.minimum.by_milp import by_milp
from tests.sample import many


def random_sum(seed, most=9):
    """A few variables of one to three values, tables over up to four of them, some rows of which
    must not be, some with a hub that most tables share."""
    chance = random.Random(seed)
    number = chance.randint(1, most)
    sizes = [chance.choice((1, 2, 3, 3, 3)) for _ in range(number)]
    hub = chance.randrange(number) if chance.random() < 0.5 else None
    tables = []
    for _ in range(chance.randint(0, 3 * number)):
        scope = chance.sample(range(number), min(number, chance.randint(1, 4)))
        if hub is not None and hub not in scope and chance.random() < 0.7:
            scope[0] = hub
        costs = np.array([chance.choice((0, 0, 1, 3, 8, 20, 21)) for _ in range(200)])
        costs = np.resize(costs, [sizes[v] for v in scope]).astype(np.int64)
        impossible = np.array([chance.random() < 0.1 for _ in range(costs.size)])
        costs[impossible.reshape(costs.shape)] = IMPOSSIBLE
        tables.append((scope, costs))
    whole = summed(sizes, tables)
    return whole._replace(constant=chance.randint(0, 5))


def every_cost(whole):
    return {v: whole.cost(v) for v in product(*map(range, whole.sizes))}


def test_no_assignment_costs_less_than_the_least():
    for seed in range(many(150, 1000)):
        whole = random_sum(seed)
        known = [0] * len(whole.sizes)
        found = least_of(whole, known, 10**6)
        assert whole.cost(found.values) == found.cost, seed
        best = min(every_cost(whole).values())
        assert found.cost == best, seed
        assert found.at_least == best, seed


@given(st.integers(0, 10**6))
@settings(max_examples=60, deadline=None)
def test_a_sum_reduced_keeps_its_least_and_can_be_read_back(seed):
    whole = random_sum(seed)
    less = reduced(whole)
    rest = every_cost(less.rest)
    best, cost = min(rest.items(), key=lambda each: each[1])
    assert cost == min(every_cost(whole).values())
    if cost < IMPOSSIBLE:
        assert whole.cost(less.read_back(best)) == cost


@given(st.integers(0, 10**6), st.sampled_from([1, 9, 81]), st.integers(0, 2))
@settings(max_examples=60, deadline=None)
def test_a_bound_with_its_clusters_is_below_every_end_of_a_beginning(seed, most_rows, sweeps):
    """The clusters of a whole assignment add up with the bound to its cost; those of a beginning to
    no more than the best of its ends."""
    whole = random_sum(seed)
    for order in good_orders(whole, 1):
        ordered = Ordered(whole, order)
        bound = Bound(ordered.sum, most_rows, sweeps)
        costs = every_cost(ordered.sum)
        for values, cost in list(costs.items())[:: max(1, len(costs) // 40)]:
            told = bound.least
            for v in range(len(values)):
                told += sum(
                    int(c.costs[tuple(values[u] for u in c.scope)]) for c in bound.buckets[v]
                )
                ends = (c for other, c in costs.items() if other[: v + 1] == values[: v + 1])
                if v < 3:
                    assert min(told, IMPOSSIBLE) <= min(ends)
            assert min(told, IMPOSSIBLE) == cost
        for v in range(len(order)):
            for value, least in enumerate(bound.least_with(v)):
                assert least <= min(c for o, c in costs.items() if o[v] == value)


@given(st.integers(0, 10**6), st.sampled_from([1, 3, 20, 10_000]))
@settings(max_examples=60, deadline=None)
def test_a_search_finds_what_it_says_and_proves_no_more_than_is_true(seed, states):
    whole = random_sum(seed)
    for order in good_orders(whole, 3, HUBS[:4]):
        ordered = Ordered(whole, order)
        best = min(every_cost(whole).values())
        found = search(Bound(ordered.sum, 27, 1), ordered.last_beside, best + 7, states)
        assert found.at_least <= best or best >= IMPOSSIBLE
        if found.values is not None:
            assert whole.cost(ordered.read_back(found.values)) == found.cost >= best
        if states == 10_000 and best < IMPOSSIBLE:
            assert found.cost == found.at_least == best


def grid_sum(wide, high, seed):
    """A grid of variables, each with tables with those beside it, some with far ones."""
    chance = random.Random(seed)
    number = wide * high
    pairs = [(v, v + 1) for v in range(number) if (v + 1) % wide]
    pairs += [(v, v + wide) for v in range(number - wide)]
    pairs += [(0, v) for v in range(2, number, 5)]
    tables = [
        (pair, np.array([[chance.randint(0, 50) for _ in range(3)] for _ in range(3)]))
        for pair in pairs
    ]
    return summed([3] * number, tables)


@pytest.mark.parametrize(("wide", "high"), [(4, 6), (6, 6), (7, 7)])
def test_grids_come_to_what_another_solver_says(wide, high):
    for seed in range(many(2, 8)):
        whole = grid_sum(wide, high, seed)
        found = least_of(whole, [0] * (wide * high), 3 * 10**7)
        assert found.cost == found.at_least == by_milp(whole)


@pytest.mark.parametrize("seed", range(6))
def test_values_that_are_ruled_out_are_in_no_better_assignment(seed, monkeypatch):
    """With clusters and lists so small that nothing is proved at once, values ruled out wherever
    they can be: a grid of nine, every assignment tried."""
    monkeypatch.setattr(solving, "TRIED", (3, 1))
    monkeypatch.setattr(solving, "ROUNDS", ((9, 1), (9, 2), (27, 4), (27, 8), (81, 1000)))
    monkeypatch.setattr(solving, "RULED_OUT", 0)
    monkeypatch.setattr(solving, "LARGE", 1)
    monkeypatch.setattr(reducing, "FEW_ROWS", 1)
    whole = grid_sum(3, 3, seed)
    found = least_of(whole, [0] * 9, 10**7)
    assert found.cost == found.at_least == min(every_cost(whole).values())


def test_regions_make_an_assignment_better_and_never_worse():
    whole = grid_sum(12, 12, 1)
    regions = Regions(whole)
    values, before = [0] * 144, whole.cost([0] * 144)
    for _ in range(3):
        values = regions.improve(values, 300_000)
        assert whole.cost(values) <= before
        before = whole.cost(values)
    assert before < 1.1 * least_of(whole, values, 10**7).cost
    small = least_of(whole, [0] * 144, 10**5)  # little work: a gap, and the same again
    assert small == least_of(whole, [0] * 144, 10**5)
    assert small.at_least <= small.cost == whole.cost(small.values)
