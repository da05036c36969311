"""A sum of tables made smaller without losing its least cost.

Three rules, until none applies any more. A value is dropped where another is never dearer, whatever
the variables beside it do: per table the least that a costs more than b, added up, is a bound on
that; where the tables together are small, they are added up first, which is exact. A variable with
few neighbours is minimised out: the least over its values for each way its neighbours can go is a
table over them. A table whose variables all are in another is added to that.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import combinations
from typing import NamedTuple

import numpy as np

from inlet.core.cancellation import check
from inlet.core.minimum.table_sum import (
    IMPOSSIBLE,
    Costs,
    Scope,
    TableSum,
    joined,
    plus,
    rows,
    spread,
)

FEW_ROWS = 81
"""A new table this small is always worth minimising a variable out for."""
MOST_ROWS = 3**9
"""Rows up to which the tables of a variable are added up to compare its values."""


class Gone(NamedTuple):
    """A variable that was minimised out: its table with those beside it, and which ``values`` each
    of them still had, to read its best value."""

    variable: int
    scope: Scope
    costs: Costs
    values: tuple[tuple[int, ...], ...]


class Reduced(NamedTuple):
    """What is left of a sum, its variables counted anew: ``kept`` are their numbers before,
    ``values`` what is left of the values of each variable there was, and ``gone`` those that were
    minimised out, in their order."""

    rest: TableSum
    kept: tuple[int, ...]
    values: tuple[tuple[int, ...], ...]
    gone: tuple[Gone, ...]

    def projected(self, values: Sequence[int]) -> list[int]:
        """What an assignment of all variables comes to in what is left, where it can."""
        assigned = []
        for v in self.kept:
            known = self.values[v]
            assigned.append(known.index(values[v]) if values[v] in known else 0)
        return assigned

    def read_back(self, values: Sequence[int]) -> list[int]:
        """An assignment of all variables from one of what is left, which costs as much."""
        chosen = [0] * len(self.values)
        for v, value in zip(self.kept, values, strict=True):
            chosen[v] = self.values[v][value]
        for gone in reversed(self.gone):
            here: list[slice | int] = []
            for u, known in zip(gone.scope, gone.values, strict=True):
                here.append(slice(None) if u == gone.variable else known.index(chosen[u]))
            best = int(np.argmin(gone.costs[tuple(here)]))
            chosen[gone.variable] = gone.values[gone.scope.index(gone.variable)][best]
        return chosen


def reduced(whole: TableSum) -> Reduced:
    """A sum with the same least cost, as small as the rules make it."""
    return _Reducer(whole).run()


class _Reducer:
    def __init__(self, whole: TableSum) -> None:
        self.sizes = list(whole.sizes)
        self.constant = whole.constant
        self.values = [tuple(range(size)) for size in whole.sizes]
        self.tables: dict[Scope, Costs] = {}
        self.of: list[set[Scope]] = [set() for _ in whole.sizes]
        self.gone: list[Gone] = []
        self.left = set(range(len(whole.sizes)))
        self.changed = dict.fromkeys(self.left)
        for scope, costs in sorted(whole.tables.items(), key=lambda t: -len(t[0])):
            self.add(scope, costs)

    def run(self) -> Reduced:
        compared: set[int] = set()
        while True:
            while self.changed:
                v = next(iter(self.changed))
                del self.changed[v]
                if v in self.left:
                    check()
                    compared.discard(v)
                    self.look_at(v)
            v = next((v for v in sorted(self.left) if v not in compared), -1)
            if v < 0:
                break
            compared.add(v)
            self.drop_values(v, exactly=True)
        return self.result()

    def result(self) -> Reduced:
        kept = tuple(sorted(self.left))
        number = {v: i for i, v in enumerate(kept)}
        tables = {tuple(number[v] for v in scope): costs for scope, costs in self.tables.items()}
        sizes = tuple(self.sizes[v] for v in kept)
        rest = TableSum(sizes, tables, self.constant)
        return Reduced(rest, kept, tuple(self.values), tuple(self.gone))

    def look_at(self, v: int) -> None:
        if self.sizes[v] > 1:
            self.drop_values(v, exactly=False)
        if self.sizes[v] == 1:
            self.settle(v)
        elif self.worth_minimising(v):
            self.minimise(v)

    # --- tables ---------------------------------------------------------------------------------

    def add(self, scope: Scope, costs: Costs) -> None:
        """Add a table: to one over its variables or more, or in place of those over fewer."""
        if not scope:
            self.constant = min(IMPOSSIBLE, self.constant + int(costs))
            return
        least = int(costs.min())
        if 0 < least < IMPOSSIBLE:
            self.constant += least
            costs = np.where(costs >= IMPOSSIBLE, IMPOSSIBLE, costs - least)
        if not costs.any():
            return
        mine = set(scope)
        wider = next((w for w in sorted(self.of[scope[0]]) if mine <= set(w)), None)
        if wider is not None:
            self.tables[wider] = plus(self.tables[wider], spread(scope, costs, wider))
        else:
            for other in sorted({o for v in scope for o in self.of[v] if set(o) <= mine}):
                costs = plus(costs, spread(other, self.take(other), scope))
            self.tables[scope] = costs
            for v in scope:
                self.of[v].add(scope)
        self.changed.update(dict.fromkeys(scope))

    def take(self, scope: Scope) -> Costs:
        for v in scope:
            self.of[v].discard(scope)
        return self.tables.pop(scope)

    # --- rules ----------------------------------------------------------------------------------

    def worth_minimising(self, v: int) -> bool:
        beside = {u for scope in self.of[v] for u in scope} - {v}
        number = rows(beside, self.sizes)
        return number <= FEW_ROWS or 2 * number <= sum(self.tables[s].size for s in self.of[v])

    def settle(self, v: int) -> None:
        """Take a variable with a single value out of its tables."""
        self.gone.append(Gone(v, (v,), np.zeros(1, np.int64), (self.values[v],)))
        self.left.discard(v)
        for scope in sorted(self.of[v]):
            costs = self.take(scope).squeeze(axis=scope.index(v))
            self.add(tuple(u for u in scope if u != v), costs)

    def minimise(self, v: int) -> None:
        scopes = sorted(self.of[v])
        over = tuple(sorted({v, *(u for scope in scopes for u in scope)}))
        whole = joined(((s, self.take(s)) for s in scopes), over, self.sizes)
        self.gone.append(Gone(v, over, whole, tuple(self.values[u] for u in over)))
        self.left.discard(v)
        rest = tuple(u for u in over if u != v)
        self.add(rest, whole.min(axis=over.index(v)))
        self.changed.update(dict.fromkeys(rest))

    def drop_values(self, v: int, exactly: bool) -> None:
        """Drop the values of a variable that are never better than another."""
        scopes = sorted(self.of[v])
        if exactly:
            over = tuple(sorted({v, *(u for scope in scopes for u in scope)}))
            if len(scopes) < 2 or rows(over, self.sizes) > MOST_ROWS:
                return
            tables = [(over, joined(((s, self.tables[s]) for s in scopes), over, self.sizes))]
        else:
            tables = [(s, self.tables[s]) for s in scopes]
        flat = [
            np.moveaxis(costs, scope.index(v), 0).reshape(self.sizes[v], -1)
            for scope, costs in tables
        ]
        keep = _kept(flat, self.sizes[v])
        if len(keep) == self.sizes[v]:
            return
        self.values[v] = tuple(self.values[v][value] for value in keep)
        self.sizes[v] = len(keep)
        for scope in scopes:
            self.tables[scope] = self.tables[scope].take(keep, axis=scope.index(v))
        self.changed.update(dict.fromkeys(u for scope in scopes for u in scope))
        self.changed[v] = None


def _kept(tables: Iterable[Costs], size: int) -> list[int]:
    """The values of a variable that none of the others beats in every context, its tables given
    with a row for each value."""
    least = [[0] * size for _ in range(size)]
    for costs in tables:
        for a, b in combinations(range(size), 2):
            more, less = _dearer_by(costs[a], costs[b])
            least[a][b] += more
            least[b][a] += less
    keep = list(range(size))
    for a in reversed(range(size)):
        if any(b != a and least[a][b] >= 0 for b in keep):
            keep.remove(a)
    return keep


def _dearer_by(costs: Costs, others: Costs) -> tuple[int, int]:
    """By how much a value is at least dearer than another in a table, and the other than it: below
    0 where it may be cheaper. Where a value is impossible the other is no worse, whatever it
    costs."""
    apart = costs - others
    most = max(costs.max(), others.max())
    if most < IMPOSSIBLE:
        return int(apart.min()), -int(apart.max())
    a, b = apart[costs < IMPOSSIBLE], apart[others < IMPOSSIBLE]
    return int(a.min()) if a.size else IMPOSSIBLE, -int(b.max()) if b.size else IMPOSSIBLE
