"""What a unit measured once it was sewn, and what follows of it."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.project import MadeAnswer, Measure
from inlet.core.table import Size
from inlet.core.words import measured_text


class MadeSize(NamedTuple):
    """What a unit measures, unfinished, along the sides of its drawing, and the answer to that."""

    size: Size
    answer: MadeAnswer = "ease"

    @property
    def match(self) -> bool:
        """Is all else cut to match it?"""
        return self.answer != "ease"


def made_note(size_made: MadeSize, measure: Measure) -> str:
    """What a step says of units that were measured."""
    size = measured_text(size_made.size, measure)
    if size_made.answer == "trim":
        return f"Trim them all to {size}, the smallest that were sewn; all else is cut to match."
    if size_made.answer == "match":
        return f"They measured {size}: sew the others to that, too; all else is cut to match."
    return f"They measured {size}."
