"""The units of a block as stamps, to drop into another place."""

from __future__ import annotations

from inlet.core.draft.patches import draft
from inlet.core.draft.tray import Stamp, stamp_of
from inlet.core.geometry.shapes import is_rectangle
from inlet.core.planning.words import kind_words
from inlet.core.project.block import Block
from inlet.core.units.known import units_of

MOST_STAMPS = 24


def stamps_of_block(block: Block) -> tuple[tuple[str, Stamp], ...]:
    """The rectangular units of a block, each with its label."""
    drawn = draft(block)
    whole = [u for u in units_of(block).units if is_rectangle(u.part.outline)]
    out = []
    for unit in whole[:MOST_STAMPS]:
        words = f"{kind_words(unit.kind).capitalize()} {unit.label} of {block.title}"
        out.append((unit.label, stamp_of(drawn, unit.part.faces, unit.kind, words)))
    return tuple(out)
