"""The cutting plan to print: every fabric to scale with its cuts numbered, then the list to
tick."""

from __future__ import annotations

import os
from collections.abc import Callable
from typing import Any, BinaryIO, Protocol

from reportlab.lib.colors import black
from reportlab.lib.utils import simpleSplit

from inlet import __version__
from inlet.core.cutlist import Cut
from inlet.core.figures import MatFrame, OnMat, mat_figure, numbers_figure
from inlet.core.layout import (
    ClothPlan,
    Stroke,
    buying_text,
    cloth_text,
    cuts_of,
    finished_text,
    preparing,
    stroke_text,
)
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BlockPlan
from inlet.core.project import Cutting, LaidCloth, Measure, Project
from inlet.core.staged import Staged
from inlet.core.words import CUTTER, MANUALS, cloth_name
from inlet.files.pdf.figure import UNIT, Pen
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, PageCanvas, write_pages
from inlet.files.text.tables import Table

PICTURE = 150.0
"""How high the picture of a fabric is, at most, in points."""
BETWEEN = 18.0
"""Points between the two columns of a page."""


def write_cutting(plan: BlockPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the cutting plan of a block as PDF, see ``write_pages``."""

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        canvas: Any = PageCanvas(to, pagesize=size)
        canvas.setTitle(f"{plan.block.title}, cutting plan")
        canvas.setCreator(f"Inlet {__version__}")
        canvas_top = size[1] - MARGIN

        def turn() -> float:
            canvas.showPage()
            return canvas_top

        draw_cutting(canvas, plan, block_name(plan), size, canvas_top, turn)
        canvas.save()

    write_pages(path, plan.measure, paper, draw)


class Cuttable(Protocol):
    """A plan whose fabric is cut: that of a block, or of a quilt."""

    @property
    def project(self) -> Project: ...
    @property
    def measure(self) -> Measure: ...
    @property
    def cuts(self) -> tuple[Cut, ...]: ...
    @property
    def cloth(self) -> Staged[tuple[ClothPlan, ...]]: ...


def draw_cutting(
    canvas: Any,
    plan: Cuttable,
    what: str,
    size: tuple[float, float],
    top: float,
    turn: Callable[[], float],
) -> None:
    """The pages of a cutting plan for ``what``, one piece of fabric after the other, on a canvas
    from ``top`` down; ``turn`` begins another page and says where its top is."""
    pages = _Pages(canvas, plan, size, top, turn)
    pages.words(f"Cutting {what}", 16, BOLD)
    pages.words(f"{CUTTER} {MANUALS}", 8.5, REGULAR)
    for layout in plan.cloth.best:
        heading = f"{cloth_name(plan.project, layout.fabric)}: {buying_text(layout, plan.measure)}"
        if not layout.cloths:
            pages.words(heading, 12.5, BOLD)
        for i, cloth in enumerate(layout.cloths):
            pages.cloth(cloth, layout.fabric, "" if i else heading)


def block_name(plan: BlockPlan) -> str:
    return f"{plan.copies} × {plan.block.title}"


class _Pages:
    """Pages filled from the top."""

    def __init__(
        self, canvas: Any, plan: Cuttable, size: tuple[float, float], top: float,
        turn: Callable[[], float],
    ) -> None:  # fmt: skip
        self.canvas, self.plan, self.turn = canvas, plan, turn
        self.pen = Pen(canvas, plan.project, {}, size[1])
        self.wide = (size[0] - 2 * MARGIN - BETWEEN) / 2
        self.left, self.y = MARGIN, top
        self.top = top  # of the column
        self.prepared: set[tuple[str, int]] = set()

    def room(self, height: float) -> None:
        """Go on in the next column, or on the next page, where so much does not fit."""
        if self.y - height >= MARGIN:
            return
        if self.left == MARGIN:
            self.left += self.wide + BETWEEN
            self.y = self.top
        else:
            self.left = MARGIN
            self.y = self.top = self.turn()

    def words(self, text: str, size: float, font: str, indent: float = 0) -> None:
        for line in simpleSplit(vulgar_text(text), font, size, self.wide - indent):
            self.room(size * 1.3)
            self.y -= size * 1.3
            self.canvas.setFillColor(INK if font == BOLD else black)
            self.canvas.setFont(font, size)
            self.canvas.drawString(self.left + indent, self.y, line)
        self.y -= 2

    def cloth(self, cloth: LaidCloth, fabric: str | None, heading: str) -> None:
        plan = self.plan
        strokes = cuts_of(cloth, plan.project)
        left_handed = (plan.project.cutting or Cutting()).handed == "left"
        cuts = {cut.label: cut for cut in plan.cuts if cut.fabric == fabric}
        shown = OnMat(cloth, fabric, strokes, len(strokes), cuts, plan.measure, left_handed)
        wide, high = shown.size
        scale = min((self.wide - 10) / wide, PICTURE / high)
        self.room(high * scale + 110)
        if heading:
            self.words(heading, 12.5, BOLD)
        self.words(cloth_text(cloth, plan.measure), 10.5, MEDIUM)
        how = "bolt" if cloth.kind == "new" else cloth.kind, cloth.layers
        if how not in self.prepared:
            self.prepared.add(how)
            self.words(preparing(cloth, plan.project).text, 8.5, REGULAR)
        fold = self.y - 8 - (high - shown.below) * scale
        frame = MatFrame(shown, self.left, self.pen.high - fold, scale, UNIT)
        self.pen.draw(mat_figure(frame, plain=True) + numbers_figure(frame))
        self.y = fold - shown.below * scale - 8
        for i, stroke in enumerate(strokes, 1):
            self.tick(i, stroke)
        self.y -= 8

    def tick(self, number: int, stroke: Stroke) -> None:
        """One line to tick."""
        off = finished_text(stroke)
        text = stroke_text(stroke, self.plan.measure) + (f" Comes off: {off}." if off else "")
        lines = simpleSplit(vulgar_text(f"{number}. {text}"), REGULAR, 8.5, self.wide - 13)
        self.room(len(lines) * 10.5)
        c = self.canvas
        for i, line in enumerate(lines):
            self.y -= 10.5
            if i == 0:
                c.setStrokeColor(FAINT)
                c.setLineWidth(0.8)
                c.rect(self.left, self.y - 1, 7, 7)
            c.setFillColor(black)
            c.setFont(REGULAR, 8.5)
            c.drawString(self.left + 13, self.y, line)


def cuts_table(plan: BlockPlan) -> Table:
    """Every cut of a plan."""
    lines = [["Fabric", "From", "Cut", "Way", "At", "Ruler", "Layers", "Do", "Comes off"]]
    for layout in plan.cloth.best:
        name = cloth_name(plan.project, layout.fabric)
        for cloth in layout.cloths:
            for i, stroke in enumerate(cuts_of(cloth, plan.project), 1):
                lines.append(
                    [
                        name, cloth_text(cloth, plan.measure), str(i), stroke.way, str(stroke.at),
                        str(stroke.size), str(stroke.layers), stroke_text(stroke, plan.measure),
                        finished_text(stroke),
                    ]
                )  # fmt: skip
    return Table(f"Cuts: {plan.block.title}", lines)
