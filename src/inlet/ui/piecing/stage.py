"""The piecing stage: one step a card, with what lies on the table and the size to check."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QBoxLayout,
    QButtonGroup,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from inlet.core.draft.sizes import without_seams
from inlet.core.methods.rows import PRESS
from inlet.core.numbers.marks import nearest_mark
from inlet.core.piecing.assembling import run_lengths
from inlet.core.piecing.cards import cards, cloth_rows
from inlet.core.piecing.pictures import step_moves
from inlet.core.piecing.step import Step
from inlet.core.plan import BlockPlan
from inlet.core.planning.words import kind_words, method_words, move_text
from inlet.core.pressing.steps import step_press
from inlet.core.table.moves import Repeated, like_ones_together
from inlet.core.words import measured_text, size_text
from inlet.ui import theme
from inlet.ui.drawing import MovePicture
from inlet.ui.guard import guarded
from inlet.ui.parts import button, column, empty, label, row, scrolled, when_seen
from inlet.ui.piecing.needle import NeedlePage
from inlet.ui.piecing.sittings import SittingsPage
from inlet.ui.session import Session
from inlet.ui.tape import Reading

CAUTION = (
    "The iron and its steam are hot; take pins out before they reach the needle. The manuals of "
    "your own tools come first."
)
MOST_SHOWN = 12
LARGE_TEXT = 1.4


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
        self.card = QFrame()
        self.card.setObjectName("card")
        self.body = column(self.card, 20, 10)
        self.sittings = SittingsPage(session)
        self.needle = NeedlePage(session)
        self.pages = QStackedWidget()
        self.choices = QButtonGroup(self)
        chooser = QHBoxLayout()
        for i, (words, page) in enumerate(
            (("Steps", self.card), ("Sittings", self.sittings), ("Needle test", self.needle))
        ):
            self.pages.addWidget(scrolled(page, "page"))
            made = QPushButton(words)
            made.setCheckable(True)
            made.setChecked(i == 0)
            made.setAccessibleName(f"Piecing: {words.lower()}")
            self.choices.addButton(made, i)
            chooser.addWidget(made)
        chooser.addStretch(1)
        self.choices.idClicked.connect(self.turn_to)
        layout.addLayout(chooser)
        layout.addWidget(self.pages, 1)
        self.back = button("Back", lambda: self.go(self.index - 1), "chevron-left")
        self.onward = button("Next step", lambda: self.go(self.index + 1), "chevron-right")
        self.place = label("", "small")
        layout.addLayout(row(self.back, 1, self.place, 1, self.onward))
        self._show_anew = when_seen(self, self.refresh)
        session.planned.connect(self._planned)
        session.pressed.connect(self._pressed)
        session.selected.connect(self._picked)

    def turn_to(self, page: int) -> None:
        """Show the steps (0), the sittings (1) or the needle test (2)."""
        self.pages.setCurrentIndex(page)
        self.choices.button(page).setChecked(True)
        for shown in (self.back, self.place, self.onward):
            shown.setVisible(page == 0)

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

    def reading(self) -> Reading | None:
        """The size to check, for the tape."""
        plan = self.session.plan
        step = plan.steps[self.index] if plan and self.index < len(plan.steps) else None
        if plan is None or step is None or step.measures is None:
            return None
        width = nearest_mark(step.measures[0], plan.measure.system.checked_to)
        shown = without_seams(width, plan.measure)
        return Reading(f"{_name(step)} should measure", shown, width)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
        else:
            self.go(self.index + step)

    def refresh(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        empty(self.body)
        count = len(plan.steps)
        self.back.setEnabled(self.index > 0)
        self.onward.setEnabled(self.index < count - 1)
        self.place.setText(f"step {self.index + 1} of {count}" if count else "no steps")
        if plan.errors:
            self.body.addWidget(label("Not ready to sew", "heading"))
            for problem in plan.errors[:4]:
                self.body.addWidget(label(problem.text, "warning", True))
        if count:
            self._show(plan, plan.steps[self.index])
        elif not plan.errors:
            self.body.addWidget(label("One piece of cloth: there is nothing to sew.", "", True))
        self.body.addStretch(1)

    def _show(self, plan: BlockPlan, step: Step) -> None:
        self.body.addLayout(self._head(plan, step))
        moves = step_moves(plan.draft, step, plan.measure.seam)
        pressing = self.session.pressing
        pressed = step_press(pressing, step, plan.project) if pressing is not None else None
        if step.needs and step.unit is None:
            self.body.addLayout(self._beside(plan, step))
        if step.unit is None:
            self.body.addWidget(label(step.text, "", True))
        grid = QGridLayout()
        grid.setSpacing(theme.px(12))
        shown = like_ones_together(moves) if step.unit else [Repeated(m, 1) for m in moves]
        across = 1 if _large() else 3 if step.unit or len(shown) < 5 else 2
        shown = shown[:MOST_SHOWN]
        if pressed is not None:
            shown = [each for each in shown if each.move.text not in ("Sewn", PRESS)]
            shown += [Repeated(move, 1) for move in pressed.moves]
        for i, (move, number) in enumerate(shown):
            picture = MovePicture(move, plan.project, 150 if step.unit else 210, self.session.grey)
            picture.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
            grid.addWidget(picture, 2 * (i // across), i % across)
            text = move.text
            if step.unit and move.do != "press":
                stacks = plan.stacks[step.unit.unit.label]
                often = 1 if "{row}" in move.text else move.times * number
                times = f"  ({often} ×)" if often > 1 else ""
                method = step.unit.in_use
                text = move_text(move.text, method, plan.project, stacks, number) + times
            kind = "" if step.unit or move.do == "press" else "small"
            words = label(f"{i + 1}.  {text}", kind, True)
            words.setAlignment(Qt.AlignmentFlag.AlignTop)
            grid.addWidget(words, 2 * (i // across) + 1, i % across)
        for k in range(across):
            grid.setColumnStretch(k, 1)
        self.body.addLayout(grid)
        self._alike(plan, step)
        for note in step.notes:
            self.body.addWidget(label(note, "", True))
        if step.after_each:
            sizes = "; then ".join(measured_text(size, plan.measure) for size in step.after_each)
            self.body.addWidget(label(f"On the way it should measure {sizes}.", "small", True))
        if step.unit and step.unit.in_use.trim_to:
            trim = size_text(step.unit.in_use.trim_to, plan.measure)
            self.body.addWidget(label(f"Trim to {trim}", "heading"))
        self.body.addWidget(label(CAUTION, "caption", True))

    def _alike(self, plan: BlockPlan, step: Step) -> None:
        """The units made just like this one, of other cloths: what to take for each."""
        found = next(card for card in cards(plan.steps) if step in card.steps)
        if len(found.steps) < 2:
            return
        self.body.addWidget(label("The same way, of other cloths", "heading"))
        table = QGridLayout()
        table.setHorizontalSpacing(theme.px(18))
        table.setVerticalSpacing(theme.px(2))
        rows = cloth_rows(found, plan.stacks, plan.project)
        for i, row_ in enumerate(rows):
            here = found.steps[i] is step
            for k, words in enumerate(row_):
                table.addWidget(label(words, "heading" if here else ""), i, k)
        table.setColumnStretch(len(rows[0]), 1)
        self.body.addLayout(table)

    def _beside(self, plan: BlockPlan, step: Step) -> QBoxLayout:
        """What to lay beside the machine, in the order it is picked up, and the seam's ends."""
        made: QBoxLayout = QVBoxLayout() if _large() else QHBoxLayout()
        made.setSpacing(theme.px(6))
        made.addWidget(label("Beside the machine", "caption"))
        for name in run_lengths(step.needs).split(", ")[:12]:
            made.addWidget(label(name, "tag"))
        made.addStretch(1)
        if step.ends:
            made.addWidget(label(step.ends, "heading"))
        return made

    def _head(self, plan: BlockPlan, step: Step) -> QBoxLayout:
        """What is made on the left, the size to check, as large as anything, on the right."""
        left, right = column(spacing=2), column(spacing=0)
        left.addWidget(label(_title(step), "title", True))
        left.addWidget(label(f"make {step.times}" if step.times > 1 else "make one", "heading"))
        left.addStretch(1)
        if step.measures:
            figure, _, thread = measured_text(step.measures, plan.measure).partition(", ")
            caption = "should measure, raw edge to raw edge"
            words = [label(figure.replace(" x ", " × "), "figure"), label(caption, "caption")]
            if thread:
                words.insert(1, label(f"and {thread}", "heading"))
            for each in words:
                each.setAlignment(Qt.AlignmentFlag.AlignRight)
                right.addWidget(each)
        made: QBoxLayout = QVBoxLayout() if _large() else QHBoxLayout()
        made.addLayout(left, 1)
        made.addLayout(right)
        return made


def _large() -> bool:
    """Is the text so large that things stand below one another, not side by side?"""
    return theme.text_scale() >= LARGE_TEXT


def _name(step: Step) -> str:
    return "The block" if step.makes == "block" else step.makes.capitalize()


def _title(step: Step) -> str:
    if step.unit is None:
        return _name(step)
    method = step.unit.in_use.name
    words = f"{step.makes}   {kind_words(step.unit.unit.kind)}"
    return words if method == "plain" else f"{words}, {method_words(method)}"


def step_words(step: Step) -> str:
    """A step on one line, for the list."""
    times = f"   × {step.times}" if step.times > 1 else ""
    kind = f"   {kind_words(step.unit.unit.kind)}" if step.unit else ""
    return f"{step.number}   {_name(step) if not step.unit else step.makes}{kind}{times}"
