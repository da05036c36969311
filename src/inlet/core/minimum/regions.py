"""An assignment made better part by part: where all but some variables stay as they are, what is
left is small enough to be solved."""

from __future__ import annotations

import random
from collections.abc import Sequence

from inlet.core.cancellation import check
from inlet.core.minimum.bounding import Bound
from inlet.core.minimum.ordering import Ordered, good_orders, neighbours
from inlet.core.minimum.reducing import reduced
from inlet.core.minimum.searching import search
from inlet.core.minimum.table_sum import STEP, Costs, Scope, TableSum, plus

SIZES = (30, 60, 110)
"""How many variables are freed at a time, in turn."""
HUBS = 0, 4, 10
"""Hubs that orders in a region begin with."""
ROWS, STATES = 1 << 9, 400
"""Rows of clusters and states at a time in one region."""
GIVEN_UP = 30
"""After so many regions in a row that came to nothing no more are tried."""


class Regions:
    """Regions of a sum, freed one after the other, each about the next of its variables in an order
    by chance that is always the same."""

    def __init__(self, whole: TableSum) -> None:
        self.whole = whole
        number = len(whole.sizes)
        self.beside = [sorted(others) for others in neighbours(number, whole.tables)]
        self.of: list[list[Scope]] = [[] for _ in whole.sizes]
        for scope in sorted(whole.tables):
            for v in scope:
                self.of[v].append(scope)
        self.next, self.idle, self.worked = 0, 0, 0
        self.centres = list(range(number))
        random.Random(number).shuffle(self.centres)

    def improve(self, values: Sequence[int], work: int) -> list[int]:
        """An assignment that is no dearer, found with so much work."""
        best = list(values)
        until = self.worked + work
        while self.worked < until and self.idle < GIVEN_UP:
            check()
            centre = self.centres[self.next % len(self.centres)]
            size = SIZES[self.next % len(SIZES)]
            self.next += 1
            better = self._freed(self._about(centre, size), best)
            self.idle = 0 if better is not None else self.idle + 1
            best = better or best
        return best

    def _about(self, centre: int, size: int) -> list[int]:
        """The variables nearest to one, by the tables they share."""
        seen = {centre}
        queue = [centre]
        for v in queue:
            for u in self.beside[v]:
                if u not in seen and len(seen) < size:
                    seen.add(u)
                    queue.append(u)
        return sorted(seen)

    def _freed(self, free: Sequence[int], values: Sequence[int]) -> list[int] | None:
        """A better assignment that differs in these variables alone, if one is found."""
        number = {v: i for i, v in enumerate(free)}
        tables: dict[Scope, Costs] = {}
        for scope in dict.fromkeys(scope for v in free for scope in self.of[v]):
            here = tuple(slice(None) if v in number else values[v] for v in scope)
            inside = tuple(number[v] for v in scope if v in number)
            costs = self.whole.tables[scope][here]
            tables[inside] = plus(tables[inside], costs) if inside in tables else costs
        part = TableSum(tuple(self.whole.sizes[v] for v in free), tables)
        now = part.cost([values[v] for v in free])
        self.worked += STEP * len(tables) + sum(costs.size for costs in tables.values())
        less = reduced(part)
        part_values: list[int] | None = [] if less.rest.constant < now else None
        if less.rest.sizes:
            (order,) = good_orders(less.rest, 1, HUBS)
            ordered = Ordered(less.rest, order)
            bound = Bound(ordered.sum, ROWS, 0)
            result = search(bound, ordered.last_beside, now, STATES)
            self.worked += bound.worked + result.worked
            part_values = None if result.values is None else ordered.read_back(result.values)
        if part_values is None:
            return None
        better = list(values)
        for v, value in zip(free, less.read_back(part_values), strict=True):
            better[v] = value
        return better
