"""The steps between the units and the block: rows, and awkward seams one by one, equal parts
together in one batch."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence

from inlet.core.assembly import Faces, Join, Side, faces_of, join_rims, part_shape
from inlet.core.cancellation import check
from inlet.core.draft import Draft
from inlet.core.fitting import SizesOfParts
from inlet.core.geometry import Picture, Polygon, is_rectangle, motion_between, squared_length
from inlet.core.methods import alike_from
from inlet.core.numbers import Exact, root_up
from inlet.core.piecing.edge_points import EdgePoints, points_text
from inlet.core.piecing.overhang import overhangs
from inlet.core.piecing.step import Step
from inlet.core.table import Size, about, ends_text, join_text, seam_notes
from inlet.core.trampoline import Steps, run
from inlet.core.units import Part, picture_of
from inlet.core.words import length_text


def assembly_steps(
    draft: Draft,
    root: Part,
    unit_names: dict[Faces, str],
    copies: int,
    made_sizes: SizesOfParts,
    block: str = "",
) -> list[Step]:
    """Steps, without their numbers, that sew units into ``copies`` blocks. Equal parts (some turn
    of one is the other, fabric for fabric) are sewn together; what holds a part that cannot be sewn
    has no step. Where several blocks are sewn, parts are named after their ``block``."""
    return _Assembly(draft, root, unit_names, copies, made_sizes, block).run()


class _Assembly:
    def __init__(
        self,
        draft: Draft,
        root: Part,
        unit_names: dict[Faces, str],
        copies: int,
        made: SizesOfParts,
        block: str,
    ) -> None:
        self.draft, self.root, self.copies, self.block = draft, root, copies, block
        self.made, self.measure = made, made.measure
        self.name_of = dict(unit_names)
        self.points = EdgePoints(draft)
        self.counters: dict[str, int] = defaultdict(int)
        # Equal parts are made of parts of equal names, in some order: only
        # those need their pictures compared. A group is its first part, its steps, and others.
        self.same_names: dict[tuple[str, ...], list[int]] = defaultdict(list)
        self.groups: list[tuple[Part, list[Step]]] = []
        self.others: list[list[Part]] = []

    def run(self) -> list[Step]:
        run(self.visit(self.root, "block"))
        return [
            step._replace(
                times=step.times * (1 + len(others)),
                alike=(*step.alike, *(others if step.part.faces == part.faces else ())),
            )
            for (part, steps), others in zip(self.groups, self.others, strict=True)
            for step in steps
        ]

    def visit(self, part: Part, noun: str) -> Steps[None]:
        check()
        if part.faces in self.name_of or not part.parts:
            return
        for inner in part.parts:
            yield self.visit(inner, noun_of(part) if part is self.root else "part")
        if part.stuck or any(p.faces not in self.name_of for p in part.parts):
            return  # it, or something in it, cannot be sewn
        names = tuple(self.name_of[p.faces] for p in part.parts)
        own = self.same_names[tuple(sorted(names))]
        picture = picture_of(self.draft, part.faces) if own else ()
        for g in own:
            first = self.groups[g][0]
            if motion_between(picture_of(self.draft, first.faces), picture):
                self.others[g].append(part)
                self.name_of[part.faces] = self.name_of[first.faces]
                return
        own.append(len(self.groups))
        if part.awkward:  # parts on the way to it are sewn, and named, before it
            steps = self.joins(part, noun)
        else:
            self.name_of[part.faces] = self.new_name(part.faces, noun)
            steps = [self.row(part)]
        self.groups.append((part, steps))
        self.others.append([])

    def new_name(self, faces: Faces, noun: str) -> str:
        if faces == self.root.faces:
            return self.block or "block"
        self.counters[noun] += 1
        return f"{self.block} {noun} {self.counters[noun]}".lstrip()

    # --- rows ---------------------------------------------------------------------------------

    def row(self, part: Part) -> Step:
        """All the parts of a row, column or section in one step."""
        names = [self.name_of[p.faces] for p in part.parts]
        joins = part.joins
        seams = "one seam" if len(joins) == 1 else f"{len(joins)} seams"
        how = {"row": "top to bottom", "column": "left to right"}.get(noun_of(part), "in order")
        if len(joins) > 1 and joins[0] not in joins[1].sides:
            how += ", in pairs, then pairs of pairs" + (", the odd one last" * (len(names) % 2))
        text = f"Sew {run_lengths(names)}, {how}: {seams}. Press, then measure."
        points = self.points.of(part.faces)
        return Step(
            0,
            self.name_of[part.faces],
            self.copies,
            text,
            self.size(part),
            self.sizes_on_the_way(part),
            part,
            None,
            ends=_ENDS[max(len(join.dots) for join in joins)],
            notes=(*self.ear_notes(self.ears(part)), *self.point_notes(points)),
            points=points,
            needs=tuple(names),
            seams=len(joins),
            length=sum(map(self.sewn_length, joins)),
        )

    def size(self, part: Part) -> Size | None:
        """What a part measures, raw edge to raw edge, as it comes out; None for other shapes than
        rectangles."""
        exact = raw_size(part.outline, self.measure.seam)
        return None if exact is None else self.made.of(part, exact)

    def sizes_on_the_way(self, part: Part) -> tuple[Size, ...]:
        """Raw sizes after each seam of a row or column of rectangles but the last."""
        across = part.across
        if across is None or (across.x != 0 and across.y != 0):
            return ()
        twice = 2 * self.measure.seam
        sizes: list[Size] = []
        so_far: Size | None = None
        for inner in part.parts[:-1]:
            size = self.size(inner)
            if size is None:
                return ()
            if so_far is None:
                so_far = size
            elif across.x == 0:
                so_far = (so_far[0], so_far[1] + size[1] - twice)
            else:
                so_far = (so_far[0] + size[0] - twice, so_far[1])
            sizes.append(so_far)
        return tuple(sizes[1:])

    def sewn_length(self, join: Join) -> float:
        """The length of a seam, its allowances included."""
        return join.length + 2 * float(self.measure.seam)

    def ears(self, part: Part) -> float:
        """How far at most one raw edge reaches past the other in a row's seams; rectangles' are
        equal."""
        seam, far = float(self.measure.seam), 0.0
        beside = {f: inner for inner in part.parts for f in inner.faces}
        for join in part.joins:
            edge = self.draft.arrangement.edges[join.edges[0]]
            one, two = beside[edge.right], beside[edge.left]
            if not (is_rectangle(one.outline) and is_rectangle(two.outline)):
                found = (overhangs(self.draft, one.faces, two.faces, v, seam) for v in join.ends)
                far = max(far, *found)
        return far

    def ear_notes(self, far: float) -> tuple[str, ...]:
        """What to match where raw edges are not equal."""
        if far < float(self.measure.seam) / 16:
            return ()
        return (
            f"A tip reaches up to {about(far, self.measure)} past the other piece: match where the "
            "sewing lines meet, not the raw edges. Trim the tips once it is pressed.",
        )

    def point_notes(self, points: Sequence[int]) -> tuple[str, ...]:
        seam = length_text(self.measure.seam, self.measure)
        return (points_text(len(points), seam),) if points else ()

    # --- awkward seams ------------------------------------------------------------------------

    def joins(self, part: Part, noun: str) -> list[Step]:
        """A step for each seam of a part, those alike together; the last names the part."""
        names: dict[Side, str] = {inner.side: self.name_of[inner.faces] for inner in part.parts}
        steps: list[Step] = []
        k = 0
        while k < len(part.joins):
            check()
            same = alike_from(part.joins, k, self.picture)
            alike = part.joins[k : k + same]
            done = [self.made_by(join) for join in alike]
            grows = same > 1 and alike[-2] in alike[-1].sides
            last = done[-1] if grows else done[0]
            whole = last.faces == part.faces
            name = self.new_name(last.faces, noun if whole else "part")
            if whole:
                self.name_of[part.faces] = name
            step = self.join(alike[0], [names[s] for s in alike[0].larger_first], last, same, name)
            steps.append(step if grows else step._replace(alike=tuple(done[1:])))
            names.update(dict.fromkeys(alike, name))
            k += same
        return steps

    def picture(self, side: Side) -> Picture:
        return picture_of(self.draft, faces_of(side))

    def made_by(self, join: Join) -> Part:
        """What a join makes, on the way to a whole part."""
        shape = part_shape(self.draft, join_rims(self.draft, join))
        return Part(join.faces, shape.corners, None, arcs=shape.arcs)

    def join(self, join: Join, names: Sequence[str], part: Part, same: int, name: str) -> Step:
        """The step that sews ``same`` joins like one, whose larger side is named first; ``name`` is
        what comes of it."""
        measure, seam = self.measure, float(self.measure.seam)
        one, other = names
        named = f"another {other}" if one == other else other
        points = self.points.of(part.faces)
        large, small = map(faces_of, join.larger_first)
        far = max(overhangs(self.draft, large, small, v, seam) for v in join.ends)
        ears = () if join.left_open else self.ear_notes(far)
        return Step(
            0,
            name,
            self.copies * same,
            join_text(join, one, named, measure),
            self.size(part) if not part.arcs else None,
            (),
            part,
            None,
            join,
            ends_text(join, measure),
            (*seam_notes(join, measure), *ears, *self.point_notes(points)),
            points,
            (one, other),
            len(join.legs),
            self.sewn_length(join),
        )


_ENDS = ("edge to edge", "edge to dot", "dot to dot")


def noun_of(part: Part) -> str:
    """What the parts of a part are called, by how its last seams run."""
    if part.across is None:
        return "part"
    if part.across.x == 0:
        return "row"
    return "column" if part.across.y == 0 else "section"


def run_lengths(names: Sequence[str]) -> str:
    """“A, B, A”; long runs of one name are counted."""
    lengths: list[str] = []
    i = 0
    while i < len(names):
        j = i
        while j < len(names) and names[j] == names[i]:
            j += 1
        lengths += [f"{j - i} × {names[i]}"] if j - i > 3 else names[i:j]
        i = j
    return ", ".join(lengths)


def raw_size(outline: Polygon, seam: Exact) -> Size | None:
    """Raw edge to raw edge (width, height as it lies) of a rectangle; None for other shapes."""
    if not is_rectangle(outline):
        return None
    a, b, c, _ = outline
    if a.x == b.x or a.y == b.y:
        return abs(c.x - a.x) + 2 * seam, abs(c.y - a.y) + 2 * seam
    first = root_up(squared_length(a, b)) + 2 * seam
    second = root_up(squared_length(b, c)) + 2 * seam
    return first, second
