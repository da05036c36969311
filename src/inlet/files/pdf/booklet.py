"""What makes pages a booklet: chapters, a table of contents, “3 of 14”, moves with their words."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from reportlab.lib.colors import black
from reportlab.platypus import Flowable, Table

from inlet.core.numbers import vulgar_text
from inlet.core.table import Repeated
from inlet.files.pdf.document import LEADING, PagePart, paragraph
from inlet.files.pdf.guide_blocks import Fabrics, draw_move, size_within
from inlet.files.pdf.pages import BOLD, FAINT, INK, REGULAR


class Chapter(PagePart):
    """A place that the table of contents, and that of a screen, lead to; its title is written
    there where it is ``shown``."""

    SIZE = 16.0

    def __init__(self, title: str, shown: bool = False) -> None:
        super().__init__()
        self.title, self.shown = title, shown
        self.keepWithNext = 1

    def tall(self, wide: float) -> float:
        return self.SIZE * LEADING + 6 if self.shown else 0.0

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        if self.shown:
            canvas.setFillColor(INK)
            canvas.setFont(BOLD, self.SIZE)
            canvas.drawString(0, high - self.SIZE, vulgar_text(self.title))
        key, number = f"chapter-{len(canvas.chapters)}", canvas.getPageNumber()
        canvas.chapters.append((self.title, number))

        def draw(canvas: Any, _total: int) -> None:
            canvas.bookmarkPage(key)
            canvas.addOutlineEntry(vulgar_text(self.title), key, 0)

        canvas.late.append(draw)


class Contents(PagePart):
    """The chapters with their pages."""

    SIZE = 10.5

    def __init__(self, story: Sequence[Flowable]) -> None:
        super().__init__()
        self.story = story

    def tall(self, wide: float) -> float:
        chapters = sum(isinstance(part, Chapter) for part in self.story)
        return chapters * self.SIZE * LEADING * 1.15 + 4

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        left, foot = canvas.absolutePosition(0, 0)

        def draw(canvas: Any, _total: int) -> None:
            canvas.setFillColor(black)
            canvas.setFont(REGULAR, self.SIZE)
            canvas.setStrokeColor(FAINT)
            canvas.setLineWidth(0.4)
            for i, (title, number) in enumerate(canvas.chapters):
                y = foot + high - self.SIZE - i * self.SIZE * LEADING * 1.15
                canvas.drawString(left, y, vulgar_text(title))
                begin = left + canvas.stringWidth(vulgar_text(title), REGULAR, self.SIZE) + 6
                canvas.setDash(1, 3)
                canvas.line(begin, y + 1, left + wide - 22, y + 1)
                canvas.setDash()
                canvas.drawRightString(left + wide, y, str(number))
                box = (left, y - 3, left + wide, y + self.SIZE)
                canvas.linkRect("", f"chapter-{i}", box, relative=0, thickness=0)

        canvas.late.append(draw)


# --- moves ----------------------------------------------------------------------------------------

LEAST_CELL = 112.0
"""Points that a move's cell is wide at least: its picture is 30 mm wide, 85 points, and more."""
LEAST_WIDE = 85.1
HIGH, HIGHEST = 92.0, 168.0
"""Points a picture is high at most; narrow ones more, so that they are 30 mm wide."""
BETWEEN_CELLS = 12.0


class CellPicture(PagePart):
    """A move as large as its cell."""

    def __init__(self, repeat: Repeated, fabrics: Fabrics) -> None:
        super().__init__()
        self.repeat, self.fabrics = repeat, fabrics

    def box(self, wide: float) -> tuple[float, float]:
        """How wide and high the move itself is drawn."""
        across, down = size_within(self.repeat.move, wide, HIGH)
        if 0 < across < LEAST_WIDE:
            across, down = size_within(self.repeat.move, LEAST_WIDE, HIGHEST)
        return across, down

    def tall(self, wide: float) -> float:
        return self.box(wide)[1] + 5

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        across, down = self.box(wide)
        draw_move(self.fabrics.pen(canvas, high), self.repeat.move, 0, high - 1, across, down)


def moves_in_cells(
    moves: Sequence[Repeated], words: Sequence[str], wide: float, fabrics: Fabrics
) -> list[Flowable]:
    """Moves side by side, each with its number and its own sentence below its picture."""
    if not moves:
        return []
    columns = max(1, min(len(moves), int((wide + BETWEEN_CELLS) // (LEAST_CELL + BETWEEN_CELLS))))
    across = (wide + BETWEEN_CELLS) / max(columns, 2) - BETWEEN_CELLS
    cells: list[list[Flowable]] = []
    for number, (repeat, text) in enumerate(zip(moves, words, strict=True), 1):
        often = f" ({repeat.times} times)" if repeat.times > 1 else ""
        told = f"{number}{often}.  {text}" if text else f"{number}{often}"
        cells.append([CellPicture(repeat, fabrics), paragraph(told, 10)])
    lines = [cells[i : i + columns] for i in range(0, len(cells), columns)]
    lines[-1] += [[] for _ in range(columns - len(lines[-1]))]
    style = [
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
        ("RIGHTPADDING", (0, 0), (-1, -1), BETWEEN_CELLS), ("TOPPADDING", (0, 0), (-1, -1), 2),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 4),
    ]  # fmt: skip
    width = across + BETWEEN_CELLS
    return [Table(lines, colWidths=[width] * columns, style=style, hAlign="LEFT")]
