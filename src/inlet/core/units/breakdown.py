"""Breaking a block down: which seams run through, and what they leave between them.

A block is split along seams that run from edge to edge of it, then each part in the same way; a
part's last seams to be sewn are the ones it is split along here (``splitting``, ``rows``). Where no
straight seam runs through, the assembler finds the order in which what is there can be sewn
together (``cells``). Parts that are units are named on the way (``kinds``), by their patches or by
units nested in them; splits are chosen to leave whole units, then few units, then rows.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property

from inlet.core.assembly import Faces, Order
from inlet.core.cancellation import check
from inlet.core.draft import Draft, Patch
from inlet.core.geometry import (
    Outline,
    Picture,
    Point,
    cross,
    is_rectangle,
    mirrored,
    motion_between,
)
from inlet.core.memo import Latest
from inlet.core.project import UnitKind
from inlet.core.trampoline import Steps, run
from inlet.core.units.cells import CellFinder
from inlet.core.units.coarser import CoarseRow, coarse_widths, coarser_rows
from inlet.core.units.cost import BreakdownCost, Solved
from inlet.core.units.joining import with_joins
from inlet.core.units.kinds import name_curved_unit, name_stuck_unit, name_unit
from inlet.core.units.part_seams import PartSeams
from inlet.core.units.parts import Part, tiling
from inlet.core.units.rounds import Rounds, flattened_bands, read_rounds
from inlet.core.units.rows import Rows
from inlet.core.units.splitting import Splitter
from inlet.core.units.units import picture_of

FEWEST_CUT_UP, MOST_CUT_UP = 5, 100
"""Patches of parts that are split in coarser ways, too."""


_PARTS: Latest[Draft, Part] = Latest(64)


def break_down(draft: Draft) -> Part:
    """The whole block as a tree of parts with the joins that sew them. Never fails: what cannot be
    sewn, as an island in a patch, is a ``stuck`` part. Those of the latest drafts are known: the
    plan, advice and bands ask for the same."""
    return _PARTS.of(draft, _break_down)


def _break_down(draft: Draft) -> Part:
    breaker = _Breaker(draft)
    root, _ = run(breaker.solve(frozenset(range(len(draft.patches)))))
    if draft.block.panel is not None and not root.stuck:
        root = root._replace(kind="panel", nested=())
    return with_joins(draft, root, breaker.orders)


class _Breaker:
    """``known`` are the parts solved so far; ``orders`` sew the awkward ones, ``rounds`` are how
    parts read as rounds, begun or whole: each by its patches. ``split_before`` are the pictures of
    parts that could be split in several ways as well, and across what they were, by likeness."""

    def __init__(self, draft: Draft) -> None:
        self.draft = draft
        self.seams = PartSeams(draft)
        self.splitter = Splitter(self.seams)
        self.cells = CellFinder(self.seams)
        self.rows = Rows(draft)
        self.known: dict[Faces, Solved] = {}
        self.orders: dict[Faces, Order] = {}
        self.rounds: dict[Faces, Rounds] = {}
        self.split_before: dict[tuple[object, ...], list[tuple[Picture, Point]]] = {}

    @cached_property
    def widths(self) -> tuple[int, ...]:
        """The coarser bands that units may lie in."""
        return coarse_widths(self.draft, self.rows, self._one_unit)

    def solve(self, faces: Faces) -> Steps[Solved]:
        solution = self.at_hand(faces)
        if solution is None:
            check()
            solution = self.known[faces] = yield from self._solve(faces)
        return solution

    def at_hand(self, faces: Faces) -> Solved | None:
        """A part that is solved already, or is one patch, without a call of ``solve``."""
        solution = self.known.get(faces)
        if solution is None and len(faces) == 1:
            solution = self.known[faces] = _single(faces, self.draft.patches[min(faces)])
        return solution

    def _solve(self, faces: Faces) -> Steps[Solved]:
        inner, edge = self.seams.of(faces)
        straight_edged = self.seams.straight or not any(map(self.seams.is_round, edge))
        kind = self._kind(faces, inner, straight_edged)
        shape = self.seams.shape(faces)
        solution = yield from self._split_best(faces, shape, kind is not None)
        if solution is None:
            solution = yield from self._assembled(faces, shape)
        part, cost = solution
        part = part._replace(kind=kind, arcs=shape.arcs)
        if kind is None and straight_edged:
            part = self._named_by_cells(part)
        return Solved(
            part, BreakdownCost(int(part.stuck), cost.awkward, 0, 1, 1) if part.kind else cost
        )

    # --- what kind of unit it is ----------------------------------------------------------------

    def _kind(self, faces: Faces, inner: Sequence[int], straight_edged: bool) -> UnitKind | None:
        """The kind of unit that the patches of a part make, if any, by the edges ``inner`` between
        them."""
        outline = self.seams.shape(faces).corners
        patches = [self.draft.patches[f] for f in sorted(faces)]
        if not any(patch.arcs for patch in patches):
            bands = {self.seams.on_band[self.seams.edges[k].line] for k in inner}
            outlines, fabrics = [p.outline for p in patches], [p.fabric for p in patches]
            return name_unit(outline, outlines, fabrics, (True in bands, False in bands))
        if not straight_edged:
            return None
        return name_curved_unit(outline, [self.seams.curve(k) for k in inner], len(patches))

    def _named_by_cells(self, part: Part) -> Part:
        """A part named by its cells, some of which may be units, or as rounds, if it is either."""
        cells = part.parts if part.awkward else tuple(tiling(part))
        pieced = tuple(c for c in cells if len(c.faces) > 1)
        if not all(c.outline for c in cells):
            return part
        if part.awkward and not part.stuck:
            if all(c.kind for c in pieced):
                kind = name_stuck_unit(part.outline, [c.outline for c in cells])
                return part._replace(kind=kind, nested=pieced if kind else ())
            return part
        if len(pieced) == 1 and pieced[0] is not part:
            kind = name_unit(part.outline, [c.outline for c in cells], [None] * len(cells))
            if kind == "square-in-square":  # the others a square stands in are stuck, or rounds
                return part._replace(kind=kind, nested=pieced)
        core = max(flattened_bands(part), key=lambda p: len(p.faces))
        rounds = read_rounds(part, self.rounds.get(core.faces))
        if rounds is None or not is_rectangle(part.outline):
            return part
        self.rounds[part.faces] = rounds
        if not rounds.whole:
            return part
        nested = (rounds.centre,) if len(rounds.centre.faces) > 1 else ()
        return part._replace(kind="rounds", parts=flattened_bands(part), nested=nested)

    # --- rows -----------------------------------------------------------------------------------

    def _split_best(self, faces: Faces, shape: Outline, unit: bool) -> Steps[Solved | None]:
        """A part split along through seams in the way that leaves least; None if none runs. A
        ``unit`` is split into few different rows, as it is cut from strips, and as its equals are.
        """
        rows: list[CoarseRow] = []
        for lines in self.splitter.ways(faces):
            parts = self.splitter.split(faces, lines, bool(shape.arcs))
            if len(parts) > 1:
                rows.append(CoarseRow(lines, (yield from self._framed(parts))))
        if unit and len(rows) > 1:
            rows = self._fewest_sets(rows)
        if not rows:
            return None
        solutions = []
        for row in rows:
            solutions.append((yield from self._sewn_in(row, faces, shape)))
        least = min(cost for _, cost in solutions)
        best = [solution for solution in solutions if solution.cost == least]
        if unit:
            return self._as_its_twin(best, faces)
        if FEWEST_CUT_UP <= len(faces) <= MOST_CUT_UP:
            now = self.rows.units(best[0].part)
            tried = [row.parts for row in rows]
            for row in coarser_rows(
                rows, self.splitter, self.rows, self._one_unit, self._is_unit, self.widths
            ):
                if row.parts in tried:
                    continue
                tried.append(row.parts)
                other_solution = yield from self._sewn_in(row, faces, shape)
                units = self.rows.units(other_solution.part)
                # Units put together again are fewer sorts, or they are no better than patches.
                fewer = units[0] < now[0] or (units == now and other_solution.cost < best[0].cost)
                if other_solution.cost[:3] <= least[:3] and fewer:
                    best, now = [other_solution], units
        return self._as_its_twin(self._whatever_the_turn(best), faces)

    def _sewn_in(self, row: CoarseRow, faces: Faces, shape: Outline) -> Steps[Solved]:
        """A part sewn of the parts of a row."""
        solved: list[Solved] = []
        for p in row.parts:
            solved.append(self.at_hand(p) or (yield self.solve(p)))
        across = self.splitter.across(row.lines[0])
        grouped, cost = self.rows.grouped(solved, across)
        whole = Part(faces, shape.corners, None, grouped, across)
        return Solved(grouped[0] if len(grouped) == 1 else whole, cost)

    def _whatever_the_turn(self, ways: list[Solved]) -> list[Solved]:
        """Of ways to split a part that leave as much, those a part that is turned or mirrored is
        split in as well: told by the units they leave."""
        for of in (self.rows.likeness, self.rows.pattern):
            if len(ways) > 1:
                units = [sorted(of(unit.faces) for unit in tiling(way.part)) for way in ways]
                first = min(units)
                ways = [way for way, its in zip(ways, units, strict=True) if its == first]
        return ways

    def _as_its_twin(self, ways: Sequence[Solved], faces: Faces) -> Solved:
        """Of ways to split a part that leave as much, the one in which a part just like it, turned
        or mirrored, was split: so that equal parts are made in one way."""
        if len(ways) == 1:
            return ways[0]
        alike = self.split_before.setdefault(self.rows.likeness(faces), [])
        picture = picture_of(self.draft, faces)
        for other, across in alike:
            motion = motion_between(other, picture)
            mirror = None if motion else motion_between(mirrored(other), picture)
            if motion is None and mirror is None:
                continue
            step = across if motion else Point(-across.x, across.y)
            turned = (motion or mirror).turn_only()(step)  # type: ignore[union-attr]
            return next((w for w in ways if _parallel(w.part.across, turned)), ways[0])
        if ways[0].part.across is not None:
            alike.append((picture, ways[0].part.across))
        return ways[0]

    def _fewest_sets(self, rows: list[CoarseRow]) -> list[CoarseRow]:
        """Of ways to split a unit, those that take the fewest strip sets, of the fewest strips."""

        def work_of(row: CoarseRow) -> tuple[int, int, int, list[list[float]]]:
            sewn = [(self.rows.pattern(faces), len(faces)) for faces in row.parts]
            sets = {tuple(pattern): strips for pattern, strips in sewn}
            same = sorted(pattern for pattern, _ in sewn)
            return len(sets), len(row.parts), sum(sets.values()), same

        work = [work_of(row) for row in rows]
        least = min(work)
        return [row for row, its in zip(rows, work, strict=True) if its == least]

    def _is_unit(self, faces: Faces) -> bool:
        """Is a part that is solved a unit?"""
        return self.known[faces].part.kind is not None

    def _one_unit(self, faces: Faces) -> bool:
        """Do straight-edged patches make one unit?"""
        inner, _ = self.seams.of(faces)
        return self._kind(faces, inner, True) is not None

    def _framed(self, parts: list[Faces]) -> Steps[list[Faces]]:
        """Neighbouring parts between single patches taken together where they make one unit: what
        stands in a frame is not cut up along its own seams because they happen to run through."""
        pieced = [len(p) > 1 for p in parts]
        out: list[Faces] = []
        i = 0
        while i < len(parts):
            j = i
            while j < len(parts) and pieced[j]:
                j += 1
            if j - i > 1 and j - i < len(parts):
                whole = frozenset().union(*parts[i:j])
                framed, _ = yield self.solve(whole)
                if framed.kind:
                    out.append(whole)
                    i = j
                    continue
            out += parts[i : max(j, i + 1)]
            i = max(j, i + 1)
        return out

    # --- where no straight seam runs through ------------------------------------------------------

    def _assembled(self, faces: Faces, shape: Outline) -> Steps[Solved]:
        """A part sewn of cells; stuck where no order was found to sew them in."""
        cells = self.cells.cells(faces)
        groups = cells.groups if cells else [frozenset([f]) for f in sorted(faces)]
        solved: list[Solved] = []
        for group in groups:
            solved.append(self.at_hand(group) or (yield self.solve(group)))
        parts = tuple(part for part, _ in solved)
        if cells is None:
            stuck = Part(faces, shape.corners, None, parts, stuck=True)
            return Solved(stuck, BreakdownCost(1, 0, 1, len(parts), 1))
        self.orders[faces] = cells.order
        cost = BreakdownCost(
            sum(cost.stuck for _, cost in solved),
            sum(cells.order.awkward) + sum(cost.awkward for _, cost in solved),
            sum(cost.odd for _, cost in solved),
            sum(cost.units for _, cost in solved),
            len(solved),
        )
        return Solved(Part(faces, shape.corners, None, parts, short=cells.order.short), cost)


def _parallel(point: Point | None, other_point: Point) -> bool:
    return point is not None and cross(point, other_point) == 0


def _single(faces: Faces, patch: Patch) -> Solved:
    """A part that is one patch; stuck if another lies inside it."""
    if patch.holes:
        return Solved(Part(faces, patch.polygon, None, stuck=True), BreakdownCost(1, 0, 1, 1, 1))
    if patch.arcs:
        part = Part(faces, patch.outline, None, arcs=patch.arcs)
        return Solved(part, BreakdownCost(0, 0, 1, 1, 1))
    kind = name_unit(patch.outline, [patch.outline], [patch.fabric])
    return Solved(Part(faces, patch.outline, kind), BreakdownCost(0, 0, kind is None, 1, 1))
