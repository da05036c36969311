"""A block as an SVG drawing, and seams from a drawing of any program.

What we write carries each seam's exact ends beside the picture of it, so that it reads back to the
same patches; where another program has since moved the picture, the picture counts.
"""

from __future__ import annotations

import re
import stat
from collections import Counter
from collections.abc import Iterator
from io import StringIO
from itertools import pairwise
from math import atan2, ceil, cos, hypot, isfinite, lcm, pi, sin
from pathlib import Path
from typing import Any, NamedTuple
from xml.etree import ElementTree
from xml.sax.saxutils import escape

import svgelements

from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import with_square_unit
from inlet.core.draft.symmetry import image
from inlet.core.draft.tracing import (
    MOST_GUESSED,
    TOLERANCE,
    Bounds,
    Place,
    Stroke,
    guess_bands,
    trace,
)
from inlet.core.geometry.curve import Curve, circle_of
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact, write_exact
from inlet.core.numbers.systems import INCHES, SYSTEMS, System
from inlet.core.numbers.text import NumberError, parse_exact
from inlet.core.project.block import LARGEST_BLOCK_INCHES, MOST_BANDS, Block
from inlet.core.project.project import Project
from inlet.core.project.value import Pair, replace
from inlet.core.stopping import check
from inlet.core.words import cloth_name, size_text
from inlet.files.problem import FileProblem, reason
from inlet.files.whole import export_whole

LONGEST = 20
"""A drawing more times as long as wide than this is no block."""
MOST_BYTES = 16 * 2**20
MOST_NUMBERS = 100_000
"""In all paths of a drawing: ten times what the largest block has."""
MOST_DRAWN = 20_000
"""Elements of a drawing, each as often as it is used."""
FARTHEST = 1e9
"""Units of a drawing: a line that goes farther is a slip."""
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_NO_CLOTH = "#ffffff"


# --- writing ----------------------------------------------------------------------------------


def block_svg(project: Project, block: Block) -> str:
    """The block at finished size, patches in their cloths and seams over them."""
    system = project.measure.system
    width, height = (float(x) for x in block.finished)
    sx, sy = block.scale
    lines = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:g}{system.unit}"'
        f' height="{height:g}{system.unit}"'
        f' viewBox="0 0 {width:.6g} {height:.6g}"'
        f' data-columns="{_numbers_text(block.columns)}" data-rows="{_numbers_text(block.rows)}"'
        f' data-finished="{_numbers_text(block.finished)}" data-system="{system.name}">',
        f"<title>{escape(block.title)}, {size_text(block.finished, project.measure)} finished"
        "</title>",
        '<g class="patches">',
    ]
    for patch in draft(block).patches:
        fabric = project.fabric(patch.fabric or "")
        colour = fabric.colour if fabric else _NO_CLOTH
        outlines = (patch.shape, *patch.holes)
        path = " ".join(_closed(tuple(outline.sides())) for outline in outlines)
        name = escape(cloth_name(project, patch.fabric))
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


# --- reading ----------------------------------------------------------------------------------


class Imported(NamedTuple):
    """A block made of a drawing, and ``report``, sentences on what was done and left out."""

    block: Block
    report: tuple[str, ...]


def read_svg(
    text: str,
    name: str,
    *,
    block: Block,
    system: System = INCHES,
    columns: int | None = None,
    rows: int | None = None,
) -> Imported:
    """The lines and arcs of a drawing as seams of ``block``, which is measured in ``system``. Its
    id, name and finished width are kept; its bands are guessed from the drawing unless given.
    Raises ``FileProblem``."""
    strokes, frame, left_out = _strokes(text, name, system)
    if not strokes:
        raise FileProblem(f"{name}: no lines or arcs to make seams of")
    box = _box(strokes)
    if box[2] - box[0] < 1e-9 or box[3] - box[1] < 1e-9:
        raise FileProblem(f"{name}: all its lines lie on one line; a block needs two directions")
    if not 1 / LONGEST < (box[3] - box[1]) / (box[2] - box[0]) < LONGEST:
        raise FileProblem(f"{name}: too long and thin to be a block")
    across, down = _bands(strokes, box)
    across, down = columns or across, rows or down
    made = _framed(block, box, across, down, frame)
    traced = trace(made, strokes, box)
    kept = len(traced.block.seams)
    report = [
        f"{kept} {'seam' if kept == 1 else 'seams'} read on {len(made.columns)} by "
        f"{len(made.rows)} bands; ends within 1/{TOLERANCE.denominator} of a band were moved onto "
        "the grid, its halves, thirds and quarters."
    ]
    if traced.off_grid:
        report.append(f"{traced.off_grid} ends lie off the grid and were kept where they are.")
    if traced.left_out:
        left_out["line too short or too many"] += traced.left_out
    if left_out:
        listed = ", ".join(f"{n} × {what}" for what, n in sorted(left_out.items()))
        report.append(f"Left out: {listed}.")
    return Imported(traced.block, tuple(report))


def _bands(strokes: list[Stroke], box: Bounds) -> tuple[int, int]:
    """How many bands the drawing seems to have; as many both ways where it is square."""
    across, down = (guess_bands(strokes, box, axis) for axis in (0, 1))
    square = abs((box[2] - box[0]) - (box[3] - box[1])) < 0.01 * (box[2] - box[0])
    both = lcm(across, down)
    return (both, both) if square and both <= MOST_GUESSED else (across, down)


def load_svg(path: Path, **choices: Any) -> Imported:
    """``read_svg`` of a file."""
    try:
        about = path.stat()
        if not stat.S_ISREG(about.st_mode):
            raise FileProblem(f"{path.name}: not an ordinary file")
        if about.st_size > MOST_BYTES:
            raise FileProblem(f"{path.name}: too large for a drawing of a block")
        text = path.read_bytes().decode("utf-8-sig")
    except UnicodeDecodeError:
        raise FileProblem(f"{path.name}: not a text file") from None
    except OSError as error:
        raise FileProblem(f"{path.name}: cannot be read ({reason(error)})") from None
    return read_svg(text, path.name, **choices)


class _Frame(NamedTuple):
    """What a drawing of ours says of its block."""

    columns: tuple[Exact, ...]
    rows: tuple[Exact, ...]
    finished: Pair


def _framed(
    block: Block,
    box: Bounds,
    across: int,
    down: int,
    frame: _Frame | None,
) -> Block:
    """The empty block to trace on: as wide as ``block``, as high as the drawing makes it."""
    bare = replace(block, seams=(), fabric_at=(), marks=())
    shape = (box[3] - box[1]) / (box[2] - box[0])
    if frame is not None and abs(float(frame.finished[1] / frame.finished[0]) - shape) < 1e-3:
        return replace(bare, columns=frame.columns, rows=frame.rows, finished=frame.finished)
    one: Exact = Fraction(1)
    # As high as a short fraction of the width makes it: a drawing's own measures are never exact.
    ratio = _short(shape)
    width = block.finished[0] / max(one, ratio)  # no side longer than the width asked for
    made = replace(
        bare,
        columns=(one,) * across,
        rows=(one,) * down,
        finished=(width, width * ratio),
    )
    return with_square_unit(made)


def _short(x: float) -> Fraction:
    found = Fraction(x).limit_denominator(24)
    return found if abs(float(found) - x) < 0.01 else Fraction(x).limit_denominator(1000)


_IGNORED = {
    "svg", "g", "title", "desc", "metadata", "defs", "style", "a", "switch", "symbol", "use",
    "namedview", "sodipodi", "RDF", "script", "clipPath", "mask", "pattern", "marker",
    "linearGradient", "radialGradient", "stop", "filter",
}  # fmt: skip
_SHAPES = {"path", "line", "polyline", "polygon", "rect", "circle", "ellipse"}


_DAMAGE = (ArithmeticError, AttributeError, LookupError, RecursionError, TypeError, ValueError)
"""What the library raises for shapes it cannot make sense of."""


def _strokes(
    text: str, name: str, system: System
) -> tuple[list[Stroke], _Frame | None, Counter[str]]:
    """Every line and arc of a drawing, transforms applied; what it says of its own block; and what
    is neither line nor arc, counted."""
    if "<!ENTITY" in text:
        raise FileProblem(f"{name}: drawings with entities of their own are not read")
    try:
        tree = ElementTree.fromstring(text)
        _check_size(tree, name)
        root = svgelements.SVG.parse(StringIO(text), reify=True)
    except ElementTree.ParseError as error:
        line, column = error.position
        raise FileProblem(f"{name}: not an SVG drawing (line {line}, column {column})") from None
    except _DAMAGE:
        raise FileProblem(f"{name}: a shape or a number in this drawing is damaged") from None
    if tree.tag.rpartition("}")[2] != "svg":
        raise FileProblem(f"{name}: not an SVG drawing")
    left_out: Counter[str] = Counter()
    for element in tree.iter():
        tag = str(element.tag).rpartition("}")[2]
        ours = "svg" in str(element.tag).partition("}")[0]
        if ours and tag not in _IGNORED and tag not in _SHAPES:
            left_out[tag] += 1
    out: list[Stroke] = []
    try:
        for shape in root.elements(lambda e: isinstance(e, svgelements.Shape)):
            check()
            values = shape.values
            if values.get("class") == "patch" or _hidden(values):
                continue
            exact = _exact_of(values.get("data-seam", ""))
            found = list(_of_path(svgelements.Path(shape), left_out))
            if exact is not None and found:
                whole = found[0]._replace(end=found[-1].end, exact=exact, parts=tuple(found))
                found = [whole]
            out += found
    except _DAMAGE:
        raise FileProblem(f"{name}: a shape or a number in this drawing is damaged") from None
    return out, _frame_of(tree.attrib, system), left_out


def _check_size(tree: ElementTree.Element, name: str) -> None:
    """Refuse a drawing that becomes too large once each ``use`` stands for what it names, and
    paths of more numbers than a block has."""
    numbers = sum(
        len(_NUMBER.findall(element.get(key, "")))
        for element in tree.iter()
        for key in ("d", "points")
    )
    if numbers > MOST_NUMBERS:
        raise FileProblem(f"{name}: its paths hold {numbers} numbers; {MOST_NUMBERS} are too many")
    named = {element.get("id"): element for element in tree.iter() if element.get("id")}
    size: dict[ElementTree.Element, int] = {}
    under_way: set[ElementTree.Element] = set()
    todo = [tree]
    while todo:
        element = todo[-1]
        inner = list(element)
        target = named.get(next((v for k, v in element.items() if k.endswith("href")), "")[1:])
        if element.tag.endswith("use") and target is not None:
            inner.append(target)
        waiting = [e for e in inner if e not in size]
        if waiting and element not in under_way:
            under_way.add(element)
            if any(e in under_way for e in waiting):
                raise FileProblem(f"{name}: a part of it stands for itself")
            todo += waiting
            continue
        todo.pop()
        under_way.discard(element)
        size[element] = 1 + sum(size.get(e, 0) for e in inner)
    if size[tree] > MOST_DRAWN:
        raise FileProblem(f"{name}: it stands for {size[tree]} parts; {MOST_DRAWN} are the most")


def _hidden(values: dict[str, Any]) -> bool:
    style = str(values.get("style", ""))
    return (
        values.get("display") == "none"
        or values.get("visibility") == "hidden"
        or re.search(r"display\s*:\s*none|visibility\s*:\s*hidden", style) is not None
    )


def _exact_of(text: str) -> Curve | None:
    numbers = _numbers(text)
    if len(numbers) not in (4, 6):
        return None
    return Curve(*(Point(*numbers[i : i + 2]) for i in range(0, len(numbers), 2)))


def _numbers(text: str) -> tuple[Exact, ...]:
    try:
        return tuple(parse_exact(part) for part in text.split())
    except NumberError:
        return ()


def _frame_of(attributes: dict[str, str], system: System) -> _Frame | None:
    """What a drawing of ours says of its block, its size in ``system``; None of another's, or
    where it says what no block can be."""
    columns, rows, finished = (
        _numbers(attributes.get(f"data-{key}", "")) for key in ("columns", "rows", "finished")
    )
    good = 0 < len(columns) <= MOST_BANDS and 0 < len(rows) <= MOST_BANDS and len(finished) == 2
    if not good or any(x <= 0 for x in (*columns, *rows, *finished)):
        return None
    drawn_in = SYSTEMS.get(attributes.get("data-system", ""), INCHES)
    inches = [x / drawn_in.per_inch for x in finished]
    if max(inches) > LARGEST_BLOCK_INCHES:
        return None
    size = inches[0] * system.per_inch, inches[1] * system.per_inch
    return _Frame(columns, rows, size)


def _of_path(path: Any, left_out: Counter[str]) -> Iterator[Stroke]:
    for segment in path:
        check()
        if not _within_reach(segment):
            left_out["line too far away"] += 1
            continue
        if isinstance(segment, svgelements.Move) or segment.start is None:
            continue
        start, end = _place(segment.start), _place(segment.end)
        if isinstance(segment, svgelements.Line | svgelements.Close):
            if hypot(end[0] - start[0], end[1] - start[1]) > 1e-9:
                yield Stroke(start, end)
        elif isinstance(segment, svgelements.Arc):
            centre = _place(segment.center)
            if abs(segment.rx - segment.ry) > 1e-3 * max(segment.rx, segment.ry):
                left_out["arc of an ellipse"] += 1
            else:
                yield from _arcs(start, centre, float(segment.sweep))
        else:
            yield from _bent(segment, left_out)


def _within_reach(segment: Any) -> bool:
    """Are all numbers of a segment ones that can be drawn?"""
    points = [segment.start, segment.end]
    sizes = []
    if isinstance(segment, svgelements.Arc):
        points.append(segment.center)
        sizes = [segment.rx, segment.ry, segment.sweep]
    sizes += [x for p in points if p is not None for x in (p.x, p.y)]
    return all(isfinite(x) and abs(x) < FARTHEST for x in sizes)


def _place(point: Any) -> Place:
    return (float(point.x), float(point.y))


def _arcs(start: Place, centre: Place, sweep: float) -> Iterator[Stroke]:
    """An arc in parts of a quarter circle or less."""
    count = max(1, ceil((abs(sweep) - 0.02) / (pi / 2)))
    r = hypot(start[0] - centre[0], start[1] - centre[1])
    begin = atan2(start[1] - centre[1], start[0] - centre[0])
    at = [
        (
            centre[0] + r * cos(begin + sweep * i / count),
            centre[1] + r * sin(begin + sweep * i / count),
        )
        for i in range(count + 1)
    ]
    for p, q in pairwise(at):
        yield Stroke(p, q, centre)


_CLOSE_ENOUGH = 5e-3
"""Of its length: a Bézier curve this near to a line or a circle was meant as one."""


def _bent(segment: Any, left_out: Counter[str]) -> Iterator[Stroke]:
    """A Bézier curve that is as good as a line or an arc, as programs write them."""
    at = [_place(segment.point(k / 8)) for k in range(9)]
    (px, py), (mx, my), (qx, qy) = at[0], at[4], at[8]
    length = hypot(qx - px, qy - py)
    if length == 0:
        left_out["curve"] += 1
        return
    off = [((qx - px) * (y - py) - (qy - py) * (x - px)) / length for x, y in at]
    if max(map(abs, off)) < _CLOSE_ENOUGH * length:
        yield Stroke(at[0], at[8])
        return
    # The circle through three points: where the middle lines of two chords meet.
    d = 2 * (px * (my - qy) + mx * (qy - py) + qx * (py - my))
    p2, m2, q2 = px * px + py * py, mx * mx + my * my, qx * qx + qy * qy
    centre = (
        (p2 * (my - qy) + m2 * (qy - py) + q2 * (py - my)) / d,
        (p2 * (qx - mx) + m2 * (px - qx) + q2 * (mx - px)) / d,
    )
    r = hypot(px - centre[0], py - centre[1])
    if any(abs(hypot(x - centre[0], y - centre[1]) - r) > _CLOSE_ENOUGH * r for x, y in at):
        left_out["curve that is no arc"] += 1
        return
    u, v = (px - centre[0], py - centre[1]), (mx - centre[0], my - centre[1])
    half = atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1])
    yield from _arcs(at[0], centre, 2 * half)


def _box(strokes: list[Stroke]) -> Bounds:
    """The box of the drawing: its ends, and its arcs where they bulge past them."""
    xs, ys = [], []
    for stroke in strokes:
        xs += [stroke.start[0], stroke.end[0]]
        ys += [stroke.start[1], stroke.end[1]]
    return min(xs), min(ys), max(xs), max(ys)
