"""The ticket of the quilt: its size, how it is set, what goes round it, its colours, its places."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from inlet.core.numbers import vulgar_text
from inlet.core.plan import apart_text
from inlet.core.words import near_text
from inlet.ui.guard import guarded
from inlet.ui.quilt.colours_page import ColoursPage
from inlet.ui.quilt.edges_page import EdgesPage
from inlet.ui.quilt.fit_page import FitPage
from inlet.ui.quilt.place_page import PlacePage
from inlet.ui.quilt.quilting_page import QuiltingPage
from inlet.ui.quilt.setting_page import SettingPage
from inlet.ui.shell.help_button import help_button
from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import column, label, row, rule
from inlet.ui.widgets.tabs import opens, tabs

PAGES = (
    ("setting", "Setting"), ("edges", "Edges"), ("colours", "Colours"), ("place", "Place"),
    ("quilting", "Quilting"), ("fit", "Fit"),
)  # fmt: skip


@guarded
class QuiltTicket(QWidget):
    turned = Signal(str)  # another page is shown

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._codes: list[str] = []
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        layout.addWidget(label("finished", "caption"))
        self.finished = label("", "size", True)
        layout.addWidget(self.finished)
        self.inside = label("", "caption", True)
        layout.addWidget(self.inside)
        self.problems = label("", "warning", True)
        self.about = help_button(session, self._first_code)
        told = QWidget()
        told.setLayout(row(self.problems, self.about))
        layout.addWidget(told)
        layout.addWidget(rule())
        line, self.page_buttons = tabs(self, PAGES, self.turn_to)
        layout.addWidget(line)
        self.setting, self.edges = SettingPage(session), EdgesPage(session)
        self.colours, self.place = ColoursPage(session), PlacePage(session)
        self.quilting, self.fit = QuiltingPage(session), FitPage(session)
        self.pages: dict[
            str, SettingPage | EdgesPage | ColoursPage | PlacePage | QuiltingPage | FitPage
        ] = {
            "setting": self.setting, "edges": self.edges, "colours": self.colours,
            "place": self.place, "quilting": self.quilting, "fit": self.fit,
        }  # fmt: skip
        for body in self.pages.values():
            layout.addWidget(body)
        opens(self.page_buttons, self.pages)
        layout.addStretch(1)
        self.turn_to("setting")

    def turn_to(self, page: str) -> None:
        self.page = page
        self.page_buttons[page].setChecked(True)
        for name, body in self.pages.items():
            body.setVisible(name == page)
        self.refresh()
        self.turned.emit(page)

    def refresh(self) -> None:
        """Only where it is looked at: the stage asks for it."""
        if not self.isVisible():
            return
        plan = self.session.quilt_plan
        top, measure = plan.top, plan.measure
        self.finished.setText(
            vulgar_text(near_text(top.size, measure)) if top.rows else "no size yet"
        )
        words = []
        if top.borders:
            words.append(f"{near_text(top.middle, measure)} inside the borders")
        blocks = sum(piece.lying is not None for row in top.rows for piece in row.pieces)
        if blocks:
            words.append(f"{blocks} {'place' if blocks == 1 else 'places'} with a block")
        self.inside.setText(vulgar_text("; ".join(words)))
        problems = [problem.text for problem in top.problems]
        self._codes = [problem.code for problem in top.problems]
        if plan.apart and self.page != "fit":
            problems.append(f"{apart_text(plan.apart, measure)} See Fit.")
        self.problems.setText(vulgar_text("\n".join(problems)))
        self.problems.setVisible(bool(problems))
        self.about.setVisible(bool(problems))
        page = self.pages[self.page]
        page.refresh()

    def _first_code(self) -> str:
        """The code of the first sentence."""
        return self._codes[0] if self._codes else "edges-differ"

    def showEvent(self, event: object) -> None:
        self.refresh()
