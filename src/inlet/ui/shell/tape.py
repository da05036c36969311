"""The tape: the one place to read a size. A measuring tape to scale for whatever is pointed at:
finished length solid, allowances hatched, the exact size and the mark to cut at."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QBrush, QColor, QFont, QFontMetricsF, QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.numbers import Exact, Fraction, show, vulgar_text
from inlet.core.project import Measure
from inlet.core.words import length_text, unit_of
from inlet.ui import theme
from inlet.ui.guard import guarded


class Reading(NamedTuple):
    """What the tape shows: lengths along one side, in the project's system. ``exact`` is the size
    with all allowances, ``cut`` the ruler mark to cut at; either may be None. ``between`` is from
    how small to how large it comes out, mostly."""

    what: str
    finished: Exact | None
    exact: Exact | None = None
    cut: Fraction | None = None
    between: tuple[float, float] | None = None


USUAL, ONE_LINE = 84, 34
"""Pixels it is high, growing with the text: open, and folded to one line."""


@guarded
class Tape(QWidget):
    """The strip along the bottom of the window."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("tape")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.reading: Reading | None = None
        self.measure = Measure()
        self.folded = False
        self.setAccessibleName("Tape")

    def breadth(self, folded: bool) -> int:
        """How high it is, in pixels."""
        return theme.px(ONE_LINE if folded else USUAL)

    def fold(self, folded: bool) -> None:
        """All in one line, or with figures above one another."""
        if folded != self.folded:
            self.folded = folded
            self.updateGeometry()
            self.update()

    def sizeHint(self) -> QSize:
        return QSize(600, self.breadth(self.folded))

    def read(self, reading: Reading | None, measure: Measure) -> None:
        """Show a reading; None clears the tape."""
        if reading == self.reading and measure == self.measure:
            return
        self.reading, self.measure = reading, measure
        self.setAccessibleDescription(self.words())
        self.update()

    def words(self) -> str:
        """The reading in words, as for a screen reader."""
        if self.reading is None:
            return ""
        parts = [self.reading.what]
        for name, value in (
            ("finished", self.reading.finished),
            ("unfinished" if self.reading.cut is None else "exact", self.reading.exact),
            ("cut", self.reading.cut),
        ):
            if value is not None:
                parts.append(f"{name} {self._size(value)}")
        if self.reading.between is not None:
            parts.append(f"comes out {self._between(self.reading.between)}")
        return ", ".join(parts)

    def _between(self, reach: tuple[float, float]) -> str:
        return f"{reach[0]:.2f} to {reach[1]:.2f} {unit_of(self.measure)}"

    def _size(self, value: Exact) -> str:
        return vulgar_text(length_text(value, self.measure))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(theme.LINE, 1))
        painter.drawLine(QLineF(0, 0.5, self.width(), 0.5))
        left = theme.px(16)
        if self.reading is None:
            painter.setFont(theme.font(10))
            painter.setPen(theme.INK_SOFT)
            text = "Point at a patch, a seam or a piece: its size is measured here."
            painter.drawText(
                self.rect().adjusted(left, 0, -left, 0), Qt.AlignmentFlag.AlignVCenter, text
            )
            painter.end()
            return
        figures = self._draw_figures(painter, left)
        self._draw_tape(painter, figures + theme.px(24))
        painter.end()

    def _draw_figures(self, painter: QPainter, left: float) -> float:
        """The sizes in large figures; returns where they end."""
        reading = self.reading
        assert reading is not None
        small, large = theme.font(9), theme.font(20, QFont.Weight.DemiBold)
        x = left
        painter.setFont(theme.font(10.5, QFont.Weight.Medium))
        painter.setPen(theme.INK)
        metrics, most = QFontMetricsF(painter.font()), theme.px(190)
        what = metrics.elidedText(reading.what, Qt.TextElideMode.ElideRight, most)
        painter.drawText(QRectF(x, 0, most, self.height()), Qt.AlignmentFlag.AlignVCenter, what)
        x += min(most, metrics.horizontalAdvance(what)) + theme.px(18)
        raw = reading.exact if reading.cut is None else None
        sizes = (("cut", reading.cut), ("unfinished", raw), ("finished", reading.finished))
        texts = [(name, self._size(value)) for name, value in sizes if value is not None]
        if reading.between is not None:
            texts.append(("comes out", self._between(reading.between)))
        first = True
        for name, text in texts:
            font, first = (large if first else theme.font(14)), False
            if self.folded:
                x = self._draw_word(painter, name, x, small)
                self._draw_word(painter, text, x, theme.font(14, font.weight()), theme.INK)
                font = theme.font(14, font.weight())
            else:
                painter.setFont(small)
                painter.setPen(theme.INK_SOFT)
                painter.drawText(QPointF(x, self.height() * 0.27), name)
                painter.setFont(font)
                painter.setPen(theme.INK)
                painter.drawText(QPointF(x, self.height() * 0.70), text)
            x += QFontMetricsF(font).horizontalAdvance(text) + theme.px(18)
        return x

    def _draw_word(
        self, painter: QPainter, word: str, x: float, font: QFont, ink: QColor = theme.INK_SOFT
    ) -> float:
        """A word in the middle of the line; where the next one begins."""
        painter.setFont(font)
        painter.setPen(ink)
        wide = QFontMetricsF(font).horizontalAdvance(word)
        box = QRectF(x, 0, wide + 2, self.height())
        painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, word)
        return x + wide + theme.px(7)

    def _draw_tape(self, painter: QPainter, left: float) -> None:
        """The tape itself, to scale, as long as the room allows."""
        reading = self.reading
        assert reading is not None
        sizes = (reading.finished, reading.exact, reading.cut, *(reading.between or ()))
        longest = max(float(v) for v in sizes if v is not None)
        room = self.width() - theme.px(20) - left
        if room < 80 or longest <= 0:
            return
        shown = longest + 1.0
        top, high = (0.30, 0.52) if self.folded else (0.34, 0.30)
        band = QRectF(left, self.height() * top, room, self.height() * high)
        tape = _Tape(band, room / shown)
        painter.setPen(QPen(theme.INK, 1))
        painter.setBrush(theme.PAPER)
        painter.drawRect(tape.band)
        self._draw_piece(painter, tape, reading)
        self._draw_marks(painter, tape, shown)
        if reading.cut is not None:
            self._draw_cut(painter, tape, reading.cut)
        if reading.between is not None:
            self._draw_between(painter, tape, reading.between)

    def _draw_between(self, painter: QPainter, tape: _Tape, reach: tuple[float, float]) -> None:
        """A bracket from the smallest to the largest that it mostly comes out."""
        low, high = (tape.at(length) for length in reach)
        top = tape.band.top() - theme.px(7)
        painter.setPen(QPen(theme.ACCENT, 2.2))
        painter.drawLine(QLineF(low, top, high, top))
        for x in (low, high):
            painter.drawLine(QLineF(x, top, x, tape.band.bottom()))

    def _draw_piece(self, painter: QPainter, tape: _Tape, reading: Reading) -> None:
        """What is measured, laid on the tape: its allowances hatched, if it has any."""
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.INK_SOFT)
        if reading.finished is None:
            if reading.exact is not None:
                painter.drawRect(tape.from_to(0.0, float(reading.exact)))
            return
        finished = float(reading.finished)
        exact = float(reading.exact) if reading.exact is not None else finished
        spare = max(0.0, (exact - finished) / 2)
        painter.drawRect(tape.from_to(spare, spare + finished))
        painter.setBrush(QBrush(theme.INK, Qt.BrushStyle.BDiagPattern))
        for start in (0.0, spare + finished):
            painter.drawRect(tape.from_to(start, start + spare))

    def _draw_marks(self, painter: QPainter, tape: _Tape, shown: float) -> None:
        """The ruler's marks, or whole units where they would be too dense, and the numbers."""
        mark, band = float(self.measure.mark), tape.band
        steps = (1, 5, 10, 25, 50, 100, 250, 500, 1000)
        marks = (mark, *(float(step) for step in steps))
        unit = next((step for step in marks if step * tape.scale >= 3), marks[-1])
        least = theme.px(26)
        numbered = next((step for step in steps if step * tape.scale > least), steps[-1])
        painter.setFont(theme.font(8))
        for i in range(int(shown / unit) + 1):
            value = i * unit
            x = tape.at(value)
            whole = abs(value - round(value)) < 1e-9
            half = abs(value * 2 - round(value * 2)) < 1e-9
            length = band.height() * (0.45 if whole else 0.3 if half else 0.175)
            painter.setPen(QPen(theme.INK, 1))
            painter.drawLine(QLineF(x, band.bottom(), x, band.bottom() - length))
            if whole and i and round(value) % numbered == 0 and not self.folded:
                painter.setPen(theme.INK_SOFT)
                box = QRectF(x - 20, band.bottom() + 1, 40, self.height() - band.bottom())
                painter.drawText(box, Qt.AlignmentFlag.AlignHCenter, str(round(value)))

    def _draw_cut(self, painter: QPainter, tape: _Tape, cut: Exact) -> None:
        """Where the cut is made, its size on the side that has room."""
        x, band = tape.at(float(cut)), tape.band
        painter.setPen(QPen(theme.ACCENT, 2.2))
        painter.drawLine(QLineF(x, band.top() - band.height() * 0.45, x, band.bottom()))
        if self.folded:
            return
        painter.setFont(theme.font(9, QFont.Weight.DemiBold))
        text = f"cut {show(cut, system=self.measure.system, vulgar=True)}"
        wide = QFontMetricsF(painter.font()).horizontalAdvance(text)
        where = min(x + 5, band.right() - wide)
        painter.drawText(QPointF(where if where >= x else x - 5 - wide, band.top() - 4), text)


class _Tape(NamedTuple):
    """The tape as drawn: its band, and how many pixels a unit of length is."""

    band: QRectF
    scale: float

    def at(self, length: float) -> float:
        return self.band.left() + length * self.scale

    def from_to(self, start: float, end: float) -> QRectF:
        """A stretch of the band."""
        left = self.at(start)
        return QRectF(left, self.band.top(), self.at(end) - left, self.band.height())
