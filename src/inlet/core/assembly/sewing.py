"""From closed junctions to an order: which two parts each seam joins, where it turns, where it
stops short and what finishes it. The joins number the order of one part; ``units.joining`` puts
those of all parts together to the tree of the block."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import NamedTuple

from inlet.core.assembly.closing import Closing, close
from inlet.core.assembly.net import Faces, Net, seam_net
from inlet.core.assembly.paths import partners
from inlet.core.assembly.tree import Finish, Join, LeftOpen, Leg, Side, faces_of
from inlet.core.cancellation import check
from inlet.core.draft import Draft, points_of
from inlet.core.geometry import Circle, Curve, outline_area


class Order(NamedTuple):
    """The joins that make one part of all cells, which are their ready parts; ``short`` is by how
    many partial seams it may be longer than the shortest, where the search was cut short."""

    joins: tuple[Join, ...]
    short: int = 0

    @property
    def awkward(self) -> tuple[int, int]:
        """Pivots, then places where seams are left open."""
        pivots = sum(len(join.pivots) for join in self.joins)
        return pivots, sum(len(join.left_open) for join in self.joins)


def sewing_order(draft: Draft, cells: Sequence[Faces]) -> Order | None:
    """The order in which to sew cells together, with the fewest pivots, then the fewest partial
    seams, as far as they can be told (see ``closing``); None if the cells do not hang together by
    their sides without a hole. Straight seams come as early as they may, between the smallest
    parts, so that what is small is sewn in pairs first."""
    net = seam_net(draft, cells)
    if len(cells) - len(net.seams) + len(net.junctions) != 1:
        return None
    closing = close(net)
    if closing is None:
        return None
    paths = _paths(net, closing)
    return Order(_in_order(draft, net, closing, paths), closing.cost[1] - closing.at_least[1])


class _Path(NamedTuple):
    seams: tuple[int, ...]
    vertices: tuple[int, ...]


def _paths(net: Net, closing: Closing) -> list[_Path]:
    """Seams that are sewn in one go, from the end met first."""
    partner = partners(closing.chosen)
    paths, done = [], set()
    for n, seam in enumerate(net.seams):
        for v in (seam.start, seam.end):
            if n in done or (n, v) in partner:
                continue
            line, vertices, at = [n], [v], v
            while True:
                at = net.seams[line[-1]].far(at)
                vertices.append(at)
                onward = partner.get((line[-1], at))
                if onward is None:
                    break
                line.append(onward)
            done |= set(line)
            paths.append(_Path(tuple(line), tuple(vertices)))
    return paths


class _Sewn(NamedTuple):
    """A path in the order of sewing, and what it joins: cells by their number, then what was sewn
    before, counted on from there."""

    path: int
    parts: tuple[int, int]


def _in_order(draft: Draft, net: Net, closing: Closing, paths: Sequence[_Path]) -> tuple[Join, ...]:
    """The joins of a net whose junctions are closed, each after those it waits for."""
    of = {n: p for p, path in enumerate(paths) for n in path.seams}
    sewn = _sequence(draft, net, closing, paths, of)
    number = {each.path: i for i, each in enumerate(sewn, 1)}
    opened: dict[int, list[LeftOpen]] = defaultdict(list)
    finished: dict[int, list[tuple[int, int]]] = defaultdict(list)
    for v, option in sorted(closing.chosen.items()):
        if option.left_open is not None:
            early, late = of[option.left_open], of[option.pair[0]]
            opened[early].append(LeftOpen(v, number[late]))
            finished[late].append((v, number[early]))
    joins: list[Join] = []
    sides: list[Side] = list(net.cells)
    for p, (one, other) in sewn:
        check()
        join = _join(draft, net, closing, paths[p], (sides[one], sides[other]))
        joins.append(
            replace(
                join,
                number=len(joins) + 1,
                left_open=tuple(opened[p]),
                finishes=tuple(Finish(v, joins[early - 1]) for v, early in finished[p]),
            )
        )
        sides.append(joins[-1])
    return tuple(joins)


def _sequence(
    draft: Draft, net: Net, closing: Closing, paths: Sequence[_Path], of: Mapping[int, int]
) -> list[_Sewn]:
    """The paths in the order they are sewn: of those that wait for nothing, one that turns no
    corner and joins the smallest parts comes first. ``of`` is the path of each seam."""
    before: list[set[int]] = [set() for _ in paths]
    for v, option in closing.chosen.items():
        for n in net.junctions[v].seams:
            if n not in option.pair:
                before[of[option.pair[0]]].add(of[n])
    part = list(range(len(net.cells)))  # of each cell
    size = [(len(faces), _area(draft, faces)) for faces in net.cells]
    turns = [
        sum(v in closing.chosen and closing.chosen[v].cost[0] for v in path.vertices[1:-1])
        for path in paths
    ]
    waiting, done = set(range(len(paths))), set[int]()
    sewn_blocks: list[_Sewn] = []
    while waiting:
        check()
        ready = [p for p in waiting if before[p] <= done]
        beside = {p: net.seams[paths[p].seams[0]] for p in ready}
        sizes = {p: sorted((size[part[s.right]], size[part[s.left]])) for p, s in beside.items()}
        p = min(ready, key=lambda p: (turns[p], sum(s[0] for s in sizes[p]), *sizes[p], p))
        waiting.discard(p)
        done.add(p)
        one, other = sorted((part[beside[p].right], part[beside[p].left]))
        made = len(size)
        size.append((size[one][0] + size[other][0], size[one][1] + size[other][1]))
        part = [made if q in (one, other) else q for q in part]
        sewn_blocks.append(_Sewn(p, (one, other)))
    return sewn_blocks


def _area(draft: Draft, faces: Faces) -> float:
    """How large cells are, so that like ones come one after the other."""
    return round(sum(outline_area(draft.arrangement.outlines[f]) for f in faces), 6)


def _straight_on(net: Net, path: _Path, i: int) -> bool:
    """Does a path go straight over its i-th vertex?"""
    pair = frozenset((path.seams[i - 1], path.seams[i]))
    return pair in net.junctions[path.vertices[i]].straight


def _join(draft: Draft, net: Net, closing: Closing, path: _Path, sides: tuple[Side, Side]) -> Join:
    """A path as a join of two parts, not numbered yet, with nothing left open."""
    edges = tuple(net.seams[n].edge for n in path.seams)
    ends = {path.vertices[0], path.vertices[-1]}
    return Join(
        0,
        sides,
        faces_of(sides[0]) | faces_of(sides[1]),
        edges,
        path.vertices,
        curves_along(draft, edges, path.vertices),
        _legs(net, closing, path),
        tuple(v for v in path.vertices[1:-1] if closing.chosen[v].cost[0]),
        tuple(v for v in sorted(ends) if v in closing.chosen and closing.chosen[v].cost[0]),
    )


def curves_along(draft: Draft, edges: Sequence[int], vertices: Sequence[int]) -> tuple[Curve, ...]:
    """The edges of a seam as curves at finished size, each from one of its vertices to the next."""
    arrangement, (sx, sy) = draft.arrangement, draft.block.scale
    points = points_of(draft)
    lines = [arrangement.lines[arrangement.edges[k].line] for k in edges]
    centres = [on.centre.scaled(sx, sy) if isinstance(on, Circle) else None for on in lines]
    return tuple(
        Curve(points[v], points[w], centre)
        for (v, w), centre in zip(pairwise(vertices), centres, strict=True)
    )


def _legs(net: Net, closing: Closing, path: _Path) -> tuple[Leg, ...]:
    """The stretches between a path's corners. At a corner where a seam was left open, the stretch
    that goes on from it comes after the other, which is sewn past it to the edge."""
    last = len(path.vertices) - 1
    corners = [i for i in range(1, last) if not _straight_on(net, path, i)]
    bounds = [0, *corners, last]
    legs = [Leg(*pair) for pair in pairwise(bounds)]
    later: dict[int, set[int]] = {k: set() for k in range(len(legs))}
    for k, i in enumerate(corners):
        junction = net.junctions[path.vertices[i]]
        left_open = closing.chosen[path.vertices[i]].left_open
        if left_open is not None:
            on = frozenset((path.seams[i - 1], left_open)) in junction.straight
            goes_on, ends = (k, k + 1) if on else (k + 1, k)
            later[goes_on].add(ends)
            begin, end = (i, bounds[k]) if on else (i, bounds[k + 2])
            legs[goes_on] = Leg(begin, end, True)
    out: list[int] = []
    while len(out) < len(legs):
        out.append(next(k for k in later if k not in out and later[k] <= set(out)))
    return tuple(legs[k] for k in out)
