"""One line on a block's ticket: how many of its points are at risk. It leads to the page that
shows them."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

from inlet.core.numbers import vulgar_text
from inlet.core.tolerance import ticket_line
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import Link, column, when_seen

TIP = "Go to What will it do? at the bench"


LINES = 2
REST = 700
"""Milliseconds without another plan before the line is worked out: it may come a moment later, what
is drawn and planned may not."""


@guarded
class RiskLine(QWidget):
    """Worked out aside once the hand rests, while it is looked at; what it said before stays until
    then. Of several edits that follow one another only the last is looked at."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self)
        self.link = Link("", tip=TIP)
        self.followed = self.link.followed
        layout.addWidget(self.link)
        layout.addStretch(1)
        # It comes and goes while the hand is over what stands below: its room is always there.
        self.setFixedHeight(LINES * self.link.fontMetrics().lineSpacing())
        self.link.hide()
        self._of: object = None  # the plan and the log it was asked of
        self._thinking = False
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(REST)
        self._soon.timeout.connect(self._ask)
        self.refresh = when_seen(self, self._soon.start, session.planned, session.changed)

    def _now(self) -> object:
        """What the line follows from: the plan, and the log, which the hand is learnt from."""
        return self.session.plan, self.session.project.log

    def _ask(self) -> None:
        plan, work, asked = self.session.plan, self.session.work_plan, self._now()
        if plan is None or asked == self._of or self._thinking:
            return
        self._of, self._thinking = asked, True
        project = self.session.project
        self.session.think(
            partial(ticket_line, plan.asked, work or plan, project), partial(self._told, asked)
        )

    def _told(self, asked: object, line: str) -> None:
        self._thinking = False
        if asked != self._now():
            self._soon.start()
            return
        self.link.setText(vulgar_text(line))
        self.link.setVisible(bool(line))
