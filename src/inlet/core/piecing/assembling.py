"""The steps between the units and the block: rows, and awkward seams one by one, equal parts
together in one batch."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from itertools import pairwise
from math import dist

from inlet.core.assembly.net import Faces
from inlet.core.assembly.shape import ends_of, join_rims, part_shape, shared_edges
from inlet.core.deep import Steps, run
from inlet.core.draft.patches import Draft, points_of
from inlet.core.geometry.motion import motion_between
from inlet.core.geometry.polygon import Polygon, squared_length
from inlet.core.geometry.shapes import is_rectangle
from inlet.core.methods.inset import alike_from
from inlet.core.numbers.root2 import Exact, root_up
from inlet.core.piecing.overhang import overhangs
from inlet.core.piecing.seam_words import about, ends_text, join_text, seam_notes
from inlet.core.piecing.step import Seaming, Step
from inlet.core.piecing.tips import Tips, tips_text
from inlet.core.project.measure import Measure
from inlet.core.stopping import check
from inlet.core.table.pieces import Size
from inlet.core.table.seams import seam_length
from inlet.core.units.parts import Part, merges, walk
from inlet.core.units.units import picture_of
from inlet.core.words import length_text

Named = tuple[Part, str]


def assembly_steps(
    draft: Draft, root: Part, unit_names: dict[Faces, str], copies: int, measure: Measure
) -> list[Step]:
    """Steps, without their numbers, that sew units into ``copies`` blocks. Equal parts (some turn
    of one is the other, cloth for cloth) are sewn together; what holds a part that cannot be sewn
    has no step."""
    return _Assembly(draft, root, unit_names, copies, measure).run()


class _Assembly:
    def __init__(
        self,
        draft: Draft,
        root: Part,
        unit_names: dict[Faces, str],
        copies: int,
        measure: Measure,
    ) -> None:
        self.draft, self.root, self.copies, self.measure = draft, root, copies, measure
        self.name_of = dict(unit_names)
        self.points, self.tips = points_of(draft), Tips(draft)
        self.counters: dict[str, int] = defaultdict(int)
        # Equal parts are made of parts of equal names, in some order: only
        # those need their pictures compared. A group is its first part, its steps, and others.
        self.same_names: dict[tuple[str, ...], list[int]] = defaultdict(list)
        self.groups: list[tuple[Part, list[Step]]] = []
        self.others: list[list[Part]] = []
        # where some seam turns, and those before it stop at a dot
        self.dots = {v for part in walk(root) for how in part.sewings for v in how.pivots}

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
        picture = picture_of(self.draft, part) if own else ()
        for g in own:
            first = self.groups[g][0]
            if motion_between(picture_of(self.draft, first), picture):
                self.others[g].append(part)
                self.name_of[part.faces] = self.name_of[first.faces]
                return
        own.append(len(self.groups))
        self.name_of[part.faces] = self.new_name(part.faces, noun)
        steps = self.joins(part) if part.sewings else [self.row(part)]
        self.groups.append((part, steps))
        self.others.append([])

    def new_name(self, faces: Faces, noun: str) -> str:
        if faces == self.root.faces:
            return "block"
        self.counters[noun] += 1
        return f"{noun} {self.counters[noun]}"

    # --- rows ---------------------------------------------------------------------------------

    def row(self, part: Part) -> Step:
        """All the parts of a row, column or section in one step."""
        names = [self.name_of[p.faces] for p in part.parts]
        pairs = list(pairwise(part.parts))
        seams = "one seam" if len(pairs) == 1 else f"{len(pairs)} seams"
        how = {"row": "top to bottom", "column": "left to right"}.get(noun_of(part), "in order")
        if merges(part)[1:2] == ((2, 3),):
            how += ", in pairs, then pairs of pairs" + (", the odd one last" * (len(names) % 2))
        text = f"Sew {run_lengths(names)}, {how}: {seams}. Press, then measure."
        tips = self.tips.of(part.faces)
        seams_ends = [
            ends_of(self.draft, shared_edges(self.draft, one.faces, two.faces))
            for one, two in pairs
        ]
        ends = [_ENDS[sum(v in self.dots for v in pair)] for pair in seams_ends]
        return Step(
            0,
            self.name_of[part.faces],
            self.copies,
            text,
            raw_size(part.outline, self.measure.seam),
            _sizes_on_the_way(part, self.measure.seam),
            part,
            None,
            ends=max(ends, key=_ENDS.index),
            notes=(*self.ear_notes(self.ears(pairs, seams_ends)), *self.tip_notes(tips)),
            tips=tips,
            needs=tuple(names),
            seams=len(pairs),
            length=sum(map(self.between, seams_ends)),
        )

    def between(self, ends: Sequence[int]) -> float:
        """The length of a seam between two vertices, its allowances included."""
        points = [self.points[v].floats() for v in ends]
        return dist(points[0], points[-1]) + 2 * float(self.measure.seam)

    def ears(self, pairs: Sequence[tuple[Part, Part]], ends: Sequence[Sequence[int]]) -> float:
        """How far at most one raw edge reaches past the other in a row's seams; rectangles' are
        equal."""
        seam, far = float(self.measure.seam), 0.0
        for (one, two), vertices in zip(pairs, ends, strict=True):
            if not (is_rectangle(one.outline) and is_rectangle(two.outline)):
                found = (overhangs(self.draft, one.faces, two.faces, v, seam) for v in vertices)
                far = max(far, *found)
        return far

    def ear_notes(self, far: float) -> tuple[str, ...]:
        """What to match where raw edges are not equal."""
        if far < float(self.measure.seam) / 16:
            return ()
        return (
            f"A tip reaches up to {about(far, self.measure)} past the other piece: match where the "
            "sewing lines meet, not the raw edges.",
        )

    def tip_notes(self, tips: Sequence[int]) -> tuple[str, ...]:
        seam = length_text(self.measure.seam, self.measure)
        return (tips_text(len(tips), seam),) if tips else ()

    # --- awkward seams ------------------------------------------------------------------------

    def joins(self, part: Part) -> list[Step]:
        """A step for each seam of a part, those alike together."""
        made: list[Named] = [(inner, self.name_of[inner.faces]) for inner in part.parts]
        pictures = [picture_of(self.draft, inner) for inner in part.parts]
        pairs = merges(part)
        steps: list[Step] = []
        k = 0
        while k < len(pairs):
            check()
            same = alike_from(pictures, pairs, part.sewings, k)
            grows = same > 1 and max(pairs[k + same - 1]) >= len(made)
            done: list[Part] = []
            for pair in pairs[k : k + same]:
                one, other = (made[i][0] if i < len(made) else done[i - len(made)] for i in pair)
                faces = join_rims(self.draft, one.faces, other.faces)
                shape = part_shape(self.draft, faces)
                done.append(Part(faces, shape.corners, None, arcs=shape.arcs))
                pictures.append(picture_of(self.draft, done[-1]))
            last = done[-1] if grows else done[0]
            whole = last.faces == part.faces
            name = self.name_of[part.faces] if whole else self.new_name(last.faces, "part")
            step = self.join(part, k, [made[i] for i in pairs[k]], last, same, name)
            steps.append(step if grows else step._replace(alike=tuple(done[1:])))
            made += [(each, name) for each in done]
            k += same
        return steps

    def join(
        self, part: Part, k: int, two: Sequence[Named], whole: Part, same: int, name: str
    ) -> Step:
        how, measure = part.sewings[k], self.measure
        one, other = sorted(two, key=lambda m: -len(m[0].faces))
        named = f"another {other[1]}" if one[1] == other[1] else other[1]
        tips = self.tips.of(whole.faces)
        ends = (how.vertices[0], how.vertices[-1])
        left_open = {f.vertex for f in how.left_open}
        far = max(
            overhangs(self.draft, one[0].faces, other[0].faces, v, float(measure.seam))
            for v in ends
        )
        ears = () if left_open else self.ear_notes(far)
        return Step(
            0,
            name,
            self.copies * same,
            join_text(how, one[1], named, measure),
            raw_size(whole.outline, measure.seam) if not whole.arcs else None,
            (),
            whole,
            None,
            Seaming(how, part.sewings, one[0], other[0]),
            ends_text(how, measure),
            (*seam_notes(how, measure), *ears, *self.tip_notes(tips)),
            tips,
            (one[1], other[1]),
            len(how.legs),
            seam_length(how) + 2 * float(measure.seam),
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
    out: list[str] = []
    i = 0
    while i < len(names):
        j = i
        while j < len(names) and names[j] == names[i]:
            j += 1
        out += [f"{j - i} × {names[i]}"] if j - i > 3 else names[i:j]
        i = j
    return ", ".join(out)


def _sizes_on_the_way(part: Part, seam: Exact) -> tuple[Size, ...]:
    """Raw sizes after each seam of a row or column of rectangles but the last."""
    across = part.across
    if across is None or (across.x != 0 and across.y != 0):
        return ()
    out: list[Size] = []
    so_far: Size | None = None
    for inner in part.parts[:-1]:
        size = raw_size(inner.outline, seam)
        if size is None:
            return ()
        if so_far is None:
            so_far = size
        elif across.x == 0:
            so_far = (so_far[0], so_far[1] + size[1] - 2 * seam)
        else:
            so_far = (so_far[0] + size[0] - 2 * seam, so_far[1])
        out.append(so_far)
    return tuple(out[1:])


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
