"""A quilt top as a picture, SVG or PNG, at any size."""

from __future__ import annotations

from io import BytesIO

from PIL import Image, ImageDraw

from inlet.core.cancellation import check, tell
from inlet.core.plan import QuiltPlan
from inlet.core.project import Project
from inlet.core.setting import (
    BlockOnTop,
    Corners,
    PatchPicture,
    blocks_on_top,
    patches_of,
    single_pieces,
)
from inlet.core.words import cloth_name, near_text
from inlet.files.drawings.markup import xml_text
from inlet.files.problem import FileProblem

NO_CLOTH = "#ffffff"
SEAM = "#17414c"
SMOOTH = 3
"""Times as large a PNG is drawn before it is made smaller, so that slants are smooth."""
MOST_PIXELS = 6000


def quilt_svg(plan: QuiltPlan, seams: bool = True) -> str:
    """The top at finished size: each block drawn once and used where it lies, other pieces in their
    fabrics, seams over them."""
    _has_top(plan)
    project = plan.project
    unit = project.measure.system.unit
    wide, high = (float(side) for side in plan.size)
    thin = max(wide, high) / 2000
    line = f' stroke="{SEAM}" stroke-width="{thin:.4g}"' if seams else ""
    drawings: dict[int, str] = {}
    defs, uses = [], []
    for each in blocks_on_top(plan.top, project):
        check()
        name = drawings.get(id(each.block))
        if name is None:
            name = drawings[id(each.block)] = f"b{len(drawings)}"
            defs.append(f'<g id="{name}">{_patches(each, project)}</g>')
        numbers = " ".join(f"{x:.9g}" for x in each.matrix)
        uses.append(f'<use href="#{name}" transform="matrix({numbers})"/>')
    others = [
        f'<path fill="{_colour(project, piece.fabric)}" d="{_path(corners)}">'
        f"<title>{xml_text(cloth_name(project, piece.fabric or None))}</title></path>"
        for piece in single_pieces(plan.top, plan.quilt)
        if piece.lying is None
        for corners in [tuple(p.floats() for p in piece.outline)]
    ]
    return "\n".join(
        [
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:g}{unit}"'
            f' height="{high:g}{unit}"'
            f' viewBox="0 0 {wide:.9g} {high:.9g}">',
            f"<title>{xml_text(project.name)}, {near_text(plan.size, plan.measure)} finished"
            "</title>",
            f"<defs>{''.join(defs)}</defs>",
            f'<g stroke-linejoin="round"{line}>',
            *others,
            *uses,
            "</g>",
            _quilting(plan, thin),
            "</svg>\n",
        ]
    )


def quilting_svg(plan: QuiltPlan) -> str:
    """The lines it is quilted along alone, at finished size, to mark or to give to a machine."""
    _has_top(plan)
    if not plan.quilted.lines:
        raise FileProblem("inlet: the quilt has no quilting lines yet")
    unit = plan.measure.system.unit
    wide, high = (float(side) for side in plan.size)
    return "\n".join(
        [
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:g}{unit}"'
            f' height="{high:g}{unit}" viewBox="0 0 {wide:.9g} {high:.9g}">',
            f"<title>{xml_text(plan.project.name)}, quilting lines</title>",
            f'<rect width="{wide:.9g}" height="{high:.9g}" fill="none" stroke="{SEAM}"'
            f' stroke-width="{max(wide, high) / 2000:.4g}"/>',
            _quilting(plan, max(wide, high) / 1500),
            "</svg>\n",
        ]
    )


def _quilting(plan: QuiltPlan, thin: float) -> str:
    if not plan.quilted.lines:
        return ""
    paths = "".join(
        '<path d="M ' + " L ".join(f"{x:.9g} {y:.9g}" for x, y in line) + '"/>'
        for line in plan.quilted.lines
    )
    return f'<g class="quilting" fill="none" stroke="#bf4b23" stroke-width="{thin:.4g}">{paths}</g>'


def _patches(each: BlockOnTop, project: Project) -> str:
    patches = []
    for patch in patches_of(each.block):
        path = " ".join(_path(corners) for corners in (patch.outline, *patch.holes))
        colour = _colour(project, patch.fabric or "")
        look = f'fill="{colour}" fill-rule="evenodd" vector-effect="non-scaling-stroke"'
        patches.append(f'<path {look} d="{path}"/>')
    return "".join(patches)


def _path(corners: Corners) -> str:
    return "M " + " L ".join(f"{x:.9g} {y:.9g}" for x, y in corners) + " Z"


def _colour(project: Project, fabric: str) -> str:
    found = project.fabric(fabric)
    return found.colour if found is not None else NO_CLOTH


def quilt_png(plan: QuiltPlan, pixels: int, seams: bool = True) -> bytes:
    """The top as a PNG whose longer side is so many pixels."""
    _has_top(plan)
    if not 16 <= pixels <= MOST_PIXELS:
        raise FileProblem(f"inlet: a picture is from 16 to {MOST_PIXELS} pixels, not {pixels}")
    project = plan.project
    wide, high = (float(side) for side in plan.size)
    smooth = SMOOTH if pixels * SMOOTH <= 2 * MOST_PIXELS else 1
    scale = smooth * pixels / max(wide, high)
    size = max(1, round(wide * scale)), max(1, round(high * scale))
    image = Image.new("RGB", size, NO_CLOTH)
    draw = ImageDraw.Draw(image)
    line = SEAM if seams else None

    def polygon(corners: Corners, colour: str) -> None:
        draw.polygon([(x * scale, y * scale) for x, y in corners], colour, line, smooth)

    for piece in single_pieces(plan.top, plan.quilt):
        check()
        if piece.lying is None:
            polygon(tuple(p.floats() for p in piece.outline), _colour(project, piece.fabric))
    known: dict[int, tuple[PatchPicture, ...]] = {}
    blocks = len(plan.top.pieces)
    for k, each in enumerate(blocks_on_top(plan.top, project)):
        check()
        if k % 64 == 0:
            tell(min(0.9, 0.9 * k / blocks))
        patches = known.setdefault(id(each.block), patches_of(each.block))
        matrix = each.matrix
        # What has a hole is drawn before what lies in it.
        for patch in sorted(patches, key=lambda p: not p.holes):
            corners = tuple(matrix(p) for p in patch.outline)
            polygon(corners, _colour(project, patch.fabric or ""))
    final = max(1, size[0] // smooth), max(1, size[1] // smooth)
    out = BytesIO()
    image.resize(final, Image.Resampling.LANCZOS).save(out, "PNG")
    return out.getvalue()


def _has_top(plan: QuiltPlan) -> None:
    if not plan.top.rows:
        raise FileProblem(f"inlet: {plan.problems[0].text}")
