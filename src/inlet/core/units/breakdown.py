"""Breaking a block down: which seams run through, and what they leave between them.

A block is split along seams that run from edge to edge of it, then each part in the same way; a
part's last seams to be sewn are the ones it is split along here. Where no straight seam runs
through, the assembler finds the order in which what is there can be sewn together.
Parts that are units are named on the way (``kinds``), by their patches or by units nested in them;
splits are chosen to leave whole units, then few units, then rows.
"""

from __future__ import annotations

from bisect import bisect_left
from collections import defaultdict
from collections.abc import Sequence
from functools import cached_property
from typing import NamedTuple

from inlet.core.assembly.net import Faces, unpassed
from inlet.core.assembly.sewing import Order, sewing_order
from inlet.core.assembly.shape import join_rims, part_shape, rim
from inlet.core.deep import Steps, run
from inlet.core.draft.patches import Draft, points_of
from inlet.core.draft.snapping import grid_lines
from inlet.core.geometry.curve import Circle, Curve
from inlet.core.geometry.inside import inside_point
from inlet.core.geometry.outline import Arcs, Outline
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import Line, Polygon
from inlet.core.geometry.shapes import is_rectangle
from inlet.core.project.unit_kind import UnitKind
from inlet.core.stopping import check
from inlet.core.units.joining import with_joins
from inlet.core.units.kinds import name_curved_unit, name_stuck_unit, name_unit
from inlet.core.units.parts import Part, tiling
from inlet.core.units.rounds import Rounds, flattened_bands, read_rounds


class _Cost(NamedTuple):
    """What a way of splitting leaves: stuck parts, pivots and partial seams, odd pieces, units,
    different parts to make."""

    stuck: int
    awkward: int
    odd: int
    units: int
    kinds: int


Solved = tuple[Part, _Cost]
"""A part, and what sewing it takes."""


def break_down(draft: Draft) -> Part:
    """The whole block as a tree of parts. Never fails: what cannot be sewn, as an island in a
    patch, is a ``stuck`` part."""
    breaker = _Breaker(draft)
    root = breaker.part(frozenset(range(len(draft.patches))))
    return with_joins(draft, root, breaker.orders)


_ALL_WAYS = 12
"""Parts of up to this many patches have every direction of split tried, larger ones only the
straight-grain ones; keeps the search small where many seams cross."""

_ALL_CELLS = 60
"""Parts of up to this many patches are also tried patch by patch where that could be better."""


class _Breaker:
    def __init__(self, draft: Draft) -> None:
        self.draft = draft
        arrangement = draft.arrangement
        self.edges = arrangement.edges
        self.sx, self.sy = draft.block.scale
        self.points = points_of(draft)
        self.edges_of = arrangement.edges_of
        self.middle = [
            inside_point(patch.shape).floats()
            if patch.arcs
            else _mean([p.floats() for p in patch.outline])
            for patch in draft.patches
        ]
        self.slope = [_slope(line) for line in arrangement.lines]
        block = draft.block
        self.bands = set(grid_lines(block.columns)), set(grid_lines(block.rows))
        self.on_band = [self._is_band(line) for line in arrangement.lines]
        self.known: dict[Faces, Solved] = {}
        self.orders: dict[Faces, Order] = {}
        self.rounds: dict[Faces, Rounds] = {}
        self._likeness: dict[Faces, tuple[object, ...]] = {}

    def _is_band(self, line: Line | Circle) -> bool:
        """Does a line of the drawing lie on a line of the block's grid?"""
        if isinstance(line, Circle):
            return False
        if line.b == 0:
            return line.c / line.a in self.bands[0]
        return line.a == 0 and line.c / line.b in self.bands[1]

    def part(self, faces: Faces) -> Part:
        return run(self.solve(faces))[0]

    def solve(self, faces: Faces) -> Steps[Solved]:
        found = self.known.get(faces)
        if found is None:
            check()
            found = self.known[faces] = yield from self._solve(faces)
        return found

    def _solve(self, faces: Faces) -> Steps[Solved]:
        patches = [self.draft.patches[f] for f in sorted(faces)]
        if len(patches) == 1:
            (patch,) = patches
            if patch.holes:
                return Part(faces, patch.polygon, None, stuck=True), _Cost(1, 0, 1, 1, 1)
            if patch.arcs:
                return Part(faces, patch.outline, None, arcs=patch.arcs), _Cost(0, 0, 1, 1, 1)
            kind = name_unit(patch.outline, [patch.outline], [patch.fabric])
            return Part(faces, patch.outline, kind), _Cost(0, 0, kind is None, 1, 1)
        outline, arcs = self.shape(faces)
        inner, edge = self._seams(faces)
        straight_edge = not any(self.slope[self.edges[k].line] is _ROUND for k in edge)
        kind = None
        if not any(p.arcs for p in patches):
            bands = {self.on_band[self.edges[k].line] for k in inner}
            outlines, cloths = [p.outline for p in patches], [p.fabric for p in patches]
            kind = name_unit(outline, outlines, cloths, (True in bands, False in bands))
        elif straight_edge:
            curves = [self.curve(k) for k in inner]
            kind = name_curved_unit(outline, curves, len(patches))
        found = yield from self._split_best(faces, outline, arcs, kind)
        if found is None:
            found = yield from self._assembled(faces, outline, inner)
        part, cost = found
        part = part._replace(arcs=arcs)
        if kind is None and straight_edge:
            part = self._named_by_cells(part)
        else:
            part = part._replace(kind=kind)
        return (part, _Cost(int(part.stuck), cost.awkward, 0, 1, 1)) if part.kind else (part, cost)

    def _split_best(
        self, faces: Faces, outline: Polygon, arcs: Arcs, kind: UnitKind | None
    ) -> Steps[Solved | None]:
        """A part split along through seams in the way that leaves least; None if none runs."""
        best: Solved | None = None
        for lines in self._ways(self.chords(faces), len(faces)):
            parts = self._split(faces, lines)
            if len(parts) < 2:
                continue  # seams a hair apart, with no patch's middle between them
            if arcs:  # a part may bend round: what lies beyond a line need not hang together
                inner, _ = self._seams(faces)
                kept = [k for k in inner if self.edges[k].line not in lines]
                apart = self._components(faces, kept)
                if set(apart) != set(parts):
                    continue
            solved: list[Solved] = []
            for p in (yield from self._framed(parts)):
                solved.append((yield self.solve(p)))
            across = self._across(lines[0])
            grouped, cost = self._group_strips(solved, across)
            if best is None or cost < best[1]:
                whole = Part(faces, outline, kind, grouped, across)
                best = (grouped[0]._replace(kind=kind) if len(grouped) == 1 else whole), cost
        return best

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

    def _seams(self, faces: Faces) -> tuple[list[int], list[int]]:
        """The edges between a part's patches, and those round it."""
        inner, edge = [], []
        for f in faces:
            for k in self.edges_of[f]:
                e = self.edges[k]
                if e.right not in faces or e.left not in faces:
                    edge.append(k)
                elif e.right == f:
                    inner.append(k)
        return inner, edge

    def curve(self, k: int) -> Curve:
        """An edge at finished size; arcs are drawn only where both scales are one."""
        found = self.draft.arrangement.curve(self.edges[k])
        centre = found.centre and found.centre.scaled(self.sx, self.sy)
        return Curve(self.points[self.edges[k].start], self.points[self.edges[k].end], centre)

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

    # --- where to split -----------------------------------------------------------------------

    def chords(self, faces: Faces, curved: bool = False) -> list[int]:
        """The lines along which seams run through a part from edge to edge; circles only if asked
        for."""
        seen: set[int] = set()
        ends: dict[int, set[int]] = defaultdict(set)
        boundary: set[int] = set()
        for f in faces:
            for k in self.edges_of[f]:
                edge = self.edges[k]
                if (edge.right in faces) and (edge.left in faces):
                    if k not in seen:
                        seen.add(k)
                        ends[edge.line] ^= {edge.start, edge.end}
                else:
                    boundary |= {edge.start, edge.end}
        # Vertices met by an odd number of the line's edges are where its seams begin and end: two
        # of them, both on the part's edge, and the seam runs through.
        return [
            line
            for line, odd in ends.items()
            if len(odd) == 2 and odd <= boundary and (curved or self.slope[line] is not _ROUND)
        ]

    def _ways(self, chords: Sequence[int], size: int) -> list[list[int]]:
        """Sets of parallel seams to split along together, best guess first."""
        by_slope: dict[object, list[int]] = defaultdict(list)
        for line in chords:
            by_slope[self.slope[line]].append(line)
        ways = []
        for lines in by_slope.values():
            on_band = [line for line in lines if self.on_band[line]]
            ways.append(on_band or lines)
        straight = [w for w in ways if self.slope[w[0]] in (None, 0)]
        if straight:
            return sorted(straight, key=lambda w: self.slope[w[0]] is None)
        ways.sort(key=lambda w: (-len(w), min(w)))
        return ways if size <= _ALL_WAYS else ways[:1]

    def _form(self, line: int) -> Line:
        form = self.draft.arrangement.lines[line]
        assert isinstance(form, Line)  # circles run through nothing here
        return form

    def _across(self, line: int) -> Point:
        """A step square to a line at finished size, pointing down, or right for upright lines.
        a·x + b·y = c in grid units is (a/sx)·X + (b/sy)·Y = c in finished ones."""
        form = self._form(line)
        a, b = form.a / self.sx, form.b / self.sy
        return Point(a, b) if b > 0 or (b == 0 and a > 0) else Point(-a, -b)

    def _split(self, faces: Faces, lines: Sequence[int]) -> list[Faces]:
        """The parts between parallel through seams, in order along ``_across``. Each patch lies
        wholly between two of them, so its middle tells which."""
        across = self._across(lines[0]).floats()
        sx, sy = float(self.sx), float(self.sy)
        levels = []
        for line in lines:
            form = self._form(line)
            a, b, c = float(form.a) / sx, float(form.b) / sy, float(form.c)
            levels.append(c * (across[0] * a + across[1] * b) / (a * a + b * b))
        levels.sort()
        bins: dict[int, set[int]] = defaultdict(set)
        for f in faces:
            x, y = self.middle[f]
            at = across[0] * x + across[1] * y
            bins[bisect_left(levels, at)].add(f)
        return [frozenset(bins[i]) for i in sorted(bins)]

    def outline(self, faces: Faces) -> Polygon:
        return self.shape(faces).corners

    def shape(self, faces: Faces) -> Outline:
        return part_shape(self.draft, faces)

    # --- rows ---------------------------------------------------------------------------------

    def _group_strips(self, solved: list[Solved], across: Point) -> tuple[tuple[Part, ...], _Cost]:
        """Neighbouring bands in a row taken together as units of strips, fewest units in all.

        ``best[i]`` is the cheapest way to have the first i parts: the last unit of it is part i on
        its own, or a run of plain bands that ends with it.
        """
        band = [len(p.faces) == 1 and p.kind == "rectangle" for p, _ in solved]
        best: list[tuple[int, int]] = [(0, 0)]  # (units, where the last group starts)
        groups: dict[tuple[int, int], Part] = {}
        for i in range(1, len(solved) + 1):
            choice = (best[i - 1][0] + solved[i - 1][1].units, i - 1)
            j = i - 1
            while j > 0 and band[i - 1] and band[j - 1] and i - j < len(solved):
                j -= 1
                group = self._band_unit([p for p, _ in solved[j:i]], across)
                if group is None:
                    break
                groups[j, i] = group
                choice = min(choice, (best[j][0] + 1, j))
            best.append(choice)
        out: list[Part] = []
        i = len(solved)
        while i:
            j = best[i][1]
            out.append(groups[j, i] if i - j > 1 else solved[j][0])
            i = j
        costs = [c for _, c in solved]
        different = {self.likeness(p) for p, _ in solved}
        return tuple(reversed(out)), _Cost(
            sum(c.stuck for c in costs),
            sum(c.awkward for c in costs),
            sum(c.odd for c in costs),
            best[-1][0],
            len(different),
        )

    def likeness(self, part: Part) -> tuple[object, ...]:
        """A quick key, the same for parts that are the same piece of work, cloth for cloth; for
        some that are not, too."""
        found = self._likeness.get(part.faces)
        if found is None:
            looks = sorted(self.looks[f] for f in part.faces)
            found = self._likeness[part.faces] = (*sorted(_size(part.outline)), *looks)
        return found

    @cached_property
    def looks(self) -> list[tuple[str, int, float]]:
        """Of each patch its cloth, corners and size of box."""
        return [
            (patch.fabric or "", len(patch.outline), round(_box_area(patch.outline), 6))
            for patch in self.draft.patches
        ]

    def _band_unit(self, parts: list[Part], across: Point) -> Part | None:
        """Plain bands side by side as one unit of strips, if that is what they are."""
        faces = frozenset(f for p in parts for f in p.faces)
        outline = self.outline(faces)
        outlines = [p.outline for p in parts]
        cloths = [self.draft.patches[p.face].fabric for p in parts]
        if name_unit(outline, outlines, cloths) != "strips":
            return None
        return Part(faces, outline, "strips", tuple(parts), across)

    # --- where no straight seam runs through --------------------------------------------------

    def _assembled(self, faces: Faces, outline: Polygon, inner: Sequence[int]) -> Steps[Solved]:
        """A part sewn as the assembler finds best, from cells that can be sewn before anything
        around them: what curves that run through leave between them, or what straight seams do."""
        curves = self._curved_chords(faces)
        if curves:
            groups = self._components(faces, [k for k in inner if self.edges[k].line not in curves])
        else:
            groups = self._early(faces)
        order = self._order(groups)
        if order is None:
            parts = tuple(self.part(frozenset([f])) for f in sorted(faces))
            return Part(faces, outline, None, parts, stuck=True), _Cost(1, 0, 1, len(parts), 1)
        groups, order = self._with_whole_parts(groups, order)
        least = len(self.unpassed & self._inside(inner, faces))
        if order.awkward > (least, 0) and len(groups) < len(faces) <= _ALL_CELLS:
            # Cells taken together early could stand in the way of a better order.
            single = [frozenset([f]) for f in sorted(faces)]
            other = self._order(single)
            if other is not None and other.awkward < order.awkward:
                groups, order = single, other
        solved: list[Solved] = []
        for g in groups:
            solved.append((yield self.solve(g)))
        costs = [c for _, c in solved]
        cost = _Cost(
            sum(c.stuck for c in costs),
            order.awkward[0] + order.awkward[1] + sum(c.awkward for c in costs),
            sum(c.odd for c in costs),
            sum(c.units for c in costs),
            len(costs),
        )
        parts = tuple(p for p, _ in solved)
        self.orders[faces] = order
        return Part(faces, outline, None, parts, short=order.short), cost

    def _inside(self, inner: Sequence[int], faces: Faces) -> set[int]:
        """The vertices inside a part, given the edges inside it."""
        _, edge = self._seams(faces)
        rim = {v for k in edge for v in (self.edges[k].start, self.edges[k].end)}
        return {v for k in inner for v in (self.edges[k].start, self.edges[k].end)} - rim

    @cached_property
    def unpassed(self) -> set[int]:
        return set(unpassed(self.draft))

    def _order(self, groups: Sequence[Faces]) -> Order | None:
        if any(self.draft.patches[f].holes for g in groups for f in g):
            return None
        return sewing_order(self.draft, groups)

    def _curved_chords(self, faces: Faces) -> set[int]:
        """The circles along which seams run through a part from edge to edge."""
        return {line for line in self.chords(faces, True) if self.slope[line] is _ROUND}

    def _components(self, faces: Faces, open_edges: Sequence[int]) -> list[Faces]:
        """Patches that hang together by edges that are not sewn last."""
        beside: dict[int, list[int]] = defaultdict(list)
        for k in open_edges:
            right, left = self.edges[k].right, self.edges[k].left
            beside[right].append(left)
            beside[left].append(right)
        out, seen = [], set()
        for f in sorted(faces):
            if f in seen:
                continue
            group, waiting = {f}, [f]
            while waiting:
                new = [g for g in beside[waiting.pop()] if g not in group]
                group.update(new)
                waiting += new
            seen |= group
            out.append(frozenset(group))
        return out

    def _early(self, faces: Faces) -> list[Faces]:
        """What can be sewn together first, bottom up: two parts can be joined early when they share
        one whole side of each."""
        owner: dict[int, Faces] = {f: frozenset([f]) for f in faces}
        waiting = sorted(faces)
        while waiting:
            check()
            one = owner[waiting.pop(0)]
            other = next(
                (g for g in self._neighbours(one, owner) if self._whole_side(one, g)), None
            )
            if other is not None:
                joined = one | other
                owner.update(dict.fromkeys(joined, joined))
                waiting.append(min(joined))
        groups = sorted(set(owner.values()), key=min)
        # joined all round, yet no seam runs through: patch by patch
        return groups if len(groups) > 1 else [frozenset([f]) for f in sorted(faces)]

    def _with_whole_parts(self, groups: list[Faces], order: Order) -> tuple[list[Faces], Order]:
        """Rectangles that are sewn on the way taken as parts of their own, where that costs no
        seam more: a ring inside a ring is a unit."""
        made = list(groups)
        for join in order.joins[:-1]:
            check()
            made.append(join_rims(self.draft, join))
        whole: list[Faces] = []
        for faces in sorted(made[len(groups) :], key=len, reverse=True):
            check()
            if not any(faces <= g for g in whole) and self._is_rectangle(faces):
                whole.append(faces)
        if not whole:
            return groups, order
        kept = [g for g in groups if not any(g <= w for w in whole)]
        new = sorted(kept + whole, key=min)
        outer = self._order(new)
        inner = [self._order([g for g in groups if g <= w]) for w in whole]
        if outer is None or any(o is None for o in inner):
            return groups, order
        awkward = [o.awkward for o in (outer, *inner) if o is not None]
        if (sum(p for p, _ in awkward), sum(q for _, q in awkward)) > order.awkward:
            return groups, order
        return new, outer._replace(short=order.short)

    def _is_rectangle(self, faces: Faces) -> bool:
        around = {self.edges[k].line for k in rim(self.draft, faces)}
        return len(around) == 4 and is_rectangle(self.outline(faces))

    def _neighbours(self, one: Faces, owner: dict[int, Faces]) -> list[Faces]:
        """The groups that share a seam with ``one``, in a fixed order."""
        beside = {
            owner[face]
            for f in one
            for k in self.edges_of[f]
            for face in (self.edges[k].right, self.edges[k].left)
            if face in owner and face not in one
        }
        return sorted(beside, key=min)

    def _whole_side(self, one: Faces, other: Faces) -> bool:
        """Do two neighbours meet along one whole side of each, and make a triangle or a
        quadrilateral? Then that seam can be sewn before anything around it."""
        lines = {
            self.edges[k].line
            for f in one
            for k in self.edges_of[f]
            if self.edges[k].right in other or self.edges[k].left in other
        }
        both = one | other
        return len(lines) == 1 and 2 < len(self.outline(both)) <= 4 and bool(self.chords(both))


_ROUND = object()
"""The slope of a circle."""


def _slope(line: Line | Circle) -> object:
    if isinstance(line, Circle):
        return _ROUND
    return None if line.b == 0 else line.a / line.b


def _mean(points: Sequence[tuple[float, float]]) -> tuple[float, float]:
    return (sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points))


def _box_area(outline: Polygon) -> float:
    wide, high = _size(outline)
    return wide * high


def _size(outline: Polygon) -> tuple[float, float]:
    if not outline:  # no single loop, see ``_Breaker.outline``
        return 0.0, 0.0
    xs, ys = zip(*(p.floats() for p in outline), strict=True)
    return round(max(xs) - min(xs), 6), round(max(ys) - min(ys), 6)
