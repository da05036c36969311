"""Which piece of fabric lies on the mat: a button for each, or one list where the stage is low."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from typing import NamedTuple

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from inlet.ui import theme
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ChoiceBox, PushButton
from inlet.ui.widgets.parts import column, empty, label


class FabricChoice(NamedTuple):
    """A piece of fabric: ``Fog: 3 lengths`` in words, its whole ``name``, its size as a ``tip``;
    which length it is, 0 where there is only this; all of it ``done``."""

    words: str
    name: str
    tip: str
    length: int
    done: bool


class FabricChooser(QWidget):
    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.choices: Sequence[FabricChoice] = ()
        self.at = 0
        layout = column(self, 0, 8)
        self.fabrics, self.lengths = QWidget(), QWidget()
        self.chips = FlowLayout(self.fabrics, 0, theme.px(6))
        self.numbers = FlowLayout(self.lengths, 0, theme.px(6))
        self.list = ChoiceBox()
        self.list.setAccessibleName("Fabric on the mat")
        self.list.activated.connect(self.chosen)
        for each in (self.fabrics, self.lengths, self.list):
            layout.addWidget(each)
        self.low = False
        self.be_low(False)

    def be_low(self, low: bool) -> None:
        """One list, where the height is needed for the fabric."""
        self.low = low
        self.list.setVisible(low)
        self.fabrics.setVisible(not low)
        self.lengths.setVisible(not low and self.numbers.count() > 0)

    def show_choices(self, choices: Sequence[FabricChoice], at: int) -> None:
        """A button for each piece of fabric; one for all lengths of new fabric, and their numbers
        below where it is chosen."""
        self.choices, self.at = choices, at
        empty(self.chips)
        empty(self.numbers)
        self.list.clear()
        here = self._first(at) if choices else 0
        for i, choice in enumerate(choices):
            if self._first(i) == i:
                self.chips.addWidget(self._chip(i, choice.words, i == here))
            number = f", length {choice.length}" if choice.length else ""
            self.list.addItem(f"{choice.words}{number}{'  ✓' if choice.done else ''}")
        self.list.setCurrentIndex(at)
        same = [i for i in range(len(choices)) if self._first(i) == here]
        if len(same) > 1:
            words = label("length")
            self.numbers.addWidget(words)
            for place, i in enumerate(same, 1):
                chip = self._chip(i, str(place), i == at)
                self.numbers.addWidget(chip)
                words.setMinimumHeight(chip.sizeHint().height())
        self.be_low(self.low)

    def _first(self, at: int) -> int:
        """The first length of the fabric that is one of several; the piece of fabric itself."""
        length = self.choices[at].length
        return at - (length - 1) if length else at

    def _chip(self, at: int, words: str, on: bool) -> PushButton:
        """A button that lays a piece of fabric on the mat."""
        choice = self.choices[at]
        if choice.done:
            words += "  ✓"
        chip = PushButton(words)
        chip.setCheckable(True)
        chip.setChecked(on)
        chip.setAccessibleName(f"{choice.name}: {words}")
        chip.setToolTip(choice.tip)
        chip.clicked.connect(partial(self.chosen.emit, at))
        return chip
