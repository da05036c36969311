"""The cut list: what to cut from each fabric, widest first, in figures to read at the mat."""

from __future__ import annotations

from collections.abc import Mapping

from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QGridLayout, QWidget

from inlet.core.cutlist import Cut, project_sets
from inlet.core.layout import (
    buying_text,
    grain_texts,
    set_lines,
    set_name,
    strip_room,
    strips_text,
)
from inlet.core.numbers import show, vulgar_text
from inlet.core.plan import MOST_COPIES, BlockPlan, QuiltPlan
from inlet.core.table import over_triangles
from inlet.core.templates import angled_lines, stack_shape
from inlet.core.words import fabric_name
from inlet.ui import theme
from inlet.ui.cutting.have_page import HavePage
from inlet.ui.cutting.rules_page import RulesPage
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import Link, column, empty, label, row, rule, when_seen
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
        self.cut_list = QWidget()
        self.list = column(self.cut_list, 0, 5)
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
        empty(self.list)
        self.count.setHidden(isinstance(plan, QuiltPlan))
        if isinstance(plan, BlockPlan):
            self.copies.blockSignals(True)
            self.copies.setValue(plan.copies)  # it may have been set at another stage
            self.copies.blockSignals(False)
        grain = grain_texts(plan.fabric_plans.now, plan.cuts, plan.measure)
        for fabric_plan in plan.fabric_plans.now:
            self.list.addWidget(rule())
            self.list.addWidget(
                label(fabric_name(plan.project, fabric_plan.fabric), "heading", True)
            )
            self.list.addWidget(label(buying_text(fabric_plan, plan.measure), "caption", True))
            if strips := strips_text(fabric_plan, plan.measure):
                self.list.addWidget(label(strips, "", True))
            cuts = [c for c in plan.cuts if c.fabric == fabric_plan.fabric and not c.owned]
            self._cuts(cuts, plan, grain)
        owned = [c for c in plan.cuts if c.owned]
        if owned:
            self.list.addWidget(rule())
            self.list.addWidget(label("From fabric you own", "heading", True))
            self._cuts(owned, plan, {})
        self._sets(plan)

    def _cuts(self, cuts: list[Cut], plan: BlockPlan | QuiltPlan, grain: Mapping[str, str]) -> None:
        system = plan.measure.system
        grid = QGridLayout()
        grid.setHorizontalSpacing(theme.px(10))
        grid.setColumnStretch(2, 1)
        for i, cut in enumerate(cuts):
            low, high = cut.cut
            text = show(low, system=system, vulgar=True)
            if low != high:
                text += f" × {show(high, system=system, vulgar=True)}"
            grid.addWidget(label(f"{cut.number} ×"), 2 * i, 0)
            grid.addWidget(label(text, "size"), 2 * i, 1)
            shape = vulgar_text(stack_shape(cut, plan.measure))
            words = f"stack {cut.label}: {shape}, for {', '.join(cut.labels)}"
            if diagonal := cut.diagonal:
                words += f"; cut {diagonal}"
            if cut.label in grain:
                words += f"; {grain[cut.label]}"
            if cut.over:
                words += f"; {over_triangles(cut.over)}"
            room = strip_room(plan.project, cut.fabric)
            if notes := list(angled_lines(cut, plan.measure, room)):
                words += f". {vulgar_text('; '.join(notes))}"
            grid.addWidget(label(words, "caption", True), 2 * i + 1, 1, 1, 2)
        self.list.addLayout(grid)

    def _sets(self, plan: BlockPlan | QuiltPlan) -> None:
        """The strip sets of the methods in use, or of all that the project could cut so."""
        sets = plan.sets
        if self.whole and isinstance(plan, BlockPlan):
            sets = project_sets(plan.project, plan.copies)
        self.list.addWidget(rule())
        self.list.addWidget(label("Strip sets", "heading"))
        for planned_set in sets:
            self.list.addWidget(label(set_name(planned_set, plan.project), "", True))
            for line in set_lines(planned_set, plan.project):
                self.list.addWidget(label(line, "caption", True))
        if not sets:
            self.list.addWidget(label("None in the methods in use.", "caption", True))
        if isinstance(plan, QuiltPlan):
            return
        words = "Of this block's methods" if self.whole else "Of the whole project"
        self.sets_link = Link(words)
        self.sets_link.followed.connect(self._turn_whole)
        self.list.addWidget(self.sets_link)

    def hideEvent(self, event: QHideEvent) -> None:
        """The whole project's sets are worked out only while they are looked at."""
        super().hideEvent(event)
        self.whole = False

    def _turn_whole(self) -> None:
        self.whole = not self.whole
        self.refresh()
