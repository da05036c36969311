"""The fewest partial seams, by an integer program that learns the circles as it meets them.

One 0/1 variable x for each closing pair that turns no corner needlessly; one pair at each junction.
Walk along a seam into a junction v and out along another, a. The seam walked in on is sewn before,
or in one go with, what is sewn over v last wherever the pair chosen there holds a: then it is
either {s, a}, and the path goes on, or leaves s out, and s comes first. So the step is allowed to
the degree y(a, v), the sum of x over the pairs at v that hold a. A closed walk whose steps are all
allowed is a circle of precedence, and an order has none: the sum of y over the steps of any closed
walk is at most their number less one. There are too many walks to write down; those that the
answer so far breaks are looked for, as shortest closed walks where a step is 1 - y long, and added,
first for shares of pairs (a linear program, whose cost rounded up is a bound), then for whole ones.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from math import ceil
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_array, csr_array, eye_array, hstack
from scipy.sparse.csgraph import connected_components, dijkstra

from inlet.core.assembly.net import Net
from inlet.core.assembly.options import JoinOption
from inlet.core.cancellation import check

MOST_ROUNDS = 60
"""Programs solved before the search is cut short."""

MOST_NODES = 5_000
"""Branches of all programs before it is. Bounds of work and not of time: the answer is the same on
every machine, however busy."""

MOST_USUAL = 250
"""Steps of closed walks in all whole programs in which the most usual of equal answers is looked
for to the end; in later ones any answer that has as few partial seams does. Blocks as people draw
them stay below it; of a dense map of chance it takes ten times as long to part such answers as to
find one."""

NEAR, ANY = 0.5, 0.9
"""An answer proved to be within ``NEAR`` partial seams of the best has as few as that, as the least
usual ways cost ``TIES`` at most. ``ANY`` is the share of its cost within which the first answer is
looked for: nearly always it has as few as are needed, and nothing is left to prove."""

TIES = 0.25
"""What choosing the least usual way everywhere costs, in partial seams: under one, so that it only
parts answers with the same number of them."""

USUAL = 5
"""Ways to close a junction told apart by how usual they are; those after are alike."""

STEP = 1e-7
"""Added to the length of every step, so that of equal walks the one of fewest steps is found."""

SURE = 1e-4
"""A closed walk shorter than 1 by less than this is taken for a solver's rounding."""

Floats = NDArray[np.float64]
Walk = frozenset[int]
"""A closed walk by its directed seams."""


class Fewest(NamedTuple):
    """The option chosen at each junction, by vertex, none where the search was cut short before it
    had any; no choice has fewer partial seams than ``at_least``."""

    chosen: dict[int, JoinOption] | None
    at_least: int


def fewest_partial(net: Net, options: Mapping[int, Sequence[JoinOption]]) -> Fewest:
    """The choice of closing pairs that can be sewn with the fewest partial seams, the most usual of
    those. ``options`` are the ways to close each junction, the most usual first."""
    program = _Program(net, options)
    answer, at_least = program.usual(), 0
    whole = False
    for _ in range(MOST_ROUNDS):
        check()
        if program.nodes >= MOST_NODES:
            break
        broken = program.broken_walks(answer)
        if not broken:
            if np.all(np.abs(answer - answer.round()) < SURE):
                return Fewest(program.chosen(answer), at_least)
            whole = True
        program.walks |= dict.fromkeys(broken)
        solved, bound = program.solve(whole)
        at_least = max(at_least, bound)
        if solved is None:
            break
        answer = solved
    return Fewest(None, at_least)


class _Program:
    """The columns are closing pairs, and a number for each seam that may have a pivot at both
    ends, which is 1 if it has; the rows one for each junction, each such seam, and each walk."""

    def __init__(self, net: Net, options: Mapping[int, Sequence[JoinOption]]) -> None:
        junctions = net.junctions
        self.columns = [
            (v, option)
            for v in sorted(junctions, key=lambda v: (junctions[v].seams, v))
            for option in _worth_choosing(options[v], junctions[v].passed)
        ]
        ranks = _ranks(v for v, _ in self.columns)
        self.first = ranks == 0
        self.between = _turned_at_both_ends(self.columns)
        self.partial = partial = np.array([option.cost[1] for _, option in self.columns])
        less_usual = np.minimum(ranks, USUAL)
        both = np.ones(self.between.shape[0])
        ties = [TIES / 2 * w / max(1, w.sum()) for w in (less_usual, both)]
        self.weights = np.concatenate([partial + ties[0], ties[1]])
        self.one_each = _sums([v for v, _ in self.columns])
        self.walks: dict[Walk, None] = {}
        self.nodes = 0  # branches of all whole programs so far
        self.entries = 0  # steps of closed walks in all whole programs so far
        # Directed seams between junctions, by the junction walked away from.
        self.directed = {
            (n, v): i
            for i, (n, v) in enumerate(
                (n, v)
                for n, seam in enumerate(net.seams)
                if seam.start in junctions and seam.end in junctions
                for v in (seam.start, seam.end)
            )
        }
        self.steps = _steps(net, self.directed)
        allowed = [
            (self.directed[n, v], k)
            for k, (v, option) in enumerate(self.columns)
            for n in option.pair
            if (n, v) in self.directed
        ]
        self.allowing = _ones(allowed, (len(self.directed), len(self.columns)))

    def usual(self) -> Floats:
        """The most usual pair at each junction."""
        return np.where(self.first, 1.0, 0.0)

    def chosen(self, answer: Floats) -> dict[int, JoinOption]:
        """The option at each junction, by vertex."""
        return {v: o for (v, o), x in zip(self.columns, answer, strict=True) if x > 0.5}

    def solve(self, whole: bool) -> tuple[Floats | None, int]:
        """The best answer to what is known so far, of whole pairs or of shares of them, none if
        there is none or it takes too much work; and a number of partial seams that is needed."""
        more = len(self.weights) - len(self.columns)
        rows = [LinearConstraint(_wider(self.one_each, more), 1, 1)]
        if more:
            rows.append(LinearConstraint(hstack([self.between, -eye_array(more)]), -np.inf, 1))
        if self.walks:
            entries = [(i, d) for i, walk in enumerate(self.walks) for d in sorted(walk)]
            along = _ones(entries, (len(self.walks), len(self.directed))) @ self.allowing
            most = np.array([len(walk) - 1 for walk in self.walks])
            rows.append(LinearConstraint(_wider(along, more), -np.inf, most))
            self.entries += int(whole) * along.nnz
        if not whole or self.entries <= MOST_USUAL:
            solved, bound = self._solve(rows, whole, 0.0)
        else:
            solved, bound = self._solve(rows, whole, ANY)
            needed = 0 if solved is None else round(solved @ self.partial)
            if needed > bound:
                solved, bound = self._solve(rows, whole, NEAR / (needed + TIES))
        return solved, bound

    def _solve(
        self, rows: Sequence[LinearConstraint], whole: bool, gap: float
    ) -> tuple[Floats | None, int]:
        count = len(self.columns)
        solution = milp(
            self.weights,
            integrality=np.repeat([int(whole), 0], [count, len(self.weights) - count]),
            bounds=Bounds(0, 1),
            constraints=rows,
            options={"node_limit": max(1, MOST_NODES - self.nodes), "mip_rel_gap": gap},
        )
        self.nodes += solution.mip_node_count or 0
        proved = solution.mip_dual_bound if whole else solution.fun
        bound = 0 if proved is None else max(0, ceil(proved - TIES - SURE))
        return (solution.x[:count] if solution.status == 0 else None), bound

    def broken_walks(self, answer: Floats) -> list[Walk]:
        """Closed walks, short ones first, all of whose steps an answer allows to more than their
        number less one; none that is known."""
        length = np.clip(1 - self.allowing @ answer, 0, 1) + STEP
        near = length[self.steps[1]] < 1 - SURE
        tails, heads = self.steps[0][near], self.steps[1][near]
        size = len(self.directed)
        graph = csr_array((length[heads], (tails, heads)), shape=(size, size))
        _, group = connected_components(graph, connection="strong")
        inside = group[tails] == group[heads]
        tails, heads = tails[inside], heads[inside]
        walks: dict[Walk, None] = {}
        for g in np.unique(group[heads]):
            check()
            here = np.flatnonzero(group == g)
            mine = group[heads] == g
            local = graph[here][:, here]
            at = np.zeros(size, dtype=int)
            at[here] = np.arange(len(here))
            for walk in _short_walks(local, at[tails[mine]], at[heads[mine]], length[here]):
                walks[frozenset(here[list(walk)].tolist())] = None
        return [walk for walk in walks if walk not in self.walks]


def _short_walks(
    graph: csr_array, tails: NDArray[np.int_], heads: NDArray[np.int_], length: Floats
) -> Iterable[list[int]]:
    """Shortest closed walks of less than 1 that end in each step from a tail to a head, shortest
    first; no step in two of them ends in a directed seam that a shorter one passes."""
    far, before = dijkstra(graph, return_predecessors=True, limit=1 - SURE)
    round_ = far[heads, tails] + length[heads]
    passed: set[int] = set()
    for k in np.argsort(round_, kind="stable"):
        if round_[k] >= 1 - SURE:
            return
        start = int(heads[k])
        if start in passed:
            continue
        walk = [int(tails[k])]
        while walk[-1] != start:
            walk.append(int(before[start, walk[-1]]))
        passed |= set(walk)
        yield walk


def _worth_choosing(options: Sequence[JoinOption], passed: bool) -> list[JoinOption]:
    """Of the ways to close a junction those that turn no corner needlessly, one for each pair."""
    least = 0 if passed else 1
    pairs: dict[frozenset[int], JoinOption] = {}
    for option in options:
        if option.cost[0] == least:
            pairs.setdefault(frozenset(option.pair), option)
    return list(pairs.values())


def _turned_at_both_ends(columns: Sequence[tuple[int, JoinOption]]) -> csr_array:
    """One row for each seam that may have a pivot at either end, that adds up the pairs that pivot
    there: 2 where both do. A leg between two pivots is harder to sew than one with a free end."""
    turning: dict[int, list[tuple[int, int]]] = defaultdict(list)
    for k, (v, option) in enumerate(columns):
        if option.cost[0]:
            for n in option.pair:
                turning[n].append((v, k))
    both = [turned for _, turned in sorted(turning.items()) if len({v for v, _ in turned}) == 2]
    entries = [(row, k) for row, turned in enumerate(both) for _, k in turned]
    return _ones(entries, (len(both), len(columns)))


def _ranks(owners: Iterable[int]) -> NDArray[np.int_]:
    """How many of the same owner come before each."""
    seen: dict[int, int] = {}
    ranks = []
    for v in owners:
        ranks.append(seen.get(v, 0))
        seen[v] = ranks[-1] + 1
    return np.array(ranks)


def _sums(owners: Sequence[int]) -> csr_array:
    """One row for each owner, that adds up the columns it owns."""
    number = {v: i for i, v in enumerate(dict.fromkeys(owners))}
    return _ones([(number[v], k) for k, v in enumerate(owners)], (len(number), len(owners)))


def _wider(rows: csr_array, by: int) -> csr_array:
    """Rows with columns of nothing put on behind."""
    return csr_array((rows.data, rows.indices, rows.indptr), (rows.shape[0], rows.shape[1] + by))


def _ones(entries: Sequence[tuple[int, int]], shape: tuple[int, int]) -> csr_array:
    rows, columns = np.array(entries, dtype=int).reshape(-1, 2).T
    return csr_array(coo_array((np.ones(len(rows)), (rows, columns)), shape=shape))


def _steps(
    net: Net, directed: Mapping[tuple[int, int], int]
) -> tuple[NDArray[np.int_], NDArray[np.int_]]:
    """From which directed seam to which one can walk on, two arrays of equal length: out of the
    junction it leads to, along any other seam there that leads to a junction."""
    pairs = [
        (i, directed[a, v])
        for (n, tail), i in directed.items()
        for v in (net.seams[n].far(tail),)
        for a in net.junctions[v].seams
        if a != n and (a, v) in directed
    ]
    tails, heads = np.array(pairs, dtype=int).reshape(-1, 2).T
    return tails, heads
