"""The draft's ticket: the tray while units are dropped, bands, fabrics, size, and what is wrong."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QSizePolicy, QVBoxLayout, QWidget

from inlet.core.draft import (
    TypedBands,
    bands_of,
    insert_band,
    parse_bands,
    remove_band,
    set_typed,
    show_bands,
)
from inlet.core.geometry import Point
from inlet.core.numbers import NumberError
from inlet.core.piecing import SeamCount
from inlet.core.problem import Problem, numbered
from inlet.core.project import LARGEST_BLOCK_INCHES, started_from
from inlet.core.schedule import seams_text
from inlet.core.words import length_text
from inlet.ui import theme
from inlet.ui.bench.risk_line import RiskLine
from inlet.ui.draft.fabrics import FabricList
from inlet.ui.draft.sizes import SizesCard
from inlet.ui.draft.tray import Tray
from inlet.ui.piecing.advice import AdviceList
from inlet.ui.shell.help_button import help_button
from inlet.ui.shell.session import Session
from inlet.ui.widgets.answers import AnswersCard
from inlet.ui.widgets.parts import Link, ValueEdit, column, empty, icon_button, label, row, rule

MOST_PROBLEMS = 12


class DraftTicket(QWidget):
    """What the block is drawn on and with."""

    asked_place = Signal(object)  # places of a problem to point out

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("ticketBody")
        layout = column(self, 16, 9)
        self._add_head(layout)
        self.counts = label("", "small")
        layout.addWidget(rule())
        self.tray = Tray(session)
        self.tray.hide()
        layout.addWidget(self.tray)
        layout.addLayout(row(label("Bands", "heading"), 1, self.counts))
        self.columns = ValueEdit("Columns", lambda text: self._set_bands(0, text))
        self.rows = ValueEdit("Rows", lambda text: self._set_bands(1, text))
        grid = QGridLayout()
        grid.setSpacing(theme.px(5))
        for axis, (name, edit) in enumerate((("Columns", self.columns), ("Rows", self.rows))):
            grid.addWidget(label(name, "small"), axis, 0)
            grid.addWidget(edit, axis, 1)
            one = name.lower()[:-1]
            more = icon_button("plus", f"Add a {one}", partial(self._add_band, axis))
            less = icon_button("minus", f"Take the last {one} out", partial(self._drop_band, axis))
            grid.addWidget(more, axis, 2)
            grid.addWidget(less, axis, 3)
            edit.refused.connect(session.said)
        layout.addLayout(grid)
        for edit in (self.columns, self.rows):
            edit.setToolTip("How many, or proportions 2:1:2, or finished sizes 2, 1 1/2, 2")
        layout.addWidget(rule())
        layout.addWidget(label("Fabrics", "heading"))
        self.fabrics = FabricList(session)
        layout.addWidget(self.fabrics)
        layout.addWidget(rule())
        self.problem_title = label("", "heading")
        layout.addWidget(self.problem_title)
        self.problems = column(spacing=7)
        layout.addLayout(self.problems)
        layout.addWidget(AdviceList(session))
        self.risk = RiskLine(session)
        layout.addWidget(self.risk)
        self.answers = AnswersCard(session)
        layout.addWidget(self.answers)
        layout.addWidget(rule())
        self.sizes = SizesCard(session)
        layout.addWidget(self.sizes)
        layout.addStretch(1)
        self._shown: tuple[tuple[Problem, ...], SeamCount] | None = None
        session.changed.connect(self.refresh)
        session.planned.connect(self._show_problems)
        self.refresh()
        self._show_problems()

    def _add_head(self, layout: QVBoxLayout) -> None:
        """The block's name, what is done to it as a whole, and what it follows."""
        session = self.session
        self.title = label("", "title", wrap=True)
        turn, mirrored = (1, False), (0, True)
        turner = icon_button(
            "tool-turn", "Turn the block a quarter", lambda: session.turn_block(turn)
        )
        mirror = icon_button(
            "tool-mirror", "Mirror the block", lambda: session.turn_block(mirrored)
        )
        copy = icon_button("copy", "Copy the block", session.copy_block)
        head = row(self.title, turner, mirror, copy, spacing=4)
        head.setStretch(0, 1)
        layout.addLayout(head)
        self.follows = label("", "small", True)
        layout.addWidget(self.follows)

    # --- bands --------------------------------------------------------------------------------

    def _set_bands(self, axis: int, text: str) -> None:
        session = self.session
        block, measure = session.block, session.measure
        bands: TypedBands = parse_bands(text, measure.system)
        if bands.size is not None:
            largest = measure.from_inches(LARGEST_BLOCK_INCHES)
            if bands.size > largest:
                raise NumberError(
                    f"together {length_text(bands.size, measure)}, larger than a block can be "
                    f"({length_text(largest, measure)})"
                )
        session.take_bands(set_typed(block, axis, bands))

    def _add_band(self, axis: int) -> None:
        block = self.session.block
        bands = bands_of(block, axis)
        self.session.take_bands(insert_band(block, axis, len(bands), bands[-1]))

    def _drop_band(self, axis: int) -> None:
        block = self.session.block
        self.session.take_bands(remove_band(block, axis, len(bands_of(block, axis)) - 1))

    def refresh(self) -> None:
        block = self.session.block
        self.title.setText(block.title)
        patches = len(self.session.draft.patches)
        self.counts.setText(f"{patches} {'patch' if patches == 1 else 'patches'}")
        self.columns.show_value(show_bands(block.columns))
        self.rows.show_value(show_bands(block.rows))
        starts = [self.session.project.block(name).title for name in started_from(block)]
        self.follows.setText(f"Made from {' and '.join(starts)} at the stage Remake: it follows.")
        self.follows.setVisible(bool(starts))
        self.sizes.setVisible(not starts)
        self._show_problems()

    # --- problems -----------------------------------------------------------------------------

    def _show_problems(self) -> None:
        plan = self.session.plan
        if plan is None or (plan.problems, plan.seams) == self._shown:
            return
        self._shown = plan.problems, plan.seams
        empty(self.problems)
        bare = [p for p in plan.problems if p.code == "patch-without-fabric"]
        others = list(enumerate(numbered(plan.problems), 1))
        if not plan.problems:
            self.problem_title.setText("Ready to sew")
            self.problems.addWidget(
                label("Sewn up from its cut pieces, it gives this drawing exactly.", "small", True)
            )
            self.problems.addWidget(label(seams_text(plan.seams), "small", True))
            return
        self.problem_title.setText("To look at")
        if bare:
            count = len(bare)
            words = "One patch has" if count == 1 else f"{count} patches have"
            places = tuple(point for p in bare for point in p.at)
            self._problem(f"{words} no fabric yet.", "", places, "patch-without-fabric")
        for number, problem in others[:MOST_PROBLEMS]:
            kind = "warning" if problem.level == "error" else ""
            mark = f"! {number}  " if problem.at else ""
            self._problem(f"{mark}{problem.text}", kind, problem.at, problem.code)
        if len(others) > MOST_PROBLEMS:
            self.problems.addWidget(label(f"and {len(others) - MOST_PROBLEMS} more", "small"))

    def _problem(self, words: str, kind: str, places: Sequence[Point], code: str) -> None:
        """A sentence of trouble, which leads to its place, and a button that leads to its page."""
        told: QWidget = label(words, kind, True)
        if places:
            told = Link(words, kind or "place", "Show where")
            told.followed.connect(lambda: self.asked_place.emit(places))
        line = QWidget()
        line.setLayout(row(told, help_button(self.session, lambda: code)))
        told.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        self.problems.addWidget(line)
