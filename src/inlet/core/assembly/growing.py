"""An order for nets too large to search: one cell after the other is sewn on.

What has been sewn so far is always one part without holes; a cell may come next where it meets that
part along a single path. Such a cell can always be found (a disc can be shelled from any of its
cells). The junctions inside the path are closed by it, by the two seams of the path that meet
there: so each junction is closed once, and nothing waits for itself. Of the cells that may come
next the one that closes its junctions at least cost is taken, so that few corners are turned
needlessly.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from heapq import heappop, heappush

from inlet.core.assembly.net import Net
from inlet.core.assembly.options import JoinOption
from inlet.core.cancellation import check

Price = tuple[int, int, int]
"""Pivots, partial seams, and how few seams are shared (a cell well enclosed comes first)."""


def grown(net: Net, options: Mapping[int, Sequence[JoinOption]]) -> dict[int, JoinOption] | None:
    """The option that closes each junction, by vertex; None if the cells do not hang together by
    their sides without a hole."""
    return _Growth(net, options).run()


class _Growth:
    def __init__(self, net: Net, options: Mapping[int, Sequence[JoinOption]]) -> None:
        self.net = net
        self.by_pair = {
            v: {frozenset(o.pair): o for o in options_at} for v, options_at in options.items()
        }
        self.seams_of: list[list[int]] = [[] for _ in net.cells]
        self.cells_at: dict[int, set[int]] = defaultdict(set)
        for n, seam in enumerate(net.seams):
            for cell in (seam.right, seam.left):
                self.seams_of[cell].append(n)
                self.cells_at[seam.start].add(cell)
                self.cells_at[seam.end].add(cell)
        self.sewn: set[int] = set()

    def run(self) -> dict[int, JoinOption] | None:
        chosen: dict[int, JoinOption] = {}
        best: dict[int, Price] = {}
        heap: list[tuple[Price, int]] = []
        following = 0
        while len(self.sewn) < len(self.net.cells):
            check()
            order = self._shared(following) if self.sewn else []
            if order is None:
                return None
            for v, option in self._closed(order):
                chosen[v] = option
            self.sewn.add(following)
            for cell in self._round(following):
                price = self._price(cell)
                if price is None:
                    best.pop(cell, None)
                elif best.get(cell) != price:
                    best[cell] = price
                    heappush(heap, (price, cell))
            while heap:
                price, cell = heappop(heap)
                if cell not in self.sewn and best.get(cell) == price:
                    following = cell
                    break
            else:
                break
        return chosen if len(self.sewn) == len(self.net.cells) else None

    def _round(self, cell: int) -> set[int]:
        """Cells not sewn yet that touch a cell, if only in a point."""
        seams = (self.net.seams[n] for n in self.seams_of[cell])
        near = {c for seam in seams for v in (seam.start, seam.end) for c in self.cells_at[v]}
        return near - self.sewn

    def _shared(self, cell: int) -> list[int] | None:
        """The seams between a cell and what is sewn; None where they are no single path, or the
        two touch elsewhere, too: a path has one vertex more than seams."""
        shared, touched = [], set()
        for n in self.seams_of[cell]:
            seam = self.net.seams[n]
            if (seam.left if seam.right == cell else seam.right) in self.sewn:
                shared.append(n)
            for v in (seam.start, seam.end):
                if self.cells_at[v] & self.sewn:
                    touched.add(v)
        return shared if shared and len(touched) == len(shared) + 1 else None

    def _closed(self, shared: Sequence[int]) -> list[tuple[int, JoinOption]]:
        """The junctions inside a path of seams, each with the option that closes it."""
        at: dict[int, list[int]] = defaultdict(list)
        for n in shared:
            at[self.net.seams[n].start].append(n)
            at[self.net.seams[n].end].append(n)
        return [
            (v, self.by_pair[v][frozenset(pair)])
            for v, pair in at.items()
            if len(pair) == 2 and v in self.by_pair
        ]

    def _price(self, cell: int) -> Price | None:
        shared = self._shared(cell)
        if shared is None:
            return None
        costs = [
            (option.cost[0] - (not self.net.junctions[v].passed), option.cost[1])
            for v, option in self._closed(shared)
        ]
        return sum(c[0] for c in costs), sum(c[1] for c in costs), -len(shared)
