"""One quilt at the sizes it is to be offered in: blocks across and down, fabric, pieces, hours."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.layout import bought_text
from inlet.core.numbers import NumberError
from inlet.core.plan import BEDS, Proposal, QuiltPlan, plan_quilt, proposals, target_typed
from inlet.core.project import Measure, Pair, Project
from inlet.core.schedule import minutes_text
from inlet.core.words import fabric_name, length_text, near_text

USUAL_QUILTS = ", ".join(name for name in BEDS if name != "wall")
"""The sizes a quilt is usually offered in."""
MOST_QUILTS = 12


class QuiltSize(NamedTuple):
    """A size that is asked for: as it is ``called``, and its two sides."""

    called: str
    size: Pair


class QuiltChart(NamedTuple):
    """Columns for ``sizes``, each a quilt's plan as near to it as its blocks allow; None where no
    number of blocks does. ``now`` is the quilt as it is set."""

    sizes: tuple[QuiltSize, ...]
    plans: tuple[QuiltPlan | None, ...]
    now: QuiltPlan


def quilt_sizes_typed(text: str, measure: Measure) -> tuple[QuiltSize, ...]:
    """Sizes with commas between them, by name or by number: ``lap, king, 60 x 72``, or ``60`` for a
    square; the usual ones where the text is empty. Raises ``NumberError`` with a sentence."""
    parts = [
        part.strip() for part in re.split(r"[,;]", text.strip() or USUAL_QUILTS) if part.strip()
    ]
    if len(parts) > MOST_QUILTS:
        raise NumberError(f"no more than {MOST_QUILTS} sizes fit one chart")
    square = [f"{part} x {part}" if part[0].isdigit() and not re.search("x|×|by", part) else part
              for part in parts]  # fmt: skip
    return tuple(
        QuiltSize(part, target_typed(words, measure))
        for part, words in zip(parts, square, strict=True)
    )


def quilt_chart(project: Project, sizes: Sequence[QuiltSize]) -> QuiltChart:
    """The project's quilt planned at each size, set as it is set now."""
    plans: list[QuiltPlan | None] = []
    for size in sizes:
        check()
        proposal = _as_it_is_set(project, proposals(project, size.size))
        plans.append(None if proposal is None else proposal.plan(project))
    return QuiltChart(tuple(sizes), tuple(plans), plan_quilt(project))


def _as_it_is_set(project: Project, offers: Sequence[Proposal]) -> Proposal | None:
    """Of the ways to a size the one set as the quilt is; the nearest where none is."""
    quilt = project.quilt
    if quilt is None or not offers:
        return None
    alike = (
        offer for offer in offers
        if (offer.quilt.setting or "straight") == (quilt.setting or "straight")
        and offer.quilt.sashing == quilt.sashing
    )  # fmt: skip
    return next(alike, offers[0])


def quilt_chart_lines(chart: QuiltChart) -> list[list[str]]:
    """The chart as lines of text cells: a head, then what each size takes."""
    project, measure = chart.now.project, chart.now.measure
    lines = [["", *(size.called for size in chart.sizes)]]

    def line(name: str, cells: Sequence[str]) -> None:
        if any(cells):
            lines.append([name, *cells])

    plans = chart.plans
    quilts = [plan.quilt if plan is not None else None for plan in plans]
    line("Blocks across", [str(q.columns) if q is not None else "" for q in quilts])
    line("Blocks down", [str(q.rows) if q is not None else "" for q in quilts])
    line("Blocks in all", [_blocks(plan) for plan in plans])
    line("Border", [_border(plan) for plan in plans])
    line("Finished", [near_text(plan.size, measure) if plan is not None else "" for plan in plans])
    fabrics = dict.fromkeys(
        need.fabric for plan in plans if plan is not None for need in plan.fabric_plans.at_once
    )
    for fabric in fabrics:
        line(f"Buy {fabric_name(project, fabric)}", [_bought(plan, fabric) for plan in plans])
    line("Backing", [_backing(plan) for plan in plans])
    line("Batting", [near_text(plan.batting, measure) if plan is not None and plan.batting else ""
                     for plan in plans])  # fmt: skip
    line("Binding strips", [str(plan.binding.strips) if plan is not None and plan.binding else ""
                            for plan in plans])  # fmt: skip
    line("Pieces to cut", [_pieces(plan) for plan in plans])
    line("Time", [minutes_text(plan.work.minutes) if plan is not None else "" for plan in plans])
    return lines


def _border(plan: QuiltPlan | None) -> str:
    width = plan.quilt.borders[0].width if plan is not None and plan.quilt.borders else None
    return "" if plan is None or width is None else length_text(width, plan.measure)


def _blocks(plan: QuiltPlan | None) -> str:
    return "" if plan is None else str(sum(block.number for block in plan.blocks))


def _pieces(plan: QuiltPlan | None) -> str:
    return "" if plan is None else str(sum(cut.number for cut in plan.cuts))


def _bought(plan: QuiltPlan | None, fabric: str | None) -> str:
    if plan is None:
        return ""
    need = next((need for need in plan.fabric_plans.at_once if need.fabric == fabric), None)
    return bought_text(need.buy, plan.measure) if need is not None and need.buy else ""


def _backing(plan: QuiltPlan | None) -> str:
    return "" if plan is None or plan.backing is None else bought_text(
        plan.backing.buy, plan.measure
    )  # fmt: skip


def quilt_chart_notes(chart: QuiltChart) -> list[str]:
    """What is said below the chart."""
    without = [s.called for s, p in zip(chart.sizes, chart.plans, strict=True) if p is None]
    notes = ["Fabric is what the first layout takes; the border is as wide as the size needs."]
    if without:
        notes.append(f"No number of these blocks comes near to {', '.join(without)}.")
    return notes
