"""From a project to the plan of one block: drawn, or made from others, which are sewn first, cut
apart and set again."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import partial

from inlet.core.layout import (
    AT_ONCE,
    BEST,
    ToCut,
    begun_for,
    fabric_problems,
    lay_out,
)
from inlet.core.plan.block_steps import sewn_plans
from inlet.core.plan.drawn_block import BlockPlan, plan_drawn_block
from inlet.core.plan.prepared import prepared_fields
from inlet.core.plan.sewn_block import SewnBlock
from inlet.core.plan.shared_units import QuiltBlock, SharedBatch, batched, blocks_of
from inlet.core.problem import Problem, errors_first
from inlet.core.project import Block, Project
from inlet.core.remake import Wanted, needed
from inlet.core.staged import Known, Staged
from inlet.core.units import BlockUnits


def plan_block(
    project: Project, block: Block, copies: int = 1, others: Sequence[BlockUnits] | None = None
) -> BlockPlan:
    """The plan of ``copies`` of ``block``, a pure function of its arguments. Never raises for what
    is drawn: problems are in the plan. ``others`` are the blocks of the project that its units may
    share something with; all of them if that is not said."""
    if block.made_from is None:
        return plan_drawn_block(project, block, copies, others)
    blocks = blocks_of(project, needed(project, [Wanted(block, "", copies)]))
    if sum(each.block.made_from is None for each in blocks) == 1:
        return _of_one_start(project, blocks, others)
    batch = batched(blocks, project)
    return _of_several(project, blocks, batch)


def _of_one_start(
    project: Project, blocks: Sequence[QuiltBlock], others: Sequence[BlockUnits] | None
) -> BlockPlan:
    first, *more = blocks
    plan = plan_drawn_block(project, first.block, first.number, others)
    steps = [
        step._replace(makes=first.name) if step.makes == "block" else step for step in plan.steps
    ]
    plan = replace(plan, steps=tuple(steps), known=Known())
    sewn = sewn_plans(more, batched(more, project), len(plan.steps) + 1)
    return _with_made(plan, sewn)


def _of_several(project: Project, blocks: Sequence[QuiltBlock], batch: SharedBatch) -> BlockPlan:
    """Start blocks in different fabrics: their units are made together."""
    first, *more = sewn_plans(blocks, batch)
    to_cut = ToCut(batch.cuts, batch.standing, begun_for(project, first.block.id, first.copies))
    lay = partial(lay_out, project, to_cut)
    fabric_plans = Staged(partial(lay, AT_ONCE), partial(lay, BEST))
    fields = prepared_fields(first) | {
        "units": batch.units,
        "problems": errors_first(
            (*first.problems, *fabric_problems(project, fabric_plans.at_once))
        ),
    }
    plan = BlockPlan(
        **fields, stacks=batch.stacks, steps=first.steps, sets=batch.sets, offers=(),
        cuts=batch.cuts, to_cut=to_cut, fabric_plans=fabric_plans,
    )  # fmt: skip
    return _with_made(plan, more)


def _with_made(plan: BlockPlan, sewn: Sequence[SewnBlock]) -> BlockPlan:
    """A plan of start blocks with what is sewn after them. Only what is wrong with the block that
    is asked for has a place in its drawing."""
    *before, asked = sewn
    problems = [
        _named(problem, each.block) for each in (plan, *before) for problem in each.problems
    ]
    of_starts = {problem.text for problem in problems}
    problems += [problem for problem in asked.problems if problem.text not in of_starts]
    return replace(
        plan,
        steps=(*plan.steps, *(step for each in sewn for step in each.steps)),
        then_sewn=tuple(sewn),
        resewn=plan.resewn and all(each.resewn for each in sewn),
        problems=errors_first(problems),
        known=Known(),
    )


def _named(problem: Problem, block: Block) -> Problem:
    return problem._replace(text=f"{block.title}: {problem.text}", at=())
