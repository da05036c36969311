"""Printing through the real dialog, on Qt's PDF printer as the stand-in for one of paper."""

from __future__ import annotations

import gc
from functools import partial

import numpy as np
import pypdfium2.raw
import pytest
from pypdf import PdfReader
from PySide6.QtCore import QSizeF, Qt
from PySide6.QtPrintSupport import QPrinter

from inlet.files.pdf.test_square_pdf import test_square_pdf as square_pdf
from inlet.files.project.project_json import load
from inlet.ui.printing import pdf_pages, preview
from inlet.ui.printing.page_numbers import pages_typed
from inlet.ui.printing.pdf_pages import PdfPages
from inlet.ui.printing.printers import PrinterChoice
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.settings import Settings
from tests.ui import walk

LETTER, A4, A5 = QSizeF(612, 792), QSizeF(595, 842), QSizeF(420, 595)


@pytest.fixture
def office(maker, qtbot, tmp_path, monkeypatch):
    """A window whose computer has a printer that prints into a file."""
    out = tmp_path / "out.pdf"

    def ready() -> QPrinter:
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
        printer.setOutputFileName(str(out))
        printer.setResolution(300)
        return printer

    maker.printers = [
        PrinterChoice("Ink", ready, (LETTER, A4)),
        PrinterChoice("Small", ready, (A5,)),
    ]
    monkeypatch.setattr(preview, "system_printers", lambda: maker.printers)
    maker.out = out
    maker.session.start(load(DEMO), None)
    maker.wait()

    def ask(action=None) -> preview.PrintPreview:
        (action or maker.window.print_).trigger()
        dialog = maker.window.writer.preview
        maker.rest(dialog)
        return dialog

    maker.rest = lambda dialog: qtbot.waitUntil(lambda: dialog.task.at_rest, timeout=30000)
    maker.ask = ask
    return maker


def test_the_guide_is_seen_and_printed_page_for_page(office, qtbot):
    dialog = office.ask()
    number = len(dialog.pages)
    sheets = [w for w in walk_of(dialog) if w.objectName() == "sheet"]
    assert len(sheets) == number > 1
    assert all(not sheet.pixmap().isNull() for sheet in sheets)
    assert not walk.overlaps(dialog)
    titles = [dialog.chapters.itemText(i) for i in range(dialog.chapters.count())]
    assert titles[0] == "The block and its units, 1"
    last = dialog.chapters.count() - 1
    dialog.chapters.setCurrentIndex(last)
    dialog.chapters.activated.emit(last)
    assert dialog.area.verticalScrollBar().value() > 0
    assert dialog.test.isChecked()
    dialog.copies.setValue(1)
    qtbot.mouseClick(dialog.print_, Qt.MouseButton.LeftButton)
    office.rest(dialog)
    assert f"{number + 1} pages went to Ink" in dialog.says.text()
    pages = PdfReader(office.out).pages
    assert len(pages) == number + 1
    assert {(round(p.mediabox.width), round(p.mediabox.height)) for p in pages} == {(612, 792)}
    assert "Ink" in Settings().tested
    Settings().printed_on("Laser")
    Settings().printed_on("Ink")
    assert Settings().tested == ("Laser", "Ink")
    assert not dialog.test.isChecked()  # it was printed once
    dialog.which.setText("2")
    qtbot.mouseClick(dialog.print_, Qt.MouseButton.LeftButton)
    office.rest(dialog)
    assert len(PdfReader(office.out).pages) == 1
    again = office.ask()
    assert not again.test.isChecked()


def walk_of(dialog):
    return [w for w in dialog.findChildren(preview.QLabel) if w.isVisible()]


def dark_lines(image, axis: int, between: tuple[int, int] = (0, 10**6)) -> list[int]:
    """Where long dark lines lie in a picture, in pixels from its edge; looked for between two
    columns."""
    pixels = np.frombuffer(image.constBits(), np.uint32).reshape(image.height(), -1)
    dark = (pixels[:, : image.width()] & 0xFF) < 140
    long = np.flatnonzero(dark[:, slice(*between)].sum(axis=axis) > 280)
    return [int(x) for i, x in enumerate(long) if i == 0 or x - long[i - 1] > 3]


@pytest.mark.parametrize("paper", ["letter", "a4"])
def test_what_is_printed_is_of_true_size(office, qtbot, paper):
    """The test square of the printed page, measured in its pixels: 300 dots are an inch."""
    dialog = office.ask()
    dialog.paper.setCurrentIndex(dialog.paper.findData(paper))
    dialog.paper.activated.emit(dialog.paper.currentIndex())
    office.rest(dialog)
    assert office.window.settings.paper == paper
    dialog.which.setText("1")
    qtbot.mouseClick(dialog.print_, Qt.MouseButton.LeftButton)
    office.rest(dialog)
    printed = PdfPages(office.out.read_bytes())
    width = LETTER.width() if paper == "letter" else A4.width()
    assert abs(printed.sizes[0].width() - width) < 1.5
    image = printed.picture(0, 300)
    upright = dark_lines(image, 0)
    assert abs((upright[1] - upright[0]) - 300) <= 2  # the 1 in square
    assert abs((upright[3] - upright[2]) - 5 / 2.54 * 300) <= 2  # the 5 cm square
    drawn = PdfPages(square_pdf(paper)).picture(0, 300)
    assert abs(upright[0] - dark_lines(drawn, 0)[0]) <= 2  # it lies where it was drawn
    level = dark_lines(image, 1, (upright[0], upright[1]))
    assert abs((level[1] - level[0]) - 300) <= 2


def test_all_that_pdfium_made_is_given_back_within_the_lock(monkeypatch):
    """PDFium is not made for several threads: a page given back while another one is drawn ends the
    process. Documents that nobody closes are given back, too."""
    given_back = []

    def give_back(name, do, what):
        given_back.append((name, pdf_pages._LOCK._is_owned()))
        return do(what)

    for name in ("FPDF_ClosePage", "FPDFBitmap_Destroy", "FPDF_CloseDocument"):
        giving = partial(give_back, name, getattr(pypdfium2.raw, name))
        monkeypatch.setattr(pypdfium2.raw, name, giving)
    pages = PdfPages(square_pdf("a4"))
    assert not pages.picture(0, 30).isNull()
    pages.close()
    assert pages.picture(0, 30).isNull()
    unclosed = PdfPages(square_pdf("a4"))
    assert len(unclosed) == 1
    del unclosed
    gc.collect()
    assert {name for name, _ in given_back} == {
        "FPDF_ClosePage", "FPDFBitmap_Destroy", "FPDF_CloseDocument",
    }  # fmt: skip
    assert [name for name, _ in given_back].count("FPDF_CloseDocument") == 2
    assert all(held for _, held in given_back)


def test_without_a_printer_the_pdf_is_offered(office, qtbot, tmp_path, monkeypatch):
    office.printers.clear()
    dialog = office.ask()
    assert not dialog.print_.isEnabled()
    assert "No printer is set up" in dialog.says.text()
    target = tmp_path / "kept.pdf"
    name = "inlet.ui.shell.targets.QFileDialog.getSaveFileName"
    monkeypatch.setattr(name, lambda *_a, **_k: (str(target), ""))
    qtbot.mouseClick(dialog.save_, Qt.MouseButton.LeftButton)
    assert "is written" in office.written()
    assert len(PdfReader(target).pages) == len(dialog.pages)


def test_paper_too_small_and_pages_that_are_not_there_are_said(office, qtbot):
    dialog = office.ask()
    dialog.printer.setCurrentIndex(1)
    dialog.printer.activated.emit(1)
    assert "Small has no paper as large" in dialog.says.text()
    assert not dialog.print_.isEnabled()
    dialog.printer.setCurrentIndex(0)
    dialog.printer.activated.emit(0)
    assert dialog.says.text() == ""
    for typed, words in (("99", "pages 1 to"), ("3-1", "not among them"), ("x", "no page")):
        dialog.which.setText(typed)
        qtbot.mouseClick(dialog.print_, Qt.MouseButton.LeftButton)
        assert words in dialog.says.text()
    assert not office.out.exists()


def test_pages_as_they_are_typed():
    assert pages_typed("", 3) == pages_typed("All", 3) == [0, 1, 2]
    assert pages_typed(" 2-3, 1 ", 3) == [1, 2, 0]


def test_the_quilts_guide_is_printed_at_its_stage(office):
    office.stage("quilt")
    office.bot.waitUntil(lambda: office.session.at_rest, timeout=20000)
    dialog = office.ask()
    assert "quilt" in dialog.title.lower()
    dialog.close()
    assert dialog.pages.picture(0, 20).isNull()  # the document is given back


def test_the_sizes_asked_for_are_printed_and_looking_chooses_no_paper(office, qtbot):
    office.window.cutting.sizes.text = "6, 12"
    dialog = office.ask()
    assert [title for title, _ in dialog.pages.contents()][-1] == "Sizes"
    assert office.window.settings.paper is None
    qtbot.keyClick(dialog, Qt.Key.Key_Escape)
    assert not dialog.isVisible()
    assert dialog.pages.picture(0, 20).isNull()
