"""Ruler-friendly sizes: those at which every cut lands on a ruler mark."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cutlist.growth import Growth, growths, landing_sizes
from inlet.core.numbers import INCHES, Exact, Fraction, ceil_exact, floor_exact, next_mark
from inlet.core.planning import UnitPlan
from inlet.core.project import INCH, METRIC, Block, Measure, Pair

FARTHEST = 4
"""Ruler-friendly sizes farther than this many times from the size now are not worth naming."""


class Miss(NamedTuple):
    """A cut between the marks: the length wanted, the units it is for, and how far short of the
    next mark it is."""

    length: Exact
    labels: tuple[str, ...]
    short: Exact


class RulerFriendly(NamedTuple):
    """``misses`` now; labels whose cuts land at no size; the nearest ruler-friendly finished sizes
    below and above, in the project's measure and in the other one (in its own lengths)."""

    misses: tuple[Miss, ...]
    never: tuple[str, ...]
    smaller: Pair | None
    larger: Pair | None
    other_smaller: Pair | None
    other_larger: Pair | None

    @property
    def on_marks(self) -> bool:
        """Does every cut land on a mark, but for what a diagonal adds to it?"""
        return not self.misses and not self.never


def ruler_friendly(units: Sequence[UnitPlan], block: Block, measure: Measure) -> RulerFriendly:
    """Where the block stands at its size, and the nearest sizes at which every cut lands."""
    grown = growths(units)
    misses: dict[Exact, list[str]] = {}
    for g in grown:
        if g.lands and floor_exact(g.aim / measure.mark) * measure.mark != g.aim:
            misses.setdefault(g.aim, []).append(g.label)
    never = dict.fromkeys(g.label for g in grown if not g.lands)
    smaller, larger = _around(grown, measure.mark, Fraction(1), Fraction(1))
    other_measure = METRIC if measure.system is INCHES else INCH
    factor = other_measure.system.per_inch / measure.system.per_inch
    below, above = _around(
        grown, other_measure.mark, factor, Fraction(1) * other_measure.seam / measure.seam
    )

    def size(k: Exact | None, per: Fraction) -> Pair | None:
        return None if k is None else (block.finished[0] * k * per, block.finished[1] * k * per)

    return RulerFriendly(
        tuple(
            Miss(length, tuple(dict.fromkeys(labels)), next_mark(length, measure.mark) - length)
            for length, labels in sorted(misses.items(), key=lambda item: float(item[0]))
        ),
        tuple(never),
        size(smaller, Fraction(1)),
        size(larger, Fraction(1)),
        size(below, factor),
        size(above, factor),
    )


def _around(
    grown: Sequence[Growth], mark: Fraction, per: Exact, seam: Exact
) -> tuple[Fraction | None, Fraction | None]:
    """The nearest ruler-friendly k below and above 1; where 1 itself is, in the measure asked for,
    that is not counted."""
    series = landing_sizes(grown, mark, per, seam)
    if series is None:
        return None, None
    steps = (1 - series.first) / series.step
    below = series.first + series.step * (ceil_exact(steps) - 1)
    above = series.first + series.step * (floor_exact(steps) + 1)
    return (
        below if below * FARTHEST >= 1 else None,
        above if above <= FARTHEST else None,
    )
