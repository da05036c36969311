"""The look: a calm workroom. Fabric-coloured ground, blue-green ink, one warm accent."""

from __future__ import annotations

import re

from PySide6.QtCore import QByteArray, QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontDatabase, QIcon, QPainter, QPixmap
from PySide6.QtSvg import QSvgRenderer
from PySide6.QtWidgets import QApplication, QWidget

from inlet.assets import ASSETS, FONTS, ICONS
from inlet.core.draft import grey_of
from inlet.core.memo import memo

GROUND = QColor("#ece6da")
PANEL = QColor("#f6f2ea")
PAPER = QColor("#fdfbf6")
INK = QColor("#17414c")
INK_SOFT = QColor("#5c7a80")
LINE = QColor("#cfc6b4")
ACCENT = QColor("#bf4b23")
NO_FABRIC = QColor("#ffffff")

FAMILY = "Fira Sans"
_BASE_POINTS = 10.5


def load_fonts() -> None:
    """Make the typeface known to Qt, once: each font added makes Qt forget what it has measured."""
    if FAMILY in QFontDatabase.families():
        return
    for path in sorted(FONTS.glob("*.ttf")):
        QFontDatabase.addApplicationFont(str(path))


def font(points: float = _BASE_POINTS, weight: QFont.Weight = QFont.Weight.Normal) -> QFont:
    """The typeface at a size for usual text; scaled with the maker's text size. Figures are
    tabular, so that columns of sizes line up."""
    typeface = QFont(FAMILY)
    typeface.setPointSizeF(points * text_scale())
    typeface.setWeight(weight)
    typeface.setFeature(QFont.Tag("tnum"), 1)
    return typeface


_scale = 1.0


def text_scale() -> float:
    return _scale


def px(length: float) -> int:
    """A length in pixels that grows with the text."""
    return round(length * _scale)


def apply(app: QApplication, scale: float = 1.0) -> None:
    """Give the application its style and typeface; ``scale`` multiplies every text size. A window
    is dressed with the sheet by ``dress``."""
    global _scale
    _scale = max(0.5, min(3.0, scale))
    load_fonts()
    if app.style().name() != "fusion":
        app.setStyle("Fusion")
    app.setFont(font())


def dress(window: QWidget) -> None:
    """Give a window, with all that is in it and every dialog of it, the style sheet at the text
    size. It is the window's, not the application's: Qt goes through a widget and all below it each
    time the widget is laid into another that has a sheet, so what a window holds is made outside
    it, and laid into the dressed window at once (2 to 3 times as fast)."""
    window.setStyleSheet(_sheet(_scale))


@memo(2)
def _sheet(scale: float) -> str:
    sheet = (ASSETS / "style.qss").read_text("utf-8")
    names = {
        "@ground": GROUND.name(),
        "@panel": PANEL.name(),
        "@paper": PAPER.name(),
        "@ink-soft": INK_SOFT.name(),
        "@ink": INK.name(),
        "@line": LINE.name(),
        "@accent": ACCENT.name(),
        "@icons": ICONS.as_posix().replace("\\", "\\\\").replace('"', '\\"'),
    }
    for points in (9, 10, 11, 13, 16, 20, 26):
        names[f"@{points}pt"] = f"{points * scale:.1f}pt"
    return re.sub("@[a-z0-9-]+", lambda name: names[name[0]], sheet)


def icon(name: str, colour: QColor = INK, size: int = 22) -> QIcon:
    """An icon of the set in a colour of the look."""
    return _icon(name, colour.name(), px(size))


@memo(128)
def _icon(name: str, colour: str, size: int) -> QIcon:
    new_icon = QIcon()
    new_icon.addPixmap(_drawn(name, QColor(colour), size))
    new_icon.addPixmap(_drawn(name, PAPER, size), QIcon.Mode.Normal, QIcon.State.On)
    faint = QColor(INK_SOFT)
    faint.setAlpha(110)
    new_icon.addPixmap(_drawn(name, faint, size), QIcon.Mode.Disabled)
    return new_icon


def _drawn(name: str, colour: QColor, size: int) -> QPixmap:
    text = (ICONS / f"{name}.svg").read_text("utf-8").replace("currentColor", colour.name())
    side = size * 2
    pixmap = QPixmap(side, side)
    pixmap.fill(Qt.GlobalColor.transparent)
    painter = QPainter(pixmap)
    painter.setOpacity(colour.alphaF())
    QSvgRenderer(QByteArray(text.encode())).render(painter, QRectF(0, 0, side, side))
    painter.end()
    pixmap.setDevicePixelRatio(2)
    return pixmap


def fabric_colour(colour: str | None, grey: bool = False) -> QColor:
    """A fabric's colour on screen; in grey view the grey as light as it."""
    if not colour:
        return QColor(NO_FABRIC)
    return QColor(grey_of(colour) if grey else colour)


def ink_on(colour: QColor) -> QColor:
    """Ink or white, whichever is read more easily on a colour."""
    light = 0.299 * colour.red() + 0.587 * colour.green() + 0.114 * colour.blue()
    return QColor(INK) if light > 140 else QColor("#ffffff")
