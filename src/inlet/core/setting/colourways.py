"""Blocks in other fabrics than they are drawn in."""

from __future__ import annotations

from inlet.core.project import Block, Colourway, replace


def in_colourway(block: Block, way: Colourway | None) -> Block:
    """A block in other fabrics; as drawn without any, or where the colourway is another block's."""
    if way is None or (way.block and way.block != block.id):
        return block
    return replace(
        block,
        fabric_at=tuple(
            replace(spot, fabric=way.fabrics.get(spot.fabric, spot.fabric))
            for spot in block.fabric_at
        ),
    )
