"""The lines and arcs of a drawing of any program, read in a process of its own.

The library that reads drawings can be made to run for ever, or to fill the memory, by a drawing of
a few letters. So it is run by ``python -m``, which reads the drawing from its standard input and
writes what is in it to its standard output, as JSON; ``svg_import`` starts it, with limits, and
ends it.
"""

from __future__ import annotations

import json
import re
import resource
import sys
from collections import Counter
from collections.abc import Iterator
from io import StringIO
from itertools import pairwise
from math import atan2, ceil, cos, hypot, isfinite, pi, sin
from typing import Any, TypedDict
from xml.etree import ElementTree

import svgelements

MOST_SECONDS = 5
MOST_MEMORY = 512 * 2**20
MOST_NUMBERS = 100_000
"""In all paths of a drawing: ten times what the largest block has."""
MOST_DRAWN = 20_000
"""Elements of a drawing, each as often as it is used."""
FARTHEST = 1e9
"""Units of a drawing: a line that goes farther is a slip."""
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
Place = tuple[float, float]
Line = list[float]
"""From x, y to x, y; of an arc of a quarter circle or less its centre, too."""
Shape = tuple[str, list[Line]]
"""What a shape says of its seam, and the lines and arcs it is drawn in."""


class ForeignDrawing(TypedDict):
    """What is read of a drawing: its ``shapes``, what was ``left_out``, counted, and what a drawing
    of ours says of its ``own`` block."""

    shapes: list[Shape]
    left_out: dict[str, int]
    own: dict[str, str]


def main() -> None:
    """Read a drawing from standard input; ``{"fault": …}`` where it is none."""
    resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
    resource.setrlimit(resource.RLIMIT_CPU, (MOST_SECONDS, MOST_SECONDS))
    answer: object
    try:
        answer = read_drawing(sys.stdin.buffer.read().decode("utf-8"))
    except ValueError as fault:
        answer = {"fault": str(fault)}
    except MemoryError:
        answer = {"fault": f"it takes more than {MOST_MEMORY // 2**20} MB to read"}
    sys.stdout.write(json.dumps(answer))


_IGNORED = {
    "svg", "g", "title", "desc", "metadata", "defs", "style", "a", "switch", "symbol", "use",
    "namedview", "sodipodi", "RDF", "script", "clipPath", "mask", "pattern", "marker",
    "linearGradient", "radialGradient", "stop", "filter",
}  # fmt: skip
_SHAPES = {"path", "line", "polyline", "polygon", "rect", "circle", "ellipse"}


_HREF = ("href", "{http://www.w3.org/1999/xlink}href")
DAMAGED = "a shape or a number in this drawing is damaged"
_DAMAGE = (ArithmeticError, AttributeError, LookupError, RecursionError, TypeError, ValueError)
"""What the library raises for shapes it cannot make sense of."""


def read_drawing(text: str) -> ForeignDrawing:
    """Every line and arc of a drawing, transforms applied; what it says of its own block; and what
    is neither line nor arc, counted. Raises ``ValueError`` with a sentence."""
    if "<!ENTITY" in text:
        raise ValueError("drawings with entities of their own are not read")
    try:
        tree = ElementTree.fromstring(text)
    except ElementTree.ParseError as error:
        line, column = error.position
        raise ValueError(f"not an SVG drawing (line {line}, column {column})") from None
    except _DAMAGE:
        raise ValueError(DAMAGED) from None
    _check_size(tree)
    try:
        root = svgelements.SVG.parse(StringIO(text), reify=True)
    except _DAMAGE:
        raise ValueError(DAMAGED) from None
    if tree.tag.rpartition("}")[2] != "svg":
        raise ValueError("not an SVG drawing")
    left_out: Counter[str] = Counter()
    for element in tree.iter():
        tag = str(element.tag).rpartition("}")[2]
        of_svg = "svg" in str(element.tag).partition("}")[0]
        if of_svg and tag not in _IGNORED and tag not in _SHAPES:
            left_out[tag] += 1
    shapes: list[Shape] = []
    try:
        for shape in root.elements(lambda e: isinstance(e, svgelements.Shape)):
            values = shape.values
            if values.get("class") == "patch" or _hidden(values):
                continue
            lines = list(_of_path(svgelements.Path(shape), left_out))
            if lines:
                shapes.append((str(values.get("data-seam", "")), lines))
    except _DAMAGE:
        raise ValueError(DAMAGED) from None
    attributes = {key: value for key, value in tree.attrib.items() if key.startswith("data-")}
    return {"shapes": shapes, "left_out": dict(left_out), "own": attributes}


def _check_size(tree: ElementTree.Element) -> None:
    """Refuse a drawing that becomes too large once each ``use`` stands for what it names, and
    paths of more numbers than a block has."""
    numbers = sum(
        len(_NUMBER.findall(element.get(key, "")))
        for element in tree.iter()
        for key in ("d", "points")
    )
    if numbers > MOST_NUMBERS:
        raise ValueError(f"its paths hold {numbers} numbers; {MOST_NUMBERS} are too many")
    named = {element.get("id"): element for element in tree.iter() if element.get("id")}
    size: dict[ElementTree.Element, int] = {}
    under_way: set[ElementTree.Element] = set()
    todo = [tree]
    while todo:
        element = todo[-1]
        inner = list(element)
        if element.tag.endswith("use"):
            names = [element.get(key, "")[1:] for key in _HREF]
            inner += [named[name] for name in names if name in named]
        waiting = [e for e in inner if e not in size]
        if waiting and element not in under_way:
            under_way.add(element)
            if any(e in under_way for e in waiting):
                raise ValueError("a part of it stands for itself")
            todo += waiting
            continue
        todo.pop()
        under_way.discard(element)
        size[element] = 1 + sum(size.get(e, 0) for e in inner)
    if size[tree] > MOST_DRAWN:
        raise ValueError(f"it stands for {size[tree]} parts; {MOST_DRAWN} are the most")


def _hidden(values: dict[str, Any]) -> bool:
    style = str(values.get("style", ""))
    return (
        values.get("display") == "none"
        or values.get("visibility") == "hidden"
        or re.search(r"display\s*:\s*none|visibility\s*:\s*hidden", style) is not None
    )


def _of_path(path: Any, left_out: Counter[str]) -> Iterator[Line]:
    for segment in path:
        if not _within_reach(segment):
            left_out["line too far away"] += 1
            continue
        if isinstance(segment, svgelements.Move) or segment.start is None:
            continue
        start, end = _place(segment.start), _place(segment.end)
        if isinstance(segment, svgelements.Line | svgelements.Close):
            if hypot(end[0] - start[0], end[1] - start[1]) > 1e-9:
                yield [*start, *end]
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


def _arcs(start: Place, centre: Place, sweep: float) -> Iterator[Line]:
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
        yield [*p, *q, *centre]


_CLOSE_ENOUGH = 5e-3
"""Of its length: a Bézier curve this near to a line or a circle was meant as one."""


def _bent(segment: Any, left_out: Counter[str]) -> Iterator[Line]:
    """A Bézier curve that is as good as a line or an arc, as programs write them."""
    at = [_place(segment.point(k / 8)) for k in range(9)]
    (px, py), (mx, my), (qx, qy) = at[0], at[4], at[8]
    length = hypot(qx - px, qy - py)
    if length == 0:
        left_out["curve"] += 1
        return
    off = [((qx - px) * (y - py) - (qy - py) * (x - px)) / length for x, y in at]
    if max(map(abs, off)) < _CLOSE_ENOUGH * length:
        yield [*at[0], *at[8]]
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


if __name__ == "__main__":
    main()
