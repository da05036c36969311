"""A sum of tables: what is to be made as small as possible.

A variable has one of a few values, counted from 0. A table has a cost for each way its variables
can go. Costs are whole numbers, so that sums and bounds are exact; ``IMPOSSIBLE`` stands for what
must not be.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Costs = NDArray[np.int64]
Scope = tuple[int, ...]
"""The variables of a table, in rising order: one for each axis of its costs."""

IMPOSSIBLE = 1 << 56
"""More than twice any sum of costs that are possible; a few together still fit into 64 bits."""
STEP = 500
"""Rows that any step of work counts as, however small its table."""


class TableSum(NamedTuple):
    """``sizes`` are how many values each variable has; what an assignment costs is ``constant``
    and its costs in all ``tables``."""

    sizes: tuple[int, ...]
    tables: Mapping[Scope, Costs]
    constant: int = 0

    def cost(self, values: Sequence[int]) -> int:
        """What an assignment costs; ``IMPOSSIBLE`` if it must not be."""
        total = self.constant
        for scope, costs in self.tables.items():
            total += int(costs[tuple(values[v] for v in scope)])
        return min(total, IMPOSSIBLE)


def summed(sizes: Iterable[int], tables: Iterable[tuple[Sequence[int], Costs]]) -> TableSum:
    """The sum of tables whose variables may come in any order."""
    together: dict[Scope, Costs] = {}
    for variables, costs in tables:
        order = sorted(range(len(variables)), key=variables.__getitem__)
        scope = tuple(variables[i] for i in order)
        costs = np.asarray(costs, np.int64).transpose(order)
        together[scope] = plus(together[scope], costs) if scope in together else costs
    return TableSum(tuple(sizes), together)


def plus(costs: Costs, more: Costs) -> Costs:
    """Costs added up, what is impossible staying so."""
    total: Costs = np.minimum(costs + more, IMPOSSIBLE)
    return total


def spread(scope: Scope, costs: Costs, over: Scope) -> Costs:
    """Costs with an axis for each variable of ``over``, of length 1 for those they do not have."""
    sizes = iter(costs.shape)
    mine = set(scope)
    return costs.reshape([next(sizes) if v in mine else 1 for v in over])


def joined(tables: Iterable[tuple[Scope, Costs]], over: Scope, sizes: Sequence[int]) -> Costs:
    """Tables added up over the variables ``over``, which hold all of theirs."""
    whole = np.zeros([sizes[v] for v in over], np.int64)
    for scope, costs in tables:
        whole += spread(scope, costs, over)
        np.minimum(whole, IMPOSSIBLE, out=whole)
    return whole


def rows(scope: Iterable[int], sizes: Sequence[int]) -> int:
    """How many ways variables can go together."""
    number = 1
    for v in scope:
        number *= sizes[v]
    return number
