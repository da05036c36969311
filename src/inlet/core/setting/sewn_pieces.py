"""How large the pieces of a top come out: blocks as they are cut or measured, all else as it is cut
to meet them."""

from __future__ import annotations

from inlet.core.geometry import bounds
from inlet.core.numbers import Exact
from inlet.core.project import Measure, Pair
from inlet.core.setting.block_sizes import as_lying
from inlet.core.setting.cuts import extent, straight_cut, turned_to_rows
from inlet.core.setting.pieces import Row, TopPiece
from inlet.core.setting.top import Top
from inlet.core.setting.triangles import TRIANGLES


def sewn_size(piece: TopPiece, top: Top, on_point: bool, measure: Measure) -> Pair | None:
    """What a block or a straight piece of the rows shows: (x, y), on point (along u, along v).
    None of what is cut off at a slant, and trimmed with the quilt's edge."""
    if piece.lying is not None:
        placed = piece.lying.placed
        return as_lying(top.sizes[placed.block].in_use, placed)
    if piece.kind in TRIANGLES or extent(piece, on_point)[1]:
        return None
    width, length = (side - 2 * measure.seam for side in straight_cut(piece, on_point, measure))
    left, head, right, foot = bounds(turned_to_rows(piece.outline, on_point))
    return (length, width) if right - left > foot - head else (width, length)


def row_length(row: Row, top: Top, on_point: bool, measure: Measure) -> Exact | None:
    """How long a row is, raw edge to raw edge, added up from its pieces; on point that of its
    blocks and what lies between them, without the triangles at its ends. None of a row of one
    piece, or without blocks on point."""
    if len(row.cells) < 2:
        return None
    mains = [next((p for p in cell if p.lying is not None), cell[0]) for cell in row.cells]
    if on_point:
        inner = [i for i, piece in enumerate(mains) if piece.kind in ("block", "plain")]
        mains = mains[inner[0] : inner[-1] + 1] if inner else []
    sizes = [sewn_size(piece, top, on_point, measure) for piece in mains]
    lengths = [size[int(on_point)] for size in sizes if size is not None]
    return sum(lengths, 2 * measure.seam) if lengths else None
