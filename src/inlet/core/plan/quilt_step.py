"""One step of making a quilt."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.numbers import Exact
from inlet.core.piecing import Step
from inlet.core.plan.sewn_block import SewnBlock
from inlet.core.project import Measure
from inlet.core.words import near_text

BACKING = "Backing"
"""What the step that makes the backing is ``of``."""
JOIN_ROWS, BINDING = "Join the rows", "Binding"
"""Titles of steps."""


class QuiltStep(NamedTuple):
    """One thing to do: a few words, then how, and the sizes to check it by. ``of`` is the label of
    the row or the border that it makes, ``times`` how often it is done, one by one or, as a chain,
    all ``at_once``; ``alike`` are the labels of all rows that are made alike in it. ``sewn`` is the
    step of a block's plan that it is. It is ticked off under its
    ``name``, which has no number in it: what is done stays done in a larger quilt."""

    title: str
    text: str
    measures: str = ""
    of: str = ""
    times: int = 1
    sewn: tuple[SewnBlock, Step] | None = None
    called: str = ""
    at_once: bool = False
    alike: tuple[str, ...] = ()

    @property
    def name(self) -> str:
        return self.called or self.title


def near_length(length: Exact, measure: Measure) -> str:
    """A length in words, as it is read off a ruler."""
    return near_text((length, length), measure)
