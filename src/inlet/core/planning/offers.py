"""What is over, offered where the project could use it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.methods.method import ByProduct
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.project.block import Block
from inlet.core.project.project import Project
from inlet.core.units.known import MOST_BLOCKS, units_of_block
from inlet.core.units.units import Unit


class Offer(NamedTuple):
    """Something over of the unit labelled ``of``, and the units of blocks it could be: (block's
    title, unit's label there, the same cloth?)."""

    of: str
    what: ByProduct
    uses: tuple[tuple[str, str, bool], ...]


def offers(
    project: Project, block: Block, units: tuple[UnitPlan, ...], find: bool = True
) -> tuple[Offer, ...]:
    """Everything the methods in use leave over, and what it could be in blocks whose units are
    known, or in all if they are to be found."""
    over = [(plan, what) for plan in units for what in _over(plan)]
    if not over:
        return ()
    there = [
        (other, tuple(p.unit for p in units) if other is block else units_of_block(other, find))
        for other in project.blocks[:MOST_BLOCKS]
    ]
    return tuple(
        Offer(plan.unit.label, what, tuple(_uses(there, plan.unit, what))) for plan, what in over
    )


def _over(plan: UnitPlan) -> Iterator[ByProduct]:
    unit, method = plan.unit, plan.method
    if method.made_with:
        return  # it is told with the unit in whose runs these are made
    if method.surplus:
        yield ByProduct(unit.kind, unit.size, method.surplus, unit.fabrics)
    if method.mirrored_over:
        yield ByProduct(unit.kind, unit.size, method.mirrored_over, unit.fabrics, True)
    yield from method.left_over


def _uses(
    there: Sequence[tuple[Block, tuple[Unit, ...]]], own: Unit, what: ByProduct
) -> Iterator[tuple[str, str, bool]]:
    """Units of the same kind that are no larger: what is over can be trimmed to them. Not the unit
    itself, whose need is met."""
    for other, units in there:
        for unit in units:
            if unit is own or unit.kind != what.kind or unit.mirror_of == own.label:
                continue
            if unit.size[0] <= what.size[0] and unit.size[1] <= what.size[1]:
                yield other.title, unit.label, set(unit.fabrics) == set(what.fabrics)
