"""A block cut apart, and what comes of it: its slices, cuts, and what the new seams take."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.figures.display import (
    Area,
    Box,
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
from inlet.core.geometry import Picture
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
    upright = sorted({float(each.cut[0]) for each in slices if each.column})
    level = sorted({float(each.cut[1]) for each in slices if each.row})
    for x in upright:
        items.append(_area((x - s, top, x + s, bottom), "taken", frame))
    for y in level:
        items.append(_area((left, y - s, right, y + s), "taken", frame))
    for x in upright:
        items.append(Polyline((frame.at(x, top), frame.at(x, bottom)), "cut"))
    for y in level:
        items.append(Polyline((frame.at(left, y), frame.at(right, y)), "cut"))
    for each in slices:
        a, b, c, d = map(float, each.kept)
        items.append(Tag(frame.at((a + c) / 2, (b + d) / 2), each.label, LABEL))
    return tuple(items)


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
    boxes = place_boxes(how)
    for box in boxes:
        items.append(_area(box, "new-seam", frame))
    for number, (piece, box) in enumerate(zip(how.laid, boxes, strict=True)):
        look: TagLook = "strong" if number == chosen else "plain"
        items.append(_way_up(box, piece.quarters, frame))
        label = how.slices[piece.piece].label
        items.append(Tag(frame.at(*middle(box)), label, LABEL, look))
        if number == chosen:
            items.append(_area(box, "slice-chosen", frame))
    for junction in junctions:
        items += junction_mark(frame.spot(junction.at), junction.state, JUNCTION * frame.unit)
    radius = MISSED * frame.unit
    items += [Disc(frame.spot(miss.at), radius, "missed") for miss in how.set_again.missed]
    return tuple(items)


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
