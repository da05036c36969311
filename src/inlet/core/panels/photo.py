"""A photograph of a piece of fabric, to scale: two places on it, and how far they lie apart."""

from __future__ import annotations

from math import hypot

from inlet.core.numbers import Exact, Fraction, nearest_mark
from inlet.core.project import Pair, PanelPhoto


def photo_scale(photo: PanelPhoto) -> float:
    """How long the photograph's width is. Places are parts of it."""
    (a, b), (c, d) = photo.points
    return float(photo.distance) / hypot(float(c - a), float(d - b))


def measured_box(
    corner: tuple[float, float], opposite: tuple[float, float], scale: float, mark: Fraction
) -> tuple[Pair, Pair]:
    """A box dragged on a photograph: its top left from the photograph's, and its size, at the
    nearest marks of a ruler; a mark wide at least."""
    low = [min(p, q) * scale for p, q in zip(corner, opposite, strict=True)]
    high = [max(p, q) * scale for p, q in zip(corner, opposite, strict=True)]
    at, size = [], []
    for begin, end in zip(low, high, strict=True):
        start = nearest_mark(Fraction(begin), mark)
        at.append(start)
        size.append(max(mark, nearest_mark(Fraction(end), mark) - start))
    return (at[0], at[1]), (size[0], size[1])


def on_photo(place: tuple[Exact, Exact], scale: float) -> tuple[float, float]:
    """A place measured from the photograph's top left as parts of its width."""
    return float(place[0]) / scale, float(place[1]) / scale
