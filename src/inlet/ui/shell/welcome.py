"""The first start: three answers, and what to begin with."""

from __future__ import annotations

from functools import partial
from typing import Literal

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QButtonGroup, QDialog, QRadioButton, QWidget

from inlet.core.numbers import CENTIMETRES, INCHES, System, vulgar_text
from inlet.core.project import usual_measure
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.shell.settings import Settings, Usual
from inlet.ui.widgets.inputs import ChoiceBox
from inlet.ui.widgets.parts import button, column, label, row, rule

Beginning = Literal["empty", "demo", "file", "shelf"]
WAYS: tuple[tuple[Beginning, str, str], ...] = (
    ("shelf", "A block from the shelf", "Choose one of some thirty designs, and make it yours."),
    ("empty", "An empty block", "Draw seams on a grid of three by three."),
    ("demo", "The demo", "A whole project: blocks, a quilt, fabrics."),
    ("file", "A file", "A project you have."),
)


class Welcome(QDialog):
    """``begun`` says what the maker begins with; the answers are kept in the settings."""

    begun = Signal(str)

    def __init__(self, parent: QWidget, settings: Settings) -> None:
        super().__init__(parent)
        self.settings = settings
        self.setWindowTitle("Welcome to Inlet")
        self.setAccessibleName("Welcome to Inlet")
        layout = column(self, 22, 9)
        layout.addWidget(label("Welcome to Inlet", "title"))
        layout.addWidget(label("Three answers, then you begin. All can be changed later.", "small"))
        usual = settings.usual
        self.inch, self.cm = self._pair(
            "I measure in", "inches", "centimetres", usual.system == "cm"
        )
        self.right, self.left = self._pair(
            "I cut with my", "right hand", "left hand", usual.handed == "left"
        )
        self.mark = ChoiceBox()
        self.mark.setAccessibleName("The finest mark I cut to")
        layout.addLayout(row(label("The finest mark I cut to"), self.mark, 1))
        self._offer_marks(usual.mark)
        self.cm.toggled.connect(lambda _: self._offer_marks(""))
        layout.addWidget(rule())
        layout.addWidget(label("Begin with", "heading"))
        self.ways = {}
        for way, words, more in WAYS:
            self.ways[way] = button(words, partial(self._begin, way))
            layout.addLayout(row(self.ways[way], label(more, "small", True), spacing=12))
            self.ways[way].setFixedWidth(theme.px(200))
        self.ways["shelf"].setDefault(True)

    def _pair(
        self, words: str, first: str, second: str, second_on: bool
    ) -> tuple[QRadioButton, QRadioButton]:
        """A question with two answers."""
        group = QButtonGroup(self)
        buttons = QRadioButton(first), QRadioButton(second)
        for each in buttons:
            each.setAccessibleName(f"{words} {each.text()}")
            group.addButton(each)
        buttons[int(second_on)].setChecked(True)
        layout = self.layout()
        assert layout is not None
        line = QWidget()
        line.setLayout(row(label(words), *buttons, 1, spacing=12))
        layout.addWidget(line)
        return buttons

    @property
    def system(self) -> System:
        return CENTIMETRES if self.cm.isChecked() else INCHES

    def _offer_marks(self, chosen: str) -> None:
        measure = usual_measure(self.system)
        self.mark.clear()
        for mark in measure.system.marks:
            self.mark.addItem(vulgar_text(length_text(mark, measure)), str(mark))
        at = self.mark.findData(chosen or str(measure.mark))
        self.mark.setCurrentIndex(max(0, at))

    def _begin(self, way: Beginning) -> None:
        self.settings.usual = Usual(
            system="cm" if self.cm.isChecked() else "inch",
            handed="left" if self.left.isChecked() else "right",
            mark=self.mark.currentData(),
        )
        self.accept()
        self.begun.emit(way)
