"""A block's units with the maker's choices: labels, hands made together, what is nested."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from inlet.core.cancellation import check
from inlet.core.draft import Draft
from inlet.core.methods import Method
from inlet.core.numbers import Exact, floor_exact
from inlet.core.panels import panel_cut
from inlet.core.planning.choices import choices_for
from inlet.core.planning.compare import compared
from inlet.core.planning.cut_piece import TriangleKey, triangles_given, triangles_needed
from inlet.core.planning.unit_plan import Need, Twin, UnitPlan
from inlet.core.planning.upright import Directions, turns_of
from inlet.core.project import Block, Choice, Project, Rates
from inlet.core.units import Part, Unit, find_units


def plan_units(
    project: Project, block: Block, drawn: Draft, root: Part, copies: int
) -> tuple[UnitPlan, ...]:
    """Every unit of ``copies`` blocks with how it is made, each followed by those nested in it."""
    units = find_units(drawn, root)
    choices = choices_for(drawn, block, units)
    labelled = _labelled(units, choices)
    partner = {u.mirror_of: u for u in labelled if u.mirror_of is not None}
    by_label = {u.label: u for u in labelled}
    mark = project.measure.mark

    def usable(fabric: str | None) -> Exact:
        return max(mark, floor_exact(project.usable_width(fabric or "") / mark) * mark)

    directions: Directions = {f.id: f.direction for f in project.fabrics if f.direction}
    plans: dict[str, UnitPlan] = {}
    for unit, choice in zip(labelled, choices, strict=True):
        check()
        other_unit = by_label[unit.mirror_of] if unit.mirror_of else partner.get(unit.label)
        twin = Twin(other_unit.label, len(other_unit.places) * copies) if other_unit else None
        plans[unit.label] = UnitPlan(
            unit,
            Need(len(unit.places) * copies, twin.number if twin else 0, unit.mirror_of),
            project.measure,
            (choice.method if choice else "") or block.methods.get(unit.kind),
            choice=choice,
            usable=usable,
            twin=twin,
            turns=turns_of((place.motion for place in unit.places), copies),
            directions=directions,
            panel=panel_cut(block, project.measure) if unit.kind == "panel" else None,
        )
    rates = project.rates or Rates()
    advised = {p.unit.label: p for p in _advised(with_inside(plans.values()), rates)}
    return with_inside(_each_on_its_own(advised).values())


def _advised(plans: Iterable[UnitPlan], rates: Rates) -> Iterator[UnitPlan]:
    """The plans with the method to take where the maker chose none, both hands alike."""
    by_label = {plan.unit.label: plan for plan in plans}
    best: dict[str, Method] = {}
    for label, plan in by_label.items():
        check()
        other_unit = by_label[plan.twin.label] if plan.twin else None
        if not plan.wanted and other_unit is not None and other_unit.wanted:
            plan = replace(plan, wanted=other_unit.wanted)
        if plan.chosen_for_you:
            lead = plan.unit.mirror_of or label
            if lead not in best:
                best[lead] = compared(by_label, lead, rates)[1].plan.method
            method = best[lead]
            same = method if lead == label else plan.method_named(method.name)
            plan = replace(plan, advised=same)
        yield plan


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


def _each_on_its_own(plans: dict[str, UnitPlan]) -> dict[str, UnitPlan]:
    """The plans by label, hands that are not made the same way apart: a hand is made in the other's
    runs only where both are."""
    units = dict(plans)
    for label, plan in plans.items():
        if plan.need.made_with is None:
            continue
        lead = plans[plan.need.made_with]
        if lead.in_use.name != plan.in_use.name or lead.stock != plan.stock:
            units[lead.unit.label] = replace(lead, need=Need(lead.count))
            units[label] = replace(plan, need=Need(plan.count))
    return units


def sharing_squares(plans: Sequence[UnitPlan]) -> tuple[UnitPlan, ...]:
    """A block's plans, sharing squares, each with those of the units nested in it."""
    return with_inside(squares_shared(plans))


def squares_shared(plans: Iterable[UnitPlan]) -> Iterator[UnitPlan]:
    """The plans, each taking first what those before it leave over of squares cut into triangles of
    the same size and fabric."""
    left: Counter[TriangleKey] = Counter()
    for plan in plans:
        runs = plan.in_use.runs
        wanted = [triangles_needed(cut, runs) for cut in plan.in_use.pieces]
        spare = {key: left[key] for needed in wanted for key in needed if left[key]}
        unit = replace(plan, spare=spare) if spare else plan
        for cut, needed in zip(unit.in_use.pieces, wanted, strict=True):
            left.update(triangles_given(cut))
            left.subtract(needed)
        yield unit


def with_inside(plans: Iterable[UnitPlan]) -> tuple[UnitPlan, ...]:
    """The plans in their order, each with those of the units nested in it."""
    units = {plan.unit.label: plan for plan in plans}
    nested = [p.unit for p in units.values() if any(place.within for place in p.unit.places)]
    for plan in sorted(units.values(), key=lambda p: len(p.unit.part.faces)):  # inner ones first
        inside = tuple(units[u.label] for u in nested if u.nested_in(plan.unit))
        if inside:
            units[plan.unit.label] = replace(plan, inside=inside)
    return tuple(units.values())
