"""Which block lies in each place of a quilt, and how: patterns first, then single places.

On point the lines of blocks are counted from the top: the even ones have ``columns`` blocks, those
between one fewer. There a block lies an eighth of a turn clockwise, its upper left corner on top;
(i, j) counts diagonal rows from the upper left and places in them from the upper right.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.memo import Latest
from inlet.core.project import Alternate, Motif, Project, Quilt, QuiltPlace

MOST_LAID_OUT = 10_000
"""Places of a quilt that are laid out; a quilt of more is told to be too large."""
MOST_BLOCKS = 20_000
"""Blocks of a quilt that is laid out, those of its motifs counted one by one."""


class Placed(NamedTuple):
    """What lies in a place: a ``block`` or motif, or, where that is empty, a plain square of
    ``fabric``; mirrored, if so, and then turned by so many quarters clockwise; in its
    ``colourway``. ``pinned``: the place itself says so."""

    column: int
    row: int
    block: str
    fabric: str = ""
    turn: int = 0
    mirror: bool = False
    colourway: str = ""
    pinned: bool = False


def row_lengths(quilt: Quilt) -> list[int]:
    """How many blocks each row has, from the top; on point each line of blocks."""
    columns, rows = quilt.columns or 0, quilt.rows or 0
    if not columns or not rows:
        return []
    if quilt.on_point:
        return [columns - line % 2 for line in range(2 * rows - 1)]
    lengths = list(quilt.row_lengths[:rows])
    return lengths + [columns] * (rows - len(lengths))


def is_too_large(quilt: Quilt) -> bool:
    return sum(row_lengths(quilt)) > MOST_LAID_OUT


def most_blocks(quilt: Quilt) -> int:
    """No fewer blocks than a quilt that is laid out has, counted without laying it out: each place
    with the blocks of the largest motif that may lie there; 0 where it is too large for that."""
    if is_too_large(quilt):
        return 0
    sizes = {motif.id: motif.columns * motif.rows for motif in quilt.motifs}
    usual = max(sizes.get(name, 1) for name in _usual_names(quilt))
    more = sum(max(0, sizes.get(place.block, 1) - usual) for place in quilt.places)
    return sum(row_lengths(quilt)) * usual + more


def _things_laid(quilt: Quilt) -> Counter[str]:
    """How often a quilt has each block or motif, nothing for plain squares."""
    if quilt.alternate is not None or is_too_large(quilt):
        return Counter(place.block for place in placed(quilt))
    lengths = row_lengths(quilt)
    things = Counter({quilt.block: sum(lengths)})
    for (column, row), place in {(p.column, p.row): p for p in quilt.places}.items():
        if row < len(lengths) and column < lengths[row] and (place.block or place.fabric):
            things[quilt.block] -= 1
            things["" if place.fabric else place.block] += 1
    return things


def _usual_names(quilt: Quilt) -> tuple[str, str]:
    """What lies in places that do not say themselves."""
    return quilt.block, quilt.alternate.block if quilt.alternate is not None else ""


def placed(quilt: Quilt, square: bool = True) -> tuple[Placed, ...]:
    """Every place in its order, row by row; nothing of a quilt that is too large. Blocks that are
    not ``square`` fit their place again after half a turn, not after a quarter."""
    if is_too_large(quilt):
        return ()
    lengths = row_lengths(quilt)
    quilt_places = {(place.column, place.row): place for place in quilt.places}
    step = 1 if square else 2
    places = []
    for row, length in enumerate(lengths):
        check()
        for column in range(length):
            across, down = diagonal(column, row) if quilt.on_point else (column, row)
            ring = _ring(column, row, length, len(lengths), quilt.on_point)
            block, fabric = quilt.block, ""
            if quilt.alternate is not None and _is_other(quilt.alternate, across, down, row, ring):
                block, fabric = quilt.alternate.block, quilt.alternate.fabric
                fabric = "" if block else fabric
            turn, mirror = turned_by(quilt.turning, across, down, row, ring)
            places.append(
                with_place(
                    Placed(column, row, block, fabric, turn * step % 4, mirror),
                    quilt_places.get((column, row)),
                )
            )
    return tuple(places)


def members(motif: Motif, square: bool = True) -> tuple[Placed, ...]:
    """The blocks of a motif, row by row."""
    quilt_places = {(place.column, place.row): place for place in motif.places}
    step = 1 if square else 2
    places = []
    for row in range(motif.rows):
        check()
        for column in range(motif.columns):
            ring = min(column, row, motif.columns - 1 - column, motif.rows - 1 - row)
            turn, mirror = turned_by(motif.turning, column, row, row, ring)
            usual = Placed(column, row, motif.block, "", turn * step % 4, mirror)
            places.append(with_place(usual, quilt_places.get((column, row))))
    return tuple(places)


def diagonal(column: int, line: int) -> tuple[int, int]:
    """(i, j) of a place on point. Its middle is X = 2·column + 1 + line % 2 half diagonals from the
    left and Y = line + 1 from the top; i runs down to the right, so i = (Y + X)/2, j = (Y - X)/2,
    counted here from the first block of the first line."""
    x, y = 2 * column + 1 + line % 2, line + 1
    return (x + y) // 2 - 1, (y - x) // 2


def with_place(usual: Placed, place: QuiltPlace | None) -> Placed:
    """A place as the pattern has it, with what it says itself."""
    if place is None:
        return usual
    block, fabric = usual.block, usual.fabric
    if place.fabric:
        block, fabric = "", place.fabric
    elif place.block:
        block, fabric = place.block, ""
    return usual._replace(
        block=block,
        fabric=fabric,
        turn=usual.turn if place.turn is None else place.turn // 90 % 4,
        mirror=usual.mirror if place.mirror is None else place.mirror,
        colourway=place.colourway,
        pinned=True,
    )


def turned_by(turning: str, across: int, down: int, row: int, ring: int) -> tuple[int, bool]:
    """Quarter turns clockwise, and whether it is mirrored, as a pattern has a place."""
    if turning == "quarter-turns":
        return (across + down) % 2, False
    if turning == "round":
        return ((0, 1), (3, 2))[down % 2][across % 2], False
    if turning == "mirror-pairs":
        return 0, across % 2 == 1
    if turning == "by-row":
        return row % 2 * 2, False
    if turning == "by-ring":
        return ring % 2, False
    return 0, False


def _ring(column: int, row: int, length: int, rows: int, on_point: bool) -> int:
    """How many rings of blocks lie outside a place."""
    aside = min(column, length - 1 - column)
    if on_point:  # a line between begins half a block further in
        aside = 2 * aside + row % 2
    return min(aside, row, rows - 1 - row)


def _is_other(alternate: Alternate, across: int, down: int, row: int, ring: int) -> bool:
    which = {
        "checker": across + down, "rows": row, "columns": across, "rings": ring
    }.get(alternate.by, 0)  # fmt: skip
    return which % 2 == 1


def blocks_of(quilt: Quilt, place: Placed) -> Iterator[Placed]:
    """What a place holds: itself, or the blocks and plain squares of its motif, as they lie in
    that."""
    motif = quilt.motif(place.block)
    if motif is None:
        yield place
        return
    for member in members(motif):
        yield member._replace(colourway=member.colourway or place.colourway)


def side_by_side(quilt: Quilt) -> dict[tuple[int, int], Placed]:
    """Every single block by its place in a grid of blocks, edge to edge: (column, row), on point
    (place, diagonal row) counted so that the block's right side lies at the next column. Motifs are
    taken apart where all are alike in size, else left out."""
    pairs: dict[tuple[int, int], Placed] = {}
    places = placed(quilt)
    motifs = [quilt.motif(place.block) for place in places]
    sizes = {(m.columns, m.rows) for m in motifs if m is not None} or {(1, 1)}
    whole = len(sizes) == 1 and all(m is not None for m in motifs)
    across, down = sizes.pop() if whole else (1, 1)
    for place, motif in zip(places, motifs, strict=True):
        x, y = place.column, place.row
        if quilt.on_point:
            x, y = diagonal(x, y)
        if motif is None:
            pairs[x, y] = place
            continue
        if not whole or (place.turn % 2 and across != down):
            continue
        for member in members(motif):
            column, row = member.column, member.row
            if place.mirror:
                column = across - 1 - column
            for _ in range(place.turn):
                column, row = down - 1 - row, column
            turn = place.turn + (-member.turn if place.mirror else member.turn)
            mirror = member.mirror != place.mirror
            pairs[x * across + column, y * down + row] = member._replace(
                turn=turn % 4, mirror=mirror
            )
    return pairs


_COUNTS: Latest[Quilt, Mapping[str, int]] = Latest(4)


def block_counts(quilt: Quilt) -> Mapping[str, int]:
    """How often a quilt has each block, by its id, motifs taken apart. The last ones are known."""
    return _COUNTS.of(quilt, _block_counts)


def _block_counts(quilt: Quilt) -> Mapping[str, int]:
    counts: Counter[str] = Counter()
    for name, number in _things_laid(quilt).items():
        motif = quilt.motif(name)
        for block in [name] if motif is None else [member.block for member in members(motif)]:
            counts[block] += number
    return {name: number for name, number in counts.items() if name and number > 0}


def in_quilt(project: Project, block_id: str) -> int:
    """How often the project's quilt, as far as it is laid out, has a block; 0 without a quilt."""
    return block_counts(project.quilt).get(block_id, 0) if project.quilt else 0
