"""The units of a block as units, to drop into another place."""

from __future__ import annotations

from inlet.core.draft import TrayUnit, draft, tray_unit_of
from inlet.core.geometry import is_rectangle
from inlet.core.planning.words import kind_words
from inlet.core.project import Block
from inlet.core.units import units_of

MOST_UNITS = 24


def tray_units_of(block: Block) -> tuple[tuple[str, TrayUnit], ...]:
    """The rectangular units of a block, each with its label."""
    drawn = draft(block)
    whole = [u for u in units_of(block).units if is_rectangle(u.part.outline)]
    units = []
    for unit in whole[:MOST_UNITS]:
        words = f"{kind_words(unit.kind).capitalize()} {unit.label} of {block.title}"
        units.append((unit.label, tray_unit_of(drawn, unit.part.faces, unit.kind, words)))
    return tuple(units)
