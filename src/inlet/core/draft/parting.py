"""A drawing cut across and slid apart, or together, for a band put in or taken out.

What lies before the cut stays, what lies after it moves. A straight seam square to the cut goes on
across the gap. Where anything else ends at a side of the gap, that side becomes a seam, so that
patches stay closed; an arc that the cut would part is lost.
"""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.draft.edit import merged
from inlet.core.draft.symmetry import image
from inlet.core.geometry import HAIR, Curve, Point, extremes, short_point
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Block, Pair, pins_moved, replace, seam_along

Span = tuple[Exact, Exact]


class _Parted(NamedTuple):
    """What becomes of a seam: the curves kept, and the sides of the gap where it now ends; no
    curve and no side for one that lies in what is taken out. ``lost``: it cannot be parted."""

    kept: tuple[Curve, ...] = ()
    sides: tuple[Exact, ...] = ()
    lost: bool = False


class PartingCut(NamedTuple):
    """A cut across ``axis`` (0: columns, 1: rows): what lies within ``out`` is taken out, and what
    is left is to lie on the two sides of ``gap``."""

    axis: int
    out: Span
    gap: Span

    def apply(self, before: Block, after: Block) -> tuple[Block, int]:
        """``after``, whose bands are as they will be, with the drawing of ``before``; and how many
        seams were lost."""
        parted = [self.part(seam.curve) for seam in before.seams]
        kept = [curve for each in parted for curve in each.kept]
        kept += self._edges(after, {side for each in parted for side in each.sides})
        spots = [(spot, self.placed(spot.point)) for spot in before.fabric_at]
        marks = [self.placed(mark) for mark in before.marks]
        choices = [(choice, self.placed(choice.point)) for choice in before.units]
        block = replace(
            after,
            seams=merged(seam_along(curve) for curve in kept),
            fabric_at=tuple(replace(spot, point=to) for spot, to in spots if to is not None),
            marks=tuple(mark for mark in marks if mark is not None),
            units=tuple(replace(choice, point=to) for choice, to in choices if to is not None),
            pressing=pins_moved(before.pressing, self.placed),
        )
        return block, sum(each.lost for each in parted)

    def placed(self, pair: Pair) -> Pair | None:
        """Where a point goes; None where it was taken out."""
        if pair[self.axis] <= self.out[0]:
            return pair
        return short_point(self.slid(Point(*pair))) if pair[self.axis] >= self.out[1] else None

    def slid(self, p: Point) -> Point:
        """Where a point after the cut goes."""
        by = self.gap[1] - self.out[1]
        return Point(p.x, p.y + by) if self.axis else Point(p.x + by, p.y)

    def part(self, curve: Curve) -> _Parted:
        before, after = self.out
        low, high = sorted(curve.ends, key=lambda p: p[self.axis])
        if curve.centre is None and low[self.axis] == high[self.axis]:
            at = low[self.axis]
            if before <= at <= after:  # it runs along the cut
                stays = (curve,) if at == before else ()
                goes = (image(curve, self.slid),) if at == after else ()
                return _Parted(stays + goes)
        square = curve.centre is None and low[1 - self.axis] == high[1 - self.axis]
        if square and low[self.axis] <= before and high[self.axis] >= after:
            return _Parted((Curve(low, self.slid(high)),))
        if curve.centre is not None and self._crosses(curve):
            return _Parted(lost=True)
        kept: list[Curve] = []
        sides: list[Exact] = []
        for piece in self._pieces(curve):
            ends = [p[self.axis] for p in piece.ends]
            first = max(ends) <= before
            if not square and (before if first else after) in ends:
                sides.append(self.gap[0] if first else self.gap[1])
            kept.append(piece if first else image(piece, self.slid))
        return _Parted(tuple(kept), tuple(sides))

    def _crosses(self, curve: Curve) -> bool:
        """Does a seam, arcs with their bulge, reach past the cut on one side and on the other?"""
        if curve.centre is not None:
            box = extremes(curve)
            low, high = box[self.axis], box[self.axis + 2]
            return high > float(self.out[0]) + HAIR and low < float(self.out[1]) - HAIR
        ends = [p[self.axis] for p in curve.ends]
        return max(ends) > self.out[0] and min(ends) < self.out[1]

    def _pieces(self, curve: Curve) -> list[Curve]:
        """What of a straight seam lies before and after what is taken out; an arc whole."""
        if not self._crosses(curve):
            return [curve]
        low, high = sorted(curve.ends, key=lambda p: p[self.axis])
        pieces = []
        for line, first in ((self.out[0], True), (self.out[1], False)):
            if (low[self.axis] < line) if first else (high[self.axis] > line):
                k = (line - low[self.axis]) / (high[self.axis] - low[self.axis])
                if not 0 < k < 1:
                    pieces.append(curve)
                    continue
                cut = low.plus(high.minus(low).scaled(k, k))
                pieces.append(Curve(low, cut) if first else Curve(cut, high))
        return pieces

    def _edges(self, block: Block, sides: set[Exact]) -> list[Curve]:
        """Seams along sides of the gap, from edge to edge of a block."""
        zero: Exact = Fraction(0)
        width, height = block.grid
        if self.axis:
            return [Curve(Point(zero, at), Point(width, at)) for at in sides if 0 < at < height]
        return [Curve(Point(at, zero), Point(at, height)) for at in sides if 0 < at < width]
