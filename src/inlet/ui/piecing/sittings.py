"""Sittings: the steps as evenings, each a bar of what is done where, to the minute."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QObject,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QRectF,
    QSize,
    Qt,
    SignalInstance,
)
from PySide6.QtGui import QBrush, QFont, QFontMetrics, QPainter, QPen
from PySide6.QtWidgets import (
    QFormLayout,
    QFrame,
    QListView,
    QSpinBox,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from inlet.core.project import Measure, Rates, replace
from inlet.core.schedule import (
    Sitting,
    Work,
    least_text,
    minutes_text,
    sitting_lines,
    thread_text,
    walks_text,
)
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import column, label, when_seen

_LOOKS = {
    "mat": (theme.PAPER, Qt.BrushStyle.NoBrush),
    "machine": (theme.INK_SOFT, Qt.BrushStyle.SolidPattern),
    "iron": (theme.PAPER, Qt.BrushStyle.BDiagPattern),
}
"""Ground and hatch of a place: told apart without colour."""
BAR, GAP = 26, 6
"""Pixels that a sitting's bar is high, and between two lines."""


class SittingsPage(QFrame):
    """How long the maker has and a bobbin lasts, then every sitting of the ``work`` there is, once
    it is known."""

    def __init__(
        self, session: Session, work: Callable[[], Work | None], known: SignalInstance
    ) -> None:
        super().__init__()
        self.setObjectName("card")
        self.session, self.work = session, work
        layout = column(self, 20, 10)
        layout.addWidget(label("Sittings", "title"))
        form = QFormLayout()
        form.setRowWrapPolicy(QFormLayout.RowWrapPolicy.WrapLongRows)
        self.minutes = self._number("time at a sitting", " min", 10, 600, "sitting")
        self.bobbin = self._number("thread on a full bobbin", " yd", 5, 500, "bobbin")
        form.addRow("I have", self.minutes)
        form.addRow("A bobbin holds", self.bobbin)
        layout.addLayout(form)
        self.nothing_words = label("There is nothing to sew yet.", "", True)
        self.summary_words, self.thread_words = label("", "heading", True), label("", "", True)
        self.list = SittingsList()
        for widget in (self.nothing_words, self.summary_words, self.thread_words):
            layout.addWidget(widget)
        layout.addWidget(self.list, 1)
        self.nothing_words.hide()
        when_seen(self, self.refresh, known)

    def _number(self, words: str, suffix: str, low: int, high: int, name: str) -> QSpinBox:
        spin_box = NumberBox()
        spin_box.setRange(low, high)
        spin_box.setSuffix(suffix)
        spin_box.setKeyboardTracking(False)
        spin_box.setAccessibleName(words)
        spin_box.setMaximumWidth(theme.px(130))
        spin_box.valueChanged.connect(lambda value: self._take(name, value))
        return spin_box

    @property
    def rates(self) -> Rates:
        return self.session.project.rates or Rates()

    def _take(self, name: str, value: int) -> None:
        if getattr(self.rates, name) != value:
            rates = replace(self.rates, **{name: value})
            self.session.edit(replace(self.session.project, rates=rates))

    def refresh(self) -> None:
        work, measure = self.work(), self.session.measure
        self.bobbin.setSuffix(f" {measure.system.long_unit.name}")
        for field, value in ((self.minutes, self.rates.sitting), (self.bobbin, self.rates.bobbin)):
            field.blockSignals(True)
            field.setValue(value)
            field.blockSignals(False)
        if work is None:  # not known yet: what is shown stays
            return
        self.summary_words.setVisible(bool(work.batches))
        self.thread_words.setVisible(bool(work.batches))
        self.nothing_words.setVisible(not work.batches)
        self.list.show_work(work, self.rates, measure)
        if work.batches:
            whole = minutes_text(work.minutes)
            number = len(work.sittings)
            many = f"{number} sittings" if number > 1 else "1 sitting"
            words = [f"{whole} in all", f"{many} {least_text(work)}", walks_text(work.batches)]
            self.summary_words.setText(", ".join(filter(None, words)))
            self.thread_words.setText(thread_text(work.thread, measure))


class SittingLine(NamedTuple):
    """A line of the list: the heading of a sitting with the bar to draw below it, or a batch."""

    text: str
    bar: tuple[Sitting, float] | None = None


@guarded
class _Lines(QAbstractListModel):
    """The lines of all sittings; a whole quilt has thousands."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.lines: list[SittingLine] = []

    def rowCount(self, parent: QModelIndex | QPersistentModelIndex | None = None) -> int:
        return 0 if parent is not None and parent.isValid() else len(self.lines)

    def data(self, index: QModelIndex | QPersistentModelIndex, role: int = 0) -> object:
        if role == Qt.ItemDataRole.DisplayRole and index.row() < len(self.lines):
            return self.lines[index.row()].text
        return None

    def take(self, lines: list[SittingLine]) -> None:
        self.beginResetModel()
        self.lines = lines
        self.endResetModel()


class SittingsList(QListView):
    """Every sitting: its heading, its batches side by side, and a line for each of them. Only what
    is seen is laid out and painted."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("sittings")
        self.setAccessibleName("Sittings")
        self.setMinimumHeight(theme.px(180))
        self.setUniformItemSizes(False)
        self.setLayoutMode(QListView.LayoutMode.Batched)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.setSelectionMode(QListView.SelectionMode.NoSelection)
        self.setVerticalScrollMode(QListView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.lines_ = _Lines(self)
        self.setModel(self.lines_)
        self.setItemDelegate(_Painter(self))

    def show_work(self, work: Work, rates: Rates, measure: Measure) -> None:
        longest = max((sitting.minutes for sitting in work.sittings), default=0.0)
        lines: list[SittingLine] = []
        sitting_texts = sitting_lines(work.sittings, rates, measure)
        for sitting, (head, batches) in zip(work.sittings, sitting_texts, strict=True):
            lines.append(SittingLine(head, (sitting, longest)))
            lines += map(SittingLine, batches)
        self.lines_.take(lines)

    @property
    def texts(self) -> list[str]:
        """What each line says."""
        return [line.text for line in self.lines_.lines]


@guarded
class _Painter(QStyledItemDelegate):
    """Paints a line, wrapped to the width there is; below a heading its sitting's bar."""

    def __init__(self, view: SittingsList) -> None:
        super().__init__(view)
        self.view = view

    def _font(self, line: SittingLine) -> QFont:
        return theme.font(11, QFont.Weight.DemiBold) if line.bar else theme.font(10.5)

    def _high(self, line: SittingLine, wide: int) -> int:
        """The height of a line's words in so much width."""
        metrics = QFontMetrics(self._font(line))
        room = QRect(0, 0, max(1, wide), 10_000)
        return metrics.boundingRect(room, int(Qt.TextFlag.TextWordWrap), line.text).height()

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> QSize:  # fmt: skip
        line = self.view.lines_.lines[index.row()]
        wide = self.view.viewport().width() - GAP
        bar = theme.px(BAR) + 2 * GAP if line.bar else 0
        return QSize(wide, self._high(line, wide) + bar + GAP)

    def paint(
        self,
        painter: QPainter,
        option: QStyleOptionViewItem,
        index: QModelIndex | QPersistentModelIndex,
    ) -> None:
        line = self.view.lines_.lines[index.row()]
        box = QRect(option.rect).adjusted(0, 0, -GAP, 0)
        painter.save()
        painter.setFont(self._font(line))
        painter.setPen(theme.INK)
        high = self._high(line, box.width())
        top = box.top() + (GAP if line.bar else 0)
        room = QRect(box.left(), top, box.width(), high)
        painter.drawText(room, int(Qt.TextFlag.TextWordWrap), line.text)
        if line.bar is not None:
            bar = QRect(box.left(), top + high + GAP // 2, box.width(), theme.px(BAR))
            paint_bar(painter, QRectF(bar), *line.bar)
        painter.restore()


def paint_bar(painter: QPainter, room: QRectF, sitting: Sitting, longest: float) -> None:
    """A sitting: its batches side by side, to scale with the ``longest`` one, in minutes."""
    wide, high = room.width() - 2.0, room.height() - 2.0
    painter.setPen(QPen(theme.LINE, 1))
    painter.setBrush(theme.PANEL)
    painter.drawRect(QRectF(room.x() + 1, room.y() + 1, wide, high))
    x, y = room.x() + 1.0, room.y() + 1.0
    painter.setFont(theme.font(9))
    for batch in sitting.batches:
        share = wide * batch.minutes / longest
        box = QRectF(x, y, share, high)
        ground, hatch = _LOOKS[batch.place]
        painter.fillRect(box, ground)
        painter.setPen(QPen(theme.INK, 1))
        painter.setBrush(QBrush(theme.LINE, hatch) if hatch else Qt.BrushStyle.NoBrush)
        if batch.place == "machine":
            painter.setBrush(theme.INK_SOFT)
        painter.drawRect(box)
        name = painter.fontMetrics().horizontalAdvance(batch.place)
        if share > name + 8:
            painter.setPen(theme.PAPER if batch.place == "machine" else theme.INK)
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, batch.place)
        x += share
    painter.setPen(QPen(theme.INK, 1))
    painter.drawLine(QPointF(x, y), QPointF(x, y + high))
