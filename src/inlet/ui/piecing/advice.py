"""Seams that would spare a set-in, each with a button that draws it."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from inlet.core.draft import add_seams
from inlet.core.piecing import CUT_SHORT, advice_text
from inlet.core.project import Seam, straight
from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import button, column, empty, label


class AdviceList(QWidget):
    """Nothing where there is no advice, or none yet."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.body = column(self, 0, 4)
        session.planned.connect(self.refresh)
        session.advised.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        empty(self.body)
        advised_seams = self.session.advice
        self.setVisible(bool(advised_seams))
        if advised_seams:
            self.body.addWidget(label("Fewer set-in seams", "heading"))
        for number, advice in enumerate(advised_seams, 1):
            text = f"{number}.  {advice_text(advice, self.session.project)}"
            self.body.addWidget(label(text, "small", True))
            new_button = button(
                f"Draw seam {number}", partial(self._draw, straight(advice.start, advice.end))
            )
            self.body.addWidget(new_button, 0, Qt.AlignmentFlag.AlignLeft)
        if advised_seams and self.session.advice_cut_short:
            self.body.addWidget(label(CUT_SHORT, "small", True))

    def _draw(self, seam: Seam) -> None:
        self.session.edit_block(add_seams(self.session.block, [seam]))
