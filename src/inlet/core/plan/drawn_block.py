"""From a project to the plan of a drawn block: the one place that runs the stages in order."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import partial

from inlet.core.cutlist import (
    Cut,
    PlannedSet,
    cut_list,
    plan_sets,
    stacks_of,
    standing,
    with_elsewhere,
)
from inlet.core.fitting import Answer, answers
from inlet.core.layout import (
    AT_ONCE,
    BEST,
    FabricPlan,
    ToCut,
    begun_for,
    fabric_problems,
    lay_out,
    print_problems,
)
from inlet.core.piecing import (
    Advised,
    Effect,
    SeamTestResult,
    Step,
    advice_for,
    effect_of,
    find_steps,
    numbered,
    read_seam_test,
)
from inlet.core.plan.corner_steps import corner_steps, scrap_cuts, squares_for
from inlet.core.plan.made_units import with_trim_note
from inlet.core.plan.prepared import prepare_block, prepared_fields
from inlet.core.plan.sewn_block import SewnBlock
from inlet.core.planning import Offer, left_over, offers
from inlet.core.problem import errors_first
from inlet.core.project import Block, Project, SeamTest
from inlet.core.remake import Nesting, nesting
from inlet.core.schedule import Batch, Work, batches, work_for
from inlet.core.staged import Staged, later
from inlet.core.units import MOST_BLOCKS, BlockUnits, blocks_beside, units_of

MOST_COPIES = 10_000


@dataclass(frozen=True, eq=False, kw_only=True)
class BlockPlan(SewnBlock):
    """Everything worked out for ``copies`` of one block; cuts, and every ``fabric`` laid out for
    cutting, are there as far as they go where the draft has an error.

    A block that is made from others begins with theirs: ``block`` is the first start block, in the
    number that is cut apart; units, cuts and fabric are those of all starts, ``then_sewn`` are the
    blocks sewn after it, the one that was ``asked`` for last; ``steps`` are those of all.
    """

    sets: tuple[PlannedSet, ...]
    offers: tuple[Offer, ...]
    cuts: tuple[Cut, ...]
    to_cut: ToCut
    fabric_plans: Staged[tuple[FabricPlan, ...]]
    then_sewn: tuple[SewnBlock, ...] = ()

    @property
    def asked(self) -> SewnBlock:
        """The block that the plan is of."""
        return self.then_sewn[-1] if self.then_sewn else self

    @later
    def nesting(self) -> Nesting | None:
        """How the seams of slices meet at the new seams; None of a block that is drawn, and where
        it is not known how its start block is pressed."""
        pressing, sliced = self.pressing.best, self.asked.sliced
        if pressing is None or sliced is None or len(self.then_sewn) > 1:
            return None
        return nesting(sliced.how, pressing)

    def sewn_in(self, step: Step) -> SewnBlock:
        return next((sewn for sewn in self.then_sewn if step in sewn.steps), self)

    @later
    def answers(self) -> tuple[Answer, ...]:
        """What can be done where cuts at the ruler's marks do not fit; nothing where they do."""
        if self.fitting is None:
            return ()
        return answers(self.fitting, self.project, self.block, self.copies, self.ruler_friendly)

    @later
    def batches(self) -> tuple[Batch, ...]:
        """What is done at the mat, the machine and the iron, in as few walks as were found."""
        plain = [unit for unit in self.units if not unit.is_sewn]
        return batches(self.steps, plain, self.rates, self.measure)

    @later
    def work(self) -> Work:
        """The batches shared out over sittings, and the thread they take."""
        return work_for(self.batches, self.rates, self.measure)

    @property
    def advice(self) -> Advised:
        """Seams that would spare set-ins."""
        return advice_for(self.block)

    def tested(self, seam_test: SeamTest) -> tuple[SeamTestResult, Effect]:
        """What a seam allowance test says, and what a seam like that does to this block."""
        test = read_seam_test(seam_test, self.measure.seam)
        return test, effect_of(self.draft, self.root, test.off, self.measure.seam)


def plan_drawn_block(
    project: Project, block: Block, copies: int = 1, others: Sequence[BlockUnits] | None = None
) -> BlockPlan:
    """The plan of ``copies`` of a drawn block, as ``plan_block`` gives it."""
    prepared = prepare_block(project, block, copies)
    units = prepared.units

    over = left_over(units)
    if others is None:
        shares = over or any(plan.in_use.sets for plan in units)
        others = [units_of(b) for b in blocks_beside(project, block)] if shares else ()
    units_of_block = BlockUnits(block, tuple(plan.unit for plan in units))
    offered = offers(over, _in_order(project, (units_of_block, *others)), project.measure.seam)

    sets = with_elsewhere(plan_sets(units), others)
    squares = squares_for(project, block, copies)
    cuts = (*cut_list(units, sets), *scrap_cuts(project, block, squares))
    stacks = stacks_of(units, cuts)
    upright = standing(units, stacks)
    to_cut = ToCut(cuts, upright, begun_for(project, block.id, copies))

    steps = find_steps(prepared.draft, prepared.root, units, stacks, copies, project, prepared.made)
    steps = with_trim_note(steps, project.made, prepared.draft, prepared.root, project.measure)
    steps = numbered((*steps, *corner_steps(prepared, squares)))
    lay = partial(lay_out, project, to_cut)
    fabric_plans = Staged(partial(lay, AT_ONCE), partial(lay, BEST))
    in_fabric = [*fabric_problems(project, fabric_plans.at_once), *print_problems(project, units)]
    known = prepared_fields(prepared) | {
        "problems": errors_first((*prepared.problems, *in_fabric)),
    }
    return BlockPlan(
        **known, stacks=stacks, steps=steps, squares=squares, sets=sets, offers=offered,
        cuts=cuts, to_cut=to_cut, fabric_plans=fabric_plans,
    )  # fmt: skip


def _in_order(project: Project, blocks: Iterable[BlockUnits]) -> list[BlockUnits]:
    """Blocks in the project's order, those that are not among its first ones left out."""
    by_id = {id(units_of_block.block): units_of_block for units_of_block in blocks}
    return [by_id[id(b)] for b in project.blocks[:MOST_BLOCKS] if id(b) in by_id]
