"""The cutting plan to print: every fabric to scale with its cuts numbered, then the list to
tick."""

from __future__ import annotations

import os
from collections.abc import Callable
from math import dist
from typing import Any, BinaryIO, Protocol

from reportlab.lib.colors import HexColor, black
from reportlab.lib.utils import simpleSplit

from inlet import __version__
from inlet.core.cutlist import Cut, rises
from inlet.core.layout import (
    ClothPlan,
    Place,
    Rect,
    Stroke,
    buying_text,
    cloth_text,
    cuts_of,
    finished_text,
    places_of,
    preparing,
    stroke_text,
)
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BlockPlan
from inlet.core.project import Cutting, LaidCloth, Measure, Project
from inlet.core.staged import Staged
from inlet.core.templates import in_box, laid_outlines
from inlet.core.words import CUTTER, MANUALS, cloth_name
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, PageCanvas, write_pages
from inlet.files.text.tables import Table

PICTURE = 150.0
"""How high the picture of a fabric is, at most, in points."""
DOT = 5.2
BETWEEN = 18.0
"""Points between the two columns of a page."""
ACCENT = HexColor("#bf4b23")


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
    for each in plan.cloth.best:
        heading = f"{cloth_name(plan.project, each.fabric)}: {buying_text(each, plan.measure)}"
        if not each.cloths:
            pages.words(heading, 12.5, BOLD)
        for i, cloth in enumerate(each.cloths):
            pages.cloth(cloth, each.fabric, "" if i else heading)


def block_name(plan: BlockPlan) -> str:
    return f"{plan.copies} × {plan.block.title}"


class _Pages:
    """Pages filled from the top."""

    def __init__(
        self, canvas: Any, plan: Cuttable, size: tuple[float, float], top: float,
        turn: Callable[[], float],
    ) -> None:  # fmt: skip
        self.canvas, self.plan, self.turn = canvas, plan, turn
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
        wide, deep = float(cloth.length), float(cloth.width / cloth.layers)
        below = max((-float(p.at.x) for p in places_of(cloth) if p.at.x < 0), default=0.0)
        scale = min((self.wide - 10) / wide, PICTURE / (deep + below))
        self.room((deep + below) * scale + 110)
        if heading:
            self.words(heading, 12.5, BOLD)
        self.words(cloth_text(cloth, plan.measure), 10.5, MEDIUM)
        how = "bolt" if cloth.kind == "new" else cloth.kind, cloth.layers
        if how not in self.prepared:
            self.prepared.add(how)
            self.words(preparing(cloth, plan.project).text, 8.5, REGULAR)
        fold = self.y - 8 - deep * scale
        self.picture(cloth, strokes, fold, scale, fabric)
        self.y = fold - below * scale - 8
        for i, stroke in enumerate(strokes, 1):
            self.tick(i, stroke)
        self.y -= 8

    def picture(
        self,
        cloth: LaidCloth,
        strokes: tuple[Stroke, ...],
        fold: float,
        scale: float,
        fabric: str | None,
    ) -> None:
        """The fabric to scale, its length to the right (to the left for left-handers), the fold at
        ``fold``."""
        c = self.canvas
        left_handed = (self.plan.project.cutting or Cutting()).handed == "left"
        whole = float(cloth.length) * scale

        def box(rect: Rect) -> tuple[float, float, float, float]:
            x, w = float(rect.y) * scale, float(rect.height) * scale
            left = whole - x - w if left_handed else x
            return self.left + left, fold + float(rect.x) * scale, w, float(rect.width) * scale

        c.setLineWidth(0.8)
        c.setStrokeColor(INK)
        c.setFillColor(HexColor("#f6f2ea"))
        c.rect(self.left, fold, whole, float(cloth.width / cloth.layers) * scale, fill=1)
        cuts = {cut.label: cut for cut in self.plan.cuts if cut.fabric == fabric}
        for place in places_of(cloth):
            x, y, w, h = box(place.at)
            c.setFillColor(HexColor("#ffffff"))
            c.rect(x, y, w, h, fill=1)
            cut = cuts.get(place.label)
            if cut is not None and cut.outline:
                self._laid_on(cut, place, (x, y, w, h), scale)
            c.setFillColor(black)
            text = place.label if place.holds == 1 else f"{place.label} × {place.holds}"
            size = min(8.0, h * 0.7, w / len(text) * 1.4) if text else 0.0
            if size > 3:
                c.setFont(REGULAR, size)
                c.drawCentredString(x + w / 2, y + h / 2 - size / 3, text)
            if cut is not None and cut.crosscut in ("once", "twice"):
                up = rises(cut, h > w)
                c.setDash(2, 2)
                if cut.crosscut == "twice" or not up:
                    c.line(x, y + h, x + w, y)
                if cut.crosscut == "twice" or up:
                    c.line(x, y, x + w, y + h)
                c.setDash()
        self.numbered: list[tuple[float, float]] = []
        for i, stroke in enumerate(strokes, 1):
            self._number(i, stroke, box)
        if cloth.layers > 1:
            c.setLineWidth(2)
            c.setStrokeColor(INK)
            c.line(self.left, fold, self.left + whole, fold)

    def _laid_on(
        self, cut: Cut, place: Place, box: tuple[float, float, float, float], scale: float
    ) -> None:
        """A place's templates: their cut lines, y up on paper."""
        x, y, w, h = box
        self.canvas.setLineWidth(0.4)
        for outline in laid_outlines(cut, place.holds, self.plan.measure):
            path = self.canvas.beginPath()
            lying = in_box(outline, w / scale, h / scale, place.turned)
            for i, (across, down) in enumerate(lying):
                to = path.lineTo if i else path.moveTo
                to(x + across * scale, y + h - down * scale)
            path.close()
            self.canvas.drawPath(path)
        self.canvas.setLineWidth(0.8)

    def _number(self, number: int, stroke: Stroke, box: Any) -> None:
        """A cut's number where its line begins."""
        c = self.canvas
        near = next(iter(stroke.parts()))
        x, y, w, h = box(near)
        handed = (self.plan.project.cutting or Cutting()).handed
        at = (x + w / 2, y + h)
        if stroke.way == "across":
            at = (x if handed == "left" else x + w, y + h / 2)
        if any(dist(at, other) < 2 * DOT for other in self.numbered):
            return  # it would hide another; the list says where it is
        self.numbered.append(at)
        c.setFillColor(HexColor("#ffffff"))
        c.setStrokeColor(ACCENT)
        c.setLineWidth(0.6)
        c.circle(*at, DOT, fill=1)
        c.setFillColor(ACCENT)
        c.setFont(BOLD, 6.5)
        c.drawCentredString(at[0], at[1] - 2.3, str(number))

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
    for each in plan.cloth.best:
        name = cloth_name(plan.project, each.fabric)
        for cloth in each.cloths:
            for i, stroke in enumerate(cuts_of(cloth, plan.project), 1):
                lines.append(
                    [
                        name, cloth_text(cloth, plan.measure), str(i), stroke.way, str(stroke.at),
                        str(stroke.size), str(stroke.layers), stroke_text(stroke, plan.measure),
                        finished_text(stroke),
                    ]
                )  # fmt: skip
    return Table(f"Cuts: {plan.block.title}", lines)
