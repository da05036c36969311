"""Feature panels: a motif brought to the middle of a block, strips moved from side to side.

Promise: joins keep off the motif; what is drawn is what the strips, sewn on and trimmed, show.
"""

from inlet.core.panels.centring import SIDES, Way, centred, centring_lines
from inlet.core.panels.panel_cut import (
    PanelCut,
    PanelStage,
    motif_of,
    panel_cut,
    panel_sheet,
    panel_stages,
    panel_ways,
    raw_panel,
)
from inlet.core.panels.panel_drawing import drawn_panel, panel_problems

__all__ = [
    "SIDES",
    "PanelCut",
    "PanelStage",
    "Way",
    "centred",
    "centring_lines",
    "drawn_panel",
    "motif_of",
    "panel_cut",
    "panel_problems",
    "panel_sheet",
    "panel_stages",
    "panel_ways",
    "raw_panel",
]
