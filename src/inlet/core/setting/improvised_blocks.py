"""Improvised squares of a top: each at its place with its own corners."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator

from inlet.core.improvised import CornerChoice, ImprovisedSquare, Spot, corner_choice, key_of
from inlet.core.memo import Latest
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Project, Quilt
from inlet.core.setting.colourways import in_colourway
from inlet.core.setting.pieces import Lying, TopPiece
from inlet.core.setting.top import Top, single_pieces

Named = tuple[str, str]
"""A block and its colourway, by their ids."""


class SquaresOnTop:
    """The improvised squares of a top: what each block's corners are drawn from, the squares of a
    block in the order of its places, and the square at a piece of the top."""

    def __init__(self, pieces: Iterable[TopPiece], project: Project) -> None:
        quilt = project.quilt or Quilt()
        self._choices: dict[Named, CornerChoice | None] = {}
        spots: dict[Named, list[Spot]] = defaultdict(list)
        numbers: dict[Named, list[int]] = defaultdict(list)
        times: Counter[tuple[int, int, str]] = Counter()
        places: dict[int, tuple[int, int]] = {}
        gap = _gap(project)
        for number, piece in enumerate(pieces):
            lying = piece.lying
            if lying is None:
                continue
            placed = lying.placed
            named = placed.block, placed.colourway
            if named not in self._choices:
                block = in_colourway(project.block(named[0]), quilt.colourway(named[1]))
                choice = corner_choice(block, project)
                self._choices[named] = choice if choice is not None and choice.possible else None
            if self._choices[named] is None:
                continue
            at = placed.column, placed.row, placed.block
            spots[named].append(_spot(lying, times[at], gap))
            numbers[named].append(number)
            times[at] += 1
            places[number] = placed.column, placed.row
        self._squares = {
            named: choice.squares(tuple(spots[named]))
            for named, choice in self._choices.items()
            if choice is not None
        }
        self._in_place = {
            places[number]: square
            for named, squares in self._squares.items()
            for number, square in zip(numbers[named], squares, strict=True)
        }
        self._at = {
            number: square
            for named, squares in self._squares.items()
            for number, square in zip(numbers[named], squares, strict=True)
        }

    def of(self, block: str, colourway: str) -> tuple[ImprovisedSquare, ...]:
        """The squares of a block in a colourway; none of a block that is not improvised."""
        return self._squares.get((block, colourway), ())

    def every(self) -> Iterator[tuple[Named, ImprovisedSquare]]:
        """Every square with its block and colourway."""
        for named, squares in self._squares.items():
            for square in squares:
                yield named, square

    def in_place(self, column: int, row: int) -> ImprovisedSquare | None:
        """The square of a place; None where there is none, or several lie there in a motif."""
        return self._in_place.get((column, row))

    def at(self, number: int) -> ImprovisedSquare | None:
        """The square at a piece, by its number among the pieces; None where there is none."""
        return self._at.get(number)


_ON_TOP: Latest[Top, tuple[Project, SquaresOnTop]] = Latest(8)
"""The squares of the last tops: whoever shows a top asks for them after whoever planned it."""


def squares_on_top(top: Top, project: Project) -> SquaresOnTop:
    """The improvised squares of a project's quilt, its single pieces in their order."""
    if not any(block.improvised for block in project.blocks):
        return SquaresOnTop((), project)
    known = _ON_TOP.get(top)
    if known is None or known[0] is not project:
        squares = SquaresOnTop(single_pieces(top, project.quilt or Quilt()), project)
        known = _ON_TOP.keep(top, (project, squares))
    return known[1]


def _gap(project: Project) -> Exact:
    sashing = project.quilt.sashing if project.quilt is not None else None
    return sashing.width if sashing is not None and sashing.width is not None else Fraction(0)


def _spot(lying: Lying, times: int, gap: Exact) -> Spot:
    placed = lying.placed
    x, y = lying.middle.floats()
    wide, high = (float(side + gap) for side in lying.size)
    key = key_of(placed.column, placed.row, times)
    return Spot(key, (x / wide, y / high), lying.eighths // 2, placed.mirror)
