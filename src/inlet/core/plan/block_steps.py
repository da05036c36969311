"""The blocks of a quilt as steps to follow: block by block its units, those that others share in
the number of all, then what is made of them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.cancellation import check
from inlet.core.layout import print_problems
from inlet.core.piecing import Step, assembly_steps, labels_of, numbered, unit_steps
from inlet.core.plan.corner_steps import corner_steps
from inlet.core.plan.made_units import with_trim_note
from inlet.core.plan.prepared import prepared_fields
from inlet.core.plan.quilt_step import QuiltStep
from inlet.core.plan.sewn_block import SewnBlock
from inlet.core.plan.shared_units import QuiltBlock, SharedBatch
from inlet.core.plan.sliced import called, sliced_steps
from inlet.core.problem import errors_first
from inlet.core.remake import Wanted, starts_of
from inlet.core.words import measured_text, near_text


def sewn_plans(
    blocks: Sequence[QuiltBlock], batch: SharedBatch, first: int = 1
) -> tuple[SewnBlock, ...]:
    """Every block's plan as it is sewn in the quilt: units by the labels and stacks of their batch,
    with a step in the first block that has them; parts named after their block; steps numbered
    through all blocks, from ``first`` on."""
    plans: list[SewnBlock] = []
    labels_done: set[str] = set()
    for block, units in zip(blocks, batch.in_block, strict=True):
        check()
        plan = block.plan
        own_steps = unit_steps(plan.draft, units, batch.stacks, plan.project, plan.made)
        steps = [step for step in own_steps if step.makes not in labels_done]
        labels_done.update(step.makes for step in steps)
        if plan.sliced is not None:
            wanted = Wanted(block.block, block.colourway, block.number)
            starts = [called(plan.project, each) for each in starts_of(plan.project, wanted)]
            steps += sliced_steps(plan, block.cut_apart, starts, block.name)
        elif block.squares:
            steps += corner_steps(plan, block.squares, block.name)
        elif plan.root.kind is None:
            steps += assembly_steps(
                plan.draft, plan.root, labels_of(units), block.number, plan.made, block.name
            )
        made = plan.project.made
        noted = with_trim_note(steps, made, plan.draft, plan.root, plan.measure)
        whole = numbered(noted, first)
        first += len(whole)
        problems = errors_first((*plan.problems, *print_problems(plan.project, units)))
        as_sewn = prepared_fields(plan) | {
            "copies": block.number, "units": units, "problems": problems,
        }  # fmt: skip
        plans.append(SewnBlock(**as_sewn, stacks=batch.stacks, steps=whole, squares=block.squares))
    return tuple(plans)


def block_steps(blocks: Sequence[QuiltBlock], sewn: Sequence[SewnBlock]) -> Iterator[QuiltStep]:
    """What is done to make the blocks: units and parts are sewn as one chain, blocks counted one
    by one."""
    for block, plan in zip(blocks, sewn, strict=True):
        title, name = f"Make {block.number} × {block.name}", f"Make {block.name}"
        whole = False
        for step in plan.steps:
            size = measured_text(step.measures, plan.measure) if step.measures else ""
            quilt_step = QuiltStep(title, step.text, size, "", block.number, (plan, step), name)
            if step.part.faces == plan.root.faces and not step.cuts and not block.squares:
                whole = True
                yield quilt_step
            else:
                verb = _verb(step)
                words, own_label = f"{verb} {step.times} × {step.makes}", f"{verb} {step.makes}"
                yield quilt_step._replace(
                    title=words, times=step.times, called=own_label, at_once=True
                )
        if not whole:
            size = near_text(plan.made.of(plan.root, plan.unfinished), plan.measure)
            words = SEWN_CORNERS if block.squares else _nothing_sewn(plan)
            yield QuiltStep(title, words, size, "", block.number, called=name)


def block_step_name(sewn: SewnBlock, step: Step) -> str:
    """The name a step of a block's own plan has in the quilt, where its labels say of which block
    they are."""
    name = sewn.block.title
    if step.part.faces == sewn.root.faces and not step.cuts and not step.makes.startswith("row "):
        return f"Make {name}"
    return f"{_verb(step)} {name} {step.makes}"


def _verb(step: Step) -> str:
    return "Make" if step.unit else "Cut" if step.cuts else "Sew"


SEWN_CORNERS = "Its corners are sewn on and trimmed: it is as large as it was cut."


def _nothing_sewn(plan: SewnBlock) -> str:
    """Why a block has no last seam."""
    if plan.errors:
        return plan.errors[0].text
    if len(plan.draft.patches) == 1:
        return "One piece of fabric: there is nothing to sew."
    return f"It is {plan.units[0].unit.label}, which is made already."
