"""The window's actions, and the menu they are grouped in."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import Literal

from PySide6.QtCore import QTimer
from PySide6.QtGui import QAction, QActionGroup, QGuiApplication, QKeySequence
from PySide6.QtWidgets import QApplication, QInputDialog, QMenu

from inlet.assets import ASSETS
from inlet.core.numbers import CENTIMETRES, INCHES, System
from inlet.core.project import measured_in, replace
from inlet.files.exports import BLOCK_EXPORTS, QUILT_EXPORTS, BlockExport, QuiltExport
from inlet.files.project.project_json import load
from inlet.files.project.recovery import Desk
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.command_search import Command, CommandSearch
from inlet.ui.shell.commands import of_actions
from inlet.ui.shell.panels import Panel
from inlet.ui.shell.project_window import ProjectWindow
from inlet.ui.shell.rail import STAGES
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.text_dialog import TEXTS, TextDialog
from inlet.ui.shell.welcome import Welcome

DEMO = ASSETS.parent / "demo" / "reed-channel.json"
TEXT_STEPS = (0.8, 0.9, 1.0, 1.15, 1.3, 1.5, 1.75, 2.0)
LOOKS: tuple[tuple[theme.Chosen, str], ...] = (
    ("system", "Look of the &system"),
    ("light", "&Light look"),
    ("dark", "&Dark look"),
)
FOLDS: tuple[tuple[Panel, str, str], ...] = (
    ("bar", "Fold the &top bar", "F6"), ("rail", "Fold the &rail", "F7"),
    ("ticket", "Fold the t&icket", "F8"), ("tape", "Fold the ta&pe", "F9"),
)  # fmt: skip


@guarded
class ActionWindow(ProjectWindow):
    """A window with actions; what they act on is ``Window``'s."""

    def __init__(
        self, session: Session, settings: Settings | None = None, desk: Desk | None = None
    ) -> None:
        super().__init__(session, settings, desk)
        self.groups: list[tuple[str, Sequence[QAction | QMenu | None]]] = []
        self.search: CommandSearch | None = None
        self._make_actions()
        QGuiApplication.styleHints().colorSchemeChanged.connect(self._system_look)

    def _system_look(self, _scheme: object) -> None:
        """The system has another look: so has Inlet, unless one was chosen."""
        if self.settings.look == "system":
            self.dress_again(theme.text_scale())

    # --- what the window does ------------------------------------------------------------------

    def build(self) -> None:
        """Make every widget, again after a change of text size or look."""

    def show_stage(self, stage: str) -> None:
        """Bring a stage to the front."""

    def begin(self) -> None:
        """The page of the first start."""
        welcome = Welcome(self, self.settings)
        welcome.begun.connect(self.begin_with)
        welcome.open()
        self.welcome = welcome

    def begin_with(self, way: str) -> None:
        """An empty project, the demo, a file, or a block of the shelf."""
        if way == "file":
            self.open()
        elif way == "demo" and self.may_leave():
            self.session.start(load(DEMO), None)
        elif way in ("empty", "shelf") and self.may_leave():
            self.session.start(self.settings.new_project(), None)
            if way == "shelf":
                self.open_shelf()

    def show_table(self) -> None:
        """The table view of the stage."""

    def fold(self, panel: Panel) -> None:
        """Fold a panel, or open it."""

    def show_help(self, topic: str = "") -> None:
        """Open the help at a topic, else at the stage's page; close it where it shows that."""

    def commands(self) -> list[Command]:
        """All that can be found."""
        return []

    def export(self, export: BlockExport | QuiltExport, on_paper: bool = False) -> None:
        """Write something of the block shown or of the quilt, or print it."""

    # --- actions --------------------------------------------------------------------------------

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

    def _choices(self, actions: Sequence[QAction], chosen: int) -> None:
        """Actions of which one is on."""
        group = QActionGroup(self)
        for i, action in enumerate(actions):
            action.setCheckable(True)
            action.setChecked(i == chosen)
            group.addAction(action)

    def _make_actions(self) -> None:
        self._file_actions()
        self._edit_actions()
        self._written_actions()
        self._view_actions()

    def _file_actions(self) -> None:
        self.new_ = self._action("&New", self.new, "Ctrl+N")
        self.open_ = self._action("&Open…", self.open, "Ctrl+O")
        self.save_ = self._action("&Save", self.save, "Ctrl+S")
        self.save_as_ = self._action("Save &as…", self.save_as, "Ctrl+Shift+S")
        self.name_ = self._action("Name the pro&ject…", self.name_project)
        self.shelf_ = self._action("Take a block from the s&helf…", self.open_shelf, "Ctrl+Shift+B")
        self.put_ = self._action("P&ut the block on the shelf", self.put_on_shelf)
        self.begin_ = self._action("&Begin page…", self.begin)
        self.pack_ = self._action("&Pack with its photographs…", self.pack)
        self.unpack_ = self._action("&Unpack a project…", self.unpack)
        self.inches_ = self._action("Measure in &inches", lambda: self._measure_in(INCHES))
        self.cm_ = self._action("Measure in &centimetres", lambda: self._measure_in(CENTIMETRES))
        self.quit_ = self._action("&Quit", self.close, "Ctrl+Q")

    def _edit_actions(self) -> None:
        session = self.session
        self.undo_ = self._action("&Undo", session.undo, "Ctrl+Z", "undo-2")
        self.redo_ = self._action("&Redo", session.redo, "Ctrl+Shift+Z Ctrl+Y", "redo-2")
        self.find_ = self._action("&Find anything…", self.find_anything, "Ctrl+K", "tool-search")
        self.add_ = self._action("&Add a block", session.add_block, "Ctrl+B")
        self.rename_ = self._action("Re&name the block…", self.rename_block, "F2")
        self.delete_ = self._action("&Delete the block", session.delete_block)
        self.copy_ = self._action("&Copy the block", session.copy_block, "Ctrl+D")
        turn, mirror = (1, False), (0, True)
        self.turn_ = self._action("&Turn it a quarter", lambda: session.turn_block(turn), "Ctrl+T")
        self.mirror_ = self._action("&Mirror it", lambda: session.turn_block(mirror), "Ctrl+M")
        self.earlier_ = self._action("Move it &earlier", lambda: session.move_block(-1), "Alt+Up")
        self.later_ = self._action("Move it &later", lambda: session.move_block(1), "Alt+Down")
        self.import_ = self._action("&Import a drawing…", self.import_drawing, "Ctrl+I")
        self.paste_ = self._action("&Paste a drawing", self.paste_drawing, "Ctrl+V")

    def _written_actions(self) -> None:
        self.exports, self.prints = {}, {}
        for export in (*BLOCK_EXPORTS, *QUILT_EXPORTS):
            keys = export.keys if isinstance(export, BlockExport) else ""
            printed = bool(export.prints)
            write = partial(self.export, export)
            self.exports[export.what] = self._action(export.menu, write, "" if printed else keys)
            if printed:
                icon = "printer" if export.what == "guide" else ""
                show = partial(self.export, export, on_paper=True)
                self.prints[export.what] = self._action(export.prints, show, keys, icon)
        self.print_ = self.prints["guide"]
        self.measured_ = self._action("Calibrate the p&rinter…", self.writer.ask_measured)
        self.letter_ = self._action("&Letter", lambda: self._use_paper("letter"))
        self.a4_ = self._action("&A4", lambda: self._use_paper("a4"))
        papers = {"letter": 0, "a4": 1}
        self._choices((self.letter_, self.a4_), papers.get(self.settings.paper or "", -1))

    def _view_actions(self) -> None:
        self.grey = self._action("&Grey view", self._toggle_grey, "Ctrl+G", "contrast")
        self.grey.setCheckable(True)
        self.table_ = self._action("Ta&ble view", self.show_table, "F11", "tool-table")
        self.larger_ = self._action("&Larger text", lambda: self._step_text(1), "Ctrl++ Ctrl+=")
        self.smaller_ = self._action("S&maller text", lambda: self._step_text(-1), "Ctrl+-")
        self.folds = {
            panel: self._action(words, partial(self.fold, panel), keys)
            for panel, words, keys in FOLDS
        }
        for action in self.folds.values():
            action.setCheckable(True)
        self.looks = {
            look: self._action(words, partial(self._use_look, look)) for look, words in LOOKS
        }
        names = [look for look, _ in LOOKS]
        self._choices(list(self.looks.values()), names.index(self.settings.look))
        self.to_stage = [
            self._action(stage.capitalize(), partial(self.show_stage, stage), f"Ctrl+{i}")
            for i, stage in enumerate(STAGES, 1)
        ]
        self.help_ = self._action("&Help for this stage", self.show_help, "F1", "tool-help")
        self.contents_ = self._action("&All pages of the help", lambda: self.show_help("contents"))
        texts = {title: partial(self._show_text, title, text) for title, text in TEXTS.items()}
        self.places_ = self._action("&Where Inlet keeps its files…", texts["Inlet's files"])
        self.log_ = self._action("Log of &errors…", texts["Log of errors"])
        self.news_ = self._action("What is &new…", texts["What is new"])
        self.about_ = self._action("A&bout Inlet…", texts["About Inlet"])

    # --- the menu -------------------------------------------------------------------------------

    def _menu(self) -> QMenu:
        """Everything, in groups of a dozen at most."""
        menu = QMenu(self)
        self.recent_menu = QMenu("Open &recent", menu)
        self.recent_menu.aboutToShow.connect(self._fill_recent)
        self._fill_recent()
        menu.aboutToShow.connect(self._mark_paper)
        of_block = [self.exports[export.what] for export in BLOCK_EXPORTS if export.what != "block"]
        written = self._part("&Save as a file", of_block, menu)
        paper = self._part("Pape&r", [self.letter_, self.a4_], menu)
        quilted = [self.exports[export.what] for export in QUILT_EXPORTS]
        stages = self._part("Go to a &stage", self.to_stage, menu)
        looks = self._part("L&ook", list(self.looks.values()), menu)
        file = (self.new_, self.begin_, self.open_, self.recent_menu, self.save_, self.save_as_,
                None, self.name_, self.pack_, self.unpack_, None, self.quit_)  # fmt: skip
        block = (self.add_, self.shelf_, self.put_, None, self.copy_, self.rename_, self.delete_,
                 None, self.turn_, self.mirror_, self.earlier_, self.later_, None, self.import_,
                 self.paste_, self.exports["block"])  # fmt: skip
        view = (stages, None, self.grey, self.table_, None, self.larger_, self.smaller_, looks,
                None, *self.folds.values())  # fmt: skip
        printed = (*self.prints.values(), None, written, None, paper, self.measured_)
        read = (self.help_, self.contents_, None, self.places_, self.log_, None, self.news_,
                self.about_)  # fmt: skip
        self.groups = [
            ("&File", file),
            ("&Edit", (self.undo_, self.redo_, None, self.find_, None, self.inches_, self.cm_)),
            ("&Block", block),
            ("&Quilt", quilted),
            ("&Print and export", printed),
            ("&View", view),
            ("&Help", read),
        ]
        for title, items in self.groups:
            menu.addMenu(self._part(title, items, menu))
        return menu

    def _part(self, title: str, items: Sequence[QAction | QMenu | None], menu: QMenu) -> QMenu:
        """A menu in the menu; nothing in the list is a line between."""
        part = QMenu(title, menu)
        for item in items:
            if item is None:
                part.addSeparator()
            elif isinstance(item, QMenu):
                part.addMenu(item)
            else:
                part.addAction(item)
        return part

    def _fill_recent(self) -> None:
        self.recent_menu.clear()
        for path in self.settings.recent:
            self.recent_menu.addAction(path.name, lambda p=path: self.open_path(p))
        self.recent_menu.setEnabled(bool(self.settings.recent))

    def action_commands(self) -> list[Command]:
        """The actions of the menu, those in menus of it too, as what can be found."""
        groups = [
            (title.replace("&", ""), [a for item in items for a in _actions_of(item)])
            for title, items in self.groups
        ]
        return list(of_actions(groups))

    def find_anything(self) -> None:
        """The line to find things by their words."""
        if self.search is not None:
            self.search.open(self.commands())

    def _show_text(self, title: str, text: Callable[[], str]) -> None:
        """A text in a window of its own."""
        self.reading = TextDialog(self, title, text())
        self.reading.show()

    # --- what they do ---------------------------------------------------------------------------

    def _toggle_grey(self) -> None:
        self.session.grey = self.grey.isChecked()
        self.session.changed.emit()
        if self.session.plan is not None:
            self.session.planned.emit()

    def _mark_paper(self) -> None:
        """The paper may have been chosen where pages are printed."""
        self.letter_.setChecked(self.settings.paper == "letter")
        self.a4_.setChecked(self.settings.paper == "a4")

    def _use_paper(self, name: Literal["letter", "a4"]) -> None:
        self.settings.paper = name

    def _use_look(self, look: theme.Chosen) -> None:
        self.settings.look = look
        self.dress_again(theme.text_scale())

    def _measure_in(self, system: System) -> None:
        self.session.edit(measured_in(self.session.project, system))

    def _step_text(self, by: int) -> None:
        now = min(range(len(TEXT_STEPS)), key=lambda i: abs(TEXT_STEPS[i] - theme.text_scale()))
        scale = TEXT_STEPS[max(0, min(len(TEXT_STEPS) - 1, now + by))]
        self.settings.text = scale
        self.dress_again(scale)

    def dress_again(self, scale: float) -> None:
        """Another text size or look: every widget is made anew."""
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        theme.apply(app, scale, self.settings.look)
        for action, name in ((self.print_, "printer"), (self.undo_, "undo-2"),
                             (self.redo_, "redo-2"), (self.grey, "contrast"),
                             (self.table_, "tool-table"), (self.find_, "tool-search"),
                             (self.help_, "tool-help")):  # fmt: skip
            action.setIcon(theme.icon(name))
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


def _actions_of(item: QAction | QMenu | None) -> list[QAction]:
    """The actions of a part of a menu, with those deeper in it."""
    if isinstance(item, QMenu):
        return [deep for action in item.actions() for deep in _actions_of(action)]
    return [] if item is None or item.isSeparator() else [item]
