"""A panel: strips of the piece, or of other fabric, sewn on until its motif is in the middle.

The piece is there already, and so is a strip that is cut off it: neither is cut from fabric.
"""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.geometry import Point, flip
from inlet.core.methods.method import Method, MethodWork, Sizes, no_bias
from inlet.core.numbers import Exact
from inlet.core.panels import PanelCut, PanelStage, panel_sheet, panel_stages, raw_panel
from inlet.core.project import FabricId
from inlet.core.table import DrawnLine, Move, Piece, Sheet, box, rectangle, rectangle_sheet
from inlet.core.units import Unit

SIDE = {(0, True): "left", (0, False): "right", (1, True): "top", (1, False): "bottom"}


def centred_panel(unit: Unit, cut: PanelCut, seam: Exact) -> Method:
    """The panel with its strips, trimmed to the unit."""
    fabric = unit.fabrics[0] if len(unit.fabrics) == 1 else _ground(unit, cut)
    added = next((each for each in unit.fabrics if each != fabric), fabric)
    there = [rectangle(fabric, cut.piece)]
    new: list[Piece] = []
    for stage in panel_stages(cut, seam, fabric, added):
        size = _size(stage.opened)
        (there if stage.strip.moved else new).append(
            rectangle(fabric if stage.strip.moved else added, size)
        )

    def work(sizes: Sizes) -> MethodWork:
        sheet = panel_sheet(cut, seam, fabric, added)
        return MethodWork(tuple(_moves(cut, seam, fabric, added)), (raw_panel(cut, sheet),))

    return Method(
        "centred-panel", 1, (*there, *new), False, work, outer_bias=no_bias, there=len(there)
    )  # fmt: skip


def _ground(unit: Unit, cut: PanelCut) -> FabricId:
    """The fabric of the piece: that of the patch in the middle, which has the motif."""
    wide, high = unit.size
    left, top = box(unit.picture)[:2]
    x, y = left + wide / 2, top + high / 2
    for outline, fabric in unit.picture:
        a, b, c, d = box(((outline, fabric),))
        if a <= x <= c and b <= y <= d:
            return fabric
    return unit.fabrics[0]


def _size(sheet: Sheet) -> tuple[Exact, Exact]:
    left, top, right, bottom = box(sheet)
    return right - left, bottom - top


def _moves(cut: PanelCut, seam: Exact, fabric: FabricId, added: FabricId) -> Iterator[Move]:
    sheet: Sheet = rectangle_sheet(*cut.piece, fabric)
    motif = tuple(_round(cut))
    wide, high = (float(side) for side in cut.stabiliser)
    yield Move(
        "lay",
        f"Iron stabiliser behind the motif, {{length:{wide}}} wide and {{length:{high}}} high: it "
        "reaches beyond the finished piece on every side.",
        sheet,
        (),
        motif,
    )
    for stage in panel_stages(cut, seam, fabric, added):
        for move in _sewn_on(stage):
            yield move._replace(lines=(*motif, *move.lines))
        sheet = stage.after
    yield Move(
        "trim",
        "Mark the middle of the motif, measure from there, and trim to {trim}: this is the last "
        "cut.",
        sheet, (), (*motif, *_last_cuts(cut, sheet)),
    )  # fmt: skip


def _round(cut: PanelCut) -> Iterator[DrawnLine]:
    """The box of the motif, dotted in every picture."""
    left, top, right, bottom = cut.motif
    corners = [Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom)]
    for i, corner in enumerate(corners):
        yield DrawnLine("mark", corner, corners[(i + 1) % 4])


def _sewn_on(stage: PanelStage) -> Iterator[Move]:
    """One strip: cut, laid, sewn, pressed."""
    strip = stage.strip
    side, other = SIDE[strip.axis, strip.low], SIDE[strip.axis, not strip.low]
    wide = float(strip.wide)
    if stage.cut is not None:
        yield Move(
            "cut-apart", f"Cut a strip {{length:{wide}}} wide off the {other}, all along the edge.",
            stage.before, (), (_across(stage.before, strip.axis, _at(stage, strip.axis)),),
        )  # fmt: skip
    upper = tuple((flip(outline, stage.seam), of) for outline, of in stage.opened)
    line = _across(stage.rest, strip.axis, _seam_at(stage))
    runs = "; the print runs the same way" if stage.cut is not None else ""
    yield Move(
        "sew",
        f"Lay the strip {{length:{wide}}} wide on the {side} edge, right sides together{runs}; sew "
        "{seam} from the edge.",
        stage.rest, upper, (line._replace(kind="seam"),),
    )  # fmt: skip
    yield Move("open", f"Press the seam on the {side} away from the motif.", stage.after)


def _at(stage: PanelStage, axis: int) -> Exact:
    line = stage.cut
    assert line is not None, "only a strip that moves is cut off"
    return line.c / (line.a if axis == 0 else line.b)


def _seam_at(stage: PanelStage) -> Exact:
    line = stage.seam
    return line.c / (line.a if stage.strip.axis == 0 else line.b)


def _across(sheet: Sheet, axis: int, at: Exact) -> DrawnLine:
    """A line through a sheet from edge to edge."""
    left, top, right, bottom = box(sheet)
    if axis == 0:
        return DrawnLine("cut", Point(at, top), Point(at, bottom))
    return DrawnLine("cut", Point(left, at), Point(right, at))


def _last_cuts(cut: PanelCut, sheet: Sheet) -> Iterator[DrawnLine]:
    (x, y), (wide, high) = cut.corner, cut.size
    yield _across(sheet, 0, x)
    yield _across(sheet, 0, x + wide)
    yield _across(sheet, 1, y)
    yield _across(sheet, 1, y + high)
