"""Pieces that are cut already and are wanted smaller by now: they are cut down, not cut anew."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.layout.laid_places import places_of
from inlet.core.layout.laid_wants import LaidWant
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import LaidFabric

MOST_CUT_DOWN = Fraction(1)
"""Inches a piece that is cut may be larger than what is wanted of it now."""


CutDownNumbers = dict[tuple[str, tuple[Fraction, Fraction]], int]
"""How many are cut down of a stack, by its label, to a size."""


def cut_down(
    laid: LaidFabric, wants: Sequence[LaidWant], most: Exact, numbers: CutDownNumbers
) -> list[LaidWant]:
    """What is still wanted once pieces of fabric being cut, which are larger by up to ``most``, are
    cut down to what is wanted of their stack; counted in ``numbers``. Strips, whose stacks are
    numbered anew, are for any that is wanted so wide."""
    left_wants, labels = list(wants), {want.cut.label for want in wants}
    for place in places_of(laid):
        size = place.at.width, place.at.height
        wide, high = size[::-1] if place.turned else size
        left = place.number if place.holds == 1 else 0
        for i, want in enumerate(left_wants):
            number = min(want.number, left)
            is_for = place.label == want.cut.label or (
                want.cut.shape == "strip" and place.label not in labels
            )
            if number and is_for and _is_larger(wide, high, want, most):
                left_wants[i] = want._replace(number=want.number - number)
                what = want.cut.label, (want.wide, want.high)
                numbers[what] = numbers.get(what, 0) + number
                left -= number
    return left_wants


def _is_larger(wide: Exact, high: Exact, want: LaidWant, most: Exact) -> bool:
    """Is a piece somewhat larger than what is wanted? Of a strip its length does not matter."""
    along, across = wide - want.wide, high - want.high
    if want.cut.shape == "strip":
        return along >= 0 and 0 < across <= most
    return want.cut.shape != "template" and min(along, across) >= 0 < max(along, across) <= most
