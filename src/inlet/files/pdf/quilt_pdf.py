"""The printed guide of a whole quilt: picture, shopping and sittings, the cutting plan of every
fabric, how units and blocks are made, then rows, borders, backing, binding, quilting lines."""

from __future__ import annotations

import os
from typing import Any, BinaryIO

from reportlab.lib.colors import HexColor, white
from reportlab.platypus import Flowable, PageBreak

from inlet.core.buying import quilt_shopping, shopping_lines
from inlet.core.figures import (
    Corners,
    band_figure,
    band_height,
    craft_picture,
    row_of_top,
    top_figure,
)
from inlet.core.layout import BEST
from inlet.core.plan import (
    QuiltPlan,
    alike_rows,
    band_title,
    labels_text,
    listed,
    row_length_text,
    work_text,
)
from inlet.core.project import Project, first_project
from inlet.core.schedule import sitting_lines, thread_text
from inlet.core.setting import (
    Band,
    backing_text,
    quilted_text,
    quilting_words,
)
from inlet.core.words import (
    CAUTIONS,
    fabric_name,
    length_text,
    measured_text,
    near_text,
    size_text,
)
from inlet.files.pdf.booklet import Chapter, Contents
from inlet.files.pdf.cutting_pdf import cutting_story
from inlet.files.pdf.document import Document, PagePart, Story, paragraph, together, unbroken_ends
from inlet.files.pdf.figure import UNIT, Pen
from inlet.files.pdf.guide_blocks import Fabrics
from inlet.files.pdf.guide_cover import to_have
from inlet.files.pdf.guide_pdf import add_making
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, page_of, write_pages
from inlet.files.pdf.row_picture import BackingPicture, RowPicture
from inlet.files.problem import FileProblem

QUILTING = HexColor("#bf4b23")


def write_quilt(plan: QuiltPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the guide of a quilt as PDF, see ``write_pages``. Raises ``FileProblem`` where it has
    no top."""
    if not plan.top.rows:
        raise FileProblem(f"inlet: {plan.problems[0].text}")

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        guide = _QuiltGuide(plan)
        document = Document(to, size, f"{guide.title}, {near_text(plan.size, plan.measure)}")
        document.section("quilt", guide.furnish)
        document.add(*guide.first(document))
        document.add(PageBreak(), Chapter("Cutting"), *cutting_story(plan, guide.title, document))
        for block, sewn in zip(plan.blocks, plan.sewn, strict=True):
            if sewn.steps:
                add_making(document, sewn, block.name)
        document.section("joining", guide.furnish)
        document.add(*guide.joining(document))
        document.write()

    write_pages(path, plan.measure, paper, draw)


class _QuiltGuide:
    """What a guide of a quilt says besides how its blocks are made."""

    def __init__(self, plan: QuiltPlan) -> None:
        self.plan = plan
        self.title = plan.project.name or "Quilt"

    def furnish(self, canvas: Any) -> None:
        """The foot of a page."""
        canvas.setFillColor(FAINT)
        canvas.setFont(REGULAR, 10)
        canvas.drawString(MARGIN, 24, self.title)
        page_of(canvas, canvas._pagesize[0] - MARGIN, 24)

    def first(self, document: Document) -> Story:
        """The picture, what to buy, the sittings, and what it is made of."""
        plan, measure = self.plan, self.plan.measure
        story = [
            paragraph(self.title, 20, BOLD),
            paragraph(f"{near_text(plan.size, measure)} finished", 13, MEDIUM),
            TopPicture(plan, 0.52 * document.size[1]),
            heading("In this booklet"),
            Contents(document.story),
            PageBreak(),
            Chapter("What to buy and to have", shown=True),
            heading("To buy"),
        ]
        shopping = quilt_shopping(plan, BEST)
        for fabric, buy, price, have, _ in shopping_lines(shopping, plan.project)[1:]:
            more = ", ".join(filter(None, (price, have)))
            said = f"{fabric}: {buy}{f' ({more})' if more else ''}"
            story.append(paragraph(said, gap=3, box=True))
        story.append(heading("To have"))
        story += [paragraph(each, gap=3, box=True) for each in to_have(plan.project)]
        work = plan.work
        story += [
            paragraph(f"{work_text(work, measure)}."),
            Chapter("Sittings"),
            heading("Sittings"),
        ]
        story.append(paragraph(thread_text(work.thread, measure)))
        for head, lines in sitting_lines(work.sittings, plan.rates, measure):
            sitting = [paragraph(head, 10.5, MEDIUM), *map(paragraph, lines)]
            story += [together(sitting[:3], 0), *sitting[3:]]
        return [*story, *unbroken_ends([Chapter("Blocks and units"), *self.overview()])]

    def overview(self) -> Story:
        """The blocks, their units, and what is cut besides."""
        plan, measure = self.plan, self.plan.measure
        story: Story = [heading("Blocks")]
        for block in plan.blocks:
            size = measured_text(plan.comes_to(block.block.id), measure)
            story.append(paragraph(f"{block.number} × {block.name}, unfinished {size}"))
        for label, shared in plan.batch.made_as.items():
            story.append(paragraph(f"{label} is made together with {shared}."))
        story.append(heading("Units, all blocks together"))
        for unit in plan.batch.units:
            over = f", {unit.in_use.surplus} over" if unit.in_use.surplus else ""
            kind = unit.unit.kind.replace("-", " ")
            story.append(
                paragraph(f"{unit.unit.label}: {unit.count} × {kind}, {unit.in_use.name}{over}")
            )
        if plan.setting.cuts:
            story.append(heading("Besides the blocks"))
        for cut in plan.setting.cuts:
            way = cut.diagonal
            story.append(
                paragraph(
                    f"{cut.label}: {cut.number} × {size_text(cut.cut, measure)} of "
                    f"{fabric_name(plan.project, cut.fabric)}{f', cut {way}' if way else ''}"
                )
            )
        return story

    def joining(self, document: Document) -> Story:
        """Rows, then the steps from them to the binding."""
        plan, measure = self.plan, self.plan.measure
        which = "from the corner" if plan.quilt.on_point else "from the top"
        story: Story = [Chapter("Rows"), heading(f"Rows, {which}")]
        story.append(paragraph("The dark mark lies at the top of each block as it is drawn."))
        drawn, by_label = top_figure(plan.top, plan.project), {r.label: r for r in plan.top.rows}
        for alike in alike_rows(plan.rows):
            card = alike[0]
            length = row_length_text(card, plan.quilt, measure)
            raw = f" {length}, raw edge to raw edge." if length else ""
            pressed = f" Press {card.pressed}." if card.pressed else ""
            words = f"{labels_text(alike)}: {listed(card.items)}.{pressed}{raw}"
            parts: list[Flowable] = [paragraph(words, box=True)]
            row = by_label.get(card.label)
            if row is not None and row.pieces:
                parts.append(RowPicture(row_of_top(row, drawn), plan.project))
            story.append(together(parts, 4))
        story.append(Chapter("Borders to binding", shown=True))
        story.append(paragraph(CAUTIONS))
        rows = {row.label for row in plan.top.rows}
        for step in plan.steps:
            if step.sewn is None and step.of not in rows:
                check = f" [{step.measures}]" if step.measures else ""
                story.append(paragraph(f"{step.title}. {step.text}{check}", box=True))
                story += [
                    BandPicture(band, plan.project)
                    for band in plan.setting.bands
                    if band_title(band) == step.of
                ]
        if plan.backings:
            story.append(heading("Backing, every way"))
        for backing_way in plan.backings:
            story.append(together([
                paragraph(backing_text(backing_way, measure)), BackingPicture(backing_way, measure)
            ], 2))  # fmt: skip
        story += [Chapter("Layers, quilting, binding"), *finishing(plan)]
        if plan.binding is not None:
            width = length_text(plan.binding.width, measure)
            long = near_text((plan.binding.length,) * 2, measure)
            story.append(paragraph(f"Binding: {width} wide, {long} in all."))
        if plan.quilted.lines:
            story += [PageBreak(), Chapter("Quilting lines"), heading("Quilting lines")]
            for asked in plan.quilt.quilting:
                story.append(paragraph(quilting_words(asked, plan.project)))
            quilted = plan.quilted
            story.append(paragraph(quilted_text(quilted.length, quilted.thread, measure)))
            story.append(TopPicture(plan, 0.72 * document.size[1], True))
        return story


def finishing(plan: QuiltPlan) -> Story:
    """From the top to the finished quilt, each with its picture."""
    fabrics = Fabrics(first_project(), {})
    told = [
        ("backing", "Layer", LAYER), ("leftover", "Square up", SQUARE_UP),
        ("binding", "Bind", BIND),
    ]  # fmt: skip
    story: Story = [heading("Layers, quilting, binding")]
    for picture, title, text in told:
        drawn = CraftCell(picture, fabrics)
        story.append(together([paragraph(title, 11, MEDIUM), drawn, paragraph(text, box=True)], 4))
        if title == "Layer":
            story.append(paragraph(QUILT_IT, box=True))
    return story


LAYER = (
    "Press the backing and tape it down, wrong side up, smooth and not stretched. Lay the batting "
    "on it, then the top, right side up, with the same margin all round. Baste the three layers, "
    "from the middle outward."
)
QUILT_IT = "Quilt along your lines, from the middle outward. Take the basting out."
SQUARE_UP = (
    "Lay the quilt flat. Trim batting and backing even with the top, corners square: measure both "
    "diagonals, they should be equal."
)
BIND = (
    "Press the binding in half along its length. Sew it to the front, raw edges together. At each "
    "corner stop a seam allowance from the edge, fold the binding up and then down along the next "
    "side. Join its ends, turn it over the edge and sew it down at the back."
)


class CraftCell(PagePart):
    """A picture of a word of the craft."""

    def __init__(self, name: str, fabrics: Fabrics) -> None:
        super().__init__()
        self.picture, self.fabrics = craft_picture(name), fabrics

    def tall(self, wide: float) -> float:
        return self.picture.height + 6 if self.picture is not None else 0.0

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        if self.picture is not None:
            canvas.saveState()
            canvas.translate(2, -2)
            self.fabrics.pen(canvas, high).draw(self.picture.figure)
            canvas.restoreState()


def heading(text: str) -> Flowable:
    """What the lines after it are about."""
    title = paragraph(text, 12.5, BOLD)
    title.keepWithNext = 1
    return title


class BandPicture(PagePart):
    """Strips joined end to end, and where their joins lie."""

    def __init__(self, band: Band, project: Project) -> None:
        super().__init__()
        self.band, self.project = band, project

    def tall(self, wide: float) -> float:
        return band_height(self.band, UNIT) + 6

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        box = 0.0, 0.0, wide, high
        pen = Pen(canvas, self.project, {}, high)
        pen.draw(band_figure(self.band, self.project.measure, box, UNIT))


class TopPicture(PagePart):
    """The top, no higher than ``most``; with its quilting ``lines`` its fabrics are left out."""

    def __init__(self, plan: QuiltPlan, most: float, lines: bool = False) -> None:
        super().__init__()
        self.plan, self.most, self.lines = plan, most, lines

    def _scale(self, wide: float) -> float:
        across, down = (float(side) for side in self.plan.size)
        return min(wide / across, self.most / down)

    def tall(self, wide: float) -> float:
        return float(self.plan.size[1]) * self._scale(wide) + 14

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        plan, scale = self.plan, self._scale(wide)
        left = (wide - float(plan.size[0]) * scale) / 2
        canvas.setStrokeColor(FAINT if self.lines else INK)
        canvas.setLineWidth(0.3)
        for area in top_figure(plan.top, plan.project).areas():
            fabric = plan.project.fabric(area.fabric or "")
            colour = white if fabric is None or self.lines else HexColor(fabric.colour)
            canvas.setFillColor(colour)
            canvas.drawPath(_path(canvas, area.outline, left, high, scale, True), fill=1)
        canvas.setStrokeColor(QUILTING)
        canvas.setLineWidth(0.6)
        for line in plan.quilted.lines if self.lines else ():
            canvas.drawPath(_path(canvas, line, left, high, scale, False))


def _path(
    canvas: Any, corners: Corners, left: float, high: float, scale: float, closed: bool
) -> Any:
    path = canvas.beginPath()
    for i, (x, y) in enumerate(corners):
        (path.lineTo if i else path.moveTo)(left + x * scale, high - 8 - y * scale)
    if closed:
        path.close()
    return path
