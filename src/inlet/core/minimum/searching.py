"""Search for the least of a sum of tables along its order, over states.

A state is how the open variables go, and the least bound of a beginning that leaves them so: of
beginnings that agree in what is open only the best matters. What cannot beat the best known is
dropped; where the list gets too long, the worst are dropped as well, and the least bound among
those is all that is proved.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.cancellation import check
from inlet.core.minimum.bounding import Bound
from inlet.core.minimum.table_sum import STEP, Costs, Scope

Numbers = NDArray[np.int64]


class Search(NamedTuple):
    """What a search came to: the best assignment with its cost, if it is better than what was
    known, and the least that is proved."""

    values: tuple[int, ...] | None
    cost: int
    at_least: int
    worked: int


def search(bound: Bound, last_beside: Sequence[int], best: int, most: int) -> Search:
    """Seek an assignment that costs less than ``best``, with at most so many states at a time.
    ``last_beside`` is by variable the last one it shares a table with."""
    opened = _Opened(bound.sizes, last_beside)
    states = np.zeros((opened.words, 1), np.int64)
    costs: Costs = np.array([bound.least], np.int64)
    parents: list[tuple[NDArray[np.int32], NDArray[np.int8]]] = []
    dropped, worked = best, 0
    for v, size in enumerate(bound.sizes):
        check()
        number = len(costs)
        worked += (number * size + STEP) * (1 + len(bound.buckets[v]))
        grown = np.repeat(costs[None, :], size, axis=0)
        for cluster in bound.buckets[v]:
            grown += _looked_up(cluster.costs, cluster.scope[:-1], states, opened)
        good = np.flatnonzero(grown.ravel() < best)
        if not len(good):
            return Search(None, best, dropped, worked)
        value, parent = np.divmod(good, number)
        costs, states = grown.ravel()[good], states[:, parent]
        if opened.decided(v, value, states):
            first = _best_of_equal(states, costs)
        else:
            first = np.arange(len(costs))
        if len(first) > most:
            order = np.argsort(costs[first], kind="stable")
            dropped = min(dropped, int(costs[first[order[most]]]))
            first = np.sort(first[order[:most]])
        costs, states = costs[first], states[:, first]
        parents.append((parent[first].astype(np.int32), value[first].astype(np.int8)))
    at = int(np.argmin(costs))
    cost = int(costs[at])
    values = []
    for parents_then, values_then in reversed(parents):
        values.append(int(values_then[at]))
        at = int(parents_then[at])
    return Search(tuple(reversed(values)), cost, min(cost, dropped), worked)


class _Opened:
    """Where the values of open variables stand in states, packed into words of 62 bits."""

    def __init__(self, sizes: Sequence[int], last_beside: Sequence[int]) -> None:
        self.last_beside = last_beside
        self.bits = max(1, max(size - 1 for size in sizes).bit_length())
        self.mask = (1 << self.bits) - 1
        closes: list[list[int]] = [[] for _ in sizes]
        for v, last in enumerate(last_beside):
            closes[last].append(v)
        self.closes = closes
        self.place: dict[int, tuple[int, int]] = {}  # the word of a variable, and its first bit
        self.free: list[tuple[int, int]] = []
        widest = opened = 0
        for v in range(len(sizes)):
            opened += 1
            widest = max(widest, opened)
            opened -= len(closes[v])
        in_a_word = 62 // self.bits
        self.words = -(-widest // in_a_word)
        self.free = [
            (word, i * self.bits)
            for word in reversed(range(self.words))
            for i in reversed(range(in_a_word))
        ]

    def decided(self, v: int, values: Numbers, states: Numbers) -> bool:
        """Write the values of the next variable into states, and take out what closes with it; is
        there any, so that some may be alike?"""
        if self.last_beside[v] > v:
            word, at = self.place[v] = self.free.pop()
            states[word] |= values << at
        for u in self.closes[v]:
            if u != v:
                word, at = self.place.pop(u)
                states[word] &= ~(self.mask << at)
                self.free.append((word, at))
        return bool(self.closes[v])

    def of(self, v: int, states: Numbers) -> Numbers:
        """The values of an open variable."""
        word, at = self.place[v]
        values: Numbers = (states[word] >> at) & self.mask
        return values


def _looked_up(costs: Costs, scope: Scope, states: Numbers, opened: _Opened) -> Costs:
    """A cluster's costs for each value of its last variable and each state."""
    if not scope:
        return costs[:, None]
    place = np.zeros(states.shape[1], np.int64)
    for v, size in zip(scope, costs.shape, strict=False):
        place *= size
        place += opened.of(v, states)
    return costs.reshape(-1, costs.shape[-1]).T[:, place]


def _best_of_equal(states: Numbers, costs: Costs) -> Numbers:
    """Of states that are equal the first that costs least, all in their order."""
    order = np.argsort(states[0], kind="stable") if len(states) == 1 else np.lexsort(states)
    new = np.zeros(len(order), bool)
    new[0] = True
    for word in states:
        there = word[order]
        new[1:] |= there[1:] != there[:-1]
    starts = np.flatnonzero(new)
    cost = costs[order]
    least = np.repeat(np.minimum.reduceat(cost, starts), np.diff(starts, append=len(order)))
    cheap = np.flatnonzero(cost == least)
    group = np.cumsum(new)[cheap]
    new_group = np.ones(len(cheap), bool)
    new_group[1:] = group[1:] != group[:-1]
    return np.sort(order[cheap[new_group]])
