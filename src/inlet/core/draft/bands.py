"""Bands as people type them: ``2:1:2``, ``1 1 1``, ``3 x 1``, or just how many."""

from __future__ import annotations

import re
from fractions import Fraction

from inlet.core.numbers import Exact, NumberError, parse_length, show
from inlet.core.project import MOST_BANDS


def parse_bands(text: str) -> tuple[Exact, ...]:
    """The bands in ``text``. One whole number is a count of equal bands; otherwise proportions
    between colons, commas or spaces. Raises ``NumberError`` with a sentence."""
    plain = text.strip()
    if re.fullmatch(r"\d+", plain):
        count = int(plain)
        if not 0 < count <= MOST_BANDS:
            raise NumberError(f"between 1 and {MOST_BANDS} bands are possible")
        return (Fraction(1),) * count
    parts = [p for p in re.split(r"[:,;]|\s+", plain) if p]
    if not parts:
        raise NumberError("bands are missing; write them like 2:1:2, or a number of equal ones")
    if len(parts) > MOST_BANDS:
        raise NumberError(f"between 1 and {MOST_BANDS} bands are possible")
    bands = tuple(parse_length(p) for p in parts)
    if any(band <= 0 for band in bands):
        raise NumberError("each band must be above 0")
    return bands


def show_bands(bands: tuple[Exact, ...]) -> str:
    """Bands as they can be typed: ``3`` for equal ones, else ``2:1:2``."""
    if all(band == bands[0] for band in bands) and bands[0] == 1:
        return str(len(bands))
    return ":".join(show(band).replace(" ", "-") for band in bands)
