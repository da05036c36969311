"""The quilt written to files: its guide, its picture, its quilting lines."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QWidget

from inlet.core.quilt.plan import QuiltPlan
from inlet.files.problem import FileProblem
from inlet.files.whole import export_whole

KINDS = {
    "guide": ("Print the quilt's guide", "quilt.pdf", "PDF (*.pdf)"),
    "picture": ("Write a picture of the quilt", "quilt.png", "PNG (*.png);;SVG (*.svg)"),
    "lines": ("Write the quilting lines", "quilting.svg", "SVG (*.svg)"),
}
PIXELS = 2400
"""Of the longer side of a picture."""


def write_quilt_file(
    parent: QWidget, plan: QuiltPlan, what: str, folder: str, paper: str | None, seams: bool
) -> str:
    """Ask where to, and write it; what is to be said then, nothing where the maker thought better
    of it."""
    title, usual, kinds = KINDS[what]
    if not plan.top.rows:
        return plan.problems[0].text
    name, _ = QFileDialog.getSaveFileName(parent, title, str(Path(folder) / usual), kinds)
    if not name:
        return ""
    path = Path(name) if Path(name).suffix else Path(name).with_suffix(Path(usual).suffix)
    from inlet.files import quilt_pdf, quilt_picture  # load the PDF and the picture library

    try:
        if what == "guide":
            quilt_pdf.write_quilt(plan, path, paper)
        elif what == "lines":
            export_whole(path, quilt_picture.quilting_svg(plan).encode("utf-8", "replace"))
        elif path.suffix.lower() == ".svg":
            export_whole(path, quilt_picture.quilt_svg(plan, seams).encode("utf-8", "replace"))
        else:
            export_whole(path, quilt_picture.quilt_png(plan, PIXELS, seams))
    except FileProblem as problem:
        return str(problem).removeprefix("inlet: ")
    return f"{path.name} is written."
