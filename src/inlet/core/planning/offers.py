"""What is over, offered where the project could use it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.methods import ByProduct
from inlet.core.numbers import Exact
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.table import Size
from inlet.core.units import BlockUnits, Unit


class Use(NamedTuple):
    """A unit of a block (by its title and label) that something over could be; ``cut_down`` to its
    unfinished size first, where it is larger."""

    block: str
    label: str
    cut_down: Size | None


class Offer(NamedTuple):
    """Something over of the unit labelled ``of``, and what it could be elsewhere."""

    of: str
    what: ByProduct
    uses: tuple[Use, ...]


class Over(NamedTuple):
    """Something a unit's method in use leaves over."""

    unit: Unit
    what: ByProduct


def left_over(units: Sequence[UnitPlan]) -> tuple[Over, ...]:
    """Everything the methods in use leave over."""
    return tuple(Over(plan.unit, what) for plan in units for what in _over(plan))


def offers(over: Sequence[Over], there: Sequence[BlockUnits], seam: Exact) -> tuple[Offer, ...]:
    """What is over, and what it could be in the blocks ``there``, the one it comes from among
    them, sewn with the allowance ``seam``."""
    return tuple(
        Offer(unit.label, what, tuple(_uses(there, unit, what, seam))) for unit, what in over
    )


def _over(plan: UnitPlan) -> Iterator[ByProduct]:
    unit, method = plan.unit, plan.in_use
    if method.made_with:
        return  # it is told with the unit in whose runs these are made
    if method.surplus:
        yield ByProduct(unit.kind, unit.size, method.surplus, unit.fabrics)
    if method.mirrored_over:
        yield ByProduct(unit.kind, unit.size, method.mirrored_over, unit.fabrics, True)
    yield from method.left_over


def _uses(
    there: Sequence[BlockUnits], own_unit: Unit, what: ByProduct, seam: Exact
) -> Iterator[Use]:
    """Units of the same kind and fabrics that are no larger: what is over can be cut down to them.
    Not the unit itself, whose need is met."""
    for other_block, units in there:
        for unit in units:
            if unit is own_unit or unit.kind != what.kind or unit.mirror_of == own_unit.label:
                continue
            fits = unit.size[0] <= what.size[0] and unit.size[1] <= what.size[1]
            if fits and set(unit.fabrics) == set(what.fabrics):
                raw = unit.size[0] + 2 * seam, unit.size[1] + 2 * seam
                yield Use(other_block.title, unit.label, None if unit.size == what.size else raw)
