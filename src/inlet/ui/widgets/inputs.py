"""Buttons, lists and numbers as this window has them.

The wheel scrolls what they lie in: it never changes a value that the pointer happens to be over. A
number is taken when its field is left, not with each key. A click leaves the keys where they were,
so that a key a card tells of works after it; by Tab each is reached.
"""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import (
    QAbstractSpinBox,
    QCheckBox,
    QComboBox,
    QDoubleSpinBox,
    QPushButton,
    QSlider,
    QSpinBox,
    QToolButton,
    QWidget,
)

from inlet.ui.guard import guarded


@guarded
class PushButton(QPushButton):
    def __init__(self, text: str = "", parent: QWidget | None = None) -> None:
        super().__init__(text, parent)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)


@guarded
class ToolButton(QToolButton):
    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)


@guarded
class CheckBox(QCheckBox):
    def __init__(self, text: str = "", parent: QWidget | None = None) -> None:
        super().__init__(text, parent)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)


@guarded
class ChoiceBox(QComboBox):
    """A closed list."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()


def taken_when_left(box: QAbstractSpinBox) -> None:
    """A number that is typed is one edit; the wheel does not give its field the focus."""
    box.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
    box.setKeyboardTracking(False)


@guarded
class NumberBox(QSpinBox):
    """A whole number."""

    def __init__(self) -> None:
        super().__init__()
        taken_when_left(self)

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()


@guarded
class DecimalBox(QDoubleSpinBox):
    """A number with decimals."""

    def __init__(self) -> None:
        super().__init__()
        taken_when_left(self)

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()


@guarded
class Slider(QSlider):
    """From one end to the other in steps, moved by the pointer or the arrow keys."""

    def __init__(self, name: str, low: int, high: int) -> None:
        super().__init__(Qt.Orientation.Horizontal)
        self.setAccessibleName(name)
        self.setRange(low, high)
        self.setTickPosition(QSlider.TickPosition.TicksBelow)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)

    def wheelEvent(self, event: QWheelEvent) -> None:
        event.ignore()
