"""The window: rail, stage, ticket, tape and top bar round one session; files and questions."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QPoint, QSize
from PySide6.QtGui import QGuiApplication, QHideEvent, QIcon, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QStackedWidget, QWidget
from shiboken6 import isValid

from inlet.core.draft import TrayUnit, with_seams
from inlet.files.desktop import DESKTOP
from inlet.files.exports import BY_NAME, BlockExport, QuiltExport
from inlet.files.project.recovery import Desk
from inlet.ui import guard, theme
from inlet.ui.at_table.sources import source_for
from inlet.ui.at_table.view import TableView
from inlet.ui.guard import guarded
from inlet.ui.quilt.stage import ROWS
from inlet.ui.shell.command_search import Command, CommandSearch
from inlet.ui.shell.commands import of_widgets, reveal
from inlet.ui.shell.help_panel import HelpPanel
from inlet.ui.shell.panels import PANELS, Breadth, Panel, WindowRoom, folded_panels
from inlet.ui.shell.rail import STAGES, Rail
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.stage_window import StageWindow
from inlet.ui.shell.tape import Reading, Tape
from inlet.ui.shell.ticket_fold import TicketFold
from inlet.ui.shell.topbar import TopBar
from inlet.ui.widgets.parts import column, scrolled
from inlet.ui.widgets.reading_order import focus_beside

USUAL_SIZE = 1280, 800
"""Pixels of the window on its first run, where the screen has them."""
TITLE_BAR = 36
"""Pixels left for a title bar above the window."""
TICKET_USUAL, TICKET = 300, 460
"""Pixels the ticket is wide, growing with the text, and at most: large text wraps in it, the stage
needs its room."""


@guarded
class Window(StageWindow):
    """One project, eight stages."""

    def __init__(
        self, session: Session, settings: Settings | None = None, desk: Desk | None = None
    ) -> None:
        super().__init__(session, settings, desk)
        self.setWindowIcon(QIcon(str(DESKTOP / "inlet.svg")))
        self._place()
        self.stage = "draft"
        self.table: TableView | None = None
        self.folded: frozenset[Panel] = frozenset()
        self.build()
        session.changed.connect(self._name_window)
        session.changed.connect(self._edited)
        for signal in (session.changed, session.selected, session.planned):
            signal.connect(self._idle)
        session.said.connect(self.say)
        session.asked_help.connect(self.show_help)
        guard.listeners.append(self._troubled)
        self._name_window()

    def _place(self) -> None:
        """Where and as large as it was last, inside a screen that is there with its title bar."""
        left, top, width, height = self.settings.window or (0, 0, *USUAL_SIZE)
        screen = QGuiApplication.screenAt(QPoint(left + width // 2, top + height // 2))
        room = (screen or QGuiApplication.primaryScreen()).availableGeometry()
        size = QSize(width, height).boundedTo(room.size() - QSize(0, TITLE_BAR))
        self.resize(size)
        if self.settings.window is not None:
            right, bottom = room.right() + 1 - size.width(), room.bottom() + 1 - size.height()
            x = max(room.left(), min(left, right))
            self.move(x, max(room.top(), min(top, bottom - TITLE_BAR)))

    def build(self) -> None:
        """Make every widget (again, after a change of text size)."""
        session = self.session
        before = self.takeCentralWidget()
        if before is not None:
            before.deleteLater()
        theme.dress(self)  # while there is nothing in it
        self.make_stages_anew()
        body = QWidget()
        body.setObjectName("window")
        layout = column(body, 0, 0)
        tools = [
            self.undo_, self.redo_, self.find_, self.grey, self.table_, self.print_, self.help_,
        ]  # fmt: skip
        self.topbar = TopBar(session, self._menu(), tools)
        layout.addWidget(self.topbar)
        self._message_line().setParent(body)
        layout.addLayout(self._middle(), 1)
        self.tape = Tape()
        layout.addWidget(self.tape)
        self.search = CommandSearch(body)
        self.setCentralWidget(body)
        self.lay_panels()
        self.show_stage(self.stage)

    def _middle(self) -> QHBoxLayout:
        """The rail, the stages, and the tickets that go with them."""
        self.stages, self.tickets = QStackedWidget(), QStackedWidget()
        for _ in STAGES:
            self.stages.addWidget(QWidget())
            self.tickets.addWidget(QWidget())
        self._unseen = set(STAGES)
        self.ticket_fold = TicketFold(lambda: self.fold("ticket"))
        self.help = HelpPanel()
        self.help.asked_stage.connect(self.show_stage)
        self.help.closed.connect(self._close_help)
        self.help.hide()
        self.rail = Rail(self.session)
        self.rail.chosen.connect(self.show_stage)
        self.rail_area = scrolled(self.rail, "railArea")
        middle = QHBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.rail_area)
        middle.addWidget(self.stages, 1)
        middle.addWidget(self.help)
        middle.addWidget(self.tickets)
        middle.addWidget(self.ticket_fold)
        return middle

    # --- panels -------------------------------------------------------------------------------

    def lay_panels(self) -> None:
        """Fold what the stage has no room for, or the maker folded."""
        body = self.centralWidget()
        if body is None:
            return
        ticket = min(theme.px(TICKET_USUAL), TICKET)
        sizes: dict[Panel, Breadth] = {
            "rail": Breadth(self.rail.breadth(False), self.rail.breadth(True)),
            "ticket": Breadth(ticket, self.ticket_fold.sizeHint().width()),
            "tape": Breadth(self.tape.breadth(False), self.tape.breadth(True)),
            "bar": Breadth(
                *(self.topbar.breadth(folded, self.width()) for folded in (False, True))
            ),
        }
        beside = 0 if self.help.isHidden() else self.help.breadth()
        self.help.setFixedWidth(self.help.breadth())
        room = WindowRoom(self.width(), self.height(), beside)
        order = PANELS if not beside else ("tape", "bar", "ticket", "rail")  # the help is read
        self.folded = folded_panels(room, sizes, self.settings.folded, order)
        self.rail.fold("rail" in self.folded)
        self.rail_area.setFixedWidth(sizes["rail"][int("rail" in self.folded)])
        self.tape.fold("tape" in self.folded)
        self.topbar.fold("bar" in self.folded)
        self.topbar.fit(self.width())
        self.tickets.setFixedWidth(ticket)
        self.tickets.setVisible("ticket" not in self.folded)
        self.ticket_fold.setVisible("ticket" in self.folded)
        for panel, action in self.folds.items():
            action.setChecked(panel in self.folded)
        self.place_message()
        if self.search is not None and self.search.isVisible():
            self.search.place()

    def fold(self, panel: Panel) -> None:
        self.settings.folded = {**self.settings.folded, panel: panel not in self.folded}
        self.lay_panels()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.lay_panels()

    def commands(self) -> list[Command]:
        """Actions, then the pages and fields of every stage, the one in front first."""
        all_commands = self.action_commands()
        all_commands += of_widgets("Top bar", self.topbar, reveal)
        order = [self.stage, *(stage for stage in STAGES if stage != self.stage)]
        for stage in order:
            for widget in self.pair(stage):
                all_commands += of_widgets(stage.capitalize(), widget, partial(self._go_to, stage))
        return all_commands

    def _go_to(self, stage: str, widget: QWidget) -> None:
        """Show a field of a stage, or of its ticket."""
        self.show_stage(stage)
        if not isValid(widget):  # made anew by its stage as it was shown
            return
        if self.tickets.isAncestorOf(widget) and "ticket" in self.folded:
            self.fold("ticket")
        reveal(widget)

    def _used(self, tool: str) -> None:
        """The tray shows while units are dropped, and does what the keys over the drawing ask."""
        tray = self.draft_ticket.tray
        if tool == "turn-unit":
            tray.turn_unit()
        elif tool == "flip-unit":
            tray.flip_unit()
        else:
            tray.setVisible(tool == "unit")

    def _take_unit(self, tray_unit: TrayUnit) -> None:
        self.draft.drawing.tray_unit = tray_unit
        self.draft.drawing.update()

    # --- stages and tape ----------------------------------------------------------------------

    def _show_forecast(self) -> None:
        self.show_stage("bench")
        self.bench.turn_to("forecast")

    def show_stage(self, stage: str) -> None:
        follows = not self.help.isHidden() and self.help.page == self.stage
        self.stage = stage
        if follows:
            self.help.show_page(stage)
        index = STAGES.index(stage)
        self._lay_in(stage)
        self.stages.setCurrentIndex(index)
        self.tickets.setCurrentIndex(index)
        self.rail.mark(stage)
        self._idle()

    def focusNextPrevChild(self, onward: bool) -> bool:
        """Tab goes as one reads: the top bar, the rail, the stage, the help, the ticket."""
        parts: list[QWidget] = [
            self.topbar, self.rail_area, self.stages, self.help, self.tickets, self.ticket_fold,
            self.message,
        ]  # fmt: skip
        seen = [part for part in parts if part.isVisible()]
        return focus_beside(seen, onward) or super().focusNextPrevChild(onward)

    def _lay_in(self, stage: str) -> None:
        """Lay a stage and its ticket into the window when they are first shown: giving all stages
        their style at once would take most of the time in which a window opens."""
        if stage not in self._unseen:
            return
        self._unseen.remove(stage)
        index = STAGES.index(stage)
        widget, ticket = self.pair(stage)
        for stack, each in ((self.stages, widget), (self.tickets, scrolled(ticket, "ticket"))):
            room = stack.widget(index)
            stack.insertWidget(index, each)
            if room is not None:
                stack.removeWidget(room)
                room.deleteLater()
        self._connect(stage)

    def _connect(self, stage: str) -> None:
        """What a stage tells the others, and the tape."""
        self.stage_widget(stage).pointed.connect(self._read)
        if stage == "draft":
            self.draft_ticket.asked_place.connect(self.draft.drawing.flash)
            self.draft_ticket.tray.chosen.connect(self._take_unit)
            self.draft_ticket.risk.followed.connect(self._show_forecast)
            self.draft.used.connect(self._used)
        elif stage == "quilt":
            self.quilt.opened.connect(lambda _: self.show_stage("draft"))
        elif stage == "bench":
            self.bench.diary.asked_pdf.connect(lambda: self.exports["diary"].trigger())

    def show_table(self) -> None:
        """One step of the stage on the whole screen, for where the work lies; the steps of the
        block where a stage has none."""
        cutting = self.session.project.cutting
        handed = cutting is not None and cutting.handed == "left"
        if self.stage == "quilt":
            self.quilt.turn_to(ROWS)
        source = source_for(
            self.stage, self.session, self.cutting, self.piecing, self.quilt.rows, self.bench
        )
        self.table = TableView(source, handed)
        self.table.closed.connect(self._close_table)
        self.table.show_all_over()

    def _close_table(self) -> None:
        self.table = None

    def show_help(self, topic: str = "") -> None:
        """Open the help at ``page#anchor``, else at the stage's page; close it where it is that
        page."""
        page, _, anchor = (topic or self.stage).partition("#")
        shown = not self.help.isHidden()
        if not topic and shown and self.help.page in ("", self.stage):
            self._close_help()
            return
        self.help.show_page(page, anchor)
        self.help.show()
        self.lay_panels()
        if not topic:
            self.help.line.setFocus()

    def _close_help(self) -> None:
        self.help.hide()
        self.lay_panels()

    def message_room(self) -> tuple[int, int, int]:
        right = self.ticket_fold if "ticket" in self.folded else self.tickets
        beside = 0 if self.help.isHidden() else self.help.width()
        return self.rail_area.width(), right.width() + beside, self.tape.height()

    def hears(self) -> QWidget | None:
        widget = self.stage_widget(self.stage).hears
        return widget if widget is not None and widget.isVisible() else None

    def hideEvent(self, event: QHideEvent) -> None:
        """The table view goes with its window."""
        if self.table is not None:
            self.table.close()
        super().hideEvent(event)

    def _read(self, reading: Reading | None) -> None:
        if reading is None:
            self._idle()
        else:
            self.tape.read(reading, self.session.measure)

    def _idle(self) -> None:
        """With nothing under the pointer the tape shows what the stage is about: the block."""
        session = self.session
        width = session.block.finished[0]
        raw = with_seams(width, session.measure)
        block = Reading(f"{session.block.title}, whole width", width, raw)
        self.tape.read(self.stage_widget(self.stage).reading() or block, session.measure)

    def _name_window(self) -> None:
        session = self.session
        name = session.project.name or (session.path.stem if session.path else "Untitled")
        star = "*" if session.history.unsaved else ""
        self.setWindowTitle(f"{star}{name} — Inlet")
        self.undo_.setEnabled(session.history.can_undo)
        self.redo_.setEnabled(session.history.can_redo)

    def export(self, export: BlockExport | QuiltExport, on_paper: bool = False) -> None:
        """Written or printed; at the quilt stage guide and labels are the quilt's."""
        of_quilt = {"guide": "quilt", "labels": "quilt-labels"}.get(export.what)
        if self.stage == "quilt" and of_quilt is not None:
            export = BY_NAME[of_quilt]
        if isinstance(export, QuiltExport):
            if on_paper:
                self.writer.print_quilt(export)
            else:
                sizes = self.cutting.sizes.quilt_text
                self.writer.quilt(export, self.quilt.seams.isChecked(), sizes)
        elif on_paper:
            self.writer.print_block(export, self.cutting.sizes.text)
        else:
            self.writer.block(export, self.cutting.sizes.text)
