"""Where straight through seams end: the vertices that need a set-in or a partial seam."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.draft.patches import Draft
from inlet.core.geometry.curve import Circle
from inlet.core.geometry.point import Point
from inlet.core.piecing.joins import walk
from inlet.core.problem import Problem
from inlet.core.units.breakdown import Part
from inlet.core.words import place_text


class _Run(NamedTuple):
    """A straight seam from one vertex to another, as far as it goes."""

    line: int
    vertices: tuple[int, ...]


def pivot_problems(draft: Draft, root: Part) -> Iterator[Problem]:
    """A problem a place where the block cannot be sewn with straight through seams. Islands are
    the drawing's own problem and are not told again."""
    for part in walk(root):
        if part.stuck and part.parts:
            yield from _stuck(draft, part)


def _stuck(draft: Draft, part: Part) -> Iterator[Problem]:
    arrangement = draft.arrangement
    runs, seams_at, edge_vertices = _runs(draft, part)
    pivots = [
        v
        for v, at in seams_at.items()
        if v not in edge_vertices and all(n == 1 for n in at.values())
    ]
    for v in sorted(pivots, key=lambda v: arrangement.points[v]):
        count = len(seams_at[v])
        what = "A seam turns a corner" if count == 2 else f"{_number(count)} seams meet"
        yield _problem(
            "needs-set-in",
            arrangement.points[v],
            f"{what} at {{place}} and none goes straight through: it needs a set-in seam.",
        )
    curved = any(isinstance(arrangement.lines[run.line], Circle) for run in runs)
    if not pivots and not curved and seams_at:  # curves are the drawing's own problem
        circle = _circle(runs, seams_at)
        points = tuple(arrangement.points[v] for v in circle)
        if points:
            yield Problem(
                "error",
                "needs-partial",
                points,
                f"The {len(points)} seams round {place_text(_middle(points))} chase each other in "
                f"a circle: one of them, such as the one that ends at {place_text(points[0])}, "
                "needs a partial seam.",
            )
        else:
            yield _problem(
                "needs-partial",
                _middle(tuple(arrangement.points[v] for v in seams_at)),
                "No seam runs from edge to edge round {place}: it cannot be sewn with straight "
                "through seams.",
            )


def _problem(code: str, at: Point, text: str) -> Problem:
    return Problem("error", code, (at,), text.format(place=place_text(at)))


def _number(count: int) -> str:
    return {3: "Three", 4: "Four", 5: "Five", 6: "Six"}.get(count, str(count))


def _middle(points: tuple[Point, ...]) -> Point:
    """The middle of the box round some points: a place to name, not to measure from."""
    xs, ys = [p.x for p in points], [p.y for p in points]
    return Point((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2)


def _runs(draft: Draft, part: Part) -> tuple[list[_Run], dict[int, dict[int, int]], set[int]]:
    """The seams between a stuck part's own parts: as runs; how many edges of each line meet at
    each vertex; and the vertices on the part's edge."""
    owner = {face: i for i, inner in enumerate(part.parts) for face in inner.faces}
    seams_at: dict[int, dict[int, int]] = defaultdict(lambda: defaultdict(int))
    edge_vertices: set[int] = set()
    beside: dict[tuple[int, int], list[int]] = defaultdict(list)
    for edge in draft.arrangement.edges:
        right, left = owner.get(edge.right), owner.get(edge.left)
        if right == left:
            continue
        if right is None or left is None:
            edge_vertices |= {edge.start, edge.end}
            continue
        for v, w in ((edge.start, edge.end), (edge.end, edge.start)):
            seams_at[v][edge.line] += 1
            beside[edge.line, v].append(w)
    runs = []
    done: set[tuple[int, int]] = set()
    for line, v in list(beside):
        # Begin at the ends: a vertex with one edge of the line, or where the line meets the edge.
        if len(beside[line, v]) == 1 and (line, v) not in done:
            chain, before = [v], -1
            while True:
                onward = [w for w in beside[line, chain[-1]] if w != before]
                if not onward:
                    break
                before = chain[-1]
                chain.append(onward[0])
            done |= {(line, v), (line, chain[-1])}
            runs.append(_Run(line, tuple(chain)))
    return runs, seams_at, edge_vertices


def _circle(runs: list[_Run], seams_at: dict[int, dict[int, int]]) -> list[int]:
    """The vertices of a circle of T junctions: each run ends in the middle of the next."""
    through: dict[int, list[int]] = defaultdict(list)
    for i, run in enumerate(runs):
        for v in run.vertices[1:-1]:
            through[v].append(i)
    state: dict[int, int] = {}
    stack: list[tuple[int, int]] = []

    def visit(i: int) -> list[int]:
        state[i] = 1
        for v in (runs[i].vertices[0], runs[i].vertices[-1]):
            for j in through.get(v, ()):
                stack.append((j, v))
                if state.get(j) == 1:
                    start = next(k for k, (run, _) in enumerate(stack) if run == j)
                    return [v for _, v in (stack[start + 1 :] or stack[start:])]
                if j not in state:
                    found = visit(j)
                    if found:
                        return found
                stack.pop()
        state[i] = 2
        return []

    for i in range(len(runs)):
        if i not in state:
            stack = [(i, -1)]
            found = visit(i)
            if found:
                return found
    return []
