"""The cut list: what to cut from each cloth, widest first, in figures to read at the mat."""

from __future__ import annotations

from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QGridLayout, QSpinBox, QWidget

from inlet.core.cutting.cuts import Cut
from inlet.core.cutting.sets import project_sets
from inlet.core.cutting.words import buying_text, set_lines, set_name, strips_text
from inlet.core.numbers.text import parse_length, show
from inlet.core.plan import MOST_COPIES, BlockPlan
from inlet.core.project.value import replace
from inlet.core.table.piece_words import diagonal_text, over_triangles
from inlet.core.words import cloth_name, unit_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.parts import Link, ValueEdit, column, empty, label, row, rule
from inlet.ui.session import Session

CAUTION = (
    "Close the cutter when you put it down, cut away from yourself, fingers behind the ruler's "
    "edge. Your tools' own manuals come first."
)


@guarded
class CuttingTicket(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        layout.addWidget(label("Cut list", "title"))
        self.copies = QSpinBox()
        self.copies.setRange(1, MOST_COPIES)
        self.copies.setAccessibleName("How many of this block")
        self.copies.valueChanged.connect(session.set_copies)
        layout.addLayout(row(label("for"), self.copies, label("of this block"), 1))
        self.whole = False  # are strip sets shown of the whole project?
        self.list = column(spacing=5)
        layout.addLayout(self.list)
        layout.addWidget(rule())
        layout.addWidget(label(CAUTION, "caption", True))
        layout.addStretch(1)
        session.planned.connect(self.refresh)

    def refresh(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        empty(self.list)
        self.copies.blockSignals(True)
        self.copies.setValue(plan.copies)  # it may have been set at another stage
        self.copies.blockSignals(False)
        for cloth in plan.cloth:
            self.list.addWidget(rule())
            self.list.addWidget(label(cloth_name(plan.project, cloth.fabric), "heading", True))
            self.list.addWidget(label(buying_text(cloth, plan.measure), "caption", True))
            if strips := strips_text(cloth, plan.measure):
                self.list.addWidget(label(strips, "", True))
            own = [c for c in plan.cuts if c.fabric == cloth.fabric and not c.owned]
            self._cuts(own, plan)
        owned = [c for c in plan.cuts if c.owned]
        if owned:
            self.list.addWidget(rule())
            self.list.addWidget(label("From cloth you own", "heading", True))
            self._cuts(owned, plan)
        self._sets(plan)

    def _cuts(self, cuts: list[Cut], plan: BlockPlan) -> None:
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
            words = f"stack {cut.label}: {cut.shape}, for {', '.join(cut.labels)}"
            if diagonal := diagonal_text(cut.crosscut, cut.lean):
                words += f"; cut {diagonal}"
            if cut.over:
                words += f"; {over_triangles(cut.over)}"
            grid.addWidget(label(words, "caption", True), 2 * i + 1, 1, 1, 2)
        self.list.addLayout(grid)

    def _sets(self, plan: BlockPlan) -> None:
        """The strip sets of this block's methods, or of all that the project could cut so."""
        sets = plan.sets
        if self.whole:
            sets = project_sets(plan.project, plan.copies)
        self.list.addWidget(rule())
        self.list.addWidget(label("Strip sets", "heading"))
        measure = plan.measure
        self.squaring = ValueEdit("Lost of each strip to square its end", self._square, 56)
        self.squaring.show_value(show(measure.squared_off, system=measure.system))
        self.squaring.refused.connect(self.session.said)
        self.list.addLayout(
            row(label("squaring a strip takes"), self.squaring, label(unit_of(measure)), 1)
        )
        for one in sets:
            self.list.addWidget(label(set_name(one, plan.project), "", True))
            for line in set_lines(one, plan.project):
                self.list.addWidget(label(line, "caption", True))
        if not sets:
            self.list.addWidget(label("None in the methods in use.", "caption", True))
        words = "Of this block's methods" if self.whole else "Of the whole project"
        self.sets_link = Link(words)
        self.sets_link.followed.connect(self._turn_whole)
        self.list.addWidget(self.sets_link)

    def _square(self, text: str) -> None:
        measure = self.session.measure
        length = parse_length(text, measure.system)
        if not 0 <= length <= measure.from_inches(3):
            raise ValueError("it must be from 0 to 3 inches")
        self.session.edit_measure(replace(measure, squaring=length))

    def hideEvent(self, event: QHideEvent) -> None:
        """The whole project's sets are worked out only while they are looked at."""
        super().hideEvent(event)
        self.whole = False

    def _turn_whole(self) -> None:
        self.whole = not self.whole
        self.refresh()
