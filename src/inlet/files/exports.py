"""Everything that is written beside the project: one table, which the command line and the window
both read. Its libraries are loaded when something is written."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple, TypeVar

from inlet.core.bench import log_lines
from inlet.core.buying import shopping, sizes_typed
from inlet.core.numbers import NumberError
from inlet.core.plan import BlockPlan, QuiltPlan
from inlet.core.project import Block, Project
from inlet.core.templates import Template, templates
from inlet.files.problem import FileProblem
from inlet.files.whole import export_whole

if TYPE_CHECKING:
    from inlet.files.text.tables import Table

PIXELS = 1600
"""Of the longer side of a picture."""


@dataclass(frozen=True)
class Wish:
    """How something is written: on which ``paper`` (None: by the measure); templates with so many
    ``spares`` of each, for ``every`` shape, ``printed`` so much too large; a chart for ``sizes`` as
    they are typed; a picture so many ``pixels`` wide, with its ``seams`` or without; photographs
    that lie beside the ``project_file``."""

    paper: str | None = None
    spares: int = 0
    every: bool = False
    printed: tuple[float, float] = (1.0, 1.0)
    sizes: str = ""
    pixels: int = PIXELS
    seams: bool = True
    project_file: Path | None = None


class ExportedDrawing(NamedTuple):
    """A block of a project as it is drawn, without its plan."""

    project: Project
    block: Block


SomePlan = TypeVar("SomePlan", BlockPlan, QuiltPlan)
OfBlock = Callable[[BlockPlan, Path, Wish], object]
OfQuilt = Callable[[QuiltPlan, Path, Wish], object]


class BlockExport(NamedTuple):
    """Something of a block: its name for the command line, the question where it goes, the entry in
    the menu, and who writes it in which format, the usual one first. What is for paper ``prints``
    by an entry of its own, with its ``keys``. ``lacks`` says why there is nothing to write;
    ``drawing`` writes what needs no plan."""

    what: str
    title: str
    menu: str
    writers: Mapping[str, OfBlock]
    keys: str = ""
    prints: str = ""
    lacks: Callable[[BlockPlan, Wish], str] = lambda _plan, _wish: ""
    drawing: Callable[[ExportedDrawing | BlockPlan, Path, Wish], object] | None = None


class QuiltExport(NamedTuple):
    """The same of the quilt."""

    what: str
    title: str
    menu: str
    writers: Mapping[str, OfQuilt]
    prints: str = ""


FORMATS = {
    "pdf": "PDF (*.pdf)", "svg": "SVG (*.svg)", "png": "PNG (*.png)", "csv": "Tables (*.csv)",
    "dxf": "DXF (*.dxf)",
}  # fmt: skip
"""What a file dialog calls each format."""


# --- writers of a block ---------------------------------------------------------------------------


def _guide(plan: BlockPlan, path: Path, wish: Wish) -> None:
    from inlet.files.pdf.guide_pdf import write_guide

    write_guide(plan, path, wish.paper, wish.sizes)


def _labels(plan: BlockPlan, path: Path, wish: Wish) -> None:
    from inlet.files.pdf.labels_pdf import write_labels

    write_labels(plan, path, wish.paper)


def _cutting(plan: BlockPlan, path: Path, wish: Wish) -> None:
    from inlet.files.pdf.cutting_pdf import write_cutting

    write_cutting(plan, path, wish.paper)


def _drawing(drawn: ExportedDrawing | BlockPlan, path: Path, _wish: Wish) -> None:
    from inlet.files.drawings.svg import write_block_svg

    write_block_svg(drawn.project, drawn.block, path)


def _template(plan: BlockPlan, wish: Wish) -> list[Template]:
    return list(templates(plan.draft, plan.units, plan.project, plan.copies, wish.every))


def _templates_pdf(plan: BlockPlan, path: Path, wish: Wish) -> None:
    from inlet.files.pdf.templates_pdf import write_templates

    cut_templates = _template(plan, wish)
    write_templates(cut_templates, plan.project, path, wish.paper, wish.spares, wish.printed)


def _templates_svg(plan: BlockPlan, path: Path, wish: Wish) -> None:
    from inlet.files.drawings.templates_drawing import write_svg

    write_svg(_template(plan, wish), plan.measure, path)


def _templates_dxf(plan: BlockPlan, path: Path, wish: Wish) -> None:
    from inlet.files.drawings.templates_drawing import write_dxf

    write_dxf(_template(plan, wish), plan.measure, path)


def _no_templates(plan: BlockPlan, wish: Wish) -> str:
    if _template(plan, wish):
        return ""
    return f"{plan.block.title} needs no template: a ruler cuts all of it."


def _cuts(plan: BlockPlan, _wish: Wish) -> Table:
    from inlet.files.pdf.cutting_pdf import cuts_table

    return cuts_table(plan)


def _shopping(plan: BlockPlan, _wish: Wish) -> Table:
    from inlet.files.text.tables import shopping_table

    return shopping_table(shopping(plan, notes=True), plan.project)


def _chart(plan: BlockPlan, wish: Wish) -> Table:
    from inlet.files.text.tables import chart_table

    return chart_table(wish.sizes, plan)


def _log(plan: BlockPlan, _wish: Wish) -> Table:
    from inlet.files.text.tables import Table

    project = plan.project
    return Table("Log", log_lines(project.log, project.measure))


def _diary_pdf(plan: BlockPlan, path: Path, wish: Wish) -> None:
    from inlet.files.pdf.diary_pdf import write_diary

    write_diary(plan.project, wish.project_file, path, wish.paper)


def _no_log(plan: BlockPlan, _wish: Wish) -> str:
    return "" if plan.project.log else "Nothing is logged yet: tick a step first."


def _bad_sizes(plan: BlockPlan, wish: Wish) -> str:
    if not wish.sizes:
        return "Type sizes for the size chart first, like 4, 6, 8, 12."
    try:
        sizes_typed(wish.sizes, plan)
    except NumberError as why:
        return f"The sizes of the chart: {why}."
    return ""


def _tabled(
    table: Callable[[SomePlan, Wish], Table],
) -> dict[str, Callable[[SomePlan, Path, Wish], object]]:
    """A table as CSV and as PDF."""

    def as_csv(plan: SomePlan, path: Path, wish: Wish) -> None:
        from inlet.files.text.tables import write_csv

        write_csv(table(plan, wish).lines, path)

    def as_pdf(plan: SomePlan, path: Path, wish: Wish) -> None:
        from inlet.files.text.tables import write_table

        write_table(table(plan, wish), plan.measure, path, wish.paper)

    return {"csv": as_csv, "pdf": as_pdf}


# --- writers of a quilt ---------------------------------------------------------------------------


def _quilt_guide(plan: QuiltPlan, path: Path, wish: Wish) -> None:
    from inlet.files.pdf.quilt_pdf import write_quilt

    write_quilt(plan, path, wish.paper)


def _quilt_labels(plan: QuiltPlan, path: Path, wish: Wish) -> None:
    from inlet.files.pdf.labels_pdf import write_quilt_labels

    write_quilt_labels(plan, path, wish.paper)


def _quilt_svg(plan: QuiltPlan, path: Path, wish: Wish) -> None:
    from inlet.files.drawings.quilt_picture import quilt_svg

    export_whole(path, quilt_svg(plan, wish.seams).encode("utf-8", "replace"))


def _quilt_png(plan: QuiltPlan, path: Path, wish: Wish) -> None:
    from inlet.files.drawings.quilt_picture import quilt_png

    export_whole(path, quilt_png(plan, wish.pixels, wish.seams))


def _quilting(plan: QuiltPlan, path: Path, _wish: Wish) -> None:
    from inlet.files.drawings.quilt_picture import quilting_svg

    export_whole(path, quilting_svg(plan).encode("utf-8", "replace"))


def _quilt_chart(plan: QuiltPlan, wish: Wish) -> Table:
    from inlet.files.text.tables import quilt_chart_table

    try:
        return quilt_chart_table(wish.sizes, plan.project)
    except NumberError as why:
        raise FileProblem(f"The sizes of the quilt: {why}") from None


# --- the table ------------------------------------------------------------------------------------

BLOCK_EXPORTS = (
    BlockExport(
        "guide", "Save the guide", "Save the &guide as PDF…", {"pdf": _guide}, "Ctrl+P",
        "&Print the guide…", lacks=lambda plan, wish: _bad_sizes(plan, wish) if wish.sizes else "",
    ),
    BlockExport("labels", "Save the labels", "Save the la&bels as PDF…", {"pdf": _labels}, "Ctrl+L",
                "Print the la&bels…"),
    BlockExport(
        "cutting", "Save the cutting plan", "Save the cu&tting plan…",
        {"pdf": _cutting, "csv": _tabled(_cuts)["csv"]}, prints="Print the cu&tting plan…",
    ),
    BlockExport("cuts", "Write the list of cuts", "Write the list of c&uts…", _tabled(_cuts)),
    BlockExport(
        "shopping", "Write the shopping list", "Write the s&hopping list…", _tabled(_shopping)
    ),
    BlockExport(
        "sizes", "Write the size chart", "Write the si&ze chart…", _tabled(_chart),
        lacks=_bad_sizes,
    ),
    BlockExport("log", "Write the log", "Write the lo&g…", _tabled(_log), lacks=_no_log),
    BlockExport("diary", "Save the diary", "Save the diar&y as PDF…", {"pdf": _diary_pdf},
                prints="Print the diar&y…", lacks=_no_log),
    BlockExport(
        "templates", "Write the templates", "Write the te&mplates…",
        {"pdf": _templates_pdf, "svg": _templates_svg, "dxf": _templates_dxf},
        prints="Print the te&mplates…", lacks=_no_templates,
    ),
    BlockExport(
        "block", "Export the block", "E&xport the block as SVG…", {"svg": _drawing}, "Ctrl+E",
        drawing=_drawing,
    ),
)  # fmt: skip
QUILT_EXPORTS = (
    QuiltExport(
        "quilt", "Save the quilt's guide", "Save the quilt's guide…",
        {"pdf": _quilt_guide, "svg": _quilt_svg, "png": _quilt_png},
        "Print the quilt's guide…",
    ),
    QuiltExport(
        "quilt-labels", "Save the quilt's labels", "Save the quilt's labels as PDF…",
        {"pdf": _quilt_labels}, "Print the quilt's labels…",
    ),
    QuiltExport(
        "quilt-picture", "Write a picture of the quilt", "Write a picture of the quilt…",
        {"png": _quilt_png, "svg": _quilt_svg},
    ),
    QuiltExport(
        "quilt-sizes", "Write the chart of the quilt's sizes",
        "Write the chart of the quilt's sizes…",
        _tabled(_quilt_chart),
    ),
    QuiltExport(
        "quilting", "Write the quilting lines", "Write the quilting lines…", {"svg": _quilting}
    ),
)  # fmt: skip
BY_NAME: Mapping[str, BlockExport | QuiltExport] = {
    export.what: export for export in (*BLOCK_EXPORTS, *QUILT_EXPORTS)
}
