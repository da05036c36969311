"""The order in which variables are decided, so that few stay open at any time.

A variable is open from when it is decided until all it shares a table with are decided, too. Hubs,
which many equal parts follow, are open nearly always: deciding the k of most neighbours first and
the others so that each leaves as few open as can be is tried for several k, and those with
the fewest open at their widest are taken.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from inlet.core.cancellation import check
from inlet.core.minimum.table_sum import Scope, TableSum, summed

HUBS = (0, 2, 4, 8, 10, 14, 18, 24, 40)
"""How many variables of most neighbours are tried as the first."""


class Ordered:
    """A sum with its variables numbered in an ``order`` of those of another, and for each the last
    that it shares a table with."""

    def __init__(self, whole: TableSum, order: Sequence[int]) -> None:
        self.order = order
        number = {v: i for i, v in enumerate(order)}
        tables = [([number[v] for v in scope], costs) for scope, costs in whole.tables.items()]
        ordered = summed([whole.sizes[v] for v in order], tables)
        self.sum = ordered._replace(constant=whole.constant)
        beside = neighbours(len(order), self.sum.tables)
        self.last_beside = [max((v, *others)) for v, others in enumerate(beside)]

    def read_back(self, values: Sequence[int]) -> list[int]:
        """An assignment by the numbers that the variables had before."""
        assigned = [0] * len(values)
        for v, value in zip(self.order, values, strict=True):
            assigned[v] = value
        return assigned


def neighbours(number: int, scopes: Iterable[Scope]) -> list[set[int]]:
    """By variable, those it shares a table with."""
    beside: list[set[int]] = [set() for _ in range(number)]
    for scope in scopes:
        for v in scope:
            beside[v].update(scope)
    for v, others in enumerate(beside):
        others.discard(v)
    return beside


def good_orders(whole: TableSum, most: int, first: Sequence[int] = HUBS) -> list[tuple[int, ...]]:
    """The variables in so many orders that leave few open, the narrowest first; of those that begin
    with so many hubs."""
    number = len(whole.sizes)
    beside = neighbours(number, whole.tables)
    by_degree = sorted(range(number), key=lambda v: (-len(beside[v]), v))
    widths: dict[tuple[int, ...], int] = {}
    for hubs in first:
        if hubs and (hubs >= number or len(beside[by_degree[hubs - 1]]) < 3):
            break
        check()
        order, widest = _ordered(by_degree[:hubs], beside)
        widths[order] = widest
    return sorted(widths, key=lambda order: widths[order])[:most]


def _ordered(first: Sequence[int], beside: Sequence[set[int]]) -> tuple[tuple[int, ...], int]:
    """An order that begins with these, and how many are open at its widest. Next comes what closes
    most, of those beside what is decided."""
    waiting = [len(others) for others in beside]  # undecided neighbours of each
    closing = [0] * len(beside)  # how many decided ones wait for this alone
    touched: dict[int, int] = {}  # of undecided ones, how many neighbours are decided
    undecided = dict.fromkeys(range(len(beside)))
    order: list[int] = []
    hubs = frozenset(first)
    opened = widest = 0

    def decide(v: int) -> None:
        nonlocal opened, widest
        order.append(v)
        del undecided[v]
        touched.pop(v, None)
        opened += 1
        for u in beside[v]:
            waiting[u] -= 1
            if u in undecided:
                if v not in hubs:
                    touched[u] = touched.get(u, 0) + 1
            elif waiting[u] == 0:
                opened -= 1
            elif waiting[u] == 1:
                closing[next(w for w in beside[u] if w in undecided)] += 1
        if waiting[v] == 0:
            opened -= 1
        elif waiting[v] == 1:
            closing[next(w for w in beside[v] if w in undecided)] += 1
        widest = max(widest, opened)

    def worth(v: int) -> tuple[int, int, int, int]:
        return closing[v] + (waiting[v] == 0), touched.get(v, 0), -waiting[v], -v

    for v in first:
        decide(v)
    while undecided:
        decide(max(touched or undecided, key=worth))
    return tuple(order), widest
