"""Triangles, diamonds, trapezoids and mitred ends cut from a strip by the ruler's angle lines.

A patch with two parallel sides lies in a strip between them, which is cut as wide as the patch is
between those sides, and the allowance twice; a triangle between its longest side and its tip. Its
other two sides are cuts across the strip at an angle. Turned half round, a piece has the same two
slants, so pieces lie head to tail with no waste between them: each cut serves two. A
parallelogram's slants are parallel, and it need not be turned.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import atan2, ceil, degrees, floor, hypot
from typing import NamedTuple

from inlet.core.cutlist import Cut
from inlet.core.geometry import Outline, Polygon, cross, dot, edges, squared_length
from inlet.core.memo import memo
from inlet.core.numbers import Exact, Fraction, nearest_mark, next_mark, sqrt_exact
from inlet.core.planning import cut_to_meet
from inlet.core.project import Measure
from inlet.core.templates.cut_line import Place, Side, cutting_sides, sewing_sides
from inlet.core.words import length_text

HAIR = 1e-9


class Angled(NamedTuple):
    """How a stack is cut from strips. ``strip`` is the strip's width, exact where it is known so,
    and ``strip_mark`` where it is cut: what it is too wide, pieces are too high. ``angles`` are
    those of its two cuts with the strip's edge, in degrees up to 90; ``leans`` where a
    parallelogram's tops go, right side up, ``left`` or ``right``. ``step`` is from one cut to the
    next, square to the cut, for a parallelogram; otherwise ``long`` and ``short`` are the two
    parallel edges, by turns along one edge of the strip; a triangle's short one is its tip.
    ``slants`` are how far its left and its right cut run along the strip, the long edge below: over
    that edge, or, below zero, out beyond it."""

    kind: str
    strip: float
    strip_mark: Fraction
    angles: tuple[float, float]
    leans: str
    step: float
    long: float
    short: float
    slants: tuple[float, float]

    @property
    def each(self) -> float:
        """How much of the strip's length a piece takes."""
        return (self.long + self.short) / 2

    @property
    def first(self) -> float:
        """What the slant of the first cut takes of the strip's end: the less one, as either end of
        a piece may be cut first."""
        return min(map(abs, self.slants))

    def room_for(self, number: int) -> float:
        """How long a strip must be for so many, head to tail."""
        return _end(self, number) - _begin(self)

    def from_strip(self, room: Exact) -> int:
        """How many come from a strip so long. One more takes ``each``, and the ends no more than
        the slants, so it is the rough number or one beside it."""
        rough = floor(float(room) / self.each)
        most = max(0, rough - ceil(max(map(abs, self.slants)) / self.each) - 1)
        while self.room_for(most + 1) <= float(room) + HAIR:
            most += 1
        return most

    def pieces(self, number: int) -> list[tuple[Place, ...]]:
        """The corners of so many right side up in a strip that begins at (0, 0), x along it, y down
        across it."""
        near, far = -_begin(self), self.first_slant - _begin(self)
        # The right slant comes first where the first piece is turned, its long edge above.
        y, opposite = (self.strip, 0.0) if self.first_slant == self.slants[0] else (0, self.strip)
        outlines = []
        for which in range(number):
            one, other = (self.long, self.short) if which % 2 == 0 else (self.short, self.long)
            corners = (far, opposite), (far + other, opposite), (near + one, y), (near, y)
            outlines.append(tuple(dict.fromkeys(corners)))
            near, far = near + one, far + other
        return outlines

    @property
    def first_slant(self) -> float:
        """The slant a run of pieces begins with."""
        return min(self.slants, key=abs)


def _begin(angled_cut: Angled) -> float:
    """Where the first piece begins, its long edge from 0 on."""
    return min(0.0, angled_cut.first_slant)


def _end(angled_cut: Angled, number: int) -> float:
    """Where the last piece ends. Two pieces take the long edge and the short one on both sides of
    the strip; an odd one more takes the long one below, the short one above."""
    pairs, odd = divmod(number, 2)
    both = pairs * (angled_cut.long + angled_cut.short)
    above = both + odd * angled_cut.short + angled_cut.first_slant
    return max(both + odd * angled_cut.long, above)


def angled(outline: Polygon, measure: Measure) -> Angled | None:
    """How a patch of finished ``outline`` is cut from strips; None where it is neither a triangle
    nor has four straight sides with two of them parallel, or is a rectangle."""
    if len(outline) not in (3, 4):
        return None
    known = _angled(outline, measure.seam)
    if known is None:
        return None
    angled_cut, width = known
    mark = cut_to_meet(width, measure)
    if width - mark > measure.system.thread / 2:  # rather too wide than short of an allowance
        mark = next_mark(width, measure.finest)
    return angled_cut._replace(strip_mark=mark)


@memo(500)
def _angled(outline: Polygon, seam: Exact) -> tuple[Angled, Exact] | None:
    """The cut, its strip not at a mark yet, and how wide that is, as exactly as it is known."""
    sides = cutting_sides(sewing_sides(Outline(outline)), float(seam))
    if len(sides) != len(outline):
        return None  # a sliver's cusp is cut off square
    if len(sides) == 3:
        base = max(range(3), key=lambda i: _length(sides[i]))
        low, after, before = (sides[(base + k) % 3] for k in range(3))
        high = Side(after.end, after.end)
    else:
        steps = [q.minus(p) for p, q in edges(outline)]
        pairs = [i for i in (0, 1) if cross(steps[i], steps[i + 2]) == 0]
        if not pairs or all(dot(steps[i], steps[(i + 1) % 4]) == 0 for i in range(4)):
            return None
        # Of a parallelogram the longer sides run along the strip: its cuts are the shorter ones.
        base = max(pairs, key=lambda i: float(squared_length(outline[i], outline[i + 1])))
        if _length(sides[base]) < _length(sides[base + 2]):
            base += 2
        low, after, high, before = (sides[(base + k) % 4] for k in range(4))
    lengths = sorted((_length(low), _length(high)))
    width = _apart(low, high)
    exact = _exact_width(outline, base, seam)
    if exact is None:
        exact = Fraction(width).limit_denominator(10**6)
    angles = tuple(sorted((_slope(low, before), _slope(low, after))))
    parallel = len(sides) == 4 and len(pairs) == 2
    all_equal = len({round(_length(s), 6) for s in sides}) == 1
    kind = "diamond" if all_equal else "parallelogram" if parallel else "trapezoid"
    # Clockwise on screen the base runs right to left when it lies below.
    slants = -_along(low, after), -_along(low, before)
    angled_cut = Angled(
        kind if len(sides) == 4 else "triangle", width, Fraction(0), (angles[0], angles[1]),
        _leans(low, after) if parallel else "", _apart(after, before) if parallel else 0.0,
        lengths[1], lengths[0], slants,
    )  # fmt: skip
    return angled_cut, exact


def _length(side: Side) -> float:
    return hypot(side.end[0] - side.start[0], side.end[1] - side.start[1])


def _unit(side: Side) -> tuple[float, float]:
    length = _length(side)
    return (side.end[0] - side.start[0]) / length, (side.end[1] - side.start[1]) / length


def _apart(side: Side, other_side: Side) -> float:
    """How far apart two parallel sides are."""
    ux, uy = _unit(side)
    return abs(
        (other_side.start[0] - side.start[0]) * uy - (other_side.start[1] - side.start[1]) * ux
    )


def _along(base: Side, side: Side) -> float:
    """How far a slanted side runs along the strip."""
    ux, uy = _unit(base)
    return (side.end[0] - side.start[0]) * ux + (side.end[1] - side.start[1]) * uy


def _slope(base: Side, side: Side) -> float:
    """The angle of a cut with the strip's edge, up to 90 degrees."""
    (ux, uy), (vx, vy) = _unit(base), _unit(side)
    return degrees(atan2(abs(ux * vy - uy * vx), abs(ux * vx + uy * vy)))


def _leans(base: Side, after: Side) -> str:
    """Which way a parallelogram leans, its base along the strip's lower edge: clockwise on screen
    the base runs right to left when it lies below."""
    return "left" if _along(base, after) > 0 else "right"


def _exact_width(outline: Polygon, base: int, seam: Exact) -> Exact | None:
    """The strip's width exactly: the area of the two parallel sides' step and a side beside them,
    over the step's length; None where that has no exact root."""
    if len(outline) == 3:
        return None  # its tip reaches beyond the allowance
    p, q, r = (outline[(base + k) % 4] for k in range(3))
    length = sqrt_exact(squared_length(p, q))
    if length is None:
        return None
    return abs(cross(q.minus(p), r.minus(q))) / length + 2 * seam


def stack_shape(cut: Cut, measure: Measure) -> str:
    """What the pieces of a stack are: their shape; of what is cut at an angle, which way it lies
    right side up, so that it cannot be taken for its mirror image: ``parallelogram, 45°, leaning
    left, sides 3 and 4 in``; ``trapezoid, 45° at its left end, square at its right, 6 1/2 in below,
    4 in above``."""
    angled_cut = angled(cut.outline, measure) if cut.shape == "template" else None
    if angled_cut is None:
        return cut.shape
    return f"{angled_cut.kind}, {_lies(angled_cut, measure)}"


def _lies(angled_cut: Angled, measure: Measure) -> str:
    mark = measure.system.checked_to

    def read(length: float) -> str:
        near = nearest_mark(Fraction(length).limit_denominator(10**6), mark)
        return length_text(near, measure)

    strip = f"from a strip {length_text(angled_cut.strip_mark, measure)} wide"
    low = angled_cut.angles[0]
    if angled_cut.step:
        side = f"{read(angled_cut.long)} along the strip"
        if angled_cut.kind == "diamond":  # turned, it leans the other way
            return f"{low:.4g}°, {side}, {strip}"
        return f"{low:.4g}°, leaning {angled_cut.leans}, {side}, {strip}"
    left, right = (
        "square" if abs(run) < HAIR else f"{degrees(atan2(angled_cut.strip, abs(run))):.4g}°"
        for run in angled_cut.slants
    )
    ends = (
        f"{left} at both ends" if left == right else f"{left} at its left end, {right} at its right"
    )
    if angled_cut.kind == "triangle":
        return f"{read(angled_cut.long)} below, {ends}, {strip}"
    return f"{read(angled_cut.long)} below, {read(angled_cut.short)} above, {ends}, {strip}"


def angled_lines(cut: Cut, measure: Measure, room: Exact) -> Iterator[str]:
    """How a stack of templates is cut by ruler instead, a sentence a line; nothing where it is not.
    ``room`` is how long a strip is, squared."""
    angled_cut = angled(cut.outline, measure) if cut.shape == "template" else None
    if angled_cut is None:
        return
    number = angled_cut.from_strip(room)
    low, high = angled_cut.angles
    square = high > 90 - 1e-6
    strips = f"cut strips {length_text(angled_cut.strip_mark, measure)} wide; {number} from a strip"
    how = strips if number else "too long for one strip"
    yield f"Without a template ({angled_cut.kind}): {how}"
    mark = measure.system.checked_to
    if angled_cut.step:
        step = nearest_mark(Fraction(angled_cut.step).limit_denominator(10**6), mark)
        yield (
            f"cut the end at {low:.4g}° to the edge, leaning {angled_cut.leans}; then every "
            f"{length_text(step, measure)}, square to that cut"
        )
        other = "left" if angled_cut.leans == "right" else "right"
        leans = angled_cut.leans
        yield f"right side up all lean {leans}; in folded fabric half of them lean {other}"
        return
    long, short = (
        nearest_mark(Fraction(side).limit_denominator(10**6), mark)
        for side in (angled_cut.long, angled_cut.short)
    )
    ends = f"at {low:.4g}° and {high:.4g}° by turns"
    if square:
        ends = f"square and at {low:.4g}° by turns"
    elif abs(high - low) < 1e-6:
        ends = f"at {low:.4g}°"
    yield (
        f"cut across {ends}, head to tail: {length_text(long, measure)} and "
        f"{length_text(short, measure)} by turns along one edge"
    )
