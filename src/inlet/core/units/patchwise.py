"""Sewing a unit patch by patch, in the order of its tree."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Polygon, flip, from_first_corner, line_through, offset
from inlet.core.numbers import Exact
from inlet.core.units.breakdown import Part
from inlet.core.units.pieces import Piece, curved_piece, piece_for
from inlet.core.units.sheets import Sheet, opened
from inlet.core.units.units import Unit
from inlet.core.units.way import Drawn, Move, Way, Work, cut_sheet, in_a_row


def patch_by_patch(unit: Unit, seam: Exact) -> Way:
    """Each patch cut with its allowance, sewn in the order of the unit's tree."""
    pieces: dict[tuple[object, ...], Piece] = {}
    triangles = odd = False
    for (outline, fabric), shape in zip(unit.picture, unit.shapes, strict=True):
        piece = (
            curved_piece(shape, fabric, seam) if shape.arcs else piece_for(outline, fabric, seam)
        )
        triangles |= piece.crosscut != "none"
        odd |= piece.shape == "template"
        key = (piece.fabric, piece.shape, piece.exact, piece.crosscut, _shape_key(piece))
        known = pieces.get(key)
        pieces[key] = known._replace(quantity=known.quantity + 1) if known else piece
    name = "template" if odd else "single-triangles" if triangles else "plain"
    found = tuple(pieces.values())

    def work() -> Work:
        return tuple(_patch_moves(unit, found, seam)), ()

    return Way(name, 1, found, triangles, work)


def _shape_key(piece: Piece) -> object:
    """Templates of one box may still be different shapes, or one shape and its mirror image."""
    if not piece.outline:
        return ()
    first = from_first_corner(piece.outline)
    return tuple(p.minus(first[0]) for p in first)


def _patch_moves(unit: Unit, pieces: Sequence[Piece], seam: Exact) -> list[Move]:
    moves = [Move("cut", "Cut {all}.", in_a_row([cut_sheet(p) for p in pieces]))]
    for i, piece in enumerate(pieces):
        if piece.crosscut in ("once", "twice"):
            sheet = cut_sheet(piece)
            a, b, c, d = sheet[0][0]
            lines = [Drawn("cut", a, c)]
            if piece.crosscut == "twice":
                lines.append(Drawn("cut", b, d))
            text = (
                f"Cut {{{i}}} {piece.crosscut} on the diagonal: "
                f"{2 if piece.crosscut == 'once' else 4} triangles."
            )
            moves.append(Move("crosscut", text, sheet, (), tuple(lines)))
    outlines = dict(zip(sorted(unit.part.faces), unit.picture, strict=True))
    _joins(unit.part, outlines, seam, moves)
    return moves


def _joins(
    part: Part,
    patches: dict[int, tuple[Polygon, str | None]],
    seam: Exact,
    moves: list[Move],
) -> Sheet:
    """The raw sheet of a part sewn from its parts, a move a seam added to ``moves``."""
    if not part.parts:
        outline, fabric = patches[part.face]
        return ((offset(outline, seam), fabric),)
    sheets = [_joins(p, patches, seam, moves) for p in part.parts]
    so_far = sheets[0]
    for before, after, sheet in zip(part.parts, part.parts[1:], sheets[1:], strict=False):
        so_far = _join_sheets(so_far, sheet, before, after, part, moves)
    return so_far


def _join_sheets(
    lower: Sheet,
    upper: Sheet,
    before: Part,
    after: Part,
    whole: Part,
    moves: list[Move],
) -> Sheet:
    """Two neighbouring parts of ``whole`` sewn where they lie: a raw sheet, and moves for it."""
    start, end = _shared_side(before, whole)
    line = line_through(start, end)
    # Opened cloth is kept on the growing side, which must be where ``before`` lies.
    if any(line.side(p) > 0 for p in after.outline):
        line = line.opposite()
    laid = tuple((flip(outline, line), fabric) for outline, fabric in upper)
    result = opened(lower, laid, line)
    sew = "Right sides together, sew {seam} from the edge."
    moves.append(Move("sew", sew, lower, laid, (Drawn("seam", start, end),)))
    moves.append(Move("open", "Open and press.", result))
    return result


def _shared_side(part: Part, whole: Part) -> tuple[Point, Point]:
    """The side along which ``part`` is sewn to the next of ``whole``'s parts: its farthest along
    ``whole.across``."""
    assert whole.across is not None
    across = whole.across
    reach = [across.x * p.x + across.y * p.y for p in part.outline]
    far = max(reach)
    ends = [p for p, r in zip(part.outline, reach, strict=True) if r == far]
    return ends[0], ends[-1]
