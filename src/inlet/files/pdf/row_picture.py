"""Pictures of a quilt's guide: rows with the turn of each block, the backing with its seams."""

from __future__ import annotations

from typing import Any

from reportlab.lib.colors import HexColor, black, white

from inlet.core.figures import Corners, RowFigure
from inlet.core.plan import near_length
from inlet.core.project import Measure, Project
from inlet.core.setting import BackingWay
from inlet.files.pdf.document import PagePart
from inlet.files.pdf.pages import FAINT, INK, MEDIUM

HIGH = 96.0
"""Points that a row or a backing is high at most."""


class RowPicture(PagePart):
    """A row as it lies; a dark mark at the top of each block says how it is turned."""

    def __init__(self, row: RowFigure, project: Project) -> None:
        super().__init__()
        self.row, self.project = row, project

    def _scale(self, wide: float) -> float:
        return min(wide / max(self.row.width, 1e-9), HIGH / max(self.row.height, 1e-9))

    def tall(self, wide: float) -> float:
        return self.row.height * self._scale(wide) + 6

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        scale = self._scale(wide)
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.3)
        for area in self.row.areas:
            fabric = self.project.fabric(area.fabric or "")
            canvas.setFillColor(white if fabric is None else HexColor(fabric.colour))
            canvas.drawPath(_closed(canvas, area.outline, high, scale), fill=1)
        canvas.setStrokeColor(white)
        canvas.setFillColor(black)
        canvas.setLineWidth(0.8)
        for mark in self.row.marks:
            canvas.drawPath(_closed(canvas, mark, high, scale), fill=1)


def _closed(canvas: Any, corners: Corners, high: float, scale: float) -> Any:
    path = canvas.beginPath()
    for i, (x, y) in enumerate(corners):
        (path.lineTo if i else path.moveTo)(x * scale, high - y * scale)
    path.close()
    return path


class BackingPicture(PagePart):
    """The backing with its seams, and how long and wide it is."""

    def __init__(self, way: BackingWay, measure: Measure) -> None:
        super().__init__()
        self.way, self.measure = way, measure

    def _sides(self, wide: float) -> tuple[float, float]:
        across, down = (float(side) for side in self.way.size)
        scale = min(wide * 0.5 / across, HIGH / down)
        return across * scale, down * scale

    def tall(self, wide: float) -> float:
        return self._sides(wide)[1] + 26

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        across, down = self._sides(wide)
        foot = high - down - 4
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(1)
        canvas.rect(0, foot, across, down)
        canvas.setDash(5, 3)
        widths = self.way.widths
        for k in range(1, widths):
            if self.way.seam == "along":
                canvas.line(across * k / widths, foot, across * k / widths, foot + down)
            else:
                canvas.line(0, foot + down * k / widths, across, foot + down * k / widths)
        canvas.setDash()
        canvas.setFillColor(black)
        canvas.setFont(MEDIUM, 10)
        width, height = (near_length(side, self.measure) for side in self.way.size)
        canvas.drawCentredString(across / 2, foot - 13, width)
        canvas.drawString(across + 6, foot + down / 2 - 3, height)
        if widths > 1:
            canvas.setFillColor(FAINT)
            canvas.drawString(across + 6, foot + down / 2 - 17, "dashed: seams")
