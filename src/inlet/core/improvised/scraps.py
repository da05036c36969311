"""The scraps that a field of improvised squares takes, and what is left behind its corners."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.improvised.coverage import LeastScrap, least_scrap
from inlet.core.improvised.seams import CornerSeam, ImprovisedSquare, seam_length
from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import Measure

GRAMS_A_SQUARE_INCH = 0.11
"""Quilting cotton weighs 140 to 180 g a square metre, of 1,550 square inches."""
GRAMS_AN_OUNCE = 28.35


class ScrapPool(NamedTuple):
    """The scraps a field of squares takes: how many of each size and fabric, how many corners are
    sewn in all, how long their seams are, and the area of what lies behind them."""

    scraps: Counter[tuple[LeastScrap, str]]
    corners: int
    length: float
    behind: float


def scrap_pool(squares: Iterable[ImprovisedSquare], measure: Measure) -> ScrapPool:
    """The least scraps that cover the corners of squares, each side up to the next coarse mark
    (half an inch, a centimetre), so that the pool has few sizes."""
    step = measure.system.coarse
    seams: Counter[tuple[CornerSeam, str]] = Counter()
    for square in squares:
        check()
        for seam, fabric in zip(square.seams, square.fabrics, strict=True):
            seams[seam._replace(corner=0), fabric] += 1
    scraps: Counter[tuple[LeastScrap, str]] = Counter()
    length = behind = 0.0
    for (seam, fabric), number in seams.items():
        least = least_scrap(seam, measure)
        size = LeastScrap(next_mark(least.length, step), next_mark(least.width, step))
        scraps[size, fabric] += number
        length += number * float(seam_length(seam))
        behind += number * float(offcut_area(seam, measure.seam))
    return ScrapPool(scraps, scraps.total(), length, behind)


class ScrapStrips(NamedTuple):
    """Strips to sew on corner after corner: ``number`` of them, ``width`` wide, ``length`` long."""

    fabric: str
    width: Fraction
    length: Fraction
    number: int


def scrap_strips(pool: ScrapPool, usable: Callable[[str], Fraction]) -> Iterator[ScrapStrips]:
    """The strips that a pool of scraps is cut from while it is sewn, by fabric and width, none
    longer than is ``usable`` of its fabric: scraps go on strips longest first, each on the first
    that has room; the last strip is as long as it must be."""
    widths: dict[tuple[str, Fraction], list[tuple[Fraction, int]]] = {}
    for (size, fabric), number in sorted(pool.scraps.items(), reverse=True):
        widths.setdefault((fabric, size.width), []).append((size.length, number))
    for (fabric, width), lengths in sorted(widths.items(), key=lambda item: item[0], reverse=True):
        check()
        longest = max(usable(fabric), lengths[0][0])
        taken: list[Fraction] = []
        for length, number in lengths:
            left = number
            for i, used in enumerate(taken):
                fit = min(left, int((longest - used) // length))
                taken[i] += fit * length
                left -= fit
            while left:
                fit = min(left, int(longest // length))
                taken.append(fit * length)
                left -= fit
        if len(taken) > 1:
            yield ScrapStrips(fabric, width, longest, len(taken) - 1)
        yield ScrapStrips(fabric, width, taken[-1], 1)


def offcut_area(seam: CornerSeam, allowance: Exact) -> Exact:
    """What is trimmed behind a corner: its triangle ab/2, d = ab/c deep, without the allowance
    beside the seam: ((d - s)/d)² of it; nothing of a corner no deeper than the allowance."""
    a, b = seam.along, seam.down
    deep = a * b / seam_length(seam)
    if deep <= allowance:
        return deep - deep
    left = (deep - allowance) / deep
    return a * b / 2 * left * left


def weight_text(area: float, measure: Measure) -> str:
    """What an area of quilting cotton weighs: ``about 3 oz (90 g)``."""
    grams = area / float(measure.system.per_inch) ** 2 * GRAMS_A_SQUARE_INCH
    ounces = grams / GRAMS_AN_OUNCE
    said = f"about {ounces:.0f} oz" if ounces >= 1 else "less than 1 oz"
    return f"{said} ({grams:.0f} g)"
