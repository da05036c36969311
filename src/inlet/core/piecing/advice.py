"""One more seam in the draft that would spare a set-in, and what it would cost."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.assembly import heading, unpassed
from inlet.core.cancellation import check
from inlet.core.draft import Draft, Patch, add_seams, draft
from inlet.core.geometry import (
    Circle,
    Point,
    dot,
    edges,
    line_through,
    meet,
    midpoint,
    outline_width,
    side,
)
from inlet.core.memo import Latest
from inlet.core.project import Block, Project, straight
from inlet.core.units import Part, break_down, walk
from inlet.core.words import fabric_name, place_text

MOST_TRIED = 12
"""Seams that are worked through to the end; the best by pivots first."""
MOST_WORK = 600
"""Edges of the block, times the seams worked through: advice takes no longer than the plan."""
MOST_SET_IN = 100
"""Junctions that nothing passes, times the seams worked through: their order is searched for the
longer the more there are."""
MOST_LOOKED = 7
"""Seams drawn to see what they spare, for each that is worked through."""

MOST_TOLD = 4


class SeamAdvice(NamedTuple):
    """Draw a seam from ``start`` to ``end`` (grid units) across the patch ``across``, and
    ``pivots`` fewer corners are set in, with ``partial`` more partial seams (below nothing:
    fewer). ``corner_square``: a piece of it can then be a corner square, sewn on its diagonal."""

    start: Point
    end: Point
    across: str
    fabric: str | None
    pivots: int
    partial: int
    corner_square: bool


class Advised(NamedTuple):
    """All the advice for a block; ``cut_short`` where only the most promising seams of a large one
    were tried."""

    seams: tuple[SeamAdvice, ...] = ()
    cut_short: bool = False


_ADVICE: Latest[Block, Advised] = Latest(8)


def known_advice(block: Block) -> Advised | None:
    """The advice for a block, if it was worked out lately."""
    return _ADVICE.get(block)


def advice_for(block: Block) -> Advised:
    """Seams that would spare set-ins, the most spared first; none for a block without set-ins. The
    last few are remembered."""
    return _ADVICE.of(block, lambda drawn: _advice(draft(drawn)))


def _advice(drawn: Draft) -> Advised:
    before = unpassed(drawn)
    if not before:
        return Advised()
    edges = len(drawn.arrangement.edges)
    most = max(1, min(MOST_TRIED, MOST_WORK // edges, MOST_SET_IN // len(before)))
    seams = _promising(drawn, before)
    cut_short = len(seams) > most * MOST_LOOKED
    tried: dict[tuple[Point, Point], tuple[int, Patch, Block]] = {}
    for (start, end), patch in seams[: most * MOST_LOOKED]:
        check()
        block = add_seams(drawn.block, [straight(start, end)])
        now = draft(block)
        if len(now.patches) == len(drawn.patches) + 1 and _wide_enough(drawn, now):
            tried[start, end] = len(unpassed(now)), patch, block
    best = sorted(tried.items(), key=lambda item: (item[1][0], item[0]))
    cut_short |= most < MOST_TRIED and len(best) > most
    root = break_down(drawn)
    partial, corners = _partial(root), _corners(root)
    advice = []
    for (start, end), (left, patch, block) in best[:most]:
        if left >= len(before):
            break
        new = break_down(draft(block))
        advice.append(
            SeamAdvice(
                start,
                end,
                patch.id,
                patch.fabric,
                len(before) - left,
                _partial(new) - partial,
                _corners(new) > corners,
            )
        )
    advice.sort(key=lambda a: (-a.pivots, a.partial, not a.corner_square, a.start, a.end))
    told = [a for a in advice if a.partial <= 0][:MOST_TOLD] or advice[:1]
    return Advised(tuple(told), cut_short)


def _promising(drawn: Draft, before: Sequence[int]) -> list[tuple[tuple[Point, Point], Patch]]:
    """The seams that could be continued, each once: those that end at another awkward junction
    first, as they may spare both, then short ones."""
    awkward = {drawn.arrangement.points[v] for v in before}
    patches: dict[tuple[Point, Point], Patch] = {}
    for v in before:
        check()
        for start, end, patch in _continued(drawn, v):
            patches.setdefault((min(start, end), max(start, end)), patch)

    def rank(item: tuple[tuple[Point, Point], Patch]) -> tuple[int, float, tuple[Point, Point]]:
        (start, end), _ = item
        step = end.minus(start)
        return -((start in awkward) + (end in awkward)), round(float(dot(step, step)), 9), item[0]

    return sorted(patches.items(), key=rank)


def _continued(drawn: Draft, v: int) -> Iterator[tuple[Point, Point, Patch]]:
    """The straight seams that end at a vertex, each continued across the patch it runs into."""
    arrangement = drawn.arrangement
    at = arrangement.points[v]
    here = arrangement.edges_at[v]
    for k in here:
        if isinstance(arrangement.lines[arrangement.edges[k].line], Circle):
            continue
        back = heading(drawn, v, k)
        ahead = Point(-back.x, -back.y)
        beside = {f for e in here for f in arrangement.edges[e][3:]}
        for face in sorted(beside):
            end = _across(drawn, face, at, ahead) if face >= 0 else None
            if end is not None:
                yield at, end, drawn.patches[face]


def _across(drawn: Draft, face: int, at: Point, ahead: Point) -> Point | None:
    """Where a ray from a corner of a patch leaves it; None if it does not run into it, or leaves
    it through a curve."""
    outline = drawn.arrangement.outlines[face]
    if outline.arcs or drawn.arrangement.faces[face].holes:
        return None
    ray = line_through(at, at.plus(ahead))
    met = []
    for p, q in edges(outline.corners):
        on = line_through(p, q)
        if on.side(at) == 0:
            continue
        point = meet(ray, on)
        if point is None or dot(point.minus(at), ahead) <= 0:
            continue
        if dot(point.minus(p), point.minus(q)) <= 0:
            met.append(point)
    if not met:
        return None
    first = min(met, key=lambda p: dot(p.minus(at), ahead))
    return first if side(outline, midpoint(at, first)) > 0 else None


def _wide_enough(before: Draft, now: Draft) -> bool:
    """Are the two pieces of the patch that is split no slivers, beside it?"""
    known_points = {p.outline for p in before.patches}
    widths = [outline_width(p.shape) for p in now.patches if p.outline not in known_points]
    whole = min(float(x) for x in now.block.finished)
    return bool(widths) and min(widths) > whole / 40


def _partial(root: Part) -> int:
    return sum(len(join.left_open) for part in walk(root) for join in part.joins)


def _corners(root: Part) -> int:
    return sum(part.kind == "corner-triangle" for part in walk(root))


def advice_text(advice: SeamAdvice, project: Project) -> str:
    """What to draw, what it spares and what it costs, in a few sentences."""
    fabric = fabric_name(project, advice.fabric)
    spared = "a set-in" if advice.pivots == 1 else f"{advice.pivots} set-in corners"
    text = (
        f"One more seam, from {place_text(advice.start)} to {place_text(advice.end)}, spares "
        f"{spared}. It costs one more piece and a seam across {fabric}."
    )
    if advice.corner_square:
        text += " A corner of it can then be a corner square, sewn on its diagonal and flipped."
    if advice.partial > 0:
        more = "a partial seam" if advice.partial == 1 else f"{advice.partial} partial seams"
        text += f" It takes {more} instead."
    return text


CUT_SHORT = "Only the most promising seams were tried, as the block is large."


def advice_lines(advised: Advised, project: Project) -> list[str]:
    """All of it as sentences."""
    lines = [advice_text(advice, project) for advice in advised.seams]
    return lines + [CUT_SHORT] * (advised.cut_short and bool(lines))
