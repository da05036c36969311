"""What can be done where edges of a quilt differ, side by side: each way planned, what is left of
the difference, and what it takes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Literal, NamedTuple

from inlet.core.cancellation import check
from inlet.core.cutlist import ruler_friendly
from inlet.core.fitting import Fit, at_size
from inlet.core.numbers import nearest_mark
from inlet.core.plan.prepared import PreparedBlock
from inlet.core.plan.quilt import QuiltPlan, top_as_made, worst_of
from inlet.core.plan.quilt_fit import differs_text
from inlet.core.plan.shared_units import prepared_blocks
from inlet.core.project import (
    Awkward,
    Measure,
    Pair,
    Project,
    Quilt,
    Rates,
    Sashing,
    Uneven,
    replace,
)
from inlet.core.setting import (
    Top,
    Trimming,
    block_counts,
    edges_apart,
    trimming_of,
    trims_of,
)
from inlet.core.words import length_text, near_text, size_text

QuiltRemedy = Literal["trim", "units", "finer", "bands", "size", "sashing", "ease"]
TITLES: dict[QuiltRemedy, str] = {
    "trim": "Trim to one size",
    "units": "Trim the units",
    "finer": "Cut finer",
    "bands": "Bands on marks",
    "size": "Another size",
    "sashing": "Sashing",
    "ease": "Ease",
}
AWKWARD: tuple[tuple[QuiltRemedy, Awkward, str], ...] = (
    ("units", "trim", "Trim the units of every block before they are sewn to one another."),
    ("finer", "finer", "Cut the pieces of every block on finer marks."),
    ("bands", "bands", "Put the bands of every block on the ruler's marks."),
)
MOST_BANDED = 12
"""Different blocks that are drawn anew on other bands."""
MOST_NAMED = 3
"""Blocks that are named one by one."""


class QuiltAnswer(NamedTuple):
    """One way out: the ``project`` in which it is done; in words what is done; by how much edges
    still differ at most then (0: to a thread), the finished ``size`` of the quilt, the ``minutes``
    it takes to trim and to find finer marks. ``in_use``: it is done now. ``cannot``: why it is not
    to be had, or not for all blocks."""

    remedy: QuiltRemedy
    project: Project
    done: str
    differs: float
    size: Pair
    minutes: float
    in_use: bool = False
    cannot: str = ""


Fits = Mapping[str, Fit]
"""How blocks are cut, by their id."""


def quilt_answers(plan: QuiltPlan) -> tuple[QuiltAnswer, ...]:
    """Every way to make edges meet that differ by more than a thread while no block is trimmed;
    none where they do not."""
    eased = top_as_made(_with(plan.project, "ease"), plan.as_cut)
    worst = worst_of(edges_apart(eased, plan.project))
    if not worst:
        return ()
    return tuple(_answers(plan, eased, worst))


def _answers(plan: QuiltPlan, eased: Top, worst: float) -> Iterator[QuiltAnswer]:
    project, blocks = plan.project, prepared_blocks(plan.project)
    fits = {name: block.fit for name, block in blocks.items() if block.fit is not None}
    trimmed = any(size.trimmed is not None for size in plan.top.sizes.values())
    trimming = trimming_of(eased, project)
    if trimming.sizes or trimming.points:
        answer = _answer("trim", _with(project, "trim"), fits, _trim_text(trimming, eased, project))
        yield answer._replace(in_use=trimmed, cannot=_points_text(trimming, project))
    others = (
        *_of_measure(project, blocks), *_of_size(plan, blocks, fits), *_of_sashing(plan, fits)
    )  # fmt: skip
    for remedy, other, other_fits, done in others:
        check()
        answer = _answer(remedy, other, other_fits, done)
        if answer.differs < worst:
            yield answer
    answer = _answer("ease", _with(project, "ease"), fits, _ease_text(worst, plan))
    yield answer._replace(in_use=not trimmed)


def _answer(remedy: QuiltRemedy, project: Project, fits: Fits, done: str) -> QuiltAnswer:
    """What comes of a project whose blocks are cut so."""
    top = top_as_made(project, {name: fit.finished for name, fit in fits.items()})
    rates = project.rates or Rates()
    minutes = trims_of(top).total() * rates.trim / 60
    minutes += sum(fit.minutes(rates) for fit in fits.values())
    return QuiltAnswer(
        remedy, project, done, worst_of(edges_apart(top, project)), top.size, minutes
    )  # fmt: skip


def answer_text(answer: QuiltAnswer, measure: Measure) -> str:
    """An answer in a line: ``Trim to one size (in use): …. Every edge meets to a thread``."""
    used = " (in use)" if answer.in_use else ""
    words = [
        f"{TITLES[answer.remedy]}{used}: {answer.done}",
        answer.cannot,
        comes_out(answer, measure),
    ]
    return " ".join(filter(None, words))


def comes_out(answer: QuiltAnswer, measure: Measure) -> str:
    """What is left of the difference, the size of the quilt, and the time it takes."""
    left = "All edges meet within a thread."
    if answer.differs:
        left = f"Edges differ by up to {differs_text(answer.differs, measure)}."
    minutes = f" About {max(1, round(answer.minutes))} min." if answer.minutes else ""
    return f"{left} The quilt is {near_text(answer.size, measure)}.{minutes}"


def _with(project: Project, wish: Uneven) -> Project:
    return replace(project, quilt=replace(project.quilt or Quilt(), uneven=wish))


Way = tuple[QuiltRemedy, Project, Fits, str]
"""A way out: its project, how blocks are cut in it, what is done."""


def _of_measure(project: Project, blocks: Mapping[str, PreparedBlock]) -> Iterator[Way]:
    """Blocks made otherwise, all of them."""
    rates = project.rates or Rates()
    for remedy, awkward, done in AWKWARD:
        if project.measure.awkward == awkward:
            continue
        other = replace(project, measure=replace(project.measure, awkward=awkward))
        if awkward == "bands":
            if len(blocks) > MOST_BANDED:
                continue
            blocks = prepared_blocks(other)
            fits = {name: block.fit for name, block in blocks.items() if block.fit is not None}
        else:
            fits = {
                name: block.fitting.wished(awkward, rates)
                for name, block in blocks.items()
                if block.fitting is not None
            }
        yield remedy, other, fits, done


def _of_size(plan: QuiltPlan, blocks: Mapping[str, PreparedBlock], fits: Fits) -> Iterator[Way]:
    """The nearest size at which every block of the rows is cut on marks, all enlarged alike."""
    project, in_rows = plan.project, block_counts(plan.quilt)
    planned = [block for name, block in blocks.items() if name in in_rows]
    units = [unit for block in planned for unit in block.units]
    if not units:
        return
    first = planned[0].block
    sizes = ruler_friendly(units, first, project.measure)
    near = [size for size in (sizes.smaller, sizes.larger) if size is not None]
    if not sizes.misses or not near:
        return
    now = first.finished[0]
    size = min(near, key=lambda size: abs(size[0] - now))
    k = size[0] / now
    other, other_fits = project, dict(fits)
    for prepared in planned:
        wide, high = prepared.block.finished
        block = replace(prepared.block, finished=(wide * k, high * k))
        other = other.with_block(block)
        if prepared.fitting is not None:
            other_fits[block.id] = at_size(prepared.fitting, block).usual
    new = size_text(size, project.measure)
    done = f"Make {first.title} {new}, all blocks alike: every cut lands on a mark."
    yield "size", other, other_fits, done


def _of_sashing(plan: QuiltPlan, fits: Fits) -> Iterator[Way]:
    """Strips between the blocks, which are cut to lie half way between their sizes."""
    quilt, measure = plan.quilt, plan.measure
    size = plan.top.sizes.get(quilt.block)
    if size is None or (quilt.sashing is not None and quilt.sashing.width):
        return
    width = nearest_mark(size.drawn[0] / 8, measure.system.ruler * 2)
    if width:
        sashing = replace(quilt.sashing or Sashing(), width=width)
        done = (
            f"Put sashing of {length_text(width, measure)} between the blocks: each block meets a "
            "strip of the size between, not another block."
        )
        other = replace(plan.project, quilt=replace(quilt, sashing=sashing))
        yield "sashing", other, fits, done


def _names(project: Project) -> dict[str, str]:
    motifs = project.quilt.motifs if project.quilt is not None else ()
    titles = {block.id: block.title for block in project.blocks}
    return titles | {motif.id: motif.name or motif.id for motif in motifs}


def _listed(names: list[str]) -> str:
    if len(names) > MOST_NAMED:
        names = [*names[: MOST_NAMED - 1], f"{len(names) - MOST_NAMED + 1} more"]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _trim_text(trimming: Trimming, eased: Top, project: Project) -> str:
    """``Trim Four to 11 3/16 in: up to 5/64 in comes off.``"""
    if not trimming.sizes:
        return "Trim all blocks to the smallest."
    measure, names = project.measure, _names(project)
    off = max(
        float(a - b)
        for name, size in trimming.sizes.items()
        for a, b in zip(eased.sizes[name].in_use, size, strict=True)
    )
    twice = 2 * measure.seam
    raw = {(wide + twice, high + twice) for wide, high in trimming.sizes.values()}
    to = f" to {near_text(raw.pop(), measure)}" if len(raw) == 1 else " to the smallest"
    listed = _listed([names[name] for name in trimming.sizes])
    return f"Trim {listed}{to}, evenly all round: up to {differs_text(off, measure)} comes off."


def _points_text(trimming: Trimming, project: Project) -> str:
    """Which blocks are not trimmed, and why."""
    if not trimming.points:
        return ""
    listed = _listed([_names(project)[name] for name in trimming.points])
    verb = "has" if len(trimming.points) == 1 else "have"
    return f"{listed} {verb} points at the edge, which would be cut off: not trimmed."


def _ease_text(worst: float, plan: QuiltPlan) -> str:
    measure = plan.measure
    foot = "1/16 in can be eased over a foot"
    if not measure.system.fractions:
        foot = "5 mm can be eased over a metre"
    return (
        f"Sew edges together that differ by up to {differs_text(worst, measure)}, the longer one "
        f"below. About {foot}."
    )
