"""The sheet of a guide that shows the block from the back: every allowance folded as it is pressed,
an arrow a seam, junctions marked by shape."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass

from reportlab.lib.colors import Color, black, white

from inlet.core.pressing import STATE_ORDER, STATES, PressingPlan, State
from inlet.files.pdf.guide_drawing import Pen, Spot
from inlet.files.pdf.pages import MEDIUM

STRIP = Color(0.93, 0.93, 0.91)
MARK = 4.0
TIPS, KEY = 10.0, 22.0
"""Points round the picture for tips that stand out, and below it for what the marks mean."""


@dataclass(frozen=True)
class BackPicture:
    """The block from the back, as large as the page is wide, at most ``high``."""

    plan: PressingPlan
    high: float

    def _scale(self, wide: float) -> float:
        width, height = (float(x) for x in self.plan.seams.draft.block.finished)
        twice = 2 * float(self.plan.seam)
        across, down = wide - 2 * TIPS, self.high - 2 * TIPS - KEY
        return min(across / (width + twice), down / (height + twice))

    def height(self, wide: float) -> float:
        tall = float(self.plan.seams.draft.block.finished[1]) + 2 * float(self.plan.seam)
        return tall * self._scale(wide) + 2 * TIPS + KEY

    def draw(self, pen: Pen, left: float, top: float, wide: float) -> None:
        plan, scale = self.plan, self._scale(wide)
        draft, seam = plan.seams.draft, float(plan.seam)
        width = float(draft.block.finished[0])

        def at(x: float, y: float) -> Spot:
            return left + TIPS + (width - x + seam) * scale, top - TIPS - (y + seam) * scale

        for patch in draft.patches:
            _outline(pen, [at(*p.floats()) for p in patch.polygon], white, True)
        for layer in sorted(plan.layers, key=lambda each: each.depth):
            # Of an allowance folded back the right side is seen; it is drawn darker.
            fill = Color(0.72, 0.72, 0.7) if layer.folds % 2 else STRIP
            _outline(pen, [at(*p.floats()) for p in layer.outline], fill)
        for stretch in plan.stretches:
            (x, y), (dx, dy) = plan.middle(stretch), plan.square(stretch)
            start, toward = at(x, y), at(x + dx, y + dy)
            pen.arrow(start, toward, 12)
            if stretch.toward is None:
                pen.arrow(start, (2 * start[0] - toward[0], 2 * start[1] - toward[1]), 12)
        for met in plan.junctions:
            if met.junction.inside or met.counts:
                draw_mark(pen, at(*met.junction.at.floats()), met.state)
        self._key(pen, left, top - self.height(wide) + 8)

    def _key(self, pen: Pen, left: float, y: float) -> None:
        found = Counter(m.state for m in self.plan.junctions if m.junction.inside or m.counts)
        x = left + MARK
        for state in STATE_ORDER:
            if found[state]:
                draw_mark(pen, (x, y + 3), state)
                text = f"{found[state]} {STATES[state]}"
                pen.canvas.setFillColor(black)
                pen.canvas.setFont(MEDIUM, 9)
                pen.canvas.drawString(x + 8, y, text)
                x += 20 + float(pen.canvas.stringWidth(text, MEDIUM, 9))


def _outline(pen: Pen, points: list[Spot], fill: Color, hatched: bool = False) -> None:
    c = pen.canvas
    path = pen.path(points)
    c.setStrokeColor(black)
    c.setLineWidth(0.35)
    c.setFillColor(fill)
    c.drawPath(path, fill=1, stroke=1)
    if hatched:
        pen.hatch(path, points)


def draw_mark(pen: Pen, at: Spot, state: State) -> None:
    """A junction by its shape: a disc nests, blades are whirled, a diamond is open (half of it
    filled: one seam is), a crossed square stacks, a dot is a T."""
    _MARKS[state](pen, *at)


def _disc(pen: Pen, x: float, y: float, radius: float = MARK) -> None:
    pen.canvas.setFillColor(black)
    pen.canvas.setStrokeColor(white)
    pen.canvas.setLineWidth(0.7)
    pen.canvas.circle(x, y, radius, fill=1, stroke=1)


def _dot(pen: Pen, x: float, y: float) -> None:
    _disc(pen, x, y, 1.4)


def _blades(pen: Pen, x: float, y: float) -> None:
    pen.blades(x, y, MARK + 1)


def _diamond(pen: Pen, x: float, y: float, half: bool = False) -> None:
    c, r = pen.canvas, MARK + 1
    corners = [(x - r, y), (x, y + r), (x + r, y), (x, y - r)]
    c.setLineWidth(1.0)
    _outline(pen, corners, white)
    if half:
        _outline(pen, corners[1:], black)


def _half_diamond(pen: Pen, x: float, y: float) -> None:
    _diamond(pen, x, y, True)


def _square(pen: Pen, x: float, y: float) -> None:
    c, r = pen.canvas, MARK
    c.setFillColor(white)
    c.setStrokeColor(black)
    c.setLineWidth(1.1)
    c.rect(x - r, y - r, 2 * r, 2 * r, fill=1, stroke=1)
    c.line(x - r, y - r, x + r, y + r)
    c.line(x - r, y + r, x + r, y - r)


_MARKS: dict[State, Callable[[Pen, float, float], None]] = {
    "nests": _disc,
    "whirled": _blades,
    "open": _diamond,
    "mixed": _half_diamond,
    "stacks": _square,
    "tee": _dot,
}
