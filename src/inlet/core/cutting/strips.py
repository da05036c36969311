"""Cloth laid out in strips across its width, widest first, and how much of it to buy.

A strip is as wide as its first piece's shorter side and runs selvage to selvage; its end is squared
off before the first piece is cut, which takes the maker's squaring from its length. Pieces are
taken widest first, each into the first strip with room for it (its end may serve for narrower
pieces), else a new strip is cut.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from inlet.core.cutting.cuts import Cut
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.marks import next_mark
from inlet.core.numbers.root2 import Exact
from inlet.core.numbers.systems import INCHES
from inlet.core.project.project import Project
from inlet.core.stopping import check

YARD = INCHES.long_unit.length


class Laid(NamedTuple):
    """One piece in a strip: its cut, how far along it starts, and its sides along and across."""

    cut: Cut
    start: Exact
    along: Fraction
    across: Fraction

    @property
    def rises(self) -> bool:
        """Does its diagonal run from the bottom left as it lies in the strip? With its long side
        along the strip it is turned a quarter from how its lean is told."""
        return bool(self.cut.lean) and (self.cut.lean == "rising") != (self.along > self.across)


class Strip(NamedTuple):
    """A strip cut ``width`` wide, with the pieces cut from it in order; the first one starts where
    the end was squared off."""

    width: Fraction
    pieces: tuple[Laid, ...]

    @property
    def used(self) -> Exact:
        last = self.pieces[-1]
        return last.start + last.along


class ClothNeeded(NamedTuple):
    """What one fabric needs: ``strips`` over ``width`` usable, ``length`` of it in all, ``buy``
    rounded up to a step; ``used`` is the share of that length that is in pieces. ``too_wide`` are
    cuts that fit the cloth neither way."""

    fabric: str | None
    width: Exact
    strips: tuple[Strip, ...]
    length: Fraction
    buy: Fraction
    used: float
    too_wide: tuple[Cut, ...]

    def yards(self) -> Fraction:
        """``buy`` in yards, for inch projects."""
        return self.buy / YARD


def lay_out(project: Project, cuts: Sequence[Cut]) -> tuple[ClothNeeded, ...]:
    """The cloth needed for a cut list, fabric by fabric in the list's order; what comes from cloth
    cut already is not counted."""
    by_fabric: dict[str | None, list[Cut]] = {}
    for cut in cuts:
        if not cut.owned:
            by_fabric.setdefault(cut.fabric, []).append(cut)
    step = project.measure.system.buying
    return tuple(
        _cloth(fabric, project.cloth_width(fabric or ""), project.measure.squared_off, step, own)
        for fabric, own in by_fabric.items()
    )


def _cloth(
    fabric: str | None, width: Exact, squaring: Exact, step: Fraction, cuts: Iterable[Cut]
) -> ClothNeeded:
    strips: list[tuple[Fraction, list[Laid], Exact]] = []
    too_wide = []
    usable = width - squaring
    for cut in sorted(cuts, key=lambda c: (-_across(c, usable), -max(c.cut))):
        check()
        across = _across(cut, usable)
        along = cut.cut[0] + cut.cut[1] - across
        if along > usable:
            too_wide.append(cut)
            continue
        first = 0  # strips before this one have no room for this cut any more
        for _ in range(cut.number):
            while first < len(strips) and strips[first][2] + along > width:
                first += 1
            if first == len(strips):
                strips.append((across, [], squaring))
            band, pieces, used = strips[first]
            pieces.append(Laid(cut, used, along, across))
            strips[first] = (band, pieces, used + along)
    length = sum((band for band, _, _ in strips), Fraction(0))
    buy = next_mark(length, step)
    area = sum((p.along * p.across for _, pieces, _ in strips for p in pieces), Fraction(0))
    return ClothNeeded(
        fabric,
        width,
        tuple(Strip(band, tuple(pieces)) for band, pieces, _ in strips),
        length,
        buy,
        float(area / (length * width)) if length else 0.0,
        tuple(too_wide),
    )


def _across(cut: Cut, usable: Exact) -> Fraction:
    """The side laid across the strip's width: the shorter, unless the longer one would then be
    longer than the strip."""
    low, high = cut.cut
    return low if high <= usable else high
