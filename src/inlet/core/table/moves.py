"""What is done at the table, move by move, and the lines drawn on a move's picture."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import Literal, NamedTuple

from inlet.core.geometry import Line, Motion, Point, Polygon, at_origin, canonical, chord
from inlet.core.numbers import Exact, Fraction
from inlet.core.table.pieces import Piece
from inlet.core.table.sheets import ZERO, Sheet, box, size

LineKind = Literal[
    "mark", "seam", "cut", "ruler", "dot", "stop", "pin", "point", "leg", "press", "whirl"
]  # fmt: skip
Do = Literal[
    "cut", "crosscut", "mark", "fold", "lay", "flip", "sew", "cut-apart", "open", "trim", "press"
]  # fmt: skip


SPOTS = ("dot", "stop", "pin", "point", "leg", "whirl")


class DrawnLine(NamedTuple):
    """A line on a move's picture: a ``mark`` to draw, a ``seam`` to sew, a ``cut`` to make, or a
    line of the ``ruler`` to lay there. Where it starts and ends at one place, what lies there: a
    ``dot``, the ``stop`` of a partial seam, a ``pin``, a ``point`` at the edge, or the ``number``
    of a ``leg``, a centre to ``whirl``. ``press`` is an arrow over a seam, the way it is pressed;
    both ways if its number is 1."""

    kind: LineKind
    start: Point
    end: Point
    number: int = 0

    @property
    def is_spot(self) -> bool:
        """Is it what lies at one place? A line of no length is none, and is not drawn."""
        return self.kind in SPOTS


class Move(NamedTuple):
    """One thing done at the table, ``times`` over for a run.

    ``times`` is a half where one doing serves two runs. ``text`` may hold ``{all}`` for the pieces
    as the maker cuts them, ``{0}``, ``{1}`` ... for one of them, ``{s0}``, ``{s1}`` ... for the
    stack it lies in, ``{row}`` for a row or several, ``{length:1.5}``, ``{seam}`` and ``{trim}``.
    ``lower`` lies right side up, ``upper`` wrong side up on it. ``seams`` is how many seams its
    lines are, where they are not one each, or how many are pressed, where it is not one; ``of_set``
    the strip set it is done to, once for each that is sewn, not for each run.
    """

    do: Do
    text: str
    lower: Sheet
    upper: Sheet = ()
    lines: tuple[DrawnLine, ...] = ()
    times: Fraction | int = 1
    seams: int | None = None
    of_set: int | None = None


QUARTER_TURN = Motion(ZERO, ZERO + 1)


class Repeated(NamedTuple):
    """A move and how often moves like it are made."""

    move: Move
    times: int


def like_ones_together(moves: Sequence[Move]) -> list[Repeated]:
    """Moves that say and show the same, turned or not, as one where the first of them is; those of
    a kind there is one of, as they are."""
    said = [
        (move.do, move.text, tuple(sorted((line.kind, line.number) for line in move.lines)))
        for move in moves
    ]
    often = Counter(said)
    ones: dict[object, Repeated] = {}
    for move, words in zip(moves, said, strict=True):
        shown = in_any_turn(move.lower, move.upper) if often[words] > 1 else None
        key = (words, shown)
        known_repeat = ones.get(key)
        ones[key] = (
            Repeated(known_repeat.move, known_repeat.times + 1)
            if known_repeat
            else Repeated(move, 1)
        )
    return list(ones.values())


def in_any_turn(lower: Sheet, upper: Sheet = ()) -> frozenset[object]:
    """The picture of sheets on one another in all four turns: equal for equal ones, however they
    lie."""
    whole = [(outline, f"below {fabric}") for outline, fabric in lower]
    whole += [(outline, f"above {fabric}") for outline, fabric in upper]
    turned: Sheet = tuple(whole)
    out = []
    for _ in range(4 if whole else 0):
        out.append(canonical(at_origin(turned)))
        turned = QUARTER_TURN.picture(turned)
    return frozenset(out)


def either_side(middle: Line, seam: Exact, fabric: Polygon) -> tuple[DrawnLine, ...]:
    """The two seams ``seam`` either side of a drawn line, from edge to edge of ``fabric``."""
    ends = (chord(fabric, middle.shifted(by)) for by in (seam, -seam))
    return tuple(DrawnLine("seam", *pair) for pair in ends if pair)


def foot_on(line: Line, p: Point) -> Point:
    """The point of ``line`` nearest to ``p``."""
    k = line.side(p) / (line.a * line.a + line.b * line.b)
    return Point(p.x - k * line.a, p.y - k * line.b)


def cut_sheet(piece: Piece) -> Sheet:
    """A piece as it comes off the fabric, before any crosscut; with its long side upright where it
    matters which way its diagonal runs."""
    if piece.outline:
        return ((piece.outline, piece.fabric),)
    if piece.lean:
        return rectangle_sheet(piece.exact[0], piece.exact[1], piece.fabric)
    return rectangle_sheet(piece.exact[1], piece.exact[0], piece.fabric)


def rectangle_sheet(
    width: Exact, height: Exact, fabric: str | None, left: Exact = ZERO, top: Exact = ZERO
) -> Sheet:
    right, bottom = left + width, top + height
    corners = (Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom))
    return ((corners, fabric),)


def in_a_row(sheets: Sequence[Sheet]) -> Sheet:
    """Sheets side by side with a gap, four to a row, for a picture."""
    if not sheets:
        return ()
    sizes = [size(sheet) for sheet in sheets]
    wide, high = max(w for w, _ in sizes), max(h for _, h in sizes)
    gap = wide / 6
    out: list[tuple[Polygon, str | None]] = []
    for i, sheet in enumerate(sheets):
        x, y = (i % 4) * (wide + gap), (i // 4) * (high + gap)
        out += fitted(sheet, x, y)
    return tuple(out)


def fitted(sheet: Sheet, x: Exact, y: Exact) -> Sheet:
    """The sheet moved so that its box begins at (x, y)."""
    left, top, _, _ = box(sheet)
    by = Point(x - left, y - top)
    return Motion(Fraction(1), ZERO, by).picture(sheet)
