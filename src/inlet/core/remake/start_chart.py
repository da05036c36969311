"""The chart of start sizes in words: what to begin with, where to cut it, what comes of it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.numbers import Exact, Fraction, NumberError, System, parse_length
from inlet.core.project import Measure
from inlet.core.remake.start_sizes import StartSize, from_squares, on_marks, size_for
from inlet.core.words import length_text

MOST_ROWS = 40
MOST_PARTS = 6
HEAD = ("", "Start block", "Cut, from the centre", "On marks", "Piece", "New block", "First trim")


class StartRow(NamedTuple):
    """A start block, and what it is for or from."""

    what: str
    start: StartSize


def start_chart(
    finished: Sequence[Exact], squares: Sequence[Exact], parts: int, measure: Measure
) -> tuple[StartRow, ...]:
    """For each finished size of the new block: the start block that gives it just so, and the
    nearest ones either side whose cuts lie on the ruler's marks; for each size of squares that a
    maker has, the start block of four half-square triangles of them. Raises ``NumberError`` for a
    size that cannot be."""
    rows: list[StartRow] = []
    for size in finished:
        if size <= 0:
            raise NumberError("a size must be above 0")
        exact = size_for(size, parts, measure)
        name = f"for {length_text(size, measure)}"
        rows.append(StartRow(name, exact))
        if not exact.on_marks:
            below = on_marks(exact.measured, parts, measure)._replace(trimmed=Fraction(0))
            step = measure.mark * (2 * parts if parts % 2 else parts)
            above = on_marks(below.measured + step, parts, measure)
            rows += [
                StartRow(f"near {length_text(size, measure)}", start)
                for start in (below, above)
                if start.piece > 2 * measure.seam
            ]
    for square, start in zip(squares, from_squares(squares, parts, measure), strict=True):
        if start.piece <= 2 * measure.seam:
            raise NumberError(f"{length_text(square, measure)} squares are too small")
        rows.append(StartRow(f"from {length_text(square, measure)} squares", start))
    return tuple(rows[:MOST_ROWS])


def chart_table(rows: Sequence[StartRow], measure: Measure) -> list[tuple[str, ...]]:
    """The chart as lines of a table, its head first."""
    return [HEAD, *(_line(row, measure) for row in rows)]


def _line(row: StartRow, measure: Measure) -> tuple[str, ...]:
    start = row.start
    return (
        row.what,
        length_text(start.measured, measure),
        ", ".join(_distances(start, measure)),
        "yes" if start.on_marks else "no",
        length_text(start.piece, measure),
        length_text(start.finished, measure),
        length_text(start.trimmed, measure) if start.trimmed else "",
    )


def _distances(start: StartSize, measure: Measure) -> Iterator[str]:
    for distance in sorted({abs(cut) for cut in start.cuts}):
        yield length_text(distance, measure) if distance else "through it"


def sizes_of(text: str, system: System) -> tuple[Exact, ...]:
    """Sizes as typed, ``6, 8``. Raises ``NumberError``."""
    return tuple(parse_length(part, system) for part in text.split(",") if part.strip())
