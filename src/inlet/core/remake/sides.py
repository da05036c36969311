"""Where figures go on: the same fabric on both sides of a seam."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from inlet.core.geometry import Picture, Polygon, edges
from inlet.core.numbers import Exact, Fraction

Stretch = tuple[Exact, Exact, object]
"""From where to where along a line a fabric lies beside it."""


def beside(picture: Picture, axis: int, at: Exact, before: bool) -> Iterator[Stretch]:
    """The sides of patches that lie on an upright line (a level one, for axis 1), of those left of
    it or above, or of those behind it."""
    for outline, fabric in picture:
        for p, q in edges(outline):
            if p[axis] == at == q[axis] and _before(outline, axis, at) == before:
                low, high = sorted((p[1 - axis], q[1 - axis]))
                yield low, high, fabric


def _before(outline: Polygon, axis: int, at: Exact) -> bool:
    return any(p[axis] < at for p in outline)


def alike(before: Iterable[Stretch], behind: Iterable[Stretch]) -> Exact:
    """Over what length the same fabric lies on both sides."""
    total: Exact = Fraction(0)
    others = list(behind)
    for low, high, fabric in before:
        for begin, end, there in others:
            both = min(high, end) - max(low, begin)
            if fabric is not None and fabric == there and both > 0:
                total = total + both
    return total
