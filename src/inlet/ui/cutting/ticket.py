"""The ticket of Cutting: the cut list, what fabric there is, and how the maker cuts."""

from __future__ import annotations

from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QWidget

from inlet.core.plan import MOST_COPIES, BlockPlan, QuiltPlan
from inlet.ui.cutting.cut_list import CutList
from inlet.ui.cutting.have_page import HavePage
from inlet.ui.cutting.rules_page import RulesPage
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import column, label, row, when_seen
from inlet.ui.widgets.tabs import opens, tabs

PAGES = (("list", "Cut list"), ("have", "What I have"), ("rules", "How I cut"))


@guarded
class CuttingTicket(QWidget):
    """The cut list, what fabric there is, and how the maker cuts."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        line, self.page_buttons = tabs(self, PAGES, self.turn_to)
        layout.addWidget(line)
        self.copies = NumberBox()
        self.copies.setRange(1, MOST_COPIES)
        self.copies.setAccessibleName("How many of this block")
        self.copies.valueChanged.connect(session.set_copies)
        self.count = QWidget()
        count = column(self.count, 0, 0)
        count.addLayout(row(label("for"), self.copies, label("of this block"), 1))
        layout.addWidget(self.count)
        self.whole = False  # are strip sets shown of the whole project?
        self.plan: BlockPlan | QuiltPlan | None = None
        self.cut_list = CutList()
        self.cut_list.asked_whole.connect(self._turn_whole)
        self.have = HavePage(session)
        self.rules = RulesPage(session)
        for body in (self.cut_list, self.have, self.rules):
            layout.addWidget(body)
        layout.addStretch(1)
        opens(self.page_buttons, {"list": self.cut_list, "have": self.have, "rules": self.rules})
        when_seen(self.have, self.have.refresh, session.changed)
        when_seen(self.rules, self.rules.refresh, session.changed)
        self.turn_to("list")

    def turn_to(self, page: str) -> None:
        self.page = page
        self.page_buttons[page].setChecked(True)
        self.cut_list.setVisible(page == "list")
        self.have.setVisible(page == "have")
        self.rules.setVisible(page == "rules")
        self._changed()

    def show_plan(self, plan: BlockPlan | QuiltPlan) -> None:
        """What is cut at the mat: the block, or the whole quilt."""
        self.plan = plan
        self.refresh()

    def show_fabric(self, fabric: str | None) -> None:
        """The fabric that lies on the mat."""
        if fabric != self.have.fabric_id:
            self.have.fabric_id = fabric
            self._changed()

    def _changed(self) -> None:
        if self.page == "have":
            self.have.refresh()
        elif self.page == "rules":
            self.rules.refresh()

    def refresh(self) -> None:
        plan = self.plan
        if plan is None:
            return
        self.count.setHidden(isinstance(plan, QuiltPlan))
        if isinstance(plan, BlockPlan):
            self.copies.blockSignals(True)
            self.copies.setValue(plan.copies)  # it may have been set at another stage
            self.copies.blockSignals(False)
        self.cut_list.show_plan(plan, self.whole)

    def hideEvent(self, event: QHideEvent) -> None:
        """The whole project's sets are worked out only while they are looked at."""
        super().hideEvent(event)
        self.whole = False

    def _turn_whole(self) -> None:
        self.whole = not self.whole
        self.refresh()
