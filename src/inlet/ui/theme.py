"""The look: a calm workroom. Fabric-coloured ground, blue-green ink, one warm accent; or the same
room at night. Fabrics have their colours in both."""

from __future__ import annotations

import re
from typing import Literal

from PySide6.QtCore import QByteArray, QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontDatabase, QIcon, QPainter, QPalette, QPixmap
from PySide6.QtSvg import QSvgRenderer
from PySide6.QtWidgets import QApplication, QWidget

from inlet.assets import ASSETS, FONTS, ICONS
from inlet.core.draft import grey_of
from inlet.core.memo import memo

LIGHT = {
    "ground": "#ece6da", "panel": "#f6f2ea", "paper": "#fdfbf6", "ink": "#17414c",
    "ink-soft": "#4a666c", "line": "#cfc6b4", "accent": "#a8401c",
}  # fmt: skip
DARK = {
    "ground": "#1c2325", "panel": "#242c2e", "paper": "#2b3436", "ink": "#e6ecea",
    "ink-soft": "#a9babb", "line": "#4b595d", "accent": "#f0916a",
}  # fmt: skip
GROUND, PANEL, PAPER, INK, INK_SOFT, LINE, ACCENT = map(QColor, LIGHT.values())
"""The colours of the look that is on: each stays the same object, so that whoever holds one draws
in the new look, too."""
COLOURS = dict(zip(LIGHT, (GROUND, PANEL, PAPER, INK, INK_SOFT, LINE, ACCENT), strict=True))
INK_ON_LIGHT, INK_ON_DARK = QColor(LIGHT["ink"]), QColor("#ffffff")
"""What is read on a fabric."""
NO_FABRIC = QColor("#ffffff")
Chosen = Literal["system", "light", "dark"]

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


def apply(app: QApplication, scale: float = 1.0, look: Chosen = "light") -> None:
    """Give the application its style, typeface and colours; ``scale`` multiplies every text size. A
    window is dressed with the sheet by ``dress``."""
    global _scale
    _scale = max(0.5, min(3.0, scale))
    load_fonts()
    if app.style().name() != "fusion":
        app.setStyle("Fusion")
    app.setFont(font())
    dark = look == "dark" or (look == "system" and _system_is_dark(app))
    for name, colour in (DARK if dark else LIGHT).items():
        COLOURS[name].setRgb(QColor(colour).rgb())
    app.setPalette(_palette())


def is_dark() -> bool:
    """Is the dark look on?"""
    return PAPER.lightness() < INK.lightness()


def _system_is_dark(app: QApplication) -> bool:
    return app.styleHints().colorScheme() == Qt.ColorScheme.Dark


def _palette() -> QPalette:
    """The colours of what no sheet reaches, as the system's own dialogs."""
    palette, role = QPalette(), QPalette.ColorRole
    for roles, colour in (
        ((role.Window, role.Button, role.AlternateBase), PANEL),
        ((role.Base, role.ToolTipText, role.HighlightedText), PAPER),
        ((role.WindowText, role.Text, role.ButtonText, role.ToolTipBase, role.Highlight), INK),
        ((role.PlaceholderText,), INK_SOFT),
        ((role.Mid, role.Dark), LINE),
        ((role.Link,), ACCENT),
    ):
        for each in roles:
            palette.setColor(each, colour)
    for each in (role.WindowText, role.Text, role.ButtonText):
        palette.setColor(QPalette.ColorGroup.Disabled, each, LINE)
    return palette


def dress(window: QWidget) -> None:
    """Give a window, with all that is in it and every dialog of it, the style sheet at the text
    size. It is the window's, not the application's: Qt goes through a widget and all below it each
    time the widget is laid into another that has a sheet, so what a window holds is made outside
    it, and laid into the dressed window at once (2 to 3 times as fast)."""
    window.setStyleSheet(_sheet(_scale, is_dark()))


@memo(4)
def _sheet(scale: float, dark: bool) -> str:
    sheet = (ASSETS / "style.qss").read_text("utf-8")
    names = {
        **{f"@{name}": colour.name() for name, colour in COLOURS.items()},
        "@night": "-dark" if dark else "",
        "@icons": ICONS.as_posix().replace("\\", "\\\\").replace('"', '\\"'),
    }
    names |= {"@boxpx": f"{px(13)}px", "@roundpx": f"{px(13) // 2 + 2}px"}
    for points in (9, 10, 11, 13, 16, 20, 26):
        names[f"@{points}pt"] = f"{points * scale:.1f}pt"
    return re.sub("@[a-z0-9-]+", lambda name: names[name[0]], sheet)


def icon(name: str, colour: QColor = INK, size: int = 22) -> QIcon:
    """An icon of the set in a colour of the look."""
    return _icon(name, colour.name(), px(size), is_dark())


@memo(256)
def _icon(name: str, colour: str, size: int, dark: bool) -> QIcon:
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
    with QPainter(pixmap) as painter:
        painter.setOpacity(colour.alphaF())
        QSvgRenderer(QByteArray(text.encode())).render(painter, QRectF(0, 0, side, side))
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
    return QColor(INK_ON_LIGHT if light > 140 else INK_ON_DARK)
