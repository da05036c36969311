"""Cloth to buy, in words."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction

from inlet.core.cutting.strips import YARD, Cloth
from inlet.core.numbers import show
from inlet.core.project import Measure
from inlet.core.words import length_text


def buying_text(cloth: Cloth, measure: Measure) -> str:
    """How much of a cloth: strips, their length together, and what to buy."""
    bought = (
        f"{show(cloth.yards())} yd"
        if measure.system == "inch"
        else f"{show(cloth.buy, system='cm')} cm"
    )
    strips = "1 strip" if len(cloth.strips) == 1 else f"{len(cloth.strips)} strips"
    return f"{strips}, {length_text(cloth.length, measure)} in all; buy {bought}"


def total_text(cloths: Sequence[Cloth], measure: Measure) -> str:
    """All the cloth to buy together: ``7/8 yd``, ``0.7 m``."""
    bought = sum((cloth.buy for cloth in cloths), Fraction(0))
    if measure.system == "inch":
        return f"{show(bought / YARD)} yd"
    return f"{show(bought / 100, system='cm')} m"
