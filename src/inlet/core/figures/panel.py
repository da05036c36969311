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
        items.append(Area(_closed(kept, frame), "uncovered"))
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
    """The block a panel becomes, finished, with its motif and its joins."""
    panel = block.panel
    assert panel is not None, "only a panel becomes a block so"
    drawn = draft(block)
    items: list[Item] = [
        *sheet_figure(
            picture_of(drawn, frozenset(range(len(drawn.patches)))), frame, lettered=False
        )
    ]
    cut = panel_cut(block, measure)
    if cut is not None:
        x, y = (
            float(start - corner - measure.seam)
            for start, corner in zip((panel.left, panel.top), cut.corner, strict=True)
        )
        items += _motif((x, y, x + float(panel.motif[0]), y + float(panel.motif[1])), frame)
    return tuple(items)


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
