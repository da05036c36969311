"""The first start, the shelf, and a newcomer's whole path."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QSizeF, Qt
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtWidgets import QApplication, QLabel, QMessageBox

from inlet.core.numbers.fraction import Fraction as F
from inlet.files.program_files import shelf_folder
from inlet.files.project.project_json import load
from inlet.ui.printing import preview
from inlet.ui.printing.pdf_pages import PdfPages
from inlet.ui.printing.printers import PrinterChoice
from inlet.ui.shell import app as starting
from inlet.ui.shell.settings import Settings, Usual
from tests.ui import walk
from tests.ui.test_printing import dark_lines
from tests.ui.test_states import options


class Hand:
    """A newcomer who counts their clicks and keys; typing a word counts as one."""

    def __init__(self, qtbot) -> None:
        self.bot, self.count = qtbot, 0

    def click(self, widget) -> None:
        self.bot.waitUntil(lambda: widget.isVisible() and widget.isEnabled(), timeout=20000)
        self.bot.mouseClick(widget, Qt.MouseButton.LeftButton)
        self.count += 1

    def type(self, widget, text: str) -> None:
        widget.setFocus()
        widget.selectAll()
        self.bot.keyClicks(widget, text)
        self.bot.keyClick(widget, Qt.Key.Key_Return)
        self.count += 2


@pytest.fixture(autouse=True)
def clean_home(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


@pytest.fixture
def started(qtbot, qapp, monkeypatch):
    """Inlet started for the first time; its window, once the event loop runs."""
    windows = []
    monkeypatch.setattr(starting, "_until_closed", lambda _app, window: windows.append(window) or 0)
    assert starting.run(options()) == 0
    window = windows[0]
    qtbot.waitUntil(lambda: getattr(window, "welcome", None) is not None)
    yield window
    window.session.history.mark_saved()
    window.close()


def test_a_newcomer_prints_a_guide_within_fifteen_clicks_and_keys(
    started, qtbot, tmp_path, monkeypatch
):
    """Three answers, a block from the shelf, another size, the cut list read, the guide printed and
    its test square measured."""
    hand, window, out = Hand(qtbot), started, tmp_path / "out.pdf"

    def ready() -> QPrinter:
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
        printer.setOutputFileName(str(out))
        printer.setResolution(300)
        return printer

    choice = PrinterChoice("Ink", ready, (QSizeF(612, 792),))
    monkeypatch.setattr(preview, "system_printers", lambda: [choice])
    welcome = window.welcome
    hand.click(welcome.left)
    welcome.mark.setCurrentIndex(welcome.mark.findData("1/16"))
    hand.count += 2  # the list is opened, a line clicked
    hand.click(welcome.ways["shelf"])  # inches stay as they are
    shelf = window.shelf
    qtbot.keyClicks(shelf.line, "geese round")
    hand.count += 1
    hand.click(shelf.take_)
    assert window.session.block.title == "Geese round a square"
    assert len(window.session.project.blocks) == 1
    assert window.session.measure.mark == F(1, 16)
    assert window.session.project.cutting.handed == "left"
    hand.type(window.topbar.width_edit, "10")
    hand.click(window.rail.buttons["cutting"])
    qtbot.waitUntil(lambda: window.session.plan is not None and window.session.at_rest,
                    timeout=20000)  # fmt: skip
    walk.settle(window)
    read = " ".join(w.text() for w in walk.shown(window) if isinstance(w, QLabel))
    assert "buy" in read
    assert window.session.plan.resewn
    window.activateWindow()
    qtbot.waitUntil(window.isActiveWindow)
    qtbot.keyClick(window, Qt.Key.Key_P, Qt.KeyboardModifier.ControlModifier)
    hand.count += 1
    pages = window.writer.preview
    qtbot.waitUntil(lambda: pages.task.at_rest, timeout=30000)
    hand.click(pages.print_)
    qtbot.waitUntil(lambda: pages.task.at_rest, timeout=30000)
    assert "went to Ink" in pages.says.text()
    image = PdfPages(out.read_bytes()).picture(0, 300)
    upright = dark_lines(image, 0)
    assert abs(upright[1] - upright[0] - 300) <= 2
    assert hand.count <= 15
    pages.close()


def test_the_first_start_asks_once_and_its_answers_hold_for_new_projects(started, qtbot):
    welcome = started.welcome
    hand = Hand(qtbot)
    assert not walk.overlaps(welcome)
    assert not walk.cut_texts(welcome)
    hand.click(welcome.cm)
    hand.click(welcome.ways["empty"])
    project = started.session.project
    assert project.measure.system.unit == "cm"
    assert project.blocks[0].finished == (F(24), F(24))
    assert Settings().usual == Usual("cm", "right", welcome.mark.currentData())
    assert not Settings().is_new
    started.new()
    assert started.session.measure.system.unit == "cm"
    started.begin_.trigger()
    assert started.welcome.cm.isChecked()  # the page comes again when asked for
    hand.click(started.welcome.ways["demo"])
    assert started.session.project.name == "Reed Channel"


def test_the_shelf_is_looked_through_taken_from_and_put_on(maker, qtbot, monkeypatch):
    maker.session.start(load(starting.DEMO), None)
    window = maker.window
    window.put_.trigger()
    assert "is on the shelf now" in window.message_text.text()
    shelf_folder().joinpath("bad.inlet").write_text("{")
    window.shelf_.trigger()
    shelf = window.shelf
    qtbot.waitUntil(lambda: len(shelf.model.facts) == len(shelf.model.blocks), timeout=20000)
    assert "bad.inlet" in shelf.says.text()
    assert shelf.model.blocks[0].block.title == "Sluice"
    first, role = shelf.model.index(0), Qt.ItemDataRole.DecorationRole
    shelf.grab()  # what is seen is drawn, a picture a turn
    qtbot.waitUntil(lambda: first.data(role).toImage().pixelColor(60, 60).alpha() == 255)
    assert not walk.overlaps(shelf)
    qtbot.keyClicks(shelf.line, "sluice")
    assert len(shelf.model.shown) == 1
    assert "9 in" in shelf.facts.text()
    assert "patches" in shelf.facts.text()
    yes = QMessageBox.StandardButton.Yes
    monkeypatch.setattr(QMessageBox, "question", lambda *_a, **_k: yes)
    assert shelf.off.isEnabled()
    qtbot.mouseClick(shelf.off, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: shelf.task.at_rest, timeout=20000)
    shelf.line.clear()
    assert all(block.ships for block in shelf.model.blocks)
    assert not shelf.off.isEnabled()
    qtbot.keyClicks(shelf.line, "xylophone")
    assert not shelf.take_.isEnabled()
    assert "Nothing on the shelf" in shelf.facts.text()
    shelf.line.clear()
    qtbot.keyClicks(shelf.line, "petals")
    number = len(maker.session.project.blocks)
    qtbot.keyClick(shelf.list, Qt.Key.Key_Return)
    QApplication.processEvents()
    if shelf.isVisible():
        qtbot.mouseClick(shelf.take_, Qt.MouseButton.LeftButton)
    assert len(maker.session.project.blocks) == number + 1
    assert maker.session.block.title == "Four petals"


def test_a_shelf_that_cannot_be_read_says_so_and_shows_ours(maker):
    shelf_folder().parent.mkdir(parents=True)
    shelf_folder().write_text("a file")
    maker.window.shelf_.trigger()
    shelf = maker.window.shelf
    assert "the shelf cannot be read" in shelf.says.text()
    maker.window.put_.trigger()
    assert "cannot be written" in maker.window.message_text.text()
