"""Pictures of a guide, on paper: readable without colour. Fabrics are lettered, wrong sides
hatched, seams dashed, cuts solid."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import cos, hypot, pi, sin
from typing import Any

from reportlab.lib.colors import Color, HexColor, black, white
from reportlab.pdfbase import pdfmetrics

from inlet.core.project import Project
from inlet.core.table import DrawnLine, Move, Sheet
from inlet.files.pdf.pages import BOLD, FAINT, MEDIUM

Place = tuple[float, float, float]
"""Where a picture lies on the page: left, top, and points a unit of length."""


Spot = tuple[float, float]


class Pen:
    """Draws on a canvas; ``letters`` are those of the fabrics."""

    def __init__(self, canvas: Any, project: Project, letters: Mapping[str | None, str]) -> None:
        self.canvas, self.project, self.letters = canvas, project, letters

    def move(self, move: Move, left: float, top: float, wide: float, high: float) -> None:
        """A move's picture in a box, at its left and middle."""
        found = _box(move)
        if found is None:
            return
        x, y, w, h = found
        scale = min(wide / w, high / h)
        place = (left - x * scale, top - (high - h * scale) / 2 + y * scale, scale)
        self.sheet(move.lower, place, letters_too=move.do != "press")  # arrows are what is read
        self.sheet(move.upper, place, wrong_side=True)
        self._lines(move, place)

    def _lines(self, move: Move, place: Place) -> None:
        left, top, scale = place
        c = self.canvas
        for drawn in move.lines:
            (x0, y0), (x1, y1) = drawn.start.floats(), drawn.end.floats()
            if drawn.is_spot:
                self._spot(drawn, left + x0 * scale, top - y0 * scale)
                continue
            if drawn.start == drawn.end:
                continue
            if drawn.kind == "press":
                start, end = (
                    (left + x0 * scale, top - y0 * scale),
                    (left + x1 * scale, top - y1 * scale),
                )
                self.arrow(start, end)
                if drawn.number:
                    self.arrow(start, (2 * start[0] - end[0], 2 * start[1] - end[1]))
                continue
            c.saveState()
            c.setStrokeColor(black)
            width, dash = {
                "seam": (1.3, [4, 2]),
                "cut": (1.8, []),
                "mark": (0.5, [1, 2]),
                "ruler": (0.9, [6, 2, 1, 2]),
            }[drawn.kind]
            c.setLineWidth(width)
            c.setDash(dash)
            c.line(left + x0 * scale, top - y0 * scale, left + x1 * scale, top - y1 * scale)
            c.restoreState()

    def arrow(self, start: Spot, toward: Spot, most: float = 15.0) -> None:
        """Which way a seam is pressed."""
        c = self.canvas
        dx, dy = toward[0] - start[0], toward[1] - start[1]
        long = hypot(dx, dy) or 1.0
        size = min(max(long, 8.0), most)
        ux, uy = dx / long * size, dy / long * size
        tip, neck = (start[0] + ux, start[1] + uy), (start[0] + ux * 0.5, start[1] + uy * 0.5)
        path = c.beginPath()
        path.moveTo(*tip)
        path.lineTo(neck[0] - uy * 0.32, neck[1] + ux * 0.32)
        path.lineTo(neck[0] + uy * 0.32, neck[1] - ux * 0.32)
        path.close()
        for colour, width in ((white, 3.4), (black, 1.6)):
            c.setStrokeColor(colour)
            c.setLineWidth(width)
            c.line(*start, *neck)
        c.setLineWidth(0.6)
        c.setStrokeColor(white)
        c.setFillColor(black)
        c.drawPath(path, fill=1, stroke=1)

    def blades(self, x: float, y: float, radius: float) -> None:
        """Four blades in a ring, turned one way round: a whirled centre."""
        c = self.canvas
        c.setFillColor(white)
        c.setStrokeColor(black)
        c.setLineWidth(0.9)
        c.circle(x, y, radius, fill=1, stroke=1)
        c.setFillColor(black)
        for k in range(4):
            a, near = k * pi / 2, 0.7 * radius
            path = c.beginPath()
            path.moveTo(x, y)
            path.lineTo(x + cos(a) * radius, y + sin(a) * radius)
            path.lineTo(x + cos(a - pi / 3) * near, y + sin(a - pi / 3) * near)
            path.close()
            c.drawPath(path, fill=1, stroke=0)

    def _spot(self, line: DrawnLine, x: float, y: float) -> None:
        """A dot, a square where a seam stops, a pin, the ring round a point, a leg's number."""
        c = self.canvas
        c.saveState()
        c.setLineWidth(0.8)
        c.setStrokeColor(black)
        c.setFillColor(black)
        if line.kind == "leg":
            self.tag(str(line.number), x, y, 7)
        elif line.kind == "whirl":
            self.blades(x, y, 4.5)
        elif line.kind == "stop":
            c.setFillColor(white)
            c.rect(x - 3, y - 3, 6, 6, fill=1, stroke=1)
        elif line.kind == "point":
            c.circle(x, y, 4.5, fill=0, stroke=1)
        else:
            c.circle(x, y, {"dot": 2.4, "pin": 1.3}[line.kind], fill=1, stroke=0)
        c.restoreState()

    def sheet(
        self,
        sheet: Sheet,
        place: Place,
        wrong_side: bool = False,
        letters_too: bool = True,
    ) -> None:
        """Patches with a light tint of their fabric and its letter; wrong sides white, hatched."""
        left, top, scale = place
        c = self.canvas
        for outline, fabric in sheet:
            points = [(left + x * scale, top - y * scale) for x, y in (p.floats() for p in outline)]
            path = self.path(points)
            c.setStrokeColor(black)
            c.setLineWidth(0.8)
            c.setFillColor(white if wrong_side else self._tint(fabric))
            c.drawPath(path, fill=1, stroke=1)
            if wrong_side:
                self.hatch(path, points)
            xs, ys = [x for x, _ in points], [y for _, y in points]
            if letters_too and min(max(xs) - min(xs), max(ys) - min(ys)) > 12:
                x, y = _middle_of(points)
                c.setFillColor(black)
                c.setFont(MEDIUM, 9)
                c.drawCentredString(x, y - 3, self.letters.get(fabric, ""))

    def path(self, points: Sequence[Spot]) -> Any:
        """A closed outline."""
        made = self.canvas.beginPath()
        made.moveTo(*points[0])
        for point in points[1:]:
            made.lineTo(*point)
        made.close()
        return made

    def hatch(self, path: Any, points: Sequence[tuple[float, float]]) -> None:
        """Lines across an outline, as the wrong side of fabric is drawn."""
        c = self.canvas
        xs, ys = [x for x, _ in points], [y for _, y in points]
        c.saveState()
        c.clipPath(path, stroke=0, fill=0)
        c.setStrokeColor(FAINT)
        c.setLineWidth(0.35)
        reach = max(ys) - min(ys)
        x = min(xs) - reach
        while x < max(xs):
            c.line(x, min(ys), x + reach, max(ys))
            x += 6
        c.restoreState()

    def tag(self, label: str, x: float, y: float, size: float) -> None:
        """A label on a white ground, readable on any fabric."""
        c = self.canvas
        wide = pdfmetrics.stringWidth(label, BOLD, size)
        c.setFillColor(white)
        c.setStrokeColor(black)
        c.setLineWidth(0.4)
        c.roundRect(x - wide / 2 - 3, y - size * 0.6, wide + 6, size * 1.2, 3, fill=1, stroke=1)
        c.setFillColor(black)
        c.setFont(BOLD, size)
        c.drawCentredString(x, y - size * 0.35, label)

    def _tint(self, fabric: str | None) -> Color:
        known = self.project.fabric(fabric) if fabric else None
        if known is None:
            return white
        full = HexColor(known.colour)
        return Color(*(1 - (1 - part) * 0.45 for part in (full.red, full.green, full.blue)))


def _box(move: Move) -> tuple[float, float, float, float] | None:
    points = [p.floats() for outline, _ in (*move.lower, *move.upper) for p in outline]
    if not points:
        return None
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)


def wide_for(move: Move, high: float, most: float) -> float:
    """How wide a move's picture is at a height, no wider than ``most``."""
    found = _box(move)
    return min(most, found[2] / found[3] * high) if found else 0.0


def high_for(move: Move, high: float, most: float) -> float:
    """How high a move's picture is, no higher than ``high`` and no wider than ``most``."""
    found = _box(move)
    return min(high, most * found[3] / found[2]) if found else 0.0


def _middle_of(points: Sequence[tuple[float, float]]) -> tuple[float, float]:
    """The centre of mass of a polygon: inside every convex one, where its letter goes."""
    twice = cx = cy = 0.0
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        part = x0 * y1 - x1 * y0
        twice += part
        cx += (x0 + x1) * part
        cy += (y0 + y1) * part
    return cx / (3 * twice), cy / (3 * twice)
