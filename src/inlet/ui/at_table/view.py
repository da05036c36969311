"""One step on the whole screen: its size as large as can be, next and back by any large key."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtGui import QCloseEvent, QFont, QKeyEvent, QMouseEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QWidget

from inlet.core.numbers import vulgar_text
from inlet.ui import theme
from inlet.ui.at_table.awake import Awake
from inlet.ui.guard import guarded
from inlet.ui.widgets.parts import column, empty, label

ONWARD = (
    Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Right, Qt.Key.Key_Down,
    Qt.Key.Key_PageDown,
)  # fmt: skip
BACK = (Qt.Key.Key_Backspace, Qt.Key.Key_Left, Qt.Key.Key_Up, Qt.Key.Key_PageUp)
PARTS = {"title": 0.05, "figure": 0.17, "words": 0.036, "place": 0.026}
"""How high letters are, as a part of the screen's height."""
BACK_SIDE = 1 / 3
"""The part of the screen, on the side of the hand that does not hold the tool, that goes back."""


class TableCard(NamedTuple):
    """What is shown of a step: what is made, the size to cut or to check, what to do, where it
    stands among the others, and pictures, made anew each time."""

    title: str
    figure: str
    words: str
    place: str
    pictures: Callable[[], Sequence[QWidget]] = tuple


def size_first(text: str, unit: str) -> tuple[str, str]:
    """A size to check, parted behind its unit: the size, and what is said of it."""
    at = text.find(f" {unit}")
    if at < 0:
        return text, ""
    end = at + 1 + len(unit)
    return text[:end].replace(" x ", " × "), text[end:].lstrip(", ")


class TableSource(QObject):
    """Steps of a stage to go through; ``changed`` tells that another is shown. A stage's own step
    is done where that is what its button does."""

    changed = Signal()

    def card(self) -> TableCard | None:
        """The step that is shown; None where there is none yet."""
        raise NotImplementedError

    def onward(self) -> None:
        raise NotImplementedError

    def back(self) -> None:
        raise NotImplementedError


@guarded
class TableView(QWidget):
    """Nothing else is on the screen. A click goes on; on the side of the free hand, back; Escape
    closes it."""

    closed = Signal()

    def __init__(self, source: TableSource, left_handed: bool = False) -> None:
        super().__init__()
        self.source, self.left_handed = source, left_handed
        self.setObjectName("window")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setWindowTitle("Inlet at the table")
        self.setAccessibleName("One step at the table")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.awake = Awake()
        layout = column(self, 24, 12)
        self.title, self.figure = label("", "", True), label("", "", True)
        self.words, self.place = label("", "", True), label("", "", True)
        self.pictures = QHBoxLayout()
        layout.addWidget(self.title)
        layout.addWidget(self.figure)
        layout.addLayout(self.pictures, 1)
        layout.addWidget(self.words)
        layout.addWidget(self.place)
        theme.dress(self)
        source.changed.connect(self.refresh)
        self.refresh()

    def show_all_over(self) -> None:
        """On the whole screen, which stays on."""
        self.showFullScreen()
        self.awake.keep()

    def refresh(self) -> None:
        card = self.source.card()
        empty(self.pictures)
        if card is None:
            card = TableCard("Working out the steps …", "", "", "")
        for text, widget in self._texts(card):
            widget.setText(vulgar_text(text))
            widget.setVisible(bool(text))
        for picture in card.pictures():
            picture.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
            picture.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            self.pictures.addWidget(picture, 1)
        self._size_letters()

    def _texts(self, card: TableCard) -> tuple[tuple[str, QLabel], ...]:
        hand = "right" if self.left_handed else "left"
        place = (
            f"{card.place}    Space goes on; Backspace, or a click on the {hand}, back; Esc ends"
        )
        return (
            (card.title, self.title), (card.figure, self.figure), (card.words, self.words),
            (place, self.place),
        )  # fmt: skip

    def _size_letters(self) -> None:
        """Letters as high as the screen allows; the size is never wider than the screen."""
        high = max(200, self.height())
        for name, widget in (("title", self.title), ("figure", self.figure),
                             ("words", self.words), ("place", self.place)):  # fmt: skip
            bold = QFont.Weight.DemiBold if name in ("title", "figure") else QFont.Weight.Normal
            letters = theme.font(10, bold)
            pixels = PARTS[name] * high
            if name == "figure" and widget.text():
                pixels = min(pixels, 1.7 * self.width() / max(6, len(widget.text())))
            letters.setPixelSize(max(12, round(pixels)))
            style = f"font-size: {letters.pixelSize()}px; color: {theme.INK.name()};"
            if widget.styleSheet() != style:  # a style is read anew each time it is set
                widget.setFont(letters)
                widget.setStyleSheet(style)

    # --- by hand ------------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        if key in ONWARD:
            self.source.onward()
        elif key in BACK:
            self.source.back()
        elif key == Qt.Key.Key_Escape:
            self.close()
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        part = event.position().x() / max(1, self.width())
        if self.left_handed:
            part = 1 - part
        if part < BACK_SIDE:
            self.source.back()
        else:
            self.source.onward()

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._size_letters()

    def closeEvent(self, event: QCloseEvent) -> None:
        self.awake.release()
        self.closed.emit()
        event.accept()
