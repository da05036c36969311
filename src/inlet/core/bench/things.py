"""What a plan makes, as the log knows it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

from inlet.core.draft import Draft, draft, drawn_mark
from inlet.core.memo import Latest
from inlet.core.piecing import Step
from inlet.core.plan import (
    BlockPlan,
    QuiltPlan,
    QuiltStep,
    SewnBlock,
    block_step_name,
    corner_step_name,
)
from inlet.core.project import Block, Measure, Pair, Project


class Thing(NamedTuple):
    """What a step makes, ``times`` of it: the step's name, how large it is, unfinished (None for
    what is no rectangle), and the mark of its drawing (empty where it has none); the ``parts`` of
    the step before the last, in order, where they are ticked one by one."""

    name: str
    times: int
    size: Pair | None = None
    drawn: str = ""
    parts: tuple[str, ...] = ()


def corner_thing(project: Project, block: Block, times: int) -> Thing:
    """The corners of a block, up to so many."""
    drawn, measure = draft(block), project.measure
    known = _CORNER_MARKS.get(drawn)
    if known is None or known[0] != measure:
        mark = drawn_mark(drawn, [patch.face for patch in drawn.patches], measure)
        known = _CORNER_MARKS.keep(drawn, (measure, mark))
    return Thing(corner_step_name(project, block), times, None, known[1])


_CORNER_MARKS: Latest[Draft, tuple[Measure, str]] = Latest(8)
_MARKS: Latest[Step, tuple[Draft, Measure, str]] = Latest(600)


def quilt_things(steps: Iterable[QuiltStep]) -> tuple[Thing, ...]:
    """What the steps of a quilt make, in their order."""
    return tuple(
        Thing(step.name, step.times)
        if step.sewn is None
        else _thing(step.name, step.times, *step.sewn)
        for step in steps
    )


def block_things(plan: BlockPlan) -> tuple[Thing, ...]:
    """What the steps of a block make, in their order, under the names they have in the quilt."""
    return tuple(
        _thing(block_step_name(plan.sewn_in(step), step), step.times, plan.sewn_in(step), step)
        for step in plan.steps
    )


Plan = BlockPlan | QuiltPlan
SewnThing = tuple[Thing, SewnBlock, Step]
"""A thing, the block it is of as it is sewn, and the step that makes it."""


def sewn_things(plan: Plan) -> tuple[SewnThing, ...]:
    """What the steps of the blocks of a plan make, each with its block and step, in their order."""
    if isinstance(plan, QuiltPlan):
        return tuple(
            (thing, *step.sewn)
            for step, thing in zip(plan.steps, quilt_things(plan.steps), strict=True)
            if step.sewn is not None
        )
    things = zip(block_things(plan), plan.steps, strict=True)
    return tuple((thing, plan.sewn_in(step), step) for thing, step in things)


def _thing(name: str, times: int, sewn: SewnBlock, step: Step) -> Thing:
    known = _MARKS.get(step)
    if known is None or known[0] is not sewn.draft or known[1] != sewn.measure:
        mark = drawn_mark(sewn.draft, step.part.faces, sewn.measure)
        mark = f"cut {mark}" if step.cuts else mark
        known = _MARKS.keep(step, (sewn.draft, sewn.measure, mark))
    return Thing(name, times, step.measures, known[2])
