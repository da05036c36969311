"""The sheet of a guide that shows the block from the back: every allowance folded as it is pressed,
an arrow a seam, junctions marked by shape."""

from __future__ import annotations

from collections import Counter
from typing import Any

from reportlab.lib.colors import black

from inlet.core.figures import (
    arrows_figure,
    held_figure,
    junction_mark,
    junctions_figure,
    pressed_figure,
)
from inlet.core.pressing import STATE_ORDER, STATES, PressingPlan
from inlet.files.pdf.document import PagePart
from inlet.files.pdf.figure import UNIT, Pen
from inlet.files.pdf.guide_blocks import Fabrics
from inlet.files.pdf.pages import MEDIUM

MARK = 6.5 * UNIT
TIPS, KEY = 10.0, 22.0
"""Points round the picture for tips that stand out, and below it for what the marks mean."""


class BackPicture(PagePart):
    """The block from the back, as large as the page is wide, at most so ``high``."""

    def __init__(self, plan: PressingPlan, fabrics: Fabrics, high: float) -> None:
        super().__init__()
        self.plan, self.fabrics, self.most = plan, fabrics, high

    def _scale(self, wide: float) -> float:
        width, height = (float(x) for x in self.plan.seams.draft.block.finished)
        twice = 2 * float(self.plan.seam)
        across, down = wide - 2 * TIPS, self.most - 2 * TIPS - KEY
        return min(across / (width + twice), down / (height + twice))

    def tall(self, wide: float) -> float:
        down = float(self.plan.seams.draft.block.finished[1]) + 2 * float(self.plan.seam)
        return down * self._scale(wide) + 2 * TIPS + KEY

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        plan, scale = self.plan, self._scale(wide)
        pen = self.fabrics.pen(canvas, high)
        draft, seam = plan.seams.draft, float(plan.seam) * scale
        width = float(draft.block.finished[0])
        frame = pen.frame(TIPS + seam, high - TIPS - seam, scale, mirror=width)
        pen.draw(pressed_figure(draft, plan.layers, pen.project, frame, "back"))
        pen.draw(arrows_figure(plan, frame))
        pen.draw(junctions_figure(plan, frame))
        pen.draw(held_figure(plan, frame))
        self._key(pen, 8)

    def _key(self, pen: Pen, y: float) -> None:
        counts = Counter(m.state for m in self.plan.junctions if m.junction.inside or m.counts)
        x = MARK
        for state in STATE_ORDER:
            if counts[state]:
                pen.draw(junction_mark((x, pen.high - y - 3), state, MARK))
                text = f"{counts[state]} {STATES[state]}"
                pen.canvas.setFillColor(black)
                pen.canvas.setFont(MEDIUM, 9)
                pen.canvas.drawString(x + 8, y, text)
                x += 20 + float(pen.canvas.stringWidth(text, MEDIUM, 9))
