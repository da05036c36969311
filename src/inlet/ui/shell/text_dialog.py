"""A text to read, and to copy, in a window of its own."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QApplication, QDialog, QTextBrowser, QWidget

from inlet import __version__
from inlet.assets import ASSETS
from inlet.files.program_files import all_places, log_file
from inlet.ui import theme
from inlet.ui.widgets.parts import button, column, row

LONGEST_LOG = 100_000
"""Letters of the log that are shown, the newest."""


class TextDialog(QDialog):
    """Closed by Escape or its button; the window stays in use. A text that begins with a heading is
    Markdown."""

    def __init__(self, parent: QWidget, title: str, text: str) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        self.setAccessibleName(title)
        layout = column(self, 14, 10)
        self.text = QTextBrowser()
        self.text.setObjectName("helpText")
        self.text.setAccessibleName(title)
        self.text.setOpenLinks(False)
        self.text.document().setDefaultFont(theme.font(10.5))
        if text.startswith("#"):
            self.text.setMarkdown(text)
        else:
            self.text.setPlainText(text)
        layout.addWidget(self.text, 1)
        layout.addLayout(row(1, button("Copy", self._copy), button("Close", self.close)))
        self.resize(theme.px(560), theme.px(420))

    def _copy(self) -> None:
        QApplication.clipboard().setText(self.text.toPlainText())


def places_text() -> str:
    """Where Inlet keeps its files, as Markdown."""
    lines = [f"**{words}**\n\n`{path}`" for words, path in all_places()]
    return "\n\n".join(["# Where Inlet keeps its files", *lines])


def log_text() -> str:
    """The log of errors, the newest last; a sentence where there is none."""
    try:
        text = log_file().read_text("utf-8", "replace")
    except OSError:
        return "No error has been noted."
    return text[-LONGEST_LOG:] or "No error has been noted."


def news_text() -> str:
    return Path(ASSETS / "CHANGELOG.md").read_text("utf-8")


def about_text() -> str:
    return (
        f"# Inlet {__version__}\n\nInlet drafts pieced quilt blocks and works out how to cut and "
        "sew them.\n\nMIT licence. The typeface is Fira Sans (SIL Open Font License); some icons "
        "are Lucide's (ISC). Their licences lie beside them."
    )


TEXTS = {
    "Inlet's files": places_text,
    "Log of errors": log_text,
    "What is new": news_text,
    "About Inlet": about_text,
}
"""Titles, and what gives the text."""
