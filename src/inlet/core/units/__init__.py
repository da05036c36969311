"""The units stage: what a block breaks into.

Promise: the parts tile the block; a block turned or mirrored breaks into the same units.
"""

from inlet.core.units.breakdown import break_down
from inlet.core.units.joining import with_joins
from inlet.core.units.known import MOST_BLOCKS, BlockUnits, blocks_beside, units_of
from inlet.core.units.parts import Part, walk
from inlet.core.units.rounds import rounds_of
from inlet.core.units.units import (
    Unit,
    UnitPlace,
    fabric_in,
    find_units,
    label_place,
    length_inside,
    letters,
    picture_of,
)

__all__ = [
    "MOST_BLOCKS",
    "BlockUnits",
    "Part",
    "Unit",
    "UnitPlace",
    "blocks_beside",
    "break_down",
    "fabric_in",
    "find_units",
    "label_place",
    "length_inside",
    "letters",
    "picture_of",
    "rounds_of",
    "units_of",
    "walk",
    "with_joins",
]
