"""Strips of fabric laid out: what lies on them, and the order they are cut in."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from inlet.core.project import LaidFabric, LaidPieces, LaidStrip, replace


def pieces_on(strips: Iterable[LaidStrip]) -> Iterator[tuple[LaidPieces, int]]:
    """All that lies on strips, and how often."""
    for strip in strips:
        for segment in strip.segments:
            for row in segment.rows:
                for pieces in row.pieces:
                    yield pieces, strip.count * segment.count * pieces.count * pieces.holds


def number_on(strips: Iterable[LaidStrip]) -> int:
    """How many pieces lie on strips."""
    return sum(number for _, number in pieces_on(strips))


def widest_first(strips: Iterable[LaidStrip]) -> tuple[LaidStrip, ...]:
    """The order they are cut in, equal strips taken together."""
    laid_strips: list[LaidStrip] = []
    for strip in sorted(strips, key=lambda s: -s.width):
        same = (i for i, s in enumerate(laid_strips) if replace(s, count=strip.count) == strip)
        at = next(same, None)
        if at is None:
            laid_strips.append(strip)
        else:
            laid_strips[at] = replace(laid_strips[at], count=laid_strips[at].count + strip.count)
    return tuple(laid_strips)


def without_last(laid: LaidFabric) -> LaidFabric:
    *first, last = laid.strips
    kept = [replace(last, count=last.count - 1)] if last.count > 1 else []
    return replace(laid, strips=(*first, *kept))
