"""What the maker has of a fabric: edited line by line, counted down as it is cut."""

from __future__ import annotations

from functools import partial

from PySide6.QtWidgets import QSizePolicy, QSpinBox, QWidget

from inlet.core.layout import (
    TITLES,
    new_have,
    per_cent,
    price_typed,
    size_hint,
    size_shown,
    size_typed,
)
from inlet.core.numbers import parse_length, show
from inlet.core.project import MOST_HAVE, MOST_SHRINK, Fabric, Have, replace
from inlet.core.words import unit_of
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import CheckBox, ChoiceBox, NumberBox
from inlet.ui.widgets.parts import ValueEdit, column, empty, icon_button, label, row, rule

WAYS = {"": "lies any way", "one-way": "has a top", "two-way": "has a stripe"}


@guarded
class HavePage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.fabric_id: str | None = None
        layout = column(self, 0, 8)
        self.which = ChoiceBox()
        self.which.setAccessibleName("Fabric")
        self.which.activated.connect(lambda i: self.show_fabric(self.which.itemData(i)))
        self.add = ChoiceBox()
        self.add.setAccessibleName("Add fabric you have")
        self.add.addItem("Add what you have …", "")
        for kind in TITLES:
            self.add.addItem(TITLES[kind], kind)
        self.add.activated.connect(self._add)
        for box in (self.which, self.add):
            box.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        layout.addWidget(self.which)
        self.lines = column(spacing=6)
        layout.addLayout(self.lines)
        layout.addWidget(self.add)
        layout.addWidget(rule())
        self.facts = column(spacing=6)
        layout.addLayout(self.facts)
        layout.addStretch(1)

    @property
    def fabric(self) -> Fabric | None:
        return self.session.project.fabric(self.fabric_id or "")

    def show_fabric(self, fabric: str | None) -> None:
        self.fabric_id = fabric
        self.refresh()

    def refresh(self) -> None:
        fabrics = self.session.project.fabrics
        if self.fabric is None and fabrics:
            self.fabric_id = fabrics[0].id
        self.which.clear()
        for fabric in fabrics:
            self.which.addItem(fabric.title, fabric.id)
        self.which.setCurrentIndex(max(0, self.which.findData(self.fabric_id)))
        empty(self.lines)
        empty(self.facts)
        fabric_now = self.fabric
        if fabric_now is not None:
            for i, have in enumerate(fabric_now.have):
                self._line(i, have)
            if not fabric_now.have:
                words = "Nothing entered yet. All fabric goes on the shopping list."
                self.lines.addWidget(label(words, "caption", True))
            self._facts(fabric_now)

    def _line(self, i: int, have: Have) -> None:
        measure = self.session.measure
        name = f"{TITLES[have.kind]}, size"
        size = ValueEdit(name, partial(self._size, i), 110)
        size.setPlaceholderText(size_hint(have.kind, measure))
        size.setToolTip(f"{name}: {size_hint(have.kind, measure)}")
        size.show_value(size_shown(have, measure))
        size.refused.connect(self.session.said)
        count = NumberBox()
        count.setRange(1, MOST_HAVE)
        count.setValue(have.count)
        count.setAccessibleName(f"{TITLES[have.kind]}, how many")
        count.editingFinished.connect(partial(self._count, i, count))
        away = icon_button("x", f"Take this away: {TITLES[have.kind]}", partial(self._away, i))
        self.lines.addLayout(row(count, label(TITLES[have.kind], "caption"), 1, away))
        self.lines.addLayout(row(size, label(unit_of(measure)), 1))

    def _facts(self, fabric: Fabric) -> None:
        measure = self.session.measure
        width = ValueEdit("Usable width", self._width, 56)
        width.show_value(show(self.session.project.fabric_width(fabric.id), system=measure.system))
        lies = ChoiceBox()
        lies.setAccessibleName("The print")
        for way, words in WAYS.items():
            lies.addItem(words, way)
        lies.setCurrentIndex(max(0, lies.findData(fabric.direction)))
        lies.activated.connect(lambda i: self._edit(direction=lies.itemData(i)))
        along = ValueEdit("Shrinkage lengthwise, per cent", partial(self._shrink, 0), 40)
        along.show_value(show(fabric.shrinkage[0]))
        across = ValueEdit("Shrinkage crosswise, per cent", partial(self._shrink, 1), 40)
        across.show_value(show(fabric.shrinkage[1]))
        unit = measure.system.long_unit.name
        price = ValueEdit(f"Price a {unit}", self._price, 56)
        price.show_value("" if fabric.price is None else f"{float(fabric.price):.2f}")
        long = CheckBox("Cut long pieces lengthwise")
        long.setChecked(fabric.lengthwise)
        long.toggled.connect(lambda on: self._edit(lengthwise=on))
        for value_edit in (width, along, across, price):
            value_edit.refused.connect(self.session.said)
        self.facts.addLayout(row(label("usable width"), width, label(unit_of(measure)), 1))
        self.facts.addLayout(row(label("the print"), lies, 1))
        self.facts.addWidget(long)
        self.facts.addLayout(row(label("shrinkage"), along, label("% lengthwise,"), 1))
        self.facts.addLayout(row(label("and"), across, label("% crosswise"), 1))
        self.facts.addLayout(row(label(f"a {unit} costs"), price, 1))

    # --- edits --------------------------------------------------------------------------------

    def _edit(self, **changes: object) -> None:
        fabric = self.fabric
        if fabric is not None:
            new_fabric = replace(fabric, **changes)
            self.session.edit(self.session.project.with_fabric(fabric.id, new_fabric))

    def _have(self, i: int, *now: Have) -> None:
        fabric = self.fabric
        if fabric is not None and i <= len(fabric.have):
            self._edit(have=(*fabric.have[:i], *now, *fabric.have[i + 1 :]))

    def _add(self, at: int) -> None:
        kind = self.add.itemData(at)
        self.add.setCurrentIndex(0)
        fabric = self.fabric
        if kind and fabric is not None and len(fabric.have) < MOST_HAVE:
            self._have(len(fabric.have), new_have(kind, self.session.measure.system))

    def _away(self, i: int) -> None:
        self._have(i)

    def _size(self, i: int, text: str) -> None:
        fabric = self.fabric
        if fabric is not None:
            self._have(i, size_typed(fabric.have[i], text, self.session.measure))

    def _count(self, i: int, box: QSpinBox) -> None:
        fabric = self.fabric
        if fabric is not None and i < len(fabric.have) and fabric.have[i].count != box.value():
            self._have(i, replace(fabric.have[i], count=box.value()))

    def _width(self, text: str) -> None:
        width = parse_length(text, self.session.measure.system)
        if width <= 0:
            raise ValueError("fabric must be wider than 0")
        self._edit(width=width)

    def _shrink(self, which: int, text: str) -> None:
        share = per_cent(text, MOST_SHRINK)
        fabric = self.fabric
        if fabric is not None:
            along, across = fabric.shrinkage
            self._edit(shrink=(share, across) if which == 0 else (along, share))

    def _price(self, text: str) -> None:
        self._edit(price=price_typed(text))
