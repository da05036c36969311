"""What is drawn of a plan, as lists of what lies where and what it means.

Promise: screen, PDF and SVG draw from the same list; nothing is worked out while it is drawn.
"""

from inlet.core.figures.band import band_figure, band_height
from inlet.core.figures.corner import corner_figure
from inlet.core.figures.craft import CraftPicture, craft_picture
from inlet.core.figures.display import (
    Area,
    Box,
    BoxText,
    Clip,
    Corners,
    Disc,
    FabricArea,
    Figure,
    Frame,
    Polyline,
    Side,
    Spot,
    Tag,
    TagLook,
    bounds_of,
)
from inlet.core.figures.looks import LOOKS, Colour, Dash, Look
from inlet.core.figures.marks import junction_mark
from inlet.core.figures.mat import MatFrame, OnMat, mat_figure, numbers_figure
from inlet.core.figures.moves import lines_figure, move_bounds, move_figure, sheet_figure
from inlet.core.figures.panel import (
    motif_figure,
    packed_figure,
    panel_figure,
    piece_figure,
    shown_of_piece,
)
from inlet.core.figures.pressed import (
    View,
    arrow_size,
    arrows_figure,
    counts_figure,
    held_figure,
    junctions_figure,
    pressed_figure,
    pressed_frame,
    way_figure,
)
from inlet.core.figures.row import RowFigure, row_of_top
from inlet.core.figures.sewn_block import (
    risk_figure,
    risk_mark,
    row_risk_figure,
    sewn_block_figure,
)
from inlet.core.figures.slices import cut_apart_figure, place_boxes, set_again_figure
from inlet.core.figures.top import top_figure

__all__ = [
    "LOOKS",
    "Area",
    "Box",
    "BoxText",
    "Clip",
    "Colour",
    "Corners",
    "CraftPicture",
    "Dash",
    "Disc",
    "FabricArea",
    "Figure",
    "Frame",
    "Look",
    "MatFrame",
    "OnMat",
    "Polyline",
    "RowFigure",
    "Side",
    "Spot",
    "Tag",
    "TagLook",
    "View",
    "arrow_size",
    "arrows_figure",
    "band_figure",
    "band_height",
    "bounds_of",
    "corner_figure",
    "counts_figure",
    "craft_picture",
    "cut_apart_figure",
    "held_figure",
    "junction_mark",
    "junctions_figure",
    "lines_figure",
    "mat_figure",
    "motif_figure",
    "move_bounds",
    "move_figure",
    "numbers_figure",
    "packed_figure",
    "panel_figure",
    "piece_figure",
    "place_boxes",
    "pressed_figure",
    "pressed_frame",
    "risk_figure",
    "risk_mark",
    "row_of_top",
    "row_risk_figure",
    "set_again_figure",
    "sewn_block_figure",
    "sheet_figure",
    "shown_of_piece",
    "top_figure",
    "way_figure",
]  # fmt: skip
