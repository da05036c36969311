"""How large blocks and motifs are in a quilt: as drawn, or as they were measured when made."""

from __future__ import annotations

from collections.abc import Mapping

from inlet.core.project import Pair, Project
from inlet.core.setting.places import Placed, members

Sizes = Mapping[str, Pair]
"""The finished size of each block and motif, by its id."""


def block_sizes(project: Project) -> Sizes:
    """Finished sizes of all blocks and motifs; a made size, which is unfinished, replaces the drawn
    one. A motif is as large as its blocks side by side; one without blocks is not in it."""
    quilt, seam = project.quilt, project.measure.seam
    sizes: dict[str, Pair] = {}
    made = quilt.made if quilt is not None else {}

    def finished(name: str, drawn: Pair) -> Pair:
        if name not in made:
            return drawn
        wide, high = made[name]
        return max(wide - 2 * seam, seam), max(high - 2 * seam, seam)

    for block in project.blocks:
        sizes[block.id] = finished(block.id, block.finished)
    for motif in quilt.motifs if quilt is not None else ():
        places = members(motif)
        first = next((sizes[m.block] for m in places if m.block in sizes), None)
        if first is not None:
            drawn = first[0] * motif.columns, first[1] * motif.rows
            sizes[motif.id] = finished(motif.id, drawn)
    return sizes


def as_lying(size: Pair, place: Placed) -> Pair:
    """A size once the block is turned."""
    return (size[1], size[0]) if place.turn % 2 else size
