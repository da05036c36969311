"""A block cut apart, and what comes of it: its slices, cuts, and what the new seams take."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.figures.display import (
    Area,
    Box,
    Clip,
    Corners,
    Disc,
    Figure,
    Frame,
    Item,
    Kind,
    Polyline,
    Tag,
    TagLook,
)
from inlet.core.figures.display import rectangle as corners_of
from inlet.core.figures.marks import junction_mark
from inlet.core.figures.moves import sheet_figure
from inlet.core.geometry import Picture, Point, Polygon
from inlet.core.numbers import Exact
from inlet.core.remake import Remade, Slice, SliceJunction, place_boxes_of
from inlet.core.table import Sheet

LABEL = 11.0
MISSED = 7.0
JUNCTION = 5.0
WAY_UP = 9.0


def cut_apart_figure(sheet: Sheet, slices: Sequence[Slice], seam: Exact, frame: Frame) -> Figure:
    """A raw block with its cuts; hatched is what the seams of the new block will take."""
    items: list[Item] = [*sheet_figure(sheet, frame, lettered=False)]
    if not slices:
        return tuple(items)
    first, last = slices[0].cut, slices[-1].cut
    left, top, right, bottom = map(float, (*first[:2], *last[2:]))
    s = float(seam)
    on_point = bool(slices[0].shape)
    if on_point:  # the raw block's corners reach s√2 beyond the frame's sides
        reach = s * 2**0.5
        left, top, right, bottom = s - reach, s - reach, right - s + reach, bottom - s + reach
    taken: list[Item] = []
    upright = sorted({float(each.cut[0]) for each in slices if each.column})
    level = sorted({float(each.cut[1]) for each in slices if each.row})
    for x in upright:
        taken.append(_area((x - s, top, x + s, bottom), "taken", frame))
    for y in level:
        taken.append(_area((left, y - s, right, y + s), "taken", frame))
    for x in upright:
        taken.append(Polyline((frame.at(x, top), frame.at(x, bottom)), "cut"))
    for y in level:
        taken.append(Polyline((frame.at(left, y), frame.at(right, y)), "cut"))
    if on_point:
        x, y = (left + right) / 2, (top + bottom) / 2
        diamond = ((x, top), (right, y), (x, bottom), (left, y))
        items.append(Clip(tuple(frame.at(*spot) for spot in diamond), tuple(taken)))
    else:
        items += taken
    for each in slices:
        items.append(Tag(frame.at(*_middle_of(each)), each.label, LABEL))
    return tuple(items)


def _middle_of(piece: Slice) -> tuple[float, float]:
    """The middle of what a slice keeps."""
    left, top, right, bottom = map(float, piece.kept)
    if not piece.shape:
        return (left + right) / 2, (top + bottom) / 2
    number = len(piece.shape)
    x, y = (sum(float(p[axis]) for p in piece.shape) / number for axis in (0, 1))
    return left + x, top + y


def set_again_figure(
    picture: Picture,
    how: Remade,
    frame: Frame,
    chosen: int | None = None,
    junctions: Sequence[SliceJunction] = (),
) -> Figure:
    """Slices set again: the new seams, what each piece is and which of its sides was up, the one
    that is chosen, how old seams meet at new ones, and a ring where they no longer do."""
    items: list[Item] = [*sheet_figure(picture, frame, lettered=False)]
    boxes, outlines = place_boxes(how), place_outlines(how, frame)
    for outline in outlines:
        items.append(Area(outline, "new-seam"))
    for number, (piece, box) in enumerate(zip(how.laid, boxes, strict=True)):
        look: TagLook = "strong" if number == chosen else "plain"
        label = how.slices[piece.piece].label
        at = frame.at(*middle(box))
        if how.on_point is None:
            items.append(_way_up(box, piece.quarters, frame))
        else:
            corners = outlines[number]
            number_of = len(corners)
            at = sum(p[0] for p in corners) / number_of, sum(p[1] for p in corners) / number_of
        items.append(Tag(at, label, LABEL, look))
        if number == chosen:
            items.append(Area(outlines[number], "slice-chosen"))
    for junction in junctions:
        items += junction_mark(frame.spot(junction.at), junction.state, JUNCTION * frame.unit)
    radius = MISSED * frame.unit
    items += [Disc(frame.spot(miss.at), radius, "missed") for miss in how.set_again.missed]
    return tuple(items)


def place_outlines(how: Remade, frame: Frame) -> tuple[Corners, ...]:
    """The outline of each place in a picture; on point, what of it lies in the new block."""
    outlines = []
    for left, top, right, bottom in place_boxes_of(how):
        corners: Polygon = (
            Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom),
        )  # fmt: skip
        inside = corners if how.on_point is None else how.on_point.inside(corners)
        outlines.append(frame.corners(inside))
    return tuple(outlines)


def place_boxes(how: Remade) -> tuple[Box, ...]:
    """Where the places of slices lie as they are set again."""
    return tuple(
        (float(left), float(top), float(right), float(bottom))
        for left, top, right, bottom in place_boxes_of(how)
    )


def middle(box: Box) -> tuple[float, float]:
    return (box[0] + box[2]) / 2, (box[1] + box[3]) / 2


def _area(box: Box, kind: Kind, frame: Frame) -> Area:
    return Area(tuple(frame.at(x, y) for x, y in corners_of(box)), kind)


def _way_up(box: Box, quarters: int, frame: Frame) -> Area:
    """A small triangle inside the side of a piece that was its top before the block was cut."""
    (x, y), size = middle(box), WAY_UP * frame.unit / frame.scale
    wide, high = (box[2] - box[0]) / 2, (box[3] - box[1]) / 2
    size = min(size, wide / 2, high / 2)
    tip = ((0, -high), (wide, 0), (0, high), (-wide, 0))[quarters % 4]
    inward = ((0, 1), (-1, 0), (0, -1), (1, 0))[quarters % 4]
    across = (inward[1], -inward[0])
    top = x + tip[0] + inward[0] * size / 4, y + tip[1] + inward[1] * size / 4
    base = top[0] + inward[0] * size, top[1] + inward[1] * size
    spots: Sequence[tuple[float, float]] = (
        top,
        (base[0] + across[0] * size * 0.7, base[1] + across[1] * size * 0.7),
        (base[0] - across[0] * size * 0.7, base[1] - across[1] * size * 0.7),
    )
    return Area(tuple(frame.at(*spot) for spot in spots), "way-up")
