"""Every tool of the draft stage, in the order of its buttons."""

from __future__ import annotations

from inlet.ui.draft.patch_tools import EraseTool, PaintTool
from inlet.ui.draft.seam_tools import CurveTool, SeamTool, SwingTool
from inlet.ui.draft.tool import Tool
from inlet.ui.draft.unit_tool import UnitTool

TOOLS: tuple[type[Tool], ...] = (SeamTool, CurveTool, SwingTool, UnitTool, PaintTool, EraseTool)
