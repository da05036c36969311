"""The sizes a block can be made at from fabric cut already."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cutlist.growth import Growth, Series, growths, landing_sizes
from inlet.core.cutlist.ruler_friendly import FARTHEST
from inlet.core.numbers import Exact, Fraction
from inlet.core.planning import Stock, UnitPlan
from inlet.core.project import Block, Measure, Pair

MOST_TIMES = 20
"""Sizes more than this many times larger or smaller than the block are of no use."""


class StockSize(NamedTuple):
    """A size the block can be. ``whole`` are units all of whose pieces come off the stock there,
    ``others`` those that need larger fabric; ``fills`` is the unit whose piece sets the size."""

    stock: Stock
    finished: Pair
    fills: str
    whole: tuple[str, ...]
    others: tuple[str, ...]
    on_marks: bool


def sizes_from(
    stock: Stock, units: Sequence[UnitPlan], block: Block, measure: Measure
) -> tuple[StockSize, ...]:
    """The sizes a block can be made at from strips or squares already cut: for each of its pieces,
    the largest ruler-friendly size (or else the largest at all) at which that piece still comes off
    them; those that serve most units first."""
    grown = growths(units)
    series = landing_sizes(grown, measure.mark, Fraction(1), Fraction(1))
    sizes: dict[Exact, StockSize] = {}
    for growth in grown:
        if (stock.shape == "strip") != (growth.side == 0) and growth.piece.shape == "rectangle":
            continue  # a strip is as wide as a piece's shorter side, a square holds the longer
        if growth.grows <= 0:
            continue  # a sliver, of which a larger block makes nothing larger
        k = (stock.width - growth.adds) / growth.grows
        on_marks = _largest_on_marks(k, series) if k > 0 else None
        k = on_marks or k
        if k not in sizes and Fraction(1, MOST_TIMES) <= k <= MOST_TIMES:
            whole, others = _served(stock, grown, k)
            finished = (block.finished[0] * k, block.finished[1] * k)
            size = StockSize(stock, finished, growth.label, whole, others, on_marks is not None)
            sizes[k] = size
    return tuple(sorted(sizes.values(), key=lambda s: (len(s.others), -float(s.finished[0]))))


def _largest_on_marks(k: Exact, series: Series | None) -> Fraction | None:
    """The largest ruler-friendly size up to ``k`` times the block's that is not much smaller."""
    largest = series.last_up_to(k) if series is not None else None
    return largest if largest and largest * FARTHEST >= k else None


def _served(
    stock: Stock, grown: Sequence[Growth], k: Exact
) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """The labels of units all of whose pieces come off the stock at k times the size, and of the
    others."""
    larger = {
        growth.label
        for growth in grown
        if (stock.shape == "square" or growth.side == 0)
        and growth.grows * k + growth.adds > stock.width
    }
    labels = dict.fromkeys(growth.label for growth in grown)
    whole = tuple(label for label in labels if label not in larger)
    return whole, tuple(label for label in labels if label in larger)
