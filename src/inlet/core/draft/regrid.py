"""New bands for a drawn block: proportions changed, bands put in or taken out.

An ``axis`` is 0 for the bands across, which x counts, and 1 for the bands down, which y counts.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from inlet.core.draft.bands import TypedBands
from inlet.core.draft.edit import is_drawn, one_fabric_a_patch
from inlet.core.draft.parting import PartingCut
from inlet.core.draft.snapping import grid_lines
from inlet.core.geometry import Curve, Point, arc_fault, short_point
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Block, Pair, Seam, pins_moved, replace, seam_along, total


class Regridded(NamedTuple):
    """The block on its new bands, and how many seams did not fit them and are left out."""

    block: Block
    left_out: int


def set_bands(block: Block, columns: tuple[Exact, ...], rows: tuple[Exact, ...]) -> Regridded:
    """``block`` on new bands. As many bands as before: each keeps what is drawn in it. Bands added
    or taken away at the end: see ``insert_band`` and ``remove_band``."""
    lost = 0
    for axis, wanted in enumerate((columns, rows)):
        while (now := len(bands_of(block, axis))) != len(wanted):
            block, more = (
                _shrunk(block, axis, now - 1)
                if now > len(wanted)
                else _grown(block, axis, now, wanted[now])
            )
            lost += more
    return _in_one_fabric(_stretched(block, columns, rows, lost))


def set_typed(block: Block, axis: int, bands: TypedBands) -> Regridded:
    """``block`` with the bands of an axis as typed. Sizes make the finished size; a count or
    proportions divide the size there is."""
    columns, rows = block.columns, block.rows
    regridded = (
        set_bands(block, columns, bands.proportions)
        if axis
        else set_bands(block, bands.proportions, rows)
    )
    finished = list(block.finished)
    finished[axis] = block.finished[axis] if bands.size is None else bands.size
    sized = replace(regridded.block, finished=(finished[0], finished[1]))
    return regridded._replace(block=sized)


def move_line(block: Block, axis: int, index: int, at: Exact) -> Regridded:
    """``block`` with the grid line after band ``index`` moved to the finished length ``at``, which
    lies between its neighbours."""
    unit = block.scale[axis]
    bands, lines = list(bands_of(block, axis)), grid_lines(bands_of(block, axis))
    bands[index], bands[index + 1] = at / unit - lines[index], lines[index + 2] - at / unit
    return set_typed(block, axis, TypedBands(tuple(bands)))


def bands_of(block: Block, axis: int) -> tuple[Exact, ...]:
    return block.rows if axis else block.columns


def _with_bands(block: Block, axis: int, bands: tuple[Exact, ...]) -> Block:
    return replace(block, rows=bands) if axis else replace(block, columns=bands)


def _stretched(
    block: Block, columns: tuple[Exact, ...], rows: tuple[Exact, ...], lost: int
) -> Regridded:
    """As many bands, of other proportions: what lies on a line or between lines stays there."""

    def moved(p: Point) -> Point:
        return Point(_carried(block.columns, columns, p.x), _carried(block.rows, rows, p.y))

    after = replace(block, columns=columns, rows=rows)
    if block.curves and not has_square_unit(after):
        k = after.scale[1] / after.scale[0]
        after = replace(after, rows=tuple(row * k for row in rows))
        rows = after.rows
    if (columns, rows) == (block.columns, block.rows):
        return Regridded(block, lost)
    return _moved(block, after, moved, lost)


def has_square_unit(block: Block) -> bool:
    """Is a grid unit as long across as down? Only then is a circle of the grid one of fabric."""
    sx, sy = block.scale
    return sx == sy


def with_square_unit(block: Block) -> Block:
    """The same drawing in grid units as long down as across, ready for curves; unchanged where
    they are, or where it has curves already."""
    if has_square_unit(block) or block.curves:
        return block
    k = block.scale[1] / block.scale[0]
    one: Exact = Fraction(1)
    after = replace(block, rows=tuple(row * k for row in block.rows))
    return one_fabric_a_patch(_moved(block, after, lambda p: p.scaled(one, k)).block)


def _carried(old: tuple[Exact, ...], new: tuple[Exact, ...], x: Exact) -> Exact:
    at: Exact = Fraction(0)
    out: Exact = Fraction(0)
    for before, after in zip(old, new, strict=True):
        if x <= at + before:
            return out + (x - at) * after / before
        at, out = at + before, out + after
    return out


def _moved(before: Block, after: Block, move: Callable[[Point], Point], lost: int = 0) -> Regridded:
    """``after`` with the seams, marks and fabric of ``before`` where ``move`` puts them."""
    seams: list[Seam] = []
    for seam in before.seams:
        curve = _image(seam.curve, move)
        kept = None if curve is None else seam_along(curve)
        if kept is None or not is_drawn(kept):
            lost += 1
        else:
            seams.append(kept)
    block = replace(
        after,
        seams=tuple(seams),
        marks=tuple(_pair(move(Point(*m))) for m in before.marks),
        units=tuple(replace(c, point=_pair(move(Point(*c.point)))) for c in before.units),
        pressing=pins_moved(before.pressing, lambda p: _pair(move(Point(*p)))),
        fabric_at=tuple(replace(f, point=_pair(move(Point(*f.point)))) for f in before.fabric_at),
    )
    return Regridded(block, lost)


def _in_one_fabric(regridded: Regridded) -> Regridded:
    """With one fabric point a patch, looked for once, when all bands are as they will be."""
    return regridded._replace(block=one_fabric_a_patch(regridded.block))


def _pair(p: Point) -> Pair:
    return short_point(p)


def _image(curve: Curve, move: Callable[[Point], Point]) -> Curve | None:
    """The seam with its points moved; None where nothing or no circle is left of it."""
    start, end = move(curve.start), move(curve.end)
    if curve.centre is None:
        return Curve(start, end) if start != end else None
    centre = move(curve.centre)
    return Curve(start, end, centre) if arc_fault(start, end, centre) is None else None


# --- bands put in and taken out ---------------------------------------------------------------


def insert_band(block: Block, axis: int, index: int, width: Exact) -> Regridded:
    """``block`` with a band of ``width`` before band ``index`` (after the last for their number),
    its other bands as they were; the finished size grows with it.

    The drawing is cut along that line and slid apart. A seam square to the cut goes on across the
    gap; where anything else ends at a side of it, that side becomes a seam.
    """
    return _in_one_fabric(_grown(block, axis, index, width))


def _grown(block: Block, axis: int, index: int, width: Exact) -> Regridded:
    bands = bands_of(block, axis)
    at = grid_lines(bands)[index]
    grown = _resized(block, axis, (*bands[:index], width, *bands[index:]))
    return Regridded(*PartingCut(axis, (at, at), (at, at + width)).apply(block, grown))


def remove_band(block: Block, axis: int, index: int) -> Regridded:
    """``block`` without its band ``index`` and what was drawn in it, slid together; the finished
    size shrinks with it. A block keeps at least one band."""
    if len(bands_of(block, axis)) == 1:
        return Regridded(block, 0)
    return _in_one_fabric(_shrunk(block, axis, index))


def _shrunk(block: Block, axis: int, index: int) -> Regridded:
    bands = bands_of(block, axis)
    lines = grid_lines(bands)
    shrunk = _resized(block, axis, bands[:index] + bands[index + 1 :])
    span = (lines[index], lines[index + 1])
    return Regridded(*PartingCut(axis, span, (span[0], span[0])).apply(block, shrunk))


def _resized(block: Block, axis: int, bands: tuple[Exact, ...]) -> Block:
    unit = block.scale[axis]
    finished = list(block.finished)
    finished[axis] = unit * total(bands)
    return replace(_with_bands(block, axis, bands), finished=(finished[0], finished[1]))
