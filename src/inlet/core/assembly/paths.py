"""What a choice of closing pairs comes to: the paths that are sewn in one go, and which wait for
which. Paths that wait for one another in a circle cannot be sewn."""

from __future__ import annotations

from collections import deque
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from inlet.core.assembly.net import Net
from inlet.core.assembly.options import Option


class Paths(NamedTuple):
    """Seams that are sewn in one go, for one choice at each junction.

    ``of`` is the number of each seam's path; ``seams`` and ``inner`` are each path's seams and
    inner junctions in order; ``after``: path -> {path that must come later: at which junction};
    ``loops`` are paths that close on themselves.
    """

    net: Net
    of: list[int]
    seams: list[list[int]]
    inner: list[list[int]]
    after: list[dict[int, int]]
    loops: list[int]

    def tangled(self) -> list[list[int]]:
        """Groups of paths that wait for one another: strongly connected, or for themselves."""
        groups = _components(self.after)
        return [g for g in groups if len(g) > 1 or g[0] in self.after[g[0]] or g[0] in self.loops]

    def circle(self, group: Sequence[int]) -> frozenset[int]:
        """The junctions of a short circle in a tangled group."""
        found = (self.circle_through(set(group), start) for start in group)
        return min(found, key=lambda c: (len(c), sorted(c)))

    def apart(self) -> list[frozenset[int]]:
        """Circles that share no junction, taken greedily, one at least from each tangled group."""
        out: list[frozenset[int]] = []
        gone: set[int] = set()
        after = [dict(row) for row in self.after]
        left = self._replace(after=after, loops=list(self.loops))
        while tangled := left.tangled():
            for group in tangled:
                circle = left.circle(group)
                if not circle & gone:
                    out.append(circle)
                gone |= circle
                touching = {p for p in group if set(self.inner[p]) & circle}
                left.loops[:] = [p for p in left.loops if p not in touching]
                for p in touching:
                    after[p].clear()
                for row in after:
                    for p in touching:
                        row.pop(p, None)
        return out

    def circle_through(self, group: set[int], start: int) -> frozenset[int]:
        """The junctions of a shortest circle from one path of a tangled group back to it."""
        if start in self.loops:
            return frozenset(self.inner[start])
        before: dict[int, int] = {}
        waiting = deque([start])
        while start not in before:
            p = waiting.popleft()
            for q in self.after[p]:
                if q in group and q not in before:
                    before[q] = p
                    waiting.append(q)
        ring = [start]
        while (p := before[ring[-1]]) != start:
            ring.append(p)
        return self._support(ring[::-1])

    def _support(self, ring: Sequence[int]) -> frozenset[int]:
        """The junctions that hold a circle of paths, each before the next, together: where each
        runs into the next, and those in it between where it is run into and where it ends."""
        out: set[int] = set()
        for i, path in enumerate(ring):
            came = self.after[ring[i - 1]][path]
            goes = self.after[path][ring[(i + 1) % len(ring)]]
            inner = self.inner[path]
            at = inner.index(came)
            out.add(goes)
            out |= set(inner[at:] if self._ends_at(path, goes) else inner[: at + 1])
        return frozenset(out)

    def _ends_at(self, path: int, v: int) -> bool:
        """Does a path end, rather than begin, at ``v``?"""
        last, inner = self.net.seams[self.seams[path][-1]], self.inner[path]
        return v in (last.start, last.end) and (not inner or inner[-1] != v)


def partners(chosen: Mapping[int, Option]) -> dict[tuple[int, int], int]:
    """(seam, vertex) -> the seam it is sewn on into there, for every closing pair."""
    out: dict[tuple[int, int], int] = {}
    for v, option in chosen.items():
        one, other = option.pair
        out[one, v], out[other, v] = other, one
    return out


def paths_of(net: Net, chosen: Mapping[int, Option]) -> Paths:
    """The paths that the closing pairs chosen at each junction make of the seams."""
    partner = partners(chosen)
    seams = net.seams
    of = [-1] * len(seams)
    listed: list[list[int]] = []
    inner: list[list[int]] = []
    loops: list[int] = []

    for first, start in enumerate(seams):
        if of[first] >= 0:
            continue
        number = len(listed)
        of[first] = number
        line, at = [first], list[int]()
        seam, v = first, start.end
        while (onward := partner.get((seam, v))) is not None:
            at.append(v)
            if of[onward] == number:
                break  # back where it began
            of[onward] = number
            line.append(onward)
            far = seams[onward]
            seam, v = onward, far.end if v == far.start else far.start
        if len(at) == len(line):
            loops.append(number)
        else:
            seam, v = first, start.start
            while (onward := partner.get((seam, v))) is not None:
                of[onward] = number
                at.insert(0, v)
                line.insert(0, onward)
                far = seams[onward]
                seam, v = onward, far.end if v == far.start else far.start
        listed.append(line)
        inner.append(at)
    after: list[dict[int, int]] = [{} for _ in listed]
    for v, option in chosen.items():
        late = of[option.pair[0]]
        for n in net.junctions[v].seams:
            if n not in option.pair:
                after[of[n]].setdefault(late, v)
    return Paths(net, of, listed, inner, after, loops)


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
        if not after[root]:  # alone, as nothing waits for it
            index[root] = low[root] = len(index)
            out.append([root])
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
                    if not after[w]:
                        out.append([w])
                        continue
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
