"""Every regular way to set a block: the turns and mirrors of a repeat of two by two, each once.

A way to lie that looks like another, as the block looks the same turned, is one look. A repeat
gives each of its four places a look; with a partner, every other place a look of that. Repeats that
are the same quilt, begun at another block, turned or seen in a mirror, are one. Those that most of
these leave as they are come first, of these those whose figures go on across most of the seams
between blocks.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import product
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import Draft, fits, patch_polygons, then, turner
from inlet.core.geometry import Picture, Point, Polygon, Turn, at_origin, canonical
from inlet.core.numbers import Exact, Fraction
from inlet.core.remake.sides import alike, beside

CELLS = ((0, 0), (1, 0), (0, 1), (1, 1))
"""The places of a repeat by column and row, in reading order."""


class Repeat(NamedTuple):
    """How the four blocks of a repeat lie, in reading order, the second and the third of them the
    partner's where there is one; how many of the ways to look at a
    quilt of it show it unchanged; and over what length of the seams between its blocks, each of the
    eight counted once, the fabric is the same on both sides."""

    turns: tuple[Turn, Turn, Turn, Turn]
    symmetry: int
    goes_on: Exact


class Looks(NamedTuple):
    """The ways blocks can lie: for each look the first turn that has it, what each turn makes of
    each look, each look's picture, and the looks that each place of a repeat may have."""

    turns: tuple[Turn, ...]
    after: dict[Turn, tuple[int, ...]]
    pictures: tuple[Picture, ...]
    places: tuple[range, ...]


def looks_of(start: Draft, partner: Draft | None = None) -> Looks:
    """The different looks of a block, and of its partner, under the turns that fit their shape."""
    alone = _looks_of(start)
    if partner is None:
        return alone
    other, first = _looks_of(partner), len(alone.turns)
    after = {
        turn: (*looks, *(first + look for look in other.after[turn]))
        for turn, looks in alone.after.items()
    }
    own, its = range(first), range(first, first + len(other.turns))
    return Looks(
        alone.turns + other.turns, after, alone.pictures + other.pictures, (own, its, its, own)
    )


def _looks_of(start: Draft) -> Looks:
    block = start.block
    every: list[Turn] = [
        (quarters, mirror)
        for mirror in (False, True)
        for quarters in range(4)
        if fits((quarters, mirror), block)
    ]
    drawn = tuple(zip(patch_polygons(start), (p.fabric for p in start.patches), strict=True))
    look_of: dict[Turn, int] = {}
    turns: list[Turn] = []
    pictures: list[Picture] = []
    known: dict[frozenset[tuple[object, ...]], int] = {}
    for turn in every:
        picture = _laid(drawn, turn, block.finished)
        key = canonical(at_origin(picture))
        if key not in known:
            known[key] = len(turns)
            turns.append(turn)
            pictures.append(picture)
        look_of[turn] = known[key]
    after = {turn: tuple(look_of[then(first, turn)] for first in turns) for turn in every}
    return Looks(tuple(turns), after, tuple(pictures), (range(len(turns)),) * 4)


def _laid(picture: Picture, turn: Turn, size: tuple[Exact, Exact]) -> Picture:
    """A picture as it lies turned, outlines still clockwise."""
    move = turner(turn, *size)
    laid = []
    for outline, fabric in picture:
        moved = tuple(map(move, outline))
        laid.append((moved[::-1] if turn[1] else moved, fabric))
    return tuple(laid)


Pattern = tuple[int, ...]


def images(pattern: Pattern, looks: Looks) -> Iterator[Pattern]:
    """The same quilt begun at each block of the repeat, turned and mirrored in each way."""
    for turn, after in looks.after.items():
        for across, down in CELLS:
            image = [0, 0, 0, 0]
            for look, (column, row) in zip(pattern, CELLS, strict=True):
                x, y = _moved(turn, column, row)
                image[2 * ((y + down) % 2) + (x + across) % 2] = after[look]
            yield tuple(image)


def repeats(start: Draft, partner: Draft | None = None) -> tuple[Repeat, ...]:
    """Every repeat of two by two, best first; with a partner in every other place, of the same
    size."""
    looks = looks_of(start, partner)
    meets = _meetings(looks, start.block.finished)
    seen: set[Pattern] = set()
    listed = []
    for pattern in product(*looks.places):
        if pattern in seen:
            continue
        check()
        same = list(images(pattern, looks))
        seen.update(same)
        a, b, c, d = (looks.turns[look] for look in pattern)
        listed.append(Repeat((a, b, c, d), same.count(pattern), _goes_on(pattern, meets)))
    return tuple(sorted(listed, key=lambda each: (-each.symmetry, -float(each.goes_on))))


def picture_of_repeat(start: Draft, repeat: Repeat, partner: Draft | None = None) -> Picture:
    """The four blocks of a repeat as they lie."""
    wide, high = start.block.finished
    blocks = (start, partner or start, partner or start, start)
    picture: list[tuple[Polygon, str | None]] = []
    for block, turn, (column, row) in zip(blocks, repeat.turns, CELLS, strict=True):
        drawn = tuple(zip(patch_polygons(block), (p.fabric for p in block.patches), strict=True))
        corner = Point(wide * column, high * row)
        picture += [
            (tuple(p.plus(corner) for p in outline), fabric)
            for outline, fabric in _laid(drawn, turn, block.block.finished)
        ]
    return tuple(picture)


def _moved(turn: Turn, column: int, row: int) -> tuple[int, int]:
    """Where a place of a repeat goes when that is mirrored and turned about its middle."""
    quarters, mirror = turn
    x, y = (1 - column if mirror else column), row
    for _ in range(quarters % 4):
        x, y = 1 - y, x
    return x, y


def _meetings(looks: Looks, size: tuple[Exact, Exact]) -> tuple[dict[tuple[int, int], Exact], ...]:
    """By two looks: over what length a block and the one right of it, or below it, are alike."""
    zero = Fraction(0)
    meetings = []
    for axis in (0, 1):
        ends = [list(beside(p, axis, size[axis], True)) for p in looks.pictures]
        begins = [list(beside(p, axis, zero, False)) for p in looks.pictures]
        meetings.append(
            {
                (i, j): alike(end, begin)
                for i, end in enumerate(ends)
                for j, begin in enumerate(begins)
            }
        )
    return tuple(meetings)


def _goes_on(pattern: Pattern, meetings: Sequence[dict[tuple[int, int], Exact]]) -> Exact:
    total: Exact = Fraction(0)
    for look, (column, row) in zip(pattern, CELLS, strict=True):
        total = total + meetings[0][look, pattern[2 * row + 1 - column]]
        total = total + meetings[1][look, pattern[2 * (1 - row) + column]]
    return total
