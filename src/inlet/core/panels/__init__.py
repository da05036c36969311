"""Feature panels: a motif brought to the middle of a block, strips moved from side to side.

Promise: joins keep off the motif; what is drawn is what the strips, sewn on and trimmed, show.
"""

from inlet.core.panels.centring import centring_lines
from inlet.core.panels.many import PackedTop, one_size, packed, sizes_on_grid
from inlet.core.panels.panel_cut import (
    PanelCut,
    PanelStage,
    panel_cut,
    panel_sheet,
    panel_stages,
    raw_panel,
)
from inlet.core.panels.panel_drawing import drawn_panel, panel_problems
from inlet.core.panels.photo import measured_box, photo_scale
from inlet.core.panels.words import packed_lines, panel_text

__all__ = [
    "PackedTop",
    "PanelCut",
    "PanelStage",
    "centring_lines",
    "drawn_panel",
    "measured_box",
    "one_size",
    "packed",
    "packed_lines",
    "panel_cut",
    "panel_problems",
    "panel_sheet",
    "panel_stages",
    "panel_text",
    "photo_scale",
    "raw_panel",
    "sizes_on_grid",
]
