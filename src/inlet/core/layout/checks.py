"""What the cutting of a block brings up: sizes between the ruler's marks, pieces wider than their
fabric."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.cutlist import RulerFriendly, turned_prints
from inlet.core.layout.fabric_plan import FabricPlan
from inlet.core.planning import UnitPlan, method_words
from inlet.core.problem import Problem
from inlet.core.project import Measure, Project
from inlet.core.words import fabric_name, length_text, size_text


def size_problems(sizes: RulerFriendly, measure: Measure, done: str = "") -> Iterator[Problem]:
    """The block is not ruler-friendly at this size: cuts fall between the ruler's marks. ``done``
    is what is done about it."""
    if not sizes.misses:
        return
    named = [
        f"{length_text(miss.length, measure)} ({', '.join(miss.labels)})" for miss in sizes.misses
    ]
    mark = length_text(measure.mark, measure)
    near = [size_text(size, measure) for size in (sizes.smaller, sizes.larger) if size is not None]
    yield Problem(
        "warning",
        "odd-size",
        (),
        f"Not a ruler-friendly size: {', '.join(named)} {'falls' if len(named) == 1 else 'fall'} "
        f"between the {mark} marks."
        + (f" {done}" if done else "")
        + (f" Nearest ruler-friendly: {' and '.join(near)}." if near else ""),
    )


def fabric_problems(project: Project, fabric_plans: Sequence[FabricPlan]) -> Iterator[Problem]:
    """Pieces that no width of their fabric holds."""
    measure = project.measure
    for layout in fabric_plans:
        for cut, _ in layout.missing:
            name = fabric_name(project, layout.fabric)
            yield Problem(
                "warning",
                "too-wide",
                (),
                f"A {size_text(cut.cut, measure)} piece for {', '.join(cut.labels)} is wider than "
                f"{name} ({length_text(layout.width, measure)}): join fabric, or use a wider one.",
            )


def print_problems(project: Project, units: Sequence[UnitPlan]) -> Iterator[Problem]:
    """Units in which a print with a direction will not stand upright, and the methods in which it
    would."""
    for fabric, turned in turned_prints(units):
        labels = ", ".join(plan.unit.label for plan in turned)
        upright = [{m.name for m in plan.methods if not m.turns_print} for plan in turned]
        known = [m.name for m in turned[0].methods if all(m.name in names for names in upright)]
        keeps = f" Made as {method_words(known[0])} it stands upright." if known else ""
        yield Problem(
            "warning",
            "print-turned",
            (),
            f"{fabric_name(project, fabric)} has a direction; it will lie several ways in "
            f"{labels}, as the pieces are turned or cut apart.{keeps}",
        )
