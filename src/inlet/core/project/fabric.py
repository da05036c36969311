"""A fabric of the project."""

from __future__ import annotations

from typing import Literal

from inlet.core.numbers import Exact, Fraction
from inlet.core.project.cutting import Direction, Have, have_measured
from inlet.core.project.value import Pair, Value, replace

FabricId = str | None
"""A fabric by its id; None where none lies yet."""
Lightness = Literal["", "light", "medium", "dark"]


class Print(Value, frozen=True, kw_only=True):
    """A picture of a print: ``image`` as base64 of a PNG or JPEG file, ``width`` the length of
    fabric it shows from side to side."""

    image: str
    width: Exact = Fraction(4)


class Fabric(Value, frozen=True, kw_only=True):
    """A fabric. ``width`` is the usable width, selvages off; ``colour`` is ``#rrggbb``; ``value``
    is ``light``, ``medium`` or ``dark`` where the maker says so, else empty. ``have`` is what the
    maker has of it, ``direction`` says which ways a print may lie, ``shrink`` what washing takes
    along it and across it, in per cent, and ``price`` what a yard or metre costs; ``lengthwise``
    where Cut long pieces lengthwise, as of a stripe, or for borders without joins."""

    id: str
    name: str = ""
    colour: str = "#cfc8ba"
    width: Exact | None = None
    value: Lightness = ""
    print: Print | None = None
    notes: str = ""
    have: tuple[Have, ...] = ()
    direction: Direction = ""
    shrink: Pair | None = None
    price: Exact | None = None
    lengthwise: bool = False

    @property
    def shrinkage(self) -> Pair:
        """What washing takes, along and across, in per cent."""
        return self.shrink if self.shrink is not None else (Fraction(0), Fraction(0))

    @property
    def title(self) -> str:
        return self.name or self.id


def fabric_measured(fabric: Fabric, factor: Fraction) -> Fabric:
    """A fabric with its lengths in another system, ``factor`` of its units to one of before."""
    shown = fabric.print
    return replace(
        fabric,
        width=None,
        print=replace(shown, width=shown.width * factor) if shown is not None else None,
        have=tuple(have_measured(have, factor) for have in fabric.have),
    )
