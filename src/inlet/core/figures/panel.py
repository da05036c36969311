"""A panel: its piece with the motif and the strips that move, the block it becomes, many packed."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.draft import draft
from inlet.core.figures.display import (
    Area,
    Box,
    BoxText,
    Corners,
    Disc,
    FabricArea,
    Figure,
    Frame,
    Item,
    Polyline,
    Tag,
)
from inlet.core.figures.display import rectangle as corners_of
from inlet.core.figures.moves import sheet_figure
from inlet.core.geometry import bounds
from inlet.core.panels import PackedTop, panel_cut, panel_stages
from inlet.core.project import Block, Measure
from inlet.core.table import box
from inlet.core.units import picture_of
from inlet.core.words import length_text

HANDLE = 6.0
LABEL = 12.0


def piece_figure(
    block: Block,
    measure: Measure,
    frame: Frame,
    handles: Sequence[tuple[float, float]] = (),
    shown: bool = False,
) -> Figure:
    """The piece from its top left: what is kept of it, dashed, hatched where there is no fabric;
    strips that come off it, with how wide they are cut; its motif; ``handles``. ``shown``: a
    photograph lies below it."""
    panel = block.panel
    assert panel is not None, "only a panel has a piece"
    wide, high = map(float, panel.piece)
    outline = _closed((0, 0, wide, high), frame)
    cut = panel_cut(block, measure)
    items: list[Item] = []
    if cut is not None:
        (x, y), (a, b) = cut.corner, cut.size
        kept = float(x), float(y), float(x + a), float(y + b)
        items += [Area(_closed(part, frame), "uncovered") for part in _beyond(kept, (wide, high))]
    if shown:
        items.append(Polyline(outline, "square-edge"))
    else:
        items.append(FabricArea(outline, panel.fabric))
    if cut is not None:
        items.append(Polyline(_closed(kept, frame), "scrap"))
        stages = panel_stages(cut, measure.seam, panel.fabric, panel.added or panel.fabric)
        for stage in stages:
            if stage.cut is None:
                continue
            axis = stage.strip.axis
            at = float(stage.cut.c / (stage.cut.a if axis == 0 else stage.cut.b))
            sides = _within([float(side) for side in box(stage.before)], wide, high)
            far = sides[axis + 2] if stage.strip.low else sides[axis]
            line = ((at, sides[1]), (at, sides[3])) if axis == 0 else (
                (sides[0], at), (sides[2], at)
            )  # fmt: skip
            items.append(Polyline(tuple(frame.at(*p) for p in line), "cut"))
            middle = (at + far) / 2
            spot = (middle, (sides[1] + sides[3]) / 2) if axis == 0 else (
                (sides[0] + sides[2]) / 2, middle
            )  # fmt: skip
            words = length_text(stage.strip.wide, measure)
            items.append(Tag(frame.at(*spot), words, LABEL, "size"))
    left, top = float(panel.left), float(panel.top)
    items += _motif((left, top, left + float(panel.motif[0]), top + float(panel.motif[1])), frame)
    items += [Disc(frame.at(*spot), HANDLE * frame.unit, "held") for spot in handles]
    return tuple(items)


def panel_figure(block: Block, measure: Measure, frame: Frame) -> Figure:
    """The block a panel becomes, finished, with its joins and the motif's outline."""
    drawn = draft(block)
    items: list[Item] = [
        *sheet_figure(
            picture_of(drawn, frozenset(range(len(drawn.patches)))), frame, lettered=False
        )
    ]
    return (*items, *motif_figure(block, measure, frame))


def motif_figure(block: Block, measure: Measure, frame: Frame) -> Figure:
    """The motif's outline where it comes to lie in its block; nothing where it cannot."""
    panel, cut = block.panel, panel_cut(block, measure)
    if panel is None or cut is None:
        return ()
    x, y = (
        float(start - corner - measure.seam)
        for start, corner in zip((panel.left, panel.top), cut.corner, strict=True)
    )
    sides = (x, y, x + float(panel.motif[0]), y + float(panel.motif[1]))
    return tuple(_motif(sides, frame))


def shown_of_piece(block: Block, measure: Measure) -> tuple[Box, Box] | None:
    """What shows of the piece itself in the block, without strips: where it lies in the block, and
    on the piece; None where the motif cannot be centred."""
    cut = panel_cut(block, measure)
    if cut is None:
        return None
    half = [float(side) / 2 for side in block.finished]
    for patch in draft(block).patches:
        left, top, right, bottom = (float(side) for side in bounds(patch.outline))
        if left <= half[0] <= right and top <= half[1] <= bottom:
            x, y = (float(corner + measure.seam) for corner in cut.corner)
            return (left, top, right, bottom), (left + x, top + y, right + x, bottom + y)
    return None


def packed_figure(
    top: PackedTop, fabrics: Sequence[str | None], titles: Sequence[str], frame: Frame
) -> Figure:
    """Blocks of several sizes in rows; what fills them up is hatched."""
    items: list[Item] = []
    for row in top.rows:
        y, bottom = float(row.top), float(row.top + row.high)
        for block in row.blocks:
            x, right = float(block.left), float(block.left + block.size[0])
            foot = y + float(block.size[1])
            items.append(FabricArea(_closed((x, y, right, foot), frame), fabrics[block.which]))
            if foot < bottom:
                items.append(Area(_closed((x, foot, right, bottom), frame), "taken"))
            a, b = frame.at(x, y), frame.at(right, foot)
            items.append(BoxText((*a, *b), titles[block.which], LABEL, on=fabrics[block.which]))
        if row.right > 0:
            begin = float(top.wide - row.right)
            items.append(Area(_closed((begin, y, float(top.wide), bottom), frame), "taken"))
        edge = (0.0, y, float(top.wide), bottom)
        items.append(Polyline(_closed(edge, frame), "piece-ready"))
    return tuple(items)


def _beyond(kept: Box, piece: tuple[float, float]) -> list[Box]:
    """What of a box lies beyond a piece that begins at (0, 0): above, below, left and right."""
    left, top, right, bottom = kept
    wide, high = piece
    above, below = min(0.0, bottom), max(high, top)
    parts = [
        (left, top, right, above), (left, below, right, bottom),
        (left, max(top, 0.0), min(0.0, right), min(bottom, high)),
        (max(wide, left), max(top, 0.0), right, min(bottom, high)),
    ]  # fmt: skip
    return [part for part in parts if part[2] > part[0] and part[3] > part[1]]


def _within(sides: list[float], wide: float, high: float) -> list[float]:
    """A box as far as it lies on a piece that begins at (0, 0)."""
    return [max(0.0, sides[0]), max(0.0, sides[1]), min(wide, sides[2]), min(high, sides[3])]


def _closed(sides: Box, frame: Frame) -> Corners:
    """The outline of a box in the picture, back to where it began."""
    corners = tuple(frame.at(*spot) for spot in corners_of(sides))
    return (*corners, corners[0])


def _motif(sides: Box, frame: Frame) -> list[Item]:
    """What stands for a motif: the box round it, and a diamond in it that shows its middle."""
    left, top, right, bottom = sides
    x, y = (left + right) / 2, (top + bottom) / 2
    diamond = ((x, top), (right, y), (x, bottom), (left, y), (x, top))
    return [
        Polyline(tuple(frame.at(*spot) for spot in diamond), "motif"),
        Polyline(_closed(sides, frame), "motif"),
    ]
