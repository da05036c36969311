"""What goes behind a quilt: backing and batting.

The backing reaches past the quilt on every side by its overage o: it is (W + 2o) by (H + 2o). Of
fabric U wide, n widths side by side, joined with allowances j, are n·U - (n - 1)·2j wide.
"""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.layout import bought_text
from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import Backing, Measure, Pair, Project, Quilt
from inlet.core.setting.joined import number_joined
from inlet.core.words import near_text

JOIN = Fraction(1, 2)
"""Inches: the allowance where widths of backing are joined."""
OVERAGE, SAMPLE_OVERAGE = Fraction(4), Fraction(1)
"""Inches past the quilt on each side, and past a sample of one block."""


class BackingWay(NamedTuple):
    """One way to make a backing of ``size``: ``widths`` of fabric, each ``panel`` long, side by
    side with their seams ``along`` the quilt's height or ``across`` it (one width: neither).
    ``length`` of fabric in all, ``buy`` as shops sell it, and what is ``left`` of the last
    width."""

    seam: str
    size: Pair
    widths: int
    panel: Exact
    length: Exact
    buy: Fraction
    left: Pair

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


def backing_ways(size: Pair, project: Project) -> tuple[BackingWay, ...]:
    """Every way to make the backing of a quilt of finished ``size``, least fabric first, then
    fewest seams; nothing where no fabric is chosen for it."""
    quilt = project.quilt
    backing = quilt.backing if quilt is not None else None
    if quilt is None or backing is None:
        return ()
    measure = project.measure
    o = overage(quilt, measure, "backing")
    whole = size[0] + 2 * o, size[1] + 2 * o
    room = project.usable_width(backing.fabric)
    ways = [_way("along", whole, whole[0], whole[1], room, project, backing)]
    if whole[0] != whole[1]:
        ways.append(_way("across", whole, whole[1], whole[0], room, project, backing))
    return tuple(sorted(ways, key=lambda way: (way.buy, way.widths)))


def backing_in_use(size: Pair, project: Project) -> BackingWay | None:
    """The way the maker chose, else the best."""
    ways = backing_ways(size, project)
    wanted = project.quilt.backing.seam if project.quilt and project.quilt.backing else ""
    return next((way for way in ways if way.seam == wanted), ways[0] if ways else None)


def backing_text(way: BackingWay, measure: Measure) -> str:
    """One way in words: ``2 widths, seams down: buy 5 1/8 yd, 20 x 90 in left``."""
    many = "1 width" if way.widths == 1 else f"{way.widths} widths"
    seams = "" if way.widths == 1 else f", seams {'down' if way.seam == 'along' else 'across'}"
    left = f", {near_text(way.left, measure)} left" if way.left[0] > 0 else ""
    return f"{many}{seams}: buy {bought_text(way.buy, measure)}{left}"


def _way(
    seam: str, whole: Pair, beside: Exact, panel: Exact, room: Exact, project: Project,
    backing: Backing,
) -> BackingWay:  # fmt: skip
    measure = project.measure
    lost = 2 * measure.from_inches(JOIN)
    widths = number_joined(beside, room, lost)
    length = widths * panel
    fabric = project.fabric(backing.fabric)
    margin: Exact = Fraction(1)
    kept: Exact = Fraction(1)
    if project.cutting is not None:
        margin += project.cutting.margin / 100
    if fabric is not None and project.cutting is not None and project.cutting.wash:
        kept = 1 - fabric.shrinkage[0] / 100
    buy = next_mark(length * margin / kept, measure.system.buying)
    left = widths * (room - lost) + lost - beside
    return BackingWay(seam, whole, widths, panel, length, buy, (left, panel))
