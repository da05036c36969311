"""Labels to cut apart and pin to the stacks: one for every stack of cut pieces, one for every stack
of sewn units; of a quilt for its blocks and rows, too."""

from __future__ import annotations

import os
from collections.abc import Iterator, Sequence
from typing import Any, BinaryIO, NamedTuple

from reportlab.lib.colors import black
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth

from inlet import __version__
from inlet.core.cutlist import Cut
from inlet.core.plan import BlockPlan, QuiltPlan, SewnBlock, listed
from inlet.core.planning import kind_words
from inlet.core.project import Measure, Project
from inlet.core.templates import stack_shape
from inlet.core.words import fabric_name, measured_text, near_text, size_text
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, PageCanvas, write_pages
from inlet.files.problem import FileProblem

ACROSS, DOWN = 3, 8
LARGE, SMALL = 30.0, 13.0
"""Points of a label's name, at most and at least."""
SIZES, LEADING = (9.0, 8.0, 7.0, 6.0, 5.0), 1.25
"""Points of its other words: the largest that has room."""


class Label(NamedTuple):
    """What one label says: its name large, then lines below."""

    name: str
    lines: tuple[str, ...]


def labels(plan: BlockPlan) -> Iterator[Label]:
    """The labels of a plan: stacks of pieces in the cut list's order, then stacks of units."""
    yield from _stacks(plan.cuts, plan.project)
    yield from _units(plan, plan.block.title)


def quilt_labels(plan: QuiltPlan) -> Iterator[Label]:
    """Those of a quilt: stacks of pieces, of units and of blocks, then its rows, each to be pinned
    to its first block."""
    measure = plan.measure
    yield from _stacks(plan.cuts, plan.project)
    for block, sewn in zip(plan.blocks, plan.sewn, strict=True):
        yield from _units(sewn, block.name)
        size = near_text(plan.comes_to(block.block.id), measure)
        yield Label(block.name, (f"{block.number} blocks, unfinished {size}",))
    for card in plan.rows:
        if len(card.items) > 1:
            long = near_text((card.length,) * 2, measure) if card.length is not None else ""
            pressed = f"press {card.pressed}" if card.pressed else ""
            note = ", ".join(filter(None, (long, pressed)))
            yield Label(card.label, (note, listed(card.items)))


def _stacks(cuts: Sequence[Cut], project: Project) -> Iterator[Label]:
    for cut in cuts:
        diagonal = cut.diagonal
        crosscut = f", cut {diagonal}" if diagonal else ""
        yield Label(
            cut.label,
            (
                f"{cut.number} × {size_text(cut.cut, project.measure)} "
                f"{stack_shape(cut, project.measure)}{crosscut}",
                fabric_name(project, cut.fabric),
                f"for {', '.join(cut.labels)}",
            ),
        )


def _units(plan: SewnBlock, block: str) -> Iterator[Label]:
    """The units that are sewn in the plan's steps."""
    measure = plan.measure
    sources = {step.makes: step.measures for step in plan.steps if step.unit}
    for unit in plan.units:
        if unit.unit.label in sources:
            size = sources[unit.unit.label]
            comes_out = (
                f"measures {measured_text(size, measure)}"
                if size
                else f"unfinished {size_text(unit.unfinished, measure)}"
            )
            hand = f", mirror image of {unit.unit.mirror_of}" if unit.unit.mirror_of else ""
            yield Label(
                unit.unit.label,
                (
                    f"{unit.count} × {kind_words(unit.unit.kind)}{hand}",
                    f"sewn, {comes_out}",
                    f"of {block}",
                ),
            )


def write_labels(plan: BlockPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the labels of a plan as PDF, see ``write_pages``."""
    _write(list(labels(plan)), plan.block.title, plan.measure, path, paper)


def write_quilt_labels(
    plan: QuiltPlan, path: str | os.PathLike[str], paper: str | None = None
) -> None:
    """Write the labels of a quilt as PDF, see ``write_pages``. Raises ``FileProblem`` where it has
    no top."""
    if not plan.top.rows:
        raise FileProblem(f"inlet: {plan.problems[0].text}")
    title = plan.project.name or "Quilt"
    _write(list(quilt_labels(plan)), title, plan.measure, path, paper)


def _write(
    found: Sequence[Label], title: str, measure: Measure, path: str | os.PathLike[str],
    paper: str | None,
) -> None:  # fmt: skip
    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        canvas: Any = PageCanvas(to, pagesize=size)
        canvas.setTitle(f"{title}, labels")
        canvas.setCreator(f"Inlet {__version__}")
        wide, high = (size[0] - 2 * MARGIN) / ACROSS, (size[1] - 2 * MARGIN) / DOWN
        for i, label in enumerate(found):
            place = i % (ACROSS * DOWN)
            if i and not place:
                canvas.showPage()
            x = MARGIN + place % ACROSS * wide
            y = size[1] - MARGIN - place // ACROSS * high
            _draw(canvas, label, x, y, wide, high)
        canvas.save()

    write_pages(path, measure, paper, draw)


def _draw(c: Any, label: Label, x: float, y: float, wide: float, high: float) -> None:
    """One label, its top left corner at (x, y): a line to cut on, a spot for the pin."""
    c.setStrokeColor(FAINT)
    c.setLineWidth(0.5)
    c.setDash(3, 3)
    c.rect(x, y - high, wide, high)
    c.setDash()
    c.circle(x + 9, y - 9, 2.2)
    c.setFillColor(INK)
    room = wide - 26
    fits = 0.98 * LARGE * room / stringWidth(label.name, BOLD, LARGE)
    size = max(SMALL, min(LARGE, fits))
    c.setFont(BOLD, size)
    down = y - 32
    for part in simpleSplit(label.name, BOLD, size, room)[:2]:
        c.drawString(x + 18, down, part)
        down -= SMALL + 2
    c.setFillColor(black)
    fonts = [MEDIUM, *[REGULAR] * len(label.lines)]
    for size in SIZES:
        texts = [
            (font, part)
            for font, line in zip(fonts, label.lines, strict=False)
            for part in simpleSplit(line, font, size, room)
        ]
        if down - len(texts) * size * LEADING > y - high:
            break
    for font, part in texts:
        c.setFont(font, size)
        c.drawString(x + 18, down, part)
        down -= size * LEADING
