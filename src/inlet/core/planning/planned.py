"""A block's units with the maker's choices: labels, hands made together, what is nested."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.draft.patches import Draft
from inlet.core.planning.choices import choices_for
from inlet.core.planning.unit_plan import Need, UnitPlan
from inlet.core.project.block import Block, Choice
from inlet.core.project.project import Project
from inlet.core.stopping import check
from inlet.core.units.parts import Part
from inlet.core.units.units import Unit, find_units


def plan_units(
    project: Project, block: Block, drawn: Draft, root: Part, copies: int
) -> tuple[UnitPlan, ...]:
    """Every unit of ``copies`` blocks with how it is made, each followed by those nested in it."""
    found = find_units(drawn, root)
    choices = choices_for(drawn, block, found)
    labelled = _labelled(found, choices)
    partner = {u.mirror_of: u for u in labelled if u.mirror_of is not None}
    by_label = {u.label: u for u in labelled}
    plans = []
    for unit, choice in zip(labelled, choices, strict=True):
        check()
        other = by_label[unit.mirror_of] if unit.mirror_of else partner.get(unit.label)
        need = Need(
            len(unit.places) * copies,
            len(other.places) * copies if other else 0,
            unit.mirror_of,
        )
        plans.append(
            UnitPlan(
                unit,
                need,
                project.measure,
                block.methods.get(unit.kind),
                choice,
                lambda cloth: project.cloth_width(cloth or ""),
            )
        )
    by_name = {plan.unit.label: plan for plan in plans}
    for plan in plans:
        if plan.unit.mirror_of is not None:
            plan.twin = by_name[plan.unit.mirror_of]
            plan.twin.twin = plan
    _lead_together(plans)
    nested = [p for p in plans if any(place.within for place in p.unit.places)]
    for plan in plans:
        plan.inside = tuple(p for p in nested if p.unit.nested_in(plan.unit))
    return tuple(plans)


def _labelled(units: Sequence[Unit], choices: Sequence[Choice | None]) -> list[Unit]:
    """The units with the maker's labels; a mirror image without one of its own follows its twin's.
    A label taken already is not given twice."""
    new: dict[str, str] = {}
    taken: set[str] = set()
    for unit, choice in zip(units, choices, strict=True):
        wish = choice.label if choice else ""
        if not wish and unit.mirror_of is not None:
            wish = f"{new[unit.mirror_of]} rev"
        label = wish or unit.label
        others = {u.label for u in units if u.label != unit.label} if wish else set()
        while label in taken or (label in others and label not in new):
            label += "′"
        new[unit.label] = label
        taken.add(label)
    return [
        unit._replace(
            label=new[unit.label],
            mirror_of=None if unit.mirror_of is None else new[unit.mirror_of],
        )
        for unit in units
    ]


def _lead_together(plans: Sequence[UnitPlan]) -> None:
    """A hand is made in the other's runs only where both are made the same way."""
    by_label = {plan.unit.label: plan for plan in plans}
    for plan in plans:
        if plan.need.made_with is None:
            continue
        lead = by_label[plan.need.made_with]
        if lead.method.name == plan.method.name and lead.stock == plan.stock:
            continue
        lead.need = lead.need._replace(mirrored=0)
        plan.need = plan.need._replace(mirrored=0, made_with=None)
        for each in (lead, plan):
            each.__dict__.pop("method", None)
