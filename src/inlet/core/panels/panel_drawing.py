"""The drawing of a block that is a panel: the piece and the strips sewn to it, as they show."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from itertools import pairwise

from inlet.core.geometry import edges
from inlet.core.numbers import Exact, Fraction
from inlet.core.panels.centring import Way
from inlet.core.panels.panel_cut import panel_cut, panel_sheet, panel_ways, raw_panel
from inlet.core.problem import Problem
from inlet.core.project import Block, FabricAt, Measure, Seam, replace, straight
from inlet.core.table import Sheet, trimmed
from inlet.core.words import length_text, size_text


def drawn_panel(block: Block, measure: Measure) -> Block:
    """A block with the drawing its panel gives; one patch where it cannot be centred."""
    panel = block.panel
    assert panel is not None, "only a panel is drawn so"
    cut = panel_cut(block, measure)
    wide, high = block.finished
    columns, rows = [wide], [high]
    seams: tuple[Seam, ...] = ()
    spots = [FabricAt(point=(wide / 2, high / 2), fabric=panel.fabric)]
    if cut is not None and cut.strips:
        added = panel.added or panel.fabric
        s = measure.seam
        shown = trimmed(raw_panel(cut, panel_sheet(cut, s, panel.fabric, added)), s)
        xs, ys = (sorted({p[axis] - s for outline, _ in shown for p in outline}) for axis in (0, 1))
        columns = [b - a for a, b in pairwise(xs)]
        rows = [b - a for a, b in pairwise(ys)]
        seams = tuple(_seams(shown, block.finished, s))
        spots = []
        for outline, fabric in shown:
            x, y = (sum((p[axis] for p in outline), Fraction(0)) / len(outline) for axis in (0, 1))
            spots.append(FabricAt(point=(x - s, y - s), fabric=fabric or panel.fabric))
    return replace(
        block, columns=tuple(columns), rows=tuple(rows), seams=seams,
        fabric_at=tuple(sorted(spots, key=lambda spot: spot.point[::-1])),
    )  # fmt: skip


def _seams(shown: Sheet, finished: tuple[Exact, Exact], s: Exact) -> Iterator[Seam]:
    """The joins inside the block, each as long as it runs through."""
    for axis in (0, 1):
        spans: dict[Exact, set[tuple[Exact, Exact]]] = defaultdict(set)
        for outline, _ in shown:
            for p, q in edges(outline):
                at = p[axis] - s
                if p[axis] == q[axis] and 0 < at < finished[axis]:
                    ends = sorted((p[1 - axis] - s, q[1 - axis] - s))
                    spans[at].add((ends[0], ends[1]))
        for at, parts in sorted(spans.items()):
            ordered = sorted(parts)
            begin, end = ordered[0]
            for low, high in [*ordered[1:], (finished[1 - axis] + 1, finished[1 - axis] + 1)]:
                if low <= end:
                    end = max(end, high)
                    continue
                ends_ = ((at, begin), (at, end))
                yield straight(*(ends_ if axis == 0 else ((begin, at), (end, at))))
                begin, end = low, high


def panel_problems(block: Block, measure: Measure) -> Iterator[Problem]:
    """Why the motif of a panel cannot be in the middle of its block, and what it lacks."""
    panel = block.panel
    if panel is None:
        return
    for axis, way in enumerate(panel_ways(block, measure)):
        code, text = _fault(block, way, axis, measure)
        if code:
            yield Problem("error" if code != "panel-lacks" else "warning", code, (), text)
            if code == "panel-motif":
                return


def _fault(block: Block, way: Way, axis: int, measure: Measure) -> tuple[str, str]:
    panel = block.panel
    assert panel is not None, "only a panel has its faults"
    if way.verdict == "large":
        return "panel-motif", (
            f"The motif is {size_text(panel.motif, measure)}, larger than the block: make the "
            "block larger."
        )
    if way.verdict == "touches":
        return "panel-edge", (
            f"The fabric ends {length_text(way.reach, measure)} from the motif on the {way.short}: "
            "a join there would cut into it. Choose a larger piece."
        )
    if way.verdict in ("add", "both"):
        two = f"the {way.short} and the {way.plenty} lack"
        lacks = f"the {way.short} lacks" if way.verdict == "add" else two
        return "panel-lacks", (
            f"The piece has no strip to give {'across' if axis == 0 else 'up'}: what {lacks} "
            "is cut of other fabric."
        )
    return "", ""
