"""The binding of a quilt: once round it, and a bit more to turn its corners and to join its ends.
Strips joined with diagonal seams lose their width at each join."""

from __future__ import annotations

from math import sqrt
from typing import NamedTuple

from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import Binding, Measure, Pair, Project
from inlet.core.setting.cuts import number_joined

MORE_BINDING = Fraction(10)
"""Inches for the corners and where its ends meet."""
USUAL_BINDING = Fraction(5, 2)
"""Inches it is cut wide where the maker does not say."""


class BindingPlan(NamedTuple):
    """The binding: strips cut ``width`` wide, ``length`` of it in all; ``strips`` across the
    fabric, each ``strip`` long, or, on the bias, cut from one ``square``."""

    width: Exact
    length: Exact
    strips: int
    strip: Exact
    square: Fraction | None
    fabric: str

    @property
    def joins(self) -> int:
        return max(0, self.strips - 1)


def binding_plan(size: Pair, project: Project) -> BindingPlan | None:
    """The binding of a quilt of finished ``size``; None where none is asked for. On the bias, a
    square of side S gives S(S - 4s) of it: it is cut in two, and both seams of the tube take 2s."""
    quilt = project.quilt
    binding = quilt.binding if quilt is not None else None
    if binding is None:
        return None
    measure = project.measure
    width = binding_width(binding, measure)
    edge = 2 * (size[0] + size[1]) + 8 * measure.seam
    length = edge + measure.from_inches(MORE_BINDING)
    room = project.usable_width(binding.fabric)
    if binding.cut == "bias":
        s, needed = float(measure.seam), float(length * width)
        side = Fraction(2 * s + sqrt(4 * s * s + needed)).limit_denominator(10**6)
        square = next_mark(side, Fraction(1))
        return BindingPlan(width, length, 1, length, square, binding.fabric)
    strips = number_joined(length, room, width)
    return BindingPlan(width, length, strips, room, None, binding.fabric)


def binding_width(binding: Binding, measure: Measure) -> Exact:
    """As the maker says, else the usual 2 1/2 in (6.5 cm)."""
    if binding.width is not None:
        return binding.width
    return next_mark(measure.from_inches(USUAL_BINDING), measure.system.ruler)
