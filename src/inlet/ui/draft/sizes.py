"""Ruler-friendly sizes in the ticket: where the block stands, what is near, what owned fabric
makes."""

from __future__ import annotations

from PySide6.QtWidgets import QPushButton, QWidget

from inlet.core.cutlist import RulerFriendly, StockSize, sizes_from
from inlet.core.numbers import INCHES, vulgar_text
from inlet.core.plan import BlockPlan
from inlet.core.planning import parse_stock
from inlet.core.project import INCH, METRIC, Measure, Pair, measured_in, replace
from inlet.core.words import length_text, size_text
from inlet.ui import theme
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.parts import Link, ValueEdit, button, column, empty, label

MOST_SHOWN = 2
"""Sizes shown for each thing owned."""


class SizesCard(QWidget):
    """Live: it follows every plan."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.stock_text = ""
        layout = column(self, 0, 6)
        layout.addWidget(label("Size", "heading"))
        self.words = column(spacing=3)
        layout.addLayout(self.words)
        self.near = QWidget()
        self.near_flow = FlowLayout(self.near, 0, theme.px(5))
        layout.addWidget(self.near)
        layout.addWidget(label("From what I have", "small"))
        self.stock = ValueEdit("Strips and squares I have", self._take_stock)
        self.stock.refused.connect(session.said)
        layout.addWidget(self.stock)
        self.owned = column(spacing=3)
        layout.addLayout(self.owned)
        self._shown: object = None
        session.planned.connect(self.refresh)
        self.refresh()

    def _take_stock(self, text: str) -> None:
        parse_stock(text, self.session.measure.system)
        self.stock_text = text
        self._shown = None
        self.refresh()

    def refresh(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        system = plan.measure.system
        text = self.stock_text or system.cut_fabric
        wanted = (plan.ruler_friendly, plan.block.finished, plan.measure, text)
        if wanted == self._shown:
            return
        self._shown = wanted
        self.stock.show_value(text)
        self._say_ruler_friendly(plan, plan.ruler_friendly)
        self._say_owned(plan, text)

    # --- ruler-friendly --------------------------------------------------------------------------

    def _say_ruler_friendly(self, plan: BlockPlan, ruler_friendly: RulerFriendly) -> None:
        empty(self.words)
        empty(self.near_flow)
        measure = plan.measure
        size = size_text(plan.block.finished, measure)
        if not plan.cuts or not any(c.shape != "template" for c in plan.cuts):
            self.words.addWidget(label(f"{size} finished.", "small", True))
        elif not ruler_friendly.misses:
            mark = length_text(measure.mark, measure)
            self.words.addWidget(
                label(f"{size} is ruler-friendly: every cut lands on a {mark} mark.", "", True)
            )
        else:
            self.words.addWidget(label(f"{size} is not ruler-friendly.", "", True))
            for miss in ruler_friendly.misses[:4]:
                labels = ", ".join(miss.labels)
                words = f"{labels}: {length_text(miss.length, measure)}, "
                words += f"{float(miss.short):.3f} under the next mark"
                self.words.addWidget(label(words, "small", True))
            if len(ruler_friendly.misses) > 4:
                self.words.addWidget(label(f"and {len(ruler_friendly.misses) - 4} more", "small"))
        if ruler_friendly.never:
            labels = ", ".join(ruler_friendly.never)
            self.words.addWidget(
                label(f"{labels}: a side with √2 in it lands at no size.", "small", True)
            )
        other_measure = METRIC if measure.system is INCHES else INCH
        for near, its in (
            (ruler_friendly.smaller, measure), (ruler_friendly.larger, measure),
            (ruler_friendly.other_smaller, other_measure),
            (ruler_friendly.other_larger, other_measure),
        ):  # fmt: skip
            if near is not None:
                self.near_flow.addWidget(self._size_button(near, its))

    def _size_button(self, size: Pair, measure: Measure) -> QPushButton:
        text = size_text(size, measure)
        new_button = button(vulgar_text(text), lambda: self._use(size, measure), "", "size")
        new_button.setToolTip(f"Make the block {text} finished")
        new_button.setAccessibleName(f"Ruler-friendly size {text}")
        return new_button

    def _use(self, size: Pair, measure: Measure) -> None:
        """Take a size; one of the other system brings its measure along."""
        project = measured_in(self.session.project, measure.system)
        block = replace(project.block(self.session.block_id), finished=size)
        self.session.edit(project.with_block(block))

    # --- owned --------------------------------------------------------------------------------

    def _say_owned(self, plan: BlockPlan, text: str) -> None:
        empty(self.owned)
        for stock in parse_stock(text, plan.measure.system):
            stock_sizes = sizes_from(stock, plan.units, plan.block, plan.measure)[:MOST_SHOWN]
            name = f"{length_text(stock.width, plan.measure)} {stock.shape}s"
            if not stock_sizes:
                words = f"{name}: no cut of this block fits them."
                self.owned.addWidget(label(words, "small", True))
            for size in stock_sizes:
                self.owned.addWidget(self._owned_link(size, name, plan.measure))

    def _owned_link(self, stock_size: StockSize, name: str, measure: Measure) -> Link:
        size = size_text(stock_size.finished, measure)
        if not stock_size.others:
            units = "all units"
        else:
            units = ", ".join(stock_size.whole) or f"part of {stock_size.fills}"
        whole, others = ", ".join(stock_size.whole), ", ".join(stock_size.others)
        words = f"All of {whole} come off them" if whole else f"{stock_size.fills} sets the size"
        words += f"; {others} need wider fabric" if others else ""
        words += "." if stock_size.on_marks else ". Not a ruler-friendly size."
        tip = f"Make the block {size} finished. {words}"
        link = Link(f"{name} → {size}, {units}", "link", tip)
        link.followed.connect(lambda: self._use(stock_size.finished, measure))
        link.setAccessibleName(f"{name} make {size}. {words}")
        return link
