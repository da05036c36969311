"""How cuts grow with a block, and the sizes at which they land on a ruler mark.

Each cut of a method grows evenly with the block: a·k + c at k times the size, where c is what the
seam allowance adds. So the sizes at which one cut lands are evenly spaced, and those at which all
of them do are where such series meet.

The √2 that allowances bring to triangles is left to the ruler's next mark, by the craft's habit (a
half-square triangle is cut f + 7/8); a side that itself grows by √2 (the centre of a square in a
square) lands at no size.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import reduce
from math import gcd, lcm
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.methods import every_piece, method_named
from inlet.core.numbers import Exact, Fraction, Root2, floor_exact
from inlet.core.planning import UnitPlan
from inlet.core.table import Piece

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
    return short if short and abs(float(grows - short)) < 1e-9 else grows


def rational_part(x: Exact) -> Fraction:
    return x.a if isinstance(x, Root2) else x


def _is_short(x: Exact) -> bool:
    return isinstance(x, Fraction) and x.denominator <= _LARGEST_DENOMINATOR


def growths(units: Sequence[UnitPlan]) -> list[Growth]:
    """How every cut with a ruler grows, for the methods in use. Templates are not cut with one."""
    grown: list[Growth] = []
    for plan in units:
        check()
        if plan.panel is not None:
            continue  # its piece is as large as it is
        seam = plan.measure.seam
        own_pieces = every_piece(plan.in_use.method, seam)
        if all(piece.shape == "template" for piece in own_pieces):
            continue
        twice = plan.unit.scaled(Fraction(2))
        method = method_named(plan.in_use.name, twice, seam)
        assert method is not None, "what is twice as large is made in the same way"
        pieces = own_pieces, every_piece(method, seam)
        for now, then in zip(*pieces, strict=False):
            if now.shape == "template":
                continue
            for side in (0, 1) if now.shape == "rectangle" else (0,):
                grows = _without_root(then.exact[side] - now.exact[side])
                adds = now.exact[side] - grows
                grown.append(Growth(plan.unit.label, now, side, grows, adds, plan.measure.seam))
    return grown


class Series(NamedTuple):
    """first, first ± step, ...: the k at which something lands."""

    first: Fraction
    step: Fraction

    def last_up_to(self, k: Exact) -> Fraction | None:
        """The largest of it that is no larger than ``k``; None where all are."""
        if k < self.first:
            return None
        return self.first + floor_exact((k - self.first) / self.step) * self.step


def landing_sizes(
    grown: Iterable[Growth], mark: Fraction, per: Exact, seam: Exact
) -> Series | None:
    """All k at which every cut lands, lengths ``per`` as many and allowances ``seam`` times as
    large; None where there are none, or nothing is cut by the ruler."""
    each = []
    for g in dict.fromkeys((g.grows, g.adds) for g in grown if g.lands):
        grows, adds = rational_part(g[0] * per), rational_part(g[1] * seam)
        if grows > 0:
            each.append(Series(-adds / grows % (mark / grows), mark / grows))
    if not each:
        return None
    met: Series | None = each[0]
    return reduce(_meet, each[1:], met)


def _meet(one: Series | None, other: Series) -> Series | None:
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
    return Series(Fraction((a + m * turns) % step, scale), Fraction(step, scale))
