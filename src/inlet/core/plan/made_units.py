"""Which units of a block are made already, by the mark of what was measured."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.draft import Draft, drawn_mark
from inlet.core.geometry import is_rectangle
from inlet.core.planning import MadeSize, UnitPlan
from inlet.core.project import MadeUnit, Measure, Pair


def made_units(
    made: Sequence[MadeUnit], draft: Draft, units: Sequence[UnitPlan], measure: Measure
) -> dict[str, MadeSize]:
    """The units of a block that measured otherwise than planned, or were measured to be so, by
    their label; those whose drawing has changed since are no longer among them."""
    if not made:
        return {}
    known = {unit.drawn: unit for unit in made if unit.measured}
    out = {}
    for plan in units:
        if not is_rectangle(plan.unit.outline):
            continue
        first = plan.unit.places[0].part
        unit = known.get(drawn_mark(draft, first.faces, measure))
        if unit is not None:
            size = _as_drawn(unit.in_use, plan.unit.size)
            out[plan.unit.label] = MadeSize(size, unit.answer)
    return out


def _as_drawn(measured: Pair, drawn: Pair) -> Pair:
    """A measured size the way round that is nearer to a drawing."""
    (a, b), (wide, high) = measured, drawn
    if wide == high or abs(a - wide) + abs(b - high) <= abs(b - wide) + abs(a - high):
        return measured
    return b, a
