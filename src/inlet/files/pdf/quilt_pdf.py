"""The printed guide of a whole quilt: picture, shopping and sittings, the cutting plan of every
fabric, how units and blocks are made, then rows, borders, backing, binding, quilting lines."""

from __future__ import annotations

import os
from collections.abc import Sequence
from typing import Any, BinaryIO

from reportlab.lib.colors import HexColor, black
from reportlab.lib.utils import simpleSplit

from inlet import __version__
from inlet.core.buying import quilt_shopping, shopping_lines
from inlet.core.cancellation import tell
from inlet.core.figures import top_figure
from inlet.core.layout import BEST
from inlet.core.numbers import vulgar_text
from inlet.core.plan import QuiltPlan, listed, work_text
from inlet.core.schedule import sitting_lines, thread_text
from inlet.core.setting import (
    backing_text,
    quilted_text,
    quilting_words,
)
from inlet.core.table import diagonal_text
from inlet.core.words import CAUTIONS, cloth_name, length_text, near_text, size_text
from inlet.files.pdf.cutting_pdf import draw_cutting
from inlet.files.pdf.guide_pdf import draw_making
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, PageCanvas, write_pages
from inlet.files.problem import FileProblem

LINE = 13.0
QUILTING = HexColor("#bf4b23")


def write_quilt(plan: QuiltPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the guide of a quilt as PDF, see ``write_pages``. Raises ``FileProblem`` where it has
    no top."""
    if not plan.top.rows:
        raise FileProblem(f"inlet: {plan.problems[0].text}")
    write_pages(path, plan.measure, paper, lambda to, size: _QuiltGuide(plan, to, size).write())


class _QuiltGuide:
    """Pages filled from the top."""

    def __init__(self, plan: QuiltPlan, to: BinaryIO, size: tuple[float, float]) -> None:
        self.plan, self.width, self.height = plan, *size
        self.canvas: Any = PageCanvas(to, pagesize=size)
        self.title = plan.project.name or "Quilt"
        self.canvas.setTitle(f"{self.title}, {near_text(plan.size, plan.measure)}")
        self.canvas.setCreator(f"Inlet {__version__}")
        self.wide = self.width - 2 * MARGIN
        self.page = 0
        self.y = 0.0

    def write(self) -> None:
        plan, measure = self.plan, self.plan.measure
        self.turn()
        self.words(self.title, 20, BOLD)
        self.words(f"{near_text(plan.size, measure)} finished", 13, MEDIUM)
        self.picture(0.52 * self.height, False)
        self.heading("To buy")
        shopping = quilt_shopping(plan, BEST)
        for cloth, buy, price, have, _ in shopping_lines(shopping, plan.project)[1:]:
            more = ", ".join(filter(None, (price, have)))
            self.words(f"{cloth}: {buy}{f' ({more})' if more else ''}")
        work = plan.work
        self.words(f"{work_text(work, measure)}.")
        self.heading("Sittings")
        self.words(thread_text(work.thread, measure))
        for head, lines in sitting_lines(work.sittings, plan.rates, measure):
            self.room(3 * LINE)
            self.words(head, 10.5, MEDIUM)
            for line in lines:
                self.words(line)
        self.overview()
        size = self.width, self.height
        draw_cutting(self.canvas, plan, self.title, size, self.turn(), self.turn)
        self.foot()
        for k, (block, sewn) in enumerate(zip(plan.blocks, plan.sewn, strict=True)):
            tell(0.3 + 0.6 * k / len(plan.blocks))
            if sewn.steps:
                self.page = draw_making(self.canvas, sewn, block.name, size, self.page)
        self.canvas.showPage()
        self.page += 1
        self.y = self.height - MARGIN
        self.joining()
        if plan.quilted.lines:
            self.turn()
            self.heading("Quilting lines")
            for asked in plan.quilt.quilting:
                self.words(quilting_words(asked, plan.project))
            quilted = plan.quilted
            self.words(quilted_text(quilted.length, quilted.thread, measure))
            self.picture(0.72 * self.height, True)
        self.foot()
        self.canvas.save()

    def overview(self) -> None:
        """The blocks, their units, and what is cut besides."""
        plan, measure = self.plan, self.plan.measure
        self.heading("Blocks")
        for block in plan.blocks:
            size = size_text(block.plan.unfinished, measure)
            self.words(f"{block.number} × {block.name}, {size} unfinished")
        for one, other in plan.batch.made_as.items():
            self.words(f"{one} is made together with {other}.")
        self.heading("Units, all blocks together")
        for unit in plan.batch.units:
            over = f", {unit.in_use.surplus} over" if unit.in_use.surplus else ""
            kind = unit.unit.kind.replace("-", " ")
            self.words(f"{unit.unit.label}: {unit.count} × {kind}, {unit.in_use.name}{over}")
        if plan.setting.cuts:
            self.heading("Besides the blocks")
        for cut in plan.setting.cuts:
            way = diagonal_text(cut.crosscut, cut.lean)
            self.words(
                f"{cut.label}: {cut.number} × {size_text(cut.cut, measure)} of "
                f"{cloth_name(plan.project, cut.fabric)}{f', cut {way}' if way else ''}"
            )

    def joining(self) -> None:
        """Rows, then the steps from them to the binding."""
        plan, measure = self.plan, self.plan.measure
        self.heading("Rows, from the top" if not plan.quilt.on_point else "Rows, from the corner")
        for card in plan.rows:
            length = f" {near_text((card.length,) * 2, measure)} raw." if card.length else ""
            pressed = f" Press {card.pressed}." if card.pressed else ""
            self.words(f"{card.label}: {listed(card.items)}.{pressed}{length}", box=True)
        self.heading("Then")
        self.words(CAUTIONS, 8.5)
        rows = {row.label for row in plan.top.rows}
        for step in plan.steps:
            if step.sewn is None and step.of not in rows:
                check = f" [{step.measures}]" if step.measures else ""
                self.words(f"{step.title}. {step.text}{check}", box=True)
        if plan.backings:
            self.heading("Backing, every way")
        for backing_way in plan.backings:
            self.words(backing_text(backing_way, measure))
        if plan.binding is not None:
            width = length_text(plan.binding.width, measure)
            long = near_text((plan.binding.length,) * 2, measure)
            self.words(f"Binding: {width} wide, {long} in all.")

    # --- pages --------------------------------------------------------------------------------

    def turn(self) -> float:
        """Another page; where its top is."""
        if self.page:
            self.foot()
            self.canvas.showPage()
        self.page += 1
        self.y = self.height - MARGIN
        return self.y

    def foot(self) -> None:
        self.canvas.setFillColor(FAINT)
        self.canvas.setFont(REGULAR, 8)
        self.canvas.drawRightString(self.width - MARGIN, 24, f"{self.title}  ·  {self.page}")

    def room(self, height: float) -> None:
        if self.y - height < MARGIN:
            self.turn()

    def heading(self, text: str) -> None:
        self.room(3 * LINE)
        self.y -= 6
        self.words(text, 12.5, BOLD)

    def words(self, text: str, size: float = 9.5, font: str = REGULAR, box: bool = False) -> None:
        """Text in lines, with a box to tick before it."""
        indent = 14.0 if box else 0.0
        lines = simpleSplit(vulgar_text(text), font, size, self.wide - indent)
        self.room(size * 1.3 * min(3, len(lines)))
        for i, line in enumerate(lines):
            self.room(size * 1.3)
            self.y -= size * 1.3
            self.canvas.setFillColor(INK if font == BOLD else black)
            self.canvas.setFont(font, size)
            self.canvas.drawString(MARGIN + indent, self.y, line)
            if box and not i:
                self.canvas.setStrokeColor(INK)
                self.canvas.setLineWidth(0.6)
                self.canvas.rect(MARGIN, self.y - 1, 8, 8)
        self.y -= 2.5

    def picture(self, high: float, lines: bool) -> None:
        """The top, no higher than that; with its quilting ``lines`` its fabrics are left out."""
        plan = self.plan
        wide_of, high_of = (float(side) for side in plan.size)
        self.y -= 8
        high = min(high, self.y - MARGIN)
        scale = min(self.wide / wide_of, high / high_of)
        left, foot = MARGIN + (self.wide - wide_of * scale) / 2, self.y - high_of * scale
        for area in top_figure(plan.top, plan.project).areas():
            colour = plan.project.fabric(area.fabric or "")
            self.canvas.setFillColor(
                HexColor(colour.colour if colour is not None and not lines else "#ffffff")
            )
            self.canvas.setStrokeColor(FAINT if lines else INK)
            self.canvas.setLineWidth(0.3)
            self._path(area.outlines[0], left, foot, scale, True)
        if lines:
            self.canvas.setStrokeColor(QUILTING)
            self.canvas.setLineWidth(0.6)
            for line in plan.quilted.lines:
                self._path(line, left, foot, scale, False)
        self.y = foot - 6

    def _path(
        self, corners: Sequence[tuple[float, float]], left: float, foot: float, scale: float,
        filled: bool,
    ) -> None:  # fmt: skip
        high = float(self.plan.size[1])
        path = self.canvas.beginPath()
        for i, (x, y) in enumerate(corners):
            at = left + x * scale, foot + (high - y) * scale
            (path.lineTo if i else path.moveTo)(*at)
        if filled:
            path.close()
        self.canvas.drawPath(path, stroke=1, fill=int(filled))
