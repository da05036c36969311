"""A scrap on the corner of a square: as it lies, as it is flipped, and what it does not cover."""

from __future__ import annotations

from inlet.core.figures.display import Area, Disc, FabricArea, Figure, Frame, Item, Polyline, Tag
from inlet.core.geometry import Point, clip
from inlet.core.improvised import CornerTrial, ends_of, line_of
from inlet.core.project import Measure
from inlet.core.table import rectangle_sheet
from inlet.core.words import length_text

HANDLE = 7.0
LABEL = 13.0


def corner_figure(
    trial: CornerTrial, fabrics: tuple[str | None, str | None], measure: Measure, frame: Frame
) -> Figure:
    """The raw square in the first of two fabrics, the scrap in the second: flipped on top, its
    allowance hidden below it, and its outline before that; the seam with a handle at each end, and
    how far they lie from the corner. What of the corner and of the allowance it misses is
    hatched."""
    wide, high = trial.size
    (square, _), = rectangle_sheet(wide, high, None)  # fmt: skip
    corner, level, upright = ends_of(trial.seam, trial.size)
    outline = frame.corners(square)
    lies, line = frame.corners(trial.lies), line_of(trial.seam, trial.size)
    items: list[Item] = [
        FabricArea(outline, fabrics[0]),
        Area(frame.corners(trial.wanted), "uncovered"),
        FabricArea(frame.corners(clip(trial.flipped, line.opposite())), fabrics[0]),
        FabricArea(frame.corners(clip(trial.flipped, line)), fabrics[1]),
        Polyline((*lies, lies[0]), "scrap"),
        Polyline((*outline, outline[0]), "square-edge"),
        Polyline((frame.spot(level), frame.spot(upright)), "seam"),
    ]
    for end, along in ((level, trial.seam.along), (upright, trial.seam.down)):
        items.append(Disc(frame.spot(end), HANDLE * frame.unit, "held"))
        middle = Point((corner.x + end.x) / 2, (corner.y + end.y) / 2)
        items.append(Tag(frame.spot(middle), length_text(along, measure), LABEL, "size"))
    return tuple(items)
