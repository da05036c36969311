"""A quilt top as a picture, SVG or PNG, at any size."""

from __future__ import annotations

from collections.abc import Iterable
from io import BytesIO
from xml.etree.ElementTree import Element

from PIL import Image, ImageDraw

from inlet.core.cancellation import check, tell
from inlet.core.figures import Corners, top_figure
from inlet.core.plan import QuiltPlan
from inlet.core.project import Project
from inlet.core.words import fabric_name, near_text
from inlet.files.drawings.markup import (
    INKS,
    NO_FABRIC,
    add,
    drawing,
    markup,
    outlines_path,
    path_through,
)
from inlet.files.problem import FileProblem

SMOOTH = 3
"""Times as large a PNG is drawn before it is made smaller, so that slants are smooth."""
MOST_PIXELS = 6000


def quilt_svg(plan: QuiltPlan, seams: bool = True) -> str:
    """The top at finished size: each block drawn once and used where it lies, other pieces in their
    fabrics, seams over them."""
    _has_top(plan)
    project = plan.project
    figure = top_figure(plan.top, project)
    thin = max(figure.size) / 2000
    title = f"{project.name}, {near_text(plan.size, plan.measure)} finished"
    root = drawing(figure.size, plan.measure, title)
    blocks = add(root, "defs")
    for number, (_, patches) in enumerate(figure.drawings):
        group = add(blocks, "g", {"id": f"b{number}"})
        for patch in patches:
            _add_fabric(group, (patch.outline, *patch.holes), patch.fabric, project)
    line = {"stroke": INKS["ink"], "stroke-width": f"{thin:.4g}"} if seams else {}
    top = add(root, "g", {"stroke-linejoin": "round", **line})
    for area in figure.others:
        path = _add_fabric(top, [area.outline], area.fabric, project)
        add(path, "title", text=fabric_name(project, area.fabric))
    for top_block in figure.blocks:
        check()
        numbers = " ".join(f"{x:.9g}" for x in top_block.on_top.matrix)
        add(top, "use", {"href": f"#b{top_block.drawing}", "transform": f"matrix({numbers})"})
    _add_quilting(root, plan, thin)
    return markup(root)


def quilting_svg(plan: QuiltPlan) -> str:
    """The lines it is quilted along alone, at finished size, to mark or to give to a machine."""
    _has_top(plan)
    if not plan.quilted.lines:
        raise FileProblem("inlet: the quilt has no quilting lines yet")
    wide, high = (float(side) for side in plan.size)
    root = drawing((wide, high), plan.measure, f"{plan.project.name}, quilting lines")
    edge = {"width": f"{wide:.9g}", "height": f"{high:.9g}", "fill": "none", "stroke": INKS["ink"],
            "stroke-width": f"{max(wide, high) / 2000:.4g}"}  # fmt: skip
    add(root, "rect", edge)
    _add_quilting(root, plan, max(wide, high) / 1500)
    return markup(root)


def _add_quilting(root: Element, plan: QuiltPlan, thin: float) -> None:
    if plan.quilted.lines:
        look = {"fill": "none", "stroke": INKS["accent"], "stroke-width": f"{thin:.4g}"}
        group = add(root, "g", {"class": "quilting", **look})
        for line in plan.quilted.lines:
            add(group, "path", {"d": path_through(line, closed=False)})


def _add_fabric(
    parent: Element, outlines: Iterable[Corners], fabric: str | None, project: Project
) -> Element:
    look = {"fill": _colour(project, fabric), "fill-rule": "evenodd",
            "vector-effect": "non-scaling-stroke"}  # fmt: skip
    return add(parent, "path", {**look, "d": outlines_path(outlines)})


def _colour(project: Project, fabric: str | None) -> str:
    known_fabric = project.fabric(fabric or "")
    return known_fabric.colour if known_fabric is not None else NO_FABRIC


def quilt_png(plan: QuiltPlan, pixels: int, seams: bool = True) -> bytes:
    """The top as a PNG whose longer side is so many pixels."""
    _has_top(plan)
    if not 16 <= pixels <= MOST_PIXELS:
        raise FileProblem(f"inlet: a picture is from 16 to {MOST_PIXELS} pixels, not {pixels}")
    figure = top_figure(plan.top, plan.project)
    wide, high = figure.size
    smooth = SMOOTH if pixels * SMOOTH <= 2 * MOST_PIXELS else 1
    scale = smooth * pixels / max(wide, high)
    size = max(1, round(wide * scale)), max(1, round(high * scale))
    image = Image.new("RGB", size, NO_FABRIC)
    draw = ImageDraw.Draw(image)
    line = INKS["ink"] if seams else None
    whole = figure.many
    for k, area in enumerate(figure.areas()):
        if k % 1024 == 0:
            check()
            tell(min(0.9, 0.9 * k / whole))
        corners = [(x * scale, y * scale) for x, y in area.outline]
        draw.polygon(corners, _colour(plan.project, area.fabric), line, smooth)
    final = max(1, size[0] // smooth), max(1, size[1] // smooth)
    buffer = BytesIO()
    image.resize(final, Image.Resampling.LANCZOS).save(buffer, "PNG")
    return buffer.getvalue()


def _has_top(plan: QuiltPlan) -> None:
    if not plan.top.rows:
        raise FileProblem(f"inlet: {plan.problems[0].text}")
