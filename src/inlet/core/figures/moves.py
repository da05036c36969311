"""Fabric on the table: sheets, and the moves done to them."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from math import dist

from inlet.core.figures.display import (
    Box,
    Disc,
    FabricArea,
    Figure,
    Frame,
    Item,
    Kind,
    Polyline,
    Side,
    Tag,
)
from inlet.core.figures.display import bounds_of as bounds
from inlet.core.figures.marks import arrow, blades, both_ways, square_mark
from inlet.core.table import DrawnLine, LineKind, Move, Sheet

SHORTEST_ARROW, LONGEST_ARROW = 12.0, 26.0
LINES: dict[LineKind, Kind] = {"seam": "seam", "cut": "cut", "mark": "mark", "ruler": "ruler"}
RADII: dict[LineKind, float] = {"dot": 4.0, "stop": 5.0, "pin": 2.0, "point": 7.0, "whirl": 8.0}


def move_bounds(move: Move) -> Box | None:
    """How far a move's sheets reach, in lengths; None where nothing lies there."""
    outlines = [
        tuple(p.floats() for p in outline)
        for sheet in (move.lower, move.upper)
        for outline, _ in sheet
    ]
    return bounds(outlines) if outlines else None


def sheet_figure(sheet: Sheet, frame: Frame, side: Side = "right", lettered: bool = True) -> Figure:
    """Patches in their fabric."""
    return tuple(
        FabricArea(frame.corners(outline), fabric, side, lettered) for outline, fabric in sheet
    )


def move_figure(move: Move, frame: Frame) -> Figure:
    """One thing done at the table: what lies there right side up, what wrong side up on it, and
    the lines of the move."""
    lettered = move.do != "press"  # the arrows are what is read
    return (
        *sheet_figure(move.lower, frame, lettered=lettered),
        *sheet_figure(move.upper, frame, "wrong", lettered=lettered),
        *lines_figure(move.lines, frame),
    )


def lines_figure(lines: Iterable[DrawnLine], frame: Frame) -> Figure:
    """Seams, cuts, marks; then the arrows of what is pressed; spots over all of them."""
    plain: list[Item] = []
    arrows: list[Item] = []
    spots: list[Item] = []
    for line in lines:
        if line.is_spot:
            spots += _spot(line, frame)
        elif line.start == line.end:
            continue
        elif line.kind == "press":
            arrows += _pressed(line, frame)
        else:
            plain.append(Polyline(frame.corners((line.start, line.end)), LINES[line.kind]))
    return (*plain, *arrows, *spots)


def _pressed(line: DrawnLine, frame: Frame) -> Sequence[Item]:
    """Which way a seam is pressed; an arrow each way where it is opened."""
    start, end = frame.spot(line.start), frame.spot(line.end)
    least, most = SHORTEST_ARROW * frame.unit, LONGEST_ARROW * frame.unit
    size = min(max(dist(start, end), least), most)
    return (both_ways if line.number else arrow)(start, end, size)


def _spot(line: DrawnLine, frame: Frame) -> Sequence[Item]:
    """A dot where a seam turns or ends short, a bar where it stops, a pin, the ring round a point
    at the edge, the number of a leg."""
    at, kind = frame.spot(line.start), line.kind
    if kind == "leg":
        return (Tag(at, str(line.number), 9),)
    radius = RADII[kind] * frame.unit
    if kind == "whirl":
        return blades(at, radius)
    if kind == "stop":
        return (square_mark(at, radius, "stop"),)
    if kind == "point":
        return Disc(at, radius, "point-halo"), Disc(at, radius, "point")
    return (Disc(at, radius, "pin" if kind == "pin" else "dot"),)
