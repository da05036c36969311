"""How far to move the guide of the machine, and small lengths, in words."""

from __future__ import annotations

from inlet.core.numbers import Fraction, nearest_mark, vulgar_text
from inlet.core.project import Measure
from inlet.core.words import length_text, unit_of

LEAST_STEP = Fraction(1, 64)
"""Inches that a guide is moved by at the least."""
LEAST_CENTIMETRES = 0.05
"""The same, in a project in centimetres."""


def small_length(inches: float, measure: Measure) -> str:
    """A small length in decimals: ``0.267 in``."""
    return f"{inches * float(measure.system.per_inch):.3f} {unit_of(measure)}"


def guide_text(more: float, measure: Measure) -> str:
    """How far to move the guide where a seam takes so many inches more than planned."""
    size = abs(more)
    if measure.system.name == "inch":
        step = nearest_mark(Fraction(size).limit_denominator(10_000), LEAST_STEP)
        step_text = vulgar_text(length_text(step, measure))
    else:
        steps = round(size * float(measure.system.per_inch) / LEAST_CENTIMETRES)
        step, step_text = Fraction(steps), f"{steps * LEAST_CENTIMETRES:.2f} {unit_of(measure)}"
    if not step:
        return "That is less than a guide can be moved by."
    way = "toward the needle" if more > 0 else "away from the needle"
    return f"Move the guide {step_text} {way}."
