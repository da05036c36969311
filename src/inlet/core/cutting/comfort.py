"""Comfortable sizes: those at which every cut lands on a ruler mark.

Each cut of a method grows evenly with the block: a·k + c at k times the size, where c is what the
seam allowance adds. So the sizes at which one cut lands are evenly spaced, and those at which all
of them do are where such series meet.

The √2 that allowances bring to triangles is left to the ruler's next mark, by the craft's habit (a
half-square triangle is cut f + 7/8); a side that itself grows by √2 (the centre of a square in a
square) lands at no size, and is named as such.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import reduce
from math import gcd, lcm
from typing import NamedTuple

from inlet.core.methods.catalogue import methods_for
from inlet.core.methods.method import every_piece
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.marks import next_mark
from inlet.core.numbers.root2 import Exact, Root2, ceil_exact, floor_exact
from inlet.core.numbers.systems import INCHES
from inlet.core.planning.stock import Stock
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.project.block import Block
from inlet.core.project.measure import INCH, METRIC, Measure
from inlet.core.project.value import Pair
from inlet.core.stopping import check
from inlet.core.table.pieces import Piece

FARTHEST = 4
"""Comfortable sizes farther than this many times from the size now are not worth naming."""
_LARGEST_DENOMINATOR = 10**6
"""Past it a number is a root taken upward, which lands nowhere."""


class Growth(NamedTuple):
    """One cut length: ``grows``·k + ``adds`` at k times the block's size now. ``side`` is 0 for the
    shorter side of its piece, 1 for the longer."""

    label: str
    piece: Piece
    side: int
    grows: Exact
    adds: Exact
    seam: Exact

    @property
    def aim(self) -> Exact:
        """What should land on a mark now: the cut without its allowances' √2; where they have
        another root in them, as on a slope, with the plain 2s."""
        rest = rational_part(self.adds)
        return self.grows + (rest if _is_short(rest) else 2 * self.seam)

    @property
    def lands(self) -> bool:
        """Can it land at any size?"""
        return _is_short(self.grows)


def _without_root(grows: Exact) -> Exact:
    """A growth as the short number it is, where roots taken upward left a hair on it."""
    if _is_short(grows) or isinstance(grows, Root2):
        return grows
    short = grows.limit_denominator(10**4)
    return short if abs(float(grows - short)) < 1e-9 else grows


def rational_part(x: Exact) -> Fraction:
    return x.a if isinstance(x, Root2) else x


def _is_short(x: Exact) -> bool:
    return isinstance(x, Fraction) and x.denominator <= _LARGEST_DENOMINATOR


class Miss(NamedTuple):
    """A cut between the marks: the length wanted, the units it is for, and how far short of the
    next mark it is."""

    length: Exact
    labels: tuple[str, ...]
    short: Exact


class Comfort(NamedTuple):
    """``misses`` now; labels whose cuts land at no size; the nearest comfortable finished sizes
    below and above, in the project's measure and in the other one (in its own lengths)."""

    misses: tuple[Miss, ...]
    never: tuple[str, ...]
    smaller: Pair | None
    larger: Pair | None
    other_smaller: Pair | None
    other_larger: Pair | None


def growths(units: Sequence[UnitPlan]) -> list[Growth]:
    """How every cut with a ruler grows, for the methods in use. Templates are not cut with one."""
    out: list[Growth] = []
    for plan in units:
        check()
        seam = plan.measure.seam
        own = every_piece(plan.in_use.method, seam)
        if all(piece.shape == "template" for piece in own):
            continue
        twice = plan.unit.scaled(Fraction(2))
        method = next(w for w in methods_for(twice, seam) if w.name == plan.in_use.name)
        pieces = own, every_piece(method, seam)
        for now, then in zip(*pieces, strict=False):
            if now.shape == "template":
                continue
            for side in (0, 1) if now.shape == "rectangle" else (0,):
                grows = _without_root(then.exact[side] - now.exact[side])
                adds = now.exact[side] - grows
                out.append(Growth(plan.unit.label, now, side, grows, adds, plan.measure.seam))
    return out


def comfort(units: Sequence[UnitPlan], block: Block, measure: Measure) -> Comfort:
    """Where the block stands at its size, and the nearest sizes at which every cut lands."""
    found = growths(units)
    misses: dict[Exact, list[str]] = {}
    for g in found:
        if g.lands and floor_exact(g.aim / measure.mark) * measure.mark != g.aim:
            misses.setdefault(g.aim, []).append(g.label)
    never = dict.fromkeys(g.label for g in found if not g.lands)
    smaller, larger = _around(found, measure.mark, Fraction(1), Fraction(1))
    other = METRIC if measure.system is INCHES else INCH
    factor = other.system.per_inch / measure.system.per_inch
    below, above = _around(found, other.mark, factor, Fraction(1) * other.seam / measure.seam)

    def size(k: Exact | None, per: Fraction) -> Pair | None:
        return None if k is None else (block.finished[0] * k * per, block.finished[1] * k * per)

    return Comfort(
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


# --- series of sizes --------------------------------------------------------------------------


class _Series(NamedTuple):
    """first, first ± step, ...: the k at which something lands."""

    first: Fraction
    step: Fraction


def _series(found: Iterable[Growth], mark: Fraction, per: Exact, seam: Exact) -> _Series | None:
    """All k at which every cut lands, lengths ``per`` as many and allowances ``seam`` times as
    large; None where there are none, or nothing is cut by the ruler."""
    each = []
    for g in dict.fromkeys((g.grows, g.adds) for g in found if g.lands):
        grows, adds = rational_part(g[0] * per), rational_part(g[1] * seam)
        if grows > 0:
            each.append(_Series(-adds / grows % (mark / grows), mark / grows))
    if not each:
        return None
    met: _Series | None = each[0]
    return reduce(_meet, each[1:], met)


def _meet(one: _Series | None, other: _Series) -> _Series | None:
    """What two series have in common, by the Chinese remainder theorem on their common
    denominator."""
    if one is None:
        return None
    scale = lcm(*(x.denominator for x in (*one, *other)))
    a, m, b, n = (int(x * scale) for x in (*one, *other))
    g = gcd(m, n)
    if (b - a) % g:
        return None
    turns = (b - a) // g * pow(m // g, -1, n // g) % (n // g)
    step = m // g * n
    return _Series(Fraction((a + m * turns) % step, scale), Fraction(step, scale))


def _around(
    found: Sequence[Growth], mark: Fraction, per: Exact, seam: Exact
) -> tuple[Fraction | None, Fraction | None]:
    """The nearest comfortable k below and above 1; where 1 is comfortable in the measure asked
    for, that is not counted."""
    series = _series(found, mark, per, seam)
    if series is None:
        return None, None
    steps = (1 - series.first) / series.step
    below = series.first + series.step * (ceil_exact(steps) - 1)
    above = series.first + series.step * (floor_exact(steps) + 1)
    return (
        below if below * FARTHEST >= 1 else None,
        above if above <= FARTHEST else None,
    )


# --- from what is owned -----------------------------------------------------------------------


class StockSize(NamedTuple):
    """A size the block can be. ``whole`` are units all of whose pieces come off the stock there,
    ``others`` those that need larger cloth; ``fills`` is the unit whose piece sets the size."""

    stock: Stock
    finished: Pair
    fills: str
    whole: tuple[str, ...]
    others: tuple[str, ...]
    comfortable: bool


def sizes_from(
    stock: Stock, units: Sequence[UnitPlan], block: Block, measure: Measure
) -> tuple[StockSize, ...]:
    """The sizes a block can be made at from strips or squares already cut: for each of its pieces,
    the largest comfortable size (or else the largest at all) at which that piece still comes off
    them; those that serve most units first."""
    found = growths(units)
    series = _series(found, measure.mark, Fraction(1), Fraction(1))
    out: dict[Exact, StockSize] = {}
    for g in found:
        if (stock.shape == "strip") != (g.side == 0) and g.piece.shape == "rectangle":
            continue  # a strip is as wide as a piece's shorter side, a square holds the longer
        k = (stock.width - g.adds) / g.grows
        if k <= 0:
            continue
        comfortable = None
        if series is not None and k >= series.first:
            comfortable = series.first + floor_exact((k - series.first) / series.step) * series.step
        if comfortable and comfortable * FARTHEST >= k:
            k = comfortable
        if k in out or not Fraction(1, 20) <= k <= 20:
            continue
        small = {h.label for h in found} - {
            h.label
            for h in found
            if (stock.shape == "square" or h.side == 0) and h.grows * k + h.adds > stock.width
        }
        labels = dict.fromkeys(h.label for h in found)
        out[k] = StockSize(
            stock,
            (block.finished[0] * k, block.finished[1] * k),
            g.label,
            tuple(label for label in labels if label in small),
            tuple(label for label in labels if label not in small),
            comfortable == k,
        )
    return tuple(sorted(out.values(), key=lambda s: (len(s.others), -float(s.finished[0]))))
