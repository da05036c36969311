"""The cutting plan to print: every fabric to scale with its cuts numbered, then the list to
tick."""

from __future__ import annotations

import os
from typing import Any, BinaryIO, Protocol

from reportlab.platypus import Flowable, Spacer

from inlet.core.cancellation import check
from inlet.core.cutlist import Cut
from inlet.core.figures import MatFrame, OnMat, mat_figure, numbers_figure
from inlet.core.layout import (
    CuttingLine,
    FabricPlan,
    buying_text,
    cuts_of,
    fabric_text,
    finished_text,
    length_words,
    line_text,
    lines_of,
    preparing,
    strips_to_cut,
    tools_for,
)
from inlet.core.plan import BlockPlan
from inlet.core.project import Cutting, LaidFabric, Measure, Project
from inlet.core.staged import Staged
from inlet.core.templates import stack_shape
from inlet.core.words import CUTTER, MANUALS, fabric_name, length_text
from inlet.files.pdf.document import (
    Document,
    PagePart,
    Story,
    height_of,
    paragraph,
    ticked_table,
    two_columns,
)
from inlet.files.pdf.figure import UNIT, Pen
from inlet.files.pdf.guide_blocks import PageCard, cards_story
from inlet.files.pdf.pages import BOLD, MARGIN, MEDIUM, page_of, write_pages
from inlet.files.text.tables import Table

FEW_STRIPS = 3
MOST_HALF, MOST_BESIDE = 0.42, 0.85
"""Of a page's height that fabric with its cuts takes at most, in half its width and in all."""
GUTTER = 10.0
"""Points between a picture and its cuts."""
PICTURE = 190.0
"""How high the picture of a fabric is, at most, in points."""


def write_cutting(plan: BlockPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the cutting plan of a block as PDF, see ``write_pages``."""

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        document = Document(to, size, f"{plan.block.title}, cutting plan")
        document.section("cutting", lambda c: page_of(c, size[0] - MARGIN, 24))
        document.add(*cutting_story(plan, block_name(plan), document))
        document.write()

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
    def fabric_plans(self) -> Staged[tuple[FabricPlan, ...]]: ...


def block_name(plan: BlockPlan) -> str:
    return f"{plan.copies} × {plan.block.title}"


def cutting_story(plan: Cuttable, what: str, document: Document) -> Story:
    """The cutting plan for ``what``, one piece of fabric after the other: each picture beside its
    cuts, where a page holds them so."""
    title = paragraph(f"Cutting {what}", 16, BOLD)
    title.keepWithNext = 1
    story: Story = [title, paragraph(f"{CUTTER} {MANUALS}")]
    prepared: set[tuple[str, int]] = set()
    for layout in plan.fabric_plans.best:
        heading = f"{fabric_name(plan.project, layout.fabric)}: {buying_text(layout, plan.measure)}"
        story += strips_table(heading, layout, plan.project, document.wide)
        page_cards: list[PageCard] = []
        for laid, length in zip(layout.laid, length_words(layout), strict=True):
            check()
            said = ", ".join(filter(None, (fabric_text(laid, plan.measure), length)))
            head: Story = [paragraph(said, 10.5, MEDIUM)]
            how = "bolt" if laid.kind == "new" else laid.kind, laid.layers
            if how not in prepared:
                prepared.add(how)
                head.append(paragraph(preparing(laid, plan.project).text))
            page_cards.append(_fabric_card(plan, laid, layout.fabric, head, document))
        story += cards_story(page_cards, document)
    return story


def _fabric_card(
    plan: Cuttable, laid: LaidFabric, fabric: str | None, head: Story, document: Document
) -> PageCard:
    """A piece of fabric with its cuts beside it, in half the width of the page where that is
    enough."""
    picture = MatPicture(plan, laid, fabric)
    lines = lines_of(laid, plan.project)
    ticks = [_tick(number, line, laid, plan) for number, line in enumerate(lines, 1)]
    for wide, half in ((document.half, True), (document.wide, False)):
        across = picture.across(wide / 2) + GUTTER
        beside = two_columns([picture], ticks, across, wide)
        if height_of([*head, beside], wide) <= (MOST_HALF if half else MOST_BESIDE) * document.high:
            return PageCard((*head, beside), half)
    return PageCard((*head, picture, *ticks, Spacer(1, 8)))


def strips_table(heading: str, layout: FabricPlan, project: Project, wide: float) -> Story:
    """How many strips of which width a fabric gives, and what they are cut into, to tick."""
    head = paragraph(heading, 12.5, BOLD)
    head.keepWithNext = 1
    strips = strips_to_cut(layout, project)
    if sum(strip.many for strip in strips) < FEW_STRIPS:  # the list of cuts says as much
        return [head]
    several = any(strip.of for strip in strips)
    heads = ["Strips", "Wide", *(["Of"] if several else []), "Cut into"]
    lines = [
        [str(strip.many), strip.wide, *([strip.of] if several else []), strip.into]
        for strip in strips
    ]
    return [head, ticked_table(heads, lines, wide)]


def _tick(number: int, line: CuttingLine, laid: LaidFabric, plan: Cuttable) -> Flowable:
    """A line of cuts to tick."""
    off = finished_text(line.finishes)
    comes_off = f" Comes off: {off}." if off else ""
    said = line_text(line, tools_for(laid, plan.project), plan.measure)
    text = f"{number}. {said}{comes_off}"
    return paragraph(text, gap=0, box=True)


class MatPicture(PagePart):
    """A piece of fabric to scale, its cuts numbered."""

    def __init__(self, plan: Cuttable, laid: LaidFabric, fabric: str | None) -> None:
        super().__init__()
        self.project = plan.project
        strokes = cuts_of(laid, plan.project)
        left_handed = (plan.project.cutting or Cutting()).handed == "left"
        cuts = {cut.label: cut for cut in plan.cuts if cut.fabric == fabric}
        self.shown = OnMat(
            laid, fabric, strokes, len(strokes), cuts, plan.measure, left_handed,
            tools_for(laid, plan.project),
        )  # fmt: skip

    def _scale(self, wide: float) -> float:
        across, down = self.shown.size
        return min((wide - 10) / across, PICTURE / down)

    def across(self, wide: float) -> float:
        """How wide it is drawn, where there is so much room."""
        return self.shown.size[0] * self._scale(wide) + 10

    def tall(self, wide: float) -> float:
        return self.shown.size[1] * self._scale(wide) + 16

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        scale = self._scale(wide)
        fold = 8 + (self.shown.size[1] - self.shown.below) * scale
        frame = MatFrame(self.shown, 0, fold, scale, UNIT)
        pen = Pen(canvas, self.project, {}, high)
        lines = lines_of(self.shown.laid, self.project)
        numbers = [i for i, each in enumerate(lines, 1) for _ in range(each.first, each.last)]
        pen.draw(mat_figure(frame, plain=True) + numbers_figure(frame, numbers))


def cuts_table(plan: BlockPlan) -> Table:
    """Every line of the cuts of a plan. Lengths are decimals, beside their fraction as text: a
    spreadsheet takes 5/2 for a day."""
    heading = ["Fabric", "From", "Line", "Times", "Ruler", "Ruler, decimal", "Layers", "Do"]
    lines = [[*heading, "Comes off", "Shape"]]
    shapes = {cut.label: stack_shape(cut, plan.measure) for cut in plan.cuts}
    for layout in plan.fabric_plans.best:
        name = fabric_name(plan.project, layout.fabric)
        for laid in layout.laid:
            for i, line in enumerate(lines_of(laid, plan.project), 1):
                off = dict.fromkeys(shapes.get(label, "") for label, _ in line.finishes)
                strokes = [part.stroke for part in line.parts]
                sizes = list(dict.fromkeys(stroke.size for stroke in strokes))
                lines.append(
                    [
                        name, fabric_text(laid, plan.measure), str(i), str(line.number),
                        "; ".join(length_text(size, plan.measure) for size in sizes),
                        "; ".join(f"{float(size):.4g}" for size in sizes),
                        str(strokes[0].layers),
                        line_text(line, tools_for(laid, plan.project), plan.measure),
                        finished_text(line.finishes),
                        "; ".join(off),
                    ]
                )  # fmt: skip
    return Table(f"Cuts: {plan.block.title}", lines)
