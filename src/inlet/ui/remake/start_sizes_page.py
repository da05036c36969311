"""The page “Start sizes”: what to begin with so that the cuts lie on the ruler's marks."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from inlet.core.numbers import INCHES, Exact, System
from inlet.core.project import Cuts, replace
from inlet.core.remake import MOST_PARTS, chart_table, sizes_of, start_chart
from inlet.ui import theme
from inlet.ui.remake.slicing import Slicing
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import ValueEdit, button, column, label, row, when_seen
from inlet.ui.widgets.table import TextTable


class StartSizesPage(QWidget):
    """For finished sizes wanted, or squares there are: which start block, cut where, gives what."""

    def __init__(self, slicing: Slicing) -> None:
        super().__init__()
        self.setObjectName("pageBody")
        self.slicing = slicing
        self._system: System | None = None
        self.finished: tuple[Exact, ...] = ()
        self.squares: tuple[Exact, ...] = ()
        self.texts = ["", ""]
        layout = column(self, 0, 8)
        asked = QWidget()
        flow = FlowLayout(asked, 0, theme.px(6))
        self.wanted = ValueEdit("New block, finished", lambda text: self._take(0, text), 120)
        self.owned = ValueEdit("Squares I have", lambda text: self._take(1, text), 120)
        self.parts = NumberBox()
        self.parts.setRange(2, MOST_PARTS)
        self.parts.setValue(3)
        self.parts.setAccessibleName("Parts each way")
        self.parts.valueChanged.connect(lambda _: self.refresh())
        for words, widget in (
            ("New block, finished", self.wanted), ("Squares I have", self.owned),
            ("Parts each way", self.parts),
        ):  # fmt: skip
            flow.addWidget(label(words))
            flow.addWidget(widget)
        for edit in (self.wanted, self.owned):
            edit.refused.connect(slicing.session.said)
        layout.addWidget(asked)
        layout.addWidget(
            label(
                "Start blocks are measured raw edge to raw edge. Two squares give two half-square "
                "triangles, four of them the start block.",
                "small",
                True,
            )
        )
        self.table = TextTable("Start sizes")
        layout.addWidget(self.table, 1)
        self.use = button("Make the start block this size and cut it so", self.take_row)
        layout.addLayout(row(self.use, 1))
        self._refresh = when_seen(self, self.refresh, slicing.changed)
        self._refresh()

    def _take(self, which: int, text: str) -> None:
        """Sizes as typed. Raises ``NumberError``."""
        measure = self.slicing.session.measure
        sizes = sizes_of(text, measure.system)
        chosen = [self.finished, self.squares]
        chosen[which] = sizes
        start_chart(chosen[0], chosen[1], self.parts.value(), measure)
        self.finished, self.squares = chosen
        self.texts[which] = text
        self.refresh()

    def refresh(self) -> None:
        measure = self.slicing.session.measure
        if self._system is not measure.system:
            self._system = measure.system
            usual = "6, 8" if measure.system is INCHES else "15, 20"
            self.texts = [usual, usual]
            self.finished = self.squares = sizes_of(usual, measure.system)
        self.wanted.show_value(self.texts[0])
        self.owned.show_value(self.texts[1])
        try:
            self.rows = start_chart(self.finished, self.squares, self.parts.value(), measure)
        except ValueError as why:
            self.rows = ()
            self.slicing.session.said.emit(f"{why}.")
        self.table.show_lines(chart_table(self.rows, measure))
        self.use.setEnabled(bool(self.rows))

    def take_row(self) -> None:
        """Make the start block as large as the line that is picked says, and cut it so."""
        picked = max(0, self.table.currentRow())
        if picked >= len(self.rows):
            return
        session, start = self.slicing.session, self.rows[picked].start
        side = start.measured - 2 * session.measure.seam
        block = replace(self.slicing.start, finished=(side, side))
        made_from = session.block.made_from
        cuts = Cuts(start.cuts, start.cuts)
        if made_from is not None:
            self.slicing.cut_at_size(block, cuts)
        else:
            session.edit_block(block)
            self.slicing.cut(cuts)
