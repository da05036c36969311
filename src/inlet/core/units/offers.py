"""What is over, offered where the project could use it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.project import Block, Project
from inlet.core.units.chosen import UnitPlan
from inlet.core.units.known import MOST_BLOCKS, units_of_block
from inlet.core.units.way import ByProduct


class Offer(NamedTuple):
    """Something over of the unit labelled ``of``, and the units of blocks it could be: (block's
    title, unit's label there, the same cloth?)."""

    of: str
    what: ByProduct
    uses: tuple[tuple[str, str, bool], ...]


def offers(project: Project, block: Block, units: tuple[UnitPlan, ...]) -> tuple[Offer, ...]:
    """Everything the methods in use leave over, largest first within a unit."""
    out = []
    for plan in units:
        for what in _over(plan):
            out.append(Offer(plan.unit.label, what, tuple(_uses(project, block, plan, what))))
    return tuple(out)


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
    project: Project, block: Block, plan: UnitPlan, what: ByProduct
) -> Iterator[tuple[str, str, bool]]:
    """Units of the same kind that are no larger: what is over can be trimmed to them."""
    for other in project.blocks[:MOST_BLOCKS]:
        for unit in units_of_block(other):
            same = other is block and unit.kind == plan.unit.kind and unit.size == plan.unit.size
            if same or unit.kind != what.kind:
                continue
            if unit.size[0] <= what.size[0] and unit.size[1] <= what.size[1]:
                yield other.title, unit.label, set(unit.fabrics) == set(what.fabrics)
