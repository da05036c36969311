"""Documents whose pages a library fills: parts follow one another, kept together where they belong
together, with a head and a foot on each page."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from typing import Any, BinaryIO
from xml.sax.saxutils import escape

from reportlab.lib.colors import black
from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import (
    BaseDocTemplate,
    Flowable,
    Frame,
    KeepTogether,
    NextPageTemplate,
    PageBreak,
    PageTemplate,
    Paragraph,
    Spacer,
    Table,
)

from inlet import __version__
from inlet.core.cancellation import check, tell
from inlet.core.numbers import vulgar_text
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, REGULAR, CountedCanvas

Story = list[Flowable]
"""What a document holds, in order."""
FOOT = 42.0
"""Points below a page's text."""
BETWEEN, BESIDE = 10.0, 24.0
"""Between what is kept together, above one another and side by side."""
LEADING = 1.28
"""Lines in the height of their letters."""
READ = 10.0
"""Points of text that is read at arm's length; nothing is smaller."""
LEAST = 4
"""Parts that are no page of their own."""


class PagePart(Flowable):  # type: ignore[misc]  # the library is not typed
    """A part of a page that draws itself, as high as it must be for its width."""

    def tall(self, wide: float) -> float:
        """How high it is, so many points wide."""
        raise NotImplementedError

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        """Draw it, its foot at (0, 0)."""
        raise NotImplementedError

    def wrap(self, wide: float, high: float) -> tuple[float, float]:
        self.width, self.height = wide, self.tall(wide)
        return self.width, self.height

    def draw(self) -> None:
        check()
        self.paint(self.canv, self.width, self.height)


def paragraph(
    text: str, size: float = READ, font: str = REGULAR, gap: float = 2.0, box: bool = False
) -> Flowable:
    """Text in lines, its fractions as one letter; with a ``box`` to tick before it."""
    style = ParagraphStyle(
        "text", fontName=font, fontSize=size, leading=LEADING * size, spaceAfter=gap,
        textColor=INK if font == BOLD else black, leftIndent=14 if box else 0,
        allowWidows=0, allowOrphans=0,
    )  # fmt: skip
    written = Paragraph(escape(vulgar_text(text)), style)
    return Ticked(written, size) if box else written


class Ticked(PagePart):
    """A paragraph with a box before it, to tick."""

    def __init__(self, text: Flowable, size: float) -> None:
        super().__init__()
        self.text, self.size = text, size

    def tall(self, wide: float) -> float:
        return float(self.text.wrap(wide, 10_000)[1]) + 2.5

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.6)
        canvas.rect(0, high - self.size - 1, 8, 8)
        self.text.wrap(wide, high)
        self.text.drawOn(canvas, 0, 2.5)


def ticked_table(heads: Sequence[str], lines: Sequence[Sequence[str]], wide: float) -> Flowable:
    """Lines of cells under their heads, so many points ``wide``, a box to tick before each; it goes
    over pages, its heads with it. The last column has the room that the others leave."""
    cells = [["", *(paragraph(head, READ, BOLD) for head in heads)]]
    cells += [[TickBox(READ), *(paragraph(text) for text in line)] for line in lines]
    style = [
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
        ("RIGHTPADDING", (0, 0), (-1, -1), 6), ("TOPPADDING", (0, 0), (-1, -1), 1.5),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5), ("LINEBELOW", (0, 0), (-1, -1), 0.3, FAINT),
    ]  # fmt: skip
    widths = [16.0, *((5 if i < 2 else 8) * READ for i in range(len(heads) - 1))]
    widths.append(wide - sum(widths))
    return Table(cells, colWidths=widths, style=style, repeatRows=1, spaceAfter=6, hAlign="LEFT")


def text_table(lines: Sequence[Sequence[str]]) -> Flowable:
    """Lines of cells, the first their head; it goes over pages, its head with it."""
    head, *rest = lines
    cells = [[paragraph(text, READ, BOLD) for text in head]]
    cells += [[paragraph(text) for text in line] for line in rest]
    style = [
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
        ("RIGHTPADDING", (0, 0), (-1, -1), 6), ("LINEBELOW", (0, 0), (-1, -1), 0.3, FAINT),
    ]  # fmt: skip
    return Table(cells, style=style, repeatRows=1, spaceAfter=6, hAlign="LEFT")


class TickBox(PagePart):
    """A box to tick."""

    def __init__(self, size: float) -> None:
        super().__init__()
        self.size = size

    def tall(self, wide: float) -> float:
        return self.size * LEADING

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.6)
        canvas.rect(0, high - 9, 8, 8)


def together(parts: Iterable[Flowable], gap: float = BETWEEN) -> Flowable:
    """Parts on one page, if one holds them."""
    return KeepTogether([*parts, Spacer(1, gap)])


def unbroken_ends(parts: Sequence[Flowable]) -> Story:
    """Parts that may go over pages, of which no page has only the first or last few."""
    if len(parts) <= 2 * LEAST:
        return [together(parts)] if parts else []
    return [together(parts[:LEAST], 0), *parts[LEAST:-LEAST], together(parts[-LEAST:])]


def side_by_side(columns: Sequence[Sequence[Flowable]], wide: float) -> Flowable:
    """Columns of parts, ``wide`` in all, as one row."""
    across = (wide - BESIDE * (len(columns) - 1)) / len(columns)
    widths = [across + (BESIDE if k + 1 < len(columns) else 0) for k in range(len(columns))]
    style = [
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
        ("RIGHTPADDING", (0, 0), (-2, -1), BESIDE), ("RIGHTPADDING", (-1, 0), (-1, -1), 0),
        ("TOPPADDING", (0, 0), (-1, -1), 0), ("BOTTOMPADDING", (0, 0), (-1, -1), BETWEEN),
    ]  # fmt: skip
    return Table([[list(column) for column in columns]], colWidths=widths, style=style)


def two_columns(
    left: Sequence[Flowable], right: Sequence[Flowable], across: float, wide: float
) -> Flowable:
    """Parts beside others, the left ones so many points ``across``."""
    style = [
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
        ("RIGHTPADDING", (0, 0), (-1, -1), 0), ("TOPPADDING", (0, 0), (-1, -1), 0),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 4),
    ]  # fmt: skip
    return Table([[list(left), list(right)]], colWidths=[across, wide - across], style=style)


def height_of(parts: Iterable[Flowable], wide: float) -> float:
    """How high parts are above one another, so many points wide."""
    return sum(float(part.wrap(wide, 10_000)[1]) + float(part.getSpaceAfter()) for part in parts)


Furnish = Callable[[Any], None]
"""Draws what a page has besides its text: its head, its foot."""


class Document:
    """A document on paper of a ``size`` in points, begun with its title; ``top`` points of each
    page are its head's."""

    def __init__(
        self, to: BinaryIO, size: tuple[float, float], title: str, top: float = MARGIN
    ) -> None:
        self.size, self.top = size, top
        self.pages = BaseDocTemplate(to, pagesize=size, title=title, creator=f"Inlet {__version__}")
        self.story: Story = []

    @property
    def wide(self) -> float:
        """Points that text is wide."""
        return self.size[0] - 2 * MARGIN

    @property
    def high(self) -> float:
        """Points of a page that hold text."""
        return self.size[1] - self.top - FOOT

    @property
    def half(self) -> float:
        """Points that a column of two is wide."""
        return (self.wide - BESIDE) / 2

    def section(self, name: str, furnish: Furnish, columns: int = 1) -> None:
        """Go on with pages of another kind, in so many columns."""
        across = (self.wide - BESIDE * (columns - 1)) / columns
        frames = [
            Frame(MARGIN + k * (across + BESIDE), FOOT, across, self.high, 0, 0, 0, 0)
            for k in range(columns)
        ]
        template = PageTemplate(name, frames, onPage=lambda canvas, _: furnish(canvas))
        self.pages.addPageTemplates(template)
        if self.story:
            self.story += [NextPageTemplate(name), PageBreak()]

    def add(self, *parts: Flowable) -> None:
        self.story += parts

    def write(self) -> None:
        """Fill the pages, telling how far that is; stops where the work is asked to."""
        whole = max(1, len(self.story))

        def progress(what: str, count: Any) -> None:
            check()
            if what == "PROGRESS":
                tell(min(0.99, count / whole))

        self.pages.setProgressCallBack(progress)
        self.pages.build(self.story, canvasmaker=CountedCanvas)
