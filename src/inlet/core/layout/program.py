"""Strips that hold everything with the least fabric, or the fewest cuts: by SciPy's solvers.

Column generation finds patterns worth having: as long as some strip is worth more than it costs, at
what the pieces are worth to the strips found so far (the duals of the linear program), it is added.
Of most patterns the linear program wants so many and a bit. The whole ones are cut; the rest is a
small integer program over all patterns, and over single strips put together segment by segment,
which fit the last pieces as no repeated pattern does.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import csr_array

from inlet.core.cancellation import check
from inlet.core.layout.patterns import (
    Bit,
    Chosen,
    Kind,
    Pattern,
    PatternRow,
    PatternSegment,
    Price,
    Room,
    in_order,
)
from inlet.core.layout.pricing import Pricer

ROUNDS = 8
NEW_A_ROUND = 6
FIRST_ROUND = 20
WHOLE_SHARE = 0.8
"""So much of what the linear program wants of a pattern is cut; the rest stays open."""
GAP, GAP_COLUMNS = 0.05, 150
"""How near the integer program's rest comes to what is proved before it is left, with so many
columns; larger ones are left as much sooner as they are larger."""
MOST_HEIGHTS = 8
MOST_SEGMENTS = 30
LEAST_FILLED = 0.8
HIGHEST_ROWS = 3
"""Strips are looked for up to so many of the widest pieces wide."""


class Pool:
    """Patterns found so far."""

    def __init__(self, kinds: Sequence[Kind], room: Room, price: Price, most: int | None) -> None:
        self.kinds, self.room, self.price, self.most = kinds, room, price, most
        self.wanted = np.array([kind.number for kind in kinds], float)
        longest = max(min(h for w, h, _ in k.ways() if w <= room.across) for k in kinds if k.number)
        sides = max(max(h for w, h, _ in k.ways() if w <= room.across) for k in kinds if k.number)
        area = sum(kind.area * kind.number for kind in kinds)
        highest = max(longest, sides, min(HIGHEST_ROWS * longest, area * 11 // (10 * room.across)))
        if most is not None:
            highest = min(highest, most)
        self.pricer = Pricer(kinds, room, highest)
        self.patterns: list[Pattern] = []
        self._known: set[Pattern] = set()

    def add(self, patterns: Iterable[Pattern]) -> int:
        """How many of them are new."""
        new = [p for p in patterns if p.segments and p not in self._known]
        new = list(dict.fromkeys(new))
        self._known.update(new)
        self.patterns += new
        return len(new)

    def _gives(self) -> NDArray[np.float64]:
        """By kind and pattern: how many pieces it gives."""
        array = np.zeros((len(self.kinds), len(self.patterns)))
        for j, pattern in enumerate(self.patterns):
            for kind, number in pattern.counts().items():
                array[kind, j] = number
        return array

    def generate(self) -> NDArray[np.float64]:
        """Patterns added until none is worth more than it costs; how many of each the linear
        program wants."""
        heights = np.array(self.pricer.heights)
        strip_costs = np.array([self.price.of_strip(high) for high in self.pricer.heights])
        values = np.array([kind.area / self.room.across for kind in self.kinds])
        worth = self.pricer.run(values)
        filled = np.argsort(-worth / heights, kind="stable")[:FIRST_ROUND]
        self.add(self.pricer.pattern(int(i)) for i in filled if worth[i] > 0)
        for _ in range(ROUNDS):
            check()
            wants, values = self._linear()
            worth = self.pricer.run(values)
            gains = worth - strip_costs
            better = [i for i in np.argsort(-gains, kind="stable")[:NEW_A_ROUND] if gains[i] > 1e-6]
            if not self.add(self.pricer.pattern(int(i)) for i in better):
                break
        self._worth = worth / heights
        if len(wants) < len(self.patterns):
            wants, _ = self._linear()
        return wants

    def _linear(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """How many of each pattern, and what a piece of each kind is worth then. With so much
        length only, pieces that find no room are paid for by their area."""
        gives = self._gives()
        cost = np.array([self.price.of(p) for p in self.patterns])
        found = linprog(cost, A_ub=-gives, b_ub=-self.wanted, method="highs")
        assert found.x is not None, "strips of one kind alone always hold everything"
        return found.x, -found.ineqlin.marginals

    def finished(self, wants: NDArray[np.float64], work: int) -> Chosen | None:
        """Whole strips: most of what the linear program wants, and the integer program's rest."""
        whole = np.zeros(len(wants), int)
        if self.most is None:
            whole = np.floor(wants * WHOLE_SHARE + 1e-9).astype(int)
        left = self.wanted - self._gives() @ whole
        kinds = [k._replace(number=max(0, round(n))) for k, n in zip(self.kinds, left, strict=True)]
        rest = _Rest(kinds, self, self._single_heights()).solved(work)
        if rest is None:
            return None
        return rest + [(p, int(n)) for p, n in zip(self.patterns, whole, strict=True) if n]

    def _single_heights(self) -> list[int]:
        """Widths of single strips to put together: the best filled ones, and those of pieces."""
        order = np.argsort(-self._worth, kind="stable")[:MOST_HEIGHTS]
        best = {self.pricer.heights[int(i)] for i in order}
        return sorted(best.union(self.pricer.row_heights))


class _Rest:
    """The integer program: patterns as often as wanted, and single strips by their segments."""

    def __init__(self, kinds: Sequence[Kind], pool: Pool, heights: Sequence[int]) -> None:
        self.kinds, self.pool = kinds, pool
        self.cost: list[float] = []
        self.most: list[float] = []
        self.entries: list[tuple[int, int, float]] = []
        self.low: list[float] = [float(kind.number) for kind in kinds]
        self.high: list[float] = [np.inf] * len(kinds)
        self.singles: list[tuple[int, int, list[tuple[int, PatternSegment]]]] = []
        for pattern in pool.patterns:
            gives = pattern.counts().items()
            self._variable(pool.price.of(pattern), np.inf, gives)
        for high in heights:
            self._single(high)
        if pool.price.width:
            self._widths()
        if pool.most is not None:
            self._limited(pool.most)

    def _variable(self, cost: float, most: float, entries: Iterable[tuple[int, int]]) -> int:
        column = len(self.cost)
        self.cost.append(cost)
        self.most.append(most)
        self.entries += [(row, column, float(value)) for row, value in entries]
        return column

    def _row(self, low: float, high: float) -> int:
        self.low.append(low)
        self.high.append(high)
        return len(self.low) - 1

    def _single(self, high: int) -> None:
        """A strip so wide, once or not at all, with segments of any kind as far as it reaches."""
        price = self.pool.price
        own = price.of_strip(high) + price.stroke
        reach = self._row(0, np.inf)
        strip = self._variable(own, 1, [(reach, self.pool.room.across)])
        found = []
        for segment in segments_within(self.kinds, high, self.pool.room.reach):
            gives = Pattern(high, (segment,)).counts()
            entries = [*gives.items(), (reach, -segment.wide)]
            cost = price.stroke * (Pattern(high, (segment,)).strokes - 1)
            most = self.pool.room.across // segment.wide
            found.append((self._variable(cost, most, entries), segment))
        self.singles.append((high, strip, found))

    def _widths(self) -> None:
        """Each width used costs once."""
        strips: dict[int, list[int]] = {}
        for column, pattern in enumerate(self.pool.patterns):
            strips.setdefault(pattern.high, []).append(column)
        for high, column, _ in self.singles:
            strips.setdefault(high, []).append(column)
        most = float(sum(kind.number for kind in self.kinds)) + 1
        for columns in strips.values():
            row = self._row(0, np.inf)
            self._variable(self.pool.price.width, 1, [(row, round(most))])
            self.entries += [(row, column, -1.0) for column in columns]

    def _limited(self, length: int) -> None:
        """Only so much length: pieces may be left out, which costs more than any fabric saves."""
        row, more = self._row(-np.inf, float(length)), self.pool.price.strip
        self.entries += [
            (row, column, pattern.high + more) for column, pattern in enumerate(self.pool.patterns)
        ]
        self.entries += [(row, strip, high + more) for high, strip, _ in self.singles]
        for i, kind in enumerate(self.kinds):
            self._variable(2.0 * kind.area * self.pool.price.fabric, kind.number, [(i, 1)])

    def solved(self, work: int) -> Chosen | None:
        rows, columns, values = zip(*self.entries, strict=True)
        shape = (len(self.low), len(self.cost))
        matrix = csr_array((values, (rows, columns)), shape=shape)
        gap = GAP * max(1.0, len(self.cost) / GAP_COLUMNS)
        check()
        found = milp(
            np.array(self.cost),
            integrality=np.ones(len(self.cost), int),
            constraints=LinearConstraint(matrix, np.array(self.low), np.array(self.high)),
            bounds=Bounds(0, np.array(self.most)),
            options={"node_limit": max(1, work // len(self.cost)), "mip_rel_gap": gap},
        )
        check()
        return None if found.x is None else list(self._read(np.round(found.x).astype(int)))

    def _read(self, numbers: NDArray[np.int_]) -> Iterator[tuple[Pattern, int]]:
        for pattern, number in zip(self.pool.patterns, numbers, strict=False):
            if number:
                yield pattern, int(number)
        for high, strip, segments in self.singles:
            pattern_segments = [
                s._replace(number=int(numbers[c])) for c, s in segments if numbers[c]
            ]
            if numbers[strip] and pattern_segments:
                yield Pattern(high, in_order(pattern_segments)), 1


def segments_within(kinds: Sequence[Kind], high: int, reach: int) -> list[PatternSegment]:
    """Segments of a strip so wide that are well filled, the best first: a width of some piece, rows
    of one kind each, no more of a kind than is wanted."""
    segments: list[tuple[float, int, tuple[PatternRow, ...]]] = []
    widths = {wide for k in kinds if k.number for wide, _, _ in k.ways()}
    for wide in sorted(widths):
        least = LEAST_FILLED * wide * high
        for area, stack in _stacks(_rows(kinds, wide, high), high, least, wide <= reach):
            segments.append((-area / (wide * high), wide, stack))
    return [PatternSegment(wide, rows) for _, wide, rows in sorted(segments)[:MOST_SEGMENTS]]


MOST_ROWS = 8
MOST_STACKS = 400


class _RowOf(NamedTuple):
    """A row of one kind: how often it may be repeated, and the fabric in its pieces."""

    row: PatternRow
    most: int
    area: int


def _rows(kinds: Sequence[Kind], wide: int, high: int) -> list[_RowOf]:
    """Rows of one kind that nearly fill a segment's width, the fullest first, then widest first."""
    rows = []
    for i, kind in enumerate(kinds):
        for across, along, turned in kind.ways():
            number = min(wide // across, kind.number)
            if number and along <= high and number * across >= LEAST_FILLED * wide:
                row = PatternRow(along, (Bit(i, turned, number),))
                rows.append(_RowOf(row, kind.number // number, number * kind.area))
    rows.sort(key=lambda r: (-r.area / r.row.high, r.row))
    return sorted(rows[:MOST_ROWS], key=lambda r: (-r.row.high, r.row))


def _stacks(
    rows: Sequence[_RowOf], high: int, least: float, several: bool
) -> Iterator[tuple[int, tuple[PatternRow, ...]]]:
    """Rows put one below the other as far as they fit, where ``several`` may be, with at least so
    much fabric in pieces."""
    if not several:
        return ((row.area, (row.row,)) for row in rows if row.area >= least)
    stacks: list[tuple[int, int, tuple[PatternRow, ...]]] = [(high, 0, ())]
    for row, most, area in rows:
        more = []
        for left, filled, stack in stacks:
            for times in range(1, min(left // row.high, most) + 1):
                more.append(
                    (left - row.high * times, filled + area * times, stack + (row,) * times)
                )
        stacks += more
        if len(stacks) > MOST_STACKS:
            break
    return ((filled, stack) for _, filled, stack in stacks if stack and filled >= least)
