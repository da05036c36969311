"""The window: rail, stage, ticket, tape and top bar round one session; files and questions."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Literal

from PySide6.QtCore import QPoint, QSize, QTimer
from PySide6.QtGui import QAction, QActionGroup, QGuiApplication, QHideEvent, QKeySequence
from PySide6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QInputDialog,
    QMenu,
    QStackedWidget,
    QWidget,
)

from inlet.core.draft import TrayUnit, with_seams
from inlet.core.numbers import CENTIMETRES, INCHES, System
from inlet.core.project import measured_in, replace
from inlet.files.exports import BLOCK_EXPORTS, QUILT_EXPORTS, BlockExport, QuiltExport
from inlet.files.project.recovery import Desk
from inlet.ui import guard, theme
from inlet.ui.at_table.sources import source_for
from inlet.ui.at_table.view import TableView
from inlet.ui.bench.stage import BenchStage
from inlet.ui.bench.ticket import BenchTicket
from inlet.ui.cutting.stage import CuttingStage
from inlet.ui.cutting.ticket import CuttingTicket
from inlet.ui.draft.stage import DraftStage
from inlet.ui.draft.ticket import DraftTicket
from inlet.ui.guard import guarded
from inlet.ui.piecing.stage import PiecingStage
from inlet.ui.piecing.ticket import PiecingTicket
from inlet.ui.pressing.stage import PressingStage
from inlet.ui.pressing.ticket import PressingTicket
from inlet.ui.quilt.stage import ROWS, QuiltStage
from inlet.ui.quilt.ticket import QuiltTicket
from inlet.ui.remake.slicing import Slicing
from inlet.ui.remake.stage import RemakeStage
from inlet.ui.remake.ticket import RemakeTicket
from inlet.ui.shell.project_window import HearsKeys, ProjectWindow
from inlet.ui.shell.rail import STAGES, Rail
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.tape import Reading, Tape
from inlet.ui.shell.topbar import TopBar
from inlet.ui.units.stage import UnitsStage
from inlet.ui.units.ticket import UnitsTicket
from inlet.ui.widgets.parts import column, scrolled

USUAL_SIZE = 1280, 800
"""Pixels of the window on its first run, where the screen has them."""
TITLE_BAR = 36
"""Pixels left for a title bar above the window."""
TICKET = 440
"""Pixels the ticket is wide at most: large text wraps in it, the stage needs its room."""
TEXT_STEPS = (0.8, 0.9, 1.0, 1.15, 1.3, 1.5, 1.75, 2.0)


@guarded
class Window(ProjectWindow):
    """One project, eight stages."""

    def __init__(
        self, session: Session, settings: Settings | None = None, desk: Desk | None = None
    ) -> None:
        super().__init__(session, settings, desk)
        self.setWindowIcon(theme.icon("inlet", size=48))
        self._place()
        self._make_actions()
        self.stage = "draft"
        self.table: TableView | None = None
        self.slicing = Slicing(session)
        self.build()
        session.changed.connect(self._name_window)
        session.changed.connect(self._edited)
        for signal in (session.changed, session.selected, session.planned):
            signal.connect(self._idle)
        session.said.connect(self.say)
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
        body = QWidget()
        body.setObjectName("window")
        layout = column(body, 0, 0)
        tools = [self.undo_, self.redo_, self.grey, self.table_, self.print_]
        self.topbar = TopBar(session, self._menu(), tools)
        layout.addWidget(self.topbar)
        self._message_line().setParent(body)
        layout.addLayout(self._middle(), 1)
        self.tape = Tape()
        layout.addWidget(self.tape)
        for stage in (
            self.draft.drawing, self.remake, self.units, self.cutting, self.piecing, self.pressing,
            self.quilt, self.bench,
        ):  # fmt: skip
            stage.pointed.connect(self._read)
        self.setCentralWidget(body)
        self.rail_area.setFixedWidth(self.rail.sizeHint().width() + 2)
        if session.plan is not None:
            session.planned.emit()
            session.pressed.emit()
        self.show_stage(self.stage)

    def _middle(self) -> QHBoxLayout:
        """The rail, the stages, and the tickets that go with them."""
        session = self.session
        self.draft = DraftStage(session)
        self.remake = RemakeStage(session, self.slicing)
        self.units = UnitsStage(session)
        self.cutting = CuttingStage(session)
        self.piecing = PiecingStage(session)
        self.pressing = PressingStage(session)
        self.draft_ticket = DraftTicket(session)
        self.remake_ticket = RemakeTicket(self.remake)
        self.units_ticket = UnitsTicket(session)
        self.cutting_ticket = CuttingTicket(session)
        self.piecing_ticket = PiecingTicket(session, self.piecing)
        self.pressing_ticket = PressingTicket(session, self.pressing)
        self.quilt_ticket = QuiltTicket(session)
        self.quilt = QuiltStage(session, self.quilt_ticket)
        self.bench = BenchStage(session)
        self.bench_ticket = BenchTicket(session, self.bench)
        self.bench.diary.asked_pdf.connect(lambda: self.exports["diary"].trigger())
        self.quilt.opened.connect(lambda _: self.show_stage("draft"))
        self.stages, self.tickets = QStackedWidget(), QStackedWidget()
        self._unseen: dict[int, tuple[QWidget, QWidget]] = {}
        for index, (stage, ticket) in enumerate((
            (self.draft, self.draft_ticket),
            (self.remake, self.remake_ticket),
            (self.units, self.units_ticket),
            (self.cutting, self.cutting_ticket),
            (self.piecing, self.piecing_ticket),
            (self.pressing, self.pressing_ticket),
            (self.quilt, self.quilt_ticket),
            (self.bench, self.bench_ticket),
        )):  # fmt: skip
            self.stages.addWidget(QWidget())
            self.tickets.addWidget(QWidget())
            self._unseen[index] = stage, scrolled(ticket, "ticket")
        self.tickets.setFixedWidth(min(theme.px(310), TICKET))
        self.draft_ticket.asked_place.connect(self.draft.drawing.flash)
        self.draft_ticket.tray.chosen.connect(self._take_unit)
        self.draft.used.connect(self._used)
        self.cutting.chose.connect(self.cutting_ticket.show_fabric)
        self.cutting.cuts.connect(self.cutting_ticket.show_plan)
        self.rail = Rail(session)
        self.rail.chosen.connect(self.show_stage)
        self.rail_area = scrolled(self.rail, "railArea")
        middle = QHBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.rail_area)
        middle.addWidget(self.stages, 1)
        middle.addWidget(self.tickets)
        return middle

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

    def show_stage(self, stage: str) -> None:
        self.stage = stage
        index = STAGES.index(stage)
        self._lay_in(index)
        self.stages.setCurrentIndex(index)
        self.tickets.setCurrentIndex(index)
        self.rail.mark(stage)
        self._idle()

    def _lay_in(self, index: int) -> None:
        """Lay a stage and its ticket into the window when they are first shown: giving all stages
        their style at once would take most of the time in which a window opens."""
        unseen = self._unseen.pop(index, None)
        if unseen is None:
            return
        for stack, widget in zip((self.stages, self.tickets), unseen, strict=True):
            room = stack.widget(index)
            stack.insertWidget(index, widget)
            if room is not None:
                stack.removeWidget(room)
                room.deleteLater()

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

    def message_room(self) -> tuple[int, int, int]:
        return self.rail_area.width(), self.tickets.width(), self.tape.height()

    def hears(self) -> QWidget | None:
        stages: dict[str, HearsKeys] = {
            "draft": self.draft, "remake": self.remake, "units": self.units, "quilt": self.quilt,
            "cutting": self.cutting, "piecing": self.piecing, "pressing": self.pressing,
            "bench": self.bench,
        }  # fmt: skip
        widget = stages[self.stage].hears
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
        reading = Reading(f"{session.block.title}, whole width", width, raw)
        if self.stage == "draft":
            reading = self.draft.drawing.reading() or reading
        elif self.stage == "remake":
            reading = self.remake.reading() or reading
        elif self.stage == "piecing":
            reading = self.piecing.reading() or reading
        elif self.stage == "pressing":
            reading = self.pressing.reading() or reading
        elif self.stage == "units":
            reading = self.units.reading() or reading
        elif self.stage == "quilt":
            reading = self.quilt.reading() or reading
        elif self.stage == "bench":
            reading = self.bench.reading() or reading
        self.tape.read(reading, session.measure)

    def _name_window(self) -> None:
        session = self.session
        name = session.project.name or (session.path.stem if session.path else "Untitled")
        star = "*" if session.history.unsaved else ""
        self.setWindowTitle(f"{star}{name} — Inlet")
        self.undo_.setEnabled(session.history.can_undo)
        self.redo_.setEnabled(session.history.can_redo)

    # --- actions ------------------------------------------------------------------------------

    def _action(
        self, words: str, do: Callable[[], object], keys: str = "", icon: str = ""
    ) -> QAction:
        action = QAction(words, self)
        if keys:
            action.setShortcuts([QKeySequence(k) for k in keys.split()])
        if icon:
            action.setIcon(theme.icon(icon))
        shown = f" ({keys.split()[0]})" if keys else ""
        action.setToolTip(words.replace("&", "").rstrip("…") + shown)
        action.triggered.connect(lambda _=False: do())
        self.addAction(action)
        return action

    def _make_actions(self) -> None:
        session, writer = self.session, self.writer
        self.new_ = self._action("&New", self.new, "Ctrl+N")
        self.open_ = self._action("&Open…", self.open, "Ctrl+O")
        self.save_ = self._action("&Save", self.save, "Ctrl+S")
        self.save_as_ = self._action("Save &as…", self.save_as, "Ctrl+Shift+S")
        self.exports = {
            export.what: self._action(
                export.menu, partial(self._export_block, export), export.keys,
                "printer" if export.what == "guide" else "",
            )
            for export in BLOCK_EXPORTS
        }  # fmt: skip
        self.print_ = self.exports["guide"]
        for export in QUILT_EXPORTS:
            write = partial(self._export_quilt, export)
            self.exports[export.what] = self._action(export.menu, write)
        self.measured_ = self._action("Calibrate the p&rinter…", writer.ask_measured)
        self.letter_ = self._action("&Letter", lambda: self._use_paper("letter"))
        self.a4_ = self._action("&A4", lambda: self._use_paper("a4"))
        papers = QActionGroup(self)
        for action, name in ((self.letter_, "letter"), (self.a4_, "a4")):
            action.setCheckable(True)
            action.setChecked(self.settings.paper == name)
            papers.addAction(action)
        self.undo_ = self._action("&Undo", session.undo, "Ctrl+Z", "undo-2")
        self.redo_ = self._action("&Redo", session.redo, "Ctrl+Shift+Z Ctrl+Y", "redo-2")
        self.grey = self._action("&Grey view", self._toggle_grey, "Ctrl+G", "contrast")
        self.grey.setCheckable(True)
        self.table_ = self._action("Ta&ble view", self.show_table, "F11", "tool-table")
        self.add_ = self._action("&Add a block", session.add_block, "Ctrl+B")
        self.rename_ = self._action("Re&name the block…", self.rename_block, "F2")
        self.delete_ = self._action("&Delete the block", session.delete_block)
        self.name_ = self._action("Name the pro&ject…", self.name_project)
        self.copy_ = self._action("&Copy the block", session.copy_block, "Ctrl+D")
        turn, mirror = (1, False), (0, True)
        self.turn_ = self._action("&Turn it a quarter", lambda: session.turn_block(turn), "Ctrl+T")
        self.mirror_ = self._action("&Mirror it", lambda: session.turn_block(mirror), "Ctrl+M")
        self.earlier_ = self._action("Move it &earlier", lambda: session.move_block(-1), "Alt+Up")
        self.later_ = self._action("Move it &later", lambda: session.move_block(1), "Alt+Down")
        self.import_ = self._action("&Import a drawing…", self.import_drawing, "Ctrl+I")
        self.paste_ = self._action("&Paste a drawing", self.paste_drawing, "Ctrl+V")
        self.inches_ = self._action("Measure in &inches", lambda: self._measure_in(INCHES))
        self.cm_ = self._action("Measure in &centimetres", lambda: self._measure_in(CENTIMETRES))
        self.larger_ = self._action("&Larger text", lambda: self._step_text(1), "Ctrl++ Ctrl+=")
        self.smaller_ = self._action("S&maller text", lambda: self._step_text(-1), "Ctrl+-")
        self.quit_ = self._action("&Quit", self.close, "Ctrl+Q")
        for i, stage in enumerate(STAGES, 1):
            self._action(stage.capitalize(), partial(self.show_stage, stage), f"Ctrl+{i}")

    def _menu(self) -> QMenu:
        menu = QMenu(self)
        menu.addActions([self.new_, self.open_])
        self.recent_menu = menu.addMenu("Open &recent")
        self.recent_menu.aboutToShow.connect(self._fill_recent)
        self._fill_recent()
        menu.addActions([self.save_, self.save_as_])
        written = [
            block_export.what for block_export in BLOCK_EXPORTS if block_export.what != "block"
        ]
        menu.addActions([self.exports[what] for what in written])
        menu.addAction(self.measured_)
        quilt = menu.addMenu("The quil&t")
        quilt.addActions([self.exports[quilt_export.what] for quilt_export in QUILT_EXPORTS])
        paper = menu.addMenu("Pape&r")
        paper.addActions([self.letter_, self.a4_])
        menu.addSeparator()
        menu.addActions([self.undo_, self.redo_])
        menu.addSeparator()
        menu.addActions([self.add_, self.rename_, self.delete_, self.name_])
        block = menu.addMenu("This &block")
        block.addActions([self.copy_, self.turn_, self.mirror_, self.earlier_, self.later_])
        menu.addActions([self.import_, self.paste_, self.exports["block"]])
        menu.addSeparator()
        menu.addActions([self.inches_, self.cm_])
        menu.addSeparator()
        menu.addActions([self.grey, self.table_, self.larger_, self.smaller_])
        menu.addSeparator()
        menu.addAction(self.quit_)
        return menu

    def _fill_recent(self) -> None:
        self.recent_menu.clear()
        for path in self.settings.recent:
            self.recent_menu.addAction(path.name, lambda p=path: self.open_path(p))
        self.recent_menu.setEnabled(bool(self.settings.recent))

    def _toggle_grey(self) -> None:
        self.session.grey = self.grey.isChecked()
        self.session.changed.emit()
        if self.session.plan is not None:
            self.session.planned.emit()

    def _use_paper(self, name: Literal["letter", "a4"]) -> None:
        self.settings.paper = name

    def _measure_in(self, system: System) -> None:
        self.session.edit(measured_in(self.session.project, system))

    def _step_text(self, by: int) -> None:
        now = min(range(len(TEXT_STEPS)), key=lambda i: abs(TEXT_STEPS[i] - theme.text_scale()))
        scale = TEXT_STEPS[max(0, min(len(TEXT_STEPS) - 1, now + by))]
        self.settings.text = scale
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        theme.apply(app, scale)
        QTimer.singleShot(0, self, self.build)

    def rename_block(self) -> None:
        block = self.session.block
        name, given = QInputDialog.getText(self, "Rename the block", "Name", text=block.title)
        if given and name.strip():
            self.session.edit_block(replace(block, name=name.strip()))

    def name_project(self) -> None:
        project = self.session.project
        name, given = QInputDialog.getText(self, "Name the project", "Name", text=project.name)
        if given:
            self.session.edit(replace(project, name=name.strip()))

    def _export_block(self, export: BlockExport) -> None:
        """Something of the block shown; at the quilt stage its guide and labels are the quilt's."""
        of_quilt = {"guide": "quilt", "labels": "quilt-labels"}.get(export.what)
        if self.stage == "quilt" and of_quilt is not None:
            self.exports[of_quilt].trigger()
        else:
            self.writer.block(export, self.cutting.sizes.text)

    def _export_quilt(self, export: QuiltExport) -> None:
        sizes = self.cutting.sizes.quilt_text
        self.writer.quilt(export, self.quilt.seams.isChecked(), sizes)
