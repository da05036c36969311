"""The units of the project's other blocks, for what units share."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.draft import draft
from inlet.core.memo import Latest
from inlet.core.project import Block, Project
from inlet.core.units.breakdown import break_down
from inlet.core.units.units import Unit, find_units

MOST_BLOCKS = 24
"""Of a larger project only the first blocks are looked through."""


class BlockUnits(NamedTuple):
    """A block of the project and its units."""

    block: Block
    units: tuple[Unit, ...]


_UNITS: Latest[Block, BlockUnits] = Latest(2 * MOST_BLOCKS)


def units_of(block: Block) -> BlockUnits:
    """A block with its units. The last ones are remembered."""
    return _UNITS.of(block, _units_of)


def _units_of(block: Block) -> BlockUnits:
    drawn = draft(block)
    return BlockUnits(block, find_units(drawn, break_down(drawn)))


def blocks_beside(project: Project, block: Block) -> list[Block]:
    """The blocks that are looked through for what the units of one could share with them."""
    return [other_block for other_block in project.blocks[:MOST_BLOCKS] if other_block is not block]
