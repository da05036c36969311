"""Small widgets every stage is built from."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject, Qt, Signal, SignalInstance
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from inlet.core.numbers import NumberError, vulgar_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.inputs import PushButton, ToolButton


def label(text: str, kind: str = "", wrap: bool = False) -> QLabel:
    """A label, sizes in it with proper fractions; ``kind`` is caption, small, heading, title,
    size, figure or warning."""
    caption = QLabel(vulgar_text(text))
    caption.setTextFormat(Qt.TextFormat.PlainText)
    if kind:
        caption.setObjectName(kind)
    if wrap:
        caption.setWordWrap(True)
    return caption


@guarded
class Link(QLabel):
    """A sentence to follow, by click or by key; it wraps, as no button does."""

    followed = Signal()

    def __init__(self, words: str, kind: str = "link", tip: str = "") -> None:
        super().__init__(vulgar_text(words))
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setWordWrap(True)
        self.setObjectName(kind)
        self.setProperty("leads", True)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setToolTip(tip)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self.rect().contains(event.position().toPoint()):
            self.followed.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.followed.emit()
        else:
            super().keyPressEvent(event)


def rule() -> QFrame:
    frame = QFrame()
    frame.setObjectName("rule")
    frame.setFixedHeight(1)
    return frame


def row(*widgets: QWidget | int, spacing: int = 6) -> QHBoxLayout:
    """Widgets side by side; a number is stretch."""
    layout = QHBoxLayout()
    layout.setContentsMargins(0, 0, 0, 0)
    layout.setSpacing(theme.px(spacing))
    for widget in widgets:
        if isinstance(widget, int):
            layout.addStretch(widget)
        else:
            layout.addWidget(widget)
    return layout


def column(parent: QWidget | None = None, margin: int = 0, spacing: int = 6) -> QVBoxLayout:
    layout = QVBoxLayout(parent) if parent else QVBoxLayout()
    layout.setContentsMargins(*(theme.px(margin),) * 4)
    layout.setSpacing(theme.px(spacing))
    return layout


def button(text: str, do: Callable[[], object], icon: str = "", kind: str = "") -> QPushButton:
    new_button = PushButton(text)
    if icon:
        new_button.setIcon(theme.icon(icon))
    if kind:
        new_button.setObjectName(kind)
    new_button.clicked.connect(lambda: do())
    return new_button


def icon_button(icon: str, words: str, do: Callable[[], object]) -> QToolButton:
    """A button that is a picture; ``words`` say what it does, a key for it in brackets last."""
    new_button = ToolButton()
    new_button.setIcon(theme.icon(icon))
    new_button.setToolTip(words)
    new_button.setAccessibleName(words.partition(" (")[0])
    new_button.clicked.connect(lambda _=False: do())
    return new_button


def drop(layout: QLayout, widget: QWidget) -> None:
    """Take one widget out of a layout."""
    layout.removeWidget(widget)
    widget.hide()
    widget.deleteLater()


def empty(layout: QLayout) -> None:
    """Take everything out of a layout."""
    while (item := layout.takeAt(0)) is not None:
        widget, inner = item.widget(), item.layout()
        if widget is not None:
            drop(layout, widget)
        elif inner is not None:
            empty(inner)


@guarded
class _WhenSeen(QObject):
    """Does what is asked for at once where a widget is seen, else when it next is; and the first
    time it is seen, as it may have been made after what it shows came."""

    def __init__(self, widget: QWidget, do: Callable[[], object]) -> None:
        super().__init__(widget)
        self._widget, self._do, self._waits = widget, do, True
        widget.installEventFilter(self)

    def ask(self) -> None:
        self._waits = not self._widget.isVisible()
        if not self._waits:
            self._do()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.Show and self._waits:
            self._waits = False
            self._do()
        return False


def when_seen(
    widget: QWidget, do: Callable[[], object], *signals: SignalInstance
) -> Callable[[], None]:
    """``do`` when a widget is first looked at, then after each of some signals, once it is looked
    at: what takes many widgets to show is not made again with every edit at another stage. What is
    given back asks for it, too."""
    waiter = _WhenSeen(widget, do)
    for signal in signals:
        signal.connect(waiter.ask)
    return waiter.ask


def scrolled(body: QWidget, name: str) -> QScrollArea:
    """``body`` in an upright scroll area named for the style sheet."""
    area = QScrollArea()
    area.setObjectName(name)
    area.setWidgetResizable(True)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    area.setFrameShape(QFrame.Shape.NoFrame)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    area.setWidget(body)
    return area


class ValueEdit(QLineEdit):
    """A line that holds a value as text. What is typed is handed to ``take`` when done; a
    ``NumberError`` (or ``ValueError``) keeps the old value, marks the line and says why."""

    refused = Signal(str)

    def __init__(self, name: str, take: Callable[[str], object], width: int = 0) -> None:
        super().__init__()
        self._take, self._shown = take, ""
        self.setAccessibleName(name)
        self.setToolTip(name)
        if width:
            self.setMinimumWidth(theme.px(width))
            self.setMaximumWidth(theme.px(width * 2))
        self.editingFinished.connect(self._done)

    def show_value(self, text: str) -> None:
        """The value as it is now; nothing is taken."""
        self._shown = text
        if self.text() != text:
            self.setText(text)
            self.setCursorPosition(0)
        self._mark(False)

    def _done(self) -> None:
        if self.text() == self._shown:
            self._mark(False)
            return
        try:
            self._take(self.text())
        except (NumberError, ValueError) as why:
            self._mark(True)
            kept = f"; {self._shown} is kept" if self._shown else ""
            self.refused.emit(f"{self.accessibleName()}: {why}{kept}.")
            self.setText(self._shown)
        else:
            self._mark(False)

    def _mark(self, wrong: bool) -> None:
        if bool(self.property("wrong")) != wrong:
            self.setProperty("wrong", wrong)
            self.style().unpolish(self)
            self.style().polish(self)
