"""Exact numbers and places as plans hold them: strings."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.geometry import Point
from inlet.core.numbers import Exact, Root2, write_exact

_LONGEST_FRACTION = 10**6
"""Denominators past this come only from roots taken upward; those are written as decimals."""


def number(x: Exact) -> str:
    """An exact number as a string; one whose root was taken upward as a decimal of 9 places."""
    largest = x.d if isinstance(x, Root2) else x.denominator
    return write_exact(x) if largest <= _LONGEST_FRACTION else f"{float(x):.9f}"


def pair(numbers: tuple[Exact, Exact]) -> list[str]:
    return [number(numbers[0]), number(numbers[1])]


def places(outline: Sequence[Point]) -> list[list[str]]:
    return [pair(p) for p in outline]
