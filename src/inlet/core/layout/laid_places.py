"""Where the pieces of laid fabric lie.

x runs across the fabric from its left edge, or from the fold; y along it. Folded fabric lies on one
side of the fold only. What is left of a strip at the fold is opened: then it reaches as far to the
other side, with half the layers.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal, NamedTuple

from inlet.core.cancellation import check
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import LaidFabric, LaidRow, LaidSegment, LaidStrip

ZERO = Fraction(0)
FOLD = Fraction(1, 16)
"""Of what squaring takes: a thread or two, which lie in the fold."""
Way = Literal["across", "along"]


class Rect(NamedTuple):
    """A piece of fabric as it lies: its place, its size, and its layers."""

    x: Exact
    y: Exact
    width: Exact
    height: Exact
    layers: int

    @property
    def right(self) -> Exact:
        return self.x + self.width

    @property
    def bottom(self) -> Exact:
        return self.y + self.height

    def parted(self, way: Way, at: Exact) -> tuple[Rect, Rect]:
        """What a stroke leaves on either side."""
        if way == "across":
            return (
                self._replace(height=at - self.y),
                self._replace(y=at, height=self.bottom - at),
            )
        return self._replace(width=at - self.x), self._replace(x=at, width=self.right - at)

    def opened(self) -> Rect:
        """Unfolded at x = 0, where it touches the fold."""
        return self._replace(x=-self.right, width=2 * self.right, layers=self.layers // 2)


class LaidPlace(NamedTuple):
    """Where pieces of a stack lie: in each layer one, or as many as it ``holds`` head to tail, of
    so many ``copies`` of the fabric."""

    label: str
    at: Rect
    turned: bool
    holds: int = 1
    copies: int = 1

    @property
    def number(self) -> int:
        """How many pieces come from it, of all layers and copies."""
        return self.at.layers * self.holds * self.copies


class StripCell(NamedTuple):
    """A segment where it lies in its strip: from ``x`` on, with its ``rows``."""

    x: Exact
    width: Exact
    layers: int
    rows: tuple[LaidRow, ...]


class StripPlan(NamedTuple):
    """A strip's segments in layers of the folded fabric, then those where it is opened. ``squared``
    is what its end loses; ``opens`` how far from the fold it is opened, None where it is not."""

    pairs: tuple[StripCell, ...]
    opened: tuple[StripCell, ...]
    squared: Exact
    opens: Exact | None


def room_across(laid: LaidFabric) -> Exact:
    """What the segments of a strip may take, so that no edge of theirs is the fabric's own: folded,
    one stroke squares both its ends, and the fold is cut off; folded twice, a strip is two equal
    halves, each squared at both ends; in a single layer the last segment is cut off what is
    left."""
    fold = FOLD * laid.squaring if laid.layers > 1 else ZERO
    return 2 * laid.width / max(2, laid.layers) - 2 * laid.squaring - fold


def _single(segments: Sequence[LaidSegment]) -> Iterator[LaidSegment]:
    for segment in segments:
        yield from [segment] * segment.count


def strip_plan(laid: LaidFabric, strip: LaidStrip) -> StripPlan:
    """Which segments lie in all the layers, and which at the fold. A strip used from selvage to
    selvage has no end to square."""
    width = laid.width / laid.layers
    across = sum((s.width * s.count for s in strip.segments), ZERO)
    squared = laid.squaring if across <= room_across(laid) else ZERO
    if laid.layers == 1:
        x = squared
        cells = []
        for segment in _single(strip.segments):
            cells.append(StripCell(x, segment.width, 1, segment.rows))
            x += segment.width
        return StripPlan(tuple(cells), (), squared, None)
    x = width - squared
    pairs, odd = [], []
    for segment in strip.segments:
        for _ in range(segment.count // 2):
            x -= segment.width
            pairs.append(StripCell(x, segment.width, laid.layers, segment.rows))
        if segment.count % 2:
            odd.append(segment)
    far = x
    opened = []
    for segment in odd:
        far -= segment.width
        opened.append(StripCell(far, segment.width, laid.layers // 2, segment.rows))
    return StripPlan(tuple(pairs), tuple(opened), squared, x if odd else None)


def strip_tops(laid: LaidFabric) -> Iterator[tuple[LaidStrip, Exact, bool]]:
    """Each single strip, where it begins, and whether the edge is squared off before it: not that
    of a strip which is cut already, whose long edges are true."""
    y: Exact = ZERO
    number = 0
    edge = edge_squared(laid)
    for strip in laid.strips:
        for _ in range(strip.count):
            squares = bool(edge) and (number == 0 or (laid.every > 0 and number % laid.every == 0))
            y += edge if squares else ZERO
            yield strip, y, squares
            y += strip.width
            number += 1


def edge_squared(laid: LaidFabric) -> Exact:
    """What squaring takes of the fabric's edge, before its strips are cut."""
    return laid.squaring if laid.kind != "strips" else ZERO


def length_used(laid: LaidFabric) -> Exact:
    """How much of its length is cut up, squaring included."""
    return max((top + strip.width for strip, top, _ in strip_tops(laid)), default=ZERO)


def fits(laid: LaidFabric) -> bool:
    """Do its strips lie on it, their segments on them, and so on down to the pieces?"""
    if length_used(laid) > laid.length:
        return False
    for strip in laid.strips:
        across = sum((s.width * s.count for s in strip.segments), ZERO)
        if across > max(room_across(laid), 2 * laid.width / max(2, laid.layers)):
            return False
        for segment in strip.segments:
            if sum((row.width for row in segment.rows), ZERO) > strip.width:
                return False
            for row in segment.rows:
                wide = sum((p.size[0] * p.count for p in row.pieces), ZERO)
                if wide > segment.width or any(p.size[1] > row.width for p in row.pieces):
                    return False
    return True


def places_of(laid: LaidFabric) -> list[LaidPlace]:
    """Where every piece lies, strip by strip."""
    places: list[LaidPlace] = []
    for strip, y, _ in strip_tops(laid):
        check()
        plan = strip_plan(laid, strip)
        for cell in (*plan.pairs, *plan.opened):
            places += _places_in(cell, y, laid.count)
    return places


def _places_in(cell: StripCell, y: Exact, copies: int) -> Iterator[LaidPlace]:
    for row in cell.rows:
        x = cell.x
        for pieces in row.pieces:
            wide, high = pieces.size
            for _ in range(pieces.count):
                at = Rect(x, y, wide, high, cell.layers)
                yield LaidPlace(pieces.label, at, pieces.turned, pieces.holds, copies)
                x += wide
        y += row.width
