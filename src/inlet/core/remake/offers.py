"""Arrangements of slices to look at: each ring of pieces turned alike, each picture once.

Slices that a quarter turn of the block (a half turn where it is not square) carries onto one
another lie in a ring. All pieces of a ring are turned alike, each on the spot; so a block that
looks the same turned still does. Pictures that are turns of one another are one offer. Those that
look the same under most turns and mirrors come first, of these those whose figures go on across
most of the new seams.

A piece in a turn has a look, a number that all pieces share that show the same there. A turn of the
block carries places to places and looks to looks: pictures are compared by their looks.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import islice, permutations, product
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import Draft
from inlet.core.geometry import Motion, Picture, Turn, at_origin, canonical, mirrored
from inlet.core.numbers import Exact, Fraction
from inlet.core.remake.on_point import OnPoint
from inlet.core.remake.set_again import Drawn, Laid, drawn, fills, mover, places_of
from inlet.core.remake.sides import alike, beside
from inlet.core.remake.slices import Slice

MOST_LAID = 20_000
"""Pieces laid in all arrangements that are looked through; sixteen of them at least."""
MOST_ON_POINT = 600
"""Arrangements of a block on point that are looked through."""
QUARTER = Motion(Fraction(0), Fraction(1))
Pattern = tuple[int, ...]
"""The look in each place."""


class SliceOffer(NamedTuple):
    """An arrangement with its picture, under how many of the eight turns and mirrors that looks the
    same, and over what length of the new seams the fabric is the same on both sides."""

    laid: tuple[Laid, ...]
    picture: Picture
    symmetry: int
    goes_on: Exact


def offers(
    start: Draft, slices: Sequence[Slice], where: OnPoint | None = None
) -> tuple[SliceOffer, ...]:
    """The arrangements of a block's slices, best first; ``where`` a block that is cut along its
    diagonals lies in its frame."""
    places = places_of(slices)
    pieces = [drawn(start, each) for each in slices]
    looks = PieceLooks(pieces)
    ways = [way for way in _ways(slices) if way is not None]
    seams = _NewSeams(slices, looks)
    seen: set[Pattern] = set()
    listed = []
    for laid in ring_turns(slices):
        check()
        pattern = tuple(looks.of(piece.piece, piece.quarters) for piece in laid)
        if pattern in seen:
            continue
        images = [_image(pattern, way, looks) for way in ways]
        seen.update(image for image, way in zip(images, ways, strict=True) if not way.turn[1])
        symmetry = images.count(pattern)
        picture = picture_of(pieces, laid, places)
        if where is not None:
            picture = where.picture(picture)
        listed.append(SliceOffer(laid, picture, symmetry, seams.goes_on(pattern)))
    return tuple(sorted(listed, key=lambda each: (-each.symmetry, -float(each.goes_on))))


class PieceLooks:
    """The looks of pieces in their turns, and of their mirror images."""

    def __init__(self, pieces: Sequence[Drawn]) -> None:
        self.pieces = pieces
        self.pictures: list[Picture] = []
        self._known: dict[frozenset[tuple[object, ...]], int] = {}
        self._of: dict[tuple[int, int], int] = {}
        self._after: dict[tuple[int, Turn], int] = {}

    def of(self, piece: int, quarters: int) -> int:
        """The look of a piece that is turned clockwise by so many quarters."""
        key = piece, quarters % 4
        if key not in self._of:
            shown = self.pieces[piece]
            move = mover(shown.size, key[1], (Fraction(0), Fraction(0)))
            picture = shown.picture(move)
            self._of[key] = self._number(picture)
        return self._of[key]

    def after(self, look: int, turn: Turn) -> int:
        """What becomes of a look when it is mirrored, if so, and then turned."""
        key = look, turn
        if key not in self._after:
            picture = self.pictures[look]
            if turn[1]:
                picture = mirrored(picture)
            for _ in range(turn[0] % 4):
                picture = QUARTER.picture(picture)
            self._after[key] = self._number(at_origin(picture))
        return self._after[key]

    def _number(self, picture: Picture) -> int:
        key = canonical(picture)
        if key not in self._known:
            self._known[key] = len(self.pictures)
            self.pictures.append(picture)
        return self._known[key]


class _BlockTurn(NamedTuple):
    """A turn of the whole block, and to which place each place is carried."""

    turn: Turn
    to: tuple[int, ...]


def _ways(slices: Sequence[Slice]) -> Iterator[_BlockTurn | None]:
    """The turns and mirror images of a block that carry its places onto places."""
    number = {(s.column, s.row): i for i, s in enumerate(slices)}
    columns, rows = (max(each) for each in zip(*number, strict=True))
    for mirror in (False, True):
        for quarters in range(4):
            to = []
            for (column, row), i in number.items():
                x, y, wide, high = (columns - column if mirror else column), row, columns, rows
                for _ in range(quarters):
                    x, y, wide, high = high - y, x, high, wide
                size = slices[i].size if quarters % 2 == 0 else slices[i].size[::-1]
                place = number.get((x, y))
                if place is None or slices[place].size != size:
                    break
                to.append(place)
            yield _BlockTurn((quarters, mirror), tuple(to)) if len(to) == len(slices) else None


def _image(pattern: Pattern, way: _BlockTurn, looks: PieceLooks) -> Pattern:
    image = [0] * len(pattern)
    for look, place in zip(pattern, way.to, strict=True):
        image[place] = looks.after(look, way.turn)
    return tuple(image)


class _NewSeams:
    """Over what length figures go on at the new seams, worked out once for each two looks that meet
    there."""

    def __init__(self, slices: Sequence[Slice], looks: PieceLooks) -> None:
        self._looks = looks
        number = {(s.column, s.row): i for i, s in enumerate(slices)}
        self._met = [
            (i, number[s.column + right, s.row + below], axis, s.size[axis])
            for i, s in enumerate(slices)
            for axis, (right, below) in enumerate(((1, 0), (0, 1)))
            if (s.column + right, s.row + below) in number
        ]
        self._known: dict[tuple[int, int, int], Exact] = {}

    def goes_on(self, pattern: Pattern) -> Exact:
        """Over what length of the new seams the same fabric lies on both sides."""
        total: Exact = Fraction(0)
        for one, other, axis, at in self._met:
            key = pattern[one], pattern[other], axis
            if key not in self._known:
                before = beside(self._looks.pictures[key[0]], axis, at, True)
                behind = beside(self._looks.pictures[key[1]], axis, Fraction(0), False)
                self._known[key] = alike(before, behind)
            total = total + self._known[key]
        return total


def picture_of(
    pieces: Sequence[Drawn], laid: Sequence[Laid], places: Sequence[tuple[Exact, Exact]]
) -> Picture:
    """The picture of pieces laid in places."""
    return tuple(
        patch
        for piece, place in zip(laid, places, strict=True)
        for shown in [pieces[piece.piece]]
        for patch in shown.picture(mover(shown.size, piece.quarters, place))
    )


def rings(slices: Sequence[Slice]) -> tuple[tuple[int, ...], ...]:
    """The slices by the ring they lie in, in reading order: places that quarter turns of the block
    carry onto one another, or half turns where a quarter turn does not fit."""
    number = {(s.column, s.row): i for i, s in enumerate(slices)}
    columns, rows = (max(each) for each in zip(*number, strict=True))
    square = all(
        slices[number[rows - row, column]].size[::-1] == slices[i].size
        for (column, row), i in number.items()
        if (rows - row, column) in number
    )
    by_quarters = square and columns == rows
    by_first: dict[int, tuple[int, ...]] = {}
    for place in number:
        x, y = place
        ring = []
        for _ in range(4):
            ring.append(number[x, y])
            x, y = (rows - y, x) if by_quarters else (columns - x, rows - y)
        by_first.setdefault(min(ring), tuple(dict.fromkeys(ring)))
    return tuple(by_first.values())


def _ring_changes(
    slices: Sequence[Slice], sets: Sequence[tuple[int, ...]]
) -> Iterator[tuple[Laid, ...]]:
    """Of a block on point, whose pieces are no rectangles: the pieces of each ring in every order,
    each turned as its place is; the piece in the middle turned on the spot."""
    ways: list[list[tuple[Laid, ...]]] = []
    for ring in sets:
        if len(ring) == 1:
            turns = [Laid(ring[0], quarters) for quarters in range(4)]
            ways.append([(each,) for each in turns if fills(each, slices[ring[0]], slices)])
            continue
        step = 4 // len(ring)
        ways.append(
            [
                tuple(Laid(ring[at], (k - at) * step % 4) for k, at in enumerate(order))
                for order in permutations(range(len(ring)))
            ]
        )
    for chosen in islice(product(*ways), MOST_ON_POINT):
        laid = [Laid(i) for i in range(len(slices))]
        for ring, pieces in zip(sets, chosen, strict=True):
            for place, piece in zip(ring, pieces, strict=True):
                laid[place] = piece
        if all(fills(piece, slices[i], slices) for i, piece in enumerate(laid)):
            yield tuple(laid)


def ring_turns(slices: Sequence[Slice]) -> Iterator[tuple[Laid, ...]]:
    """Every choice of turns, one for each ring, in which the pieces fit their places."""
    sets = rings(slices)
    if slices[0].shape:
        yield from _ring_changes(slices, sets)
        return
    ways = [
        (0, 1, 2, 3) if all(s[0] == s[1] for s in (slices[i].size for i in ring)) else (0, 2)
        for ring in sets
    ]
    for number, turns in enumerate(product(*ways)):
        if number >= max(16, MOST_LAID // len(slices)):
            return
        laid = [Laid(i) for i in range(len(slices))]
        for ring, quarters in zip(sets, turns, strict=True):
            for i in ring:
                laid[i] = Laid(i, quarters)
        yield tuple(laid)
