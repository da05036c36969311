"""The net of seams between cells, and the junctions where they meet.

A cell is a patch, or patches sewn together before. What matters of a junction is which of its seams
go straight on through it: those alone can be sewn over it without turning a corner.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from itertools import combinations
from math import hypot
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import Draft
from inlet.core.geometry import Circle, Point, cross, curve_length, dot

Faces = frozenset[int]


class NetSeam(NamedTuple):
    """A piece of seam between two junctions (or the edge of the whole): ``edge`` indexes the
    arrangement's edges; the cells are those on the right and left going from start to end."""

    edge: int
    start: int
    end: int
    right: int
    left: int
    length: float

    def far(self, vertex: int) -> int:
        """The other end."""
        return self.end if vertex == self.start else self.start


class NetJunction(NamedTuple):
    """Seams that meet, by their numbers in the net, and the pairs of them that go straight on, or
    smoothly, into one another."""

    vertex: int
    seams: tuple[int, ...]
    straight: frozenset[frozenset[int]]

    @property
    def passed(self) -> bool:
        """Does a seam go straight through? If none does, whoever is sewn last turns here."""
        return bool(self.straight)

    def onward(self, seam: int) -> int | None:
        """The seam that ``seam`` goes straight on into."""
        for pair in self.straight:
            if seam in pair:
                (other,) = pair - {seam}
                return other
        return None


class Net(NamedTuple):
    """``junctions`` are those inside the whole, by vertex; seams are in an order that does not
    depend on how the whole is turned or mirrored. ``places`` are vertices at finished size,
    ``headings`` the direction (one long) in which a seam leaves a junction."""

    cells: tuple[Faces, ...]
    seams: tuple[NetSeam, ...]
    junctions: dict[int, NetJunction]
    places: dict[int, tuple[float, float]]
    headings: dict[tuple[int, int], tuple[float, float]]


def seam_net(draft: Draft, cells: Sequence[Faces]) -> Net:
    """The net of the seams between ``cells``, which together have no hole and do not fall apart."""
    arrangement = draft.arrangement
    owner = {face: i for i, faces in enumerate(cells) for face in faces}
    sx, sy = (float(x) for x in draft.block.scale)
    net_seams: list[NetSeam] = []
    rim: set[int] = set()
    places: dict[int, tuple[float, float]] = {}
    near = {k for face in owner for k in arrangement.edges_of[face]}
    for k in sorted(near):
        edge = arrangement.edges[k]
        right, left = owner.get(edge.right), owner.get(edge.left)
        if right == left:
            continue
        if right is None or left is None:
            rim |= {edge.start, edge.end}
            continue
        for v in (edge.start, edge.end):
            x, y = arrangement.places[v]
            places[v] = (x * sx, y * sy)
        net_seams.append(NetSeam(k, edge.start, edge.end, right, left, _length(draft, k, places)))
    seams = tuple(_in_fixed_order(net_seams, places))
    at: dict[int, list[int]] = defaultdict(list)
    for n, seam in enumerate(seams):
        for v in {seam.start, seam.end} - rim:
            at[v].append(n)
    junctions: dict[int, NetJunction] = {}
    headings: dict[tuple[int, int], tuple[float, float]] = {}
    for v, numbers in sorted(at.items()):
        check()
        junctions[v] = _junction(draft, seams, v, numbers)
        headings |= {(n, v): unit_heading(draft, v, seams[n].edge) for n in numbers}
    return Net(tuple(cells), seams, junctions, places, headings)


def _length(draft: Draft, k: int, places: dict[int, tuple[float, float]]) -> float:
    edge = draft.arrangement.edges[k]
    if isinstance(draft.arrangement.lines[edge.line], Circle):
        return curve_length(draft.arrangement.curve(edge)) * float(draft.block.scale[0])
    (x, y), (u, v) = places[edge.start], places[edge.end]
    return float(((x - u) ** 2 + (y - v) ** 2) ** 0.5)


_TURNS = [(a, b, swap) for a in (1, -1) for b in (1, -1) for swap in (False, True)]


def _in_fixed_order(seams: list[NetSeam], places: dict[int, tuple[float, float]]) -> list[NetSeam]:
    """Seams by their places in whichever of the eight turns of the whole reads first, so that
    every choice made in their order is the same for all eight."""
    if len(seams) < 2:
        return seams
    xs, ys = zip(*places.values(), strict=True)
    x0, y0 = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2

    def read(turn: tuple[int, int, bool]) -> list[tuple[tuple[float, ...], int]]:
        check()
        a, b, swap = turn

        def spot(v: int) -> tuple[float, float]:
            x, y = round(a * (places[v][0] - x0), 6) + 0.0, round(b * (places[v][1] - y0), 6) + 0.0
            return (x, y) if swap else (y, x)

        ends = (sorted((spot(s.start), spot(s.end))) for s in seams)
        return sorted(((*p, *q, round(seams[i].length, 6)), i) for i, (p, q) in enumerate(ends))

    best = min((read(turn) for turn in _TURNS), key=lambda rows: [key for key, _ in rows])
    return [seams[i] for _, i in best]


def _junction(
    draft: Draft, seams: Sequence[NetSeam], v: int, numbers: Sequence[int]
) -> NetJunction:
    straight = frozenset(
        frozenset(pair)
        for pair in combinations(numbers, 2)
        if goes_on(draft, v, seams[pair[0]].edge, seams[pair[1]].edge)
    )
    return NetJunction(v, tuple(numbers), straight)


def goes_on(draft: Draft, v: int, one: int, other: int) -> bool:
    """Does one edge that ends at ``v`` go on straight, or without a corner, into the other?"""
    arrangement = draft.arrangement
    e, f = arrangement.edges[one], arrangement.edges[other]
    if e.line == f.line:
        return True
    round_ = [isinstance(arrangement.lines[k.line], Circle) for k in (e, f)]
    if not any(round_):
        return False
    p, q = heading(draft, v, one), heading(draft, v, other)
    return cross(p, q) == 0 and dot(p, q) < 0


def heading(draft: Draft, v: int, k: int) -> Point:
    """The direction in which an edge leaves one of its ends."""
    arrangement = draft.arrangement
    edge = arrangement.edges[k]
    on, here = arrangement.lines[edge.line], arrangement.points[v]
    if isinstance(on, Circle):
        point = here.minus(on.centre)
        # Edges of a circle run clockwise on screen from start to end.
        return Point(-point.y, point.x) if v == edge.start else Point(point.y, -point.x)
    return arrangement.points[edge.end if v == edge.start else edge.start].minus(here)


def unit_heading(draft: Draft, v: int, k: int) -> tuple[float, float]:
    """``heading`` at finished size, one long, in floats."""
    arrangement = draft.arrangement
    sx, sy = (float(x) for x in draft.block.scale)
    edge = arrangement.edges[k]
    if isinstance(arrangement.lines[edge.line], Circle):
        x, y = heading(draft, v, k).floats()
    else:
        (x0, y0), (x1, y1) = (
            arrangement.places[v],
            arrangement.places[edge.end if v == edge.start else edge.start],
        )
        x, y = x1 - x0, y1 - y0
    length = hypot(x * sx, y * sy)
    return x * sx / length, y * sy / length


def unpassed(draft: Draft) -> tuple[int, ...]:
    """The vertices inside a block that no seam passes: where three or more end, or one turns a
    corner. Whoever is sewn last there must pivot, in any order of sewing."""
    arrangement = draft.arrangement
    rim: set[int] = set()
    at: dict[int, list[int]] = defaultdict(list)
    for k, edge in enumerate(arrangement.edges):
        for v in (edge.start, edge.end):
            at[v].append(k)
            if edge.right < 0 or edge.left < 0:
                rim.add(v)
    return tuple(
        v
        for v, here in sorted(at.items())
        if v not in rim
        and len({arrangement.edges[k].line for k in here}) == len(here)
        and not any(goes_on(draft, v, *pair) for pair in combinations(here, 2))
    )
