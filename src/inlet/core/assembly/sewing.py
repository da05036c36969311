"""From closed junctions to an order: which two parts each seam joins, where it turns, where it
stops short and what finishes it."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from inlet.core.assembly.closing import Closing, close, partners
from inlet.core.assembly.net import Faces, Net, seam_net
from inlet.core.draft.patches import Draft
from inlet.core.geometry.curve import Circle, Curve
from inlet.core.geometry.outline import outline_area
from inlet.core.geometry.point import Point
from inlet.core.stopping import check


class Finish(NamedTuple):
    """A seam left open before that is finished from ``vertex`` on, together with this one."""

    vertex: int
    sewing: int


class Leg(NamedTuple):
    """A stretch of a seam without a corner, from one of its vertices to another, by their places
    in it. ``finishes``: at its beginning it goes on from a seam left open before."""

    begin: int
    end: int
    finishes: bool = False


class Sewing(NamedTuple):
    """One seam sewn, between two parts: cells by their number, then what sewings before made,
    counted on from there.

    ``edges`` and ``vertices`` (of the arrangement) run along it from one end to the other;
    ``points`` are where those lie, finished lengths, ``centres`` those of edges that are arcs.
    ``legs`` are its stretches between corners in
    the order they are sewn. ``pivots`` are the vertices where it turns a corner, ``dots`` those of
    its ends where a later one does, so that it stops there, an allowance short of the raw edge. An
    end in ``left_open`` is sewn only when the sewing beside it is: this one is a partial seam.
    ``finishes`` are those it finishes itself.
    """

    parts: tuple[int, int]
    edges: tuple[int, ...]
    vertices: tuple[int, ...]
    points: tuple[Point, ...] = ()
    centres: tuple[Point | None, ...] = ()
    legs: tuple[Leg, ...] = ()
    pivots: tuple[int, ...] = ()
    dots: tuple[int, ...] = ()
    left_open: tuple[Finish, ...] = ()
    finishes: tuple[Finish, ...] = ()

    @property
    def kind(self) -> str:
        """``set-in``, ``partial``, ``curve`` or ``straight``."""
        if self.pivots:
            return "set-in"
        if self.left_open:
            return "partial"
        return "curve" if any(self.centres) else "straight"

    def curve(self, i: int) -> Curve:
        """The i-th edge as a curve, finished lengths."""
        return Curve(self.points[i], self.points[i + 1], self.centres[i])


class Order(NamedTuple):
    """The sewings that make one part of all cells; ``short`` is by how many partial seams it may
    be longer than the shortest, where the search for that was cut short."""

    sewings: tuple[Sewing, ...]
    short: int = 0

    @property
    def partial(self) -> int:
        """How many places seams are left open at."""
        return sum(len(s.left_open) for s in self.sewings)

    @property
    def awkward(self) -> tuple[int, int]:
        """Pivots, then partial seams."""
        return sum(len(s.pivots) for s in self.sewings), self.partial


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
    out, done = [], set()
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
            out.append(_Path(tuple(line), tuple(vertices)))
    return out


def _in_order(
    draft: Draft, net: Net, closing: Closing, paths: Sequence[_Path]
) -> tuple[Sewing, ...]:
    of = {n: p for p, path in enumerate(paths) for n in path.seams}
    before: list[set[int]] = [set() for _ in paths]
    for v, option in closing.chosen.items():
        for n in net.junctions[v].seams:
            if n not in option.pair:
                before[of[option.pair[0]]].add(of[n])
    part = list(range(len(net.cells)))  # of each cell
    size = [(len(faces), _spread(draft, faces)) for faces in net.cells]
    turns = [
        sum(v in closing.chosen and closing.chosen[v].cost[0] for v in path.vertices[1:-1])
        for path in paths
    ]
    waiting = set(range(len(paths)))
    number: dict[int, int] = {}
    out: list[Sewing] = []
    while waiting:
        check()
        ready = [p for p in waiting if before[p] <= number.keys()]
        sides = {p: net.seams[paths[p].seams[0]] for p in ready}
        sizes = {p: sorted((size[part[s.right]], size[part[s.left]])) for p, s in sides.items()}
        p = min(ready, key=lambda p: (turns[p], sum(s[0] for s in sizes[p]), *sizes[p], p))
        waiting.discard(p)
        number[p] = len(out)
        made, parts = len(size), sorted((part[sides[p].right], part[sides[p].left]))
        size.append((size[parts[0]][0] + size[parts[1]][0], size[parts[0]][1] + size[parts[1]][1]))
        part = [made if q in parts else q for q in part]
        out.append(_sewing(draft, net, closing, paths[p], (parts[0], parts[1])))
    return _with_finishes(net, closing, of, number, out)


def _spread(draft: Draft, faces: Faces) -> float:
    """How large cells are, so that like ones come one after the other."""
    return round(sum(outline_area(draft.arrangement.outlines[f]) for f in faces), 6)


def _straight_on(net: Net, path: _Path, i: int) -> bool:
    """Does a path go straight over its i-th vertex?"""
    pair = frozenset((path.seams[i - 1], path.seams[i]))
    return pair in net.junctions[path.vertices[i]].straight


def _sewing(
    draft: Draft, net: Net, closing: Closing, path: _Path, parts: tuple[int, int]
) -> Sewing:
    arrangement, (sx, sy) = draft.arrangement, draft.block.scale
    edges = tuple(net.seams[n].edge for n in path.seams)
    ends = {path.vertices[0], path.vertices[-1]}
    return Sewing(
        parts,
        edges,
        path.vertices,
        tuple(arrangement.points[v].scaled(sx, sy) for v in path.vertices),
        tuple(
            on.centre.scaled(sx, sy) if isinstance(on, Circle) else None
            for on in (arrangement.lines[arrangement.edges[k].line] for k in edges)
        ),
        _legs(net, closing, path),
        tuple(v for v in path.vertices[1:-1] if closing.chosen[v].cost[0]),
        tuple(v for v in sorted(ends) if v in closing.chosen and closing.chosen[v].cost[0]),
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


def _with_finishes(
    net: Net, closing: Closing, of: dict[int, int], number: dict[int, int], out: list[Sewing]
) -> tuple[Sewing, ...]:
    for v, option in sorted(closing.chosen.items()):
        if option.left_open is not None:
            early, late = number[of[option.left_open]], number[of[option.pair[0]]]
            out[early] = out[early]._replace(left_open=(*out[early].left_open, Finish(v, late)))
            out[late] = out[late]._replace(finishes=(*out[late].finishes, Finish(v, early)))
    return tuple(out)
