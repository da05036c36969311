"""The block, or the quilt, at all the sizes it is to be offered in."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PySide6.QtWidgets import QWidget

from inlet.core.buying import (
    USUAL_QUILTS,
    chart_lines,
    chart_notes,
    quilt_chart,
    quilt_chart_lines,
    quilt_chart_notes,
    quilt_sizes_typed,
    size_chart,
    sizes_typed,
)
from inlet.core.numbers import Exact, vulgar_text
from inlet.core.plan import BlockPlan
from inlet.core.project import Project
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ChoiceBox
from inlet.ui.widgets.parts import ValueEdit, column, label
from inlet.ui.widgets.table import TextTable

HINTS = ("or all ruler-friendly sizes: 4 to 12", "by name, or by size: lap, king, 60 x 72")


@guarded
class SizesPage(QWidget):
    """``text`` are the block's sizes as typed, ``quilt_text`` the quilt's."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 8)
        self.scope = ChoiceBox()
        self.scope.setAccessibleName("What is shown at other sizes")
        self.scope.addItem("this block", False)
        self.scope.addItem("the quilt", True)
        self.scope.activated.connect(lambda _: self.refresh())
        self.sizes = ValueEdit("Sizes", self.take, 180)
        self.sizes.refused.connect(session.said)
        asked = QWidget()
        flow = FlowLayout(asked, 0, theme.px(6))
        self.hint = label("")
        for each in (self.scope, label("Finished"), self.sizes, self.hint):
            flow.addWidget(each)
        layout.addWidget(asked)
        self.table = TextTable("Size chart")
        layout.addWidget(self.table, 1)
        self.notes = label("", "small", True)
        layout.addWidget(self.notes)
        self.text, self.quilt_text = "", USUAL_QUILTS
        self._has_quilt = False

    @property
    def of_quilt(self) -> bool:
        """Is the quilt shown, not the block?"""
        return bool(self.scope.currentData()) and self.session.is_quilt

    def take(self, text: str) -> None:
        """The sizes to show, as typed. Raises ``NumberError``."""
        plan = self.session.plan
        if self.of_quilt:
            quilt_sizes_typed(text, self.session.measure)  # refused where it is none
            self.quilt_text = text
        elif plan is not None:
            sizes_typed(text, plan)
            self.text = text
        self.refresh()

    def refresh(self) -> None:
        """Worked out aside; the chart before stays until then. Once there is a quilt, it is
        shown."""
        if self.session.is_quilt != self._has_quilt:
            self._has_quilt = self.session.is_quilt
            self.scope.setCurrentIndex(int(self._has_quilt))
        self.scope.setVisible(self._has_quilt)
        self.hint.setText(HINTS[self.of_quilt])
        self.sizes.setPlaceholderText(USUAL_QUILTS if self.of_quilt else "4, 6, 8, 12 or 4 to 12")
        self.sizes.show_value(self.quilt_text if self.of_quilt else self.text)
        if self.of_quilt:
            self._ask_quilt()
        else:
            self._ask_block()

    def _ask_quilt(self) -> None:
        project = self.session.project
        self.notes.setText("Working out every size …")
        self.session.think_of_cutting(
            partial(_of_quilt, project, self.quilt_text), partial(self._arrived, True)
        )

    def _ask_block(self) -> None:
        plan, text = self.session.plan, self.text
        if plan is None or not text:
            self.table.show_lines([])
            self.notes.setText("")
            return
        widths = sizes_typed(text, plan)
        self.session.think_of_cutting(
            partial(_of_block, plan, widths), partial(self._arrived, False)
        )

    def _arrived(self, of_quilt: bool, chart: tuple[list[list[str]], str]) -> None:
        if self.of_quilt == of_quilt and (of_quilt or self.session.plan is not None):
            lines, notes = chart
            self.table.show_lines(lines)
            self.notes.setText(notes)


def _of_block(plan: BlockPlan, widths: Sequence[Exact]) -> tuple[list[list[str]], str]:
    """The lines of a block's chart and what is said below it: worked out aside to the last line, as
    each asks more of the plans."""
    chart = size_chart(plan.project, plan.block, widths, plan.copies)
    return chart_lines(chart, plan), vulgar_text("\n".join(chart_notes(chart)))


def _of_quilt(project: Project, text: str) -> tuple[list[list[str]], str]:
    chart = quilt_chart(project, quilt_sizes_typed(text, project.measure))
    return quilt_chart_lines(chart), vulgar_text("\n".join(quilt_chart_notes(chart)))
