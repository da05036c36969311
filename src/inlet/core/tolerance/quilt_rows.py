"""What a hand will do to a quilt: how long its rows come out, whether they match one another, and
how large it is when its borders are sewn on.

Along a row each cell is as much too long as it comes out (blocks as their sewings say, strips and
plain squares as they are cut), and each seam between two takes twice what the hand takes more. Two
rows are laid on one another middle on middle; where both have a seam, it is looked at how far
these are apart.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from math import atan2, cos, pi, sin
from typing import NamedTuple

import numpy as np

from inlet.core.cancellation import check
from inlet.core.fitting import EASED
from inlet.core.plan import QuiltPlan
from inlet.core.setting import Cell, Row, TopPiece
from inlet.core.tolerance.forecast import (
    EDGE,
    USUAL_NUMBER,
    VISIBLE,
    Watched,
    all_outcomes,
)
from inlet.core.tolerance.pieces import Array
from inlet.core.tolerance.sewing_hand import PERFECT, SewingHand
from inlet.core.tolerance.sources import block_model

Spot = tuple[float, float]
SAME_PLACE = 1e-6
WITHOUT_SEAMS = ("side", "corner", "edge-corner")
"""Cells whose far end is cut level with the quilt's edge: they make a row no longer."""


class RowSpread(NamedTuple):
    """A row as long as it should be, finished, and how long it comes out: ``low`` to ``high`` in
    nine of ten. How often it does not match the next row somewhere, laid flat, and with its
    crossings pinned; ``next`` is the label of that, empty of the last. Lengths in the project's
    unit."""

    label: str
    planned: float
    middle: float
    low: float
    high: float
    next: str
    off: float
    off_pinned: float


class BorderSpread(NamedTuple):
    """A border's strips, by the side of the quilt they are sewn to: how long that is planned and
    comes out, and how often a strip cut as long as planned could not be eased to it."""

    label: str
    side: str
    planned: float
    low: float
    high: float
    misfit: float


class QuiltForecast(NamedTuple):
    """What comes of the rows and borders."""

    rows: tuple[RowSpread, ...]
    borders: tuple[BorderSpread, ...]


class _RowLine(NamedTuple):
    """A row in many sewings: where its seams should lie and how far off they are (K, n), from its
    middle; from where on and how long it should be, how much longer and higher it is."""

    label: str
    start: float
    seams: list[float]
    off: Array
    planned: float
    more: Array
    high: Array


def quilt_forecast(
    plan: QuiltPlan, hand: SewingHand, number: int = USUAL_NUMBER, seed: int = 1
) -> QuiltForecast:
    """The rows and borders of a quilt in so many simulated makings."""
    chance = np.random.default_rng(seed)
    sizes = _block_sizes(plan, hand, number, seed)
    making = _Making(plan, hand, sizes, chance, number)
    lines = [making.line(row) for row in plan.top.rows]
    seamed = [line for line in lines if line.seams]
    rows = tuple(
        making.spread(line, seamed[i + 1] if i + 1 < len(seamed) else None)
        for i, line in enumerate(seamed)
    )
    return QuiltForecast(rows, tuple(making.borders(lines)))


def _block_sizes(plan: QuiltPlan, hand: SewingHand, number: int, seed: int) -> dict[str, Array]:
    """How much too large each block comes out (2, n), by its id: whatever its colours."""
    sizes: dict[str, Array] = {}
    for sewn in plan.sewn:
        if sewn.block.id not in sizes:
            model = block_model(sewn)
            sizes[sewn.block.id] = (
                _one_piece(hand, number, seed, plan)
                if model is None
                else _sewn_size(Watched(model), hand, number, seed)
            )
    return sizes


def _one_piece(hand: SewingHand, number: int, seed: int, plan: QuiltPlan) -> Array:
    inches = np.random.default_rng(seed + 1).normal(hand.cut, hand.cut_spread, (2, number))
    lengths: Array = inches * float(plan.measure.system.per_inch)
    return lengths


def _sewn_size(watched: Watched, hand: SewingHand, number: int, seed: int) -> Array:
    """Of a block that is sewn: beside its size without errors. A block is always a rectangle, its
    size the first."""
    level = watched.outcomes(PERFECT, np.zeros((watched.model.sources, 1))).sizes[0]
    more: Array = all_outcomes(watched, hand, number, seed).sizes[0] - level
    return more


class _Making:
    """A quilt being made ``number`` times by one hand."""

    def __init__(
        self, plan: QuiltPlan, hand: SewingHand, sizes: Mapping[str, Array],
        chance: np.random.Generator, number: int,
    ) -> None:  # fmt: skip
        self.plan, self.hand, self.sizes = plan, hand, sizes
        self.chance, self.number = chance, number
        self.per_inch = float(plan.measure.system.per_inch)

    def line(self, row: Row) -> _RowLine:
        """One row: from cell to cell along it."""
        check()
        across = _direction(row)
        reach = [_reach(cell, across) for cell in row.cells]
        at = np.zeros(self.number)
        seams, off, high = [], [], []
        for i, cell in enumerate(row.cells):
            longer, higher = self._cell(cell)
            at = at + longer
            if cell[0].kind not in WITHOUT_SEAMS:
                high.append(higher)
            if i + 1 < len(row.cells):
                taken = self._seam()
                seams.append(reach[i][1])
                off.append(at - taken / 2)
                at = at - taken
        planned = reach[-1][1] - reach[0][0]
        middle = np.mean(off, axis=0) if off else 0.0
        return _RowLine(
            row.label, reach[0][0], seams, np.array(off) - middle, planned, at,
            np.mean(high, axis=0) if high else np.zeros(self.number),
        )  # fmt: skip

    def _seam(self) -> Array:
        """What a seam between two cells takes more than planned, of both together."""
        off = self.chance.normal(self.hand.takes_more("straight"), self.hand.spread, self.number)
        taken: Array = 2 * off * self.per_inch
        return taken

    def _cell(self, cell: Cell) -> tuple[Array, Array]:
        """How much too long and too high a cell comes out."""
        piece = cell[0]
        block = next((p for p in cell if p.kind == "block"), None)
        if block is not None and block.lying is not None and block.placed is not None:
            order = self.chance.permutation(self.number)
            sizes = self.sizes.get(block.placed.block, np.zeros((2, self.number)))[:, order]
            turned = block.lying.eighths // 2 % 2
            return sizes[turned], sizes[1 - turned]
        if piece.kind in WITHOUT_SEAMS:
            return np.zeros(self.number), np.zeros(self.number)
        return self._cut(), self._cut()

    def _cut(self) -> Array:
        """How much too large a strip or square is cut from edge to edge."""
        cut = self.chance.normal(self.hand.cut, self.hand.cut_spread, self.number)
        lengths: Array = cut * self.per_inch
        return lengths

    def spread(self, line: _RowLine, beside: _RowLine | None) -> RowSpread:
        """How long a row comes out, and whether it matches the next."""
        low, middle, high = np.quantile(line.planned + line.more, (EDGE, 0.5, 1 - EDGE))
        off = off_pinned = 0.0
        if beside is not None:
            pairs = [
                (i, k)
                for i, at in enumerate(line.seams)
                for k, next_at in enumerate(beside.seams)
                if abs(at - next_at) < SAME_PLACE
            ]
            if pairs:
                gaps = np.array([line.off[i] - beside.off[k] for i, k in pairs])
                gaps = np.abs(gaps - gaps.mean(axis=0)) / self.per_inch
                off = float((gaps > VISIBLE).any(axis=0).mean())
                along = np.array([line.seams[i] for i, _ in pairs]) - line.start
                eased = np.minimum(along, line.planned - along) * float(EASED)
                can = VISIBLE + eased[:, None] / self.per_inch
                off_pinned = float((gaps > can).any(axis=0).mean())
            else:
                beside = None
        return RowSpread(
            line.label, line.planned, float(middle), float(low), float(high),
            beside.label if beside is not None else "", off, off_pinned,
        )  # fmt: skip

    def borders(self, lines: Sequence[_RowLine]) -> Iterator[BorderSpread]:
        """Each border: the sides of the quilt that its strips are sewn to. A border adds
        what its strips are cut wider, less what their seams take."""
        if not lines:
            return
        more = self._middle(lines)
        for border in self.plan.top.borders:
            for pair in border.pairs:
                strip = pair[0]
                upright = abs(_direction(strip)[1]) > abs(_direction(strip)[0])
                planned = _row_length(strip)
                off = more[upright]
                low, high = np.quantile(planned + off, (EDGE, 1 - EDGE))
                misfit = float((np.abs(off) > planned * float(EASED)).mean())
                side = "sides" if upright else "top and bottom"
                yield BorderSpread(border.label, side, planned, float(low), float(high), misfit)
                for _ in pair:
                    more[not upright] = more[not upright] + self._cut() - self._seam()

    def _middle(self, lines: Sequence[_RowLine]) -> list[Array]:
        """How much wider and higher than planned all rows together come out. On point both ways
        are along and across rows alike: as much in parts of the length."""
        seamed = [line for line in lines if line.seams] or lines  # whole strips are cut to fit
        along = np.mean([line.more for line in seamed], axis=0)
        across = np.sum([line.high for line in lines], axis=0)
        for _ in lines[1:]:
            across = across - self._seam()
        if not self.plan.quilt.on_point:
            return [along, across]
        whole = [float(side) for side in self.plan.top.middle]
        longest = max(lines, key=lambda line: line.planned)
        part = longest.more / longest.planned
        return [side * part for side in whole]


def _row_length(row: Row) -> float:
    across = _direction(row)
    reach = [_reach(cell, across) for cell in row.cells]
    return max(high for _, high in reach) - min(low for low, _ in reach)


def _direction(row: Row) -> tuple[float, float]:
    """Which way a row runs, of length 1; one of a single cell as its longer side."""
    (x, y), (u, v) = (_middle(cell[0]) for cell in (row.cells[0], row.cells[-1]))
    long = float(np.hypot(u - x, v - y))
    if long > SAME_PLACE:
        eighth = round(atan2(v - y, u - x) / (pi / 4)) * pi / 4  # triangles at its ends lie beside
        return cos(eighth), sin(eighth)
    points = np.array([p.floats() for p in row.cells[0][0].outline])
    wide, high = points.max(axis=0) - points.min(axis=0)
    return (1.0, 0.0) if wide >= high else (0.0, 1.0)


def _middle(piece: TopPiece) -> tuple[float, float]:
    points = np.array([p.floats() for p in piece.outline])
    x, y = (points.min(axis=0) + points.max(axis=0)) / 2
    return float(x), float(y)


def _reach(cell: Cell, across: tuple[float, float]) -> tuple[float, float]:
    """From where to where a cell lies along its row."""
    along = [
        p.floats()[0] * across[0] + p.floats()[1] * across[1]
        for piece in cell
        for p in piece.outline
    ]
    return min(along), max(along)


def seams_between_rows(plan: QuiltPlan) -> Iterator[tuple[str, Spot, Spot]]:
    """Where each row of a quilt is sewn to the next: the label of the row, and both ends of the
    seam on the top, as far as its blocks and strips reach."""
    top = plan.top
    for row in top.rows[:-1]:
        if len(row.cells) < 2:
            continue
        across = _direction(row)
        away = (-across[1], across[0])
        inner = [cell for cell in row.cells if cell[0].kind not in WITHOUT_SEAMS] or row.cells
        along = [_reach(cell, across) for cell in inner]
        low, high = min(a for a, _ in along), max(b for _, b in along)
        sides = [_reach(cell, away) for cell in inner]
        beside = _reach_of_rows(top.rows, away)
        far = max(b for _, b in sides) if beside > 0 else min(a for a, _ in sides)
        yield (
            row.label,
            (across[0] * low + away[0] * far, across[1] * low + away[1] * far),
            (across[0] * high + away[0] * far, across[1] * high + away[1] * far),
        )


def _reach_of_rows(rows: Sequence[Row], away: Spot) -> float:
    """Do later rows lie farther that way (above 0) or the other?"""
    first, last = (_middle(row.cells[len(row.cells) // 2][0]) for row in (rows[0], rows[-1]))
    return (last[0] - first[0]) * away[0] + (last[1] - first[1]) * away[1]
