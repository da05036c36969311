"""Blocks set together: straight or on point, borders, colourways, the top, its backing and binding.

Promise: the pieces of a top tile it exactly. ``quilting`` loads the geometry library, and is loaded
when it is first used.
"""

from inlet.core.setting.backing import (
    JOIN,
    WIDE,
    BackingWay,
    backing_in_use,
    backing_text,
    backing_ways,
    less_text,
    overage,
    wide_backing,
)
from inlet.core.setting.binding import BindingPlan, binding_plan, binding_width
from inlet.core.setting.block_sizes import AsCut, block_sizes
from inlet.core.setting.borders import fitting_near
from inlet.core.setting.colourways import in_colourway, in_fabrics
from inlet.core.setting.cuts import (
    MITRE_SPARE,
    NAMES,
    SettingCuts,
    Strip,
    at_mark_below,
    border_strips,
    setting_cuts,
)
from inlet.core.setting.edit import (
    Spot,
    as_usual,
    coloured_at,
    filled_at,
    in_row_length,
    in_size,
    mirrored_at,
    motif_of,
    place_at,
    swapped,
    turned_at,
)
from inlet.core.setting.improvised_blocks import SquaresOnTop, squares_on_top
from inlet.core.setting.joined import Band, BandPiece
from inlet.core.setting.meeting import Apart, edges_apart
from inlet.core.setting.on_point import floats_by
from inlet.core.setting.outliers import Odd, looks_of, odd_ones
from inlet.core.setting.picture import BlockOnTop, PatchPicture, blocks_on_top
from inlet.core.setting.pieces import Cell, Lying, Row, TopPiece
from inlet.core.setting.places import (
    MOST_BLOCKS,
    MOST_LAID_OUT,
    Placed,
    block_counts,
    diagonal,
    in_quilt,
    most_blocks,
    placed,
    row_lengths,
    side_by_side,
    turned_by,
)
from inlet.core.setting.quilting_words import (
    quilted_text,
    quilting_words,
    usual_apart,
    usual_distance,
)
from inlet.core.setting.sewn_pieces import row_length
from inlet.core.setting.straight import strips_of
from inlet.core.setting.top import Top, fabrics_in, plain_size, quilt_top, same_top, single_pieces
from inlet.core.setting.triangles import SettingTriangles, setting_triangles
from inlet.core.setting.trimming import Trimming, trimming_of, trims_of

__all__ = [
    "JOIN",
    "MITRE_SPARE",
    "MOST_BLOCKS",
    "MOST_LAID_OUT",
    "NAMES",
    "WIDE",
    "Apart",
    "AsCut",
    "BackingWay",
    "Band",
    "BandPiece",
    "BindingPlan",
    "BlockOnTop",
    "Cell",
    "Lying",
    "Odd",
    "PatchPicture",
    "Placed",
    "Row",
    "SettingCuts",
    "SettingTriangles",
    "Spot",
    "SquaresOnTop",
    "Strip",
    "Top",
    "TopPiece",
    "Trimming",
    "as_usual",
    "at_mark_below",
    "backing_in_use",
    "backing_text",
    "backing_ways",
    "binding_plan",
    "binding_width",
    "block_counts",
    "block_sizes",
    "blocks_on_top",
    "border_strips",
    "coloured_at",
    "diagonal",
    "edges_apart",
    "fabrics_in",
    "filled_at",
    "fitting_near",
    "floats_by",
    "in_colourway",
    "in_fabrics",
    "in_quilt",
    "in_row_length",
    "in_size",
    "less_text",
    "looks_of",
    "mirrored_at",
    "most_blocks",
    "motif_of",
    "odd_ones",
    "overage",
    "place_at",
    "placed",
    "plain_size",
    "quilt_top",
    "quilted_text",
    "quilting",
    "quilting_words",
    "row_length",
    "row_lengths",
    "same_top",
    "setting_cuts",
    "setting_triangles",
    "side_by_side",
    "single_pieces",
    "squares_on_top",
    "strips_of",
    "swapped",
    "trimming_of",
    "trims_of",
    "turned_at",
    "turned_by",
    "usual_apart",
    "usual_distance",
    "wide_backing",
]
