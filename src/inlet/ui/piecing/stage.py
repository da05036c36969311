"""The piecing stage: one step a card, with what lies on the table and the size to check."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QStackedWidget,
    QWidget,
)

from inlet.core.bench import block_things, progress
from inlet.core.draft import without_seams
from inlet.core.numbers import nearest_mark
from inlet.core.piecing import Step
from inlet.core.plan import BlockPlan
from inlet.core.planning import kind_words
from inlet.core.schedule import Work
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.piecing.card import StepPanel, step_name
from inlet.ui.piecing.seam_test import SeamTestPage
from inlet.ui.piecing.sittings import SittingsPage
from inlet.ui.shell.help_button import help_button
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import PushButton
from inlet.ui.widgets.parts import button, column, label, row, scrolled, when_seen
from inlet.ui.widgets.tabs import opens


@guarded
class PiecingStage(QWidget):
    """Step cards, forward and back with the buttons or the arrow keys."""

    pointed = Signal(object)
    moved = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.index = 0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        layout = column(self, 16, 10)
        self.card = StepPanel()
        self.body = self.card.body
        self.sittings = SittingsPage(session, self._work, session.planned)
        self.seam_test = SeamTestPage(session)
        self.pages = QStackedWidget()
        self.choices = QButtonGroup(self)
        chooser = QHBoxLayout()
        for i, (words, page) in enumerate(
            (
                ("Steps", self.card),
                ("Sittings", self.sittings),
                ("Seam allowance test", self.seam_test),
            )
        ):
            area = scrolled(page, "page")
            self.pages.addWidget(area)
            new_button = PushButton(words)
            new_button.setProperty("page", True)
            opens({i: new_button}, {i: area})
            new_button.setCheckable(True)
            new_button.setChecked(i == 0)
            new_button.setAccessibleName(f"Piecing: {words.lower()}")
            self.choices.addButton(new_button, i)
            chooser.addWidget(new_button)
        chooser.addStretch(1)
        self.choices.idClicked.connect(self.turn_to)
        layout.addLayout(chooser)
        layout.addWidget(self.pages, 1)
        self.back = button("Back", lambda: self.go(self.index - 1), "chevron-left")
        self.onward = button("Next step", lambda: self.go(self.index + 1), "chevron-right")
        self.place = label("", "small")
        self.undo_done = button("Not done", lambda: self.tick(-1))
        self.done = button("Done (space)", lambda: self.tick(1))
        self.bar = QWidget()
        flow = FlowLayout(self.bar, 0, theme.px(10))
        self.place.setMinimumHeight(self.back.sizeHint().height())
        for each in (self.back, self.onward, self.done, self.undo_done, self.place):
            flow.addWidget(each)
        layout.addWidget(self.bar)
        self._show_anew = when_seen(self, self.refresh)
        session.planned.connect(self._planned)
        session.pressed.connect(self._pressed)
        session.selected.connect(self._picked)
        self._planned()

    def _work(self) -> Work | None:
        plan = self.session.plan
        return None if plan is None else plan.work

    def turn_to(self, page: int) -> None:
        """Show the steps (0), the sittings (1) or the seam allowance test (2)."""
        self.pages.setCurrentIndex(page)
        self.choices.button(page).setChecked(True)
        self.bar.setVisible(page == 0)

    def _planned(self) -> None:
        plan = self.session.plan
        if plan is not None:
            self.index = max(0, min(self.index, len(plan.steps) - 1))
            self._show_anew()
            self.moved.emit()

    def _pressed(self) -> None:
        """How the step's seams are pressed has come to be known."""
        if self.session.pressing is not None:
            self._show_anew()

    def _picked(self) -> None:
        """A unit picked elsewhere: go to its step."""
        plan = self.session.plan
        for i, step in enumerate(plan.steps if plan else ()):
            if step.makes == self.session.label and i != self.index:
                self.go(i)

    def go(self, index: int) -> None:
        plan = self.session.plan
        if plan is None or not plan.steps:
            return
        self.index = max(0, min(index, len(plan.steps) - 1))
        self.turn_to(0)
        step = plan.steps[self.index]
        if step.unit:
            self.session.pick_unit(step.unit.unit.label)
        self._show_anew()
        self.moved.emit()
        self.pointed.emit(self.reading())

    def tick(self, by: int) -> None:
        """The step is done, and the next one shown; or it is not done, or the one before is not."""
        plan = self.session.plan
        if plan is None or not plan.steps:
            return
        things = block_things(plan)
        numbers = progress(self.session.project.log, things).done
        at = self.index
        if by < 0 and not numbers.get(things[at].name) and at:
            at -= 1
        thing = things[at]
        done = numbers.get(thing.name, 0)
        self.index = at
        self.session.tick(thing, done, by * thing.times)
        if by > 0 and at + 1 < len(things):
            self.go(at + 1)
        elif by < 0:
            self.go(at)

    def reading(self) -> Reading | None:
        """The size to check, for the tape."""
        plan = self.session.plan
        step = plan.steps[self.index] if plan and self.index < len(plan.steps) else None
        if plan is None or step is None or step.measures is None:
            return None
        width = nearest_mark(step.measures[0], plan.measure.system.checked_to)
        shown = without_seams(width, plan.measure)
        return Reading(f"{step_name(step)} should measure", shown, width)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        step = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(key)
        tick = {Qt.Key.Key_Space: 1, Qt.Key.Key_Backspace: -1}.get(key)
        if step is not None:
            self.go(self.index + step)
        elif tick is not None and self.pages.currentIndex() == 0:
            self.tick(tick)
        else:
            super().keyPressEvent(event)

    @property
    def hears(self) -> QWidget:
        """What takes the keys that its card or picture tells of."""
        return self

    def place_text(self, plan: BlockPlan) -> str:
        """``step 2 of 5, 4 of 4 done``."""
        if not plan.steps:
            return "no steps"
        thing = (things := block_things(plan))[self.index]
        progressed = progress(self.session.project.log, things)
        done, more = progressed.done.get(thing.name, 0), progressed.more(thing)
        number = f"{done} of {thing.times} done" if thing.times > 1 else "done"
        ticked = f", {number}" if done else ""
        ticked += f", {more} more are there" if more else ""
        return f"step {self.index + 1} of {len(plan.steps)}{ticked}"

    def refresh(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        self.card.clear()
        count = len(plan.steps)
        self.back.setEnabled(self.index > 0)
        self.onward.setEnabled(self.index < count - 1)
        self.place.setText(self.place_text(plan))
        self.done.setEnabled(count > 0)
        self.undo_done.setVisible("done" in self.place.text())
        if plan.errors:
            self.body.addWidget(label("Not ready to sew", "heading"))
            for problem in plan.errors[:4]:
                line = QWidget()
                told = label(problem.text, "warning", True)
                line.setLayout(row(told, help_button(self.session, partial(str, problem.code))))
                self.body.addWidget(line)
        if count:
            step = plan.steps[self.index]
            self.card.show_step(plan, step, self.session.pressing, self.session.grey)
        elif not plan.errors:
            self.body.addWidget(label("One piece of fabric: there is nothing to sew.", "", True))
        self.body.addStretch(1)


def step_words(step: Step) -> str:
    """A step on one line, for the list."""
    times = f"   × {step.times}" if step.times > 1 else ""
    kind = f"   {kind_words(step.unit.unit.kind)}" if step.unit else ""
    return f"{step.number}   {step_name(step) if not step.unit else step.makes}{kind}{times}"
