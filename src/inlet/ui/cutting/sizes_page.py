"""The block at all the sizes it is to be offered in."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from inlet.core.buying import SizeChart, chart_lines, chart_notes, size_chart, sizes_typed
from inlet.core.numbers import vulgar_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.parts import ValueEdit, column, label
from inlet.ui.widgets.table import TextTable


@guarded
class SizesPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 8)
        self.sizes = ValueEdit("Sizes", self.take, 180)
        self.sizes.setPlaceholderText("4, 6, 8, 12 or 4 to 12")
        self.sizes.refused.connect(session.said)
        asked = QWidget()
        flow = FlowLayout(asked, 0, theme.px(6))
        every = label("or all ruler-friendly sizes: 4 to 12")
        for each in (label("Finished widths"), self.sizes, every):
            flow.addWidget(each)
        layout.addWidget(asked)
        self.table = TextTable("Size chart")
        layout.addWidget(self.table, 1)
        self.notes = label("", "small", True)
        layout.addWidget(self.notes)
        self.text = ""

    def take(self, text: str) -> None:
        """The sizes to show, as typed. Raises ``NumberError``."""
        plan = self.session.plan
        if plan is None:
            return
        sizes_typed(text, plan)  # refused where it is none
        self.text = text
        self.sizes.show_value(text)
        self.refresh()

    def refresh(self) -> None:
        plan, text = self.session.plan, self.text
        if plan is None or not text:
            return
        widths = sizes_typed(text, plan)
        self.session.think_of_cutting(
            lambda: size_chart(plan.project, plan.block, widths, plan.copies), self._found
        )

    def _found(self, chart: SizeChart) -> None:
        plan = self.session.plan
        if plan is not None:
            self.table.show_lines(chart_lines(chart, plan))
            self.notes.setText(vulgar_text("\n".join(chart_notes(chart))))
