"""The best filled strip of every width, for given values of the pieces.

Three knapsacks, one inside the other, by dynamic programming: pieces side by side in a row, rows
one below the other in a segment, segments side by side in a strip. Each is worked out for all its
lengths at once, so that one run knows the best strip of every width.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations_with_replacement

import numpy as np
from numpy.typing import NDArray

from inlet.core.cancellation import check
from inlet.core.layout.patterns import (
    Bit,
    Kind,
    Pattern,
    PatternRow,
    PatternSegment,
    Room,
    in_order,
)

_NEVER = -1e9
MOST_SEGMENT_WIDTHS = 80
"""Widths of segments looked at: those of pieces, then of two side by side."""
MOST_STRIP_WIDTHS = 160


class Pricer:
    """Best strips of what room there is, at most ``highest`` wide."""

    def __init__(self, kinds: Sequence[Kind], room: Room, highest: int) -> None:
        self.room, self.reach = room.across, room.reach
        self.items = [
            (wide, high, i, turned)
            for i, kind in enumerate(kinds)
            for wide, high, turned in kind.ways()
            if kind.number and wide <= self.room and high <= highest
        ]
        self.row_heights = sorted({high for _, high, _, _ in self.items})
        self.highest = highest
        self.heights = self._strip_heights()
        self.widths = self._segment_widths()

    def _strip_heights(self) -> list[int]:
        """Widths worth cutting a strip at: those that one to three rows fill."""
        heights: dict[int, None] = {}
        for number in (1, 2, 3):
            for rows in combinations_with_replacement(self.row_heights, number):
                if sum(rows) <= self.highest:
                    heights.setdefault(sum(rows))
            if len(heights) > MOST_STRIP_WIDTHS:
                break
        return sorted(list(heights)[:MOST_STRIP_WIDTHS])

    def _segment_widths(self) -> list[int]:
        single = sorted({wide for wide, _, _, _ in self.items})
        double = sorted({a + b for a in single for b in single if a + b <= self.room})
        both = list(dict.fromkeys((*single, *double)))
        return sorted(both[:MOST_SEGMENT_WIDTHS])

    def run(self, values: NDArray[np.float64]) -> NDArray[np.float64]:
        """The worth of the best strip of each width of ``heights``, in that order, where a piece of
        each kind is worth so much."""
        self._values = values
        self._rows = self._best_rows(values)
        self._stacks = self._best_stacks()
        self._strips = self._best_strips()
        return self._strips[:, self.room]

    def _best_rows(self, values: NDArray[np.float64]) -> NDArray[np.float64]:
        """By row height and width: pieces no higher, side by side."""
        wide = np.array([item[0] for item in self.items])
        high = np.array([item[1] for item in self.items])
        worth = np.array([values[item[2]] for item in self.items])
        fits = np.where(high[None, :] <= np.array(self.row_heights)[:, None], worth, _NEVER)
        ahead = int(wide.max())
        best = np.full((len(self.row_heights), ahead + self.room + 1), _NEVER)
        best[:, ahead] = 0
        for x in range(ahead + 1, ahead + self.room + 1):
            check()
            best[:, x] = np.maximum(best[:, x - 1], (best[:, x - wide] + fits).max(axis=1))
        return best[:, ahead:]

    def _best_stacks(self) -> NDArray[np.float64]:
        """By height and width of a segment: rows one below the other."""
        rows = np.array(self.row_heights)
        of_widths = self._rows[:, self.widths]
        ahead = int(rows.max())
        best = np.full((ahead + self.highest + 1, len(self.widths)), _NEVER)
        best[ahead] = 0
        alone = np.array(self.widths) > self.reach  # these are of one row
        for y in range(ahead + 1, ahead + self.highest + 1):
            check()
            below = best[y - rows]
            below[:, alone] = np.minimum(below[:, alone], 0)
            best[y] = np.maximum(best[y - 1], (below + of_widths).max(axis=0))
        return best[ahead:]

    def _best_strips(self) -> NDArray[np.float64]:
        """By strip width and how much of its length is used: segments side by side."""
        stacks = self._stacks[self.heights]
        widths = np.array(self.widths)
        ahead = int(widths.max())
        best = np.full((len(self.heights), ahead + self.room + 1), _NEVER)
        best[:, ahead] = 0
        for x in range(ahead + 1, ahead + self.room + 1):
            check()
            best[:, x] = np.maximum(best[:, x - 1], (best[:, x - widths] + stacks).max(axis=1))
        return best[:, ahead:]

    def pattern(self, which: int) -> Pattern:
        """The best strip of a width, by its place in ``heights``, as the last run found it."""
        best, high = self._strips[which], self.heights[which]
        stacks = self._stacks[high]
        segments = []
        x = self.room
        while x > 0:
            if best[x] == best[x - 1]:
                x -= 1
                continue
            at = next(
                i for i, wide in enumerate(self.widths)
                if wide <= x and best[x - wide] + stacks[i] == best[x]
            )  # fmt: skip
            segments.append(PatternSegment(self.widths[at], self._stack(high, at)))
            x -= self.widths[at]
        return Pattern(high, in_order(segments))

    def _stack(self, high: int, at: int) -> tuple[PatternRow, ...]:
        best = self._stacks[:, at]
        wide = self.widths[at]

        def below(left: int) -> float:
            return float(min(best[left], 0.0) if wide > self.reach else best[left])

        rows = []
        while high > 0:
            if best[high] == best[high - 1]:
                high -= 1
                continue
            which, row = next(
                (k, r) for k, r in enumerate(self.row_heights)
                if r <= high and below(high - r) + self._rows[k, wide] == best[high]
            )  # fmt: skip
            rows.append(PatternRow(row, self._row(which, wide)))
            high = 0 if wide > self.reach else high - row
        return tuple(sorted(rows, reverse=True))

    def _row(self, which: int, wide: int) -> tuple[Bit, ...]:
        best, high = self._rows[which], self.row_heights[which]
        bits: dict[tuple[int, bool], int] = {}
        x = wide
        while x > 0:
            if best[x] == best[x - 1]:
                x -= 1
                continue
            across, kind, turned = next(
                (w, i, turned) for w, h, i, turned in self.items
                if h <= high and w <= x and best[x - w] + self._values[i] == best[x]
            )  # fmt: skip
            bits[kind, turned] = bits.get((kind, turned), 0) + 1
            x -= across
        return tuple(Bit(kind, turned, number) for (kind, turned), number in sorted(bits.items()))
