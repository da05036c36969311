"""A window with one project in it: opened, saved, kept safe from a crash, drawings read into it,
and what is said of all that."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QCloseEvent, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import (
    QAbstractSpinBox,
    QApplication,
    QFileDialog,
    QHBoxLayout,
    QLineEdit,
    QMainWindow,
    QMessageBox,
    QWidget,
)

from inlet.core.project import Project, replace
from inlet.files.packing import missing_text, pack, unpack
from inlet.files.project.project_json import FileProblem, load
from inlet.files.project.recovery import Desk, Look, clear, look_of
from inlet.files.shelf import ShelfBlock, put_on_shelf, take_from_shelf
from inlet.ui import guard, theme
from inlet.ui.guard import guarded
from inlet.ui.shell.drawing_reader import DrawingReader
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.targets import ask_target
from inlet.ui.shell.writing import Writer
from inlet.ui.tasks import turns
from inlet.ui.tasks.background import BackgroundTask, close_all
from inlet.ui.widgets.inputs import ToolButton
from inlet.ui.widgets.parts import button, icon_button, label

FILES = "Inlet projects (*.inlet *.json);;All files (*)"
PACKED = "Packed projects (*.zip);;All files (*)"
DRAWINGS = "SVG drawings (*.svg);;All files (*)"


@guarded
class ProjectWindow(QMainWindow):
    """The window's files and questions; what shows the project is ``Window``'s."""

    def __init__(
        self, session: Session, settings: Settings | None = None, desk: Desk | None = None
    ) -> None:
        super().__init__()
        self.session = session
        self.settings = settings or Settings()
        self.desk = desk or Desk()
        self.desk.first = turns.urgent
        self.writer = Writer(self, session, self.settings, self.say, self.show_work)
        self._troubled_desk = self._handing_on = False
        self._about = ""
        self.drawings = DrawingReader(self, session, self.say, self.show_work)
        self.unpacking = BackgroundTask(self, self._not_unpacked)
        self._on_disk: Look | None = None  # how the file looked when we last met it
        self._stop: Callable[[], object] = self.drawings.task.stop

    # --- what is said -------------------------------------------------------------------------

    def _message_line(self) -> QWidget:
        """What is said above the tape, over what is there, until it is closed: it moves nothing
        under the pointer."""
        self.message = QWidget()
        self.message.setObjectName("say")
        self.message.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.message_text = label("", "", True)
        close = ToolButton()
        close.setIcon(theme.icon("x"))
        close.setAccessibleName("Close the message")
        close.clicked.connect(self.message.hide)
        line = QHBoxLayout(self.message)
        line.setContentsMargins(theme.px(14), theme.px(6), theme.px(8), theme.px(6))
        line.addWidget(self.message_text, 1)
        self.stop_work = button("Stop", lambda: self._stop())
        self.stop_work.hide()
        line.addWidget(self.stop_work)
        about = icon_button("tool-help", "Help for this message", self._ask_about)
        line.addWidget(about)
        line.addWidget(close)
        self.message.hide()
        return self.message

    def _ask_about(self) -> None:
        self.session.asked_help.emit(self._about)

    def place_message(self) -> None:
        """As wide as the stage, as high as its words need, above the tape."""
        body = self.centralWidget()
        if body is None or self.message.isHidden():
            return
        (left, right, below), gap = self.message_room(), theme.px(8)
        self.message.setFixedWidth(max(1, body.width() - left - right - 2 * gap))
        layout = self.message.layout()
        high = layout.heightForWidth(self.message.width()) if layout is not None else 0
        self.message.setFixedHeight(max(high, self.message.sizeHint().height()))
        top = body.height() - below - gap - self.message.height()
        self.message.move(left + gap, max(0, top))
        self.message.raise_()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.place_message()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A key that nothing took is for what the stage shows, wherever the focus is; but a text
        field keeps its keys."""
        focus, hears = QApplication.focusWidget(), self.hears()
        typing = isinstance(focus, QLineEdit | QAbstractSpinBox)
        inside = hears is not None and focus is not None and (
            hears is focus or hears.isAncestorOf(focus)
        )  # fmt: skip
        if hears is None or typing or inside or self._handing_on:
            super().keyPressEvent(event)
            return
        self._handing_on = True
        try:
            QApplication.sendEvent(hears, event)
        finally:
            self._handing_on = False

    def hears(self) -> QWidget | None:
        """What takes the keys that nothing else took."""
        return None

    def message_room(self) -> tuple[int, int, int]:
        """How much of the window is not for a message: at its left, at its right, at its foot."""
        return 0, 0, 0

    def say(self, text: str, about: str = "") -> None:
        """A sentence for the maker, until closed or the next one; ``about`` is the page of the help
        that has more of it, else the stage's."""
        self._about = about
        self.message_text.setText(text)
        self.stop_work.setVisible(False)
        self.message.show()
        self.place_message()

    def show_work(self, text: str, stop: Callable[[], object]) -> None:
        """What is being done, with a way to stop it."""
        self.message_text.setText(text)
        self._stop = stop
        self.stop_work.setVisible(True)
        self.message.show()

    def _troubled(self, log: Path) -> None:
        """An error of ours was caught: the work goes on its desk, and a quiet word is said, once
        what Qt is at now is over."""
        self.put_by()
        words = f"Something went wrong inside Inlet. Your work is kept; {log} says what it was."
        QTimer.singleShot(0, self, lambda: self.say(words, "files#The log of errors"))

    # --- files --------------------------------------------------------------------------------

    def new(self) -> None:
        if self.may_leave():
            self.session.start(self.settings.new_project(), None)
            self.message.hide()
            self.put_by()

    def open(self) -> None:
        if not self.may_leave():
            return
        name, _ = QFileDialog.getOpenFileName(
            self, "Open a project", str(self.writer.folder()), FILES
        )
        if name:
            self._open(Path(name))

    def open_path(self, path: Path) -> None:
        if self.may_leave():
            self._open(path)

    def _open(self, path: Path) -> None:
        try:
            project = load(path)
        except FileProblem as problem:
            self.say(str(problem), "files#A file that cannot be opened")
            return
        self.message.hide()
        if self.session.start(project, path):
            self.settings.opened(path)
            self.met_file()

    def save(self) -> bool:
        if self.session.path is None:
            return self.save_as()
        return self._save(self.session.path)

    def save_as(self) -> bool:
        start = self.session.path or self.writer.folder() / self._file_name(".inlet")
        path = ask_target(self, "Save the project", start, FILES)
        return path is not None and self._save(path)

    def _save(self, path: Path) -> bool:
        if not self._may_overwrite(path) or not self.session.save_to(path):
            return False
        self.message.hide()
        self.settings.opened(path)
        self._on_disk = look_of(path)
        self.put_by()
        return True

    # --- safety of work -----------------------------------------------------------------------

    def _edited(self) -> None:
        """An edit goes on the desk at once, in another thread: a crash loses the last one at
        most."""
        if self.session.history.unsaved:
            self.desk.keep_soon(*self._to_keep())
            self._say_trouble()  # of the edit before

    def put_by(self) -> None:
        """Put what is not saved yet on our desk now, to be found again after a crash."""
        self.desk.keep(*self._to_keep())
        self._say_trouble()

    def _to_keep(self) -> tuple[Project | None, Path | None, Look | None]:
        session = self.session
        unsaved = session.project if session.history.unsaved else None
        return unsaved, session.path, self._on_disk

    def _say_trouble(self) -> None:
        """Say once that unsaved work cannot be kept, and again only after it could."""
        if self.desk.trouble and not self._troubled_desk:
            why = self.desk.trouble
            self.say(f"Unsaved work cannot be kept safe from a crash ({why}).", "files")
        self._troubled_desk = bool(self.desk.trouble)

    def met_file(self) -> None:
        """A file has been opened: remember how it looks, and notice who else has it open."""
        path = self.session.path
        if path is None:
            return
        self._on_disk = look_of(path)
        if self.desk.held_elsewhere(path):
            self.say(
                f"{path.name} is open in another Inlet window too. Whichever saves last keeps its "
                "own drawing; save under another name to keep both.",
                "files#A file open in two windows",
            )
        self.put_by()

    def _may_overwrite(self, path: Path) -> bool:
        """Where another has written the file since we met it, ask first."""
        now = look_of(path)
        if path != self.session.path or now is None or now == self._on_disk:
            return True
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            self,
            "Changed elsewhere",
            f"{path.name} has been saved by another window since it was opened here. Save over "
            "it? The version on disk is kept beside it.",
            buttons.Save | buttons.Cancel,
            buttons.Cancel,
        )
        return answer == buttons.Save

    def offer_left_work(self, path: Path | None = None) -> None:
        """After a crash: what was not saved, to be taken up again. With a path, only work on it."""
        work_left = self.desk.left_behind()
        if self.desk.unread:
            self.say(
                "Recovered work could not be opened. It was moved to "
                f"{self.desk.unread[0]}; nothing was deleted."
            )
        for left in work_left:
            if path is not None and (left.path is None or left.path != path.resolve()):
                continue
            name = left.path.name if left.path is not None else "a project not saved yet"
            blocks = left.project.blocks
            title = left.project.name or (blocks[0].title if blocks else "no block")
            buttons = QMessageBox.StandardButton
            answer = QMessageBox.question(
                self,
                "Unsaved work",
                f"Inlet stopped before the last changes to {name} ({title}) were saved. "
                "Recover them? “Discard” deletes them.",
                buttons.Yes | buttons.Discard | buttons.Cancel,
                buttons.Yes,
            )
            if answer == buttons.Discard:
                clear(left)
            elif answer == buttons.Yes:
                if not self.session.start(left.project, left.path, saved=False):
                    return  # it stays on its desk
                self._on_disk = left.seen  # not as it is now: another may have saved since
                self.put_by()
                clear(left)
                return

    # --- drawings -----------------------------------------------------------------------------

    def import_drawing(self) -> None:
        """The lines and arcs of an SVG file as a new block."""
        name, _ = QFileDialog.getOpenFileName(
            self, "Import a drawing", str(self.writer.folder()), DRAWINGS
        )
        if name:
            self.drawings.read_file(Path(name))

    def paste_drawing(self) -> None:
        """The same from the clipboard."""
        self.drawings.read_text(QApplication.clipboard().text())

    # --- the shelf ----------------------------------------------------------------------------

    def open_shelf(self) -> None:
        """Blocks kept across projects, to take one."""
        from inlet.ui.shelf.shelf_dialog import ShelfDialog

        self.shelf = ShelfDialog(self)
        self.shelf.taken.connect(self.take_from_shelf)
        self.shelf.show()

    def take_from_shelf(self, shelf_block: ShelfBlock) -> None:
        """A block of the shelf, in place of an empty one where that is all there is."""
        session = self.session
        project, name = take_from_shelf(shelf_block, session.project)
        first = session.project.blocks
        if len(first) == 1 and not first[0].seams and session.path is None:
            project = replace(project, blocks=project.blocks[1:])
        if session.edit(project, name):
            self.message.hide()

    def put_on_shelf(self) -> None:
        """The block shown, for other projects."""
        try:
            path = put_on_shelf(self.session.project, self.session.block)
        except FileProblem as problem:
            self.say(str(problem), "files#What is kept where")
            return
        self.say(f"{self.session.block.title} is on the shelf now, as {path.name}.", "files")

    # --- packed -------------------------------------------------------------------------------

    def pack(self) -> None:
        """The project as it is now with its photographs, as one file."""
        session = self.session
        start = self.writer.folder() / self._file_name(".zip")
        path = ask_target(self, "Pack the project", start, PACKED)
        if path is not None:
            project, beside = session.project, session.path
            self.writer.write(path, lambda: missing_text(pack(project, beside, path)))

    def unpack(self) -> None:
        """A packed project written to a folder aside, and opened."""
        name, _ = QFileDialog.getOpenFileName(
            self, "Unpack a project", str(self.writer.folder()), PACKED
        )
        folder = QFileDialog.getExistingDirectory(
            self, "Where to unpack it", str(self.writer.folder())
        ) if name else ""  # fmt: skip
        if not folder:
            return

        def work() -> Path | str:
            try:
                return unpack(Path(name), Path(folder)).project
            except FileProblem as problem:
                return str(problem)

        self.show_work("Unpacking the project …", self.unpacking.stop)
        self.unpacking.start(work, self._unpacked, stopped=self._not_unpacked)

    def _unpacked(self, result: Path | str) -> None:
        if isinstance(result, Path):
            self.message.hide()
            self.open_path(result)
        else:
            self.say(result, "files#Pack a project")

    def _not_unpacked(self, why: str = "it was stopped") -> None:
        self.say(f"The project is not unpacked ({why}).", "files#Pack a project")

    # --- leaving ------------------------------------------------------------------------------

    def _file_name(self, suffix: str) -> str:
        words = (self.session.project.name or "untitled").lower().split()
        return "-".join(words) + suffix

    def may_leave(self) -> bool:
        """True where nothing would be lost, after asking if need be."""
        if not self.session.history.unsaved:
            return True
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            self,
            "Unsaved changes",
            "This project has changes that are not saved. Save them first?",
            buttons.Save | buttons.Discard | buttons.Cancel,
            buttons.Save,
        )
        if answer == buttons.Save:
            return self.save()
        return answer == buttons.Discard

    @property
    def tasks(self) -> tuple[BackgroundTask, ...]:
        """All that works for the window."""
        return (self.drawings.task, self.unpacking, *self.writer.tasks, *self.session.tasks)

    def closeEvent(self, event: QCloseEvent) -> None:
        if self.may_leave():
            if self._troubled in guard.listeners:
                guard.listeners.remove(self._troubled)
            if not (self.isMaximized() or self.isFullScreen()):
                self.settings.window = (self.x(), self.y(), self.width(), self.height())
            self.hide()  # it is gone for the maker, whatever is still being stopped
            close_all(self.tasks)
            self.writer.close_preview()
            self.desk.leave()
            event.accept()
        else:
            event.ignore()
