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
from inlet.core.words import cloth_name, size_text
from inlet.files.drawings.markup import xml_text
from inlet.files.whole import export_whole

NO_CLOTH = "#ffffff"


def block_svg(project: Project, block: Block) -> str:
    """The block at finished size, patches in their fabrics and seams over them."""
    system = project.measure.system
    width, height = (float(x) for x in block.finished)
    sx, sy = block.scale
    lines = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:g}{system.unit}"'
        f' height="{height:g}{system.unit}"'
        f' viewBox="0 0 {width:.6g} {height:.6g}"'
        f' data-columns="{_numbers_text(block.columns)}" data-rows="{_numbers_text(block.rows)}"'
        f' data-finished="{_numbers_text(block.finished)}" data-system="{system.name}">',
        f"<title>{xml_text(block.title)}, {size_text(block.finished, project.measure)} finished"
        "</title>",
        '<g class="patches">',
    ]
    for patch in draft(block).patches:
        fabric = project.fabric(patch.fabric or "")
        colour = fabric.colour if fabric else NO_CLOTH
        outlines = (patch.shape, *patch.holes)
        path = " ".join(_closed(tuple(outline.sides())) for outline in outlines)
        name = xml_text(cloth_name(project, patch.fabric))
        lines.append(
            f'<path class="patch" fill="{colour}" fill-rule="evenodd" d="{path}">'
            f"<title>{patch.id}: {name}</title></path>"
        )
    stroke = max(width, height) / 400
    lines.append(
        f'</g>\n<g class="seams" fill="none" stroke="#17414c" stroke-width="{stroke:.4g}">'
    )
    for seam in block.seams:
        curve = seam.curve
        finished = image(curve, lambda p: p.scaled(sx, sy))
        exact = " ".join(write_exact(x) for p in curve if p is not None for x in p)
        lines.append(f'<path class="seam" data-seam="{exact}" d="{_open(finished)}"/>')
    lines.append(f'<rect x="0" y="0" width="{width:.6g}" height="{height:.6g}"/>\n</g>\n</svg>\n')
    return "\n".join(lines)


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
