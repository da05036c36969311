"""A block as an SVG drawing.

It carries each seam's exact ends beside the picture of it, so that it reads back to the same
patches; see ``svg_import``.
"""

from __future__ import annotations

from pathlib import Path

from inlet.core.draft import draft, image
from inlet.core.geometry import Curve, Point, circle_of
from inlet.core.numbers import Exact, write_exact
from inlet.core.project import Block, Project
from inlet.core.words import fabric_name, size_text
from inlet.files.drawings.markup import INKS, NO_FABRIC, add, drawing, markup
from inlet.files.whole import export_whole


def block_svg(project: Project, block: Block) -> str:
    """The block at finished size, patches in their fabrics and seams over them."""
    width, height = (float(x) for x in block.finished)
    exact = {"data-columns": _numbers_text(block.columns), "data-rows": _numbers_text(block.rows),
             "data-finished": _numbers_text(block.finished),
             "data-system": project.measure.system.name}  # fmt: skip
    title = f"{block.title}, {size_text(block.finished, project.measure)} finished"
    root = drawing((width, height), project.measure, title, **exact)
    patches = add(root, "g", {"class": "patches"})
    for patch in draft(block).patches:
        fabric = project.fabric(patch.fabric or "")
        outlines = (patch.shape, *patch.holes)
        path = " ".join(_closed(tuple(outline.sides())) for outline in outlines)
        look = {"class": "patch", "fill": fabric.colour if fabric else NO_FABRIC,
                "fill-rule": "evenodd", "d": path}  # fmt: skip
        drawn = add(patches, "path", look)
        add(drawn, "title", text=f"{patch.id}: {fabric_name(project, patch.fabric)}")
    stroke = f"{max(width, height) / 400:.4g}"
    look = {"class": "seams", "fill": "none", "stroke": INKS["ink"], "stroke-width": stroke}
    seams = add(root, "g", look)
    sx, sy = block.scale
    for seam in block.seams:
        finished = image(seam.curve, lambda p: p.scaled(sx, sy))
        ends = " ".join(write_exact(x) for p in seam.curve if p is not None for x in p)
        add(seams, "path", {"class": "seam", "data-seam": ends, "d": _open(finished)})
    edge = {"x": "0", "y": "0", "width": f"{width:.6g}", "height": f"{height:.6g}"}
    add(seams, "rect", edge)
    return markup(root)


def write_block_svg(project: Project, block: Block, path: Path) -> None:
    """``block_svg`` into a file. Raises ``FileProblem``."""
    export_whole(path, block_svg(project, block).encode("utf-8", "replace"))


def _numbers_text(numbers: tuple[Exact, ...]) -> str:
    return " ".join(write_exact(x) for x in numbers)


def _at(p: Point) -> str:
    x, y = p.floats()
    return f"{x:.9g} {y:.9g}"


def _side(curve: Curve) -> str:
    if curve.centre is None:
        return f"L {_at(curve.end)}"
    r = float(circle_of(curve).squared) ** 0.5
    return f"A {r:.9g} {r:.9g} 0 0 {int(curve.clockwise)} {_at(curve.end)}"


def _open(curve: Curve) -> str:
    return f"M {_at(curve.start)} {_side(curve)}"


def _closed(curves: tuple[Curve, ...]) -> str:
    return f"M {_at(curves[0].start)} " + " ".join(_side(c) for c in curves) + " Z"
