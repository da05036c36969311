"""The cut list: what to cut from each cloth, widest first, in figures to read at the mat."""

from __future__ import annotations

from PySide6.QtWidgets import QGridLayout, QSpinBox, QWidget

from inlet.core.cutting.words import buying_text
from inlet.core.numbers import show
from inlet.core.plan import MOST_COPIES
from inlet.core.words import cloth_name
from inlet.ui import theme
from inlet.ui.parts import column, empty, label, row, rule
from inlet.ui.session import Session

CAUTION = (
    "Close the cutter when you put it down, cut away from yourself, fingers behind the ruler's "
    "edge. Your tools' own manuals come first."
)


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
        system = plan.measure.system
        for cloth in plan.cloth:
            self.list.addWidget(rule())
            self.list.addWidget(label(cloth_name(plan.project, cloth.fabric), "heading", True))
            self.list.addWidget(label(buying_text(cloth, plan.measure), "caption", True))
            grid = QGridLayout()
            grid.setHorizontalSpacing(theme.px(10))
            grid.setColumnStretch(2, 1)
            for i, cut in enumerate(c for c in plan.cuts if c.fabric == cloth.fabric):
                low, high = cut.cut
                text = show(low, system=system, vulgar=True)
                if low != high:
                    text += f" × {show(high, system=system, vulgar=True)}"
                grid.addWidget(label(f"{cut.number} ×"), 2 * i, 0)
                grid.addWidget(label(text, "size"), 2 * i, 1)
                words = f"stack {cut.label}: {cut.shape}, for {', '.join(cut.labels)}"
                if cut.owned:
                    words += ", from cloth you own"
                if cut.crosscut in ("once", "twice"):
                    words += f"; cut {cut.crosscut} on the diagonal"
                grid.addWidget(label(words, "caption", True), 2 * i + 1, 1, 1, 2)
            self.list.addLayout(grid)
