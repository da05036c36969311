"""What every page says, word by word: kept in ``tests/data/pages``, and read by a person whenever
it changes. ``INLET_PAGES=write`` in the environment writes it anew.

Numbers are checked against other means elsewhere; here, that they reach the page, under their
names, and that nothing is shown, checked or offered that should not be.
"""

from __future__ import annotations

import os
from collections.abc import Iterator
from difflib import unified_diff
from html.parser import HTMLParser
from pathlib import Path

import pytest
from PySide6.QtCore import QModelIndex, QPoint
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QAbstractSpinBox,
    QApplication,
    QComboBox,
    QLabel,
    QLineEdit,
    QListView,
    QWidget,
)
from pytestqt.exceptions import TimeoutError

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.quilt import Quilt
from inlet.core.project.value import replace
from inlet.files.project.project_json import load
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.session import Session
from tests.blocks import block_of, project_of
from tests.ui import walk

KEPT = Path(__file__).parent.parent / "data" / "pages"
WRITES = os.environ.get("INLET_PAGES") == "write"
MOST_ROWS = 60
"""Of a list; what is below is like it."""


class Words(HTMLParser):
    """The words of a text with marks."""

    def __init__(self, text: str) -> None:
        super().__init__()
        self.words: list[str] = []
        self.feed(text)

    def handle_data(self, data: str) -> None:
        self.words.append(data)


def plain(text: str) -> str:
    words = "".join(Words(text).words)
    return " / ".join(line.strip() for line in words.splitlines() if line.strip())


def says(widget: QWidget) -> Iterator[str]:
    """A line for each word, field, choice and row that is seen in a widget."""
    if not widget.isVisible():
        return
    line = said_by(widget)
    if line is not None:
        yield line if widget.isEnabled() else f"{line} (not now)"
    if isinstance(widget, QAbstractItemView):
        yield from rows_of(widget)
    elif not isinstance(widget, QComboBox | QAbstractSpinBox):
        for child in widget.children():
            if isinstance(child, QWidget) and not child.isWindow():
                yield from says(child)


def said_by(widget: QWidget) -> str | None:
    name = widget.accessibleName()
    if isinstance(widget, QLabel):
        return plain(widget.text()) or None
    if isinstance(widget, QAbstractButton):
        on = {True: " [x]", False: " [ ]"}[widget.isChecked()] if widget.isCheckable() else ""
        return f"<{plain(widget.text()) or name}>{on}"
    if isinstance(widget, QComboBox):
        return f"{name}: {widget.currentText()} of {widget.count()}"
    if isinstance(widget, QAbstractSpinBox):
        return f"{name}: {widget.text()}"
    if isinstance(widget, QLineEdit):
        hint = f" ({widget.placeholderText()})" if widget.placeholderText() else ""
        return f"{name}: {widget.text()}{hint}"
    return f"[{name}]" if name else None


def rows_of(view: QAbstractItemView) -> Iterator[str]:
    model, root = view.model(), QModelIndex()
    columns = 1 if isinstance(view, QListView) else model.columnCount(root)
    for row in range(min(model.rowCount(root), MOST_ROWS)):
        cells = (model.index(row, column, root).data() for column in range(columns))
        yield "  | " + " | ".join(plain(str(cell)) for cell in cells if cell not in (None, ""))


def demo():
    return load(DEMO)


def curved():
    """The demo with its block of curves first, and no quilt."""
    project = load(DEMO)
    heron = next(block for block in project.blocks if block.name == "Heron Bend")
    return replace(project, blocks=(heron,), quilt=None, log=(), cutting=None)


def small():
    """A block of 3 in off its grid that is no quilt yet, a patch of it without fabric."""
    block = block_of("0 0 3 2 / 0 2 3 2 / 1 0 1 2", columns=3, rows=3, size=(3, 3), fabrics="ab")
    return project_of(replace(block, name="Skiff"))


def set_quilt():
    """A quilt on point in centimetres, of one block of an odd size."""
    block = block_of("0 0 4 4 / 0 4 4 0", columns=4, rows=4, size=(F(35, 2), F(35, 2)))
    quilt = Quilt(columns=3, rows=4, block=block.id, setting="on-point")
    return replace(project_of(replace(block, name="Sluice"), system_name="cm"), quilt=quilt)


@pytest.mark.parametrize("project", [demo, curved, small, set_quilt])
def test_every_page_says_what_it_said(maker, project, monkeypatch):
    monkeypatch.setattr(Session, "now", property(lambda _: "2026-03-02T10:00"))
    window, session = maker.window, maker.session
    maker.bot.mouseMove(window, QPoint(1, 1))  # a test before may have left it over a line
    session.start(project(), None)
    maker.wait()

    def rest() -> None:
        maker.bot.waitUntil(lambda: session.at_rest, timeout=60000)
        QApplication.processEvents()

    kept = KEPT / f"{project.__name__}.txt"
    known = {} if WRITES else by_page(kept.read_text("utf-8"))
    written, turned_to = [], []
    for page in walk.pages(window, waited=rest):
        roots = seen_on(window, page)
        turned_to.append(page)
        if WRITES:
            maker.bot.wait(900)
            rest()
            written.append("\n".join([f"## {page}", *all_said(roots), ""]))
            continue
        try:
            maker.bot.waitUntil(
                lambda roots=roots, page=page: all_said(roots) == known[page], timeout=20000
            )
        except TimeoutError:
            pytest.fail(
                "\n".join([page, *unified_diff(known[page], all_said(roots), "kept", "now", n=1)])
            )
    if WRITES:
        kept.parent.mkdir(exist_ok=True)
        kept.write_text("\n".join(written), "utf-8")
    else:
        assert turned_to == list(known)


def seen_on(window, page: str) -> list[QWidget]:
    """The stage of a page, and its ticket where that has no pages of its own."""
    stage, ticket = window.pair(window.stage)
    if page.split()[1] == "ticket":
        return [ticket]
    paged = any(b.property("page") for b in ticket.findChildren(QAbstractButton))
    return [stage] if paged else [stage, ticket]


def all_said(roots: list[QWidget]) -> list[str]:
    return [line for root in roots for line in says(root)]


def by_page(text: str) -> dict[str, list[str]]:
    pages = text.removeprefix("## ").split("\n\n## ")
    return {(lines := page.strip("\n").split("\n"))[0]: lines[1:] for page in pages}
