"""The bar along the top: which block, how large, measured and made how."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QComboBox, QMenu, QToolButton, QWidget

from inlet.core.numbers import Exact, Fraction, NumberError, parse_length, show, vulgar_text
from inlet.core.project import LARGEST_BLOCK_INCHES, replace
from inlet.core.words import length_text, unit_of
from inlet.ui import theme
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ChoiceBox, ToolButton
from inlet.ui.widgets.parts import ValueEdit, column, label, row


class TopBar(QWidget):
    """Everything here holds for the block or the whole project, on every stage."""

    def __init__(self, session: Session, menu: QMenu, actions: list[QAction]) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("topbar")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        layout = FlowLayout(self, theme.px(7), theme.px(12))
        self.menu_button = ToolButton()
        self.menu_button.setIcon(theme.icon("menu"))
        self.menu_button.setIconSize(QSize(theme.px(20), theme.px(20)))
        self.menu_button.setMenu(menu)
        self.menu_button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.menu_button.setToolTip("Project")
        self.menu_button.setAccessibleName("Project menu")
        self.menu_button.setStyleSheet("QToolButton::menu-indicator { image: none; }")
        layout.addWidget(self.menu_button)
        self.blocks = ChoiceBox()
        self.blocks.setMinimumWidth(theme.px(130))
        self.blocks.setMaximumWidth(theme.px(220))
        self.blocks.setAccessibleName("Block")
        self.blocks.activated.connect(self._choose_block)
        self._field(layout, "block", self.blocks)
        self.width_edit = ValueEdit("Finished width", self._set_width, 58)
        self.height_edit = ValueEdit("Finished height", self._set_height, 58)
        self._field(layout, "finished width", self.width_edit)
        self._field(layout, "finished height", self.height_edit)
        self.seam = ValueEdit("Seam allowance", self._set_seam, 52)
        self._field(layout, "seam", self.seam)
        self.ruler = ChoiceBox()
        self.ruler.setAccessibleName("Ruler mark")
        self.ruler.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToContents)
        self.ruler.activated.connect(self._set_ruler)
        self._field(layout, "ruler mark", self.ruler)
        self.style_box = ChoiceBox()
        self.style_box.addItems(["exact", "trim"])
        self.style_box.setAccessibleName("Cutting style: exact, or cut larger and trim")
        self.style_box.activated.connect(self._set_style)
        self._field(layout, "cutting style", self.style_box)
        tools = QWidget()
        buttons: list[QWidget | int] = []
        for action in actions:
            button = ToolButton()
            button.setDefaultAction(action)
            button.setIconSize(QSize(theme.px(20), theme.px(20)))
            buttons.append(button)
        tools.setLayout(row(*buttons, spacing=8))
        layout.addWidget(tools)
        for edit in (self.width_edit, self.height_edit, self.seam):
            edit.refused.connect(session.said)
        session.changed.connect(self.refresh)
        self.refresh()

    def _field(self, layout: FlowLayout, caption: str, widget: QWidget) -> None:
        new_widget = QWidget()
        inner = column(new_widget, spacing=0)
        inner.addWidget(label(caption, "caption"))
        inner.addWidget(widget)
        layout.addWidget(new_widget)

    def refresh(self) -> None:
        session = self.session
        self.blocks.blockSignals(True)
        self.blocks.clear()
        for block in session.project.blocks:
            self.blocks.addItem(block.title, block.id)
        self.blocks.setCurrentIndex(self.blocks.findData(session.block_id))
        self.blocks.blockSignals(False)
        width, height = session.block.finished
        self.width_edit.show_value(self._text(width))
        self.height_edit.show_value(self._text(height))
        self.seam.show_value(self._text(session.measure.seam))
        self.ruler.clear()
        marks = list(session.measure.system.marks)
        if session.measure.mark not in marks:
            marks.append(session.measure.mark)
        for mark in marks:
            self.ruler.addItem(vulgar_text(length_text(mark, session.measure)), mark)
        self.ruler.setCurrentIndex(marks.index(session.measure.mark))
        self.style_box.setCurrentText(session.measure.style)

    def _text(self, length: Exact) -> str:
        measure = self.session.measure
        return f"{show(length, system=measure.system, vulgar=True, ruler=True)} {unit_of(measure)}"

    # --- taking values ------------------------------------------------------------------------

    def _length(self, text: str) -> Exact:
        measure = self.session.measure
        value = parse_length(text.replace("≈", ""), measure.system)
        if value <= 0:
            raise NumberError("a size must be above 0")
        return value

    def _block_size(self, text: str) -> Exact:
        value = self._length(text)
        measure = self.session.measure
        largest = measure.from_inches(LARGEST_BLOCK_INCHES)
        if value > largest:
            raise NumberError(
                f"{length_text(value, measure)} is larger than a block can be "
                f"({length_text(largest, measure)})"
            )
        return value

    def _set_width(self, text: str) -> None:
        """A square grid's height follows its width, as long as the block was square."""
        block = self.session.block
        width, (old, height) = self._block_size(text), block.finished
        if old == height:
            height = width
        self.session.edit_block(replace(block, finished=(width, height)))

    def _set_height(self, text: str) -> None:
        block = self.session.block
        height = self._block_size(text)
        self.session.edit_block(replace(block, finished=(block.finished[0], height)))

    def _set_seam(self, text: str) -> None:
        seam = self._length(text)
        measure = self.session.measure
        most = measure.from_inches(Fraction(2))
        if not isinstance(seam, Fraction) or seam > most:
            raise NumberError(f"a seam allowance is at most {length_text(most, measure)}")
        self.session.edit_measure(replace(measure, seam=seam))

    def _set_ruler(self, index: int) -> None:
        measure = self.session.measure
        self.session.edit_measure(replace(measure, ruler=self.ruler.itemData(index)))

    def _set_style(self, _index: int) -> None:
        measure = self.session.measure
        self.session.edit_measure(replace(measure, style=self.style_box.currentText()))

    def _choose_block(self, index: int) -> None:
        self.session.show_block(self.blocks.itemData(index))
