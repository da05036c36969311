"""Tables of text as CSV, and as a PDF that breaks over pages with its head repeated."""

from __future__ import annotations

import csv
import os
import re
from collections.abc import Sequence
from io import StringIO
from pathlib import Path
from typing import BinaryIO, NamedTuple
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import landscape
from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import LongTable, Paragraph, SimpleDocTemplate, Spacer, TableStyle

from inlet import __version__
from inlet.core.buying import (
    Shopping,
    chart_lines,
    chart_notes,
    quilt_chart,
    quilt_chart_lines,
    quilt_chart_notes,
    quilt_sizes_typed,
    shopping_lines,
    shopping_notes,
    size_chart,
    sizes_typed,
)
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BlockPlan
from inlet.core.project import Measure, Project
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, REGULAR, PageCanvas, write_pages
from inlet.files.whole import export_whole

Lines = Sequence[Sequence[str]]


class Table(NamedTuple):
    """``lines`` of text cells, their head first, under a title; ``notes`` below."""

    title: str
    lines: Lines
    notes: Sequence[str] = ()


def shopping_table(shopping: Shopping, project: Project) -> Table:
    return Table(
        f"Shopping list: {shopping.what}",
        shopping_lines(shopping, project),
        shopping_notes(shopping, project),
    )


def chart_table(sizes: str, plan: BlockPlan) -> Table:
    """The size chart of a plan's block at sizes as typed. Raises ``NumberError``."""
    widths = sizes_typed(sizes, plan)
    chart = size_chart(plan.project, plan.block, widths, plan.copies)
    return Table(f"Size chart: {plan.block.title}", chart_lines(chart, plan), chart_notes(chart))


def quilt_chart_table(sizes: str, project: Project) -> Table:
    """The project's quilt at sizes as typed, the usual ones where none are. Raises
    ``NumberError``."""
    chart = quilt_chart(project, quilt_sizes_typed(sizes, project.measure))
    title = f"Quilt sizes: {project.name or 'Untitled'}"
    return Table(title, quilt_chart_lines(chart), quilt_chart_notes(chart))


def write_csv(lines: Lines, path: str | os.PathLike[str]) -> None:
    """A table as CSV, its head first. Raises ``FileProblem`` where it cannot be written."""
    text = StringIO()
    csv.writer(text, lineterminator="\n").writerows([_as_text(cell) for cell in r] for r in lines)
    export_whole(Path(path), text.getvalue().encode("utf-8-sig"))


FORMULA = ("=", "+", "-", "@", "＝", "＋", "－", "＠", "\t", "\r", "\n")
"""A spreadsheet works out a cell that begins with one of these, wherever its text is from."""


def _as_text(cell: str) -> str:
    """A cell that a spreadsheet takes as the text it is: an apostrophe before it says so. A number,
    which may have a sign, stays one; a fraction is no day of a month."""
    is_number = re.fullmatch(r"[-+]?\d+(?:\.\d+)?", cell) is not None
    is_day = re.fullmatch(r"[-\d /.]*\d[-/]\d[-\d /.]*", cell) is not None
    return f"'{cell}" if is_day or (cell.startswith(FORMULA) and not is_number) else cell


def write_table(
    table: Table, measure: Measure, path: str | os.PathLike[str], paper: str | None = None
) -> None:
    """A table as PDF, lying where it has many columns; see ``write_pages``."""
    title, lines, notes = table
    wide = len(lines[0]) > 6

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        page = landscape(size) if wide else size
        room = page[0] - 2 * MARGIN
        cell = ParagraphStyle("cell", fontName=REGULAR, fontSize=9, leading=11)
        head = ParagraphStyle("head", parent=cell, fontName=BOLD, textColor=INK)
        big = ParagraphStyle("title", parent=head, fontSize=16, leading=22)
        body = [
            [Paragraph(escape(vulgar_text(text)), head if i == 0 else cell) for text in line]
            for i, line in enumerate(lines)
        ]
        grid = LongTable(body, colWidths=[room / len(lines[0])] * len(lines[0]), repeatRows=1)
        grid.setStyle(
            TableStyle(
                [
                    ("LINEBELOW", (0, 0), (-1, -1), 0.4, FAINT),
                    ("VALIGN", (0, 0), (-1, -1), "TOP"),
                    ("LEFTPADDING", (0, 0), (-1, -1), 2),
                ]
            )
        )
        story = [Paragraph(escape(title), big), Spacer(1, 8), grid, Spacer(1, 8)]
        story += [Paragraph(escape(vulgar_text(note)), cell) for note in notes]
        document = SimpleDocTemplate(
            to, pagesize=page, leftMargin=MARGIN, rightMargin=MARGIN, topMargin=MARGIN,
            bottomMargin=MARGIN, title=title, creator=f"Inlet {__version__}",
        )  # fmt: skip
        document.build(story, canvasmaker=PageCanvas)

    write_pages(path, measure, paper, draw)
