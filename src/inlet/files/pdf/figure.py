"""Draws figures of the core on a page: readable without colour. Fabrics are tinted and lettered,
wrong sides hatched."""

from __future__ import annotations

from collections.abc import Mapping
from math import dist
from typing import Any

from reportlab.lib.colors import Color, HexColor, black, white
from reportlab.pdfbase import pdfmetrics

from inlet.core.figures import (
    LOOKS,
    Area,
    Box,
    BoxText,
    Clip,
    Colour,
    Corners,
    Dash,
    Disc,
    FabricArea,
    Figure,
    Frame,
    Look,
    Polyline,
    Side,
    Spot,
    Tag,
    bounds_of,
)
from inlet.core.project import Project
from inlet.files.pdf.pages import BOLD, FAINT, MEDIUM

UNIT = 0.62
"""Points on paper of a pixel on screen: a guide is read from nearer."""
TEXT = UNIT * 4 / 3
"""The same for text, whose size is in points already."""
TINT = 0.45
"""How much of its colour a fabric has on paper."""
LEAST_TEXT = 3.0
LEAST_TAG = 10.0
"""Points of a label: it is read at arm's length."""
HATCHING = 6.0
"""Points between the lines of a wrong side."""
COLOURS: dict[Colour, Color] = {
    "ink": black, "soft": FAINT, "line": FAINT, "paper": white, "accent": black,
    "ruler": Color(1, 0.97, 0.77),
}  # fmt: skip
DASHES: dict[Dash, tuple[float, ...]] = {
    "whole": (), "dashes": (4, 2), "dots": (1, 2), "dash-dots": (6, 2, 1, 2)
}  # fmt: skip
FILLS: dict[Side, Color] = {
    "wrong": white, "back": white, "allowance": Color(0.93, 0.93, 0.91),
    "turned": Color(0.72, 0.72, 0.7), "uncut": HexColor("#f6f2ea"), "plain": white, "ready": white,
}  # fmt: skip
"""Sides that are not tinted."""
THIN: tuple[Side, ...] = ("back", "allowance", "turned")


class Pen:
    """Draws on a page so ``high``; ``letters`` are those of the fabrics. Figures count down from
    the top of the page, the page counts up from its foot."""

    def __init__(
        self, canvas: Any, project: Project, letters: Mapping[str | None, str], high: float
    ) -> None:
        self.canvas, self.project, self.letters, self.high = canvas, project, letters, high

    def frame(self, left: float, top: float, scale: float, mirror: float | None = None) -> Frame:
        """Where a plan lies on the page, its upper left at (left, top) of the page's own count."""
        return Frame(left, self.high - top, scale, UNIT, mirror)

    def draw(self, figure: Figure) -> None:
        """All of a figure, in order."""
        c = self.canvas
        c.saveState()
        for item in figure:
            if isinstance(item, FabricArea):
                self._fabric(item)
            elif isinstance(item, Polyline):
                self._line(item)
            elif isinstance(item, Area):
                look = LOOKS[item.kind]
                self._look(look, look.width, item.strength)
                path = self._path(item.points)
                c.drawPath(path, fill=int(look.fill is not None), stroke=int(look.line is not None))
            elif isinstance(item, Disc):
                look = LOOKS[item.kind]
                self._look(look, look.width)
                x, y = item.at
                filled = look.fill is not None
                c.circle(x, self.high - y, item.radius, fill=int(filled), stroke=1)
            elif isinstance(item, Tag):
                size = max(LEAST_TAG, item.size * TEXT)
                self.tag(item.text, item.at[0], self.high - item.at[1], size)
            elif isinstance(item, BoxText):
                self._text(item)
            else:
                self._clipped(item)
        c.restoreState()

    def _look(self, look: Look, width: float, strength: float = 1.0) -> None:
        c = self.canvas
        c.setLineWidth(width * UNIT)
        c.setDash(list(DASHES[look.dash]))
        if look.line is not None:
            c.setStrokeColor(COLOURS[look.line])
        if look.fill is not None:
            full = COLOURS[look.fill]
            pale = (1 - (1 - part) * strength for part in (full.red, full.green, full.blue))
            c.setFillColor(full if strength == 1 else Color(*pale))

    def _path(self, points: Corners, closed: bool = True) -> Any:
        path = self.canvas.beginPath()
        for k, (x, y) in enumerate(points):
            (path.lineTo if k else path.moveTo)(x, self.high - y)
        if closed:
            path.close()
        return path

    def _line(self, item: Polyline) -> None:
        look, c = LOOKS[item.kind], self.canvas
        width = look.width if item.width is None else item.width
        path = self._path(item.points, closed=False)
        if look.halo:
            c.setDash()
            c.setStrokeColor(white)
            c.setLineWidth((width + look.halo) * UNIT)
            c.drawPath(path, stroke=1, fill=0)
        self._look(look, width if item.width is None else width / UNIT)
        c.drawPath(path, stroke=1, fill=0)

    def _fabric(self, item: FabricArea) -> None:
        """A piece with a light tint of its fabric, its letter where there is room for it."""
        c, path = self.canvas, self._path(item.outline)
        c.setDash()
        c.setStrokeColor(black)
        c.setLineWidth(0.35 if item.side in THIN else 0.8)
        c.setFillColor(FILLS[item.side] if item.side in FILLS else self._tint(item.fabric))
        c.drawPath(path, fill=1, stroke=1)
        left, top, right, bottom = bounds_of([item.outline])
        if item.side in ("wrong", "back"):
            self._hatch(path, (left, self.high - bottom, right, self.high - top))
        if item.lettered and min(right - left, bottom - top) > 12:
            x, y = _middle_of(item.outline)
            if item.side in FILLS:  # it would be lost in the hatching, and in lines to sew along
                x, y = _beside(item.outline, (x, y))
                c.setFillColor(white)
                c.circle(x, self.high - y, 5.5, fill=1, stroke=0)
            c.setFillColor(black)
            c.setFont(MEDIUM, 10)
            c.drawCentredString(x, self.high - y - 3.4, self.letters.get(item.fabric, ""))

    def _tint(self, fabric: str | None) -> Color:
        known_fabric = self.project.fabric(fabric) if fabric else None
        if known_fabric is None:
            return white
        full = HexColor(known_fabric.colour)
        return Color(*(1 - (1 - part) * TINT for part in (full.red, full.green, full.blue)))

    def _hatch(self, path: Any, box: Box) -> None:
        """Lines across an outline, as the wrong side of fabric is drawn."""
        c, (left, foot, right, head) = self.canvas, box
        c.saveState()
        c.clipPath(path, stroke=0, fill=0)
        c.setStrokeColor(FAINT)
        c.setLineWidth(0.35)
        x = left - (head - foot)
        while x < right:
            c.line(x, foot, x + head - foot, head)
            x += HATCHING
        c.restoreState()

    def _clipped(self, item: Clip) -> None:
        self.canvas.saveState()
        self.canvas.clipPath(self._path(item.within), stroke=0, fill=0)
        self.draw(item.items)
        self.canvas.restoreState()

    def tag(self, label: str, x: float, y: float, size: float) -> None:
        """A label on a white ground, its middle at a place of the page."""
        c = self.canvas
        wide = pdfmetrics.stringWidth(label, BOLD, size)
        c.setDash()
        c.setFillColor(white)
        c.setStrokeColor(black)
        c.setLineWidth(0.4)
        c.roundRect(x - wide / 2 - 3, y - size * 0.6, wide + 6, size * 1.2, 3, fill=1, stroke=1)
        c.setFillColor(black)
        c.setFont(BOLD, size)
        c.drawCentredString(x, y - size * 0.35, label)

    def _text(self, item: BoxText) -> None:
        """Words in a box, as large as there is room for."""
        left, top, right, bottom = item.box
        size = item.size * TEXT
        long = pdfmetrics.stringWidth(item.text, MEDIUM, size) or 1.0
        if not item.wide:
            size *= min(1.0, (bottom - top) * 0.7 / size, (right - left) * 0.9 / long)
        if size <= LEAST_TEXT:
            return
        self.canvas.setFillColor(black)
        self.canvas.setFont(MEDIUM, size)
        x, y = (left + right) / 2, self.high - (top + bottom) / 2
        self.canvas.drawCentredString(x, y - size / 3, item.text)


def _beside(points: Corners, middle: Spot) -> Spot:
    """Halfway from the middle of an outline to that of its longest side."""
    sides = zip(points, (*points[1:], points[0]), strict=True)
    (x0, y0), (x1, y1) = max(sides, key=lambda side: dist(*side))
    return (middle[0] + (x0 + x1) / 2) / 2, (middle[1] + (y0 + y1) / 2) / 2


def _middle_of(points: Corners) -> Spot:
    """The centre of mass of a polygon: inside every convex one, where its letter goes."""
    twice = cx = cy = 0.0
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        part = x0 * y1 - x1 * y0
        twice += part
        cx += (x0 + x1) * part
        cy += (y0 + y1) * part
    return cx / (3 * twice), cy / (3 * twice)
