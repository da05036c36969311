"""Made sizes: what units and blocks measured once they were sewn, and what is done about it."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import (
    QBoxLayout,
    QFrame,
    QListWidget,
    QListWidgetItem,
    QWidget,
)

from inlet.core.bench import (
    ANSWER_WORDS,
    REMADE,
    MadeEffect,
    MadeThing,
    made_effects,
    made_of,
    made_things,
    number_done,
    sizes_typed,
    uneven_text,
    unmeasured_text,
    with_answer,
    with_measured,
    with_unpicked,
    without_measured,
)
from inlet.core.draft import without_seams
from inlet.core.numbers import nearest_mark, vulgar_text
from inlet.core.project import MadeAnswer, MadeUnit
from inlet.core.words import near_text, size_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.inputs import PushButton
from inlet.ui.widgets.parts import ValueEdit, button, column, empty, label, row, scrolled

LIST, LEAST_CARD = 230, 320
"""Pixels of the list, and of the card beside it at least."""
MOST = 2**24 - 1


@guarded
class MadePage(QWidget):
    """The list of what can be measured, and the card of one of it."""

    pointed = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.things: tuple[MadeThing, ...] = ()
        self.at = 0
        self.effects: tuple[MadeEffect, ...] = ()
        self.both = whole = QBoxLayout(QBoxLayout.Direction.LeftToRight, self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(theme.px(12))
        self.list = QListWidget()
        self.list.setAccessibleName("What can be measured")
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.currentRowChanged.connect(self._choose)
        whole.addWidget(self.list)
        card = QFrame()
        card.setObjectName("card")
        layout = column(card, 14, 8)
        self.title = label("", "title", True)
        self.figure = label("", "figure", True)
        self.planned = label("", "caption", True)
        self.edit = ValueEdit("Measured, raw edge to raw edge", self.measure, 230)
        self.edit.refused.connect(session.said)
        self.edit.setPlaceholderText("3 3/8, or 6 of 3 3/8, 2 of 3 7/16")
        self.state = label("", "heading", True)
        for widget in (self.title, self.planned, self.figure):
            layout.addWidget(widget)
        layout.addLayout(row(label("they measured"), self.edit, 1))
        layout.addWidget(self.state)
        self.unmeasured = label("", "warning", True)
        layout.addWidget(self.unmeasured)
        self.answers = column(spacing=8)
        layout.addLayout(self.answers)
        self.again = button("Make them again", self.make_again)
        self.forget = button("Forget the size", self.forget_size)
        layout.addLayout(row(self.again, self.forget, 1))
        layout.addStretch(1)
        whole.addWidget(scrolled(card, "page"), 1)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """With little room the list stands above the card."""
        wide = self.width() >= theme.px(LIST + LEAST_CARD)
        ways = QBoxLayout.Direction
        self.both.setDirection(ways.LeftToRight if wide else ways.TopToBottom)
        high = MOST if wide else max(80, self.height() // 4)
        self.list.setMaximumSize(theme.px(LIST) if wide else MOST, high)

    # --- what is shown ------------------------------------------------------------------------

    @property
    def thing(self) -> MadeThing | None:
        return self.things[self.at] if self.at < len(self.things) else None

    @property
    def unit(self) -> MadeUnit | None:
        """What was measured of the thing on the card."""
        return made_of(self.session.project, self.thing.thing) if self.thing else None

    def refresh(self) -> None:
        """The things of the plan, once it is known; those before stay until then."""
        session = self.session
        plan = session.work_plan
        if plan is not None:
            self.things = made_things(plan)
        self.list.blockSignals(True)
        self.list.clear()
        for each in self.things:
            unit = made_of(session.project, each.thing)
            size = near_text(each.planned, session.measure)
            words = f"{_name(each)}\n{size}"
            if unit is not None:
                words += f" → {near_text(unit.in_use, session.measure)}"
            self.list.addItem(QListWidgetItem(vulgar_text(words)))
        self.at = max(0, min(self.at, len(self.things) - 1))
        self.list.setCurrentRow(self.at)
        self.list.blockSignals(False)
        self._show()

    def _choose(self, at: int) -> None:
        self.at = max(0, at)
        self._show()

    def _show(self) -> None:
        thing, unit, measure = self.thing, self.unit, self.session.measure
        for widget in (self.figure, self.planned, self.edit, self.again, self.forget, self.state):
            widget.setVisible(thing is not None)
        self._show_answers(())
        self.unmeasured.hide()
        if thing is None:
            waits = self.session.work_plan is None
            self.title.setText("Working out the sizes …" if waits else "Nothing can be measured")
            return
        self.title.setText(_name(thing))
        size = unit.in_use if unit is not None else thing.planned
        self.figure.setText(vulgar_text(near_text(size, measure)))
        planned = size_text(thing.planned, measure)
        self.planned.setText(
            vulgar_text(f"unfinished, as it measured; planned {planned}" if unit else "unfinished")
        )
        self.edit.show_value(_typed(unit, self.session) if unit is not None else "")
        self.state.setText(
            vulgar_text(uneven_text(unit, thing.planned, measure)) if unit is not None
            else "Measure some of them before you sew on: all later sizes can follow."
        )  # fmt: skip
        text = unmeasured_text(self.things, self.session.project)
        self.unmeasured.setText(text)
        self.unmeasured.setVisible(bool(text))
        self.again.setVisible(unit is not None)
        self.again.setEnabled(self._sewn() > 0)
        self.forget.setVisible(unit is not None)
        if unit is not None:
            self._ask_effects(thing, unit)
        self.pointed.emit(self.reading())

    def _ask_effects(self, thing: MadeThing, unit: MadeUnit) -> None:
        """Work out aside what comes of each answer."""
        project = self.session.project
        self._show_answers(())

        def take(effects: tuple[MadeEffect, ...]) -> None:
            if self.unit == unit and self.session.project is project:
                self._show_answers(effects)

        self.session.think_of_sizes(
            lambda: tuple(made_effects(project, unit, thing.block, thing.whole)), take
        )

    def _show_answers(self, effects: tuple[MadeEffect, ...]) -> None:
        self.effects = effects
        empty(self.answers)
        unit = self.unit
        for effect in effects:
            used = unit is not None and unit.answer == effect.answer
            frame = QFrame()
            frame.setObjectName("answerUsed" if used else "answer")
            inside = column(frame, 10, 4)
            use = PushButton(ANSWER_WORDS[effect.answer])
            use.setCheckable(True)
            use.setChecked(used)
            use.clicked.connect(lambda _=False, a=effect.answer: self.answer(a))
            inside.addLayout(row(use, 1))
            first, *rest = effect.lines
            inside.addWidget(label(first, "" if effect.fits else "warning", True))
            inside.addWidget(label("\n".join(rest), "small", True))
            self.answers.addWidget(frame)

    def reading(self) -> Reading | None:
        """The size to check, for the tape."""
        thing, unit, measure = self.thing, self.unit, self.session.measure
        if thing is None:
            return None
        wide = (unit.in_use if unit is not None else thing.planned)[0]
        wide = nearest_mark(wide, measure.system.fine_mark)
        what = "measured" if unit is not None else "should measure"
        return Reading(f"{_name(thing)} {what}", without_seams(wide, measure), wide)

    # --- what is done -------------------------------------------------------------------------

    def _sewn(self) -> int:
        """How many are sewn by the log."""
        return number_done(self.session.project.log, self.thing.thing) if self.thing else 0

    def measure(self, text: str) -> None:
        """A size as it is typed. Raises ``NumberError`` or ``ValueError`` with what is wrong."""
        thing, session = self.thing, self.session
        if thing is None:
            return
        of = thing.thing
        sizes = sizes_typed(text, of, self._sewn() or of.times, session.measure)
        unit = self.unit
        answer: MadeAnswer = unit.answer if unit is not None else "match"
        session.edit(with_measured(session.project, of, sizes, answer, session.now, thing.whole_of))

    def answer(self, answer: MadeAnswer) -> None:
        """What is done about the size on the card."""
        thing, unit, session = self.thing, self.unit, self.session
        if thing is not None and unit is not None:
            session.edit(with_answer(session.project, unit, answer, thing.whole_of))
            self._show()

    def forget_size(self) -> None:
        """What was measured no longer holds."""
        thing, unit, session = self.thing, self.unit, self.session
        if thing is not None and unit is not None:
            session.edit(without_measured(session.project, unit, thing.whole_of))

    def make_again(self) -> None:
        """What was measured is unpicked, to be made as planned."""
        thing, unit, session = self.thing, self.unit, self.session
        if thing is not None and unit is not None:
            project = without_measured(session.project, unit, thing.whole_of)
            number = min(unit.count, self._sewn())
            session.edit(with_unpicked(project, thing.thing, number, REMADE, session.now))


def _name(thing: MadeThing) -> str:
    """``Sluice A``."""
    return thing.thing.name.partition(" ")[2]


def _typed(unit: MadeUnit, session: Session) -> str:
    """What was measured, as it is typed."""
    measure = session.measure
    ending = f" {measure.system.unit}"
    sizes = [
        (near_text(each.size, measure).replace(ending, ""), each.number) for each in unit.measured
    ]
    if len(sizes) == 1:
        return sizes[0][0]
    return ", ".join(f"{number} of {size}" for size, number in sizes)
