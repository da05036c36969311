"""Rounds from long strips: sewn on long, trimmed level, no length measured."""

from __future__ import annotations

from inlet.core.methods.method import Method, MethodWork, Sizes, counted, no_bias
from inlet.core.methods.patchwise import patch_by_patch, patch_pieces
from inlet.core.numbers import Exact
from inlet.core.table import ZERO, Move, Piece, cut_sheet, in_a_row, piece_for, strip
from inlet.core.units import Unit, rounds_of


def sew_and_trim(unit: Unit, seam: Exact) -> Method | None:
    """Each round's strip w + 2s sewn from a long strip, cut off level with the side it covers: of
    each width and fabric, the lengths covered with 2s each, and another 2s to trim away."""
    usual = patch_by_patch(unit, seam)
    if usual.name != "plain":
        return None
    lengths: dict[tuple[str | None, Exact], Exact] = {}
    centre = _centre_piece(unit, seam)
    for piece in patch_pieces(unit, seam):
        number = piece.quantity - (1 if centre == piece._replace(quantity=1) else 0)
        width, length = piece.exact
        key = piece.fabric, width
        lengths[key] = lengths.get(key, ZERO) + number * (length + 2 * seam)
    pieces = [strip(fabric, width, long) for (fabric, width), long in lengths.items() if long != 0]
    found = counted([*([centre] if centre else []), *pieces])

    def work(sizes: Sizes) -> MethodWork:
        moves = [Move("cut", "Cut {all}.", in_a_row([cut_sheet(p) for p in found]))]
        lay = "lay it on long, right sides together; sew {seam} from the edge."
        level = "Press; trim the strip level with both sides."
        number = 0
        for move in usual.moves[1:]:
            number += move.do == "sew"
            text = f"Strip {number}: {lay}" if move.do == "sew" else level
            moves.append(move._replace(text=text))
        return MethodWork(tuple(moves))

    joined = usual.effort
    effort = joined._replace(apart=joined.seams)  # each strip is cut level once it is on
    return Method("sew-and-trim", 1, found, False, work, known_effort=effort, outer_bias=no_bias)


def _centre_piece(unit: Unit, seam: Exact) -> Piece | None:
    """The piece of the plain centre that the rounds go about."""
    if unit.part.nested:
        return None
    rounds = rounds_of(unit.part)
    if rounds is None:
        return None
    patches = dict(zip(sorted(unit.part.faces), unit.picture, strict=True))
    outline, fabric = patches[rounds.centre.face]
    return piece_for(outline, fabric, seam)
