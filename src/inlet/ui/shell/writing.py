"""What the window writes beside the project: guides, labels, tables, templates, drawings. Each asks
where to, and says so where it cannot be written."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QInputDialog, QWidget

from inlet.core.buying import shopping
from inlet.core.numbers import NumberError
from inlet.core.plan import BlockPlan
from inlet.core.templates import correction, templates
from inlet.files.problem import FileProblem
from inlet.files.whole import check_export, export_whole
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.targets import ask_target
from inlet.ui.tasks.background import BackgroundTask

PDF, SVG = "PDF (*.pdf)", "SVG (*.svg)"
TEMPLATES = "PDF at true size (*.pdf);;SVG (*.svg);;DXF (*.dxf)"
SPARES = 1
"""Templates get shaved with use: so many more of each are printed."""
TABLES = "Tables (*.csv);;PDF (*.pdf)"
QUILT = {
    "guide": ("Print the quilt's guide", "quilt.pdf", PDF),
    "picture": ("Write a picture of the quilt", "quilt.png", "PNG (*.png);;SVG (*.svg)"),
    "labels": ("Print the quilt's labels", "quilt-labels.pdf", PDF),
    "lines": ("Write the quilting lines", "quilting.svg", SVG),
}
PIXELS = 2400
"""Of the longer side of a picture."""


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
        return (self._task,)

    def folder(self) -> Path:
        return self.session.path.parent if self.session.path else Path.home()

    def _ask(self, title: str, usual: str, kinds: str) -> Path | None:
        """Where to write; None where the maker thought better of it, and, with the reason said,
        where nothing may be written there or something is being written."""
        if not self.at_rest:
            self.say(f"{self.path.name} is still being written; ask again when it is done.")
            return None
        path = ask_target(self.window, title, self.folder() / usual, kinds)
        if path is None:
            return None
        try:
            check_export(path)
        except FileProblem as problem:
            self.say(str(problem))
            return None
        return path

    def _write(self, path: Path, do: Callable[[], object]) -> None:
        """Have a file written; its end is said."""

        def attempt() -> str:
            try:
                do()
            except FileProblem as problem:
                return str(problem).removeprefix("inlet: ")
            return f"{path.name} is written."

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

    # --- the block ----------------------------------------------------------------------------

    def pages(self, what: str) -> None:
        """The guide of the block shown, its labels or its cutting plan, as PDF to print from any
        viewer."""
        plan = self._plan()
        if plan is None:
            return
        path = self._ask(f"Print the {what}", f"{plan.block.id}-{what}.pdf", PDF)
        if path is None:
            return
        paper = self.settings.paper

        def write() -> None:
            from inlet.files.pdf import cutting_pdf, guide_pdf, labels_pdf

            of_plan = {
                "labels": labels_pdf.write_labels,
                "cutting": cutting_pdf.write_cutting,
                "guide": guide_pdf.write_guide,
            }
            of_plan[what](plan, path, paper)

        self._write(path, write)

    def table(self, what: str, sizes: str) -> None:
        """A table of the cutting stage as CSV or PDF: what to buy, the block at other ``sizes``, or
        the cuts."""
        plan = self._plan()
        if plan is None:
            return
        if what == "sizes" and not sizes:
            self.say("Type sizes at the cutting stage first, under Size chart.")
            return
        path = self._ask(f"Write {what}", f"{plan.block.id}-{what}.csv", TABLES)
        if path is None:
            return
        paper = self.settings.paper

        def write() -> None:
            from inlet.files.pdf import cutting_pdf
            from inlet.files.text import tables

            if what == "shopping":
                table = tables.shopping_table(shopping(plan, notes=True), plan.project)
            elif what == "sizes":
                table = tables.chart_table(sizes, plan)
            else:
                table = cutting_pdf.cuts_table(plan)
            tables.save_table(table, plan.measure, path, paper)

        self._write(path, write)

    def templates(self) -> None:
        """Templates as PDF at true size, or as SVG or DXF for a cutting machine."""
        plan = self._plan()
        if plan is None:
            return
        found = templates(plan.draft, plan.units, plan.project, plan.copies)
        if not found:
            self.say(f"{plan.block.title} needs no template: a ruler cuts all of it.")
            return
        path = self._ask("Write the templates", f"{plan.block.id}-templates.pdf", TEMPLATES)
        if path is None:
            return
        paper, printed = self.settings.paper, self.settings.printed

        def write() -> None:
            from inlet.files.drawings import templates_drawing
            from inlet.files.pdf import templates_pdf

            if path.suffix.lower() == ".svg":
                templates_drawing.write_svg(found, plan.measure, path)
            elif path.suffix.lower() == ".dxf":
                templates_drawing.write_dxf(found, plan.measure, path)
            else:
                templates_pdf.write_templates(found, plan.project, path, paper, SPARES, printed)

        self._write(path, write)

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

    def drawing(self) -> None:
        """The block as SVG."""
        project, block = self.session.project, self.session.block
        path = self._ask("Export the block", f"{block.id}.svg", f"{SVG};;All files (*)")
        if path is None:
            return

        def write() -> None:
            from inlet.files.drawings import svg

            svg.write_block_svg(project, block, path)

        self._write(path, write)

    # --- the quilt ----------------------------------------------------------------------------

    def quilt(self, what: str, seams: bool) -> None:
        """The quilt's guide, labels, picture, with its ``seams`` or without, or quilting lines."""
        plan = self.session.quilt_plan
        if not self.session.quilt_known:
            self.say("The quilt is still being laid out; ask again in a moment.")
            return
        if not plan.top.rows:
            self.say(plan.problems[0].text)
            return
        path = self._ask(*QUILT[what])
        if path is None:
            return
        paper = self.settings.paper

        def write() -> None:
            from inlet.files.drawings import quilt_picture
            from inlet.files.pdf import labels_pdf, quilt_pdf

            if what == "guide":
                quilt_pdf.write_quilt(plan, path, paper)
            elif what == "labels":
                labels_pdf.write_quilt_labels(plan, path, paper)
            elif what == "lines":
                export_whole(path, quilt_picture.quilting_svg(plan).encode("utf-8", "replace"))
            elif path.suffix.lower() == ".svg":
                drawn = quilt_picture.quilt_svg(plan, seams)
                export_whole(path, drawn.encode("utf-8", "replace"))
            else:
                export_whole(path, quilt_picture.quilt_png(plan, PIXELS, seams))

        self._write(path, write)
