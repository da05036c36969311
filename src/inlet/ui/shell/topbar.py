"""The bar along the top: which block, how large, measured and made how."""

from __future__ import annotations

from PySide6.QtCore import QPoint, QSize, Qt
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QComboBox, QFrame, QMenu, QToolButton, QWidget

from inlet.core.numbers import Exact, Fraction, NumberError, parse_length, show, vulgar_text
from inlet.core.project import LARGEST_BLOCK_INCHES, replace
from inlet.core.words import length_text, unit_of
from inlet.ui import theme
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ChoiceBox, ToolButton
from inlet.ui.widgets.parts import ValueEdit, column, label, row

LEAST_USED = (3, 4, 1, 5, 0)
"""Places of the tools that are missed least: grey view, table view, redo, print, undo."""
AFTER_BLOCK = 2
"""Where the fields begin in the bar: after the menu and the block."""


class TopBar(QWidget):
    """Everything here holds for the block or the whole project, on every stage."""

    def __init__(self, session: Session, menu: QMenu, actions: list[QAction]) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("topbar")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._layout = FlowLayout(self, theme.px(7), theme.px(12))
        self.folded = False
        self.captions: list[QWidget] = []
        self.fields: list[QWidget] = []
        self.tools: list[QWidget] = []
        self._make_menu(menu)
        self._make_fields()
        self._make_tools(actions)
        for edit in (self.width_edit, self.height_edit, self.seam):
            edit.refused.connect(session.said)
        session.changed.connect(self.refresh)
        self.refresh()

    def _make_menu(self, menu: QMenu) -> None:
        self.menu_button = ToolButton()
        self.menu_button.setIcon(theme.icon("menu"))
        self.menu_button.setIconSize(QSize(theme.px(20), theme.px(20)))
        menu.setParent(self.menu_button, menu.windowFlags())  # it goes with the bar
        self.menu_button.setMenu(menu)
        self.menu_button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.menu_button.setToolTip("Menu")
        self.menu_button.setAccessibleName("Menu")
        self.menu_button.setStyleSheet("QToolButton::menu-indicator { image: none; }")
        self._layout.addWidget(self.menu_button)
        self.blocks = ChoiceBox()
        self.blocks.setMinimumWidth(theme.px(130))
        self.blocks.setMaximumWidth(theme.px(220))
        self.blocks.setAccessibleName("Block")
        self.blocks.activated.connect(self._choose_block)
        self.captions.append(self._field("block", self.blocks)[1])

    def _make_fields(self) -> None:
        self.width_edit = ValueEdit("Finished width", self._set_width, 58)
        self.height_edit = ValueEdit("Finished height", self._set_height, 58)
        self.seam = ValueEdit("Seam allowance", self._set_seam, 52)
        self.ruler = ChoiceBox()
        self.ruler.setAccessibleName("Ruler mark")
        self.ruler.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToContents)
        self.ruler.activated.connect(self._set_ruler)
        self.style_box = ChoiceBox()
        self.style_box.addItems(["exact", "trim"])
        self.style_box.setAccessibleName("Cutting style: exact, or cut larger and trim")
        self.style_box.activated.connect(self._set_style)
        for caption, widget in (
            ("finished width", self.width_edit), ("finished height", self.height_edit),
            ("seam", self.seam), ("ruler mark", self.ruler), ("cutting style", self.style_box),
        ):  # fmt: skip
            self.fields.append(self._field(caption, widget)[0])

    def _make_tools(self, actions: list[QAction]) -> None:
        """Buttons of actions; and the one that opens the fields where the bar is folded."""
        for action in actions:
            button = ToolButton()
            button.setDefaultAction(action)
            button.setIconSize(QSize(theme.px(20), theme.px(20)))
            self.tools.append(button)
        self.summary = ToolButton()
        self.summary.setObjectName("summary")
        self.summary.setAccessibleName("Size, seam, marks and style")
        self.summary.setToolTip("Size, seam allowance, ruler marks and cutting style")
        self.summary.clicked.connect(self.show_fields)
        self.summary.hide()
        tools = QWidget()
        tools.setLayout(row(*self.tools, spacing=8))
        self._layout.addWidget(self.summary)
        self._layout.addWidget(tools)
        self.popup = QFrame(self, Qt.WindowType.Popup)
        self.popup.setObjectName("fields")
        self.popup_layout = column(self.popup, 14, 8)
        self.popup_layout.addStretch(1)

    def _field(self, caption: str, widget: QWidget) -> tuple[QWidget, QWidget]:
        """A field in the bar with its caption above it; both, and the caption."""
        new_widget = QWidget()
        inner = column(new_widget, spacing=0)
        above = label(caption, "caption")
        inner.addWidget(above)
        inner.addWidget(widget)
        self._layout.addWidget(new_widget)
        return new_widget, above

    def breadth(self, folded: bool, width: int) -> int:
        """How high it is in a window so wide, in pixels."""
        if folded:
            tall = max(w.sizeHint().height() for w in (self.menu_button, self.summary, self.blocks))
            return tall + 2 * theme.px(7)
        return self._open_height(width) if self.folded else self._layout.heightForWidth(width)

    def _open_height(self, width: int) -> int:
        """The height it would have with its fields in it: lines of what goes beside one another."""
        gap, room = theme.px(12), width - 2 * theme.px(7)
        shown = [size for widget, size in self._layout.sizes() if widget is not self.summary]
        sizes = [*shown[:2], *(field.sizeHint() for field in self.fields), *shown[2:]]
        x, lines, high = 0, 1, 0
        for size in sizes:
            if x and x + size.width() > room:
                x, lines = 0, lines + 1
            x, high = x + size.width() + gap, max(high, size.height())
        return lines * high + (lines - 1) * gap + 2 * theme.px(7)

    def fold(self, folded: bool) -> None:
        """One button with the size in words instead of the fields, which it opens; or the
        fields."""
        if folded == self.folded:
            return
        self.folded = folded
        for caption in self.captions:
            caption.setHidden(folded)
        if folded:
            for field in self.fields:
                self._layout.removeWidget(field)
                self.popup_layout.insertWidget(self.popup_layout.count() - 1, field)
                field.show()
        else:
            for place, field in enumerate(self.fields, AFTER_BLOCK):
                self.popup_layout.removeWidget(field)
                self._layout.insert(place, field)
                field.show()
        self.summary.setVisible(folded)

    def fit(self, width: int) -> None:
        """Folded, it is one line: tools that find no room in it are in the menu alone, those that
        are used least first."""
        gap, between = theme.px(12), theme.px(8)
        taken = sum(w.sizeHint().width() + gap for w in (self.menu_button, self.blocks))
        taken += self.summary.sizeHint().width() + gap + 2 * theme.px(7)
        tools = [tool.sizeHint().width() + between for tool in self.tools]
        away: set[int] = set()
        for place in LEAST_USED if self.folded else ():
            if taken + sum(w for i, w in enumerate(tools) if i not in away) <= width:
                break
            away.add(place)
        for i, tool in enumerate(self.tools):
            tool.setVisible(i not in away)
        self._layout.invalidate()

    def show_fields(self) -> None:
        """The fields, below their button; where they are in the bar, the first of them."""
        if self.folded:
            self.popup.adjustSize()
            self.popup.move(self.summary.mapToGlobal(QPoint(0, self.summary.height() + 2)))
            self.popup.show()
        self.width_edit.setFocus()
        self.width_edit.selectAll()

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
        size = (
            self._text(width) if width == height else f"{self._text(width)} × {self._text(height)}"
        )
        self.summary.setText(f"{size}, seam {self._text(session.measure.seam)}  ▾")

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
