"""The seam allowance test: three strips sewn and pressed, the middle one measured."""

from __future__ import annotations

from itertools import pairwise
from typing import NamedTuple

from inlet.core.assembly import all_joins, join_rims, rim, unit_heading
from inlet.core.draft import Draft
from inlet.core.geometry import flattened
from inlet.core.numbers import INCHES, Exact, Fraction, System, nearest_mark, parse_length
from inlet.core.piecing.edge_points import CLEAR, EdgePoints
from inlet.core.project import Measure, SeamTest
from inlet.core.units import Part
from inlet.core.words import length_text, unit_of


class SeamTestResult(NamedTuple):
    """What three strips say.

    ``takes`` is what one seam takes of each strip, the fold with it; ``off`` how much more that is
    than the allowance (below nothing: less). ``loss`` is what the fold takes of it, where the
    stitches were measured too. The guide moves by ``off`` toward the needle (below nothing: away).
    """

    takes: Exact
    off: Exact
    loss: Exact | None


def read_seam_test(seam_test: SeamTest, seam: Exact) -> SeamTestResult:
    """From a strip's width w and the middle one's width m once it is sewn in on both sides: a seam
    takes (w - m)/2 of each. That is to be the allowance, whatever the fold takes: the guide moves
    by the difference."""
    takes = (seam_test.strip - seam_test.middle) / 2
    loss = None if seam_test.stitched is None else takes - seam_test.stitched
    return SeamTestResult(takes, takes - seam, loss)


def parse_seam_test(text: str, system: System = INCHES) -> SeamTest:
    """“1 1/2, 15/16” or “1 1/2, 15/16, 1/4”: the strips, the middle one sewn in, and from the raw
    edge to the stitches. ``ValueError`` in words for anything else."""
    parts = [part.strip() for part in text.split(",")]
    if len(parts) not in (2, 3):
        raise ValueError(f"“{text}” is not two or three sizes with commas between")
    sizes = [parse_length(part, system) for part in parts]
    if not 0 < sizes[1] < sizes[0]:
        raise ValueError("the middle strip must be narrower than it was cut, and above 0")
    return SeamTest(strip=sizes[0], middle=sizes[1], stitched=sizes[2] if sizes[2:] else None)


def should_measure(strip: Exact, seam: Exact) -> Exact:
    """What the middle strip measures when the seam takes the allowance exactly."""
    return strip - 2 * seam


def usual_seam_test(seam: Exact) -> SeamTest:
    """A test as it is usually cut, six allowances wide, that finds nothing wrong: 1 1/2 in strips
    for 1/4 in."""
    strip = 6 * seam
    return SeamTest(strip=strip, middle=should_measure(strip, seam))


class Effect(NamedTuple):
    """What a seam that takes ``off`` too much does to a block: its unfinished ``width`` and
    ``height`` where most and fewest seams are crossed, as (least, most), and ``points`` (vertices)
    cut off by as much, or left floating if it takes too little; ``planned`` is what it should
    measure."""

    width: tuple[float, float]
    height: tuple[float, float]
    points: tuple[int, ...]
    planned: tuple[float, float]


SCANS = 48


def effect_of(draft: Draft, root: Part, off: Exact, seam: Exact) -> Effect:
    """How a block comes out, all of it cut as planned and sewn with such a seam.

    A seam brings what lies on its two sides closer by ``off`` on each, square to itself: along x by
    2·off·|nx|, n the seam's unit normal. So the block is smaller, along any line across it, by the
    sum over the seams that the line crosses. A point where slanted seams end lies where its own
    seams put it, an allowance from the raw edge of its unit: the next seam passes ``off`` inside.
    Where a seam runs to the raw corner of its unit, as that of a half-square triangle does, the
    next ones cross on it, and nothing is lost.
    """
    w, h = (float(x) for x in draft.block.finished)
    segments = _segments(root)
    raw = 2 * float(seam)
    rows = [_crossed(segments, 1, h * (i + 0.5) / SCANS) for i in range(SCANS)]
    columns = [_crossed(segments, 0, w * (i + 0.5) / SCANS) for i in range(SCANS)]
    wide = [w + raw - 2 * float(off) * n for n in rows]
    high = [h + raw - 2 * float(off) * n for n in columns]
    spans = (min(wide), max(wide)), (min(high), max(high))
    return Effect(*spans, _points(draft, root), (w + raw, h + raw))


Chord = tuple[tuple[float, float], tuple[float, float]]


def _segments(root: Part) -> list[Chord]:
    """The seams of a block, finished lengths, arcs in chords."""
    segments: list[Chord] = []
    for curve in (curve for join in all_joins(root.side) for curve in join.curves):
        chords = flattened(curve, 1e-3) if curve.centre else [curve.start.floats()]
        segments += pairwise([*chords, curve.end.floats()])
    return segments


def _crossed(segments: list[Chord], axis: int, at: float) -> float:
    """The sum of |n·direction| over the seams crossed by a line along x (axis 1) or y (axis 0)."""
    total = 0.0
    for p, q in segments:
        if (p[axis] > at) != (q[axis] > at):
            dx, dy = q[0] - p[0], q[1] - p[1]
            length = (dx * dx + dy * dy) ** 0.5
            total += abs(dy if axis == 1 else dx) / length
    return total


def _points(draft: Draft, root: Part) -> tuple[int, ...]:
    """The points that some later seam passes, or that the block's own edge does, and that lie there
    for what is off to cut."""
    edge_points, found = EdgePoints(draft), set[int]()
    to_corner: set[tuple[int, int]] = set()
    for join in all_joins(root.side):
        faces = join_rims(draft, join)
        to_corner.update(
            (v, k)
            for v, k in ((join.vertices[0], join.edges[0]), (join.vertices[-1], join.edges[-1]))
            if _halves_corner(draft, rim(draft, faces), v, k)
        )
        for v in edge_points.of(faces):
            slanted = edge_points.slanted_at(v, faces)
            if any((v, k) not in to_corner for k in slanted):
                found.add(v)
    return tuple(sorted(found))


def _halves_corner(draft: Draft, round_it: frozenset[int], v: int, seam: int) -> bool:
    """Does a seam halve the corner of a part that it ends at? Then it runs to the raw corner, and
    whatever the next seams take there, if it is as much on both sides, they cross on it."""
    sides = [k for k in draft.arrangement.edges_at[v] if k in round_it]
    if len(sides) != 2 or seam in sides:
        return False
    (ax, ay), (bx, by) = (unit_heading(draft, v, k) for k in sides)
    x, y = unit_heading(draft, v, seam)
    return abs((ax + bx) * y - (ay + by) * x) < CLEAR and (ax + bx) * x + (ay + by) * y > CLEAR


def seam_test_text(test: SeamTestResult, measure: Measure) -> list[str]:
    """What the test says, in sentences."""
    unit = unit_of(measure)

    def said(x: Exact) -> str:
        step = measure.system.fine_mark
        marks = Fraction(round(float(abs(x) / step))) * step
        return f"{length_text(marks, measure)} ({abs(float(x)):.3f} {unit})"

    out = [f"One seam takes {said(test.takes)} of each piece."]
    if test.loss is not None:
        out.append(f"The fold takes {said(test.loss)} of that.")
    if test.off == 0:
        out.append("That is the allowance exactly: leave the guide where it is.")
    else:
        way = "toward the needle" if test.off > 0 else "away from the needle"
        out.append(f"Move the guide {said(test.off)} {way}, and test again.")
    return out


def effect_text(effect: Effect, off: Exact, measure: Measure) -> list[str]:
    """What the seam would do to the block, in sentences."""
    unit = unit_of(measure)
    if off == 0:
        return ["This block comes out as planned."]
    step = measure.system.checked_to

    def near(length: float) -> Fraction:
        return nearest_mark(Fraction(round(length * 10**6), 10**6), step)

    def span(pair: tuple[float, float]) -> str:
        low, high = map(near, pair)
        one = length_text(low, measure)
        return one if low == high else f"{one} to {length_text(high, measure)}"

    wide, high = span(effect.width), span(effect.height)
    size = wide if wide == high else f"{wide} across, {high} down"
    most = max(
        abs(made - planned)
        for pair, planned in zip((effect.width, effect.height), effect.planned, strict=True)
        for made in pair
    )
    missed = nearest_mark(Fraction(round(most * 10**6), 10**6), step / 2)
    way = "small" if off > 0 else "large"
    by = f", up to {length_text(missed, measure)} {way}" if missed else ""
    out = [f"This block would measure about {size} unfinished{by}."]
    if effect.points:
        n = len(effect.points)
        what = "cut off" if off > 0 else "left floating"
        points = "1 point is" if n == 1 else f"{n} points are"
        out.append(f"{points} {what} by {abs(float(off)):.3f} {unit}.")
    return out
