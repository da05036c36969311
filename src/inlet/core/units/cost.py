"""What a way to break a part down leaves, to compare it by."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.units.parts import Part


class BreakdownCost(NamedTuple):
    """The less the better, the first first: stuck parts, pivots and partial seams, odd pieces,
    units, different parts to make."""

    stuck: int
    awkward: int
    odd: int
    units: int
    kinds: int


class Solved(NamedTuple):
    """A part, and what sewing it takes."""

    part: Part
    cost: BreakdownCost
