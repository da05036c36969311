"""The quilt stage: the whole top, its rows, and proposals for a size."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QCheckBox, QStackedWidget, QWidget

from inlet.core.draft import with_seams
from inlet.core.layout import bought_text
from inlet.core.numbers import vulgar_text
from inlet.core.plan import apart_problems, work_text
from inlet.core.project import Quilt, replace
from inlet.core.schedule import Work
from inlet.core.setting import Spot, backing_text, place_at, swapped
from inlet.core.words import fabric_name, near
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.piecing.sittings import SittingsPage
from inlet.ui.quilt.rows_page import RowsPage
from inlet.ui.quilt.scene import TopLook
from inlet.ui.quilt.target_page import TargetPage
from inlet.ui.quilt.ticket import QuiltTicket
from inlet.ui.quilt.top_view import TopView
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import CheckBox
from inlet.ui.widgets.parts import button, column, label, row, scrolled
from inlet.ui.widgets.tabs import opens, tabs

FIRST = 4, 5
"""Blocks across and down of a first quilt."""
PAGES = ("The top", "Rows and steps", "Sittings", "Fit to size")
ROWS = PAGES.index("Rows and steps")


@guarded
class QuiltStage(QWidget):
    """What is picked on the top is edited on the ticket, and by keys."""

    pointed = Signal(object)
    opened = Signal(str)  # the block to be drawn

    def __init__(self, session: Session, ticket: QuiltTicket) -> None:
        super().__init__()
        self.session, self.ticket = session, ticket
        whole = column(self, 16, 8)
        line, self.page_buttons = tabs(self, enumerate(PAGES), self.turn_to)
        self.page_buttons[0].setChecked(True)
        whole.addWidget(line)
        self.top = TopView()
        self.rows, self.target = RowsPage(session), TargetPage(session)
        on_top = QWidget()
        on_top.setObjectName("topPage")
        layout = column(on_top, 0, 8)
        self.ways = QWidget()
        flow = FlowLayout(self.ways, 0, theme.px(10))
        self.seams = self._box("Seams", True, self._look)
        self.marks = self._box("Marks of turning", True, self._look)
        self.afar = self._box("From across the room", False, self._look)
        self.lines = self._box("Quilting lines", False, self._lines)
        self.apart = self._box("Edges that differ", True, self._apart)
        for box in (self.seams, self.marks, self.lines, self.apart, self.afar):
            flow.addWidget(box)
        flow.addWidget(button("Whole", self.top.fit))
        layout.addWidget(self.ways)
        self.empty = QWidget()
        self.empty.hide()
        own_layout = column(self.empty, 16, 8)
        own_layout.addStretch(1)
        own_layout.addWidget(label("No quilt is set yet", "title"))
        self.begin_ = button("", self.begin)
        own_layout.addLayout(row(self.begin_, 1))
        own_layout.addWidget(
            label("Or say on the ticket how many blocks lie across and down, or choose a size.", "",
                  True)
        )  # fmt: skip
        own_layout.addStretch(2)
        layout.addWidget(self.empty, 1)
        self.top.setMinimumHeight(theme.px(160))  # words do not press it together
        layout.addWidget(self.top, 1)
        self.words = label("", "small", True)
        layout.addWidget(self.words)
        self.pages = QStackedWidget()
        self.sittings = SittingsPage(session, self._work, session.quilted)
        listed = scrolled(self.sittings, "page")
        page_areas = (scrolled(on_top, "page"), self.rows, listed, self.target)
        for page in page_areas:
            self.pages.addWidget(page)
        opens(self.page_buttons, dict(enumerate(page_areas)))
        whole.addWidget(self.pages, 1)
        self._connect()

    def _box(self, words: str, on: bool, do: object) -> QCheckBox:
        check_box = CheckBox(words)
        check_box.setChecked(on)
        check_box.toggled.connect(do)
        return check_box

    def _connect(self) -> None:
        top, place = self.top, self.ticket.place
        top.picked.connect(self._picked)
        top.turned.connect(place.turn)
        top.mirrored.connect(place.mirror)
        top.reset.connect(place.reset)
        top.changed_over.connect(self._change_over)
        top.opened.connect(self._open)
        top.pointed.connect(self._point)
        self.session.changed.connect(self.refresh)
        self.session.topped.connect(self.refresh)
        self.session.quilted.connect(self._say_fabric)
        self.session.quilted.connect(self._lines)
        self.session.quilted.connect(self._look)
        self.ticket.turned.connect(self._lines)

    def turn_to(self, page: int) -> None:
        self.pages.setCurrentIndex(page)
        self.page_buttons[page].setChecked(True)
        self.refresh()

    def _work(self) -> Work | None:
        plan = self.session.quilt_plan
        return plan.work if plan.planned else None

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Only where it is looked at: a top of many blocks takes a moment."""
        if not self.isVisible():
            return
        plan, scene, odd = self.session.quilt_view
        self.top.odd = tuple((each.place.column, each.place.row) for each in odd)
        self.top.show_scene(scene)
        has_top = bool(plan.top.rows)
        self.top.setVisible(has_top)
        self.ways.setVisible(has_top)
        self.empty.setVisible(not has_top and self.session.quilt_known)
        columns, rows = FIRST
        self.begin_.setText(f"Begin with {columns} x {rows} of {self.session.block.title}")
        self._look()
        self.ticket.refresh()
        page = self.pages.currentWidget()
        if isinstance(page, RowsPage):
            page.refresh()
        self._say_fabric()
        self._lines()
        self._apart()
        self.session.plan_the_quilt()

    def _say_fabric(self) -> None:
        """What is to be bought, once it is known; what is in the way where there is no top."""
        plan = self.session.quilt_plan
        if not self.session.quilt_known:
            self.words.setText("Laying out the quilt …")
            return
        if not plan.top.rows:
            problems = plan.top.problems
            self.words.setText(vulgar_text(problems[0].text if problems else ""))
            return
        if not plan.planned:
            self.words.setText("Laying out its fabric …")
            return
        words = [
            f"{fabric_name(plan.project, need.fabric)} {bought_text(need.buy, plan.measure)}"
            for need in plan.fabric_plans.best
            if need.new is not None
        ]
        text = f"To buy: {', '.join(words)}."
        if plan.backing is not None:
            text += f" Backing: {backing_text(plan.backing, plan.measure)}."
        text += f" {work_text(plan.work, plan.measure)}."
        shown = {problem.code for problem in (*plan.top.problems, *apart_problems(plan))}
        errors = [problem.text for problem in plan.problems if problem.code not in shown]
        self.words.setText(vulgar_text(" ".join([text, *errors])))

    def _lines(self, *_: object) -> None:
        """The quilting lines, once they are worked out, and always while they are edited."""
        plan = self.session.quilt_plan
        asked = self.lines.isChecked() or self.ticket.page == "quilting"
        shown = asked and plan.planned and bool(plan.quilt.quilting)
        self.top.show_lines(plan.quilted.lines if shown else ())
        self.lines.setVisible(bool(plan.quilt.quilting))

    def _apart(self, *_: object) -> None:
        """Seams whose edges differ by more than a thread."""
        apart = self.session.quilt_plan.apart
        self.apart.setVisible(bool(apart))
        shown = apart if self.apart.isChecked() else ()
        self.top.show_apart(tuple((seam.begin, seam.end) for seam in shown))

    def _look(self, *_: object) -> None:
        self.top.marks = self.marks.isChecked()
        plan = self.session.quilt_plan
        self.top.turned_to_nest = plan.turned if plan.planned else {}
        if self.top.afar != self.afar.isChecked():
            self.top.set_afar(self.afar.isChecked())
        self.top.set_look(TopLook(self.seams.isChecked(), self.session.grey))

    def begin(self) -> None:
        """A first quilt of the block that is shown."""
        quilt = self.session.project.quilt or Quilt()
        columns, rows = FIRST
        self.session.edit_quilt(
            replace(
                quilt, setting=quilt.setting or "straight", block=self.session.block_id,
                columns=quilt.columns or columns, rows=quilt.rows or rows,
            )
        )  # fmt: skip

    # --- what is done -------------------------------------------------------------------------

    def _picked(self, spots: list[Spot]) -> None:
        self.ticket.place.show_spots(spots)
        if spots and self.ticket.page != "place":
            self.ticket.turn_to("place")

    def _change_over(self, one: Spot, other: Spot) -> None:
        quilt = self.session.project.quilt
        if quilt is not None:
            square = self.session.quilt_plan.top.square
            self.session.edit_quilt(swapped(quilt, one, other, square))

    def _open(self, spot: Spot) -> None:
        quilt = self.session.project.quilt
        place = place_at(quilt, spot) if quilt is not None else None
        if place is not None and place.block in [b.id for b in self.session.project.blocks]:
            self.session.show_block(place.block)
            self.opened.emit(place.block)

    def _point(self, spot: Spot | None) -> None:
        """The tape shows the block under the pointer."""
        quilt, sizes = self.session.project.quilt, self.session.quilt_plan.top.sizes
        place = place_at(quilt, spot) if quilt is not None and spot is not None else None
        if place is None or place.block not in sizes:
            self.pointed.emit(None)
            return
        width = near(sizes[place.block].in_use, self.session.measure)[0]
        titles = {block.id: block.title for block in self.session.project.blocks}
        what = titles.get(place.block, place.block)
        where = f"{what}, row {place.row + 1}, block {place.column + 1}"
        self.pointed.emit(Reading(where, width, with_seams(width, self.session.measure)))

    @property
    def hears(self) -> QWidget | None:
        """What takes the keys that its card or picture tells of."""
        return {0: self.top, ROWS: self.rows.list}.get(self.pages.currentIndex())

    def reading(self) -> Reading | None:
        """The quilt's width."""
        top = self.session.quilt_plan.top
        if not top.rows:
            return None
        width = near(top.size, self.session.measure)[0]
        return Reading("Quilt, whole width", width, with_seams(width, self.session.measure))
