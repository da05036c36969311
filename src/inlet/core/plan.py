"""From a project to a plan: the one place that runs the stages in order."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.assembly.tree import Join
from inlet.core.cutting.comfort import Comfort, comfort
from inlet.core.cutting.cuts import Cut, cut_list, name_stacks
from inlet.core.cutting.sets import PlannedSet, plan_sets, with_elsewhere
from inlet.core.cutting.strips import Cloth, lay_out
from inlet.core.draft.checks import drawing_problems
from inlet.core.draft.patches import Draft, draft
from inlet.core.geometry.inside import inside_point
from inlet.core.numbers.root2 import Exact
from inlet.core.piecing.resew import resewn
from inlet.core.piecing.seam_count import SeamCount, count_seams
from inlet.core.piecing.sittings import Batch, batches
from inlet.core.piecing.step import Step
from inlet.core.piecing.steps import find_steps
from inlet.core.planning.offers import Offer, offers
from inlet.core.planning.planned import plan_units
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.problem import Problem
from inlet.core.project.block import Block
from inlet.core.project.measure import Measure, Rates
from inlet.core.project.project import Project
from inlet.core.table.seams import too_short
from inlet.core.units.breakdown import break_down
from inlet.core.units.parts import Part, walk
from inlet.core.words import cloth_name, length_text, place_text, size_text, unit_of

MOST_COPIES = 10_000


class BlockPlan(NamedTuple):
    """Everything worked out for ``copies`` of one block. ``units`` are all of them, each followed
    by those nested in it. ``assembly`` is None and ``resewn`` False
    where the draft has an error; units, cuts and cloth are still there as far as they go."""

    project: Project
    block: Block
    copies: int
    draft: Draft
    root: Part
    units: tuple[UnitPlan, ...]
    cuts: tuple[Cut, ...]
    cloth: tuple[Cloth, ...]
    assembly: Join | None
    seams: SeamCount
    steps: tuple[Step, ...]
    resewn: bool
    problems: tuple[Problem, ...]
    comfort: Comfort
    sets: tuple[PlannedSet, ...] = ()
    offers: tuple[Offer, ...] = ()

    @property
    def measure(self) -> Measure:
        return self.project.measure

    @property
    def unfinished(self) -> tuple[Exact, Exact]:
        s = self.measure.seam
        return self.block.finished[0] + 2 * s, self.block.finished[1] + 2 * s

    @property
    def rates(self) -> Rates:
        return self.project.rates or Rates()

    @property
    def batches(self) -> tuple[Batch, ...]:
        """What is done at the mat, the machine and the iron, in as few walks as were found."""
        plain = [unit for unit in self.units if len(unit.unit.part.faces) == 1]
        return batches(self.steps, plain, self.rates, self.measure)

    @property
    def errors(self) -> tuple[Problem, ...]:
        return tuple(p for p in self.problems if p.level == "error")


def plan_block(project: Project, block: Block, copies: int = 1, others: bool = True) -> BlockPlan:
    """The plan of ``copies`` of ``block``, a pure function of its arguments. Never raises for what
    is drawn: problems are in the plan. Without ``others`` what the project's other blocks could
    share or use is told only as far as their units are known already."""
    measure = project.measure
    drawn = draft(block)
    root = break_down(drawn)
    units = plan_units(project, block, drawn, root, copies)
    sets = with_elsewhere(plan_sets(units), project, block, others)
    cuts = cut_list(units, sets)
    name_stacks(units, cuts)
    cloth = lay_out(project, cuts)
    problems = [*drawing_problems(drawn, project), *_seam_problems(drawn, root, measure)]
    if not any(p.level == "error" for p in problems):
        problems += _order_problems(drawn, root)
    broken = any(p.level == "error" for p in problems)
    good = not broken and resewn(drawn, root, units, measure.seam)
    if not broken and not good:
        problems.append(_not_proved())
    assembly = root.joins[-1] if good and root.joins else None
    sizes = comfort(units, block, measure)
    problems += _size_problems(sizes, measure)
    problems += _method_problems(block, units)
    problems += _cloth_problems(project, cloth)
    return BlockPlan(
        project,
        block,
        copies,
        drawn,
        root,
        units,
        cuts,
        cloth,
        assembly,
        count_seams(drawn, root, assembly),
        find_steps(drawn, root, units, copies, project),
        good,
        tuple(sorted(problems, key=lambda p: p.level != "error")),
        sizes,
        sets,
        offers(project, block, units, others),
    )


def _seam_problems(drawn: Draft, root: Part, measure: Measure) -> Iterator[Problem]:
    """Partial seams with no room to stop half way."""
    for join in (join for part in walk(root) for join in part.joins):
        if too_short(join, measure.seam):
            at = drawn.arrangement.points[join.left_open[0].vertex]
            yield Problem(
                "warning",
                "short-partial",
                (at,),
                f"The partial seam that ends at {place_text(at)} is only {join.length:.2f} "
                f"{unit_of(measure)} long: there is hardly room to stop half way. Sew it by hand, "
                "or make the block larger.",
            )


def _order_problems(drawn: Draft, root: Part) -> Iterator[Problem]:
    """Parts for which no order of sewing was found, though nothing is wrong with the drawing."""
    for part in walk(root):
        if part.stuck:
            at = inside_point(drawn.arrangement.outlines[min(part.faces)])
            yield Problem(
                "error",
                "no-order",
                (at,),
                f"No order was found to sew the {len(part.faces)} patches round {place_text(at)} "
                "in: one more seam across them would help.",
            )


def _not_proved() -> Problem:
    return Problem(
        "error",
        "not-resewn",
        (),
        "Sewing this plan up did not give the draft back exactly, so it is not shown as ready.",
    )


def _size_problems(sizes: Comfort, measure: Measure) -> Iterator[Problem]:
    """The block is not comfortable at this size: cuts fall between the ruler's marks."""
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
        f"Not a comfortable size: {', '.join(named)} {'falls' if len(named) == 1 else 'fall'} "
        f"between the {mark} marks. Cuts are rounded up to the next one."
        + (f" Nearest comfortable: {' and '.join(near)}." if near else ""),
    )


def _method_problems(block: Block, units: Sequence[UnitPlan]) -> Iterator[Problem]:
    for plan in units:
        wanted = plan.wanted
        if wanted is not None and plan.method.name != wanted:
            yield Problem(
                "warning",
                "method",
                (),
                f"methods: {plan.unit.label} ({plan.unit.kind}) cannot be made {wanted}; "
                f"{plan.method.name} is used.",
            )


def _cloth_problems(project: Project, cloth: Sequence[Cloth]) -> Iterator[Problem]:
    measure = project.measure
    for each in cloth:
        for cut in each.too_wide:
            name = cloth_name(project, each.fabric)
            yield Problem(
                "warning",
                "too-wide",
                (),
                f"A {size_text(cut.cut, measure)} piece for {', '.join(cut.labels)} is wider than "
                f"{name} ({length_text(each.width, measure)}): join cloth, or use a wider one.",
            )
