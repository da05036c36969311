"""Strips first: long strips sewn in sets, cut across into segments, segments sewn together.

A set of bands a1 .. an is sewn from strips ai + 2s; each seam takes s of both, so the set is
Σai + 2s wide. A segment that is to finish f is cut f + 2s across it.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from inlet.core.geometry import Motion, Point, Polygon, bounds, squared_length
from inlet.core.methods.method import Effort, Method, MethodWork, SetOfStrips, Sizes, no_bias
from inlet.core.methods.rows import PRESS, every_second
from inlet.core.numbers import Exact, Fraction, sqrt_exact
from inlet.core.project import FabricId
from inlet.core.table import (
    ZERO,
    DrawnLine,
    Move,
    Sheet,
    box,
    fitted,
    in_a_row,
    rectangle_sheet,
    size,
)
from inlet.core.units import Unit

Bands = tuple[tuple[Exact, FabricId], ...]
"""The strips of a set, each with its finished width and fabric."""
"""Finished widths and fabrics of the bands of a segment, in order."""
KINDS = ("strips", "four-patch", "nine-patch", "checkerboard")


class StripSetSegment(NamedTuple):
    """A row of a unit as it is cut from a set: its bands, and its finished height."""

    bands: Bands
    height: Exact

    @property
    def set_bands(self) -> Bands:
        """The bands of the set it is cut from: either way round is the same set."""
        return min(self.bands, self.bands[::-1], key=str)


def segments(unit: Unit) -> tuple[StripSetSegment, ...] | None:
    """The rows that a unit of bands or equal squares is built from, top to bottom in whichever
    direction needs fewer different sets, of fewer strips; None where its sides have no exact length
    or rows do not run through it."""
    if unit.kind not in KINDS:
        return None
    strip_set_segments = [rows for across in (False, True) if (rows := _rows(unit, across))]
    if not strip_set_segments:
        return None

    def work_of(rows: tuple[StripSetSegment, ...]) -> tuple[int, int, int, list[str]]:
        sets = {row.set_bands for row in rows}
        # The last decides ties, so that a unit that is turned is made of the same strips.
        same = sorted(str((row.set_bands, row.height)) for row in rows)
        return len(sets), len(rows), sum(map(len, sets)), same

    return min(strip_set_segments, key=work_of)


def _rows(unit: Unit, across: bool) -> tuple[StripSetSegment, ...] | None:
    corners = unit.outline[1:] + unit.outline[:1] if across else unit.outline
    length = sqrt_exact(squared_length(*corners[:2]))
    if length is None:
        return None
    e = corners[1].minus(corners[0])
    turn = Motion(e.x / length, -e.y / length)
    boxes = [(bounds(turn.polygon(outline)), fabric) for outline, fabric in unit.picture]
    rows: list[StripSetSegment] = []
    for top in sorted({b[1] for b, _ in boxes}):
        row = sorted(((b, fabric) for b, fabric in boxes if b[1] == top), key=lambda one: one[0][0])
        heights = {b[3] - b[1] for b, _ in row}
        if len(heights) != 1 or len(row) < 2:
            return None
        rows.append(
            StripSetSegment(tuple((b[2] - b[0], fabric) for b, fabric in row), heights.pop())
        )
    return tuple(rows)


def strip_set(unit: Unit, seam: Exact) -> Method | None:
    """Sets for a unit's rows, as above; a run is one unit, its segments cut from long strips."""
    rows = segments(unit)
    if rows is None:
        return None
    wanted: Counter[tuple[Bands, Exact]] = Counter((row.set_bands, row.height) for row in rows)
    sets = tuple(SetOfStrips(bands, height, n) for (bands, height), n in wanted.items())

    def work(sizes: Sizes) -> MethodWork:
        moves = [Move("cut", "Cut {all}.", in_a_row(_strips_of(sets, seam)))]
        of_sets = [sew_set(strips, i, seam) for i, strips in enumerate(sets)]
        moves += [sewn for sewn, _ in of_sets] + [apart for _, apart in of_sets]
        whole: Sheet = ()
        lines = []
        for row in rows:
            segment = _segment(row.bands, row.height, seam)
            if not whole:
                whole = segment
                continue
            level = box(whole)[3] - seam
            whole = stacked(whole, segment, seam)
            left, _, right, _ = box(whole)
            lines.append(DrawnLine("seam", Point(left, level), Point(right, level)))
        if lines:
            together = _together(rows)
            moves.append(Move("sew", together, whole, (), tuple(lines)))
            moves.append(Move("open", PRESS, whole, seams=len(lines)))
        return MethodWork(tuple(moves), (whole,))

    wide = float(sum((w for w, _ in rows[0].bands), ZERO) + 2 * seam)

    joins = len(rows) - 1
    effort = Effort(joins, joins * wide, sum(s.number for s in sets), 0, joins)
    return Method(
        "strip-set", 1, (), False, work, sets=sets, known_effort=effort, outer_bias=no_bias
    )


def _together(rows: Sequence[StripSetSegment]) -> str:
    """Segments sewn together; that every second one is turned, where the others are the same."""
    turned = [row.bands != rows[0].bands for row in rows]
    same = len({row.set_bands for row in rows}) == 1 and any(turned)
    by_turns = same and all(a != b for a, b in pairwise(turned))
    how = f", {every_second(len(rows))} turned round" if by_turns else ""
    return f"Sew the {len(rows)} segments together, seams meeting{how}; press."


def _strips_of(sets: Sequence[SetOfStrips], seam: Exact) -> list[Sheet]:
    return [
        rectangle_sheet(4 * (strips.height + 2 * seam), width + 2 * seam, fabric)
        for strips in sets
        for width, fabric in strips.bands
    ]


def sew_set(strips: SetOfStrips, index: int, seam: Exact) -> tuple[Move, Move]:
    """Sewing one set, and cutting it across: drawn four segments long."""
    bands = strips.bands
    step = strips.height + 2 * seam
    long = 4 * step
    whole: Sheet = rectangle_sheet(long, bands[0][0] + 2 * seam, bands[0][1])
    seams = []
    for width, fabric in bands[1:]:
        at = box(whole)[3] - seam
        seams.append(DrawnLine("seam", Point(ZERO, at), Point(long, at)))
        whole = stacked(whole, rectangle_sheet(long, width + 2 * seam, fabric), seam)
    high = size(whole)[1]
    cuts = tuple(
        DrawnLine("cut", Point(i * step, ZERO), Point(i * step, high)) for i in range(1, 4)
    )
    sew = "Sew the strips into a set, each seam the other way from the last so that it stays flat."
    across = "Press. Square off the end, then cut across into segments."
    return (
        Move("sew", sew, whole, (), tuple(seams), of_set=index),
        Move("cut-apart", across, whole, (), cuts, Fraction(strips.number, len(cuts))),
    )


def _segment(bands: Bands, height: Exact, seam: Exact) -> Sheet:
    """A segment with its bands from left to right."""
    high = height + 2 * seam
    left: Exact = ZERO
    out: list[tuple[Polygon, FabricId]] = []
    for i, (width, fabric) in enumerate(bands):
        wide = width + (seam if i == 0 else 0) + (seam if i == len(bands) - 1 else 0)
        out += rectangle_sheet(wide, high, fabric, left)
        left = left + wide
    return tuple(out)


def stacked(upper: Sheet, lower: Sheet, seam: Exact) -> Sheet:
    """Two sheets of one width sewn edge to edge, one below the other, and opened: each loses
    ``seam`` at the edge where they meet."""
    left, _, _, bottom = box(upper)
    top = bottom - 2 * seam
    moved = fitted(lower, left, top)
    at = bottom - seam

    def clipped(sheet: Sheet, above: bool) -> Sheet:
        return tuple(
            (
                tuple(
                    Point(p.x, min(p.y, at) if above else max(p.y, at)) for p in outline
                ),
                fabric,
            )
            for outline, fabric in sheet
        )  # fmt: skip

    return clipped(upper, True) + clipped(moved, False)
