"""What to buy, for the block or for all of the project."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from inlet.core.buying import (
    Enough,
    Shopping,
    enough,
    enough_lines,
    shopping,
    shopping_lines,
    shopping_notes,
    shopping_whole,
)
from inlet.core.layout import BEST
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BlockPlan, QuiltPlan
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ChoiceBox
from inlet.ui.widgets.parts import button, column, label
from inlet.ui.widgets.table import TextTable


@guarded
class ShoppingPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        layout = column(self, 0, 8)
        self.scope = ChoiceBox()
        self.scope.setAccessibleName("What to buy for")
        self.scope.addItem("this block", "block")
        self.scope.addItem("the quilt, or one of each block", "project")
        self.scope.activated.connect(lambda _: self.refresh())
        self._has_quilt = False
        self.does = button("Do I have enough fabric?", self.ask_enough)
        asked = QWidget()
        flow = FlowLayout(asked, 0, theme.px(6))
        for each in (label("Buy for"), self.scope, self.does):
            flow.addWidget(each)
        layout.addWidget(asked)
        self.table = TextTable("Shopping list")
        self.table.setMinimumHeight(theme.px(150))
        layout.addWidget(self.table, 1)
        self.notes = label("", "small", True)
        layout.addWidget(self.notes)

    def refresh(self) -> None:
        """Worked out aside; the list before stays until then."""
        plan = self.session.plan
        if plan is None:
            return
        project = plan.project
        if self.session.is_quilt != self._has_quilt:  # once there is a quilt, it is bought for
            self._has_quilt = self.session.is_quilt
            self.scope.setCurrentIndex(int(self._has_quilt))
        self.does.setEnabled(self._asked() is not None)
        if self.scope.currentData() == "block":
            self.session.think_of_cutting(lambda: shopping(plan, notes=True), self._found)
        else:
            self.session.think_of_cutting(lambda: shopping_whole(project, BEST), self._found)

    def _asked(self) -> BlockPlan | QuiltPlan | None:
        """What is bought for, where it is one plan."""
        if self.scope.currentData() == "block":
            return self.session.plan
        quilt = self.session.quilt_plan
        return quilt if quilt.top.rows else None

    def _found(self, buying_list: Shopping) -> None:
        project = self.session.project
        self.table.show_lines(shopping_lines(buying_list, project))
        self.notes.setText(vulgar_text("\n".join(shopping_notes(buying_list, project))))

    def ask_enough(self) -> None:
        """Whether what there is does, with the smallest changes that would make it do."""
        plan = self._asked()
        if plan is not None:
            self.notes.setText("Looking for what would make it enough …")
            self.session.think_of_cutting(lambda: enough(plan), self._enough)

    def _enough(self, verdict: Enough) -> None:
        self.notes.setText(vulgar_text("\n".join(enough_lines(verdict, self.session.project))))
