"""Blocks in other fabrics than they are drawn in."""

from __future__ import annotations

from collections.abc import Mapping

from inlet.core.project import Block, Colourway, corners_in, panel_in, replace


def in_colourway(block: Block, way: Colourway | None) -> Block:
    """A block in other fabrics; as drawn without any, or where the colourway is another block's."""
    if way is None or (way.block and way.block != block.id):
        return block
    return in_fabrics(block, way.fabrics)


def in_fabrics(block: Block, fabrics: Mapping[str, str]) -> Block:
    """A block with each fabric that is a key of ``fabrics`` exchanged for its value."""
    return replace(
        block,
        fabric_at=tuple(
            replace(spot, fabric=fabrics.get(spot.fabric, spot.fabric)) for spot in block.fabric_at
        ),
        improvised=block.improvised and corners_in(block.improvised, fabrics),
        panel=block.panel and panel_in(block.panel, fabrics),
    )
