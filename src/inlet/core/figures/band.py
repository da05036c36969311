"""Strips joined end to end: how a join is sewn, and where the joins lie in each strip cut from the
band."""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.figures.display import Box, BoxText, FabricArea, Figure, Item, Polyline, Spot, Tag
from inlet.core.numbers import show, vulgar_text
from inlet.core.project import Measure
from inlet.core.setting import Band
from inlet.core.words import length_text

MOST_BARS = 6
"""Kinds of strips that are drawn one below the other."""
JOIN = 62.0
"""Pixels a drawing of a join is high."""
BAR = 46.0
"""Pixels from one bar to the next."""
DEEP = 15.0
"""Pixels a bar is high."""


def band_height(band: Band, unit: float) -> float:
    """How high the figure of a band is."""
    return (JOIN + 20 + BAR * min(MOST_BARS, len(band.kinds))) * unit


def band_figure(band: Band, measure: Measure, box: Box, unit: float) -> Figure:
    """A band in the upper part of a box: a join, then each kind of strip to scale with its joins,
    and how far they lie from its left end. ``unit`` is the length of a pixel at the usual size of
    text."""
    left, top, right, _ = box
    items = list(_join(band, left, top + 6 * unit, unit))
    longest = max(float(piece.length) for piece in band.pieces)
    scale = (right - left) / longest
    for i, (piece, number) in enumerate(band.kinds[:MOST_BARS]):
        y = top + (JOIN + 20 + i * BAR) * unit
        long, deep = float(piece.length) * scale, DEEP * unit
        corners = ((left, y), (left + long, y), (left + long, y + deep), (left, y + deep))
        items.append(FabricArea(corners, band.fabric or None, "ready"))
        times = f"{number} × " if number > 1 else ""
        words = f"{times}{length_text(piece.length, measure)}  {piece.name}"
        place = left, y - 17 * unit, left + long, y - 2 * unit
        items.append(BoxText(place, vulgar_text(words), 8.5, wide=True))
        lean = min(deep, float(band.width) * scale) if band.slanted else 0.0
        for join in piece.joins:
            x = left + float(join) * scale
            ends = (x - lean / 2, y + deep), (x + lean / 2, y)
            items.append(Polyline(ends, "seam", on=band.fabric or None))
            below = x - 40 * unit, y + deep, x + 40 * unit, y + deep + 13 * unit
            text = show(join, system=measure.system, vulgar=True, ruler=True)
            items.append(BoxText(below, text, 7.5, "soft-words", wide=True))
    return tuple(items)


def _join(band: Band, left: float, top: float, unit: float) -> Iterator[Item]:
    """Two strips right sides together, and their seam."""
    deep, long = 26 * unit, 120 * unit
    fabric = band.fabric or None

    def strip(x: float, y: float, wide: float, high: float, side: str) -> FabricArea:
        corners: tuple[Spot, ...] = ((x, y), (x + wide, y), (x + wide, y + high), (x, y + high))
        return FabricArea(corners, fabric, "right" if side == "right" else "wrong")

    yield strip(left, top, long, deep, "right")
    end = left + long
    if band.slanted:
        yield strip(end - deep, top, deep, 2 * deep, "wrong")
        ends = (end - deep, top), (end, top + deep)
    else:
        yield strip(end - deep * 1.6, top, deep * 1.6, deep, "wrong")
        ends = (end - 6 * unit, top), (end - 6 * unit, top + deep)
    yield Polyline(ends, "seam")
    yield Tag((left + 30 * unit, top + deep / 2), f"{band.strips} strips", 8)
