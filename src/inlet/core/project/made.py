"""What units of blocks measured once they were sewn, and what is done about it."""

from __future__ import annotations

from collections import Counter
from typing import Literal

from inlet.core.numbers import Exact, Fraction
from inlet.core.project.value import Pair, Value, replace

MadeAnswer = Literal["ease", "match", "trim"]
"""What a size other than planned means for the rest: it is eased in as it is; all else is cut to
match it; what was sewn is trimmed to the smallest, and all else is cut to match that."""


class MeasuredSize(Value, frozen=True, kw_only=True):
    """``number`` of a unit measured so much, unfinished (width, height)."""

    size: Pair
    number: int = 1


class MadeUnit(Value, frozen=True, kw_only=True):
    """A unit that was sewn: the mark of its drawing, what the step that makes it was called, what
    some of it ``measured``, and the answer to that."""

    drawn: str
    what: str = ""
    measured: tuple[MeasuredSize, ...] = ()
    answer: MadeAnswer = "ease"

    @property
    def in_use(self) -> Pair:
        """The size all else goes by: eased in, the mean; matched, what most of them measured, of
        equally many the smaller; trimmed, the smallest each way."""
        sizes = [each.size for each in self.measured for _ in range(each.number)]
        if self.answer == "trim":
            return _smallest(sizes)
        if self.answer == "match":
            many = Counter(sizes)
            return min(many, key=lambda size: (-many[size], size[0] * size[1], size))
        return _mean([size[0] for size in sizes]), _mean([size[1] for size in sizes])

    @property
    def spread(self) -> Exact:
        """By how much the largest and the smallest differ, across or down."""
        sizes = [each.size for each in self.measured]
        return max(
            max(size[way] for size in sizes) - min(size[way] for size in sizes) for way in (0, 1)
        )

    @property
    def count(self) -> int:
        """How many were measured."""
        return sum(each.number for each in self.measured)


def _mean(lengths: list[Exact]) -> Exact:
    return sum(lengths, Fraction(0)) / len(lengths)


def _smallest(sizes: list[Pair]) -> Pair:
    return min(size[0] for size in sizes), min(size[1] for size in sizes)


def made_measured(made: tuple[MadeUnit, ...], factor: Exact) -> tuple[MadeUnit, ...]:
    """What was made with its lengths in another system."""
    return tuple(
        replace(
            unit,
            measured=tuple(
                replace(each, size=(each.size[0] * factor, each.size[1] * factor))
                for each in unit.measured
            ),
        )
        for unit in made
    )
