"""The pages as they will be printed, and what is asked before they are: printer, paper, pages,
copies."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtGui import QCloseEvent, QKeyEvent, QPixmap
from PySide6.QtWidgets import QDialog, QLabel, QLineEdit, QScrollArea, QWidget

from inlet.core.cancellation import check
from inlet.files.pdf.test_square_pdf import test_square_pdf
from inlet.files.problem import FileProblem
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.printing.page_numbers import pages_typed
from inlet.ui.printing.pdf_pages import PdfPages
from inlet.ui.printing.printers import PrinterChoice, print_pages, system_printers
from inlet.ui.tasks.background import BackgroundTask
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import CheckBox, ChoiceBox, NumberBox
from inlet.ui.widgets.parts import button, column, empty, label, row, scrolled

PAPERS = (("letter", "Letter, 8½ x 11 in"), ("a4", "A4, 21 x 29.7 cm"))
MOST_COPIES = 50
DOTS = 60
"""Dots an inch of the pages as they are looked at."""
NO_PRINTER = (
    "No printer is set up on this computer. Save the pages as a PDF, and print that at true size "
    "(100 %, not fitted to the page)."
)
Made = tuple[PdfPages, bytes]


@guarded
class PrintPreview(QDialog):
    """Pages made by ``make`` for a paper; ``save`` keeps them as a PDF. ``tested`` is told of each
    printer that a test square was printed on, ``chose`` of the paper that is chosen."""

    def __init__(
        self,
        parent: QWidget,
        title: str,
        make: Callable[[str], bytes],
        paper: str,
        save: Callable[[bytes], object],
        printers: list[PrinterChoice] | None = None,
        known: frozenset[str] = frozenset(),
        tested: Callable[[str], object] = lambda _: None,
        chose: Callable[[str], object] = lambda _: None,
    ) -> None:
        super().__init__(parent)
        self.title, self._make, self._save = title, make, save
        self._tested, self._chose = tested, chose
        self.finished.connect(lambda _: self._put_away())  # by Escape, too
        self.printers = system_printers() if printers is None else printers
        self._known = known
        self.pages: PdfPages | None = None
        self._data = b""
        self.task = BackgroundTask(self, self._failed)
        self.setWindowTitle(title)
        self.setObjectName("preview")
        whole = row(spacing=12)
        self.setLayout(whole)
        whole.setContentsMargins(*(theme.px(14),) * 4)
        body = QWidget()
        body.setObjectName("pageBody")
        self.shown = FlowLayout(body, theme.px(6), theme.px(10))
        self.area: QScrollArea = scrolled(body, "page")
        whole.addWidget(self.area, 1)
        self.side = QWidget()
        self.side.setFixedWidth(min(theme.px(250), 400))
        self._fields(paper)
        whole.addWidget(self.side)
        self.resize(min(theme.px(940), 1240), min(theme.px(640), 760))
        self._work()

    def _fields(self, paper: str) -> None:
        layout = column(self.side, 0, 6)
        layout.addWidget(label(self.title, "heading", True))
        self.printer, self.paper = ChoiceBox(), ChoiceBox()
        for choice in self.printers:
            self.printer.addItem(choice.name)
        self.printer.activated.connect(lambda _: self._printer_chosen())
        for name, words in PAPERS:
            self.paper.addItem(words, name)
        self.paper.setCurrentIndex(max(0, self.paper.findData(paper)))
        self.paper.activated.connect(lambda _: self._paper_chosen())
        self.which = QLineEdit("all")
        self.copies = NumberBox()
        self.copies.setRange(1, MOST_COPIES)
        self.chapters = ChoiceBox()
        self.chapters.activated.connect(self._go_to)
        fields = (("Go to", self.chapters), ("Printer", self.printer), ("Paper", self.paper),
                  ("Pages", self.which), ("Copies", self.copies))  # fmt: skip
        for words, widget in fields:
            widget.setAccessibleName(words)
            layout.addWidget(label(words, "caption"))
            layout.addWidget(widget)
        self.test = CheckBox("A test square first")
        self.test.setToolTip("A page with squares to measure: is this printer true?")
        layout.addWidget(self.test)
        layout.addWidget(label("Pages are printed at true size and never scaled.", "small", True))
        self.says = label("", "", True)
        layout.addWidget(self.says)
        layout.addStretch(1)
        self.print_ = button("Print", self._print, "printer")
        self.save_ = button("Save as PDF…", lambda: self._save(self._data))
        self.stop = button("Stop", self.task.stop)
        self.stop.hide()
        for each in (self.print_, self.save_, self.stop, button("Close", self.close)):
            layout.addWidget(each)
        self._printer_chosen()

    @property
    def choice(self) -> PrinterChoice | None:
        """The printer chosen."""
        at = self.printer.currentIndex()
        return self.printers[at] if 0 <= at < len(self.printers) else None

    def _printer_chosen(self) -> None:
        choice = self.choice
        self.printer.setEnabled(choice is not None)
        self.test.setEnabled(choice is not None)
        self.test.setChecked(choice is not None and choice.name not in self._known)
        self._look()

    def _look(self) -> None:
        """What stands in the way of printing, in a sentence."""
        choice, pages = self.choice, self.pages
        why = ""
        if choice is None:
            why = NO_PRINTER
        elif pages is not None and not all(map(choice.takes, pages.sizes)):
            why = f"{choice.name} has no paper as large as these pages. Choose another paper."
        self.print_.setEnabled(not why and pages is not None and self.task.at_rest)
        self.save_.setEnabled(pages is not None)
        self.says.setText(why)

    # --- the pages ----------------------------------------------------------------------------

    def _paper_chosen(self) -> None:
        self._chose(self.paper.currentData())
        self._work()

    def _work(self) -> None:
        """Make the pages for the paper chosen; those before stay until then."""
        paper = self.paper.currentData()

        def work() -> Made | str:
            try:
                data = self._make(paper)
            except FileProblem as problem:
                return str(problem)
            check()
            return PdfPages(data), data

        self._busy("Working out the pages …")
        self.task.start(work, self._made, stopped=self._rest)

    def _made(self, made: Made | str) -> None:
        if isinstance(made, str):
            self._rest()
            self.says.setText(made)
            return
        if self.pages is not None:
            self.pages.close()
        self.pages, self._data = made
        empty(self.shown)
        number = len(self.pages)
        self.chapters.clear()
        for title, at in self.pages.contents():
            self.chapters.addItem(f"{title}, {at + 1}", at)
        self.chapters.setEnabled(self.chapters.count() > 0)
        self.which.setPlaceholderText(f"all {number}, or 2-5, 8")
        for i in range(number):
            size = self.pages.sizes[i]
            page = QLabel()
            page.setObjectName("sheet")
            page.setAccessibleName(f"Page {i + 1} of {number}")
            page.setFixedSize(round(size.width() / 72 * DOTS), round(size.height() / 72 * DOTS))
            self.shown.addWidget(page)
        self._rest()
        self._draw(0)

    def _draw(self, number: int) -> None:
        """Draw a page aside, then the next."""
        pages = self.pages
        if pages is None or number >= len(pages):
            return
        ratio = self.devicePixelRatioF()
        self.task.then(
            partial(pages.picture, number, DOTS * ratio), partial(self._show, pages, number)
        )

    def _show(self, pages: PdfPages, number: int, image: object) -> None:
        item = self.shown.itemAt(number)
        page = item.widget() if item is not None else None
        if pages is self.pages and isinstance(page, QLabel):
            picture = QPixmap.fromImage(image)  # type: ignore[arg-type]
            picture.setDevicePixelRatio(self.devicePixelRatioF())
            page.setPixmap(picture)
            self._draw(number + 1)
        self._look()

    def _go_to(self, at: int) -> None:
        """Scroll to a chapter's page."""
        item = self.shown.itemAt(self.chapters.itemData(at))
        page = item.widget() if item is not None else None
        if page is not None:
            self.area.verticalScrollBar().setValue(page.y())

    # --- printing -----------------------------------------------------------------------------

    def _print(self) -> None:
        choice, pages = self.choice, self.pages
        if choice is None or pages is None:
            return
        try:
            numbers = pages_typed(self.which.text(), len(pages))
        except ValueError as why:
            self.says.setText(f"Pages: {why}.")
            return
        test, paper, copies = self.test.isChecked(), self.paper.currentData(), self.copies.value()
        printer = choice.make()

        def work() -> int:
            first = [(PdfPages(test_square_pdf(paper)), [0])] if test else []
            return print_pages([*first, (pages, numbers)], printer, copies, self.title)

        self._busy("Printing …")
        self.task.start(work, partial(self._printed, choice.name, test), stopped=self._stopped)

    def _printed(self, name: str, test: bool, number: int) -> None:
        self._rest()
        if not number:
            self.says.setText(f"{name} did not take the pages. Is it switched on?")
            return
        told = f"{number} {'page' if number == 1 else 'pages'} went to {name}."
        if test:
            self._tested(name)
            self._known |= {name}
            self.test.setChecked(False)
            told += " Measure the test square; if it is not 1 in, calibrate the printer."
        self.says.setText(told)

    def _busy(self, words: str) -> None:
        self.print_.setEnabled(False)
        self.save_.setEnabled(False)
        self.stop.show()
        self.says.setText(words)

    def _rest(self) -> None:
        self.stop.hide()
        self._look()
        self.print_.setEnabled(self.choice is not None and self.pages is not None
                               and not self.says.text())  # fmt: skip

    def _stopped(self) -> None:
        self._rest()
        self.says.setText("Stopped. The printer may still print what it has.")

    def _failed(self, text: str) -> None:
        self._rest()
        self.says.setText(f"That did not work ({text}).")

    def _put_away(self) -> None:
        self.task.stop()
        if self.pages is not None:
            self.pages.close()

    def closeEvent(self, event: QCloseEvent) -> None:
        self._put_away()
        super().closeEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter in a field does not print."""
        if event.key() not in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            super().keyPressEvent(event)
