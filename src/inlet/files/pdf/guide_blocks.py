"""What a guide's pages are made of: titles, lines of pictures, sizes to cut, tables, cards."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from reportlab.lib.colors import black
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.platypus import Flowable, Spacer

from inlet.core.figures import move_bounds, move_figure
from inlet.core.numbers import vulgar_text
from inlet.core.project import Project
from inlet.core.table import Move
from inlet.files.pdf.document import (
    BETWEEN,
    LEADING,
    Document,
    PagePart,
    Story,
    height_of,
    side_by_side,
    together,
)
from inlet.files.pdf.figure import Pen
from inlet.files.pdf.pages import BOLD, INK, MEDIUM, REGULAR


@dataclass(frozen=True)
class Fabrics:
    """The fabrics of a guide with the letters they have in its pictures."""

    project: Project
    letters: Mapping[str | None, str]

    def pen(self, canvas: Any, high: float) -> Pen:
        return Pen(canvas, self.project, self.letters, high)


def split(text: str, font: str, size: float, wide: float) -> list[str]:
    """A paragraph in lines so wide."""
    lines: list[str] = simpleSplit(text, font, size, wide)
    return lines


class Title(PagePart):
    """What a card is about, and at its right what its work should measure."""

    def __init__(self, text: str, figure: str = "", size: float = 12.5) -> None:
        super().__init__()
        self.text, self.figure, self.size = vulgar_text(text), vulgar_text(figure), size
        self.keepWithNext, self.spaceBefore = 1, 4

    def _lines(self, wide: float) -> list[str]:
        return split(self.text, BOLD, self.size, wide)

    def _beside(self, wide: float) -> bool:
        """Does the figure fit beside the last line?"""
        last: float = stringWidth(self._lines(wide)[-1], BOLD, self.size)
        figure: float = stringWidth(self.figure, BOLD, self.size)
        return last + figure + 12 <= wide

    def tall(self, wide: float) -> float:
        below = split(self.figure, BOLD, self.size, wide)
        lines = len(self._lines(wide)) + (0 if self._beside(wide) else len(below))
        return lines * self.size * LEADING + 4

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        lines = self._lines(wide)
        canvas.setFont(BOLD, self.size)
        canvas.setFillColor(INK)
        y = high - self.size
        for i, line in enumerate(lines):
            canvas.drawString(0, y - self.size * LEADING * i, line)
        canvas.setFillColor(black)
        y -= self.size * LEADING * (len(lines) - 1)
        if self._beside(wide):
            canvas.drawRightString(wide, y, self.figure)
            return
        for line in split(self.figure, BOLD, self.size, wide):
            y -= self.size * LEADING
            canvas.drawString(0, y, line)


def size_within(move: Move, wide: float, high: float) -> tuple[float, float]:
    """How wide and high a move's picture is, no more than that."""
    bounds = move_bounds(move)
    if bounds is None:
        return 0.0, 0.0
    across, down = bounds[2] - bounds[0], bounds[3] - bounds[1]
    return min(wide, across / down * high), min(high, wide * down / across)


def draw_move(pen: Pen, move: Move, left: float, top: float, wide: float, high: float) -> None:
    """A move's picture in a box, at its left and middle."""
    bounds = move_bounds(move)
    if bounds is None:
        return
    scale = min(wide / (bounds[2] - bounds[0]), high / (bounds[3] - bounds[1]))
    above = (high - (bounds[3] - bounds[1]) * scale) / 2
    frame = pen.frame(left - bounds[0] * scale, top - above + bounds[1] * scale, scale)
    pen.draw(move_figure(move, frame))


class CutLine(PagePart):
    """A size to cut, with a box to tick: the largest thing on the page."""

    LEFT = 54.0

    def __init__(self, number: int, size: str, stack: str, words: str) -> None:
        super().__init__()
        self.number, self.stack = number, stack
        self.size, self.words = vulgar_text(size), vulgar_text(words)

    def _beside(self, wide: float) -> float | None:
        """Where the words begin beside the size; None where they need a line of their own."""
        begin: float = self.LEFT + stringWidth(self.size, BOLD, 17) + 8
        end: float = wide - stringWidth(self.stack, BOLD, 12) - 8
        return begin if begin + stringWidth(self.words, REGULAR, 10) <= end else None

    def _lines(self, wide: float) -> list[str]:
        return split(self.words, REGULAR, 10, wide - self.LEFT)

    def tall(self, wide: float) -> float:
        return 22.0 if self._beside(wide) else 22 + 12.5 * len(self._lines(wide))

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        c, line = canvas, high - 17
        c.setFillColor(black)
        c.setStrokeColor(black)
        c.setLineWidth(0.7)
        c.rect(0, line + 1, 10, 10)
        c.setFont(MEDIUM, 14)
        c.drawRightString(self.LEFT - 8, line, f"{self.number} ×")
        c.setFont(BOLD, 17)
        c.drawString(self.LEFT, line, self.size)
        c.setFont(BOLD, 12)
        c.drawRightString(wide, line, self.stack)
        c.setFont(REGULAR, 10)
        beside = self._beside(wide)
        if beside is not None:
            c.drawString(beside, line, self.words)
            return
        for i, words in enumerate(self._lines(wide)):
            c.drawString(self.LEFT, high - 29 - 12.5 * i, words)


class WordRows(PagePart):
    """Rows of short words, each column as wide as it must be."""

    SIZE = 10.0

    def __init__(self, rows: Sequence[Sequence[str]]) -> None:
        super().__init__()
        self.rows = rows

    def tall(self, wide: float) -> float:
        return len(self.rows) * self.SIZE * 1.4 + 4

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        canvas.setFillColor(black)
        columns = zip(*self.rows, strict=True)
        widths = [max(stringWidth(t, MEDIUM, self.SIZE) for t in column) for column in columns]
        for i, row in enumerate(self.rows):
            x, y = 0.0, high - self.SIZE * (1 + 1.4 * i)
            for j, (text, width) in enumerate(zip(row, widths, strict=True)):
                canvas.setFont(REGULAR if j else MEDIUM, self.SIZE)
                canvas.drawString(x, y, text)
                x += width + 14


@dataclass(frozen=True)
class PageCard:
    """Parts kept together; a ``half`` one needs but half the width of a page."""

    parts: tuple[Flowable, ...]
    half: bool = False


KEPT_WHOLE = 0.4
"""Of a page's height: a card no higher is not parted."""
HEAD = 3
"""Parts of a card that stay together: its title, what is said first, the first that follows."""


def cards_story(cards: Sequence[PageCard], document: Document) -> Story:
    """Cards in their order, but for halves: the next one is laid beside each."""
    story: Story = []
    waiting = list(cards)
    while waiting:
        card = waiting.pop(0)
        beside = (
            next((other_page_card for other_page_card in waiting if other_page_card.half), None)
            if card.half
            else None
        )
        if beside is not None:
            waiting.remove(beside)
        if not card.half or height_of(card.parts, document.half) > document.high:
            story += _whole_or_flowing(card, document)
            continue
        columns = [card.parts, beside.parts if beside is not None else ()]
        story.append(side_by_side(columns, document.wide))
    return story


def _whole_or_flowing(card: PageCard, document: Document) -> Story:
    """A card kept together; a high one goes on over the page, its head with what follows it."""
    if height_of(card.parts, document.wide) <= KEPT_WHOLE * document.high:
        return [together(card.parts)]
    *head, body = card.parts[:HEAD]
    for part in head:
        part.keepWithNext = 1
    return [*head, body, *card.parts[HEAD:], Spacer(1, BETWEEN)]


def columns_story(cards: Sequence[PageCard], document: Document) -> Story:
    """Cards in two columns as high as one another; in pairs where a page does not hold them."""
    heights = [height_of(card.parts, document.half) + BETWEEN for card in cards]
    at = min(range(len(cards) + 1), key=lambda k: max(sum(heights[:k]), sum(heights[k:])))
    if max(sum(heights[:at]), sum(heights[at:])) > document.high:
        return cards_story([PageCard(card.parts, True) for card in cards], document)
    columns = [
        [part for card in column for part in (*card.parts, Spacer(1, BETWEEN))]
        for column in (cards[:at], cards[at:])
    ]
    return [side_by_side(columns, document.wide)]
