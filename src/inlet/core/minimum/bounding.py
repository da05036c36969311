"""What a sum of tables costs at least: mini-buckets.

Variables are taken from the last of an order to the first. The tables whose last variable it is are
added up into *clusters* of so many rows at most; the least over the variable, for each way the
others of a cluster can go, is taken off the cluster and handed on to the one that holds the last of
those others. What comes out at the end is a bound; and what is left in the clusters, nowhere below
0, adds up with it to what each assignment costs. So the bound with the clusters of what is decided
is a bound for any beginning of an assignment.

Where several clusters share a variable, each takes the least on its own, which loses. The loss is
smaller where their *least costs per way of what they share* are evened out first, and where what
was handed on is partly handed back and the whole is done again.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations

import numpy as np

from inlet.core.cancellation import check
from inlet.core.minimum.table_sum import (
    IMPOSSIBLE,
    STEP,
    Costs,
    Scope,
    TableSum,
    rows,
    spread,
)

NEARLY = IMPOSSIBLE // 2
"""Costs from here on are of what is impossible: what is possible costs far less."""


class Cluster:
    """Tables taken together: ``costs`` over ``scope``, the last of which is the variable of its
    bucket. What it hands on goes to ``parent``; None where that is the bound."""

    __slots__ = ("costs", "parent", "possible", "scope")

    def __init__(self, scope: Scope, sizes: Sequence[int]) -> None:
        self.scope = scope
        self.costs: Costs = np.zeros([sizes[v] for v in scope], np.int64)
        self.parent: Cluster | None = None
        self.possible = True  # all of it

    def least(self, over: Scope) -> Costs:
        """The least for each way the variables ``over``, all its own, can go."""
        mine = set(over)
        others = tuple(i for i, v in enumerate(self.scope) if v not in mine)
        least: Costs = self.costs.min(axis=others)
        return least

    def change(self, scope: Scope, by: Costs) -> None:
        """Add to its costs; what is impossible stays so."""
        self.costs += spread(scope, by, self.scope)
        self.possible = self.possible and by.max() < NEARLY
        if not self.possible:
            self.costs[self.costs >= NEARLY] = IMPOSSIBLE


class Bound:
    """The clusters of a sum whose variables are in the order of their numbers, each of at most so
    many rows, by the last of their variables; ``least`` is the bound."""

    def __init__(self, whole: TableSum, most_rows: int, sweeps: int) -> None:
        self.sizes, self.least = whole.sizes, whole.constant
        self.buckets: list[list[Cluster]] = [[] for _ in whole.sizes]
        self.worked = 0
        self._build(whole, most_rows)
        self._backward()
        for _ in range(sweeps):
            self._forward()
            self._backward()

    def _build(self, whole: TableSum, most_rows: int) -> None:
        in_bucket: list[list[tuple[Scope, object]]] = [[] for _ in whole.sizes]
        for scope in sorted(whole.tables, key=lambda s: (-len(s), s)):
            in_bucket[scope[-1]].append((scope, whole.tables[scope]))
        for last in reversed(range(len(whole.sizes))):
            for scope, what in sorted(in_bucket[last], key=lambda each: -len(each[0])):
                cluster = self._room_for(scope, last, most_rows)
                if isinstance(what, Cluster):
                    what.parent = cluster
                else:
                    cluster.change(scope, np.asarray(what))
            for cluster in self.buckets[last]:
                rest = cluster.scope[:-1]
                if rest:
                    in_bucket[rest[-1]].append((rest, cluster))

    def _room_for(self, scope: Scope, last: int, most_rows: int) -> Cluster:
        """A cluster of a bucket that holds these variables, or can with so many rows."""
        best: tuple[int, Cluster, Scope] | None = None
        for cluster in self.buckets[last]:
            together = tuple(sorted({*cluster.scope, *scope}))
            number = rows(together, self.sizes)
            more = number - cluster.costs.size
            if number <= most_rows and (best is None or more < best[0]):
                best = more, cluster, together
        if best is None:
            cluster = Cluster(scope, self.sizes)
            self.buckets[last].append(cluster)
            return cluster
        _, cluster, together = best
        if len(together) > len(cluster.scope):
            wider = Cluster(together, self.sizes)
            wider.costs += spread(cluster.scope, cluster.costs, together)
            cluster.scope, cluster.costs = wider.scope, wider.costs
        return cluster

    def _backward(self) -> None:
        for bucket in reversed(self.buckets):
            check()
            for left, right in combinations(bucket, 2):
                self._even_out(left, right)
            for cluster in bucket:
                self.worked += cluster.costs.size + STEP
                least = cluster.costs.min(axis=-1)
                cluster.change(cluster.scope[:-1], -np.where(least >= IMPOSSIBLE, 0, least))
                if cluster.parent is not None:
                    cluster.parent.change(cluster.scope[:-1], least)
                else:
                    self.least = min(IMPOSSIBLE, self.least + int(least))

    def _even_out(self, left: Cluster, right: Cluster) -> None:
        """Give two clusters of a bucket the same least for each way of what they share."""
        shared = set(right.scope)
        scope = tuple(v for v in left.scope if v in shared)
        mine, others = left.least(scope), right.least(scope)
        more = (others - mine) // 2
        impossible = (mine >= IMPOSSIBLE) | (others >= IMPOSSIBLE)
        left.change(scope, np.where(impossible, IMPOSSIBLE, more))
        right.change(scope, np.where(impossible, IMPOSSIBLE, -more))
        self.worked += left.costs.size + right.costs.size + 2 * STEP

    def _forward(self) -> None:
        """Hand back half of what each cluster has received."""
        for bucket in self.buckets:
            check()
            for cluster in bucket:
                if cluster.parent is None:
                    continue
                scope = cluster.scope[:-1]
                self.worked += cluster.parent.costs.size + STEP
                least = cluster.parent.least(scope)
                half = np.where(least >= IMPOSSIBLE, 0, least // 2)
                if half.any():
                    cluster.parent.change(scope, -half)
                    cluster.change(scope, half)

    def least_with(self, v: int) -> Costs:
        """For each value of a variable, what it costs at least with it."""
        least = np.full(self.sizes[v], self.least, np.int64)
        for bucket in self.buckets[v:]:
            for cluster in bucket:
                if v in cluster.scope:
                    least = np.minimum(least + cluster.least((v,)), IMPOSSIBLE)
        return least
