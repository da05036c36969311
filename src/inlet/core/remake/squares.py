"""An improvised square as it shows, and the scraps that a field of them takes.

Scraps are sewn over the corners one after the other, clockwise from the top left. Each covers all
that lies beyond its seam, what was sewn before it too; the square is trimmed to itself each time,
so it stays as large as it was cut.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from typing import NamedTuple

from inlet.core.geometry import Picture, Point, Polygon, clip
from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import Measure, Pair
from inlet.core.remake.corners import LeastScrap, least_scrap, line_of
from inlet.core.remake.improvised import ImprovisedSquare

ZERO = Fraction(0)


def square_picture(
    square: ImprovisedSquare, raw: Pair, allowance: Exact, background: str
) -> Picture:
    """What shows of a square that is ``raw`` by that, its allowances turned in: patches from its
    finished top left, those sewn later last."""
    wide, high = raw[0] - 2 * allowance, raw[1] - 2 * allowance
    shown: Polygon = (
        Point(allowance, allowance), Point(allowance + wide, allowance),
        Point(allowance + wide, allowance + high), Point(allowance, allowance + high),
    )  # fmt: skip
    patches: list[tuple[Polygon, str]] = [(shown, background)]
    for seam, fabric in zip(square.seams, square.fabrics, strict=True):
        beyond = line_of(seam, raw)
        kept = [(clip(outline, beyond.opposite()), of) for outline, of in patches]
        patches = [(outline, of) for outline, of in kept if len(outline) > 2]
        corner = clip(shown, beyond)
        if len(corner) > 2:
            patches.append((corner, fabric))
    move = Point(-allowance, -allowance)
    return tuple((tuple(p.plus(move) for p in outline), of) for outline, of in patches)


class ScrapPool(NamedTuple):
    """The scraps a field of squares takes: how many of each size and fabric, and how many corners
    are sewn in all."""

    scraps: Counter[tuple[LeastScrap, str]]
    corners: int


def scrap_pool(squares: Iterable[ImprovisedSquare], measure: Measure, step: Fraction) -> ScrapPool:
    """The least scraps that cover the corners of squares, each size up to the next ``step``, so
    that the pool has few sizes."""
    scraps: Counter[tuple[LeastScrap, str]] = Counter()
    for square in squares:
        for seam, fabric in zip(square.seams, square.fabrics, strict=True):
            least = least_scrap(seam, measure)
            size = LeastScrap(next_mark(least.length, step), next_mark(least.width, step))
            scraps[size, fabric] += 1
    return ScrapPool(scraps, scraps.total())
