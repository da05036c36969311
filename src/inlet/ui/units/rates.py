"""How long the maker takes for each thing: what the minutes are counted with."""

from __future__ import annotations

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QFormLayout, QSpinBox, QWidget

from inlet.core.project import Measure, Rates, replace
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import column, label


class RatesDialog(QDialog):
    """Seconds for a cut, a mark, a seam and its length, a press, a trim."""

    def __init__(self, rates: Rates, measure: Measure, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("My minutes")
        self._rates = rates
        layout = column(self, 16, 10)
        layout.addWidget(
            label("About how many seconds each takes me. All plans count with them.", "", True)
        )
        form = QFormLayout()
        long = f"{measure.system.rate_length} {measure.system.unit}"
        self.fields: dict[str, QSpinBox] = {}
        for name, words in (
            ("cut", "to cut one shape, or along one line"),
            ("mark", "to draw one line"),
            ("seam", "to lay, begin and end a seam"),
            ("length", f"to sew {long} of it"),
            ("press", "to press one seam"),
            ("trim", "to trim one unit"),
        ):
            field = NumberBox()
            field.setRange(0, 600)
            field.setSuffix(" s")
            field.setValue(getattr(rates, name))
            field.setAccessibleName(words)
            self.fields[name] = field
            form.addRow(words, field)
        layout.addLayout(form)
        buttons = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel
        )
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout.addWidget(buttons)

    def rates(self) -> Rates:
        """The rates as typed."""
        return replace(self._rates, **{name: f.value() for name, f in self.fields.items()})
