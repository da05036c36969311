"""Where a quilt is quilted: lines inside its patches, along its seams, or all over.

A line keeps its distance d from the finished edge of its patch. At the quilt's raw edge the binding
takes the allowance s, so there it is drawn d + s from the edge, and d is seen once it is bound.
Patches of a block are echoed once, and carried to wherever the block lies.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from itertools import islice, pairwise
from math import hypot
from typing import NamedTuple

import shapely

from inlet.core.cancellation import check
from inlet.core.problem import Problem
from inlet.core.project import Measure, Project, Quilt, QuiltingLines
from inlet.core.schedule import thread_per_length
from inlet.core.setting.picture import Corners, Place, blocks_on_top
from inlet.core.setting.quilting_words import usual_apart, usual_distance
from inlet.core.setting.top import Top, single_pieces

LEAST = 0.05
"""Lengths: a line shorter than this is a speck."""
MITRE = 20.0
MOST_LINES = 50_000
"""Of one kind, on the whole top: a machine that quilts one in ten seconds sews for a week."""
GRID = 1e-6
"""Lengths: corners are put on a grid so fine before shapes are joined. Patches beside one another
share a curve drawn in short lines, and the library fails where those of one cross the other's."""
Line = tuple[Place, ...]


class Quilted(NamedTuple):
    """Every line as its corners, the first again at the end where it is closed; in finished lengths
    from the top's upper left corner."""

    lines: tuple[Line, ...]
    problems: tuple[Problem, ...] = ()

    @property
    def length(self) -> float:
        """All lines together."""
        return sum(
            hypot(q[0] - p[0], q[1] - p[1]) for line in self.lines for p, q in pairwise(line)
        )

    @property
    def thread(self) -> float:
        """Thread for it, top and bobbin together."""
        return 2 * thread_per_length() * self.length


def quilted(top: Top, project: Project) -> Quilted:
    """Every line the quilt asks for."""
    quilt = project.quilt or Quilt()
    if not top.rows or not quilt.quilting:
        return Quilted(())
    lines: list[Line] = []
    problems: list[Problem] = []
    for i, asked in enumerate(quilt.quilting, 1):
        check()
        failed: list[Place] = []
        if asked.kind == "grid":
            drawn = _grid(top, asked, project.measure)
        else:
            drawn = _in_patches(top, project, asked, failed)
        asked_lines = list(islice(drawn, MOST_LINES + 1))
        if len(asked_lines) > MOST_LINES:
            problems.append(_too_many(i))
            continue
        lines += asked_lines
        problems += [_not_drawn(i, at) for at in failed[:MOST_TOLD]]
    return Quilted(tuple(lines), tuple(problems))


MOST_TOLD = 3


def _too_many(number: int) -> Problem:
    text = (
        f"Quilting lines {number} are more than {MOST_LINES} lines on this quilt, and are left "
        "out: take them farther apart."
    )
    return Problem("warning", "quilting-lines", (), text)


def _not_drawn(number: int, at: Place) -> Problem:
    x, y = at
    text = (
        f"Quilting lines {number} cannot be drawn in the patch at {x:.2f} across, {y:.2f} down of "
        "its block; they are left out there."
    )
    return Problem("warning", "quilting-patch", (), text)


def _in_patches(
    top: Top, project: Project, asked: QuiltingLines, failed: list[Place]
) -> Iterator[Line]:
    """Echoes of the patches of all blocks and of all other pieces, or the seams between them; where
    a patch is whose lines cannot be drawn is added to ``failed``."""
    known: dict[int, list[Line]] = {}
    for on_top in blocks_on_top(top, project):
        lines = known.get(id(on_top.block)) if on_top.improvised is None else None
        if lines is None:
            check()
            patches = [
                (patch.outline, patch.holes)
                for patch in on_top.patches
                if not asked.fabric or patch.fabric == asked.fabric
            ]
            of_block = _lines_of(patches, asked, project.measure, failed)
            lines = known[id(on_top.block)] = list(islice(of_block, MOST_LINES + 1))
        matrix = on_top.matrix
        yield from (tuple(matrix(p) for p in line) for line in lines)
    quilt = project.quilt or Quilt()
    others: list[tuple[Corners, tuple[Corners, ...]]] = []
    for piece in single_pieces(top, quilt):
        check()
        of_fabric = not asked.fabric or piece.fabric == asked.fabric
        outline = tuple(p.floats() for p in piece.outline)
        # Between blocks the seam is theirs: it is counted with the pieces of the top.
        if asked.kind == "seams" or (piece.lying is None and of_fabric):
            others.append((outline, ()))
    yield from _lines_of(others, asked, project.measure, failed)


def _lines_of(
    patches: Iterable[tuple[Corners, tuple[Corners, ...]]],
    asked: QuiltingLines,
    measure: Measure,
    failed: list[Place],
) -> Iterator[Line]:
    polygons = []
    for outline, holes in patches:
        check()
        polygon = _on_grid(outline, holes)
        if polygon is None:
            failed.append(min(outline))
        else:
            polygons.append(polygon)
    if asked.kind == "seams":
        yield from _seams(polygons)
        return
    step = float(asked.distance if asked.distance is not None else usual_distance(measure))
    for polygon in polygons:
        for k in range(1, asked.repeats + 1):
            check()
            try:
                inner = polygon.buffer(-k * step, join_style="mitre", mitre_limit=MITRE)
            except shapely.errors.GEOSException:
                failed.append(polygon.bounds[:2])
                break
            if inner.is_empty:
                break
            yield from _rings(inner)


def _on_grid(outline: Corners, holes: tuple[Corners, ...]) -> shapely.Geometry | None:
    """A patch with its corners on the grid, as a shape the library can work with; None where it
    cannot, as of a patch that is drawn in two lines."""
    try:
        placed = shapely.set_precision(shapely.Polygon(outline, holes), GRID)
    except (shapely.errors.GEOSException, ValueError):
        return None
    return None if placed.is_empty or not placed.is_valid else placed


def _rings(shape: shapely.Geometry) -> Iterator[Line]:
    for polygon in getattr(shape, "geoms", [shape]):
        if not isinstance(polygon, shapely.Polygon):
            continue
        for ring in (polygon.exterior, *polygon.interiors):
            if ring.length > LEAST:
                yield tuple((x, y) for x, y, *_ in ring.coords)


def _seams(polygons: list[shapely.Geometry]) -> Iterator[Line]:
    """What lies between two patches, each stretch once; not the edge of them all."""
    if not polygons:
        return
    edge = shapely.union_all(polygons, grid_size=GRID).boundary.buffer(2 * GRID)
    sides = shapely.union_all([p.boundary for p in polygons], grid_size=GRID)
    check()
    merged = shapely.line_merge(sides.difference(edge))
    for line in getattr(merged, "geoms", [merged]):
        if isinstance(line, shapely.LineString) and line.length > LEAST:
            yield tuple((x, y) for x, y, *_ in line.coords)


def _grid(top: Top, asked: QuiltingLines, measure: Measure) -> Iterator[Line]:
    """Lines one ``distance`` apart both ways, from the middle out, cut off at the edge."""
    wide, high = (float(side) for side in top.size)
    step = float(asked.distance if asked.distance is not None else usual_apart(measure))
    whole = shapely.box(0, 0, wide, high)
    mx, my = wide / 2, high / 2
    reach = hypot(wide, high)
    slanted = 2**-0.5
    ways = [(slanted, slanted), (slanted, -slanted)] if asked.diagonal else [(1, 0), (0, 1)]
    for ux, uy in ways:
        nx, ny = -uy, ux
        number = int(reach / 2 / step)
        for k in range(-number, number + 1):
            check()
            x, y = mx + k * step * nx, my + k * step * ny
            line = shapely.LineString(
                [(x - reach * ux, y - reach * uy), (x + reach * ux, y + reach * uy)]
            ).intersection(whole)
            if isinstance(line, shapely.LineString) and line.length > LEAST:
                yield tuple((px, py) for px, py, *_ in line.coords)
