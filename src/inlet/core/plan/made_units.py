"""Which units of a block are made already, by the mark of what was measured."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.draft import Draft, drawn_mark
from inlet.core.geometry import is_rectangle
from inlet.core.piecing import Step
from inlet.core.planning import MadeSize, UnitPlan, made_note
from inlet.core.project import MadeUnit, Measure, Pair
from inlet.core.units import Part


def made_units(
    made: Sequence[MadeUnit], draft: Draft, units: Sequence[UnitPlan], measure: Measure
) -> dict[str, MadeSize]:
    """The units of a block that measured otherwise than planned, or were measured to be so, by
    their label; those whose drawing has changed since are no longer among them."""
    if not made:
        return {}
    by_mark = {unit.drawn: unit for unit in made if unit.measured}
    sizes = {}
    for plan in units:
        if not is_rectangle(plan.unit.outline):
            continue
        first = plan.unit.places[0].part
        unit = by_mark.get(drawn_mark(draft, first.faces, measure))
        if unit is not None:
            size = _as_drawn(unit.in_use, plan.unit.size)
            sizes[plan.unit.label] = MadeSize(size, unit.answer)
    return sizes


def with_trim_note(
    steps: Sequence[Step], made: Sequence[MadeUnit], draft: Draft, root: Part, measure: Measure
) -> tuple[Step, ...]:
    """Steps of a block, the one that makes the whole of it saying so where the blocks that are sewn
    are trimmed to the smallest."""
    trimmed = {unit.drawn: unit for unit in made if unit.measured and unit.answer == "trim"}
    unit = trimmed.get(drawn_mark(draft, root.faces, measure)) if trimmed else None
    if unit is None:
        return tuple(steps)
    note = made_note(MadeSize(unit.in_use, "trim"), measure)
    return tuple(
        step._replace(notes=(*step.notes, note))
        if step.unit is None and not step.cuts and step.part.faces == root.faces
        else step
        for step in steps
    )


def _as_drawn(measured: Pair, drawn: Pair) -> Pair:
    """A measured size the way round that is nearer to a drawing."""
    (a, b), (wide, high) = measured, drawn
    if wide == high or abs(a - wide) + abs(b - high) <= abs(b - wide) + abs(a - high):
        return measured
    return b, a
