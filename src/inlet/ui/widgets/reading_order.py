"""The Tab key goes as one reads, whichever widget was made first."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import cmp_to_key

from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtWidgets import QAbstractSpinBox, QApplication, QComboBox, QWidget

Placed = tuple[QRect, QWidget]


def focus_beside(parts: Iterable[QWidget], onward: bool) -> bool:
    """Give the focus to what is read after what has it, or before; part by part of a window, each
    line by line from left to right. False where nothing has it."""
    order = [widget for part in parts for widget in _in_order(part)]
    now = QApplication.focusWidget()
    if now not in order:
        return False
    step = 1 if onward else -1
    reason = Qt.FocusReason.TabFocusReason if onward else Qt.FocusReason.BacktabFocusReason
    order[(order.index(now) + step) % len(order)].setFocus(reason)
    return True


def _in_order(root: QWidget) -> list[QWidget]:
    """What is seen below a widget, or it itself, that takes the keys by Tab."""
    placed: list[Placed] = [
        (QRect(widget.mapTo(root, QPoint(0, 0)), widget.size()), widget)
        for widget in _seen(root)
        if widget.focusPolicy() & Qt.FocusPolicy.TabFocus
        and widget.isEnabled() and widget.focusProxy() is None
    ]  # fmt: skip
    return [widget for _, widget in sorted(placed, key=cmp_to_key(_before))]


def _seen(widget: QWidget) -> Iterator[QWidget]:
    """A widget that is seen, and those in it: not what hidden pages hold, which is most, nor the
    parts of a field."""
    if not widget.isVisible():
        return
    yield widget
    if not isinstance(widget, QAbstractSpinBox | QComboBox):
        for child in widget.children():
            if isinstance(child, QWidget) and not child.isWindow():
                yield from _seen(child)


def _before(first: Placed, second: Placed) -> int:
    """Negative where the first is read before the second: on the same line by their left edges,
    else by their middles."""
    (a, _), (b, _) = first, second
    down = a.center().y() - b.center().y()
    if 2 * abs(down) < min(a.height(), b.height()):
        return a.left() - b.left()
    return down
