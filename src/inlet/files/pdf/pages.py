"""Pages to print: fonts, papers, and a PDF written whole or not at all."""

from __future__ import annotations

import os
from collections.abc import Callable
from io import BytesIO
from pathlib import Path
from typing import Any, BinaryIO

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, letter
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from inlet.assets import FONTS
from inlet.core.cancellation import check
from inlet.core.project import Measure
from inlet.files.whole import export_whole

MARGIN = 45.0
INK = HexColor("#14363f")
FAINT = HexColor("#8a958f")
REGULAR, MEDIUM, BOLD = "FiraSans-Regular", "FiraSans-Medium", "FiraSans-SemiBold"
PAPERS = {"letter": letter, "a4": A4}


class PageCanvas(Canvas):  # type: ignore[misc]  # the library is not typed
    """Pages to draw on, that stop where the work under way is asked to."""

    def setFont(self, *args: Any, **choices: Any) -> None:
        check()
        super().setFont(*args, **choices)

    def beginPath(self) -> Any:
        check()
        return super().beginPath()

    def showPage(self) -> None:
        check()
        super().showPage()


Late = Callable[[Any, int], None]
"""Drawn on a page once all pages are; it is given how many there are."""


class CountedCanvas(PageCanvas):
    """Pages kept until the last is drawn: then each is given what only the whole tells."""

    def __init__(self, *args: Any, **choices: Any) -> None:
        super().__init__(*args, **choices)
        self._kept: list[dict[str, Any]] = []
        self.chapters: list[tuple[str, int]] = []
        self.late: list[Late] = []

    def showPage(self) -> None:
        self._kept.append(dict(self.__dict__))
        self._startPage()
        self.late = []

    def save(self) -> None:
        kept, chapters = self._kept, self.chapters
        for state in kept:
            self.__dict__.update(state)
            self.chapters = chapters
            for draw in self.late:
                draw(self, len(kept))
            super().showPage()
        super().save()


def page_of(canvas: Any, right: float, foot: float, before: str = "") -> None:
    """``3 of 14`` in the corner of a page."""
    number = canvas.getPageNumber()

    def draw(canvas: Any, total: int) -> None:
        canvas.setFillColor(FAINT)
        canvas.setFont(REGULAR, 10)
        canvas.drawRightString(right, foot, f"{before}{number} of {total}")

    canvas.late.append(draw)


def load_fonts() -> None:
    """Make our typeface known to the library, once."""
    for name in (REGULAR, MEDIUM, BOLD):
        if name not in pdfmetrics.getRegisteredFontNames():
            pdfmetrics.registerFont(TTFont(name, str(FONTS / f"{name}.ttf")))


def write_pages(
    path: str | os.PathLike[str],
    measure: Measure,
    paper: str | None,
    draw: Callable[[BinaryIO, tuple[float, float]], None],
) -> None:
    """Have ``draw`` write a PDF to a stream it is given, on paper of a size in points, and put it
    in place. ``paper`` is "letter" or "a4"; else letter for inch projects and A4 for metric ones.
    Raises ``FileProblem`` where it cannot be written."""
    load_fonts()
    size = PAPERS[paper or measure.system.paper]
    pages = BytesIO()
    draw(pages, size)
    export_whole(Path(path), pages.getvalue())
