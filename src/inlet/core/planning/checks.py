"""What is wrong with the choices made for units."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.problem import Problem


def method_problems(units: Sequence[UnitPlan]) -> Iterator[Problem]:
    """Methods asked for that a unit cannot be made by."""
    for plan in units:
        if plan.wanted is not None and plan.in_use.name != plan.wanted:
            yield Problem(
                "warning",
                "method",
                (),
                f"methods: {plan.unit.label} ({plan.unit.kind}) cannot be made {plan.wanted}; "
                f"{plan.in_use.name} is used.",
            )
