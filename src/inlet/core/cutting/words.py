"""Cloth to buy, in words."""

from __future__ import annotations

from inlet.core.cutting.strips import Cloth
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
