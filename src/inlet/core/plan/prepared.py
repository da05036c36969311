"""A block drawn, broken down, its units planned: the first half of every plan, of a block or of a
quilt."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Any, NamedTuple

from inlet.core.assembly import Join
from inlet.core.cutlist import RulerFriendly, ruler_friendly
from inlet.core.draft import Draft, draft, drawing_problems
from inlet.core.fitting import (
    Fit,
    Fitting,
    MadeSizes,
    SizesOfParts,
    as_made,
    done_text,
    fit_problems,
    with_bands,
)
from inlet.core.improvised import corner_problems
from inlet.core.layout import size_problems
from inlet.core.numbers import Exact
from inlet.core.panels import panel_problems
from inlet.core.piecing import (
    SeamCount,
    count_seams,
    not_proved,
    order_problems,
    resewn,
    seam_problems,
)
from inlet.core.plan.made_units import made_units
from inlet.core.plan.sliced_sizes import SlicedSizes
from inlet.core.planning import Comparisons, UnitPlan, method_problems, plan_units, sharing_squares
from inlet.core.problem import Problem, errors_first, has_error
from inlet.core.project import Block, Measure, Project, Rates
from inlet.core.remake import Remade
from inlet.core.staged import Known, later
from inlet.core.units import Part, break_down


class SlicedBlock(NamedTuple):
    """How a block is set of slices: of which start blocks, and what its parts measure."""

    how: Remade
    starts: tuple[Block, ...]
    sizes: SlicedSizes


@dataclass(frozen=True, eq=False, kw_only=True)
class PreparedBlock:
    """``copies`` of one block as they are drawn and broken down.

    ``units`` are all of them, each followed by those nested in it. ``assembly`` is the join that
    makes the block; it is None and ``resewn`` False where the draft has an error; units are still
    there as far as they go. ``fit`` is the block sewn up as it is cut, out of the ways ``fitting``
    knows; None where it cannot be sewn. ``known`` is what was worked out so far of what only some
    ask for. A block that is made from others is ``sliced``, and has no units.
    """

    project: Project
    block: Block
    copies: int
    repeated: bool
    draft: Draft
    root: Part
    units: tuple[UnitPlan, ...]
    ruler_friendly: RulerFriendly
    fitting: Fitting | None
    fit: Fit | None
    resewn: bool
    assembly: Join | None
    seams: SeamCount
    problems: tuple[Problem, ...]
    sliced: SlicedBlock | None = None
    known: Known = field(default_factory=Known)

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
    def made(self) -> SizesOfParts:
        """What parts measure as they are cut, the whole block as it measured."""
        if self.sliced is not None:
            return self.sliced.sizes
        quilt = self.project.quilt
        whole = quilt.made.get(self.block.id) if quilt is not None else None
        return MadeSizes(self.fit.sewn if self.fit is not None else None, self.measure, whole)

    @property
    def made_size(self) -> tuple[Exact, Exact]:
        """What the block measures raw: as it measured, else as it is cut."""
        return self.made.of(self.root, self.unfinished)

    @property
    def errors(self) -> tuple[Problem, ...]:
        return tuple(p for p in self.problems if p.level == "error")

    @later
    def compared(self) -> Comparisons:
        """The methods of every unit compared, by its label."""
        return Comparisons(self.units, self.rates)


def prepared_fields(block: PreparedBlock) -> dict[str, Any]:
    """What a prepared block holds, by name, to make a later stage of it; what was worked out of it
    is not handed on, as the later stage may say otherwise."""
    names = [part.name for part in fields(PreparedBlock) if part.name != "known"]
    return {name: getattr(block, name) for name in names}


def prepare_block(
    project: Project, block: Block, copies: int, repeated: bool = False
) -> PreparedBlock:
    """``copies`` of ``block`` prepared, a pure function of its arguments; ``repeated`` where they
    lie in one line, as in a border. Never raises for what is drawn: problems are in the result."""
    measure = project.measure
    drawn = draft(block)
    in_drawing = [*drawing_problems(drawn, project), *corner_problems(block, drawn, project),
                  *panel_problems(block, measure)]  # fmt: skip
    if block.panel is not None:  # the piece and its strips are to look alike
        in_drawing = [problem for problem in in_drawing if problem.code != "value-near"]

    root = break_down(drawn)
    in_sewing = list(seam_problems(drawn, root, measure))
    if not has_error(in_drawing):
        in_sewing += order_problems(drawn, root)
    sound = not has_error((*in_drawing, *in_sewing))

    units = plan_units(project, block, drawn, root, copies)
    # What has no fabric yet is no less sewn.
    drawable = not has_error(p for p in in_drawing if p.code != "patch-without-fabric")
    proved = drawable and not has_error(in_sewing) and resewn(drawn, root, units, measure.seam)
    good = sound and proved
    if sound and not proved:
        in_sewing.append(not_proved())
    sizes = ruler_friendly(units, block, measure)
    fitting = Fitting(drawn, root, units, measure, not sizes.misses, repeated) if proved else None
    fit = None
    if fitting is not None:
        used = _on_bands(fitting, project, block, copies) or fitting
        fit = used.chosen(project.rates or Rates())
        if used is not fitting:
            fit = fit._replace(remedy="bands")
        made = made_units(project.made, used.draft, fit.units, measure)
        if made:
            fit = as_made(fit, used, made, project.rates or Rates())
        drawn, root, units = used.draft, used.root, fit.units
    units = sharing_squares(units)

    done = done_text(fit, measure) if fit is not None else ""
    in_sizes = list(size_problems(sizes, measure, done))
    in_sizes += fit_problems(fit, measure, bool(in_sizes))
    in_choices = method_problems(units)
    assembly = root.joins[-1] if good and root.joins else None
    return PreparedBlock(
        project=project,
        block=block,
        copies=copies,
        repeated=repeated,
        draft=drawn,
        root=root,
        units=units,
        ruler_friendly=sizes,
        fitting=fitting,
        fit=fit,
        resewn=good,
        assembly=assembly,
        seams=count_seams(drawn, root, assembly),
        problems=errors_first((*in_drawing, *in_sewing, *in_sizes, *in_choices)),
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
