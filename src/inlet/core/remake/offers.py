"""Arrangements of slices to look at: each ring of pieces turned alike, each picture once.

Slices that a quarter turn of the block (a half turn where it is not square) carries onto one
another lie in a ring. All pieces of a ring are turned alike, each on the spot; so a block that
looks the same turned still does. Pictures that are turns of one another are one offer. Those that
look the same under most turns and mirrors come first, of these those whose figures go on across
most of the new seams.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import product
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import Draft
from inlet.core.geometry import (
    Motion,
    Picture,
    at_origin,
    canonical,
    mirrored,
)
from inlet.core.numbers import Exact, Fraction
from inlet.core.remake.set_again import Drawn, Laid, drawn, mover, places_of
from inlet.core.remake.sides import alike, beside
from inlet.core.remake.slices import Slice

MOST_CHOICES = 4096
"""More arrangements are not looked through."""
_QUARTER = Motion(Fraction(0), Fraction(1))


class SliceOffer(NamedTuple):
    """An arrangement with its picture, under how many of the eight turns and mirrors that looks the
    same, and over what length of the new seams the fabric is the same on both sides."""

    laid: tuple[Laid, ...]
    picture: Picture
    symmetry: int
    goes_on: Exact


def offers(start: Draft, slices: Sequence[Slice]) -> tuple[SliceOffer, ...]:
    """The arrangements of a block's slices, best first."""
    places = places_of(slices)
    pieces = [drawn(start, each) for each in slices]
    by_look: dict[frozenset[tuple[object, ...]], SliceOffer] = {}
    for laid in ring_turns(slices):
        check()
        picture = picture_of(pieces, laid, places)
        turns = list(_turned(picture))
        looks = [canonical(at_origin(each)) for each in turns]
        if any(look in by_look for look in looks):
            continue
        mirrors = [canonical(at_origin(each)) for each in _turned(mirrored(picture))]
        symmetry = sum(look == looks[0] for look in (*looks, *mirrors))
        by_look[looks[0]] = SliceOffer(laid, picture, symmetry, goes_on(picture, places))
    return tuple(sorted(by_look.values(), key=lambda each: (-each.symmetry, -float(each.goes_on))))


def _turned(picture: Picture) -> Iterator[Picture]:
    for _ in range(4):
        yield picture
        picture = _QUARTER.picture(picture)


def picture_of(
    pieces: Sequence[Drawn], laid: Sequence[Laid], places: Sequence[tuple[Exact, Exact]]
) -> Picture:
    """The picture of pieces laid in places."""
    picture = []
    for piece, place in zip(laid, places, strict=True):
        shown = pieces[piece.piece]
        move = mover(shown.size, piece.quarters, place)
        picture += [(tuple(map(move, outline)), fabric) for outline, fabric in shown.picture]
    return tuple(picture)


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


def ring_turns(slices: Sequence[Slice]) -> Iterator[tuple[Laid, ...]]:
    """Every choice of turns, one for each ring, in which the pieces fit their places."""
    sets = rings(slices)
    ways = [
        (0, 1, 2, 3) if all(s[0] == s[1] for s in (slices[i].size for i in ring)) else (0, 2)
        for ring in sets
    ]
    for number, turns in enumerate(product(*ways)):
        if number >= MOST_CHOICES:
            return
        laid = [Laid(i) for i in range(len(slices))]
        for ring, quarters in zip(sets, turns, strict=True):
            for i in ring:
                laid[i] = Laid(i, quarters)
        yield tuple(laid)


def goes_on(picture: Picture, places: Sequence[tuple[Exact, Exact]]) -> Exact:
    """Over what length of the new seams the same fabric lies on both sides."""
    total: Exact = Fraction(0)
    for axis in (0, 1):
        for at in sorted({place[axis] for place in places if place[axis] > 0}):
            before, behind = (beside(picture, axis, at, way) for way in (True, False))
            total = total + alike(before, behind)
    return total
