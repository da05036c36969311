"""Every page of every stage, walked: what lies over what, what is cut off."""

from __future__ import annotations

from collections.abc import Iterator

from PySide6.QtCore import QRect, Qt
from PySide6.QtGui import QFontMetrics
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QApplication,
    QCheckBox,
    QComboBox,
    QLabel,
    QMenu,
    QPushButton,
    QRadioButton,
    QToolButton,
    QWidget,
)

from inlet.ui.shell.rail import STAGES

SLACK = 2
"""Pixels a font's own rounding may take."""


def settle(window) -> None:
    for _ in range(4):
        QApplication.processEvents()


def pages(window, *, waited=lambda: None) -> Iterator[str]:
    """Turn to each page of each stage and of each ticket, in turn; its name."""
    for stage in STAGES:
        window.show_stage(stage)
        settle(window)
        waited()
        for side, root in zip(["stage", "ticket"], window.pair(stage), strict=True):
            tabs = [b for b in root.findChildren(QAbstractButton) if b.property("page")]
            for tab in tabs or [None]:
                if tab is not None:
                    if not tab.isVisible():
                        continue
                    tab.click()
                settle(window)
                waited()
                settle(window)
                yield f"{stage} {side} {tab.text() if tab is not None else ''}".strip()


def shown(window) -> list[QWidget]:
    """What is looked at: visible, and not a menu or a list that drops down."""
    return [
        w for w in window.findChildren(QWidget)
        if w.isVisible() and w.window() is window and not isinstance(w, QMenu)
    ]  # fmt: skip


def overlaps(window) -> list[str]:
    """Widgets of one parent that lie over one another."""
    found = []
    parents = {w.parentWidget() for w in shown(window)} - {None}
    for parent in parents:
        if isinstance(parent, QAbstractScrollArea | QComboBox):
            continue
        own = [
            c for c in parent.children()
            if isinstance(c, QWidget) and c.isVisible() and not c.isWindow()
            and c.objectName() not in ("say", "search", "help")
            and not c.testAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        ]  # fmt: skip
        for i, one in enumerate(own):
            for other in own[i + 1 :]:
                both = one.geometry() & other.geometry()
                if both.width() > SLACK and both.height() > SLACK:
                    found.append(f"{named(one)} over {named(other)}")
    return found


def named(widget: QWidget) -> str:
    words = widget.text() if hasattr(widget, "text") else ""
    return f"{type(widget).__name__} “{widget.accessibleName() or words or widget.objectName()}”"


def cut_texts(window) -> list[str]:
    """Labels, buttons and lists whose words do not find room in them; and what sticks out at the
    side of what it lies in."""
    found = []
    for w in shown(window):
        if isinstance(w, QLabel) and w.text() and not w.pixmap():
            need = w.heightForWidth(w.width()) if w.wordWrap() else w.sizeHint().height()
            wide = 0 if w.wordWrap() else w.sizeHint().width()
            if w.height() < need - SLACK or w.width() < wide - SLACK:
                found.append(f"{named(w)} {w.width()} x {w.height()}, needs {wide} x {need}")
        elif isinstance(w, QPushButton | QCheckBox | QRadioButton) and w.text():
            need = w.sizeHint()
            if w.width() < need.width() - SLACK or w.height() < need.height() - SLACK:
                found.append(f"{named(w)} {w.size().toTuple()}, needs {need.toTuple()}")
        elif isinstance(w, QToolButton):
            need = w.minimumSizeHint()
            if w.width() < need.width() - SLACK or w.height() < need.height() - SLACK:
                found.append(f"{named(w)} {w.size().toTuple()}, needs {need.toTuple()}")
        elif isinstance(w, QComboBox):
            wide = QFontMetrics(w.font()).horizontalAdvance(w.currentText()) + 26
            if w.width() < wide - SLACK:
                found.append(f"{named(w)} “{w.currentText()}” {w.width()}, needs {wide}")
        area = w.parentWidget()
        if area is not None and not sideways(w):
            out = w.geometry().right() - area.rect().right()
            if out > SLACK and area.width() > 1:
                found.append(f"{named(w)} sticks out {out} px of {named(area)}")
    return found


def sideways(widget: QWidget) -> bool:
    """Does it lie in something that scrolls to the side?"""
    above = widget.parentWidget()
    while above is not None:
        if isinstance(above, QAbstractScrollArea):
            bar = above.horizontalScrollBar()
            if bar is not None and bar.maximum() > bar.minimum():
                return True
        above = above.parentWidget()
    return False


def stage_share(window) -> float:
    area = window.stages.geometry()
    body: QRect = window.centralWidget().rect()
    return area.width() * area.height() / (body.width() * body.height())
