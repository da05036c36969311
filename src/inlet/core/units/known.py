"""The units of the project's other blocks, for what units share."""

from __future__ import annotations

from collections import deque

from inlet.core.draft.patches import draft
from inlet.core.project.block import Block
from inlet.core.project.project import Project
from inlet.core.units.breakdown import break_down
from inlet.core.units.units import Unit, find_units

MOST_BLOCKS = 24
"""Of a larger project only the first blocks are looked through."""

_KNOWN: deque[tuple[Block, tuple[Unit, ...]]] = deque(maxlen=2 * MOST_BLOCKS)


def units_of_block(block: Block, find: bool = True) -> tuple[Unit, ...]:
    """A block's units, kept while the block is the same; none where they are not known yet and
    are not to be found now."""
    for known, units in tuple(_KNOWN):
        if known is block:
            return units
    if not find:
        return ()
    drawn = draft(block)
    units = find_units(drawn, break_down(drawn))
    _KNOWN.append((block, units))
    return units


def unknown_blocks(project: Project) -> list[Block]:
    """The blocks whose units are not known yet, of those looked through."""
    known = [block for block, _ in tuple(_KNOWN)]
    return [b for b in project.blocks[:MOST_BLOCKS] if not any(b is k for k in known)]
