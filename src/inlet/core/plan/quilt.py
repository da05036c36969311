"""From a project to the plan of its whole quilt."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from functools import partial
from math import inf
from typing import TYPE_CHECKING

from inlet.core.cutlist import Cut, PlannedSet, Standing
from inlet.core.fitting import EASED
from inlet.core.layout import AT_ONCE, BEST, FabricPlan, ToCut, begun_for, lay_out
from inlet.core.numbers import next_mark
from inlet.core.plan.assembly_steps import quilt_steps
from inlet.core.plan.block_steps import block_steps, sewn_plans
from inlet.core.plan.quilt_fit import apart_problems
from inlet.core.plan.quilt_step import QuiltStep
from inlet.core.plan.quilt_work import joining_of, work_of
from inlet.core.plan.rows import RowCard, row_cards
from inlet.core.plan.sewn_block import SewnBlock
from inlet.core.plan.shared_units import (
    QuiltBlock,
    SharedBatch,
    batched,
    quilt_blocks,
    sizes_as_cut,
)
from inlet.core.planning import UnitPlan
from inlet.core.problem import Problem, errors_first
from inlet.core.project import Measure, Pair, Project, Quilt, Rates, replace
from inlet.core.schedule import Batch, Work, batches
from inlet.core.setting import (
    Apart,
    AsCut,
    BackingWay,
    BindingPlan,
    SettingCuts,
    SettingTriangles,
    Top,
    at_mark_below,
    backing_in_use,
    backing_ways,
    binding_plan,
    diagonal,
    edges_apart,
    fabrics_in,
    overage,
    quilt_top,
    same_top,
    setting_cuts,
    setting_triangles,
    trimming_of,
)
from inlet.core.staged import Known, Staged, later

if TYPE_CHECKING:
    from inlet.core.setting.quilting import Quilted


@dataclass(frozen=True, eq=False)
class QuiltPlan:
    """Everything worked out for a quilt, each part when it is first asked for. Never raises for
    what the quilt is: problems are in it. ``as_cut`` is what its blocks come out at."""

    project: Project
    top: Top
    as_cut: AsCut = field(default_factory=dict)
    known: Known = field(default_factory=Known)

    @property
    def quilt(self) -> Quilt:
        return self.project.quilt or Quilt()

    @property
    def measure(self) -> Measure:
        return self.project.measure

    @property
    def rates(self) -> Rates:
        return self.project.rates or Rates()

    @property
    def size(self) -> Pair:
        """The finished size."""
        return self.top.size

    def comes_to(self, block_id: str) -> Pair:
        """What a block of the quilt measures raw: as made, as trimmed or as cut."""
        twice = 2 * self.measure.seam
        wide, high = self.top.sizes[block_id].in_use
        return wide + twice, high + twice

    @later
    def blocks(self) -> tuple[QuiltBlock, ...]:
        """The blocks in it, each planned in its number."""
        return quilt_blocks(self.top, self.project)

    @later
    def batch(self) -> SharedBatch:
        """Their units made together."""
        return batched(self.blocks, self.project)

    @later
    def sewn(self) -> tuple[SewnBlock, ...]:
        """Every block's plan as it is sewn in the quilt."""
        return sewn_plans(self.blocks, self.batch)

    @later
    def batches(self) -> tuple[Batch, ...]:
        """What is done for all blocks at the mat, the machine and the iron."""
        plain = [unit for unit in self.units if not unit.is_sewn]
        steps = [step for plan in self.sewn for step in plan.steps]
        return batches(steps, plain, self.rates, self.measure)

    @later
    def joining(self) -> tuple[Batch, ...]:
        """What is done to what lies between the blocks and round them, and to join all."""
        return tuple(joining_of(self))

    @later
    def work(self) -> Work:
        """What the whole quilt takes: its sittings and its thread."""
        return work_of(self)

    @later
    def triangles(self) -> tuple[SettingTriangles, ...]:
        return setting_triangles(self.top, self.project)

    @later
    def setting(self) -> SettingCuts:
        """What is cut besides the blocks."""
        return setting_cuts(self.top, self.quilt, self.project)

    @later
    def cuts(self) -> tuple[Cut, ...]:
        """The cut list of everything but backing and batting, by fabric."""
        binding = self.binding
        cuts = [*self.batch.cuts, *self.setting.cuts]
        if binding is not None:
            cuts.append(binding_cut(binding, self.measure))
        order = {fabric: i for i, fabric in enumerate(dict.fromkeys(cut.fabric for cut in cuts))}
        return tuple(sorted(cuts, key=lambda c: (order[c.fabric], -c.cut[0], -c.cut[1])))

    @property
    def to_cut(self) -> ToCut:
        standing: Standing = {**self.batch.standing, **self.setting.standing}
        return ToCut(self.cuts, standing, begun_for(self.project, "", 1))

    @later
    def fabric_plans(self) -> Staged[tuple[FabricPlan, ...]]:
        """Every fabric laid out for cutting, but for the backing."""
        lay = partial(lay_out, self.project, self.to_cut)
        return Staged(partial(lay, AT_ONCE), partial(lay, BEST))

    @property
    def units(self) -> tuple[UnitPlan, ...]:
        """The units of all blocks."""
        return self.batch.units

    @property
    def sets(self) -> tuple[PlannedSet, ...]:
        """The strip sets of all blocks."""
        return self.batch.sets

    def work_out(self) -> None:
        """Ask for everything that takes a while, so that it is known from then on."""
        _ = self.quilted, self.steps, self.fabric_plans.best, self.work, self.problems
        for block in self.sewn:
            _ = block.pressing.best

    @property
    def planned(self) -> bool:
        """Is everything worked out that takes a while?"""
        return (
            self.known.has("quilted")
            and self.known.has("fabric_plans")
            and self.fabric_plans.settled
        )

    @later
    def apart(self) -> tuple[Apart, ...]:
        """The seams of the top whose edges differ by more than a thread."""
        return edges_apart(self.top, self.project)

    @later
    def backings(self) -> tuple[BackingWay, ...]:
        """Every way to make the backing, the best first."""
        fabric = self.quilt.backing.fabric if self.quilt.backing is not None else ""
        if not self.top.rows:
            return ()
        return backing_ways(self.size, self.project, fabric in fabrics_in(self.top, self.project))

    @property
    def backing(self) -> BackingWay | None:
        return backing_in_use(self.backings, self.project)

    @property
    def batting(self) -> Pair | None:
        """The size of the batting; None of a quilt without a place."""
        if not self.top.rows:
            return None
        o = overage(self.quilt, self.measure, "batting")
        return self.size[0] + 2 * o, self.size[1] + 2 * o

    @later
    def binding(self) -> BindingPlan | None:
        return binding_plan(self.size, self.project) if self.top.rows else None

    @later
    def quilted(self) -> Quilted:
        """The lines it is quilted along."""
        from inlet.core.setting.quilting import quilted  # loads the geometry library

        return quilted(self.top, self.project)

    @later
    def versions(self) -> dict[tuple[str, int, int], int]:
        """By block, column and row: which version of its pressing lies there, from 1 on; of blocks
        that are pressed in two."""
        versions_of = {}
        for block, plan in zip(self.blocks, self.sewn, strict=True):
            wish = block.block.pressing
            pressing = plan.pressing.best if wish is not None and wish.versions > 1 else None
            if pressing is not None and len(pressing.versions) > 1:
                for piece in self.top.pieces:
                    lying = piece.lying
                    if lying is None or lying.placed.block != block.block.id:
                        continue
                    column, row = lying.placed.column, lying.placed.row
                    at = diagonal(column, row) if self.quilt.on_point else (column, row)
                    if at in pressing.grid:
                        versions_of[block.block.id, column, row] = pressing.grid[at].version + 1
        return versions_of

    @later
    def turned(self) -> dict[tuple[str, int, int], int]:
        """By block, column and row: by how many quarters more than the pattern has it a block is
        turned, so that its seams nest; nobody sees it."""
        turned = {}
        nests = {
            block.block.id: plan.pressing.best.turned
            for block, plan in zip(self.blocks, self.sewn, strict=True)
            if plan.pressing.best is not None and plan.pressing.best.turned
        }
        for row in self.top.rows if nests else ():
            for piece in row.pieces:
                placed = piece.placed
                if placed is not None and placed.block in nests:
                    at = placed.column, placed.row
                    if sum(diagonal(*at) if self.quilt.on_point else at) % 2:
                        turned[placed.block, *at] = nests[placed.block]
        return turned

    @later
    def rows(self) -> tuple[RowCard, ...]:
        return row_cards(self.top, self.project, self.versions, self.turned)

    @later
    def steps(self) -> tuple[QuiltStep, ...]:
        """What is done, from making the blocks to the binding."""
        if not self.top.rows:
            return ()
        return (
            *block_steps(self.blocks, self.sewn),
            *quilt_steps(
                self.top,
                self.project,
                self.setting.bands,
                self.rows,
                turned_text(self),
                self.backing,
                self.binding,
            ),
        )

    @later
    def problems(self) -> tuple[Problem, ...]:
        """What is in the way, of the quilt first, then of its blocks."""
        problems = [*self.top.problems, *self.quilted.problems, *apart_problems(self)]
        for block in self.blocks:
            problems += [
                problem._replace(text=f"{block.name}: {problem.text}", at=())
                for problem in block.plan.errors
            ]
        return errors_first(problems)


def binding_cut(plan: BindingPlan, measure: Measure) -> Cut:
    """The binding in the cut list: strips across the fabric, or one square for bias."""
    fabric = plan.fabric or None
    label = "Binding"
    if plan.square is not None:
        size = plan.square, plan.square
        return Cut(fabric, "square", size, "none", 1, (label,), label=label)
    width = next_mark(plan.width, measure.mark)
    long = at_mark_below(plan.strip, measure)
    return Cut(fabric, "strip", (width, long), "none", plan.strips, (label,), label=label)


def turned_text(plan: QuiltPlan) -> str:
    """``Every other Nine is turned a quarter: it looks the same, and its seams nest.``; nothing
    where none is turned."""
    words = []
    for block, sewn in zip(plan.blocks, plan.sewn, strict=True):
        pressing = sewn.pressing.best
        if pressing is not None and pressing.turned:
            way = "a quarter" if pressing.turned == 1 else "upside down"
            words.append(
                f"Every other {block.name} is turned {way}: it looks the same, and its seams nest."
            )
    return " ".join(words)


def plan_quilt(project: Project, before: QuiltPlan | None = None) -> QuiltPlan:
    """The plan of the project's quilt, a pure function of it; what the plan ``before`` has worked
    out is taken over where it is surely the same: its top, or, where only steps were done since,
    everything."""
    if (
        before is not None
        and replace(before.project, log=project.log, bench=project.bench) == project
    ):
        return QuiltPlan(project, before.top, before.as_cut, before.known)
    as_cut = sizes_as_cut(project)
    if before is not None and as_cut == before.as_cut and same_top(project, before.project):
        known = Known()
        if before.known.has("apart"):
            known.of("apart", lambda: before.apart)
        return QuiltPlan(project, before.top, as_cut, known)
    return QuiltPlan(project, top_as_made(project, as_cut), as_cut)


def top_of(project: Project) -> Top:
    """The top of a project's quilt as it comes out."""
    return top_as_made(project, sizes_as_cut(project))


def top_as_made(project: Project, as_cut: AsCut) -> Top:
    """The top as it comes out: blocks of several sizes are trimmed to one where the maker wishes
    it, or where edges that differ by more than a thread are eased more easily then, and no point
    is lost."""
    top = quilt_top(project, as_cut)
    wish = project.quilt.uneven if project.quilt is not None else "ease"
    if wish == "ease":
        return top
    trimming = trimming_of(top, project)
    if not trimming.sizes or (not wish and trimming.points):
        return top
    apart = edges_apart(top, project)
    if not wish and not apart:
        return top
    trimmed = quilt_top(project, as_cut, trimming.sizes)
    better = _beyond_easing(edges_apart(trimmed, project)) < _beyond_easing(apart)
    return trimmed if wish or better else top


def _beyond_easing(apart: Iterable[Apart]) -> float:
    """By how much edges that differ miss what can be eased over their length, at worst; below 0
    where it all can."""
    return max((seam.differs - seam.length * float(EASED) for seam in apart), default=-inf)


def worst_of(apart: Iterable[Apart]) -> float:
    """By how much edges differ at most, where that is more than a thread; else 0."""
    return max((seam.differs for seam in apart), default=0.0)
