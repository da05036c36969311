"""The binding of a quilt: once round it, and a bit more to turn its corners and to join its ends.
Strips joined with diagonal seams lose their width at each join."""

from __future__ import annotations

from math import isqrt
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.numbers import (
    HALF_ROOT2,
    ROOT2,
    Exact,
    Fraction,
    ceil_exact,
    floor_exact,
    next_mark,
)
from inlet.core.project import Binding, Measure, Pair, Project
from inlet.core.setting.joined import number_joined

MORE_BINDING = Fraction(10)
"""Inches for the corners and where its ends meet."""
USUAL_BINDING = Fraction(5, 2)
"""Inches it is cut wide where the maker does not say."""


class BindingPlan(NamedTuple):
    """The binding: strips cut ``width`` wide, ``length`` of it needed; ``strips`` across the
    fabric, each ``strip`` long, or, on the bias, one continuous strip from one ``square``, which
    gives ``strip`` of it in so many ``rounds`` of a tube."""

    width: Exact
    length: Exact
    strips: int
    strip: Exact
    square: Fraction | None
    fabric: str
    rounds: int = 0

    @property
    def joins(self) -> int:
        return max(0, self.strips - 1)


def binding_plan(size: Pair, project: Project) -> BindingPlan | None:
    """The binding of a quilt of finished ``size``; None where none is asked for."""
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
        square, rounds = _bias_square(length, width, measure.seam)
        strip = _bias_length(square, rounds, measure.seam)
        return BindingPlan(width, length, 1, strip, square, binding.fabric, rounds)
    strips = number_joined(length, room, width)
    return BindingPlan(width, length, strips, room, None, binding.fabric)


def _bias_square(length: Exact, width: Exact, seam: Exact) -> tuple[Fraction, int]:
    """The least square, of a whole number of inches or centimetres, that gives ``length`` of bias
    strip, and in how many rounds. Cut on the diagonal and sewn into a tube, a square of side S is
    (S - 2s)/√2 high between its bias edges, square to them: only whole strips of that count."""
    side = max(ceil_exact(width * ROOT2 + 4 * seam), isqrt(floor_exact(length * width)))
    while True:
        check()
        rounds = floor_exact((side - 2 * seam) * HALF_ROOT2 / width)
        if rounds and _bias_length(Fraction(side), rounds, seam) >= length:
            return Fraction(side), rounds
        side += 1


def _bias_length(square: Fraction, rounds: int, seam: Exact) -> Exact:
    """What the rounds of a tube give: each is S√2 long, crosses two seams at an eighth of a turn,
    and each of them takes 2s√2 of it: √2(S - 4s)."""
    return rounds * ROOT2 * (square - 4 * seam)


def binding_width(binding: Binding, measure: Measure) -> Exact:
    """As the maker says, else the usual 2 1/2 in (6.5 cm)."""
    if binding.width is not None:
        return binding.width
    return next_mark(measure.from_inches(USUAL_BINDING), measure.system.ruler)
