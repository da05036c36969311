"""What a picture holds, as a list that any painter can draw: fabric, lines, shapes and words, each
with what it means. Screen, PDF and SVG read the same list, so that they cannot differ.

Places are pixels or points, x to the right and y down. Widths, radii and sizes of text are in
pixels at the usual size of text; a frame's ``unit`` says how many of its lengths that is.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal, NamedTuple

from inlet.core.geometry import Outline, Point, drawn_corners

Spot = tuple[float, float]
Corners = tuple[Spot, ...]
Box = tuple[float, float, float, float]
"""Left, top, right, bottom."""

Side = Literal["right", "wrong", "back", "allowance", "turned", "uncut", "ready", "plain"]
"""Of a fabric: its right side; its wrong side over another; the back of a block; an allowance on
that back, and one folded so that its right side is seen; fabric that is not cut yet, and
a piece that is; any, with nothing but its outline."""

Kind = Literal[
    "seam", "cut", "mark", "ruler", "halo", "arrow", "strong-arrow", "arrow-head",
    "strong-arrow-head", "dot", "stop", "pin", "held", "point-halo", "point", "tee", "nests",
    "nests-way", "open", "half-open", "stacks", "stacks-cross", "blades", "blade", "layer",
    "shade", "selvage", "fold", "piece-ready", "piece-to-cut", "piece-chosen", "crosscut",
    "template", "cut-done", "next-piece", "next-cut", "next-ruler", "ruler-mark", "square-off",
    "figure", "taken", "new-seam", "slice-chosen", "way-up", "missed", "uncovered",
    "scrap", "square-edge", "motif", "planned-edge", "risk-low", "risk-some", "risk-high",
    "row-risk-low", "row-risk-some", "row-risk-high", "words", "soft-words",
]  # fmt: skip
"""What a line, shape, disc or text means. ``LOOKS`` says how each is drawn."""
TagLook = Literal["plain", "strong", "size"]
"""A label; a label that is chosen or stands out; a size to cut."""


class FabricArea(NamedTuple):
    """A piece of fabric: its outline, which fabric (None: not chosen), which side of
    it is seen, and whether its letter is written on it where there are no colours."""

    outline: Corners
    fabric: str | None
    side: Side = "right"
    lettered: bool = False


class Polyline(NamedTuple):
    """A line through places; ``width`` where it is not that of its kind; ``on`` the fabric it
    lies on, where it must be read on that."""

    points: Corners
    kind: Kind
    width: float | None = None
    on: str | None = None


class Area(NamedTuple):
    """A closed outline; ``strength`` of 1 is how much its fill covers."""

    points: Corners
    kind: Kind
    strength: float = 1.0


class Disc(NamedTuple):
    """A round."""

    at: Spot
    radius: float
    kind: Kind


class Tag(NamedTuple):
    """A label on its ground, so that it reads on any fabric; its text in points."""

    at: Spot
    text: str
    size: float
    look: TagLook = "plain"


class BoxText(NamedTuple):
    """Text in the middle of a box, in points. Where it does not fit, the screen turns it on its
    side or leaves it out; paper writes it smaller. ``wide`` text may be wider than the box. ``on``
    is the fabric below the text, where it lies on one."""

    box: Box
    text: str
    size: float
    kind: Kind = "words"
    on: str | None = None
    wide: bool = False


class Clip(NamedTuple):
    """Items of which only what lies within an outline is seen."""

    within: Corners
    items: Figure


Item = FabricArea | Polyline | Area | Disc | Tag | BoxText | Clip
Figure = tuple[Item, ...]


@dataclass(frozen=True)
class Frame:
    """Where lengths of a plan lie in a picture: ``scale`` a length, origin at (left, top). With
    ``mirror``, x is counted from there to the left, as a block lies when seen from the back."""

    left: float
    top: float
    scale: float
    unit: float = 1.0
    mirror: float | None = None

    @classmethod
    def fit(cls, box: Box, bounds: Box, unit: float = 1.0, mirror: float | None = None) -> Frame:
        """The largest frame in which ``bounds`` fit into ``box``, in its middle."""
        left, top, right, bottom = bounds
        width, height = max(right - left, 1e-9), max(bottom - top, 1e-9)
        wide, high = box[2] - box[0], box[3] - box[1]
        scale = min(wide / width, high / height)
        x = box[0] + (wide - width * scale) / 2 - left * scale
        y = box[1] + (high - height * scale) / 2 - top * scale
        return cls(x, y, scale, unit, mirror)

    def at(self, x: float, y: float) -> Spot:
        """A place of the plan in the picture."""
        across = x if self.mirror is None else self.mirror - x
        return self.left + across * self.scale, self.top + y * self.scale

    def spot(self, p: Point) -> Spot:
        return self.at(*p.floats())

    def corners(self, outline: Iterable[Point]) -> Corners:
        return tuple(self.spot(p) for p in outline)

    def outline(self, outline: Outline) -> Corners:
        """An outline in the picture, its arcs in short chords."""
        return tuple(self.at(x, y) for x, y in drawn_corners(outline))

    def back(self, x: float, y: float) -> Spot:
        """A place in the picture as one of the plan."""
        across = (x - self.left) / self.scale
        return across if self.mirror is None else self.mirror - across, (y - self.top) / self.scale


def rectangle(box: Box) -> Corners:
    """The corners of a box."""
    left, top, right, bottom = box
    return (left, top), (right, top), (right, bottom), (left, bottom)


def bounds_of(outlines: Iterable[Corners]) -> Box:
    """The box round outlines, of which there is one at least."""
    xs, ys = zip(*(spot for corners in outlines for spot in corners), strict=True)
    return min(xs), min(ys), max(xs), max(ys)
