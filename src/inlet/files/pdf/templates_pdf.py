"""Templates to print at true size."""

from __future__ import annotations

import os
from collections.abc import Sequence
from typing import Any, BinaryIO

from reportlab.lib.colors import black

from inlet import __version__
from inlet.core.project import Project
from inlet.core.templates import Correction, Sheet, SheetLine, Template, sheets
from inlet.files.pdf.pages import FAINT, INK, MEDIUM, PAPERS, PageCanvas, write_pages

DASHES = {"sew": (4, 3), "overlap": (1, 2)}


def write_templates(
    cut_templates: Sequence[Template],
    project: Project,
    path: str | os.PathLike[str],
    paper: str | None = None,
    spares: int = 0,
    corrected: Correction = (1.0, 1.0),
) -> None:
    """Write templates as PDF, corrected for a printer; see ``write_pages``."""
    size = PAPERS[paper or project.measure.system.paper]
    laid = sheets(cut_templates, project, size, spares, corrected)

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        canvas: Any = PageCanvas(to, pagesize=size, pageCompression=0)
        canvas.setTitle("Templates")
        canvas.setCreator(f"Inlet {__version__}")
        for sheet in laid:
            _draw(canvas, sheet, size[1])
            canvas.showPage()
        canvas.save()

    write_pages(path, project.measure, paper, draw)


def _draw(canvas: Any, sheet: Sheet, high: float) -> None:
    for sheet_line in sheet.drawn:
        canvas.setStrokeColor(FAINT if sheet_line.kind == "overlap" else INK)
        canvas.setLineWidth(0.9 if sheet_line.kind == "cut" else 0.5)
        canvas.setDash(*DASHES.get(sheet_line.kind, ()))
        _path(canvas, sheet_line, high)
    canvas.setDash()
    canvas.setFillColor(black)
    for words in sheet.words:
        canvas.setFont(MEDIUM, words.size)
        canvas.drawString(words.at[0], high - words.at[1], words.text)


def _path(canvas: Any, sheet_line: SheetLine, high: float) -> None:
    path = canvas.beginPath()
    for part in sheet_line.path:
        flat = [side for x, y in part[-3:] for side in (x, high - y)]
        if len(part) == 1:
            path.moveTo(*flat)
        elif len(part) == 2:
            path.lineTo(*flat[-2:])
        else:
            path.curveTo(*flat)
    canvas.drawPath(path)
