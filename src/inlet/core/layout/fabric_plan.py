"""One fabric laid out: what lies where, what finds no room, how much of it is new; and what is to
be cut of it."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.cutlist import Cut, Standing
from inlet.core.layout.laid_places import length_used, places_of, strip_tops
from inlet.core.numbers import INCHES, Exact, Fraction
from inlet.core.project import (
    Begun,
    LaidFabric,
    Project,
)

ZERO = Fraction(0)


class Missing(NamedTuple):
    """``number`` pieces of a cut that no fabric holds."""

    cut: Cut
    number: int


class CutDown(NamedTuple):
    """``number`` pieces of a stack, by its label, that are cut already and are cut down to the
    ``size`` that is wanted now."""

    label: str
    size: tuple[Fraction, Fraction]
    number: int


class FabricPlan(NamedTuple):
    """What one fabric needs: pieces of fabric to lay down, the first ``begun`` of them being cut
    already, then those that are there, then new fabric, in the lengths it is cut up in. ``buy`` is
    how much of that, as shops sell it, ``least`` what holds the pieces with nothing to spare;
    ``bound`` the least length of new fabric that holds its pieces side by side without any
    waste. ``missing`` fits no fabric. ``cut_down`` are pieces of fabric being cut that are larger
    than what is wanted of them now."""

    fabric: str | None
    width: Exact
    laid: tuple[LaidFabric, ...]
    buy: Fraction
    bound: Exact
    missing: tuple[Missing, ...] = ()
    begun: int = 0
    cut_down: tuple[CutDown, ...] = ()
    least: Exact = ZERO

    @property
    def lengths(self) -> tuple[LaidFabric, ...]:
        """The fabric to buy, as it is laid out: the lengths it is cut up in."""
        if not self.buy:
            return ()
        return tuple(laid for laid in self.laid[self.begun :] if laid.kind == "new")

    @property
    def new(self) -> LaidFabric | None:
        """The first length of the fabric to buy."""
        return next(iter(self.lengths), None)

    @property
    def strips(self) -> list[Exact]:
        """How wide each strip of new fabric is cut, in their order."""
        return [strip.width for laid in self.lengths for strip, _, _ in strip_tops(laid)]

    def yards(self) -> Fraction:
        """``buy`` in yards, for inch projects."""
        return self.buy / INCHES.long_unit.length

    @property
    def length(self) -> Exact:
        """How much of the new fabric is cut up."""
        return sum(map(length_used, self.lengths), ZERO)

    @property
    def used(self) -> float:
        """The share of the fabric cut up that is in pieces, of new fabric or of what is there."""
        pieces = self.lengths or self.laid
        area = float(sum(length_used(laid) * laid.width * laid.count for laid in pieces))
        return float(sum(map(piece_area, pieces))) / area if area else 0.0


def piece_area(laid: LaidFabric) -> Exact:
    """The fabric in its pieces, of all equal ones."""
    return sum((p.at.width * p.at.height * p.at.layers * p.copies for p in places_of(laid)), ZERO)


def begun_for(project: Project, block: str, copies: int) -> tuple[Begun, ...]:
    """The fabric that is being cut for so many of a block, by its id; empty for the quilt."""
    begun = project.cutting.begun if project.cutting is not None else ()
    return tuple(b for b in begun if b.block == block and b.copies == copies)


class ToCut(NamedTuple):
    """A cut list, and what else its layout depends on: how the pieces of prints ``stand``, and
    which fabric is being cut for it already."""

    cuts: tuple[Cut, ...]
    standing: Standing
    begun: tuple[Begun, ...] = ()

    def by_fabric(self) -> dict[str | None, list[Cut]]:
        """The cuts of each fabric; what comes from fabric cut already for one unit is not
        counted."""
        cuts: dict[str | None, list[Cut]] = {}
        for cut in self.cuts:
            if not cut.owned:
                cuts.setdefault(cut.fabric, []).append(cut)
        return cuts
