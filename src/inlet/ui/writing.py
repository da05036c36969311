"""What the window writes beside the project: guides, labels, tables, templates, drawings. Each asks
where to, and says so where it cannot be written."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QInputDialog, QWidget

from inlet.core.buying.shopping import shopping
from inlet.core.cutting.sheets import correction
from inlet.core.cutting.templates import templates
from inlet.core.numbers.text import NumberError
from inlet.core.plan import BlockPlan
from inlet.files.problem import FileProblem
from inlet.files.whole import export_whole
from inlet.ui.session import Session
from inlet.ui.settings import Settings

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


class Writer:
    """Writes what the session shows; ``say`` is told what the maker should know."""

    def __init__(
        self, window: QWidget, session: Session, settings: Settings, say: Callable[[str], None]
    ) -> None:
        self.window, self.session, self.settings, self.say = window, session, settings, say

    def folder(self) -> Path:
        return self.session.path.parent if self.session.path else Path.home()

    def _ask(self, title: str, usual: str, kinds: str) -> Path | None:
        """Where to write, with the usual suffix if none is typed; None where the maker thought
        better of it."""
        start = str(self.folder() / usual)
        name, _ = QFileDialog.getSaveFileName(self.window, title, start, kinds)
        if not name:
            return None
        path = Path(name)
        return path if path.suffix else path.with_suffix(Path(usual).suffix)

    def _write(self, do: Callable[[], object]) -> bool:
        try:
            do()
        except FileProblem as problem:
            self.say(str(problem).removeprefix("inlet: "))
            return False
        return True

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
        from inlet.files import cutting_pdf, guide_pdf, labels_pdf  # slow to start

        write = {
            "labels": labels_pdf.write_labels,
            "cutting": cutting_pdf.write_cutting,
            "guide": guide_pdf.write_guide,
        }[what]
        self._write(lambda: write(plan, path, self.settings.paper))

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
        from inlet.files import cutting_pdf, tables  # slow to start

        if what == "shopping":
            table = tables.shopping_table(shopping(plan, notes=True), plan.project)
        elif what == "sizes":
            table = tables.chart_table(sizes, plan)
        else:
            table = cutting_pdf.cuts_table(plan)
        self._write(lambda: tables.save_table(table, plan.measure, path, self.settings.paper))

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
        from inlet.files import templates_drawing, templates_pdf  # slow to start

        paper, printed = self.settings.paper, self.settings.printed
        if path.suffix.lower() == ".svg":
            self._write(lambda: templates_drawing.write_svg(found, plan.measure, path))
        elif path.suffix.lower() == ".dxf":
            self._write(lambda: templates_drawing.write_dxf(found, plan.measure, path))
        else:
            write = templates_pdf.write_templates
            self._write(lambda: write(found, plan.project, path, paper, SPARES, printed))

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
        block = self.session.block
        path = self._ask("Export the block", f"{block.id}.svg", f"{SVG};;All files (*)")
        if path is not None:
            from inlet.files import svg  # its library is slow to start

            self._write(lambda: svg.write_block_svg(self.session.project, block, path))

    # --- the quilt ----------------------------------------------------------------------------

    def quilt(self, what: str, seams: bool) -> None:
        """The quilt's guide, labels, picture, with its ``seams`` or without, or quilting lines."""
        plan = self.session.quilt_plan
        if not plan.top.rows:
            self.say(plan.problems[0].text)
            return
        path = self._ask(*QUILT[what])
        if path is None:
            return
        from inlet.files import labels_pdf, quilt_pdf, quilt_picture  # slow to start

        def write() -> None:
            if what == "guide":
                quilt_pdf.write_quilt(plan, path, self.settings.paper)
            elif what == "labels":
                labels_pdf.write_quilt_labels(plan, path, self.settings.paper)
            elif what == "lines":
                export_whole(path, quilt_picture.quilting_svg(plan).encode("utf-8", "replace"))
            elif path.suffix.lower() == ".svg":
                drawn = quilt_picture.quilt_svg(plan, seams)
                export_whole(path, drawn.encode("utf-8", "replace"))
            else:
                export_whole(path, quilt_picture.quilt_png(plan, PIXELS, seams))

        if self._write(write):
            self.say(f"{path.name} is written.")
