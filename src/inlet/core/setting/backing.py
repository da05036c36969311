"""What goes behind a quilt: backing and batting.

The backing reaches past the quilt on every side by its overage o: it is (W + 2o) by (H + 2o). Of
fabric U wide, n widths side by side, joined with allowances j, are n·U - (n - 1)·2j wide. What
there is of the fabric gives widths as well: a piece as wide as it is sold, a panel long, gives one.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.layout import bought_text
from inlet.core.numbers import Exact, Fraction, floor_exact, next_mark
from inlet.core.project import Cutting, Fabric, Measure, Pair, Project, Quilt, replace
from inlet.core.setting.joined import number_joined
from inlet.core.words import length_text, near_text

JOIN = Fraction(1, 2)
"""Inches: the allowance where widths of backing are joined."""
LEAST_OVERAGE = Fraction(3)
"""Inches past the quilt that still do where a little less spares a whole width."""
OVERAGE, SAMPLE_OVERAGE = Fraction(4), Fraction(1)
"""Inches past the quilt on each side, and past a sample of one block."""


WIDE = Fraction(108)
"""Inches: the width of fabric sold for backing."""
WHOLE_PIECES = ("bolt", "scrap")
"""Kinds of fabric that is there from which widths of backing can be cut."""


class Less(NamedTuple):
    """A width fewer, with less ``overage`` on each side: what is bought then."""

    overage: Fraction
    buy: Fraction


class BackingWay(NamedTuple):
    """One way to make a backing of ``size``: ``widths`` of fabric, each ``panel`` long, side by
    side with their seams ``along`` the quilt's height or ``across`` it (one width: neither).
    ``length`` of fabric in all, ``owned`` widths of it there are already, ``buy`` what is bought
    as shops sell it, and what is ``left`` of the last width. ``less``, where a little less overage
    would spare a width."""

    seam: str
    size: Pair
    widths: int
    panel: Exact
    length: Exact
    buy: Fraction
    left: Pair
    owned: int = 0
    less: Less | None = None

    def joins(self, room: Exact, lost: Exact) -> list[Exact]:
        """Where its seams lie, from the first width's edge: each width but the ends gives what it
        keeps beside its joins."""
        first = room - lost / 2
        return [first + k * (room - lost) for k in range(self.widths - 1)]


def overage(quilt: Quilt, measure: Measure, part: str) -> Exact:
    """How far the backing (or the ``batting``) reaches past the quilt; of one block, as a sample,
    an inch."""
    own = quilt.backing if part == "backing" else quilt.batting
    if own is not None and own.overage is not None:
        return own.overage
    one = (quilt.columns or 0) * (quilt.rows or 0) == 1
    return measure.from_inches(SAMPLE_OVERAGE if one else OVERAGE)


def backing_ways(size: Pair, project: Project, in_top: bool = False) -> tuple[BackingWay, ...]:
    """Every way to make the backing of a quilt of finished ``size``, least fabric first, then
    fewest seams; nothing where no fabric is chosen for it. What there is of that fabric is taken
    for it, unless it is cut for the top as well (``in_top``)."""
    quilt = project.quilt
    backing = quilt.backing if quilt is not None else None
    if quilt is None or backing is None:
        return ()
    measure = project.measure
    o = overage(quilt, measure, "backing")
    whole = size[0] + 2 * o, size[1] + 2 * o
    ways = [_way("along", whole, whole[0], whole[1], o, project, in_top)]
    if whole[0] != whole[1]:
        ways.append(_way("across", whole, whole[1], whole[0], o, project, in_top))
    return tuple(sorted(ways, key=lambda way: (way.buy, way.widths)))


def backing_in_use(ways: Sequence[BackingWay], project: Project) -> BackingWay | None:
    """The way the maker chose, else the best."""
    wanted = project.quilt.backing.seam if project.quilt and project.quilt.backing else ""
    return next((way for way in ways if way.seam == wanted), ways[0] if ways else None)


def backing_text(way: BackingWay, measure: Measure) -> str:
    """One way in words: ``2 widths, seams down: buy 5 1/8 yd, 20 x 90 in left``."""
    many = "1 width" if way.widths == 1 else f"{way.widths} widths"
    seams = "" if way.widths == 1 else f", seams {'down' if way.seam == 'along' else 'across'}"
    left = f", {near_text(way.left, measure)} left" if way.left[0] > 0 else ""
    there = f", {way.owned} of them there" if way.owned else ""
    buy = f"buy {bought_text(way.buy, measure)}" if way.buy else "nothing to buy"
    return f"{many}{there}{seams}: {buy}{left}{less_text(way, measure)}"


def less_text(way: BackingWay, measure: Measure) -> str:
    """``; with 3 3/4 in past the edge, 3 3/4 yd would do``; nothing where none is spared."""
    if way.less is None:
        return ""
    over = length_text(way.less.overage, measure)
    return f"; with {over} past the edge, {bought_text(way.less.buy, measure)} would do"


def _way(
    seam: str, whole: Pair, beside: Exact, panel: Exact, overage: Exact, project: Project,
    in_top: bool,
) -> BackingWay:  # fmt: skip
    measure = project.measure
    assert project.quilt is not None
    assert project.quilt.backing is not None
    fabric = project.fabric(project.quilt.backing.fabric)
    room = project.usable_width(project.quilt.backing.fabric)
    lost = 2 * measure.from_inches(JOIN)
    widths = number_joined(beside, room, lost)
    owned = 0 if fabric is None or in_top else _owned(fabric, beside, panel, room, widths)
    length = widths * panel
    left = widths * (room - lost) + lost - beside
    less = None
    if widths > 1 and not owned:
        over = overage - (beside - (widths - 1) * (room - lost) - lost) / 2
        over = floor_exact(over / measure.system.checked_to / 4) * measure.system.checked_to * 4
        if over >= measure.from_inches(LEAST_OVERAGE):
            shorter = panel - 2 * (overage - over)
            less = Less(over, _bought((widths - 1) * shorter, fabric, project))
    buy = _bought((widths - owned) * panel, fabric, project)
    return BackingWay(seam, whole, widths, panel, length, buy, (left, panel), owned, less)


def _bought(length: Exact, fabric: Fabric | None, project: Project) -> Fraction:
    """So much fabric, with the maker's margin and what washing takes, as shops sell it."""
    rules = project.cutting or Cutting()
    kept: Exact = Fraction(1)
    if fabric is not None and rules.wash:
        kept = 1 - fabric.shrinkage[0] / 100
    return next_mark(length * (1 + rules.margin / 100) / kept, project.measure.system.buying)


def wide_backing(size: Pair, project: Project) -> BackingWay | None:
    """The backing of one width of fabric that is sold wide for it; None where that is no less, or
    none is chosen."""
    quilt = project.quilt
    wide = project.measure.from_inches(WIDE)
    if quilt is None or quilt.backing is None:
        return None
    fabric = project.fabric(quilt.backing.fabric) or Fabric(id=quilt.backing.fabric)
    sold_wide = project.with_fabric(fabric.id, replace(fabric, width=wide, have=()))
    usual = backing_in_use(backing_ways(size, project), project)
    ways = [way for way in backing_ways(size, sold_wide) if way.widths == 1]
    return ways[0] if ways and usual is not None and usual.widths > 1 else None


def _owned(fabric: Fabric, beside: Exact, panel: Exact, room: Exact, widths: int) -> int:
    """How many of the widths there are: all of them where a piece is as large as the backing."""
    panels = 0
    for have in fabric.have:
        if have.kind not in WHOLE_PIECES or have.length is None:
            continue
        wide = room if have.width is None else have.width - 2 * have.selvage
        if wide >= beside and have.length >= panel:
            return widths
        if wide >= room:
            panels += have.count * floor_exact(have.length / panel)
    return min(widths, panels)
