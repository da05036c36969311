"""The diary: the log day by day, with its photographs; a note written, a photograph kept."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import QImageReader, QPixmap
from PySide6.QtWidgets import (
    QFileDialog,
    QFrame,
    QGridLayout,
    QLabel,
    QLineEdit,
    QWidget,
)

from inlet.core.bench import DiaryDay, clock, day_title, diary, entry_text, with_note
from inlet.core.project import LogEntry
from inlet.files.photos import photo_path
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import PushButton
from inlet.ui.widgets.parts import button, column, empty, label, row

SHOWN = 120
"""Entries that are shown at once, the latest first."""
PHOTO = 220
"""Pixels of a photograph's longer side."""


@guarded
class DiaryPage(QWidget):
    """What is written down now, then the days, the latest first."""

    asked_pdf = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        self.shown = SHOWN
        layout = column(self, 4, 8)
        self.note = QLineEdit()
        self.note.setAccessibleName("A note for the diary")
        self.note.setPlaceholderText("Write down what went well, or what to mind next time")
        self.note.returnPressed.connect(self.write)
        self.write_ = button("Write it down", self.write)
        self.photo_ = button("Keep a photograph…", self.ask_photo)
        self.pdf_ = button("Print the diary…", self.asked_pdf.emit)
        layout.addWidget(self.note)
        layout.addLayout(row(self.write_, self.photo_, self.pdf_, 1))
        self.nothing = label(
            "Nothing is logged yet. Tick a step at any stage, or write a note: it is kept here by "
            "its day.",
            "", True,
        )  # fmt: skip
        layout.addWidget(self.nothing)
        self.days = column(spacing=4)
        layout.addLayout(self.days)
        self.more = PushButton("Show earlier days")
        self.more.clicked.connect(self._show_more)
        layout.addWidget(self.more)
        layout.addStretch(1)

    def refresh(self) -> None:
        log = self.session.project.log
        empty(self.days)
        self.nothing.setVisible(not log)
        self.pdf_.setEnabled(bool(log))
        self.more.setVisible(len(log) > self.shown)
        first = max(0, len(log) - self.shown)
        for day in reversed(diary(log[first:])):
            self._add_day(day)

    def _add_day(self, day: DiaryDay) -> None:
        """A day on a card: its heading, then each entry with the time of day before it."""
        measure = self.session.measure
        card = QFrame()
        card.setObjectName("card")
        body = column(card, 12, 4)
        body.addWidget(label(day_title(day), "heading"))
        lines = QGridLayout()
        lines.setColumnStretch(1, 1)
        lines.setHorizontalSpacing(theme.px(12))
        for at, (_, entry) in enumerate(day.entries):
            when = label(clock(entry), "small")
            when.setAlignment(Qt.AlignmentFlag.AlignTop)
            lines.addWidget(when, at, 0)
            entry_lines = column(spacing=2)
            entry_lines.addWidget(label(entry_text(entry, measure), "", True))
            if entry.photo:
                entry_lines.addWidget(self._photo(entry))
            lines.addLayout(entry_lines, at, 1)
        body.addLayout(lines)
        self.days.addWidget(card)

    def _photo(self, entry: LogEntry) -> QLabel:
        picture = label("", "small")
        picture.setAccessibleName(f"Photograph {entry.photo}")
        shown = self._pixmap(entry.photo)
        if shown.isNull():
            picture.setText(f"The photograph {entry.photo} is not there any more.")
        else:
            picture.setPixmap(shown)
        return picture

    def _pixmap(self, name: str) -> QPixmap:
        path = self.session.path
        at = photo_path(path, name) if path is not None else None
        if at is None or not at.is_file():
            return QPixmap()
        reader = QImageReader(str(at))
        reader.setAutoTransform(True)
        side = theme.px(PHOTO)
        size = reader.size()
        if size.isValid():
            reader.setScaledSize(size.scaled(QSize(side, side), Qt.AspectRatioMode.KeepAspectRatio))
        return QPixmap.fromImage(reader.read())

    def _show_more(self) -> None:
        self.shown += 4 * SHOWN
        self.refresh()

    def write(self) -> None:
        """What is typed becomes an entry."""
        text = self.note.text().strip()
        session = self.session
        if text and session.edit(with_note(session.project, text, session.now)):
            self.note.clear()

    def ask_photo(self) -> None:
        """Choose a photograph to keep."""
        if self.session.path is None:
            self.session.said.emit("Save the project first: its photographs are kept beside it.")
            return
        name, _ = QFileDialog.getOpenFileName(
            self, "Keep a photograph", "",
            "Photographs (*.jpg *.jpeg *.png *.webp *.tif *.tiff *.bmp)",
        )  # fmt: skip
        if name:
            self.keep(name)

    def keep(self, name: str) -> None:
        """A photograph copied beside the project, with what is typed as its note."""
        self.session.keep_photo(name, self.note.text().strip())
        self.note.clear()
