"""From a project to a plan: the one place that runs the stages in order."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

from inlet.core.assembly.tree import Join
from inlet.core.cutlist.cuts import Cut, Stacks, cut_list, stacks_of
from inlet.core.cutlist.ruler_friendly import Comfort, comfort
from inlet.core.cutlist.standing import standing
from inlet.core.cutlist.strip_sets import PlannedSet, plan_sets, with_elsewhere
from inlet.core.draft.checks import drawing_problems
from inlet.core.draft.patches import Draft, draft
from inlet.core.fitting.answers import Answer, answers, with_bands
from inlet.core.fitting.checks import fit_problems
from inlet.core.fitting.measured import MadeSizes
from inlet.core.fitting.remedies import Fit, Fitting
from inlet.core.fitting.words import done_text
from inlet.core.layout.checks import cloth_problems, print_problems, size_problems
from inlet.core.layout.layout import SECONDS, ClothPlan, ToCut, begun_for, lay_out
from inlet.core.numbers.root2 import Exact
from inlet.core.piecing.advice import Advised, advice_for
from inlet.core.piecing.checks import not_proved, order_problems, seam_problems
from inlet.core.piecing.resew import resewn
from inlet.core.piecing.seam_count import SeamCount, count_seams
from inlet.core.piecing.seam_test import Effect, NeedleTest, effect_of, read_needle
from inlet.core.piecing.step import Step
from inlet.core.piecing.steps import find_steps
from inlet.core.planning.checks import method_problems
from inlet.core.planning.compare import Comparisons
from inlet.core.planning.offers import Offer, left_over, offers
from inlet.core.planning.planned import plan_units, sharing_squares
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.pressing.find import find_pressing
from inlet.core.pressing.pressing_plan import PressingPlan
from inlet.core.pressing.steps import StepPress, step_press
from inlet.core.problem import Problem, errors_first, has_error
from inlet.core.project.block import Block
from inlet.core.project.measure import Measure, Needle, Rates
from inlet.core.project.project import Project
from inlet.core.schedule.batches import Batch, batches
from inlet.core.schedule.work import Work, work_for
from inlet.core.units.breakdown import break_down
from inlet.core.units.known import MOST_BLOCKS, BlockUnits, blocks_beside, units_of
from inlet.core.units.parts import Part

MOST_COPIES = 10_000


@dataclass(frozen=True, eq=False)
class BlockPlan:
    """Everything worked out for ``copies`` of one block; what only some ask for, when it is first
    asked for.

    ``units`` are all of them, each followed by those nested in it. ``assembly`` is the join that
    makes the block; it is None and ``resewn`` False where the draft has an error; units, cuts and
    cloth are still there as far as they go. ``stacks`` are those each unit's pieces lie in.
    ``fit`` is the block sewn up as it is cut, out of the ways ``fitting`` knows; None where it
    cannot be sewn.
    """

    project: Project
    block: Block
    copies: int
    draft: Draft
    root: Part
    units: tuple[UnitPlan, ...]
    sets: tuple[PlannedSet, ...]
    offers: tuple[Offer, ...]
    cuts: tuple[Cut, ...]
    stacks: Stacks
    to_cut: ToCut
    cloth_at_once: tuple[ClothPlan, ...]
    comfort: Comfort
    fitting: Fitting | None
    fit: Fit | None
    steps: tuple[Step, ...]
    resewn: bool
    assembly: Join | None
    seams: SeamCount
    problems: tuple[Problem, ...]

    @property
    def measure(self) -> Measure:
        return self.project.measure

    @property
    def rates(self) -> Rates:
        return self.project.rates or Rates()

    @property
    def unfinished(self) -> tuple[Exact, Exact]:
        s = self.measure.seam
        return self.block.finished[0] + 2 * s, self.block.finished[1] + 2 * s

    @property
    def made(self) -> MadeSizes:
        """What parts measure as they are cut."""
        return MadeSizes(self.fit.sewn if self.fit is not None else None, self.measure)

    @property
    def errors(self) -> tuple[Problem, ...]:
        return tuple(p for p in self.problems if p.level == "error")

    @cached_property
    def compared(self) -> Comparisons:
        """The methods of every unit compared, by its label."""
        return Comparisons(self.units, self.rates)

    @cached_property
    def answers(self) -> tuple[Answer, ...]:
        """What can be done where cuts at the ruler's marks do not fit; nothing where they do."""
        if self.fitting is None:
            return ()
        return answers(self.fitting, self.project, self.block, self.copies, self.comfort)

    @cached_property
    def cloth(self) -> tuple[ClothPlan, ...]:
        """Every cloth laid out for cutting as well as could be found, see ``lay_out``."""
        return lay_out(self.project, self.to_cut, SECONDS)

    @property
    def cloth_known(self) -> tuple[ClothPlan, ...]:
        """The same where it was worked out already, else as it was found at once."""
        return self.cloth if "cloth" in self.__dict__ else self.cloth_at_once

    @cached_property
    def batches(self) -> tuple[Batch, ...]:
        """What is done at the mat, the machine and the iron, in as few walks as were found."""
        plain = [unit for unit in self.units if len(unit.unit.part.faces) == 1]
        return batches(self.steps, plain, self.rates, self.measure)

    @cached_property
    def work(self) -> Work:
        """The batches shared out over sittings, and the thread they take."""
        return work_for(self.batches, self.rates, self.measure)

    @cached_property
    def pressing(self) -> PressingPlan | None:
        """Which way every seam is pressed; None where there is none to press, or no order."""
        if self.assembly is None:
            return None
        return find_pressing(self.project, self.draft, self.root, self.units)

    @property
    def pressing_at_once(self) -> PressingPlan | None:
        """The same, as good as can be told at once."""
        if "pressing" in self.__dict__ or self.assembly is None:
            return self.pressing
        return find_pressing(self.project, self.draft, self.root, self.units, 0)

    def press(self, step: Step) -> StepPress | None:
        """How the seams of a step are pressed; None where it has none."""
        found = self.pressing
        return None if found is None else step_press(found, step, self.project)

    @property
    def advice(self) -> Advised:
        """Seams that would spare set-ins."""
        return advice_for(self.block)

    def tested(self, needle: Needle) -> tuple[NeedleTest, Effect]:
        """What a needle test says, and what a seam like that does to this block."""
        test = read_needle(needle, self.measure.seam)
        return test, effect_of(self.draft, self.root, test.off, self.measure.seam)


def plan_block(
    project: Project, block: Block, copies: int = 1, others: Sequence[BlockUnits] | None = None
) -> BlockPlan:
    """The plan of ``copies`` of ``block``, a pure function of its arguments. Never raises for what
    is drawn: problems are in the plan. ``others`` are the blocks of the project that its units may
    share something with; all of them if that is not said."""
    measure = project.measure

    drawn = draft(block)
    in_drawing = list(drawing_problems(drawn, project))

    root = break_down(drawn)
    in_sewing = list(seam_problems(drawn, root, measure))
    if not has_error(in_drawing):
        in_sewing += order_problems(drawn, root)
    sound = not has_error((*in_drawing, *in_sewing))

    units = plan_units(project, block, drawn, root, copies)
    # What has no cloth yet is no less sewn.
    drawable = not has_error(p for p in in_drawing if p.code != "patch-without-fabric")
    proved = drawable and not has_error(in_sewing) and resewn(drawn, root, units, measure.seam)
    good = sound and proved
    if sound and not proved:
        in_sewing.append(not_proved())
    sizes = comfort(units, block, measure)
    fitting = Fitting(drawn, root, units, measure, not sizes.misses) if proved else None
    fit = None
    if fitting is not None:
        used = _on_bands(fitting, project, block, copies) or fitting
        fit = used.chosen(project.rates or Rates())
        if used is not fitting:
            fit = fit._replace(remedy="bands")
        drawn, root, units = used.draft, used.root, fit.units
    units = sharing_squares(units)

    over = left_over(units)
    if others is None:
        shares = over or any(plan.in_use.sets for plan in units)
        others = [units_of(b) for b in blocks_beside(project, block)] if shares else ()
    own = BlockUnits(block, tuple(plan.unit for plan in units))
    offered = offers(over, _in_order(project, (own, *others)), measure.seam)
    in_choices = list(method_problems(units))

    sets = with_elsewhere(plan_sets(units), others)
    cuts = cut_list(units, sets)
    stacks = stacks_of(units, cuts)
    to_cut = ToCut(
        cuts, standing(drawn, units, stacks, project, copies), begun_for(project, block.id, copies)
    )
    cloth = lay_out(project, to_cut, 0)
    done = done_text(fit, measure) if fit is not None else ""
    in_sizes = list(size_problems(sizes, measure, done))
    in_sizes += fit_problems(fit, measure, bool(in_sizes))
    in_cloth = [*cloth_problems(project, cloth), *print_problems(project, cuts)]

    assembly = root.joins[-1] if good and root.joins else None
    made = MadeSizes(fit.sewn if fit is not None else None, measure)
    return BlockPlan(
        project=project,
        block=block,
        copies=copies,
        draft=drawn,
        root=root,
        units=units,
        sets=sets,
        offers=offered,
        cuts=cuts,
        stacks=stacks,
        to_cut=to_cut,
        cloth_at_once=cloth,
        comfort=sizes,
        fitting=fitting,
        fit=fit,
        steps=find_steps(drawn, root, units, stacks, copies, project, made),
        resewn=good,
        assembly=assembly,
        seams=count_seams(drawn, root, assembly),
        problems=errors_first((*in_drawing, *in_sewing, *in_sizes, *in_choices, *in_cloth)),
    )


def _on_bands(fitting: Fitting, project: Project, block: Block, copies: int) -> Fitting | None:
    """The block on bands fitted to the marks, sewn up as well; None where the maker does not wish
    it, or it cannot be."""
    if project.measure.awkward != "bands" or fitting.fits:
        return None
    banded = with_bands(fitting, project, block, copies)
    seam = project.measure.seam
    if banded is None or not resewn(banded.draft, banded.root, banded.units, seam):
        return None
    return banded


def _in_order(project: Project, blocks: Iterable[BlockUnits]) -> list[BlockUnits]:
    """Blocks in the project's order, those that are not among its first ones left out."""
    by_id = {id(each.block): each for each in blocks}
    return [by_id[id(b)] for b in project.blocks[:MOST_BLOCKS] if id(b) in by_id]
