"""The units of the project's other blocks, for what units share."""

from __future__ import annotations

from collections import deque

from inlet.core.draft.patches import draft
from inlet.core.project import Block
from inlet.core.units.breakdown import break_down
from inlet.core.units.units import Unit, find_units

MOST_BLOCKS = 24
"""Of a larger project only the first blocks are looked through."""

_KNOWN: deque[tuple[Block, tuple[Unit, ...]]] = deque(maxlen=2 * MOST_BLOCKS)


def units_of_block(block: Block) -> tuple[Unit, ...]:
    """A block's units, kept while the block is the same."""
    for known, units in tuple(_KNOWN):
        if known is block:
            return units
    drawn = draft(block)
    units = find_units(drawn, break_down(drawn))
    _KNOWN.append((block, units))
    return units
