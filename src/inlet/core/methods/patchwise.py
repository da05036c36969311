"""Sewing a unit patch by patch, in the order of its tree."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import dist
from typing import NamedTuple

from inlet.core.assembly import Faces, Join, Side
from inlet.core.geometry import (
    HAIR,
    Point,
    Polygon,
    SameShapes,
    clip,
    cross,
    edges,
    flip,
    is_rectangle,
    line_through,
    offset,
)
from inlet.core.methods.inset import inset_moves
from inlet.core.methods.method import Effort, Method, MethodWork, Sizes
from inlet.core.methods.rows import (
    PRESS,
    Walk,
    all_moves,
    row_text,
    side_by_side,
    sides_text,
    together_text,
)
from inlet.core.numbers import Exact
from inlet.core.project import FabricId
from inlet.core.table import (
    DrawnLine,
    Move,
    Piece,
    curved_piece,
    cut_sheet,
    diagonal_text,
    in_a_row,
    piece_for,
    raw_cell,
    seam_lines,
    sewing_text,
)
from inlet.core.trampoline import Steps, run
from inlet.core.units import Part, Unit, length_inside, rounds_of


def patch_by_patch(unit: Unit, seam: Exact) -> Method:
    """Each patch cut with its allowance, sewn in the order of the unit's tree. Units nested in it
    are made on their own first and go in whole."""
    return _patch_by_patch(unit, seam, False)


def corners_cut_once(unit: Unit, seam: Exact) -> Method | None:
    """The corners of a square that stands on its point, cut once instead of twice: the straight
    grain lies along the unit's outside then, and the bias in its seams. None where they are so
    anyway."""
    if all(piece.crosscut != "twice" for piece in patch_pieces(unit, seam)):
        return None
    return _patch_by_patch(unit, seam, True)


def _patch_by_patch(unit: Unit, seam: Exact, halved: bool) -> Method:
    pieces = patch_pieces(unit, seam, halved)
    name = "plain"
    if halved:
        name = "corners-cut-once"
    elif unit.kind == "ring":
        name = "partial-seam"
    elif any(piece.shape == "template" for piece in pieces):
        name = "template"
    elif any(piece.crosscut != "none" for piece in pieces):
        name = "single-triangles"
    trims = any(piece.crosscut != "none" for piece in pieces)

    def work(sizes: Sizes) -> MethodWork:
        return MethodWork(tuple(_patch_moves(unit, pieces, seam)))

    return Method(
        name, 1, pieces, trims, work,
        outer_bias=lambda: _outer_bias(unit, seam, halved), known_effort=_effort(unit, seam),
        by_patches=True, halved=halved, lying=lambda: _lying(unit, pieces, seam),
    )  # fmt: skip


def _lying(unit: Unit, pieces: Sequence[Piece], seam: Exact) -> list[list[Polygon]]:
    lying: list[list[Polygon]] = [[] for _ in pieces]
    nested = {f for part in unit.part.nested for f in part.faces}
    for face, patch in zip(sorted(unit.part.faces), unit.picture, strict=True):
        which = -1 if face in nested else _piece_of(patch, pieces, seam)
        if which >= 0:
            lying[which].append(patch[0])
    return lying


def _effort(unit: Unit, seam: Exact) -> Effort:
    """What patch by patch takes: a seam fewer than there are cells, but one for each leg of those
    that turn corners, as long as the seams inside, each with its allowance at both ends; a dot to
    mark where each turns or stops."""
    cells = len(unit.picture) - sum(len(part.faces) - 1 for part in unit.part.nested)
    joins = unit.part.joins if unit.part.awkward else ()
    marks = sum(len(join.dots) + len(join.pivots) for join in joins)
    seams = sum(len(join.legs) for join in unit.part.joins) if unit.part.awkward else cells - 1
    length = length_inside(unit) + 2 * float(seam) * seams
    return Effort(seams, length, 0, marks, cells - 1)


def patch_pieces(unit: Unit, seam: Exact, halved: bool = False) -> tuple[Piece, ...]:
    """The pieces of a unit's own patches, equal ones together; see ``piece_for``."""
    pieces: dict[Piece, int] = {}
    same = SameShapes()
    nested = {f for part in unit.part.nested for f in part.faces}
    order = {face: i for i, face in enumerate(strips_in_order(unit))}
    patches = zip(sorted(unit.part.faces), unit.picture, unit.shapes, strict=True)
    for face, (outline, fabric), shape in sorted(patches, key=lambda p: order.get(p[0], -1)):
        if face in nested:
            continue
        if shape.arcs:
            piece = curved_piece(shape, fabric, seam)
        else:
            piece = piece_for(outline, fabric, seam, halved)
        if piece.outline:
            first = same.first_like(piece.outline)
            known_piece = next((p for p in pieces if p.outline == first), piece)
            piece = known_piece._replace(fabric=fabric)
        pieces[piece] = pieces.get(piece, 0) + 1
    return tuple(piece._replace(quantity=n) for piece, n in pieces.items())


def strips_in_order(unit: Unit) -> list[int]:
    """The strips of rounds in the order they are sewn on; none of other units."""
    rounds = rounds_of(unit.part) if unit.kind == "rounds" else None
    nested = {f for part in unit.part.nested for f in part.faces}
    return [strip.face for strip in rounds.strips if strip.face not in nested] if rounds else []


def _outer_bias(unit: Unit, seam: Exact, halved: bool) -> int:
    """Outer edges of the unit that are bias when each patch is cut as ``piece_for`` says: the long
    side of half a square or rectangle, the short ones of a quarter; of a template, laid with the
    grain along the block's edges, whatever does not run with them."""
    if any(shape.arcs for shape in unit.shapes) or all(map(is_rectangle, _outlines(unit))):
        return 0  # squares and rectangles, and curved templates' straight edges, lie with the grain
    outer = list(edges([p.floats() for p in unit.outline]))
    bias = set()
    for outline, fabric in unit.picture:
        piece = piece_for(outline, fabric, seam, halved)
        if piece.shape != "template" and piece.crosscut == "none":
            continue
        corners = [p.floats() for p in outline]
        lengths = [dist(p, q) for p, q in edges(corners)]
        for (p, q), length in zip(edges(corners), lengths, strict=True):
            on = next((i for i, side in enumerate(outer) if _beside(side, p, q)), None)
            if on is None:
                continue
            if piece.shape == "template":
                across = min(abs(p[0] - q[0]), abs(p[1] - q[1])) > HAIR
            else:
                across = (length > max(lengths) - HAIR) == (piece.crosscut == "once")
            if across:
                bias.add(on)
    return len(bias)


Place = tuple[float, float]


def _beside(side: tuple[Place, Place], p: Place, q: Place) -> bool:
    """Do two places lie on the line of a side? Only counted with, never cut from."""
    (x0, y0), (x1, y1) = side
    return all(abs((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) < HAIR for x, y in (p, q))


def _outlines(unit: Unit) -> list[Polygon]:
    return [outline for outline, _ in unit.picture]


def cutting_moves(pieces: Sequence[Piece]) -> list[Move]:
    """Cutting the pieces from fabric, and those that come apart on their diagonals."""
    moves = [Move("cut", "Cut {all}.", in_a_row([cut_sheet(p) for p in pieces]))]
    for i, piece in enumerate(pieces):
        if piece.crosscut not in ("once", "twice"):
            continue
        sheet = cut_sheet(piece)
        a, b, c, d = sheet[0][0]
        lines = [DrawnLine("cut", d, b) if piece.lean == "rising" else DrawnLine("cut", a, c)]
        if piece.crosscut == "twice":
            lines.append(DrawnLine("cut", b, d))
        text = (
            f"Cut {{{i}}} {diagonal_text(piece.crosscut, piece.lean)}: "
            f"{2 if piece.crosscut == 'once' else 4} triangles."
        )
        moves.append(Move("crosscut", text, sheet, (), tuple(lines), piece.shapes(1)))
    return moves


def _patch_moves(unit: Unit, pieces: Sequence[Piece], seam: Exact) -> list[Move]:
    moves = cutting_moves(pieces) if pieces else []
    patches = dict(zip(sorted(unit.part.faces), unit.picture, strict=True))
    if unit.part.awkward:
        return moves + inset_moves(unit, seam)
    nested = frozenset(inner.faces for inner in unit.part.nested)
    faces_at: dict[Point, list[int]] = {}
    for face, (outline, _) in patches.items():
        for p in outline:
            faces_at.setdefault(p, []).append(face)
    which = {face: _piece_of(patches[face], pieces, seam) for face in patches}
    strips = {
        face: f"Strip {number}: {{{which[face]}}}. "
        for number, face in enumerate(strips_in_order(unit), 1)
    }
    sewing = _Sewing(nested, patches, faces_at, seam, pieces, which, strips)
    _, walks = run(sewing.part(unit.part))
    return moves + all_moves(walks)


def _piece_of(patch: tuple[Polygon, FabricId], pieces: Sequence[Piece], seam: Exact) -> int:
    """Which of a unit's pieces a patch is cut as; -1 for those that are cut as one of another
    outline, or with a unit nested in it."""
    wanted = {piece_for(*patch, seam, halved) for halved in (False, True)}
    return next((i for i, p in enumerate(pieces) if p._replace(quantity=1) in wanted), -1)


Raw = dict[int, tuple[Polygon, FabricId]]
"""Patches sewn together, where they lie: their raw outlines and fabrics."""


class _Sewing(NamedTuple):
    """Rows sewn one after the other: ``faces_at`` are the patches with a corner at a point,
    ``which`` of the pieces patches are, ``strips`` says what comes next of strips that go round, by
    their patches."""

    nested: frozenset[Faces]
    patches: dict[int, tuple[Polygon, FabricId]]
    faces_at: Mapping[Point, Sequence[int]]
    seam: Exact
    pieces: Sequence[Piece]
    which: Mapping[int, int]
    strips: Mapping[int, str]

    def part(self, part: Part) -> Steps[tuple[Raw, list[Walk]]]:
        """A part sewn from its parts: what lies there then, and the walks it takes. Parts of a row
        are sewn in a chain, and a row of three or more in one go: no seam of it crosses another."""
        if not part.parts:
            outline, fabric = self.patches[part.face]
            return {part.face: (offset(outline, self.seam), fabric)}, []
        if part.faces in self.nested:
            faces = sorted(part.faces)
            cell = raw_cell([self.patches[f] for f in faces], part.outline, self.seam)
            return dict(zip(faces, cell, strict=True)), []
        made: dict[Side, Raw] = {}
        walks: list[Walk] = []
        for inner in part.parts:
            made[inner.side], own = yield self.part(inner)
            walks = side_by_side(walks, own)
        sewn = []
        for join in part.joins:
            made[join], move = self.join(made, join)
            opened = Move("open", "Open and press.", tuple(made[join].values()))
            sewn.append(Walk((move,), (opened,)))
        if len(sewn) > 1 and _in_one_row(part.joins):
            whole = tuple(made[part.side].values())
            lines = tuple(line for join in part.joins for line in seam_lines(join))
            in_a_chain = Move("sew", self.said(part), whole, (), lines, seams=len(sewn))
            sewn = [Walk((in_a_chain,), (Move("open", PRESS, whole, seams=len(sewn)),))]
        return made[part.side], walks + sewn

    def said(self, part: Part) -> str:
        """How a row of three parts or more is sewn."""
        names = [self.named(inner) for inner in part.parts]
        first, *between, last = names
        if None not in names:
            slanted = {self.which[p.face] for p in part.parts if self.is_triangle(p.face)}
            if len(names) > 3 or not slanted:
                return row_text([name or "" for name in names])
        if len(names) == 3 and first and last:
            ends = (part.parts[0].face, part.parts[-1].face)
            what = "triangles" if all(map(self.is_triangle, ends)) else "pieces"
            inner = part.parts[1].faces in self.nested
            middle = between[0] or ("the unit in the middle" if inner else "what is sewn")
            return sides_text(first, last, middle, what)
        if any(names):
            return f"Sew the {len(names)} parts in a row, right sides together; press."
        starts = [self.named(inner.parts[0]) or "" for inner in part.parts if inner.parts]
        known = len(starts) == len(names) and all(starts)
        return together_text("rows", starts if known else ["" for _ in names])

    def named(self, part: Part) -> str | None:
        """A single patch by its piece, for ``move_text``; None for what is sewn of several."""
        which = self.which[part.face] if len(part.faces) == 1 else -1
        return f"{{s{which}}}" if which >= 0 else None

    def is_triangle(self, face: int) -> bool:
        return len(self.patches[face][0]) == 3

    def join(self, made: Mapping[Side, Raw], join: Join) -> tuple[Raw, Move]:
        """Two parts in a row sewn where they lie, the smaller one laid on the other."""
        below, above = (made[side] for side in join.larger_first)
        beside = [f for p in join.points for f in self.faces_at.get(p, ())]
        line = line_through(join.points[0], join.points[-1])
        there = (self.patches[f][0] for f in beside if f in above)
        if any(line.side(p) > 0 for outline in there for p in outline):
            line = line.opposite()  # what lies below is on the growing side
        lower = tuple(below.values())
        upper = tuple((flip(outline, line), fabric) for outline, fabric in above.values())
        added = [self.strips[f] for side in (above, below) if len(side) == 1
                 for f in side if f in self.strips]  # fmt: skip
        text = "".join(added[:1]) + sewing_text(join, self.seam)
        move = Move("sew", text, lower, upper, seam_lines(join))
        # Only what lies along the seam has an allowance there, which is out of sight from now on.
        result = {**below, **above}
        for f in beside:
            side = line if f in below else line.opposite()
            if f in result:
                outline, fabric = result[f]
                result[f] = clip(outline, side), fabric
        return result, move


def _in_one_row(joins: Sequence[Join]) -> bool:
    """Are all seams parallel, and sewn from edge to edge?"""
    steps = [join.points[-1].minus(join.points[0]) for join in joins]
    plain = all(join.kind == "straight" and not join.dots for join in joins)
    return plain and all(cross(steps[0], step) == 0 for step in steps)
