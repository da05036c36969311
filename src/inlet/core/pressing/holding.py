"""What holding a seam or a centre weighs: pins, and answers to “what if”."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from inlet.core.pressing.alike import Follows
from inlet.core.pressing.costs import CostTable, only_crossing, ways_of
from inlet.core.pressing.outcomes import WAYS, outcome
from inlet.core.pressing.spans import PressedSeams

PIN = 10**8
"""What a pin weighs: more than anything else, less than what cannot be done."""


class Pinned(NamedTuple):
    """What a pin of the maker came to: the span it holds, or the junction, and the way it says (a
    side, open, or for a junction whether to whirl); ``kept`` if the pressing goes that way.
    ``number`` is its place among the block's pins."""

    number: int
    span: int | None
    vertex: int | None
    way: int
    kept: bool = True


def held(seams: PressedSeams, pin: Pinned, weight: int = PIN) -> CostTable:
    """What going another way than a pin costs, over spans."""
    if pin.span is not None:
        costs = np.full(WAYS, weight)
        costs[pin.way] = 0
        return CostTable((pin.span,), costs)
    assert pin.vertex is not None
    junction = seams.at[pin.vertex]
    assert junction.spin is not None
    later = junction.spin.arms[0].join
    crossing = next(c for c in junction.crossings if c.later is later)
    alone = only_crossing(junction, crossing)
    each_its_own = [Follows(s, False) for s in range(len(seams.spans))]
    spans, values = ways_of(seams, alone.arms, each_its_own)
    outcome_there = outcome(alone, values)
    costs = np.where(outcome_there.spun == bool(pin.way), 0, weight)
    return CostTable(spans, costs.reshape((WAYS,) * len(spans)))
