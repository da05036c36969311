"""The card of one step: what is made, the size to check, pictures of the work with their words."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QBoxLayout,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from inlet.core.methods import PRESS
from inlet.core.piecing import Step, cards, fabric_rows, run_lengths, step_moves
from inlet.core.plan import SewnBlock
from inlet.core.planning import kind_words, method_words, move_text
from inlet.core.pressing import PressingPlan, step_press
from inlet.core.table import Repeated, like_ones_together
from inlet.core.words import CUTTER, MANUALS, measured_text, size_text
from inlet.ui import theme
from inlet.ui.widgets.drawing import MovePicture
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.parts import column, empty, label

CAUTION = (
    "The iron and its steam are hot; take pins out before they reach the needle. The manuals of "
    "your own tools come first."
)
SMALL_PICTURE, PICTURE = 150, 210
MOST_SHOWN = 12
LARGE_TEXT = 1.4


class StepPanel(QFrame):
    """One step of a plan at a time, with how its seams are pressed once that is known. Pictures of
    parts are at least ``large``, in pixels; those of units are smaller."""

    def __init__(self, large: int = PICTURE) -> None:
        super().__init__()
        self.large = large
        self.setObjectName("card")
        self.body = column(self, 20, 10)

    def clear(self) -> None:
        empty(self.body)

    def show_step(
        self, plan: SewnBlock, step: Step, pressing: PressingPlan | None, grey: bool
    ) -> None:
        """Write the step below what is on the card."""
        self.body.addLayout(self._head(plan, step))
        sewn = plan.sewn_in(step)
        moves = step_moves(sewn.draft, step, plan.measure.seam)
        if sewn is not plan:
            pressing = sewn.pressing.best if sewn.pressing.settled else None
        pressed = step_press(pressing, step, plan.project) if pressing is not None else None
        if step.needs and step.unit is None:
            self.body.addWidget(_beside(step))
        if step.unit is None:
            self.body.addWidget(label(step.text, "", True))
        grid = QGridLayout()
        grid.setSpacing(theme.px(12))
        shown = like_ones_together(moves) if step.unit else [Repeated(m, 1) for m in moves]
        across = 1 if _large() else 3 if step.unit or len(shown) < 5 else 2
        shown = shown[:MOST_SHOWN]
        if pressed is not None:
            shown = [repeat for repeat in shown if repeat.move.text not in ("Sewn", PRESS)]
            shown += [Repeated(move, 1) for move in pressed.moves]
        for i, (move, number) in enumerate(shown):
            size = SMALL_PICTURE if step.unit else self.large
            picture = MovePicture(move, plan.project, size, grey)
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
        caution = f"{CUTTER} {MANUALS}" if step.cuts else CAUTION
        self.body.addWidget(label(caution, "caption", True))

    def _alike(self, plan: SewnBlock, step: Step) -> None:
        """The units made just like this one, of other fabrics: what to take for each."""
        step_card = next(card for card in cards(plan.steps) if step in card.steps)
        if len(step_card.steps) < 2:
            return
        self.body.addWidget(label("The same way, of other fabrics", "heading"))
        table = QGridLayout()
        table.setHorizontalSpacing(theme.px(18))
        table.setVerticalSpacing(theme.px(2))
        rows = fabric_rows(step_card, plan.stacks, plan.project)
        for i, row_ in enumerate(rows):
            here = step_card.steps[i] is step
            for k, words in enumerate(row_):
                table.addWidget(label(words, "heading" if here else ""), i, k)
        table.setColumnStretch(len(rows[0]), 1)
        self.body.addLayout(table)

    def _head(self, plan: SewnBlock, step: Step) -> QBoxLayout:
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
                words.insert(1, label(f"and {thread}", "heading", True))
            for each in words:
                each.setAlignment(Qt.AlignmentFlag.AlignRight)
                right.addWidget(each)
        layout: QBoxLayout = QVBoxLayout() if _large() else QHBoxLayout()
        layout.addLayout(left, 1)
        layout.addLayout(right)
        return layout


def _beside(step: Step) -> QWidget:
    """What to lay beside the machine, in the order it is picked up, and the seam's ends."""
    widget = QWidget()
    flow = FlowLayout(widget, 0, theme.px(6))
    place = "On the mat" if step.cuts else "Beside the machine"
    flow.addWidget(label(place, "caption"))
    for name in run_lengths(step.needs).split(", ")[:12]:
        flow.addWidget(label(name, "tag"))
    if step.ends:
        flow.addWidget(label(step.ends, "heading"))
    return widget


def _large() -> bool:
    """Is the text so large that things stand below one another, not side by side?"""
    return theme.text_scale() >= LARGE_TEXT


def step_name(step: Step) -> str:
    return "The block" if step.makes == "block" else f"{step.makes[0].upper()}{step.makes[1:]}"


def _title(step: Step) -> str:
    if step.unit is None:
        return step_name(step)
    method = step.unit.in_use.name
    words = f"{step.makes}   {kind_words(step.unit.unit.kind)}"
    return words if method == "plain" else f"{words}, {method_words(method)}"
