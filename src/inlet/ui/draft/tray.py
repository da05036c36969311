"""The tray: units to drop, drawn live in the fabrics they would get."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QSize, Qt, QTimer, Signal
from PySide6.QtGui import QPainter, QPen, QPixmap
from PySide6.QtWidgets import QToolButton, QWidget
from shiboken6 import isValid

from inlet.core.draft import (
    STAY,
    ReadyUnit,
    TrayUnit,
    fabrics_for,
    ready,
    ready_units,
    then,
    turned_unit,
)
from inlet.core.geometry import Turn
from inlet.core.planning import tray_units_of
from inlet.core.project import Block
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.drawing import path_of
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ChoiceBox, ToolButton
from inlet.ui.widgets.painting import colour_of
from inlet.ui.widgets.parts import column, empty, icon_button, label, row

CELL = 42
AFTER = 3000
"""Milliseconds from a window's beginning to its first idle work."""


@guarded
class Tray(QWidget):
    """Every kind of unit, and the units of a block of the project; turned and flipped as asked."""

    chosen = Signal(object)  # the TrayUnit as it would be dropped

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.turn: Turn = STAY
        self.picked: TrayUnit | None = None
        self._shown: object = None
        self._own: tuple[Block, Turn] | None = None  # whose units are asked for
        layout = column(self, 0, 6)
        layout.addWidget(label("Units to drop", "heading"))
        self.turner = icon_button("tool-turn", "Turn the unit a quarter (R)", self.turn_unit)
        self.flipper = icon_button("tool-mirror", "Flip the unit (F)", self.flip_unit)
        self.said = label("", "small", wrap=True)
        turns = row(self.said, self.turner, self.flipper)
        turns.setStretch(0, 1)
        layout.addLayout(turns)
        self.kinds = QWidget()
        self.kinds_flow = FlowLayout(self.kinds, 0, theme.px(4))
        layout.addWidget(self.kinds)
        self.blocks = ChoiceBox()
        self.blocks.setAccessibleName("Units of which block")
        self.blocks.activated.connect(lambda _i: self._fill_own())
        source = row(label("From", "small"), self.blocks)
        source.setStretch(1, 1)
        layout.addLayout(source)
        self.own = QWidget()
        self.own_flow = FlowLayout(self.own, 0, theme.px(4))
        layout.addWidget(self.own)
        self.buttons: dict[str, QToolButton] = {}  # the kinds of units, by their words
        self.own_buttons: dict[str, QToolButton] = {}  # those of a block, by their labels
        self._ready: dict[Turn, Sequence[ReadyUnit]] = {}  # the kinds of units, by their turn
        # Before the tray is opened, but not in the way of a window that opens.
        QTimer.singleShot(
            AFTER, self, lambda: session.think(ready_units, partial(self._show_kinds, STAY))
        )
        session.changed.connect(self.refresh)
        session.picked_fabric.connect(self.refresh)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def refresh(self) -> None:
        """Draw the tray anew where its fabrics or the blocks changed; only while it is seen."""
        session = self.session
        titles = [(b.id, b.title) for b in session.project.blocks]
        wanted = (session.project.fabrics, session.fabric, session.grey, titles, self.turn)
        if not self.isVisible() or wanted == self._shown:
            return
        self._shown = wanted
        turn = self.turn
        if turn in self._ready:
            self._show_kinds(turn, self._ready[turn])
        else:
            session.think(lambda: ready_units(turn), partial(self._show_kinds, turn))
        kept = self.blocks.currentData() or session.block_id
        self.blocks.clear()
        for block_id, title in titles:
            self.blocks.addItem(title, block_id)
        self.blocks.setCurrentIndex(max(0, self.blocks.findData(kept)))
        self._fill_own()
        self._mark()

    def _show_kinds(self, turn: Turn, kinds: Sequence[ReadyUnit]) -> None:
        """The kinds of units have been arranged in a turn; shown if the tray is seen and still in
        that turn, and the window has not been built anew."""
        if not isValid(self):
            return
        self._ready[turn] = kinds
        if turn != self.turn or not self.isVisible():
            return
        for ready_unit in kinds:
            words = ready_unit.tray_unit.words
            if words in self.buttons:  # in other fabrics, or turned
                self.buttons[words].setIcon(unit_picture(ready_unit, self.session))
            else:
                self.buttons[words] = self._button(ready_unit)
                self.kinds_flow.addWidget(self.buttons[words])
        self._mark(tell=False)

    def _fill_own(self) -> None:
        project, wanted = self.session.project, self.blocks.currentData()
        if wanted is None:
            self._empty_own()
            return
        block, turn = project.block(wanted), self.turn
        if self._own is None or self._own[0].id != block.id:
            self._empty_own()
        asked = self._own = block, turn

        def work() -> list[tuple[str, ReadyUnit]]:
            if asked is not self._own:
                return []
            return [(name, ready(tray_unit, turn)) for name, tray_unit in tray_units_of(block)]

        self.session.think(work, partial(self._show_own, asked))

    def _show_own(
        self, asked: tuple[Block, Turn], drawn_units: Sequence[tuple[str, ReadyUnit]]
    ) -> None:
        """The units of a block have been worked out; shown as those of the kinds are."""
        if asked is not self._own or not isValid(self):
            return
        self._empty_own()
        for name, ready_unit in drawn_units:
            button = self.own_buttons[name] = self._button(ready_unit)
            self.own_flow.addWidget(button)
        self._mark(tell=False)

    def _empty_own(self) -> None:
        empty(self.own_flow)
        self.own_buttons = {}

    def _button(self, ready_unit: ReadyUnit) -> QToolButton:
        tray_unit = ready_unit.tray_unit
        button = ToolButton()
        button.setCheckable(True)
        button.setObjectName("unit")
        button.setIcon(unit_picture(ready_unit, self.session))
        button.setIconSize(QSize(theme.px(CELL - 10), theme.px(CELL - 10)))
        button.setFixedSize(theme.px(CELL), theme.px(CELL))
        button.setToolTip(tray_unit.words)
        button.setAccessibleName(tray_unit.words)
        button.setProperty("unit", tray_unit.words)
        button.clicked.connect(lambda _=False: self.pick(tray_unit))
        return button

    # --- choosing -----------------------------------------------------------------------------

    def pick(self, tray_unit: TrayUnit) -> None:
        self.picked = tray_unit
        self._mark()

    def turn_unit(self) -> None:
        self._turned((1, False))

    def flip_unit(self) -> None:
        self._turned((0, True))

    def _turned(self, by: Turn) -> None:
        self.turn = then(self.turn, by)
        self._mark()
        self.refresh()

    def _mark(self, tell: bool = True) -> None:
        picked = self.picked
        for button in self.findChildren(QToolButton):
            if button.property("unit") is not None:
                button.setChecked(picked is not None and button.property("unit") == picked.words)
        self.said.setText(picked.words if picked is not None else "Choose one")
        if picked is not None and tell:
            self.chosen.emit(turned_unit(picked, self.turn))


def unit_picture(ready_unit: ReadyUnit, session: Session) -> QPixmap:
    """A unit small, in the fabrics it would be dropped in."""
    side = theme.px(CELL - 10) * 2
    pixmap = QPixmap(side, side)
    pixmap.fill(Qt.GlobalColor.transparent)
    with QPainter(pixmap) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        width, height = (float(x) for x in ready_unit.turned.size)
        k = (side - 4) / max(width, height)
        painter.translate(2 + (side - 4 - width * k) / 2, 2 + (side - 4 - height * k) / 2)
        fabrics = fabrics_for(session.project, None, session.fabric or "")
        pen = QPen(theme.INK, 2.4)
        pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
        painter.setPen(pen)
        for outline, part in ready_unit.patches:
            fabric = fabrics[min(part, len(fabrics) - 1)] if isinstance(part, int) else part
            painter.setBrush(colour_of(session.project, fabric, session.grey))
            painter.drawPath(path_of(outline, k, k))
    pixmap.setDevicePixelRatio(2)
    return pixmap
