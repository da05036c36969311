"""The fabrics of the ticket: to lay, to name, to judge by value; and everything else in a
dialog."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QSize, Qt
from PySide6.QtGui import QColor, QIcon, QPainter, QPen, QPixmap
from PySide6.QtWidgets import (
    QColorDialog,
    QDialog,
    QDialogButtonBox,
    QFileDialog,
    QFormLayout,
    QLabel,
    QMenu,
    QPlainTextEdit,
    QToolButton,
    QWidget,
)

from inlet.core.draft import CLASSES, lightness, value_class
from inlet.core.numbers import Exact, NumberError, parse_length, show
from inlet.core.project import Fabric, Print, fresh_id, replace
from inlet.core.words import unit_of
from inlet.ui import theme
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import ChoiceBox, PushButton, ToolButton
from inlet.ui.widgets.painting import fabric_brush
from inlet.ui.widgets.parts import ValueEdit, button, column, drop, label, row
from inlet.ui.widgets.pictures import PICTURES, as_text, from_text, not_a_picture, read_picture

NEW_COLOURS = ("#8c6f9c", "#d8b24a", "#7f9fb5", "#a8483c", "#4f6b45", "#d9a69a", "#33302c")
LARGEST_PICTURE = 480
"""Pixels a print's picture keeps along its longer side: enough for any block on screen."""


class FabricList(QWidget):
    """A row a fabric: its swatch to lay it, its name, its value, and a pencil for the rest."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 5)
        self.rows = column(spacing=4)
        layout.addLayout(self.rows)
        layout.addLayout(row(button("Add a fabric", self.add_fabric, "plus"), 1))
        self.values: dict[str, QToolButton] = {}
        self._shown: list[tuple[object, QWidget]] = []  # the lines, with what each was drawn from
        session.changed.connect(self.refresh)
        session.picked_fabric.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Draw the lines of fabrics that changed anew."""
        session, before = self.session, self._shown
        wanted = [
            (number, fabric, fabric.id == session.fabric, session.grey)
            for number, fabric in enumerate(session.project.fabrics, 1)
        ]
        self._shown = []
        for i, drawn_from in enumerate(wanted):
            known, line = before[i] if i < len(before) else (None, None)
            if line is None or known != drawn_from:
                number, fabric, chosen, _ = drawn_from
                line, old = self._row(number, fabric, chosen), line
                if old is not None:
                    drop(self.rows, old)
                self.rows.insertWidget(i, line)
            self._shown.append((drawn_from, line))
        for _, line in before[len(wanted) :]:
            drop(self.rows, line)
        here = {fabric.id for fabric in session.project.fabrics}
        self.values = {name: value for name, value in self.values.items() if name in here}

    def _row(self, number: int, fabric: Fabric, chosen: bool) -> QWidget:
        session = self.session
        swatch = ToolButton()
        swatch.setCheckable(True)
        swatch.setChecked(chosen)
        swatch.setIcon(_swatch(session, fabric, chosen))
        swatch.setIconSize(QSize(theme.px(34), theme.px(22)))
        swatch.setObjectName("flat")
        swatch.setToolTip(f"Lay {fabric.title}" + (f" (key {number})" if number < 10 else ""))
        swatch.setAccessibleName(f"Fabric {fabric.title}")
        swatch.clicked.connect(lambda _=False: session.pick_fabric(fabric.id))
        name = ValueEdit(f"Name of {fabric.title}", self._namer(fabric))
        name.show_value(fabric.title)
        name.refused.connect(session.said)
        level = lightness(fabric.colour)
        value = ToolButton()
        value.setText(f"{value_class(fabric)}{'*' if fabric.value else ''}")
        value.setObjectName("value")
        value.setToolTip(
            f"Value: L* {level:.0f} of 100" + (", class set by you" if fabric.value else "")
        )
        value.setAccessibleName(f"Value of {fabric.title}: {value_class(fabric)}")
        value.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        value.setMenu(self._value_menu(fabric, value))
        self.values[fabric.id] = value
        more = ToolButton()
        more.setIcon(theme.icon("pencil"))
        more.setToolTip(f"Colour, print and notes of {fabric.title}")
        more.setAccessibleName(f"More about {fabric.title}")
        more.clicked.connect(lambda _=False: self.open(fabric))
        widget = QWidget()
        line = row(swatch, name, value, more, spacing=4)
        line.setStretch(1, 1)
        widget.setLayout(line)
        return widget

    def _value_menu(self, fabric: Fabric, parent: QWidget) -> QMenu:
        menu = QMenu(parent)
        for kind in ("", *CLASSES):
            action = menu.addAction(kind.capitalize() or "By its colour")
            action.setCheckable(True)
            action.setChecked(fabric.value == kind)
            action.triggered.connect(
                lambda _=False, k=kind: self._replace(fabric, replace(fabric, value=k))
            )
        return menu

    def _namer(self, fabric: Fabric) -> Callable[[str], None]:
        def take(text: str) -> None:
            if not text.strip():
                raise ValueError("a fabric needs a name")
            self._replace(fabric, replace(fabric, name=text.strip()))

        return take

    def _replace(self, old: Fabric, new: Fabric) -> None:
        self.session.edit(self.session.project.with_fabric(old.id, new))

    def open(self, fabric: Fabric) -> None:
        """Everything about a fabric, in a dialog."""
        dialog = FabricDialog(self.session, fabric, self)
        if dialog.exec() == QDialog.DialogCode.Accepted:
            dialog.take()

    def add_fabric(self) -> None:
        project = self.session.project
        number = len(project.fabrics) + 1
        name = f"Fabric {number}"
        taken = {f.id for f in project.fabrics}
        colour = NEW_COLOURS[number % len(NEW_COLOURS)]
        fabric = Fabric(id=fresh_id(name, taken), name=name, colour=colour)
        self.session.fabric = fabric.id
        self.session.edit(replace(project, fabrics=(*project.fabrics, fabric)))


def _swatch(session: Session, fabric: Fabric, chosen: bool) -> QIcon:
    width, height = theme.px(34) * 2, theme.px(22) * 2
    pixmap = QPixmap(width, height)
    pixmap.fill(theme.fabric_colour(fabric.colour, session.grey))
    with QPainter(pixmap) as painter:
        if fabric.print is not None:
            painter.save()
            painter.scale(24, 24)
            painter.fillRect(
                0, 0, width, height, fabric_brush(session.project, fabric.id, session.grey)
            )
            painter.restore()
        painter.setPen(QPen(theme.INK, 7 if chosen else 2))
        painter.drawRect(1, 1, width - 2, height - 2)
        if chosen:  # a tick, so that the choice is not told by the frame alone
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(theme.ink_on(theme.fabric_colour(fabric.colour, session.grey)), 6))
            x, y = width / 2, height / 2
            painter.drawPolyline(
                [QPointF(x - 14, y), QPointF(x - 3, y + 10), QPointF(x + 16, y - 11)]
            )
    pixmap.setDevicePixelRatio(2)
    return QIcon(pixmap)


class FabricDialog(QDialog):
    """A fabric's colour, print, usable width and notes; and another fabric in its place."""

    def __init__(self, session: Session, fabric: Fabric, parent: QWidget) -> None:
        super().__init__(parent)
        self.session, self.fabric = session, fabric
        self.colour, self.print, self.width_ = fabric.colour, fabric.print, fabric.width
        self.setWindowTitle(fabric.title)
        layout = column(self, 16, 10)
        form = QFormLayout()
        layout.addLayout(form)
        self.colour_button = button("", self.choose_colour)
        form.addRow("Colour", self.colour_button)
        self.value_text = label("", "small")
        form.addRow("", self.value_text)
        self.usable = ValueEdit("Usable width", self._set_width)
        usual = session.measure.system.fabric_width
        self.usable.setPlaceholderText(f"{self._text(usual)}, as usual")
        form.addRow("Usable width", self.usable)
        self.picture = QLabel()
        self.picture.setFixedSize(theme.px(220), theme.px(90))
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.picture.setAccessibleName("Picture of the print")
        self.no_print = PushButton("No picture")
        self.no_print.clicked.connect(self._drop_print)
        form.addRow("Print", self.picture)
        form.addRow("", _holding(button("Choose a picture…", self.choose_picture), self.no_print))
        self.shows = ValueEdit("Fabric the picture shows, side to side", self._set_shows)
        form.addRow("It shows", self.shows)
        self.notes = QPlainTextEdit(fabric.notes)
        self.notes.setFixedHeight(theme.px(70))
        self.notes.setTabChangesFocus(True)
        self.notes.setAccessibleName("Notes")
        form.addRow("Notes", self.notes)
        self.instead = ChoiceBox()
        self.instead.addItem("keep this fabric", "")
        for other_fabric in session.project.fabrics:
            if other_fabric.id != fabric.id:
                self.instead.addItem(
                    f"lay {other_fabric.title} in its place everywhere", other_fabric.id
                )
        self.instead.setAccessibleName("Replace this fabric everywhere")
        form.addRow("Replace", self.instead)
        self.said = label("", "warning", wrap=True)
        layout.addWidget(self.said)
        for edit in (self.usable, self.shows):
            edit.refused.connect(self.said.setText)
        buttons = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel
        )
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout.addWidget(buttons)
        self._show()

    def _show(self) -> None:
        self.colour_button.setText(self.colour)
        chip = QPixmap(theme.px(24), theme.px(24))
        chip.fill(QColor(self.colour))
        self.colour_button.setIcon(QIcon(chip))
        shown = replace(self.fabric, colour=self.colour)
        self.value_text.setText(f"Value: L* {lightness(self.colour):.0f}, {value_class(shown)}")
        self.usable.show_value(self._text(self.width_) if self.width_ is not None else "")
        self.no_print.setEnabled(self.print is not None)
        self.shows.setEnabled(self.print is not None)
        self.shows.show_value(self._text(self.print.width) if self.print is not None else "")
        if self.print is None:
            self.picture.setText("none: its colour is shown")
        else:
            image = from_text(self.print.image)
            self.picture.setPixmap(
                QPixmap.fromImage(image).scaled(
                    self.picture.size(), Qt.AspectRatioMode.KeepAspectRatio
                )
            )

    def _text(self, length: Exact) -> str:
        measure = self.session.measure
        return f"{show(length, system=measure.system, vulgar=True)} {unit_of(measure)}"

    def _length(self, text: str) -> Exact:
        value = parse_length(text, self.session.measure.system)
        if value <= 0:
            raise NumberError("a width must be above 0")
        return value

    def _set_width(self, text: str) -> None:
        self.width_ = self._length(text) if text.strip() else None
        self._show()

    def _set_shows(self, text: str) -> None:
        assert self.print is not None
        self.print = replace(self.print, width=self._length(text))
        self._show()

    def _drop_print(self) -> None:
        self.print = None
        self._show()

    def choose_colour(self) -> None:
        chosen = QColorDialog.getColor(QColor(self.colour), self, "Colour")
        if chosen.isValid():
            self.colour = chosen.name()
            self._show()

    def choose_picture(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Picture of the print", "", PICTURES)
        if not name:
            return
        image = read_picture(name, LARGEST_PICTURE)
        if image is None:
            self.said.setText(not_a_picture(name))
            return
        shows = self.print.width if self.print is not None else Print(image="").width
        if self.print is None:
            shows = self.session.measure.from_inches(shows)
        self.print = Print(image=as_text(image, "PNG"), width=shows)
        # A print's mean colour is what it does in value.
        mean = image.scaled(1, 1, mode=Qt.TransformationMode.SmoothTransformation).pixelColor(0, 0)
        self.colour = mean.name()
        self._show()

    def take(self) -> None:
        """Put what was changed into the project, as one edit."""
        project = self.session.project
        changed = replace(
            self.fabric,
            colour=self.colour,
            print=self.print,
            width=self.width_,
            notes=self.notes.toPlainText().strip(),
        )
        project = project.with_fabric(self.fabric.id, changed)
        other = self.instead.currentData()
        if other:
            project = project.in_place_of(self.fabric.id, other)
        self.session.edit(project)


def _holding(*widgets: QWidget) -> QWidget:
    widget = QWidget()
    widget.setLayout(row(*widgets, 1))
    return widget
