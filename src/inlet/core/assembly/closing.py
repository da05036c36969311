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

from collections import Counter, deque
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from inlet.core.assembly.growing import grown
from inlet.core.assembly.net import Net
from inlet.core.assembly.options import Awkward, Option, options_at
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


class _Paths(NamedTuple):
    """What a choice comes to: for each seam, the number of its path; each path's seams and inner
    junctions in order; and ``after``: path -> {path that must come later: at which junction}."""

    of: list[int]
    seams: list[list[int]]
    inner: list[list[int]]
    after: list[dict[int, int]]
    loops: list[int]


def partners(chosen: dict[int, Option]) -> dict[tuple[int, int], int]:
    """(seam, vertex) -> the seam it is sewn on into there, for every closing pair."""
    out: dict[tuple[int, int], int] = {}
    for v, option in chosen.items():
        one, other = option.pair
        out[one, v], out[other, v] = other, one
    return out


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
        circles = self.apart(self.paths(usual))
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

    # --- what a choice comes to ---------------------------------------------------------------

    def paths(self, chosen: dict[int, Option]) -> _Paths:
        seams = self.net.seams
        partner = partners(chosen)
        of = [-1] * len(seams)
        listed: list[list[int]] = []
        inner: list[list[int]] = []
        loops: list[int] = []
        for first in range(len(seams)):
            if of[first] >= 0:
                continue
            number = len(listed)
            line, at = [first], []
            of[first] = number
            for forward in (True, False):
                seam = first
                v = seams[first].end if forward else seams[first].start
                while (onward := partner.get((seam, v))) is not None:
                    if of[onward] == number:
                        if onward == first and forward:
                            loops.append(number)
                            at.append(v)
                        break
                    of[onward] = number
                    if forward:
                        at.append(v)
                        line.append(onward)
                    else:
                        at.insert(0, v)
                        line.insert(0, onward)
                    seam, v = onward, seams[onward].far(v)
                if loops and loops[-1] == number:
                    break
            listed.append(line)
            inner.append(at)
        after: list[dict[int, int]] = [{} for _ in listed]
        for v, option in chosen.items():
            late = of[option.pair[0]]
            for n in self.net.junctions[v].seams:
                if n not in option.pair:
                    after[of[n]].setdefault(late, v)
        return _Paths(of, listed, inner, after, loops)

    def tangled(self, paths: _Paths) -> list[list[int]]:
        """Groups of paths that wait for one another: strongly connected, or for themselves."""
        groups = _components(paths.after)
        return [g for g in groups if len(g) > 1 or g[0] in paths.after[g[0]] or g[0] in paths.loops]

    def circle(self, paths: _Paths, group: Sequence[int]) -> frozenset[int]:
        """The junctions of a short circle in a tangled group."""
        found = (self.circle_through(paths, set(group), start) for start in group)
        return min(found, key=lambda c: (len(c), sorted(c)))

    def circle_through(self, paths: _Paths, group: set[int], start: int) -> frozenset[int]:
        """The junctions of a shortest circle from one path of a tangled group back to it."""
        if start in paths.loops:
            return frozenset(paths.inner[start])
        before: dict[int, int] = {}
        waiting = deque([start])
        while start not in before:
            p = waiting.popleft()
            for q in paths.after[p]:
                if q in group and q not in before:
                    before[q] = p
                    waiting.append(q)
        ring = [start]
        while (p := before[ring[-1]]) != start:
            ring.append(p)
        return self.support(paths, ring[::-1])

    def support(self, paths: _Paths, ring: Sequence[int]) -> frozenset[int]:
        """The junctions that hold a circle of paths, each before the next, together: where each
        runs into the next, and those in it between where it is run into and where it ends."""
        out: set[int] = set()
        for i, path in enumerate(ring):
            came = paths.after[ring[i - 1]][path]
            goes = paths.after[path][ring[(i + 1) % len(ring)]]
            inner = paths.inner[path]
            at = inner.index(came)
            out.add(goes)
            out |= set(inner[at:] if self._ends_at(paths, path, goes) else inner[: at + 1])
        return frozenset(out)

    def _ends_at(self, paths: _Paths, path: int, v: int) -> bool:
        """Does a path end, rather than begin, at ``v``?"""
        last, inner = self.net.seams[paths.seams[path][-1]], paths.inner[path]
        return v in (last.start, last.end) and (not inner or inner[-1] != v)

    # --- branch and bound ---------------------------------------------------------------------

    def changes(self, v: int, chosen: dict[int, Option]) -> list[Option]:
        """Other ways to close a junction that turn no corner needlessly."""
        now = chosen[v]
        pivots = 0 if self.net.junctions[v].passed else 1
        return [o for o in self.options[v] if o != now and o.cost[0] == pivots]

    def apart(self, paths: _Paths) -> list[frozenset[int]]:
        """Circles that share no junction, taken greedily, one at least from each tangled group."""
        out: list[frozenset[int]] = []
        gone: set[int] = set()
        after = [dict(row) for row in paths.after]
        left = paths._replace(after=after)
        while tangled := self.tangled(left):
            for group in tangled:
                circle = self.circle(left, group)
                if not circle & gone:
                    out.append(circle)
                gone |= circle
                touching = {p for p in group if set(paths.inner[p]) & circle}
                left.loops[:] = [p for p in left.loops if p not in touching]
                for p in touching:
                    after[p].clear()
                for row in after:
                    for p in touching:
                        row.pop(p, None)
        return out

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
        paths = self.paths(chosen)
        circles = self.apart(paths)
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
            paths = self.paths(chosen)
            tangled = self.tangled(paths)
            if not tangled:
                break
            circles = {
                self.circle_through(paths, inside, path)
                for inside in map(set, tangled)
                for path in sorted(inside)
            }
            # Large tangles have several junctions changed before circles are sought again.
            for _ in range(1 + sum(map(len, tangled)) // AT_ONCE):
                holds = Counter(v for circle in circles for v in circle if len(self.options[v]) > 1)
                if not holds:
                    break
                free = [v for v in holds if v not in changed] or list(holds)
                most = sorted(free, key=lambda v: (-holds[v], self.rank(v)))[:width]
                ways = [(v, o) for v in most for o in self.options[v] if o != chosen[v]]
                v, option = min(ways, key=lambda way: self.left_over(chosen, *way))
                chosen[v] = option
                changed.append(v)
                circles = {circle for circle in circles if v not in circle}
        else:
            return None
        for v in changed:
            back = {**chosen, v: usual[v]}
            if not self.tangled(self.paths(back)):
                chosen = back
        return chosen

    def left_over(self, chosen: dict[int, Option], v: int, option: Option) -> tuple[int, ...]:
        """How bad a change is: pivots added, paths still tangled, partial seams added."""
        check()
        left = self.tangled(self.paths({**chosen, v: option}))
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


def _components(after: Sequence[dict[int, int]]) -> list[list[int]]:
    """Strongly connected components (Tarjan's), without recursion."""
    index: dict[int, int] = {}
    low: dict[int, int] = {}
    stack: list[int] = []
    on: set[int] = set()
    out: list[list[int]] = []
    for root in range(len(after)):
        if root in index:
            continue
        work = [(root, iter(after[root]))]
        index[root] = low[root] = len(index)
        stack.append(root)
        on.add(root)
        while work:
            v, rest = work[-1]
            for w in rest:
                if w not in index:
                    index[w] = low[w] = len(index)
                    stack.append(w)
                    on.add(w)
                    work.append((w, iter(after[w])))
                    break
                if w in on:
                    low[v] = min(low[v], index[w])
            else:
                work.pop()
                if work:
                    low[work[-1][0]] = min(low[work[-1][0]], low[v])
                if low[v] == index[v]:
                    group = []
                    while True:
                        w = stack.pop()
                        on.discard(w)
                        group.append(w)
                        if w == v:
                            break
                    out.append(sorted(group))
    return out
