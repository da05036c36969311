"""Places of a quilt turned, mirrored, swapped, given another block or colourway."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from inlet.core.project import Motif, Quilt, QuiltPlace, quarter, replace
from inlet.core.setting.places import Placed, is_too_large, placed, row_lengths

Spot = tuple[int, int]
"""A place by its column and row."""


def place_at(quilt: Quilt, spot: Spot, square: bool = True) -> Placed | None:
    """What lies in a place; None where there is none."""
    places = (p for p in placed(quilt, square) if (p.column, p.row) == spot)
    return next(places, None)


def turned_at(quilt: Quilt, spots: Iterable[Spot], quarters: int, square: bool = True) -> Quilt:
    """The blocks of some places turned on by so many quarters, clockwise."""
    return _changed(quilt, spots, square, lambda p: p._replace(turn=(p.turn + quarters) % 4))


def mirrored_at(quilt: Quilt, spots: Iterable[Spot], square: bool = True) -> Quilt:
    """The blocks of some places mirrored left to right as they lie: a mirror after the turn, which
    is the mirror first and the turn the other way."""
    return _changed(
        quilt, spots, square, lambda p: p._replace(mirror=not p.mirror, turn=-p.turn % 4)
    )


def filled_at(
    quilt: Quilt, spots: Iterable[Spot], block: str, fabric: str = "", square: bool = True
) -> Quilt:
    """Another block, or a plain square of a fabric, in some places."""
    return _changed(quilt, spots, square, lambda p: p._replace(block=block, fabric=fabric))


def coloured_at(quilt: Quilt, spots: Iterable[Spot], colourway: str, square: bool = True) -> Quilt:
    """The blocks of some places in a colourway, which pins them; in none, as they are drawn."""
    return _changed(quilt, spots, square, lambda p: p._replace(colourway=colourway))


def swapped(quilt: Quilt, one: Spot, other: Spot, square: bool = True) -> Quilt:
    """What lies in two places changed over, each as it is turned."""
    at = {(p.column, p.row): p for p in placed(quilt, square)}
    if one not in at or other not in at:
        return quilt
    new = {
        one: at[other]._replace(column=one[0], row=one[1]),
        other: at[one]._replace(column=other[0], row=other[1]),
    }
    return _with_places(quilt, new, square)


def as_usual(quilt: Quilt, spots: Iterable[Spot]) -> Quilt:
    """Places as the pattern has them."""
    gone = set(spots)
    return replace(quilt, places=tuple(p for p in quilt.places if (p.column, p.row) not in gone))


def _changed(
    quilt: Quilt, spots: Iterable[Spot], square: bool, change: Callable[[Placed], Placed]
) -> Quilt:
    wanted = set(spots)
    new = {
        (p.column, p.row): change(p) for p in placed(quilt, square) if (p.column, p.row) in wanted
    }
    return _with_places(quilt, new, square)


def _with_places(quilt: Quilt, new: dict[Spot, Placed], square: bool) -> Quilt:
    """The quilt with some places so; what is as the pattern has it is not written down."""
    usual = {(p.column, p.row): p for p in placed(replace(quilt, places=()), square)}
    kept = [p for p in quilt.places if (p.column, p.row) not in new]
    for spot, place in new.items():
        was = usual[spot]
        if place._replace(pinned=False) == was:
            continue
        kept.append(
            QuiltPlace(
                column=spot[0],
                row=spot[1],
                block=place.block if place.block != was.block else "",
                turn=quarter(place.turn) if place.turn != was.turn else None,
                mirror=place.mirror if place.mirror != was.mirror else None,
                fabric=place.fabric if place.fabric != was.fabric and not place.block else "",
                colourway=place.colourway,
            )
        )
    kept.sort(key=lambda p: (p.row, p.column))
    return replace(quilt, places=tuple(kept))


def in_size(quilt: Quilt, columns: int, rows: int) -> Quilt:
    """The quilt with another number of blocks; places that are not on it any more are let go.
    Raises ``ValueError`` where it would be too large."""
    new_quilt = replace(quilt, columns=columns, rows=rows, row_lengths=quilt.row_lengths[:rows])
    if is_too_large(new_quilt):
        raise ValueError("up to 10000 places are laid out")
    lengths = row_lengths(new_quilt)
    kept = tuple(p for p in new_quilt.places if p.row < len(lengths) and p.column < lengths[p.row])
    return replace(new_quilt, places=kept)


def in_row_length(quilt: Quilt, row: int, length: int) -> Quilt:
    """A straight quilt with so many blocks in one row. Raises ``ValueError`` where there is no such
    row, or it would be too large."""
    lengths = row_lengths(quilt)
    if quilt.on_point or not 0 <= row < len(lengths):
        raise ValueError("only rows of a straight quilt have a length of their own")
    lengths[row] = length
    columns = quilt.columns or 0
    while lengths and lengths[-1] == columns:
        lengths.pop()  # what is as all the others is not written down
    new_quilt = replace(quilt, row_lengths=tuple(lengths))
    if is_too_large(new_quilt):
        raise ValueError("up to 10000 places are laid out")
    return replace(
        new_quilt, places=tuple(p for p in new_quilt.places if p.row != row or p.column < length)
    )


def motif_of(
    quilt: Quilt, spots: Iterable[Spot], name: str, motif_id: str, square: bool = True
) -> Quilt | None:
    """Places that fill a rectangle taken together as a motif, each block as it lies, and the quilt
    set of it; None where they do not fill one, or hold motifs themselves."""
    own = set(spots)
    columns, rows = ({spot[i] for spot in own} for i in (0, 1))
    wide, high = (max(n) - min(n) + 1 if n else 0 for n in (columns, rows))
    if quilt.on_point or len(own) < 2 or len(own) != wide * high:
        return None
    places = [p for p in placed(quilt, square) if (p.column, p.row) in own]
    if len(places) != len(own) or any(quilt.motif(p.block) is not None for p in places):
        return None
    left, top = min(columns), min(rows)
    usual = places[0].block
    members = tuple(
        QuiltPlace(
            column=p.column - left,
            row=p.row - top,
            block=p.block if p.block != usual else "",
            turn=quarter(p.turn) if p.turn else None,
            mirror=True if p.mirror else None,
            fabric=p.fabric,
            colourway=p.colourway,
        )
        for p in places
    )
    plain = tuple(m for m in members if m != QuiltPlace(column=m.column, row=m.row))
    motif = Motif(id=motif_id, name=name, columns=wide, rows=high, block=usual, places=plain)
    return replace(
        quilt,
        motifs=(*quilt.motifs, motif),
        block=motif_id,
        columns=max(1, (quilt.columns or 0) // wide),
        rows=max(1, (quilt.rows or 0) // high),
        turning="",
        alternate=None,
        row_lengths=(),
        places=(),
    )
