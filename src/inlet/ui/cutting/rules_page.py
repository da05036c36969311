"""How the maker cuts: rulers, mat and blade, folds, squaring, what to spare, which hand."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QComboBox, QSpinBox, QWidget

from inlet.core.layout import (
    handled_by,
    handled_typed,
    mat_typed,
    per_cent,
    rulers_typed,
    tools_of,
    tools_shown,
)
from inlet.core.numbers import parse_length, show
from inlet.core.project import MOST_BLADE, MOST_EVERY, Cutting, replace
from inlet.core.words import unit_of
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import CheckBox, ChoiceBox, NumberBox
from inlet.ui.widgets.parts import ValueEdit, column, label, row

FOLDED = {0: "in a single layer", 1: "folded once", 2: "folded twice"}
GOAL = {
    "balance": "fabric and time balanced", "cloth": "least fabric", "cuts": "fewest cuts",
    "widths": "fewest strip widths",
}  # fmt: skip
HAND = {"right": "right-handed", "left": "left-handed"}


@guarded
class RulesPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 8)
        self.folds = self._choice("Fabric off the bolt lies", FOLDED, "folds")
        self.goal = self._choice("Lay out for", GOAL, "goal")
        self.handed = self._choice("The pictures are", HAND, "handed")
        self.blade = self._number("Layers cut at once, at most", 1, MOST_BLADE, "blade")
        self.every = self._number("Strips between squarings", 0, MOST_EVERY, "square_every")
        self.rulers = ValueEdit("Rulers", self._rulers, 96)
        self.rulers.setToolTip("Your rulers with commas between them, like 6 x 24, 12 1/2")
        self.mat = ValueEdit("Mat", self._mat, 64)
        self.handled = ValueEdit("Fabric cut up in lengths of about", self._handled, 48)
        self.squaring = ValueEdit("Squared off the end of each strip", self._square, 56)
        self.margin = ValueEdit("Bought more, per cent", self._margin, 44)
        self.wash = CheckBox("Fabric is washed first")
        self.wash.toggled.connect(lambda on: self._edit(wash=on))
        self.first = CheckBox("Scraps come before bolts")
        self.first.toggled.connect(lambda on: self._edit(scraps_first=on))
        for edit in (self.rulers, self.mat, self.handled, self.squaring, self.margin):
            edit.refused.connect(session.said)
        self.units = [label("") for _ in range(4)]
        layout.addLayout(row(label("fabric lies"), self.folds, 1))
        layout.addLayout(row(label("rulers"), self.rulers, self.units[0], 1))
        layout.addLayout(row(label("mat"), self.mat, self.units[1], 1))
        layout.addLayout(row(label("blade cuts"), self.blade, label("layers"), 1))
        layout.addLayout(row(label("in lengths of about"), self.handled, self.units[2], 1))
        layout.addLayout(row(label("square again every"), self.every, label("strips"), 1))
        layout.addWidget(label("0: at the start only", "caption"))
        layout.addLayout(row(label("squaring takes"), self.squaring, self.units[3], 1))
        layout.addLayout(row(label("spare"), self.goal, 1))
        layout.addLayout(row(label("pictures"), self.handed, 1))
        layout.addLayout(row(label("buy"), self.margin, label("% more, to be safe"), 1))
        layout.addWidget(self.wash)
        layout.addWidget(self.first)
        layout.addStretch(1)

    @property
    def rules(self) -> Cutting:
        return self.session.project.cutting or Cutting()

    def _choice(self, name: str, words: dict, key: str) -> QComboBox:  # type: ignore[type-arg]
        box = ChoiceBox()
        box.setAccessibleName(name)
        for value, text in words.items():
            box.addItem(text, value)
        box.activated.connect(lambda i: self._edit(**{key: box.itemData(i)}))
        return box

    def _number(self, name: str, low: int, high: int, key: str) -> QSpinBox:
        box = NumberBox()
        box.setRange(low, high)
        box.setAccessibleName(name)
        box.valueChanged.connect(lambda n: self._edit(**{key: n}))
        return box

    def refresh(self) -> None:
        rules, measure = self.rules, self.session.measure
        quiet: list[tuple[QWidget, Callable[[], object]]] = [
            (self.folds, lambda: self.folds.setCurrentIndex(self.folds.findData(rules.folds))),
            (self.goal, lambda: self.goal.setCurrentIndex(self.goal.findData(rules.goal))),
            (self.handed, lambda: self.handed.setCurrentIndex(self.handed.findData(rules.handed))),
            (self.blade, lambda: self.blade.setValue(rules.blade)),
            (self.every, lambda: self.every.setValue(rules.square_every)),
            (self.wash, lambda: self.wash.setChecked(rules.wash)),
            (self.first, lambda: self.first.setChecked(rules.scraps_first)),
        ]
        for widget, show_it in quiet:
            widget.blockSignals(True)
            show_it()
            widget.blockSignals(False)
        self.squaring.show_value(show(measure.squared_off, system=measure.system))
        self.margin.show_value(show(rules.margin))
        tools = tools_of(self.session.project)
        self.rulers.show_value(tools_shown(tools.rulers, measure.system))
        self.mat.show_value(tools_shown([tools.mat], measure.system))
        handled = handled_by(self.session.project)
        self.handled.show_value(show(handled, system=measure.system))
        for unit in self.units:
            unit.setText(unit_of(measure))

    def _edit(self, **changes: object) -> None:
        cutting = replace(self.rules, **changes)
        if cutting != self.rules:
            self.session.edit(replace(self.session.project, cutting=cutting))

    def _rulers(self, text: str) -> None:
        self._edit(rulers=rulers_typed(text, self.session.measure.system))
        self.refresh()

    def _mat(self, text: str) -> None:
        self._edit(mat=mat_typed(text, self.session.measure.system))
        self.refresh()

    def _handled(self, text: str) -> None:
        self._edit(handled=handled_typed(text, self.session.measure.system))
        self.refresh()

    def _square(self, text: str) -> None:
        measure = self.session.measure
        length = parse_length(text, measure.system)
        if not 0 <= length <= measure.from_inches(3):
            raise ValueError("it must be from 0 to 3 inches")
        self.session.edit_measure(replace(measure, squaring=length))

    def _margin(self, text: str) -> None:
        self._edit(margin=per_cent(text, 100))
