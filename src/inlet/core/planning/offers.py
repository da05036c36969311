"""What is over, offered where the project could use it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.methods.method import ByProduct
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.units.known import BlockUnits
from inlet.core.units.units import Unit


class Offer(NamedTuple):
    """Something over of the unit labelled ``of``, and the units of blocks it could be: (block's
    title, unit's label there, the same cloth?)."""

    of: str
    what: ByProduct
    uses: tuple[tuple[str, str, bool], ...]


class Over(NamedTuple):
    """Something a unit's method in use leaves over."""

    unit: Unit
    what: ByProduct


def left_over(units: Sequence[UnitPlan]) -> tuple[Over, ...]:
    """Everything the methods in use leave over."""
    return tuple(Over(plan.unit, what) for plan in units for what in _over(plan))


def offers(over: Sequence[Over], there: Sequence[BlockUnits]) -> tuple[Offer, ...]:
    """What is over, and what it could be in the blocks ``there``, the one it comes from among
    them."""
    return tuple(Offer(unit.label, what, tuple(_uses(there, unit, what))) for unit, what in over)


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
    there: Sequence[BlockUnits], own: Unit, what: ByProduct
) -> Iterator[tuple[str, str, bool]]:
    """Units of the same kind that are no larger: what is over can be trimmed to them. Not the unit
    itself, whose need is met."""
    for other, units in there:
        for unit in units:
            if unit is own or unit.kind != what.kind or unit.mirror_of == own.label:
                continue
            if unit.size[0] <= what.size[0] and unit.size[1] <= what.size[1]:
                yield other.title, unit.label, set(unit.fabrics) == set(what.fabrics)
