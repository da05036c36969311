"""Bands as people type them: ``2:1:2``, ``1 1 1``, just how many, or sizes with commas."""

from __future__ import annotations

import re
from math import lcm
from typing import NamedTuple

from inlet.core.numbers import INCHES, Exact, Fraction, NumberError, System, parse_length, show
from inlet.core.project import MOST_BANDS, total


class TypedBands(NamedTuple):
    """``proportions`` of the bands; ``size`` is what they come to together where they were typed
    as finished sizes, else None."""

    proportions: tuple[Exact, ...]
    size: Exact | None = None


def parse_bands(text: str, system: System = INCHES) -> TypedBands:
    """The bands in ``text``. One whole number is a count of equal bands; numbers between colons or
    spaces are proportions; between commas, finished sizes in ``system``. Raises ``NumberError``
    with a sentence."""
    plain = text.strip()
    if re.fullmatch(r"\d+", plain):
        return TypedBands((Fraction(1),) * _count(int(plain)))
    if "," in plain:
        sizes = tuple(parse_length(part, system) for part in plain.split(","))
        return TypedBands(_checked(sizes), total(sizes))
    parts = [p for p in re.split(r"[:;]|\s+", plain) if p]
    if not parts:
        raise NumberError("bands are missing; write them like 2:1:2, or a number of equal ones")
    return TypedBands(_checked(tuple(parse_length(p) for p in parts)))


def _count(count: int) -> int:
    if not 0 < count <= MOST_BANDS:
        raise NumberError(f"between 1 and {MOST_BANDS} bands are possible")
    return count


def _checked(bands: tuple[Exact, ...]) -> tuple[Exact, ...]:
    _count(len(bands))
    if any(band <= 0 for band in bands):
        raise NumberError("each band must be above 0")
    return bands


def show_bands(bands: tuple[Exact, ...]) -> str:
    """Bands as they can be typed: ``3`` for equal ones, else ``2:1:2``, in lowest terms where the
    proportions are whole or halves, thirds, quarters of each other."""
    if all(band == bands[0] for band in bands):
        return str(len(bands))
    parts = [band / bands[0] for band in bands]
    common = lcm(*(part.denominator for part in parts if isinstance(part, Fraction)))
    if all(isinstance(part, Fraction) for part in parts) and common <= 64:
        return ":".join(str(part * common) for part in parts)
    return ":".join(show(band).replace(" ", "-") for band in bands)
