"""Templates laid out on sheets of paper at true size, each with two test squares.

Lengths are points, 72 an inch, x to the right and y down from the sheet's top left. A printer that
draws an inch as m inches is corrected by drawing everything 1/m as large, both ways separately.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import ceil, cos, sin, tan
from typing import NamedTuple

from inlet.core.numbers import Exact, NumberError, parse_length
from inlet.core.project import Measure, Project
from inlet.core.templates.cut_line import Place, Side
from inlet.core.templates.template import Template, bounds_of, turn_of
from inlet.core.words import fabric_name

INCH = 72.0
CENTIMETRE = 72 / 2.54
EDGE = 36.0
"""Points at a sheet's edge that printers leave white."""
FOOT = 84.0
"""Points at its foot for the test squares."""
GAP = 8.0
MOST_SPARES = 20
OVERLAP = 28.0
"""Points that the parts of a template on several sheets have in common."""
SMALLEST_ARC = 0.2
"""Arcs are drawn in parts that turn by no more, in radians: a cubic is within 1e-8 of its radius
then (2/27 · (angle/4)^6 and less)."""

Path = tuple[tuple[Place, ...], ...]
"""Parts of one point (move there), two (a line), or four (a cubic), each from where it is."""
Correction = tuple[float, float]
"""How much larger everything is drawn across and down."""


class SheetLine(NamedTuple):
    """A line on a sheet: of what kind, ``cut``, ``sew``, ``mark``, ``grain``, ``overlap``, or the
    ``square`` of an inch or two centimetres."""

    kind: str
    path: Path


class SheetWords(NamedTuple):
    """A line of words, its left end at a place."""

    text: str
    at: Place
    size: float


class Sheet(NamedTuple):
    """One sheet of paper."""

    drawn: tuple[SheetLine, ...]
    words: tuple[SheetWords, ...]

    def scaled(self, kx: float, ky: float, by: Place = (0.0, 0.0)) -> Sheet:
        """Drawn larger, and moved."""

        def to(p: Place) -> Place:
            return p[0] * kx + by[0], p[1] * ky + by[1]

        return Sheet(
            tuple(
                SheetLine(d.kind, tuple(tuple(map(to, part)) for part in d.path))
                for d in self.drawn
            ),
            tuple(SheetWords(w.text, to(w.at), w.size) for w in self.words),
        )


def correction(text: str) -> Correction:
    """From what the 1 in square measured, as typed, across and down: ``31/32, 1``; one size holds
    for both. Raises ``NumberError`` with a sentence."""
    sides: list[Exact] = [parse_length(part) for part in text.split(",") if part.strip()]
    if not 1 <= len(sides) <= 2:
        raise NumberError("write what the 1 in square measured, across and down: 31/32, 1")
    across, down = float(sides[0]), float(sides[-1])
    if not all(0.5 <= side <= 2 for side in (across, down)):
        raise NumberError("the 1 in square cannot have come out so; measure it again")
    return 1 / across, 1 / down


def path_of(sides: Sequence[Side], scale: float, by: Place) -> Path:
    """A closed line of straight sides and arcs as a path: each arc in cubics whose handles are
    4/3 tan(θ/4) of the radius long."""

    def to(p: Place) -> Place:
        return p[0] * scale + by[0], p[1] * scale + by[1]

    parts: list[tuple[Place, ...]] = [(to(sides[0].start),)]
    for side in sides:
        if side.centre is None:
            parts.append((to(side.start), to(side.end)))
            continue
        (cx, cy), whole = side.centre, turn_of(side)
        count = max(1, ceil(abs(whole) / SMALLEST_ARC))
        angle = whole / count
        k = 4 / 3 * tan(angle / 4)
        x, y = side.start[0] - cx, side.start[1] - cy
        for _ in range(count):
            u, v = x * cos(angle) - y * sin(angle), x * sin(angle) + y * cos(angle)
            points = ((x, y), (x - k * y, y + k * x), (u + k * v, v - k * u), (u, v))
            parts.append(tuple(to((px + cx, py + cy)) for px, py in points))
            x, y = u, v
    return tuple(parts)


def sheets(
    templates: Sequence[Template], project: Project, paper: tuple[float, float],
    spares: int = 0, corrected: Correction = (1.0, 1.0),
) -> list[Sheet]:  # fmt: skip
    """Every template, with so many ``spares``, on as few sheets as rows of them take; one larger
    than a sheet on several, which overlap."""
    scale = INCH / float(project.measure.system.per_inch)
    # What is drawn larger to correct the printer must still find room.
    wide = (paper[0] - 2 * EDGE) / max(1.0, corrected[0])
    high = (paper[1] - 2 * EDGE - FOOT) / max(1.0, corrected[1])
    out: list[Sheet] = []
    small: list[Template] = []
    large: list[Template] = []
    for template in templates:
        left, top, right, bottom = bounds_of(template.cut)
        fits = (right - left) * scale <= wide and (bottom - top) * scale <= high
        (small if fits else large).extend([template] * (1 + spares))
    for rows in _pages(small, scale, wide, high):
        drawn: list[SheetLine] = []
        words: list[SheetWords] = []
        for template, at in rows:
            more = _on_sheet(template, project, scale, at)
            drawn += more.drawn
            words += more.words
        out.append(Sheet(tuple(drawn), tuple(words)))
    for template in large:
        out += _tiles(template, project, scale, (wide, high))
    squares = _squares(project.measure, paper[1] / max(1.0, corrected[1]))
    return [Sheet(s.drawn + squares.drawn, s.words + squares.words).scaled(*corrected) for s in out]


def _pages(
    templates: Sequence[Template], scale: float, wide: float, high: float
) -> Iterator[list[tuple[Template, Place]]]:
    """Templates in rows, highest first, page after page."""
    page: list[tuple[Template, Place]] = []
    x = y = row = 0.0

    def size(template: Template) -> tuple[float, float]:
        left, top, right, bottom = bounds_of(template.cut)
        return (right - left) * scale, (bottom - top) * scale

    for template in sorted(templates, key=lambda t: -size(t)[1]):
        w, h = size(template)
        if x and x + w > wide:
            x, y, row = 0.0, y + row + GAP, 0.0
        if y + h > high:
            yield page
            page, x, y, row = [], 0.0, 0.0, 0.0
        page.append((template, (EDGE + x, EDGE + y)))
        x, row = x + w + GAP, max(row, h)
    if page:
        yield page


def _on_sheet(template: Template, project: Project, scale: float, at: Place) -> Sheet:
    """A template with its top left at a place."""
    left, top, _, _ = bounds_of(template.cut)
    by = at[0] - left * scale, at[1] - top * scale

    def to(p: Place) -> Place:
        return p[0] * scale + by[0], p[1] * scale + by[1]

    drawn = [
        SheetLine("cut", path_of(template.cut, scale, by)),
        SheetLine("sew", path_of(template.sew, scale, by)),
        *(SheetLine("mark", ((to(a),), (to(a), to(b)))) for a, b in template.marks),
        *(SheetLine("mark", _dot(to(dot))) for dot in template.dots),
        SheetLine("grain", _arrow(to(template.grain[0]), to(template.grain[1]))),
    ]
    x, y = to((template.grain[0][0], (template.grain[0][1] + template.grain[1][1]) / 2))
    words = [SheetWords(template.label, (x + 4, y), 12.0)]
    words.append(SheetWords(f"for {', '.join(template.units)}", (x + 4, y + 9), 6.5))
    for i, need in enumerate(template.needed):
        number = f"{need.number}" if need.number else ""
        over = f"{need.reversed} reversed" if need.reversed else ""
        text = f"{fabric_name(project, need.fabric)}: {' + '.join(filter(None, (number, over)))}"
        words.append(SheetWords(text, (x + 4, y + 16.5 + 7.5 * i), 6.5))
    return Sheet(tuple(drawn), tuple(words))


def _dot(p: Place, r: float = 1.2) -> Path:
    x, y = p
    return ((x - r, y),), ((x - r, y), (x + r, y)), ((x, y - r),), ((x, y - r), (x, y + r))


def _arrow(start: Place, end: Place) -> Path:
    """A line with a head at either end: grain runs both ways."""
    out: list[tuple[Place, ...]] = [(start,), (start, end)]
    for tip, way in ((start, -1.0), (end, 1.0)):
        for side in (-2.5, 2.5):
            out += [(tip,), (tip, (tip[0] + side, tip[1] + 4 * way))]
    return tuple(out)


def _tiles(
    template: Template, project: Project, scale: float, room: tuple[float, float]
) -> Iterator[Sheet]:
    """A large template on several sheets. Each shows its part, and lines where the next one lies
    over it."""
    left, top, right, bottom = bounds_of(template.cut)
    steps = tuple(side - OVERLAP for side in room)
    size = (right - left) * scale, (bottom - top) * scale
    columns, rows = (
        max(1, ceil((long - OVERLAP) / step)) for long, step in zip(size, steps, strict=True)
    )
    whole = _on_sheet(template, project, scale, (EDGE, EDGE))
    for row in range(rows):
        for column in range(columns):
            moved = whole.scaled(1, 1, (-column * steps[0], -row * steps[1]))
            lines = []
            if column + 1 < columns:
                x = EDGE + steps[0]
                lines.append(SheetLine("overlap", (((x, EDGE),), ((x, EDGE), (x, EDGE + room[1])))))
            if row + 1 < rows:
                y = EDGE + steps[1]
                lines.append(SheetLine("overlap", (((EDGE, y),), ((EDGE, y), (EDGE + room[0], y)))))
            name = f"{template.label}: column {column + 1} of {columns}, row {row + 1} of {rows}"
            words = (*moved.words, SheetWords(name, (EDGE, EDGE - 6), 8.0))
            yield Sheet((*moved.drawn, *lines), words)


SQUARES = {"inch": INCH, "centimetres": 2 * CENTIMETRE}


def _squares(measure: Measure, bottom: float) -> Sheet:
    """The squares that tell how a printer draws."""
    y = bottom - EDGE - INCH
    drawn, words = [], []
    x = EDGE
    for name, side in SQUARES.items():
        corners = (x, y), (x + side, y), (x + side, y + side), (x, y + side)
        path: list[tuple[Place, ...]] = [(corners[0],)]
        path += [(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)]
        drawn.append(SheetLine(f"square {name}", tuple(path)))
        words.append(SheetWords("1 in" if name == "inch" else "2 cm", (x + 4, y + 12), 8.0))
        x += side + 16
    words.append(
        SheetWords("Print at 100 %. Measure the squares; if they are off,", (x, y + 12), 8.0)
    )
    words.append(
        SheetWords("tell Inlet what the 1 in one measured, across and down.", (x, y + 22), 8.0)
    )
    return Sheet(tuple(drawn), tuple(words))


class SimulatedPrinter(NamedTuple):
    """A printer that draws everything ``across`` and ``down`` times as large, and shifts it by its
    ``margin``: to try a correction without wasting paper."""

    across: float
    down: float
    margin: Place = (0.0, 0.0)

    def prints(self, sheet: Sheet) -> Sheet:
        return sheet.scaled(self.across, self.down, self.margin)

    def measures(self, sheet: Sheet, name: str = "inch") -> tuple[float, float]:
        """What a person measures of a printed test square, across and down, in inches."""
        (square,) = (d for d in sheet.drawn if d.kind == f"square {name}")
        xs, ys = zip(*(p for part in square.path for p in part), strict=True)
        return (max(xs) - min(xs)) / INCH, (max(ys) - min(ys)) / INCH
