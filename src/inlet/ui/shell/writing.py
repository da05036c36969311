"""What the window writes beside the project: guides, labels, tables, templates, drawings. Each asks
where to, and says so where it cannot be written."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path
from tempfile import TemporaryDirectory

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QDialog, QInputDialog, QWidget

from inlet.core.numbers import NumberError
from inlet.core.plan import BlockPlan, QuiltPlan
from inlet.core.templates import correction
from inlet.files.exports import FORMATS, BlockExport, ExportedDrawing, QuiltExport, Wish
from inlet.files.problem import FileProblem
from inlet.files.whole import check_export, export_whole
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.targets import ask_target
from inlet.ui.tasks.background import BackgroundTask

SPARES = 1
"""Templates get shaved with use: so many more of each are printed."""
PIXELS = 2400
"""Of the longer side of a picture."""
NO_ROWS = "The quilt has no rows yet: say how many blocks it has across and down."


class Writer(QObject):
    """Writes what the session shows, off the window's thread; ``say`` is told what the maker should
    know, ``show_work`` what is being written and how far it is, with a way to stop it."""

    def __init__(
        self,
        window: QWidget,
        session: Session,
        settings: Settings,
        say: Callable[[str], None],
        show_work: Callable[[str, Callable[[], object]], None],
    ) -> None:
        super().__init__(window)
        self.window, self.session, self.settings = window, session, settings
        self.say, self.show_work = say, show_work
        self.path = Path()  # what is being written
        self.preview: QDialog | None = None  # the pages that are looked at
        self._task = BackgroundTask(self, self._failed)
        self._task.progress.connect(self._tell)

    @property
    def at_rest(self) -> bool:
        """Is nothing being written?"""
        return self._task.at_rest

    @property
    def tasks(self) -> tuple[BackgroundTask, ...]:
        """What works for it, to be closed with the window: a file that is not whole yet is not
        written."""
        task = getattr(self.preview, "task", None)
        return (self._task,) if task is None else (self._task, task)

    def folder(self) -> Path:
        return self.session.path.parent if self.session.path else Path.home()

    def _ask(self, export: BlockExport | QuiltExport, usual: str) -> tuple[Path | None, str]:
        """Where to write, and in which format, by the ending; no place where the maker thought
        better of it, and, with the reason said, where nothing may be written there or something is
        being written."""
        formats = list(export.writers)
        if not self.at_rest:
            self.say(f"{self.path.name} is still being written; ask again when it is done.")
            return None, ""
        start = self.folder() / f"{usual}.{formats[0]}"
        kinds = ";;".join(FORMATS[kind] for kind in formats)
        path = ask_target(self.window, export.title, start, kinds)
        if path is None:
            return None, ""
        try:
            check_export(path)
        except FileProblem as problem:
            self.say(str(problem))
            return None, ""
        kind = path.suffix.lower().removeprefix(".")
        return path, kind if kind in formats else formats[0]

    def write(self, path: Path, do: Callable[[], object]) -> None:
        """Have a file written; its end is said, and what ``do`` says of it."""
        done = f"{path.name} is written."

        def attempt() -> str:
            try:
                more = do()
            except FileProblem as problem:
                return str(problem).removeprefix("inlet: ")
            return f"{done} {more}" if isinstance(more, str) and more else done

        self.path = path
        self.show_work(f"Writing {path.name} …", self._task.stop)
        self._task.start(attempt, self.say, stopped=self._stopped)

    def _tell(self, share: float) -> None:
        if not self.at_rest:
            self.show_work(f"Writing {self.path.name}: {share:.0%}", self._task.stop)

    def _stopped(self) -> None:
        self.say(f"Writing {self.path.name} was stopped; nothing was changed.")

    def _failed(self, text: str) -> None:
        self.say(f"{self.path.name} could not be written ({text}); nothing was changed.")

    def _plan(self) -> BlockPlan | None:
        if self.session.plan is None:
            self.say("The plan is still being worked out; ask again in a moment.")
        return self.session.plan

    def block(self, export: BlockExport, sizes: str = "") -> None:
        """Something of the block shown, as the table of exports has it; a chart for ``sizes``."""
        if export.drawing is not None:
            self._drawing(export, export.drawing)
            return
        ready = self._ready(export, sizes)
        if ready is None:
            return
        plan, wish = ready
        path, kind = self._ask(export, f"{plan.block.id}-{export.what}")
        if path is not None:
            self.write(path, lambda: export.writers[kind](plan, path, wish))

    def _ready(self, export: BlockExport, sizes: str) -> tuple[BlockPlan, Wish] | None:
        """The plan and what is asked of it; None, and a sentence, where there is none or it has
        nothing of the kind."""
        plan = self._plan()
        if plan is None:
            return None
        wish = replace(self._wish(), sizes=sizes)
        lacking = export.lacks(plan, wish)
        if lacking:
            self.say(lacking)
            return None
        return plan, wish

    def print_block(self, export: BlockExport, sizes: str = "") -> None:
        """Something of the block shown, on paper."""
        ready = self._ready(export, sizes)
        if ready is None:
            return
        plan, wish = ready
        name = f"{plan.block.id}-{export.what}"
        self._preview(export, name, partial(export.writers["pdf"], plan), wish)

    def print_quilt(self, export: QuiltExport) -> None:
        """Something of the quilt, on paper."""
        plan = self._quilt()
        if plan is not None:
            write = partial(export.writers["pdf"], plan)
            self._preview(export, export.what, write, self._wish())

    def _preview(
        self,
        export: BlockExport | QuiltExport,
        usual: str,
        write: Callable[[Path, Wish], object],
        wish: Wish,
    ) -> None:
        """The pages as they will be printed."""
        from inlet.ui.printing.preview import PrintPreview  # loads what prints

        settings = self.settings

        def make(paper: str) -> bytes:
            with TemporaryDirectory() as folder:
                path = Path(folder) / "pages.pdf"
                write(path, replace(wish, paper=paper))
                return path.read_bytes()

        def save(data: bytes) -> None:
            start = self.folder() / f"{usual}.pdf"
            path = ask_target(self.preview or self.window, export.title, start, FORMATS["pdf"])
            if path is not None:
                self.write(path, lambda: export_whole(path, data))

        def chose(paper: str) -> None:
            settings.paper = "a4" if paper == "a4" else "letter"

        self.close_preview()
        title = export.prints.replace("&", "").rstrip("…")
        paper = settings.paper or self.session.measure.system.paper
        known = frozenset(settings.tested)
        self.preview = PrintPreview(
            self.window,
            title,
            make,
            paper,
            save,
            known=known,
            tested=settings.printed_on,
            chose=chose,
        )
        self.preview.show()

    def close_preview(self) -> None:
        """The pages that were looked at are put away."""
        if self.preview is not None:
            self.preview.close()

    def _drawing(
        self,
        export: BlockExport,
        write: Callable[[ExportedDrawing | BlockPlan, Path, Wish], object],
    ) -> None:
        """The block as it is drawn now: no plan is waited for."""
        drawn = ExportedDrawing(self.session.project, self.session.block)
        path, _ = self._ask(export, drawn.block.id)
        if path is not None:
            self.write(path, lambda: write(drawn, path, self._wish()))

    def quilt(self, export: QuiltExport, seams: bool, sizes: str = "") -> None:
        """Something of the quilt, its picture with its ``seams`` or without, a chart for
        ``sizes``."""
        plan = self._quilt()
        if plan is None:
            return
        wish = replace(self._wish(), seams=seams, sizes=sizes)
        path, kind = self._ask(export, export.what)
        if path is not None:
            self.write(path, lambda: export.writers[kind](plan, path, wish))

    def _quilt(self) -> QuiltPlan | None:
        """The quilt's plan; none where there is none yet, with the reason said."""
        plan = self.session.quilt_plan
        if not self.session.quilt_known:
            self.say("The quilt is still being laid out; ask again in a moment.")
            return None
        if not plan.top.rows:
            problems = plan.top.problems  # those of its blocks would have to be planned for
            self.say(problems[0].text if problems else NO_ROWS)
            return None
        return plan

    def _wish(self) -> Wish:
        settings = self.settings
        return Wish(
            settings.paper, SPARES, printed=settings.printed, pixels=PIXELS,
            project_file=self.session.path,
        )  # fmt: skip

    def ask_measured(self) -> None:
        """What the test square of the last sheet measured; the next one is corrected by it."""
        text, typed = QInputDialog.getText(
            self.window, "The test square", "The 1 in square measured, across and down:",
            text="1, 1",
        )  # fmt: skip
        if not typed:
            return
        try:
            across, down = correction(text)
        except NumberError as why:
            self.say(f"The test square: {why}.")
            return
        before = self.settings.printed
        self.settings.printed = (across * before[0], down * before[1])
        self.say("The next templates are printed so that the square measures 1 in.")
