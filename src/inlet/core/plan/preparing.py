"""Blocks prepared, whether drawn or made from others; what was prepared before is taken over."""

from __future__ import annotations

from dataclasses import replace

from inlet.core.memo import Latest
from inlet.core.plan.prepared import PreparedBlock, prepare_block
from inlet.core.plan.sliced import prepare_sliced
from inlet.core.project import Block, Fabric, Project
from inlet.core.project import replace as replace_value
from inlet.core.remake import Wanted, starts_of
from inlet.core.staged import Known

_PREPARED: Latest[Block, tuple[PreparedBlock, ...]] = Latest(200)
KEPT = 4
"""Ways a block is cut that are kept of it."""


def prepared_for(
    project: Project, block: Block, copies: int, repeated: bool = False, to_cut: bool = False
) -> PreparedBlock:
    """``prepare_block``, what it gave for this block before taken over where nothing it depends on
    has changed; ``to_cut``: nothing that what is cut depends on, so that problems may be those of
    other colours."""
    alike = _cut_alike if to_cut else _prepares_alike
    if block.made_from is not None:
        return _sliced(project, block, copies)
    kept = _PREPARED.get(block) or ()
    for before in kept:
        if (before.copies, before.repeated) == (copies, repeated) and alike(
            before.project, project
        ):
            if before.project is project:
                return before
            return replace(before, project=project, known=Known())
    prepared = prepare_block(project, block, copies, repeated)
    _PREPARED.keep(block, (prepared, *kept[: KEPT - 1]))
    return prepared


def _sliced(project: Project, block: Block, copies: int) -> PreparedBlock:
    """A block made from others prepared, with those it is made from."""
    starts = starts_of(project, Wanted(block, "", copies))
    prepared = [prepared_for(project, start.block, copies) for start in starts]
    return prepare_sliced(project, block, copies, prepared)


def _prepares_alike(project: Project, other_project: Project) -> bool:
    """Are blocks drawn, broken down and cut alike in two projects? Nothing else of them is
    asked."""
    return (
        project.measure == other_project.measure
        and project.fabrics == other_project.fabrics
        and project.cutting == other_project.cutting
        and project.rates == other_project.rates
        and project.made == other_project.made
    )


def _cut_alike(project: Project, other_project: Project) -> bool:
    """Are blocks cut alike in two projects, whatever colours and names their fabrics have?"""
    plain, other_plain = (
        replace_value(each, fabrics=tuple(map(_uncoloured, each.fabrics)))
        for each in (project, other_project)
    )
    return _prepares_alike(plain, other_plain)


def _uncoloured(fabric: Fabric) -> Fabric:
    return replace_value(fabric, name="", colour="", value="", print=None, notes="", price=None)
