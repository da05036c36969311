"""The system's printers, and pages painted on one of them at true size."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PySide6.QtCore import QMarginsF, QRectF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter
from PySide6.QtPrintSupport import QPrinter, QPrinterInfo

from inlet.core.cancellation import check
from inlet.ui.printing.pdf_pages import POINTS, PdfPages

SHARPEST = 600
"""Dots an inch that pages are drawn in at most; a printer with more repeats them."""
LOOSE = 3.0
"""Points by which a paper may be smaller than the page: papers are told rounded."""


class PrinterChoice(NamedTuple):
    """A printer: its name, what makes it ready, the sizes of its papers in points; none: any."""

    name: str
    make: Callable[[], QPrinter]
    papers: tuple[QSizeF, ...] = ()

    def takes(self, page: QSizeF) -> bool:
        """Has it a paper that a page finds room on?"""
        return not self.papers or any(
            paper.width() + LOOSE >= page.width() and paper.height() + LOOSE >= page.height()
            for paper in self.papers
        )


def system_printers() -> list[PrinterChoice]:
    """All printers of the system, its usual one first."""
    usual = QPrinterInfo.defaultPrinterName()
    printers = sorted(
        QPrinterInfo.availablePrinters(), key=lambda info: info.printerName() != usual
    )
    return [_choice(info) for info in printers]


def _choice(info: QPrinterInfo) -> PrinterChoice:
    papers = tuple(size.size(QPageSize.Unit.Point) for size in info.supportedPageSizes())
    return PrinterChoice(
        info.description() or info.printerName(),
        lambda: QPrinter(info, QPrinter.PrinterMode.HighResolution),
        papers,
    )


def print_pages(
    parts: Sequence[tuple[PdfPages, Sequence[int]]], printer: QPrinter, copies: int, title: str
) -> int:
    """Paint pages on a printer, each at its size on paper of its size, whatever the printer's
    margins are: nothing is scaled. Returns how many were printed, 0 where the printer did not
    begin."""
    printer.setDocName(title)
    printer.setCreator("Inlet")
    printer.setFullPage(True)
    printer.setCopyCount(copies)
    painter, done = QPainter(), 0
    for pages, numbers in parts:
        for number in numbers:
            check()
            _lay_paper(printer, pages.sizes[number])
            if not painter.isActive():
                if not painter.begin(printer):
                    return 0
            elif not printer.newPage():
                painter.end()
                return done
            _paint(painter, printer, pages, number)
            done += 1
    painter.end()
    return done


def _lay_paper(printer: QPrinter, size: QSizeF) -> None:
    page = QPageSize(size, QPageSize.Unit.Point, "", QPageSize.SizeMatchPolicy.FuzzyMatch)
    layout = QPageLayout(page, QPageLayout.Orientation.Portrait, QMarginsF())
    layout.setMode(QPageLayout.Mode.FullPageMode)
    printer.setPageLayout(layout)


def _paint(painter: QPainter, printer: QPrinter, pages: PdfPages, number: int) -> None:
    """A page from the corner of its paper on, a point as long as 1/72 in of the printer's dots."""
    dots = printer.resolution()
    size = pages.sizes[number]
    picture = pages.picture(number, min(dots, SHARPEST))
    box = QRectF(0, 0, size.width() / POINTS * dots, size.height() / POINTS * dots)
    painter.drawImage(box, picture)
