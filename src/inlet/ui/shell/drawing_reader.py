"""Drawings of other programs read into the project, off the window's thread."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject

from inlet.core.draft import draft
from inlet.core.numbers import System
from inlet.core.project import Block, fresh_id, new_block, replace
from inlet.files.drawings.svg_import import Imported, load_svg, read_svg
from inlet.files.problem import FileProblem
from inlet.ui.shell.session import Session
from inlet.ui.tasks.background import BackgroundTask


class DrawingReader(QObject):
    """Reads a drawing as a new block; ``say`` is told what the maker should know, ``show_work`` how
    far it is, with a way to stop it."""

    def __init__(
        self,
        parent: QObject,
        session: Session,
        say: Callable[[str], None],
        show_work: Callable[[str, Callable[[], object]], None],
    ) -> None:
        super().__init__(parent)
        self.session, self.say, self.show_work = session, say, show_work
        self.task = BackgroundTask(self, self._not_read)
        self.task.progress.connect(self._show_reading)

    def read_file(self, path: Path) -> None:
        """The lines and arcs of an SVG file."""
        self._take(path.stem, lambda b, s: load_svg(path, block=b, system=s))

    def read_text(self, text: str) -> None:
        """The same from the clipboard."""
        if "<svg" not in text:
            self.say("The clipboard holds no SVG drawing.")
            return
        self._take("Pasted", lambda b, s: read_svg(text, "the clipboard", block=b, system=s))

    def _take(self, name: str, read: Callable[[Block, System], Imported]) -> None:
        session = self.session
        block = new_block({b.id for b in session.project.blocks}, name, session.measure)
        block, system = replace(block, finished=session.block.finished), session.measure.system

        def work() -> Imported | str:
            try:
                imported = read(block, system)
            except FileProblem as problem:
                return str(problem)
            draft(imported.block)  # found again when it is shown
            return imported

        self.show_work("Reading the drawing …", self.task.stop)
        self.task.start(work, self._drawing_read, stopped=self._stopped)

    def _show_reading(self, share: float) -> None:
        if not self.task.at_rest:
            self.show_work(f"Reading the drawing: {share:.0%}", self.task.stop)

    def _stopped(self) -> None:
        self.say("Reading the drawing was stopped; nothing was changed.")

    def _not_read(self, text: str) -> None:
        self.say(f"Inlet could not read the drawing ({text}); nothing was changed.")

    def _drawing_read(self, imported: Imported | str) -> None:
        """A drawing has been read, or was not."""
        if isinstance(imported, str):
            self.say(imported)
            return
        session = self.session
        taken = {b.id for b in session.project.blocks}
        name = fresh_id(imported.block.id, taken)
        if session.take_block(replace(imported.block, id=name)):
            self.say(" ".join(imported.report))
