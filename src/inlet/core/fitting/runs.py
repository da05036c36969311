"""What the sides of pieces and units measure once they are sewn, from how they are cut.

A patch cut with the ruler is an outline moved out by the allowance; sewn with it all round, what
shows is the cut outline moved in by it: a rectangle cut a x b shows a - 2s by b - 2s, for triangles
see ``right_triangle``. Templates carry their sewing line and are exact. What a method's moves make
is read off its product, run on the pieces as they are cut.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from itertools import pairwise
from math import dist
from operator import itemgetter
from types import MappingProxyType
from typing import NamedTuple

from inlet.core.assembly import Faces, rim
from inlet.core.cancellation import check
from inlet.core.draft import Draft, float_points_of
from inlet.core.geometry import EIGHTH_TURN, NEAR, Arrangement, Circle, Motion, is_rectangle
from inlet.core.memo import KeyedTable, Latest
from inlet.core.methods import bias_edges
from inlet.core.numbers import Exact
from inlet.core.planning import UnitPlan, right_triangle
from inlet.core.table import Piece, Sheet, box, piece_for, trimmed
from inlet.core.units import Part, UnitPlace, rounds_of


class Run(NamedTuple):
    """A straight side of a patch, or of a unit that is made as a whole, from corner to corner.

    ``edges`` of the arrangement lie on it, ``face`` is a patch behind it. ``exact`` is its finished
    length as drawn, ``made`` as it comes out. ``length`` is the exact length, allowances included,
    whose mark decides it where it is sewn as it is cut, or trimmed to it, and ``share`` how much of
    that the run is. A ``loose`` one is cut level once it is sewn on: it is as long as what it is
    sewn to.
    """

    edges: tuple[int, ...]
    face: int
    exact: float
    made: float
    length: Exact | None = None
    share: float = 1.0
    loose: bool = False


NONE_KNOWN: Mapping[Faces, Sequence[Run]] = MappingProxyType({})


def runs_of(
    draft: Draft, units: Sequence[UnitPlan], known: Mapping[Faces, Sequence[Run]] = NONE_KNOWN
) -> list[Run]:
    """Every straight side of what a block is sewn of, as its units' methods in use cut and make
    it. What lies inside a unit that is made as a whole has none: its moves make it fit. ``known``:
    those of parts whose sides are not worked out again."""
    return [run for runs in runs_by_part(draft, units, known).values() for run in runs]


def runs_by_part(
    draft: Draft, units: Sequence[UnitPlan], known: Mapping[Faces, Sequence[Run]] = NONE_KNOWN
) -> dict[Faces, Sequence[Run]]:
    """``runs_of``, part by part: those of parts nested in another stand with the nested part."""
    sides = _Sides(draft)
    of = {place.part.faces: (plan, place) for plan in units for place in plan.unit.places}
    left = [
        place.part.faces for plan in units for place in plan.unit.places if place.within is None
    ]
    by_part: dict[Faces, Sequence[Run]] = {}
    while left:
        check()
        faces = left.pop()
        plan, place = of[faces]
        if faces in known:
            by_part[faces] = known[faces]
        else:
            by_part[faces] = sides.part(plan, place)
        if not made_whole(plan) or _trimmed_patches(plan):
            left += [inner.faces for inner in place.part.nested]
    return by_part


def _trimmed_patches(plan: UnitPlan) -> bool:
    """Is a unit sewn of its patches, then trimmed to its size?"""
    return plan.made is None and plan.trimmed is not None and plan.in_use.method.by_patches


def made_whole(plan: UnitPlan) -> bool:
    """Is what comes out of a unit known from its moves, or because it is trimmed or was measured,
    rather than from its patches?"""
    method = plan.in_use.method
    if plan.made is not None:
        return True
    if len(plan.unit.part.faces) == 1 or not is_rectangle(plan.unit.outline):
        return False
    if plan.in_use.trim_to is not None:
        return True
    return all(strips.slanted for strips in method.sets) and bool(method.products)


def _loose_strips(plan: UnitPlan, part: Part) -> Faces:
    """The strips of rounds that are sewn on long and trimmed level."""
    rounds = rounds_of(part) if plan.in_use.name == "sew-and-trim" else None
    return frozenset(strip.face for strip in rounds.strips) if rounds else frozenset()


SidesOfPatches = tuple[tuple[tuple[int, ...], ...], ...]
_SIDES_OF_PATCHES: Latest[Arrangement, SidesOfPatches] = Latest(8)
"""The edges of each straight side of each patch, the same at every size."""


class _Sides:
    """The sides of patches and units of one drawing."""

    def __init__(self, draft: Draft) -> None:
        self.draft = draft
        self.places = float_points_of(draft)
        self.products: dict[str, dict[tuple[int, ...], tuple[float, ...]]] = {}

    def lines(self, edges_: Iterable[int], faces: Faces) -> list[list[tuple[tuple[int, ...], int]]]:
        """Edges round a part by the line they lie on, in order along it, those of one patch
        behind them that follow one another taken together: (edges, patch)."""
        arrangement = self.draft.arrangement
        on: dict[int, list[int]] = defaultdict(list)
        for k in edges_:
            on[arrangement.edges[k].line].append(k)
        out = []
        for line, found in sorted(on.items()):
            if isinstance(arrangement.lines[line], Circle):
                continue
            found.sort(key=lambda k: sorted(self.places[v] for v in arrangement.edges[k][:2]))
            side: list[tuple[tuple[int, ...], int]] = []
            for k in found:
                edge = arrangement.edges[k]
                face = edge.right if edge.right in faces else edge.left
                if side and side[-1][1] == face and self._touch(side[-1][0][-1], k):
                    side[-1] = (*side[-1][0], k), face
                else:
                    side.append(((k,), face))
            out.append(side)
        return out

    def _touch(self, one: int, other: int) -> bool:
        edges_ = self.draft.arrangement.edges
        return bool({*edges_[one][:2]} & {*edges_[other][:2]})

    def long(self, run: Sequence[int]) -> float:
        """How long edges are together, finished."""
        edges_ = self.draft.arrangement.edges
        return sum(dist(self.places[edges_[k].start], self.places[edges_[k].end]) for k in run)

    def part(self, plan: UnitPlan, place: UnitPlace) -> list[Run]:
        """The sides of a unit in one of its places, but for those of units nested in it."""
        part, runs = place.part, list[Run]()
        whole = made_whole(plan)
        if whole:
            runs += self.whole(part.faces, plan, place.motion)
            if not _trimmed_patches(plan):
                return runs
        strips = _loose_strips(plan, part)
        outside = rim(self.draft, part.faces) if whole else frozenset[int]()
        for face in sorted(part.faces.difference(*(inner.faces for inner in part.nested))):
            found = self.patch(face, plan, face in strips)
            runs += (run for run in found if outside.isdisjoint(run.edges))
        return runs

    def patch(self, face: int, plan: UnitPlan, loose: bool) -> list[Run]:
        """The straight sides of a patch that is cut by itself, shortest first."""
        shape, seam = self.draft.patches[face].shape, plan.measure.seam
        sides = _SIDES_OF_PATCHES.of(self.draft.arrangement, self._of_patches)[face]
        drawn = sorted(((self.long(edges), edges) for edges in sides), key=itemgetter(0))
        sizes: list[float] = []
        if not shape.arcs:
            piece = piece_for(shape.corners, None, seam, plan.in_use.method.halved)
            sizes = _side_lengths(piece, plan.cutting.cut(piece, _trimmed_later(plan)), seam)
        if len(sizes) != len(drawn):  # a template
            return [Run(edges, face, exact, exact) for exact, edges in drawn]
        runs = []
        for i, ((exact, edges), made) in enumerate(zip(drawn, sizes, strict=True)):
            cut_level = loose and i > 1
            length = piece.exact[i // 2] if piece.sewn_as_cut and not cut_level else None
            runs.append(Run(edges, face, exact, made, length, loose=cut_level))
        return runs

    def _of_patches(self, arrangement: Arrangement) -> SidesOfPatches:
        return tuple(
            tuple(edges for side in self.lines(round_, frozenset([face])) for edges, _ in side)
            for face, round_ in enumerate(arrangement.edges_of)
        )

    def whole(self, faces: Faces, plan: UnitPlan, motion: Motion) -> list[Run]:
        """The sides of a unit made as a whole, parted where its patches meet its edge; ``motion``
        brought it there from its first place."""
        runs = []
        for side in self.lines(rim(self.draft, faces), faces):
            exact = [self.long(run) for run, _ in side]
            made, length = self._made(plan, exact)
            if plan.made is not None:
                along = self._along(side[0][0][0], plan, motion, sum(exact))
                long = float(plan.made.size[along] - 2 * plan.measure.seam)
                made, length = [e / sum(exact) * long for e in exact], None
            runs += [
                Run(run, face, e, m, length, e / sum(exact))
                for (run, face), e, m in zip(side, exact, made, strict=True)
            ]
        return runs

    def _along(self, edge: int, plan: UnitPlan, motion: Motion, whole: float) -> int:
        """Which of a unit's two sides an edge lies on: by its length, of a square by the way it
        runs in the unit's first place."""
        wide, high = (float(side) for side in plan.unit.size)
        if abs(wide - high) > NEAR:
            return 0 if abs(wide - whole) <= abs(high - whole) else 1
        ends = self.draft.arrangement.edges[edge]
        (x, y), (u, v) = self.places[ends.start], self.places[ends.end]
        cos, sin = float(motion.cos), float(motion.sin)
        across = abs(cos * (u - x) + sin * (v - y))
        down = abs(cos * (v - y) - sin * (u - x))
        return 0 if across >= down else 1

    def _made(self, plan: UnitPlan, exact: Sequence[float]) -> tuple[Sequence[float], Exact | None]:
        """The lengths of a side's parts as made, and the length that decides them (see ``Run``)."""
        whole, seam = sum(exact), plan.measure.seam
        trim = plan.in_use.trim_to
        if trim is not None:
            along = min((0, 1), key=lambda i: abs(float(plan.unit.size[i]) - whole))
            long = float(trim[along] - 2 * seam)
            return [e / whole * long for e in exact], plan.unit.size[along] + 2 * seam
        label = plan.unit.label
        if label not in self.products:
            self.products[label] = _known_sides(plan)
        known = self.products[label]
        length = _body_length(plan, whole)
        parts = known.get(_rough(exact)) or known.get(_rough(exact[::-1]), ())[::-1]
        if len(parts) == len(exact):
            return parts, length
        long = sum(known.get(_rough([whole]), (whole,)))
        return [e / whole * long for e in exact], length


def _body_length(plan: UnitPlan, finished: float) -> Exact | None:
    """The length cut, as it is sewn, that decides a side of a unit made as a whole: that of the
    body, where its corners are sewn on. Else what is cut apart on a slant does."""
    pieces = plan.in_use.method.pieces
    if any(piece.shape == "strip" for piece in pieces):
        return None
    seam = plan.measure.seam
    near = (x for piece in pieces if piece.sewn_as_cut for x in piece.exact)
    return next((x for x in near if abs(float(x - 2 * seam) - finished) < NEAR), None)


def _trimmed_later(plan: UnitPlan) -> bool:
    """Are a unit's pieces cut larger because it is trimmed by its maker's style?"""
    return plan.in_use.method.trims and plan.style == "trim"


def _side_lengths(piece: Piece, cut: Sequence[Exact], seam: Exact) -> list[float]:
    """The finished sides that a piece gives cut to a size, shortest first; none for a template."""
    s, (low, high) = float(seam), map(float, cut)
    if piece.shape == "template":
        return []
    if piece.crosscut == "none":
        return [low - 2 * s] * 2 + [high - 2 * s] * 2
    legs = (low, high) if piece.crosscut == "once" else (low / 2**0.5, low / 2**0.5)
    return sorted(right_triangle(*legs, s))


def _rough(lengths: Iterable[float]) -> tuple[int, ...]:
    """Lengths as keys: told apart to a millionth."""
    return tuple(round(length * 10**6) for length in lengths)


Sides = dict[tuple[int, ...], tuple[float, ...]]
_SIDES: KeyedTable[object, Sides] = KeyedTable(500)


def _known_sides(plan: UnitPlan) -> Sides:
    """``_product_sides``, worked out once for units whose pieces say all of how they are made."""
    method, seam = plan.in_use.method, plan.measure.seam
    if any(piece.sewn_as_cut or piece.slanted for piece in method.pieces) or method.sets:
        return _product_sides(plan)
    trims = _trimmed_later(plan)
    cuts = tuple((p.exact, p.crosscut, plan.cutting.cut(p, trims)) for p in method.pieces)
    key = (method.name, plan.unit.kind, plan.unit.size, seam, cuts)
    return _SIDES.of(key, lambda: _product_sides(plan))


def _product_sides(plan: UnitPlan) -> Sides:
    """Of a unit made by its moves: the parts of each side, and the whole side, from the exact ones
    to those that come of pieces as they are cut."""
    method, seam = plan.in_use.method, plan.measure.seam
    exact = _sides_shown(method.products[0], seam)
    if method.sets:
        (strips, *_) = method.sets
        cut = plan.cutting.as_sewn(strips.height + 2 * seam, strips.slanted)
        more = float(cut - strips.height - 2 * seam)
        made = [[p * (1 + more / (side[-1])) for p in side] for side in exact]
    else:
        trims = _trimmed_later(plan)
        sizes = tuple(_worked(piece, plan.cutting.cut(piece, trims)) for piece in method.pieces)
        made = _sides_shown(method.work(sizes).products[0], seam)
    sides: Sides = {}
    for one_side, other in zip(exact, made, strict=True):
        sides[_rough(one_side[-1:])] = (other[-1],)
        if len(one_side) == len(other):
            sides[_rough(_steps(one_side))] = tuple(_steps(other))
    return sides


def _worked(piece: Piece, cut: tuple[Exact, Exact]) -> tuple[Exact, Exact]:
    """The size the moves are run on; of a strip its width, and as much of its length as it takes
    then."""
    if piece.shape != "strip":
        return cut
    return cut[0], piece.exact[1] + cut[0] - piece.exact[0]


def _steps(side: Sequence[float]) -> list[float]:
    return [q - p for p, q in pairwise([0.0, *side])]


def _sides_shown(product: Sheet, seam: Exact) -> list[list[float]]:
    """Where patches meet the four sides of a product once it is sewn in all round, and where the
    side ends, from its beginning: left, top, right, bottom."""
    sheet = EIGHTH_TURN.picture(product) if bias_edges(product) else product
    shown = trimmed(sheet, seam)
    left, top, right, bottom = box(sheet)
    ends = left + seam, top + seam, right - seam, bottom - seam
    corners = {p for outline, _ in shown for p in outline}
    sides = []
    for i, end in enumerate(ends):
        begin, last = (ends[1], ends[3]) if i % 2 == 0 else (ends[0], ends[2])
        along = {p.y if i % 2 == 0 else p.x for p in corners if (p.y if i % 2 else p.x) == end}
        found = sorted({float(x - begin) for x in along | {last}} - {0.0})
        sides.append(found)
    return sides
