"""Every exchange of a block's fabrics, each look once, and where a shape is lost by it.

An exchange gives each fabric of the block another one. Two of them that look alike when the block
is turned, or mirrored, are one. Where two fabrics that meet at a seam are close in value, the seam
does not show.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import permutations
from math import perm
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import Draft, fits, patch_polygons, too_near, turner, value_class
from inlet.core.geometry import Picture, Turn
from inlet.core.project import Fabric, Project

CLASSES = ("light", "medium", "dark")
MOST_EXCHANGES = 5040
"""More are not looked through: of seven fabrics all orders, of the six of a project any four."""


class Exchange(NamedTuple):
    """What each fabric of a block becomes, and over what length seams of the block that showed, or
    could show, lie between fabrics close in value then. Of an exchange of values, which of light,
    medium and dark becomes which."""

    fabrics: dict[str, str]
    lost: float
    values: tuple[tuple[str, str], ...] = ()


def exchanges(start: Draft, project: Project, every: bool = False) -> tuple[Exchange, ...]:
    """The exchanges of a block's fabrics among themselves, or for ``every`` fabric of the project;
    those that lose least first, of these the block as it is. None of a block in one fabric, and
    none where there are more than ``MOST_EXCHANGES``."""
    used = tuple(dict.fromkeys(p.fabric for p in start.patches if p.fabric is not None))
    known = {fabric.id: fabric for fabric in project.fabrics}
    others = [name for name in known if name not in used] if every else []
    candidates = [name for name in (*used, *others) if name in known]
    if len(candidates) < 2 or len(used) > len(candidates):
        return ()
    if perm(len(candidates), len(used)) > MOST_EXCHANGES:
        return ()
    orders = (dict(zip(used, new, strict=True)) for new in permutations(candidates, len(used)))
    return _each_look_once(start, known, ((fabrics, ()) for fabrics in orders))


def value_exchanges(start: Draft, project: Project) -> tuple[Exchange, ...]:
    """The exchanges of light, medium and dark among themselves, those that lose least first, of
    these the block as it is: each fabric becomes one of the other value, in order those of the
    block and then the project's others; where there are fewer, several become the same. A value
    that the project has no fabric of takes no other's place."""
    used = tuple(dict.fromkeys(p.fabric for p in start.patches if p.fabric is not None))
    known = {fabric.id: fabric for fabric in project.fabrics}
    names = [name for name in (*used, *(n for n in known if n not in used)) if name in known]
    of_value = {
        value: [name for name in names if value_class(known[name]) == value] for value in CLASSES
    }
    there = [value for value in CLASSES if any(name in used for name in of_value[value])]

    def orders() -> Iterator[tuple[dict[str, str], Values]]:
        for new in permutations([v for v in CLASSES if of_value[v]], len(there)):
            fabrics = {}
            for value, becomes in zip(there, new, strict=True):
                old = [name for name in of_value[value] if name in used]
                for i, name in enumerate(old):
                    fabrics[name] = of_value[becomes][i % len(of_value[becomes])]
            yield fabrics, tuple((a, b) for a, b in zip(there, new, strict=True) if a != b)

    return _each_look_once(start, known, orders())


Values = tuple[tuple[str, str], ...]
"""Which value becomes which."""


def _each_look_once(
    start: Draft, known: Mapping[str, Fabric], orders: Iterable[tuple[dict[str, str], Values]]
) -> tuple[Exchange, ...]:
    turns = patch_orders(start)
    seams = _seams(start)
    seen: set[tuple[str | None, ...]] = set()
    listed = []
    for fabrics, values in orders:
        check()
        look = tuple(fabrics.get(p.fabric) if p.fabric else None for p in start.patches)
        if look in seen:
            continue
        seen.update(tuple(look[i] for i in order) for order in turns)
        lost = 0.0
        for (a, b), length in seams.items():
            new = fabrics.get(a, a), fabrics.get(b, b)
            unseen = new[0] == new[1] or (
                new[0] in known and new[1] in known and too_near(known[new[0]], known[new[1]])
            )
            lost += length * unseen
        listed.append(Exchange(fabrics, lost, values))
    return tuple(sorted(listed, key=lambda each: each.lost))


def patch_orders(start: Draft) -> tuple[tuple[int, ...], ...]:
    """For every turn and mirror image in which the block has the same seams: which patch comes to
    lie where each was."""
    polygons = patch_polygons(start)
    where = {frozenset(polygon): i for i, polygon in enumerate(polygons)}
    orders = []
    turns: Sequence[Turn] = [(k, mirror) for mirror in (False, True) for k in range(4)]
    for turn in turns:
        if not fits(turn, start.block):
            continue
        move = turner(turn, *start.block.finished)
        moved = [where.get(frozenset(map(move, polygon))) for polygon in polygons]
        order = [-1] * len(moved)
        for i, to in enumerate(moved):
            if to is not None:
                order[to] = i
        if -1 not in order:
            orders.append(tuple(order))
    return tuple(orders)


def _seams(start: Draft) -> dict[tuple[str, str], float]:
    """How long the seams between each two different fabrics are, at finished size."""
    sx, sy = map(float, start.block.scale)
    places = start.arrangement.places
    lengths: dict[tuple[str, str], float] = defaultdict(float)
    for edge in start.arrangement.edges:
        if edge.right < 0 or edge.left < 0:
            continue
        a, b = start.patches[edge.right].fabric, start.patches[edge.left].fabric
        if a is not None and b is not None and a != b:
            (x, y), (u, v) = places[edge.start], places[edge.end]
            length = ((u - x) ** 2 * sx**2 + (v - y) ** 2 * sy**2) ** 0.5
            lengths[a, b] += length
    return lengths


def exchanged(picture: Picture, fabrics: dict[str, str]) -> Picture:
    """A picture with its fabrics exchanged."""
    return tuple((outline, fabrics.get(f, f) if f else f) for outline, f in picture)
