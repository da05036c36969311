"""The answers to an awkward size, side by side: what each takes, and what the block comes to."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.cutting.comfort import Comfort, comfort
from inlet.core.draft.patches import draft
from inlet.core.fitting.bands import fitted_bands
from inlet.core.fitting.remedies import Fit, Fitting, Remedy
from inlet.core.fitting.words import (
    NAMES,
    bands_answer_text,
    block_text,
    done_text,
    size_answer_text,
)
from inlet.core.planning.planned import plan_units
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.project.block import Block
from inlet.core.project.measure import Measure
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from inlet.core.units.breakdown import break_down


class Answer(NamedTuple):
    """One way out: how the block is cut and what comes of it; in words what is done, and, where
    the drawing or its size is another then, the new ``block``."""

    remedy: Remedy
    fit: Fit
    done: str
    measure: Measure
    block: Block | None = None

    @property
    def comes_out(self) -> str:
        """What the block shows: “10 3/4 in, a thread more”."""
        return block_text(self.fit, self.measure)

    @property
    def text(self) -> str:
        """What is done and what comes of it."""
        comes_out = "" if self.remedy == "size" else f" The block comes out {self.comes_out}."
        return f"{NAMES[self.remedy]}: {self.done}{comes_out}"


def answers(
    fitting: Fitting, project: Project, block: Block, copies: int, sizes: Comfort
) -> tuple[Answer, ...]:
    """Every way to make a block that does not fit as it is; none where it does."""
    return () if fitting.fits else tuple(_answers(fitting, project, block, copies, sizes))


def _answers(
    fitting: Fitting, project: Project, block: Block, copies: int, sizes: Comfort
) -> Iterator[Answer]:
    measure = project.measure
    ways = [fitting.finer, fitting.trimmed, fitting.usual._replace(remedy="leave")]
    for fit in ways:
        if fit is not None:
            yield Answer(fit.remedy, fit, done_text(fit, measure), measure)
    bands = with_bands(fitting, project, block, copies)
    if bands is not None:
        fit, made = bands.usual._replace(remedy="bands"), bands.draft.block
        yield Answer("bands", fit, bands_answer_text(block, made, measure), measure, made)
    for size in (sizes.smaller, sizes.larger):
        if size is not None:
            made = replace(block, finished=size)
            fit = fitting_of(project, made, copies).usual._replace(remedy="size")
            yield Answer("size", fit, size_answer_text(size, measure), measure, made)


def fitting_of(project: Project, block: Block, copies: int) -> Fitting:
    """A block broken down, and the ways to cut it."""
    drawn = draft(block)
    root = break_down(drawn)
    units = plan_units(project, block, drawn, root, copies)
    sizes = comfort(units, block, project.measure)
    return Fitting(drawn, root, units, project.measure, sizes.comfortable)


def with_bands(fitting: Fitting, project: Project, block: Block, copies: int) -> Fitting | None:
    """The block with its bands on the ruler's marks; None where they are there already, where units
    in them would be of other kinds, or where it does not make it fit."""
    made = fitted_bands(block, project.measure.mark)
    if made is None:
        return None
    other = fitting_of(project, made, copies)
    same = _kinds(other.units) == _kinds(fitting.units)
    return other if same and other.fits else None


def _kinds(units: Sequence[UnitPlan]) -> Counter[str]:
    """How many units of each kind; a square may become a rectangle."""
    out: Counter[str] = Counter()
    for plan in units:
        plain = plan.unit.kind in ("square", "rectangle")
        out["rectangle" if plain else plan.unit.kind] += plan.count
    return out
