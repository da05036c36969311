"""How each junction is closed: the search for an order with the fewest awkward seams.

When two parts are sewn together along a path of seams, every junction inside that path is *closed*:
from then on all cells round it are one part. The two seams of the path that meet there are its
closing pair; the junction's other seams have been sewn before. So an order of sewing chooses one
pair at each junction, and a choice is an order exactly if nothing has to be sewn before itself:

- Seams paired with one another are sewn in one go: a *path*.
- Every seam that is not in its junction's pair comes before the path that is.
- For a whole without holes, cells - seams + junctions = 1 (Euler), and pairing takes one from the
  number of paths at each junction: there are cells - 1 paths, as many as it takes to sew the cells
  together. Hence if paths can be put in order each of them joins two parts, along all of what they
  share.

What a pair costs: nothing if one seam goes straight on into the other. If one of them goes
straight on into a third seam, that one can be sewn part of the way, and finished when this path
is: a partial seam. Otherwise the path turns a corner: a pivot. A junction that nothing passes
costs a pivot whatever is done, and that is the least number of pivots. Fewest partial seams are
found by branching: some junction on each circle of precedence must be closed otherwise than it is,
and circles that share no junction need a change each, which is the bound.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from inlet.core.assembly.growing import grown
from inlet.core.assembly.net import Net
from inlet.core.assembly.options import Awkward, Option, options_at
from inlet.core.assembly.paths import paths_of
from inlet.core.stopping import check

MOST_WORK = 10_000
"""Choices looked at, times the seams in each, before the search is cut short."""

WIDTHS = (1, 2, 3, 5)
"""How many junctions have their every change tried at each step of a descent, one descent each."""

AT_ONCE = 60
"""Tangled paths for each change beyond the first that is made before circles are sought again."""

LARGE = 700
"""Seams from which on the order is grown cell by cell, not searched for."""


class Closing(NamedTuple):
    """An option for each junction, by vertex; ``at_least`` is proved to be the least cost. It is
    optimal where the two agree."""

    chosen: dict[int, Option]
    cost: Awkward
    at_least: Awkward


def close(net: Net) -> Closing | None:
    """The cheapest way found to close every junction, one that can be sewn; None if none was found,
    which no drawing is known to do."""
    return _Search(net).run()


class _Search:
    def __init__(self, net: Net) -> None:
        self.net = net
        reach, depth = _reach(net), _depth(net)
        self.options = {v: options_at(net, j, reach, depth) for v, j in net.junctions.items()}
        self.forced = sum(not j.passed for j in net.junctions.values())
        self.nodes = 0
        self.most_nodes = 0

    def run(self) -> Closing | None:
        if len(self.net.seams) > LARGE:
            large = grown(self.net, self.options)
            if large is None:
                return None
            return Closing(large, _cost(large.values()), (self.forced, 0))
        usual = {v: options[0] for v, options in self.options.items()}
        circles = paths_of(self.net, usual).apart()
        least = sum(self.needed(c, usual, frozenset()) for c in circles)
        seams = max(1, len(self.net.seams))
        self.most_nodes = min(2 * len(circles) + 10, 10 + 3 * MOST_WORK // seams)
        best = self.search(usual, frozenset(), least)
        budget = least
        if best is None:
            budget += self.nodes <= self.most_nodes
            wide = WIDTHS[: 1 + MOST_WORK // 10 // seams]
            ends = [found for n in wide if (found := self.descend(usual, n)) is not None]
            if not ends:
                found = grown(self.net, self.options)
                ends = [found] if found is not None else []
            if not ends:
                return None
            best = min(ends, key=lambda c: _cost(c.values()))
            self.most_nodes += MOST_WORK // seams
        while (self.forced, budget) < _cost(best.values()):
            found = self.search(usual, frozenset(), budget)
            if self.nodes > self.most_nodes:
                break
            best = best if found is None else found
            budget += found is None
        return Closing(best, _cost(best.values()), (self.forced, budget))

    # --- branch and bound ---------------------------------------------------------------------

    def changes(self, v: int, chosen: dict[int, Option]) -> list[Option]:
        """Other ways to close a junction that turn no corner needlessly."""
        now = chosen[v]
        pivots = 0 if self.net.junctions[v].passed else 1
        return [o for o in self.options[v] if o != now and o.cost[0] == pivots]

    def needed(
        self, circle: frozenset[int], chosen: dict[int, Option], fixed: frozenset[int]
    ) -> int:
        """1 if breaking a circle costs a partial seam, 0 if some junction can be closed otherwise
        for nothing more."""
        for v in circle - fixed:
            now = chosen[v].cost[1]
            if any(o.cost[1] <= now for o in self.changes(v, chosen)):
                return 0
        return 1

    def search(
        self, chosen: dict[int, Option], fixed: frozenset[int], budget: int
    ) -> dict[int, Option] | None:
        """A choice that can be sewn with at most ``budget`` more partial seams, leaving ``fixed``
        junctions as they are; None if there is none, or the search is cut short."""
        self.nodes += 1
        check()
        if self.nodes > self.most_nodes:
            return None
        circles = paths_of(self.net, chosen).apart()
        if not circles:
            return chosen
        if sum(self.needed(c, chosen, fixed) for c in circles) > budget:
            return None
        circle = min(circles, key=lambda c: (len(c - fixed), sorted(c)))
        tried = fixed
        for v in sorted(circle - fixed, key=lambda v: self.rank(v)):
            tried |= {v}
            for option in self.changes(v, chosen):
                more = option.cost[1] - chosen[v].cost[1]
                if more <= budget:
                    found = self.search({**chosen, v: option}, tried, budget - more)
                    if found is not None:
                        return found
        return None

    def rank(self, v: int) -> int:
        """Junctions in an order that does not depend on how the whole is turned."""
        return min(self.net.junctions[v].seams)

    def descend(self, usual: dict[int, Option], width: int) -> dict[int, Option] | None:
        """A choice that can be sewn: time and again, out of the ``width`` junctions that hold most
        circles together, the change that leaves least tangled; then every change that is not
        needed is taken back."""
        chosen = dict(usual)
        changed: list[int] = []
        for _ in range(3 * len(chosen) + 3):
            paths = paths_of(self.net, chosen)
            tangled = paths.tangled()
            if not tangled:
                return self.less_changed(chosen, changed, usual)
            circles = {
                paths.circle_through(inside, path)
                for inside in map(set, tangled)
                for path in sorted(inside)
            }
            # Large tangles have several junctions changed before circles are sought again.
            for _ in range(1 + sum(map(len, tangled)) // AT_ONCE):
                change = self.best_change(chosen, circles, changed, width)
                if change is None:
                    break
                v, option = change
                chosen[v] = option
                changed.append(v)
                circles = {circle for circle in circles if v not in circle}
        return None

    def best_change(
        self,
        chosen: dict[int, Option],
        circles: Iterable[frozenset[int]],
        changed: Sequence[int],
        width: int,
    ) -> tuple[int, Option] | None:
        """Of the junctions that hold most circles together, those not changed yet first, the change
        that leaves least tangled; None where none can be changed."""
        holds = Counter(v for circle in circles for v in circle if len(self.options[v]) > 1)
        if not holds:
            return None
        free = [v for v in holds if v not in changed] or list(holds)
        most = sorted(free, key=lambda v: (-holds[v], self.rank(v)))[:width]
        changes = [(v, o) for v in most for o in self.options[v] if o != chosen[v]]
        return min(changes, key=lambda change: self.left_over(chosen, *change))

    def less_changed(
        self, chosen: dict[int, Option], changed: Iterable[int], usual: dict[int, Option]
    ) -> dict[int, Option]:
        """A choice with every change taken back that it can be sewn without."""
        for v in changed:
            back = {**chosen, v: usual[v]}
            if not paths_of(self.net, back).tangled():
                chosen = back
        return chosen

    def left_over(self, chosen: dict[int, Option], v: int, option: Option) -> tuple[int, ...]:
        """How bad a change is: pivots added, paths still tangled, partial seams added."""
        check()
        left = paths_of(self.net, {**chosen, v: option}).tangled()
        now = chosen[v].cost
        return option.cost[0] - now[0], sum(map(len, left)), option.cost[1] - now[1]


def _cost(options: Iterable[Option]) -> Awkward:
    costs = [o.cost for o in options]
    return sum(c[0] for c in costs), sum(c[1] for c in costs)


def _reach(net: Net) -> dict[tuple[int, int], float]:
    """How far one can go straight on from a junction along each of its seams."""
    out: dict[tuple[int, int], float] = {}
    for v, junction in net.junctions.items():
        for first in junction.seams:
            length, at, seen = 0.0, v, [first]
            while True:
                length += net.seams[seen[-1]].length
                at = net.seams[seen[-1]].far(at)
                here = net.junctions.get(at)
                onward = here.onward(seen[-1]) if here else None
                if onward is None or onward in seen:
                    break
                seen.append(onward)
            out[first, v] = length
    return out


def _depth(net: Net) -> dict[int, int]:
    """How many seams lie between each junction and the edge; those on the edge are left out."""
    beside: dict[int, set[int]] = {v: set() for v in net.places}
    for seam in net.seams:
        beside[seam.start].add(seam.end)
        beside[seam.end].add(seam.start)
    out: dict[int, int] = {}
    level, reached = 0, {v for v in net.places if v not in net.junctions}
    while reached:
        level += 1
        reached = {w for v in reached for w in beside[v] if w in net.junctions and w not in out}
        out.update(dict.fromkeys(reached, level))
    return out
