"""How a panel becomes its block: which strips move, where the joins fall, what is cut away.

Places are measured on the piece as it lies at first, from its top left, the motif staying where it
is; s is the seam allowance. A strip cut t wide and sewn to the left edge takes s of it and gives
t - 2s: the join shows at s, the strip's raw edge lies at 2s - t.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.geometry import Line, Point
from inlet.core.numbers import Exact, Fraction
from inlet.core.panels.centring import Way, centred
from inlet.core.project import Block, FabricId, Measure, Pair, Panel, PrintMotif
from inlet.core.table import Sheet, Size, box, kept, rectangle_sheet

ZERO: Exact = Fraction(0)


class StripSewn(NamedTuple):
    """A strip sewn on: across (axis 0) or up (1), at the low side or the high one; how ``wide`` it
    is cut, and whether it comes off the piece, from its other side, or is of the fabric
    ``added``."""

    axis: int
    low: bool
    wide: Fraction
    moved: bool


class PanelCut(NamedTuple):
    """A panel made into a block: its ``piece``, the ``strips`` in the order they are sewn on,
    ``corner`` and ``size`` of what is kept in the end, raw; the ``stabiliser`` ironed on; the box
    of the ``motif`` (left, top, right, bottom)."""

    piece: Size
    strips: tuple[StripSewn, ...]
    corner: tuple[Exact, Exact]
    size: Size
    stabiliser: Size
    motif: tuple[Exact, Exact, Exact, Exact]

    def scaled(self, k: Exact) -> PanelCut:
        """The same of a block ``k`` times as large, near enough to compare pieces by."""
        wide, high = self.piece
        return self._replace(piece=(wide * k, high * k))


def motif_of(panel: Panel, finished: Pair) -> PrintMotif:
    """The motif of a panel with the free fabric on every side, to be set in a block."""
    return PrintMotif(
        size=panel.motif,
        left=panel.left,
        right=panel.piece[0] - panel.left - panel.motif[0],
        top=panel.top,
        bottom=panel.piece[1] - panel.top - panel.motif[1],
        finished=finished,
    )


def panel_ways(block: Block, measure: Measure) -> tuple[Way, Way]:
    """What centring the panel of a block takes, across and then up."""
    assert block.panel is not None, "only a panel is centred"
    return centred(motif_of(block.panel, block.finished), measure, block.panel.wander)


def panel_cut(block: Block, measure: Measure) -> PanelCut | None:
    """How the panel of a block is cut and sewn; None where it cannot be centred."""
    panel = block.panel
    assert panel is not None, "only a panel is cut so"
    ways = panel_ways(block, measure)
    if any(way.verdict in ("large", "touches") for way in ways):
        return None
    strips = [tuple(_strips(axis, way)) for axis, way in enumerate(ways)]
    # The second seam is as long as the piece has become: first the way that makes it grow less.
    seam = measure.seam
    grows = [
        sum((s.wide - 2 * seam - (s.wide if s.moved else 0) for s in each), ZERO) for each in strips
    ]
    order = (1, 0) if grows[1] < grows[0] else (0, 1)
    corner = _corner(panel, block.finished, ways, seam)
    margin = panel.margin if panel.margin is not None else 2 * measure.system.coarse
    return PanelCut(
        panel.piece,
        (*strips[order[0]], *strips[order[1]]),
        corner,
        (ways[0].cut, ways[1].cut),
        (ways[0].cut + 2 * margin, ways[1].cut + 2 * margin),
        (panel.left, panel.top, panel.left + panel.motif[0], panel.top + panel.motif[1]),
    )


def _strips(axis: int, way: Way) -> Iterator[StripSewn]:
    low = way.short in ("left", "top")
    if way.verdict in ("move", "add"):
        yield StripSewn(axis, low, way.strip, way.verdict == "move")
    elif way.verdict == "both":
        yield StripSewn(axis, low, way.strip, False)
        yield StripSewn(axis, not low, way.other, False)


def _corner(
    panel: Panel, finished: Pair, ways: tuple[Way, Way], seam: Exact
) -> tuple[Exact, Exact]:
    """The top left of what is kept: the motif in its middle, or, where it is left off the middle,
    at the edge it is too near to."""
    at = []
    for axis, way in enumerate(ways):
        start = (panel.left, panel.top)[axis]
        middle = start + panel.motif[axis] / 2
        corner = middle - way.cut / 2
        if way.verdict == "leave":
            corner = ZERO if way.short in ("left", "top") else panel.piece[axis] - way.cut
        at.append(corner)
    return at[0], at[1]


class PanelStage(NamedTuple):
    """A strip sewn on: the sheet ``before``, the line it is cut off along (None of another fabric),
    the ``rest`` that it is sewn to, the strip as it lies sewn and opened, with its allowance, the
    ``seam``, and the sheet ``after``."""

    strip: StripSewn
    before: Sheet
    cut: Line | None
    rest: Sheet
    opened: Sheet
    seam: Line
    after: Sheet


def panel_stages(
    cut: PanelCut, seam: Exact, fabric: FabricId, added: FabricId
) -> Iterator[PanelStage]:
    """The strips of a panel sewn on one after the other."""
    sheet: Sheet = rectangle_sheet(*cut.piece, fabric)
    for strip in cut.strips:
        axis = strip.axis
        low, high = _reach(sheet, axis)
        line = None
        rest = sheet
        if strip.moved:
            # The growing side of the line is the strip.
            line = _line(axis, high - strip.wide, True) if strip.low else _line(
                axis, low + strip.wide, False
            )  # fmt: skip
            rest = kept(sheet, line.opposite())
        low, high = _reach(rest, axis)
        # Where the strip begins, lying so that both raw edges reach an allowance past the seam.
        begin = low + 2 * seam - strip.wide if strip.low else high - 2 * seam
        if line is not None:
            off = kept(sheet, line)
            moved = _along(axis, begin - _reach(off, axis)[0])
            placed: Sheet = tuple((tuple(p.plus(moved) for p in o), of) for o, of in off)
        else:
            placed = _new_strip(rest, axis, begin, strip.wide, added)
        join = _line(axis, low + seam, True) if strip.low else _line(axis, high - seam, False)
        after = (*kept(rest, join), *kept(placed, join.opposite()))
        yield PanelStage(strip, sheet, line, rest, placed, join, after)
        sheet = after


def panel_sheet(cut: PanelCut, seam: Exact, fabric: FabricId, added: FabricId) -> Sheet:
    """The panel with all its strips on."""
    sheet: Sheet = rectangle_sheet(*cut.piece, fabric)
    for stage in panel_stages(cut, seam, fabric, added):
        sheet = stage.after
    return sheet


def raw_panel(cut: PanelCut, sheet: Sheet) -> Sheet:
    """What is kept of a sheet in the end, its top left at (0, 0)."""
    (x, y), (wide, high) = cut.corner, cut.size
    inside = kept(
        sheet, _line(0, x, True), _line(0, x + wide, False), _line(1, y, True),
        _line(1, y + high, False),
    )  # fmt: skip
    move = Point(-x, -y)
    return tuple((tuple(p.plus(move) for p in outline), of) for outline, of in inside)


def _line(axis: int, at: Exact, beyond: bool) -> Line:
    """An upright line (level for axis 1); its growing side lies right of it or below it where
    ``beyond``, else before it."""
    sign = Fraction(1) if beyond else Fraction(-1)
    zero = Fraction(0)
    return Line(sign, zero, sign * at) if axis == 0 else Line(zero, sign, sign * at)


def _reach(sheet: Sheet, axis: int) -> tuple[Exact, Exact]:
    sides = box(sheet)
    return sides[axis], sides[axis + 2]


def _along(axis: int, by: Exact) -> Point:
    return Point(by, ZERO) if axis == 0 else Point(ZERO, by)


def _new_strip(rest: Sheet, axis: int, begin: Exact, wide: Exact, fabric: FabricId) -> Sheet:
    """A strip of another fabric, as long as what it is sewn to."""
    left, top, right, bottom = box(rest)
    if axis == 0:
        return rectangle_sheet(wide, bottom - top, fabric, begin, top)
    return rectangle_sheet(right - left, wide, fabric, left, begin)
