"""Colourways scattered over a quilt by chance, and by rules.

Place by place, row by row, each gets the colourway that breaks the rules least: not that of a
neighbour, no fabric of the block before it, the rarest so far, and one whose lightness makes up for
that of the neighbours. Chance decides between equals. Then pairs of places change over where that
is better. One seed gives one scatter.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from random import Random
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import draft, lightness
from inlet.core.geometry import area
from inlet.core.project import Block, Colourway, Project, Scatter
from inlet.core.setting.colourways import in_colourway
from inlet.core.setting.places import Placed, diagonal

Spot = tuple[int, int]
ALIKE, SHARED, RARE, VALUE = 1000.0, 60.0, 8.0, 0.2
"""What breaking each rule costs: alike side by side, a fabric twice in a row, one colourway once
more than another; and, squared, ten of lightness more or less than the mean in a place and the
eight round it together."""
PASSES = 3
TRIES = 10
"""Changes over that are tried for each place."""


class Scattered(NamedTuple):
    """The colourway of each place that names none itself, and how many places still lie beside
    their like."""

    ways: Mapping[Spot, str]
    alike: int


def scattered(places: Sequence[Placed], project: Project) -> Scattered:
    """The project's colourways scattered over ``places``."""
    quilt = project.quilt
    if quilt is None or quilt.scatter is None:
        return Scattered({}, 0)
    colourways = [
        way for name in quilt.scatter.colourways if (way := quilt.colourway(name)) is not None
    ]
    blocks = [place for place in places if place.block]
    if not colourways or not blocks:
        return Scattered({}, 0)
    return _Scatter(blocks, colourways, quilt.scatter, project).found()


class _Scatter:
    def __init__(
        self, places: Sequence[Placed], ways: Sequence[Colourway], rules: Scatter, project: Project
    ) -> None:
        self.rules, self.ways, self.places = rules, ways, places
        self.chance = Random(rules.seed)
        number = {way.id: i for i, way in enumerate(ways)}
        at = {_at(place, project): i for i, place in enumerate(places)}
        steps = ((1, 0), (-1, 0), (0, 1), (0, -1))
        self.beside = [
            [at[x + dx, y + dy] for dx, dy in steps if (x + dx, y + dy) in at] for x, y in at
        ]
        near = [(dx, dy) for dx in (-1, 0, 1) for dy in (-1, 0, 1)]
        self.around = [
            [at[x + dx, y + dy] for dx, dy in near if (x + dx, y + dy) in at] for x, y in at
        ]
        self.before = [at.get((x - 1, y), -1) for x, y in at]
        self.after = [at.get((x + 1, y), -1) for x, y in at]
        self.way = [number.get(place.colourway, -1) for place in places]
        self.free = [i for i, place in enumerate(places) if not place.colourway]
        fabrics = [set(way.fabrics.values()) for way in ways]
        self.shared = [
            [rules.fabrics_apart and one is not other and bool(one & other) for other in fabrics]
            for one in fabrics
        ]
        light = _lightness(places, ways, project)
        mean = sum(map(sum, light)) / (len(light) * len(ways))
        self.light = [[(v - mean) / 10 for v in line] for line in light]

    def found(self) -> Scattered:
        count = Counter(w for w in self.way if w >= 0)
        for i in self.free:
            round_it = self._light_round(i)
            costs = [
                (
                    self._cost(i, way)
                    + RARE * count[way]
                    + self.chance.random()
                    + (VALUE * (round_it + self.light[i][way]) ** 2 if self.rules.balance else 0.0),
                    way,
                )
                for way in range(len(self.ways))
            ]
            self.way[i] = min(costs)[1]
            count[self.way[i]] += 1
        self._make_even(count)
        self._change_over()
        alike = sum(
            any(self.way[i] == self.way[j] for j in self.beside[i]) for i in range(len(self.way))
        )
        ways = {
            (self.places[i].column, self.places[i].row): self.ways[self.way[i]].id
            for i in self.free
        }
        return Scattered(ways, alike if self.rules.apart else 0)

    def _cost(self, i: int, way: int) -> float:
        """What a colourway in a place costs, beside those that are laid already."""
        cost = 0.0
        near = [self.way[j] for j in self.beside[i] if self.way[j] >= 0]
        if self.rules.apart:
            cost += ALIKE * near.count(way)
        for j in (self.before[i], self.after[i]):
            if j >= 0 and self.way[j] >= 0 and self.shared[way][self.way[j]]:
                cost += SHARED
        return cost

    def _light_round(self, i: int) -> float:
        """How much lighter than the mean a place and those round it are, as far as they are
        laid."""
        return sum(self.light[j][self.way[j]] for j in self.around[i] if self.way[j] >= 0)

    def _make_even(self, count: Counter[int]) -> None:
        """Places of the commonest colourways given rarer ones, where that breaks no more rules."""
        ways = range(len(self.ways))
        for _ in range(PASSES):
            for i in self.free:
                check()
                one = self.way[i]
                for other in sorted(ways, key=lambda way: count[way]):
                    if count[one] - count[other] < 2:
                        break
                    if self._cost(i, other) <= self._cost(i, one):
                        count[one] -= 1
                        count[other] += 1
                        self.way[i] = other
                        break

    def _change_over(self) -> None:
        """Pairs of free places tried the other way round."""
        if len(self.free) < 2:
            return
        worst = [i for i in self.free if self._cost(i, self.way[i]) >= ALIKE]
        sums = [self._light_round(i) for i in range(len(self.way))]
        number = len(self.free)
        for i in (*worst * 8, *self.free * TRIES):
            check()
            j = self.free[int(self.chance.random() * number)]
            one, other = self.way[i], self.way[j]
            if one == other or j in self.around[i]:
                continue
            lighter = self.light[i][other] - self.light[i][one]
            darker = self.light[j][one] - self.light[j][other]
            better = 0.0
            if self.rules.balance:
                better = VALUE * (self._shift(sums, i, lighter) + self._shift(sums, j, darker))
                if better >= 0 and i not in worst:
                    continue
            better += self._cost(i, other) + self._cost(j, one)
            better -= self._cost(i, one) + self._cost(j, other)
            if better < -1e-9:
                self.way[i], self.way[j] = other, one
                for place, by in ((i, lighter), (j, darker)):
                    for k in self.around[place]:
                        sums[k] += by

    def _shift(self, sums: list[float], i: int, by: float) -> float:
        """How much more is off the mean, squared and summed, with a place so much lighter."""
        shifts = self.around[i]
        return 2 * by * sum(sums[k] for k in shifts) + by * by * len(shifts)


def _at(place: Placed, project: Project) -> Spot:
    on_point = project.quilt is not None and project.quilt.on_point
    return diagonal(place.column, place.row) if on_point else (place.column, place.row)


def _lightness(
    places: Sequence[Placed], ways: Sequence[Colourway], project: Project
) -> list[list[float]]:
    """The mean lightness of each place in each colourway."""
    known: dict[str, list[float]] = {}
    blocks = {block.id: block for block in project.blocks}
    levels = []
    for place in places:
        line = known.get(place.block)
        if line is None:
            block = blocks.get(place.block)
            line = [0.0] * len(ways)
            if block is not None:
                line = [_block_lightness(in_colourway(block, way), project) for way in ways]
            known[place.block] = line
        levels.append(line)
    return levels


def _block_lightness(block: Block, project: Project) -> float:
    """A block's lightness, each patch weighed by its area."""
    whole, sum_ = 0.0, 0.0
    for patch in draft(block).patches:
        fabric = project.fabric(patch.fabric or "")
        size = abs(float(area(patch.outline)))
        whole += size
        sum_ += size * (lightness(fabric.colour) if fabric is not None else 100.0)
    return sum_ / whole if whole else 0.0
