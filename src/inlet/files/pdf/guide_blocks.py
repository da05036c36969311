"""What a guide's pages are made of: lines of words, of pictures, of sizes to cut; each knows how
high it is at a width, and draws itself there."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Protocol

from reportlab.lib.colors import black
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth

from inlet.core.figures import move_bounds, move_figure
from inlet.core.table import Move, Repeated
from inlet.files.pdf.figure import Pen
from inlet.files.pdf.pages import BOLD, INK, MEDIUM, REGULAR


class PageBlock(Protocol):
    """Part of a card."""

    def height(self, wide: float) -> float:
        """How high it is, so many points wide."""

    def draw(self, pen: Pen, left: float, top: float, wide: float) -> None:
        """Draw it; ``top`` is measured from the foot of the page, as the canvas does."""


def split(text: str, font: str, size: float, wide: float) -> list[str]:
    """A paragraph in lines so wide."""
    lines: list[str] = simpleSplit(text, font, size, wide)
    return lines


@dataclass(frozen=True)
class PageWords:
    """A paragraph, a line of it ``size`` high and a third."""

    text: str
    size: float = 9.5
    font: str = REGULAR
    gap: float = 2.0

    def _lines(self, wide: float) -> list[str]:
        return split(self.text, self.font, self.size, wide)

    def height(self, wide: float) -> float:
        return len(self._lines(wide)) * self.size * 1.28 + self.gap if self.text else 0.0

    def draw(self, pen: Pen, left: float, top: float, wide: float) -> None:
        pen.canvas.setFillColor(black)
        pen.canvas.setFont(self.font, self.size)
        for i, line in enumerate(self._lines(wide)):
            pen.canvas.drawString(left, top - self.size * (1 + 1.28 * i), line)


@dataclass(frozen=True)
class Title:
    """What a card is about, and at its right what its work should measure."""

    text: str
    figure: str = ""
    size: float = 12.5

    def _lines(self, wide: float) -> list[str]:
        return split(self.text, BOLD, self.size, wide)

    def _beside(self, wide: float) -> bool:
        """Does the figure fit beside the last line?"""
        last: float = stringWidth(self._lines(wide)[-1], BOLD, self.size)
        figure: float = stringWidth(self.figure, BOLD, self.size)
        return last + figure + 12 <= wide

    def height(self, wide: float) -> float:
        below = split(self.figure, BOLD, self.size, wide)
        lines = len(self._lines(wide)) + (0 if self._beside(wide) else len(below))
        return lines * self.size * 1.28 + 4

    def draw(self, pen: Pen, left: float, top: float, wide: float) -> None:
        c, lines = pen.canvas, self._lines(wide)
        c.setFont(BOLD, self.size)
        c.setFillColor(INK)
        for i, line in enumerate(lines):
            c.drawString(left, top - self.size * (1 + 1.28 * i), line)
        c.setFillColor(black)
        y = top - self.size * (1 + 1.28 * (len(lines) - 1))
        if self._beside(wide):
            c.drawRightString(left + wide, y, self.figure)
            return
        for line in split(self.figure, BOLD, self.size, wide):
            y -= self.size * 1.28
            c.drawString(left, y, line)


PICTURE, LEAST_PICTURE = 58.0, 42.0
"""How high a move is drawn, and may be to stay in half a page."""
MOST_ACROSS = 1.55
"""How wide a picture may be, in its heights."""
GAP = 9.0


@dataclass(frozen=True)
class Pictures:
    """Moves in a line, each with its number below, and how often it is made."""

    moves: tuple[Repeated, ...]
    first: int = 1
    high: float = PICTURE

    @property
    def _drawn(self) -> float:
        """How high the highest is."""
        return max(size_within(m, MOST_ACROSS * self.high, self.high)[1] for m, _ in self.moves)

    def height(self, wide: float) -> float:
        return self._drawn + 16

    def draw(self, pen: Pen, left: float, top: float, wide: float) -> None:
        high = self._drawn
        for number, (move, times) in enumerate(self.moves, self.first):
            across, _ = size_within(move, MOST_ACROSS * self.high, self.high)
            draw_move(pen, move, left, top, across, high)
            often = f"{number}" if times == 1 else f"{number}, {times} times"
            pen.canvas.setFillColor(black)
            pen.canvas.setFont(MEDIUM, 8.5)
            pen.canvas.drawCentredString(left + across / 2, top - high - 10, often)
            left += max(across, stringWidth(often, MEDIUM, 8.5)) + GAP


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


def wide_of(moves: Sequence[Repeated], high: float = PICTURE) -> float:
    """How wide a line of pictures is."""
    return (
        sum(size_within(repeat.move, MOST_ACROSS * high, high)[0] + GAP for repeat in moves) - GAP
    )


def in_lines(moves: Sequence[Repeated], wide: float) -> list[Pictures]:
    """Moves in as few lines of pictures as hold them; in one, where smaller ones fit it."""
    high = PICTURE
    if wide_of(moves, LEAST_PICTURE) <= wide < wide_of(moves):
        high = next(h / 2 for h in range(116, 83, -1) if wide_of(moves, h / 2) <= wide)
    lines: list[list[Repeated]] = [[]]
    for repeat in moves:
        if lines[-1] and wide_of([*lines[-1], repeat], high) > wide:
            lines.append([])
        lines[-1].append(repeat)
    pictures, number = [], 1
    for line in lines:
        pictures.append(Pictures(tuple(line), number, high))
        number += len(line)
    return [line for line in pictures if line.moves]


@dataclass(frozen=True)
class CutLine:
    """A size to cut, with a box to tick: the largest thing on the page."""

    number: int
    size: str
    stack: str
    words: str

    _LEFT = 54.0

    def _beside(self, wide: float) -> float | None:
        """Where the words begin beside the size; None where they need a line of their own."""
        begin: float = self._LEFT + stringWidth(self.size, BOLD, 17) + 8
        end: float = wide - stringWidth(self.stack, BOLD, 12) - 8
        return begin if begin + stringWidth(self.words, REGULAR, 9.5) <= end else None

    def _lines(self, wide: float) -> list[str]:
        return split(self.words, REGULAR, 9.5, wide - self._LEFT)

    def height(self, wide: float) -> float:
        return 22.0 if self._beside(wide) else 22 + 11.5 * len(self._lines(wide))

    def draw(self, pen: Pen, left: float, top: float, wide: float) -> None:
        c = pen.canvas
        c.setFillColor(black)
        c.setStrokeColor(black)
        c.setLineWidth(0.7)
        c.rect(left, top - 16, 10, 10)
        c.setFont(MEDIUM, 14)
        c.drawRightString(left + self._LEFT - 8, top - 17, f"{self.number} ×")
        c.setFont(BOLD, 17)
        c.drawString(left + self._LEFT, top - 17, self.size)
        c.setFont(BOLD, 12)
        c.drawRightString(left + wide, top - 17, self.stack)
        c.setFont(REGULAR, 9.5)
        beside = self._beside(wide)
        if beside is not None:
            c.drawString(left + beside, top - 17, self.words)
            return
        for i, line in enumerate(self._lines(wide)):
            c.drawString(left + self._LEFT, top - 28 - 11.5 * i, line)


@dataclass(frozen=True)
class PageTable:
    """Rows of short words, each column as wide as it must be."""

    rows: tuple[tuple[str, ...], ...]
    size: float = 9.5

    def height(self, wide: float) -> float:
        return len(self.rows) * self.size * 1.4 + 4

    def draw(self, pen: Pen, left: float, top: float, wide: float) -> None:
        c = pen.canvas
        c.setFillColor(black)
        columns = zip(*self.rows, strict=True)
        widths = [max(stringWidth(t, MEDIUM, self.size) for t in column) for column in columns]
        for i, row in enumerate(self.rows):
            x, y = left, top - self.size * (1 + 1.4 * i)
            for j, (text, width) in enumerate(zip(row, widths, strict=True)):
                c.setFont(REGULAR if j else MEDIUM, self.size)
                c.drawString(x, y, text)
                x += width + 14


@dataclass(frozen=True)
class PageCard:
    """Blocks kept together; a ``half`` one needs but half the width of a page."""

    blocks: tuple[PageBlock, ...]
    half: bool = False

    def height(self, wide: float) -> float:
        return sum(block.height(wide) for block in self.blocks)


@dataclass
class Flow:
    """Cards laid on pages, top down: ``new_page`` begins one, ``y`` is how far down it is
    written."""

    pen: Pen
    size: tuple[float, float]
    margin: float
    top: float
    new_page: Callable[[], None]
    y: float = field(default=0.0)

    BETWEEN = 10.0
    """Between cards, above one another."""
    BESIDE = 24.0
    LEAST = 4
    """Blocks that are no page of their own."""

    @property
    def wide(self) -> float:
        return self.size[0] - 2 * self.margin

    @property
    def left_over(self) -> float:
        return self.size[1] - 42 - self.y

    def turn(self) -> None:
        """Go on at the top of a new page."""
        self.new_page()
        self.y = self.top

    def blocks(self, blocks: Sequence[PageBlock], left: float, wide: float, y: float) -> None:
        """Draw blocks below one another from ``y`` down the page."""
        for block in blocks:
            block.draw(self.pen, left, self.size[1] - y, wide)
            y += block.height(wide)

    def cards(self, cards: Sequence[PageCard]) -> None:
        """Cards in their order, but for halves: the next one is laid beside each."""
        half = (self.wide - self.BESIDE) / 2
        left = list(cards)
        while left:
            several = [left.pop(0)]
            beside = next((card for card in left if card.half), None)
            if several[0].half and beside is not None:
                left.remove(beside)
                several.append(beside)
            wide = half if several[0].half else self.wide
            high = max(card.height(wide) for card in several)
            if high > self.left_over and high <= self.size[1] - 42 - self.top:
                self.turn()
            if high > self.left_over:  # more than a page
                self.text([block for card in several for block in card.blocks])
                continue
            for k, card in enumerate(several):
                self.blocks(card.blocks, self.margin + k * (half + self.BESIDE), wide, self.y)
            self.y += high + self.BETWEEN

    def columns(self, cards: Sequence[PageCard]) -> None:
        """Cards in two columns as high as one another; in pairs where a page does not hold them."""
        half = (self.wide - self.BESIDE) / 2
        heights = [card.height(half) + self.BETWEEN for card in cards]
        at = min(range(len(cards) + 1), key=lambda k: max(sum(heights[:k]), sum(heights[k:])))
        high = max(sum(heights[:at]), sum(heights[at:]))
        if high > self.left_over:
            self.cards([PageCard(card.blocks, True) for card in cards])
            return
        for left, column in ((0.0, cards[:at]), (half + self.BESIDE, cards[at:])):
            y = self.y
            for card in column:
                self.blocks(card.blocks, self.margin + left, half, y)
                y += card.height(half) + self.BETWEEN
        self.y += high

    def text(self, blocks: Sequence[PageBlock]) -> None:
        """Blocks that may go over pages; no page has only a few of them."""
        left = list(blocks)
        while left:
            fit, high = 0, 0.0
            while fit < len(left) and high + left[fit].height(self.wide) <= self.left_over:
                high += left[fit].height(self.wide)
                fit += 1
            if fit < len(left):
                fit = min(fit, len(left) - self.LEAST)
            if fit < min(self.LEAST, len(left)):
                if self.y > self.top:
                    self.turn()
                    continue
                fit = max(1, fit)  # higher than a page: drawn as far as it goes
            self.blocks(left[:fit], self.margin, self.wide, self.y)
            self.y += sum(block.height(self.wide) for block in left[:fit])
            left = left[fit:]
            if left:
                self.turn()
        self.y += self.BETWEEN
