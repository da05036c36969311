"""How the block is pressed: method, neighbours, versions, marks, advice."""

from __future__ import annotations

from collections import Counter
from functools import partial

from PySide6.QtWidgets import QGridLayout, QWidget
from shiboken6 import isValid

from inlet.core.pressing import (
    CARE,
    METHOD_NOTES,
    METHOD_TITLES,
    SETTING_TITLES,
    STATE_ORDER,
    STATES,
    PressingAdvice,
    PressingPlan,
    beside_lines,
    pin_wish,
    points_text,
    pressing_advice,
    unpin_all,
)
from inlet.core.project import BlockPressing, Pressing, replace
from inlet.ui import theme
from inlet.ui.pressing.marks import JunctionMark
from inlet.ui.pressing.stage import PressingStage
from inlet.ui.pressing.weights import WeightsDialog
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import CheckBox, ChoiceBox
from inlet.ui.widgets.parts import Link, button, column, empty, label, row, rule

ALONE = "No block beside it is the same, so its outer seams are pressed on their own."
METHODS = tuple(METHOD_TITLES)
SETTINGS = (("", "As the quilt says"), ("alone", "Beside no other"), *SETTING_TITLES.items())


class PressingTicket(QWidget):
    def __init__(self, session: Session, stage: PressingStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        layout.addWidget(label("Pressing", "title"))
        self.figure = label("…", "size", True)
        self.cost = label("", "small", True)
        layout.addWidget(self.figure)
        layout.addWidget(self.cost)
        layout.addWidget(label("Pressing method", "heading"))
        self.method = ChoiceBox()
        self.method.setAccessibleName("Pressing method")
        for name in METHODS:
            self.method.addItem(METHOD_TITLES[name], name)
        self.method.activated.connect(self._take_method)
        layout.addWidget(self.method)
        self.note = label("", "small", True)
        layout.addWidget(self.note)
        weigh = Link("Pressing priorities…", "link", "The weights, with their reasons")
        weigh.followed.connect(self._weigh)
        layout.addWidget(weigh)
        layout.addWidget(label("Beside others like it", "heading"))
        self.setting = ChoiceBox()
        self.setting.setAccessibleName("How the block lies beside others like it")
        for beside, words in SETTINGS:
            self.setting.addItem(words[0].upper() + words[1:], beside)
        self.setting.activated.connect(self._take_setting)
        layout.addWidget(self.setting)
        self.versions = CheckBox("Two versions may be pressed")
        self.versions.clicked.connect(self._take_versions)
        layout.addWidget(self.versions)
        self.beside = label("", "small", True)
        layout.addWidget(self.beside)
        layout.addWidget(rule())
        layout.addWidget(label("Junctions", "heading"))
        self.marks = QGridLayout()
        self.marks.setHorizontalSpacing(theme.px(8))
        self.marks.setVerticalSpacing(theme.px(2))
        layout.addLayout(self.marks)
        self.unpin = button("Clear all pins", self._unpin)
        layout.addLayout(row(self.unpin, 1))
        layout.addWidget(rule())
        self.advice = column(spacing=6)
        layout.addLayout(self.advice)
        layout.addWidget(label(CARE, "caption", True))
        layout.addStretch(1)
        session.pressed.connect(self.refresh)
        session.changed.connect(self._choices)
        self._choices()
        if session.pressing_known:
            self.refresh()

    def _own(self) -> BlockPressing:
        return self.session.sewn_block.pressing or BlockPressing()

    def _choices(self) -> None:
        """What was chosen, as it is in the document."""
        whole = self.session.project.pressing or Pressing()
        wishes = self._own()
        method = wishes.method or whole.method
        self.method.setCurrentIndex(METHODS.index(method))
        self.note.setText(METHOD_NOTES[method])
        names = [name for name, _ in SETTINGS]
        self.setting.setCurrentIndex(names.index(wishes.setting))
        self.versions.setChecked(wishes.versions > 1)
        self.unpin.setVisible(bool(wishes.pins))

    def refresh(self) -> None:
        pressing = self.session.pressing
        empty(self.marks)
        empty(self.advice)
        if pressing is None:
            self.figure.setText("No seams")
            self.cost.setText("")
            self.beside.setText("")
            return
        good, crossed = pressing.nesting
        self.figure.setText(f"{good} of {crossed} nest" if crossed else "No crossings")
        gap = f", at most {points_text(pressing.gap)} from the least" if pressing.gap else ""
        proved = "" if pressing.gap else ", and nothing costs less"
        self.cost.setText(f"It costs {points_text(pressing.cost)}{gap}{proved}.")
        self.beside.setText(" ".join(beside_lines(pressing)) or ALONE)
        counts = Counter(m.state for m in pressing.junctions if m.junction.inside or m.counts)
        line = 0
        for state in STATE_ORDER:
            if counts[state]:
                self.marks.addWidget(JunctionMark(state), line, 0)
                self.marks.addWidget(label(str(counts[state]), "heading"), line, 1)
                self.marks.addWidget(label(STATES[state]), line, 2)
                line += 1
        self.marks.setColumnStretch(2, 1)
        project = self.session.project
        self.session.think_of_pressing(
            lambda: pressing_advice(pressing, project), partial(self._advised, pressing)
        )

    def _advised(self, pressing: PressingPlan, offers: list[PressingAdvice]) -> None:
        if pressing is not self.session.pressing or not isValid(self):  # text of another size
            return
        empty(self.advice)
        if offers:
            self.advice.addWidget(label("Advice", "heading"))
        for advice in offers:
            if advice[1:] == (None, None, None, False):
                self.advice.addWidget(label(advice.text, "small", True))
                continue
            link = Link(advice.text)
            link.followed.connect(partial(self._follow, pressing, advice))
            self.advice.addWidget(link)

    def _follow(self, pressing: PressingPlan, advice: PressingAdvice) -> None:
        """Take an advice: pin what it says, let go of a pin, or show the junction."""
        if pressing is not self.session.pressing:
            return
        wishes = self._own()
        if advice.take is not None:
            self.session.edit_block(pin_wish(pressing, advice.take))
        elif advice.two:
            self._take_versions(True)
        elif advice.drop is not None:
            pins = tuple(pin for i, pin in enumerate(wishes.pins) if i != advice.drop)
            self.session.edit_block(
                replace(self.session.sewn_block, pressing=replace(wishes, pins=pins))
            )
        else:
            met = next(m for m in pressing.junctions if m.junction.vertex == advice.vertex)
            self.stage.picture.pick(None, met)

    def _take_method(self, index: int) -> None:
        """For the whole project: a maker presses all blocks of a quilt one way."""
        project = self.session.project
        whole = project.pressing or Pressing()
        block = self.session.sewn_block
        if block.pressing is not None and block.pressing.method:
            project = project.with_block(
                replace(block, pressing=replace(block.pressing, method=""))
            )
        self.session.edit(replace(project, pressing=replace(whole, method=METHODS[index])))

    def _take_setting(self, index: int) -> None:
        wishes = replace(self._own(), setting=SETTINGS[index][0])
        self.session.edit_block(replace(self.session.sewn_block, pressing=wishes))

    def _take_versions(self, two: bool) -> None:
        wishes = replace(self._own(), versions=2 if two else 1)
        self.session.edit_block(replace(self.session.sewn_block, pressing=wishes))

    def _unpin(self) -> None:
        self.session.edit_block(unpin_all(self.session.sewn_block))

    def _weigh(self) -> None:
        whole = self.session.project.pressing or Pressing()
        method = self._own().method or whole.method
        dialog = WeightsDialog(method, whole.weights, self)
        if dialog.exec():
            weights = dialog.weights()
            self.session.edit(
                replace(self.session.project, pressing=replace(whole, weights=weights))
            )
