"""Squares with improvised corners: no two beside one another alike.

Angles vary on purpose. Where each seam lies is drawn by chance, always the same for a seed and a
place, within the maker's bounds, and drawn again where a square beside it has the same seam or the
same fabric at the same corner, as they lie.
"""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterable, Iterator
from math import hypot
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.improvised.seams import CornerSeam, ImprovisedSquare
from inlet.core.project import Pair

MOST_DRAWN = 50
"""After so many draws bounds leave no other seam: the last one is taken."""
BESIDE = 1.2
"""Squares whose middles lie nearer than so many sides touch along a side."""


class Spot(NamedTuple):
    """Where a square lies: the ``key`` that chance begins with, its ``middle`` in sides of a
    square, and how it is turned there: mirrored if so, then turned by so many quarters."""

    key: int
    middle: tuple[float, float]
    quarters: int = 0
    mirror: bool = False


def field_of(columns: int, rows: int) -> Iterator[Spot]:
    """Squares in rows, none turned, in reading order."""
    for row in range(rows):
        check()
        for column in range(columns):
            yield Spot(key_of(column, row), (float(column), float(row)))


def key_of(column: int, row: int, more: int = 0) -> int:
    """What chance begins with at a place; ``more`` tells places of one column and row apart."""
    return (more * 4099 + row) * 4099 + column


class CornerRules(NamedTuple):
    """What corners are drawn from: pairs of ``lengths`` from the corner (see ``lengths_within``),
    ``fabrics``, from ``fewest`` to ``most`` of a square, by the chance of a ``seed``; ``balance``:
    all fabrics equally often."""

    lengths: tuple[Pair, ...]
    fabrics: tuple[str, ...]
    fewest: int
    most: int
    seed: int
    balance: bool = True


def improvised_squares(spots: Iterable[Spot], rules: CornerRules) -> Iterator[ImprovisedSquare]:
    """A square for each spot; nothing where there are no lengths or no fabrics. No square has a
    seam, or the fabric of a corner, that an earlier one beside it has at the same corner as they
    lie."""
    if not rules.lengths or not rules.fabrics:
        return
    near = _Nearby()
    used: Counter[str] = Counter()
    for spot in spots:
        check()
        chance = random.Random(rules.seed * 0x9E3779B1 + spot.key)
        square = _drawn(chance, rules, spot, near.beside(spot), used)
        near.add(spot, square)
        used.update(square.fabrics)
        yield square


Corner = tuple[int, object, object]
"""A corner as it lies, and the two lengths of its seam, level and upright."""


def as_it_lies(seam: CornerSeam, spot: Spot) -> Corner:
    """A seam on a square that was mirrored left to right, then turned clockwise."""
    corner, level, upright = seam.corner, seam.along, seam.down
    if spot.mirror:
        corner = (1, 0, 3, 2)[corner]
    if spot.quarters % 2:
        level, upright = upright, level
    return (corner + spot.quarters) % 4, level, upright


class _Nearby:
    """What lies at which corner of the squares drawn so far, by where they lie."""

    def __init__(self) -> None:
        self._cells: dict[tuple[int, int], list[tuple[tuple[float, float], _Worn]]] = {}

    def add(self, spot: Spot, square: ImprovisedSquare) -> None:
        corners = [as_it_lies(seam, spot) for seam in square.seams]
        pairs = zip(corners, square.fabrics, strict=True)
        worn = frozenset(corners), frozenset((corner[0], fabric) for corner, fabric in pairs)
        self._cells.setdefault(_cell(spot), []).append((spot.middle, worn))

    def beside(self, spot: Spot) -> _Worn:
        """The seams and the fabrics of the squares that touch this one along a side."""
        seams: set[Corner] = set()
        fabrics: set[tuple[int, str]] = set()
        i, j = _cell(spot)
        x, y = spot.middle
        for a in (i - 1, i, i + 1):
            for b in (j - 1, j, j + 1):
                for (u, v), worn in self._cells.get((a, b), ()):
                    if hypot(u - x, v - y) < BESIDE:
                        seams |= worn[0]
                        fabrics |= worn[1]
        return frozenset(seams), frozenset(fabrics)


_Worn = tuple[frozenset[Corner], frozenset[tuple[int, str]]]


def _cell(spot: Spot) -> tuple[int, int]:
    return int(spot.middle[0] // BESIDE), int(spot.middle[1] // BESIDE)


def _drawn(
    chance: random.Random, rules: CornerRules, spot: Spot, beside: _Worn, used: Counter[str]
) -> ImprovisedSquare:
    number = chance.randint(min(rules.fewest, rules.most), rules.most)
    seams: list[CornerSeam] = []
    chosen: list[str] = []
    for corner in sorted(chance.sample(range(4), number)):
        for _ in range(MOST_DRAWN):
            seam = CornerSeam(corner, *chance.choice(rules.lengths))
            lies = as_it_lies(seam, spot)
            if lies not in beside[0]:
                break
        free = [fabric for fabric in rules.fabrics if (lies[0], fabric) not in beside[1]]
        free = free or list(rules.fabrics)
        if rules.balance:
            fewest = min(used[fabric] + chosen.count(fabric) for fabric in free)
            free = [fabric for fabric in free if used[fabric] + chosen.count(fabric) == fewest]
        seams.append(seam)
        chosen.append(chance.choice(free))
    return ImprovisedSquare(tuple(seams), tuple(chosen))
