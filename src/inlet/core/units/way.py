"""A way to make a unit: its pieces, its moves at the table with their pictures, its products."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import NamedTuple

from inlet.core.geometry.motion import Motion
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Line, Polygon, chord
from inlet.core.numbers import Exact
from inlet.core.units.pieces import Piece, rectangle
from inlet.core.units.sheets import ZERO, Sheet, box, size


class Drawn(NamedTuple):
    """A line on a move's picture: a ``mark`` to draw, a ``seam`` to sew, a ``cut`` to make."""

    kind: str
    start: Point
    end: Point


class Move(NamedTuple):
    """One thing done at the table.

    ``do`` is cut, crosscut, mark, sew, cut-apart or open. ``text`` may hold ``{all}`` for the
    pieces as the maker cuts them, ``{0}``, ``{1}`` ... for one of them, and ``{seam}``. ``lower``
    lies right side up, ``upper`` wrong side up on it.
    """

    do: str
    text: str
    lower: Sheet
    upper: Sheet = ()
    lines: tuple[Drawn, ...] = ()


Work = tuple[tuple[Move, ...], tuple[Sheet, ...]]


@dataclass(frozen=True, eq=False)
class Way:
    """A method worked out for one unit.

    ``pieces`` are for one run, which makes ``makes`` units. ``trims``: the trim school cuts it
    larger and trims the unit to its unfinished size. The work at the table is done when first
    asked for: sizes are often all that is wanted.
    """

    name: str
    makes: int
    pieces: tuple[Piece, ...]
    trims: bool
    work: Callable[[], Work]

    @cached_property
    def _done(self) -> Work:
        return self.work()

    @property
    def moves(self) -> tuple[Move, ...]:
        """What to do at the table, in order."""
        return self._done[0]

    @property
    def products(self) -> tuple[Sheet, ...]:
        """The units of a run as they come off the table, raw edges included; empty where the unit
        is simply sewn patch to patch."""
        return self._done[1]


_SHARED: dict[object, Work] = {}
_MOST_SHARED = 1000


def shared(
    key: tuple[object, ...],
    cloths: tuple[str | None, ...],
    make: Callable[[tuple[str | None, ...]], Work],
) -> Callable[[], Work]:
    """``make(cloths)``, worked out once for all cloths told apart in the same way: only their
    colours differ. ``key`` must hold everything else that ``make`` depends on."""

    def work() -> Work:
        names = tuple(dict.fromkeys(cloths))
        pattern = tuple(str(names.index(cloth)) for cloth in cloths)
        if (key, pattern) not in _SHARED:
            if len(_SHARED) >= _MOST_SHARED:
                _SHARED.clear()
            _SHARED[key, pattern] = make(pattern)
        moves, products = _SHARED[key, pattern]

        def dyed(sheet: Sheet) -> Sheet:
            return tuple((outline, names[int(cloth or 0)]) for outline, cloth in sheet)

        return (
            tuple(m._replace(lower=dyed(m.lower), upper=dyed(m.upper)) for m in moves),
            tuple(dyed(sheet) for sheet in products),
        )

    return work


CUT_APART = "Cut on the drawn line."
BESIDE = " Sew {seam} from each drawn line, on both sides of it."
LAY = "Lay the two right sides together."
MARK = "Draw a line on the back of one {}, {}."


def sewn_squares(side: Exact, a: str | None, b: str | None) -> tuple[Piece, ...]:
    if a == b:
        return (rectangle(a, (side, side), 2, "sewn"),)
    return rectangle(a, (side, side), 1, "sewn"), rectangle(b, (side, side), 1, "sewn")


def either_side(middle: Line, seam: Exact, cloth: Polygon) -> tuple[Drawn, ...]:
    """The two seams ``seam`` either side of a drawn line, from edge to edge of ``cloth``."""
    ends = (chord(cloth, middle.shifted(by)) for by in (seam, -seam))
    return tuple(Drawn("seam", *pair) for pair in ends if pair)


def foot_on(line: Line, p: Point) -> Point:
    """The point of ``line`` nearest to ``p``."""
    k = line.side(p) / (line.a * line.a + line.b * line.b)
    return Point(p.x - k * line.a, p.y - k * line.b)


def cut_sheet(piece: Piece) -> Sheet:
    """A piece as it comes off the cloth, before any crosscut."""
    if piece.outline:
        return ((piece.outline, piece.fabric),)
    width, height = piece.exact
    corners = (Point(ZERO, ZERO), Point(height, ZERO), Point(height, width), Point(ZERO, width))
    return ((corners, piece.fabric),)


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
