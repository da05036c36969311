"""Pressing priorities when seams are pressed: the table, with its reasons, to be edited."""

from __future__ import annotations

from collections.abc import Mapping

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QDoubleSpinBox, QGridLayout, QWidget

from inlet.core.numbers import Exact, Fraction
from inlet.core.pressing import METHOD_TITLES, MOST_POINTS, TABLE, points_of
from inlet.core.project import PressingMethod
from inlet.ui import theme
from inlet.ui.widgets.inputs import DecimalBox
from inlet.ui.widgets.parts import column, label, scrolled


class WeightsDialog(QDialog):
    """A number for each fault; what is left as the method has it follows the method."""

    def __init__(
        self, method: PressingMethod, own_weights: Mapping[str, Exact], parent: QWidget
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle("Pressing priorities")
        self.usual = points_of(method, {})
        layout = column(self, 16, 10)
        layout.addWidget(label(f"Pressing method: {METHOD_TITLES[method]}", "title"))
        layout.addWidget(
            label("In points. The pressing with the fewest points in all is taken.", "small", True)
        )
        body = QWidget()
        body.setObjectName("pageBody")
        grid = QGridLayout(body)
        grid.setHorizontalSpacing(theme.px(14))
        grid.setVerticalSpacing(theme.px(6))
        self.fields: dict[str, QDoubleSpinBox] = {}
        now = points_of(method, own_weights)
        for line, weight in enumerate(TABLE):
            words = column(spacing=0)
            words.addWidget(label(weight.title))
            words.addWidget(label(weight.reason, "caption", True))
            field = DecimalBox()
            field.setRange(0, MOST_POINTS)
            field.setDecimals(0 if weight.name == "foot" else 1)
            field.setValue(float(now[weight.name]))
            field.setAccessibleName(weight.title)
            self.fields[weight.name] = field
            grid.addLayout(words, line, 0)
            grid.addWidget(field, line, 1)
        grid.setColumnStretch(0, 1)
        layout.addWidget(scrolled(body, "page"), 1)
        kinds = QDialogButtonBox.StandardButton
        buttons = QDialogButtonBox(kinds.Ok | kinds.Cancel | kinds.RestoreDefaults)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        buttons.button(kinds.RestoreDefaults).clicked.connect(self._restore)
        layout.addWidget(buttons)
        self.resize(theme.px(560), theme.px(620))

    def _restore(self) -> None:
        for name, field in self.fields.items():
            field.setValue(float(self.usual[name]))

    def weights(self) -> dict[str, Exact]:
        """The maker's own: those that are not the method's."""
        return {
            name: Fraction(str(field.value()))
            for name, field in self.fields.items()
            if field.value() != float(self.usual[name])
        }
