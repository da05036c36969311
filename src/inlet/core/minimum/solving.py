"""The least of a sum of tables, proved or with how far it may be from that.

Reduce; then rounds with ever larger clusters and longer lists of states: bound, delete the values
the bound rules out and reduce again, search. First orders are tried with small ones, for an
assignment to beat and for the order that bounds best; where the gap is large, the assignment is
made better region by region. All is bound by work, rows of tables and states looked at, so that a
sum comes to the same end on every machine.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

import numpy as np

from inlet.core.minimum.bounding import Bound
from inlet.core.minimum.ordering import Ordered, good_orders
from inlet.core.minimum.reducing import Reduced, reduced
from inlet.core.minimum.regions import Regions
from inlet.core.minimum.searching import search
from inlet.core.minimum.table_sum import TableSum

BOUNDED, TO_BOUND = 8, 16
"""How many orders are bounded at most, one for each so many variables."""
SEARCHED, TO_SEARCH = 3, 60
"""And searched, those that bound best."""
TRIED = 1 << 10, 600
"""Rows of clusters and states at a time when an order is tried."""
ROUNDS = (
    (1 << 11, 3_000), (1 << 13, 8_000), (1 << 15, 20_000), (1 << 17, 40_000), (1 << 18, 80_000),
)  # fmt: skip
"""The same of each round that follows."""
LARGE = 1 / 30
"""Where the gap is larger than this part of the cost, nothing is ruled out, and from the second
round on as much work as a round took goes into regions."""
RULED_OUT = 1 / 30
"""Values ruled out, as a part of all, from which on it is worth to reduce again."""
MOST_HELD = 25_000_000
"""States times variables that a search may hold on to."""


class Least(NamedTuple):
    """An assignment with what it costs, and the least that any costs as far as is proved."""

    values: tuple[int, ...]
    cost: int
    at_least: int


def least_of(whole: TableSum, known: Sequence[int], work: int) -> Least:
    """The least of a sum, or the best that is found with so much work, no dearer than a ``known``
    assignment."""
    return _Solver(whole, known, work).run()


class _Solver:
    def __init__(self, whole: TableSum, known: Sequence[int], work: int) -> None:
        self.whole, self.left = whole, work
        self.values, self.cost = list(known), whole.cost(known)
        self.at_least = whole.constant
        self.backs: list[Callable[[Sequence[int]], list[int]]] = []
        self.regions: Regions | None = None
        self.here: list[int] = []  # the best assignment as far as the first reduction has it

    def run(self) -> Least:
        less = reduced(self.whole)
        rest = self.after(less)
        if not self.proved:
            self.regions = Regions(rest)
            self.here = less.projected(self.values)
            self.solve(rest)
        return Least(tuple(self.values), self.cost, min(self.cost, self.at_least))

    @property
    def proved(self) -> bool:
        return self.at_least >= self.cost

    @property
    def large(self) -> bool:
        return self.cost - self.at_least > LARGE * self.cost

    def after(self, less: Reduced) -> TableSum:
        """What is left of a sum reduced; where nothing is, it is solved."""
        self.backs.append(less.read_back)
        if not less.rest.sizes:
            self.know(less.rest.constant)
            if less.rest.constant < self.cost:
                self.take([])
        return less.rest

    def take(self, values: Sequence[int]) -> None:
        """An assignment of what is left, better than all before."""
        for back in reversed(self.backs[1:]):
            values = back(values)
        self.here = list(values)
        self.values = self.backs[0](values)
        self.cost = self.whole.cost(self.values)
        if self.regions is not None:
            self.regions.idle = 0

    def know(self, at_least: int) -> None:
        self.at_least = max(self.at_least, min(self.cost, at_least))

    def solve(self, rest: TableSum) -> None:
        ordered = self.best_of_orders(rest)
        for number, (rows, states) in enumerate(ROUNDS):
            if self.proved or self.left <= 0:
                return
            before = self.left
            bound = self.bound(ordered, rows, 1)
            smaller = None if self.large else self.without_ruled_out(ordered, bound)
            if smaller is not None:
                if self.proved or not smaller.sizes:
                    self.know(self.cost)
                    return
                # What is left keeps its order, which was the best of several.
                ordered = Ordered(smaller, range(len(smaller.sizes)))
                bound = self.bound(ordered, rows, 1)
            self.search(ordered, bound, states)
            if self.large and number:
                self.improve(before - self.left)

    def best_of_orders(self, rest: TableSum) -> Ordered:
        """The order along which most is proved, of those that bound best."""
        number = len(rest.sizes)
        tried = []
        for order in good_orders(rest, max(1, min(BOUNDED, number // TO_BOUND))):
            ordered = Ordered(rest, order)
            tried.append((ordered, self.bound(ordered, TRIED[0], 0)))
        tried.sort(key=lambda each: -each[1].least)
        proved = []
        for ordered, bound in tried[: max(1, min(SEARCHED, number // TO_SEARCH))]:
            proved.append((self.search(ordered, bound, TRIED[1]), ordered))
            if self.proved:
                break
        return max(proved, key=lambda each: each[0])[1]

    def bound(self, ordered: Ordered, rows: int, sweeps: int) -> Bound:
        bound = Bound(ordered.sum, rows, sweeps)
        self.left -= bound.worked
        self.know(bound.least)
        return bound

    def search(self, ordered: Ordered, bound: Bound, states: int) -> int:
        """Search along an order, and what that proves."""
        if self.proved:
            return self.cost
        most = min(states, MOST_HELD // len(bound.sizes))
        result = search(bound, ordered.last_beside, self.cost, most)
        self.left -= result.worked
        if result.values is not None:
            self.take(ordered.read_back(result.values))
        self.know(result.at_least)
        return max(bound.least, result.at_least)

    def improve(self, work: int) -> None:
        """Make the best assignment better in regions."""
        assert self.regions is not None
        before = self.regions.worked
        self.here = self.regions.improve(self.here, work)
        self.left -= self.regions.worked - before
        values = self.backs[0](self.here)
        if self.whole.cost(values) < self.cost:
            self.values, self.cost = values, self.whole.cost(values)

    def without_ruled_out(self, ordered: Ordered, bound: Bound) -> TableSum | None:
        """The sum without the values that cannot be part of anything better, reduced; None where
        they are few."""
        whole = ordered.sum
        keep = [np.flatnonzero(bound.least_with(v) < self.cost) for v in range(len(whole.sizes))]
        number = sum(map(len, keep))
        if number > (1 - RULED_OUT) * sum(whole.sizes):
            return None
        if not all(map(len, keep)):
            self.know(self.cost)
            return whole
        tables = {s: costs[np.ix_(*(keep[v] for v in s))] for s, costs in whole.tables.items()}

        def back(values: Sequence[int]) -> list[int]:
            return ordered.read_back([int(k[value]) for k, value in zip(keep, values, strict=True)])

        self.backs.append(back)
        return self.after(reduced(TableSum(tuple(map(len, keep)), tables, whole.constant)))
