"""A sheet of labels to cut apart and pin to the stacks: one for every stack of cut pieces, one for
every stack of sewn units."""

from __future__ import annotations

import os
from collections.abc import Iterator
from typing import Any, BinaryIO, NamedTuple

from reportlab.lib.colors import black
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from inlet import __version__
from inlet.core.plan import BlockPlan
from inlet.core.planning.words import kind_words
from inlet.core.table.piece_words import diagonal_text
from inlet.core.words import cloth_name, measured_text, size_text
from inlet.files.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, write_pages

ACROSS, DOWN = 3, 8


class Label(NamedTuple):
    """What one label says: its name large, then lines below."""

    name: str
    lines: tuple[str, ...]


def labels(plan: BlockPlan) -> Iterator[Label]:
    """The labels of a plan: stacks of pieces in the cut list's order, then stacks of units."""
    measure = plan.measure
    for cut in plan.cuts:
        diagonal = diagonal_text(cut.crosscut, cut.lean)
        crosscut = f", cut {diagonal}" if diagonal else ""
        yield Label(
            cut.label,
            (
                f"{cut.number} × {size_text(cut.cut, measure)} {cut.shape}{crosscut}",
                cloth_name(plan.project, cut.fabric),
                f"for {', '.join(cut.labels)}",
            ),
        )
    made = {step.makes: step.measures for step in plan.steps if step.unit}
    for unit in plan.units:
        if len(unit.unit.part.faces) > 1:
            size = made.get(unit.unit.label)
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
                    f"of {plan.block.title}",
                ),
            )


def write_labels(plan: BlockPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the labels of a plan as PDF, see ``write_pages``."""

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        canvas: Any = Canvas(to, pagesize=size)
        canvas.setTitle(f"{plan.block.title}, labels")
        canvas.setCreator(f"Inlet {__version__}")
        wide, high = (size[0] - 2 * MARGIN) / ACROSS, (size[1] - 2 * MARGIN) / DOWN
        for i, each in enumerate(labels(plan)):
            place = i % (ACROSS * DOWN)
            if i and not place:
                canvas.showPage()
            x = MARGIN + place % ACROSS * wide
            y = size[1] - MARGIN - place // ACROSS * high
            _draw(canvas, each, x, y, wide, high)
        canvas.save()

    write_pages(path, plan.measure, paper, draw)


def _draw(c: Any, each: Label, x: float, y: float, wide: float, high: float) -> None:
    """One label, its top left corner at (x, y): a line to cut on, a spot for the pin."""
    c.setStrokeColor(FAINT)
    c.setLineWidth(0.5)
    c.setDash(3, 3)
    c.rect(x, y - high, wide, high)
    c.setDash()
    c.circle(x + 9, y - 9, 2.2)
    c.setFillColor(INK)
    size = 30.0 if len(each.name) <= 4 else 30.0 * 4 / len(each.name)
    c.setFont(BOLD, size)
    c.drawString(x + 18, y - 32, each.name)
    c.setFillColor(black)
    down = y - 48
    for i, line in enumerate(each.lines):
        font = MEDIUM if i == 0 else REGULAR
        for part in simpleSplit(line, font, 9, wide - 26)[:2]:
            c.setFont(font, 9)
            c.drawString(x + 18, down, part)
            down -= 11.5
