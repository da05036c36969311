"""Where the edges of the quilt differ, and what can be done about it: the answers side by side."""

from __future__ import annotations

from functools import partial

from PySide6.QtWidgets import QFrame, QWidget

from inlet.core.numbers import vulgar_text
from inlet.core.plan import (
    TITLES,
    QuiltAnswer,
    QuiltPlan,
    apart_problems,
    comes_out,
    quilt_answers,
)
from inlet.core.project import Quilt, replace
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import Link, button, column, empty, label, row


@guarded
class FitPage(QWidget):
    """What differs, then a card for each answer; the one in use is marked, the others are taken by
    a click."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setAccessibleName("How the edges fit")
        layout = column(self, 0, 8)
        self.differs = label("", "", True)
        layout.addWidget(self.differs)
        self.cards = QWidget()
        self.body = column(self.cards, 0, 6)
        layout.addWidget(self.cards)
        self.answers: tuple[QuiltAnswer, ...] = ()
        self._of: QuiltPlan | None = None

    def refresh(self) -> None:
        """What differs at once; the answers take a while, and are worked out aside."""
        plan = self.session.quilt_plan
        if not plan.top.rows:
            self.differs.setText("No quilt is set yet.")
            self._show(plan, ())
            return
        problems = "\n".join(problem.text for problem in apart_problems(plan))
        self.differs.setText(vulgar_text(problems or "All edges meet within a thread."))
        if self._of is not plan:
            self.cards.setEnabled(False)  # what is shown is of the plan before
            self.session.think(lambda: quilt_answers(plan), partial(self._arrived, plan))

    def _arrived(self, plan: QuiltPlan, answers: tuple[QuiltAnswer, ...]) -> None:
        if self.session.quilt_plan is plan:
            self._show(plan, answers)

    def _show(self, plan: QuiltPlan, answers: tuple[QuiltAnswer, ...]) -> None:
        self._of, self.answers = plan, answers
        empty(self.body)
        self.cards.setEnabled(True)
        if answers:
            self.body.addWidget(label("What can be done", "heading"))
        for answer in answers:
            self.body.addWidget(self._card(answer))
        if plan.quilt.uneven:
            usual = Link("Take the usual one again", "link")
            usual.followed.connect(self._usual)
            self.body.addWidget(usual)

    def _card(self, answer: QuiltAnswer) -> QFrame:
        card = QFrame()
        card.setObjectName("answerUsed" if answer.in_use else "answer")
        layout = column(card, 8, 3)
        head = row(label(TITLES[answer.remedy], "heading"), 1)
        if answer.in_use:
            head.addWidget(label("in use", "tag"))
        else:
            use = button("Use", partial(self.take, answer))
            use.setAccessibleName(f"Use: {TITLES[answer.remedy]}")
            head.addWidget(use)
        layout.addLayout(head)
        layout.addWidget(label(vulgar_text(answer.done), "small", True))
        if answer.cannot:
            layout.addWidget(label(vulgar_text(answer.cannot), "warning", True))
        words = vulgar_text(comes_out(answer, self.session.measure))
        layout.addWidget(label(words, "caption", True))
        return card

    def take(self, answer: QuiltAnswer) -> None:
        """The project becomes that of the answer, unless it was edited since."""
        if self._of is self.session.quilt_plan and self._of.project == self.session.project:
            self.session.edit(answer.project)

    def _usual(self) -> None:
        quilt = self.session.project.quilt or Quilt()
        self.session.edit_quilt(replace(quilt, uneven=""))
