"""Templates: what a ruler does not cut, ready to print or to send to a cutting machine."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import atan2, cos, hypot, pi, sin
from typing import NamedTuple

import numpy as np

from inlet.core.draft import Draft, Patch
from inlet.core.geometry import (
    Point,
    Polygon,
    SameShapes,
    cross,
    edges,
    mirrored,
    motion_between,
    polyline,
)
from inlet.core.planning import UnitPlan
from inlet.core.project import Project
from inlet.core.templates.cut_line import (
    CornerTrim,
    Place,
    Side,
    cutting_sides,
    reflected,
    sewing_sides,
)

HAIR = 1e-7
GRID = 24


class Needed(NamedTuple):
    """How many of a template are cut of a fabric: as it is printed, and ``reversed``."""

    fabric: str | None
    number: int
    reversed: int


class Template(NamedTuple):
    """One template: ``label``, the units it is for, what is ``needed`` of it. ``cut`` is the line
    to cut along, tips blunted to the neighbours' raw edges, ``sew`` the sewing line, both
    clockwise, in the project's lengths; ``dots`` are its corners, ``marks`` ticks across the
    allowance at the middle and the quarters of curves; ``grain`` runs up the block."""

    label: str
    units: tuple[str, ...]
    needed: tuple[Needed, ...]
    cut: tuple[Side, ...]
    sew: tuple[Side, ...]
    dots: tuple[Place, ...]
    marks: tuple[tuple[Place, Place], ...]
    grain: tuple[Place, Place]

    @property
    def number(self) -> int:
        return sum(needed.number + needed.reversed for needed in self.needed)


def templates(
    drawn: Draft, units: Sequence[UnitPlan], project: Project, copies: int, every: bool = False
) -> tuple[Template, ...]:
    """A template for each shape of patch that is cut with one, equal ones (turned, or turned over)
    once; for ``every`` shape if asked."""
    same = SameShapes()
    found: dict[Polygon, list[tuple[Patch, str, bool]]] = {}
    for plan in units:
        points = {p.piece.outline for p in plan.in_use.pieces if p.piece.shape == "template"}
        if not (points or every):
            continue
        for place in plan.unit.places:
            nested = {f for part in plan.unit.part.nested for f in part.faces}
            for face in place.part.faces:
                patch = drawn.patches[face]
                if face in nested or not (every or _is_template(patch, points)):
                    continue
                over = tuple(reversed([Point(-p.x, p.y) for p in patch.polygon]))
                first = next(
                    (
                        known_points
                        for known_points in found
                        if _like(over, known_points) and not _like(known_points, patch.polygon)
                    ),
                    None,
                )
                turned_over = first is not None
                shape = first or same.first_like(patch.polygon)
                found.setdefault(shape, []).append((patch, plan.unit.label, turned_over))
    return tuple(
        _template(number, own, drawn, project, copies)
        for number, own in enumerate(found.values(), 1)
    )


def _like(points: Polygon, other_points: Polygon) -> bool:
    return motion_between(((points, None),), ((other_points, None),)) is not None


def _is_template(patch: Patch, outlines: set[Polygon]) -> bool:
    return any(
        _like(patch.polygon, outline) or _like(mirrored(((patch.polygon, None),))[0][0], outline)
        for outline in outlines
    )


def _template(
    number: int, own: list[tuple[Patch, str, bool]], drawn: Draft, project: Project, copies: int
) -> Template:
    patch = own[0][0]
    seam = float(project.measure.seam)
    sew = sewing_sides(patch.shape)
    cut = cutting_sides(sew, seam, lambda corner: tips(patch, corner, drawn, seam))
    counts: dict[str | None, list[int]] = {}
    for each, _, turned_over in own:
        counts.setdefault(each.fabric, [0, 0])[turned_over] += copies
    needed = tuple(Needed(fabric, *both) for fabric, both in counts.items())
    units = tuple(dict.fromkeys(label for _, label, _ in own))
    x, y, room = roomiest(polyline(patch.shape, seam / 20))
    high = 0.8 * room
    return Template(
        f"T{number}", units, needed, cut, sew, tuple(side.start for side in sew),
        tuple(_marks(sew, seam)), ((x, y + high), (x, y - high)),
    )  # fmt: skip


def roomiest(corners: Sequence[Place]) -> tuple[float, float, float]:
    """A place well inside an outline and how far it is from it: the best of a fine grid, for words
    and the grain arrow."""
    points = np.array(corners)
    ends = np.roll(points, -1, axis=0)
    low, high = points.min(axis=0), points.max(axis=0)
    shares = (np.arange(GRID) + 0.5) / GRID
    across, down = (low + (high - low) * shares[:, None]).T
    spots = np.stack(np.meshgrid(across, down), -1).reshape(-1, 1, 2)
    step = ends - points
    k = ((spots - points) * step).sum(-1) / np.maximum((step * step).sum(-1), 1e-18)
    near = points + np.clip(k, 0, 1)[..., None] * step
    far = np.sqrt(((spots - near) ** 2).sum(-1)).min(axis=1)
    y, y0, y1 = spots[..., 1], points[:, 1], ends[:, 1]
    crosses = (y0 > y) != (y1 > y)
    with np.errstate(divide="ignore", invalid="ignore"):
        x = points[:, 0] + (y - y0) / (y1 - y0) * step[:, 0]
    inside = (crosses & (x > spots[..., 0])).sum(axis=1) % 2 == 1
    best = int(np.argmax(np.where(inside, far, -1.0)))
    return float(spots[best, 0, 0]), float(spots[best, 0, 1]), float(far[best])


def _marks(sides: Sequence[Side], seam: float) -> Iterator[tuple[Place, Place]]:
    """Ticks from the sewing line to the cut line at the quarters of every curve."""
    for side in sides:
        if side.centre is None:
            continue
        cx, cy = side.centre
        begin = atan2(side.start[1] - cy, side.start[0] - cx)
        angle = atan2(side.end[1] - cy, side.end[0] - cx) - begin
        angle = (angle + pi) % (2 * pi) - pi  # the short way round
        out = side.radius + (seam if side.clockwise else -seam)
        for share in (0.25, 0.5, 0.75):
            c, s = cos(begin + angle * share), sin(begin + angle * share)
            yield (
                (cx + side.radius * c, cy + side.radius * s),
                (cx + out * c, cy + out * s),
            )


def tips(patch: Patch, corner: int, drawn: Draft, seam: float) -> Iterator[CornerTrim]:
    """The lines that blunt a tip so that it matches the raw edge of what it is sewn to. The patch
    across a side has another side at that corner; its raw edge lies ``seam`` outside of it. Laid
    right sides together, that edge falls where its mirror image in the seam is: what reaches beyond
    would stick out."""
    shape = patch.outline
    centres = dict(patch.arcs)
    n = len(shape)
    v = shape[corner]
    for there, side in ((shape[(corner + 1) % n], corner), (shape[corner - 1], (corner - 1) % n)):
        if side in centres:
            continue
        for other_patch in drawn.patches:
            edge = None if other_patch.id == patch.id else _edge_beside(other_patch, v, there)
            if edge is None:
                continue
            a, b = edge
            line = v.floats(), there.floats()
            p, q = (reflected(end.floats(), line) for end in (a, b))
            length = hypot(q[0] - p[0], q[1] - p[1])
            # Outward of the other patch, mirrored: away from the seam's other end.
            nx, ny = (q[1] - p[1]) / length, -(q[0] - p[0]) / length
            tx, ty = there.minus(v).floats()
            if nx * tx + ny * ty > 0:
                nx, ny = -nx, -ny
            if abs(nx * tx + ny * ty) > HAIR:
                yield CornerTrim((p[0] + seam * nx, p[1] + seam * ny), (nx, ny))


def _edge_beside(other_patch: Patch, v: Point, there: Point) -> tuple[Point, Point] | None:
    """The straight side of another patch at a corner that a seam begins at, where that patch lies
    along the seam, too."""
    centres = dict(other_patch.arcs)
    sides = list(edges(other_patch.outline))
    for i, (a, b) in enumerate(sides):
        along = there.minus(v)
        for near, far, beside in ((a, b, i - 1), (b, a, i + 1)):
            if near != v or i in centres:
                continue
            step = far.minus(near)
            same_way = cross(step, along) == 0 and step.x * along.x + step.y * along.y > 0
            beside %= len(sides)
            if same_way and beside not in centres:
                return sides[beside]
    return None


def turn_of(side: Side) -> float:
    """The angle of an arc, above 0 where it runs clockwise on screen."""
    assert side.centre is not None
    cx, cy = side.centre
    ux, uy, vx, vy = side.start[0] - cx, side.start[1] - cy, side.end[0] - cx, side.end[1] - cy
    return atan2(ux * vy - uy * vx, ux * vx + uy * vy)


def bounds_of(sides: Sequence[Side]) -> tuple[float, float, float, float]:
    """Left, top, right, bottom."""
    xs = [side.start[0] for side in sides]
    ys = [side.start[1] for side in sides]
    for side in sides:
        if side.centre is None:
            continue
        (cx, cy), r, turn = side.centre, side.radius, turn_of(side)
        begin = atan2(side.start[1] - cy, side.start[0] - cx)
        for quarter in range(4):
            at = quarter * pi / 2
            ahead = (at - begin) % (2 * pi) if turn > 0 else (begin - at) % (2 * pi)
            if ahead < abs(turn):
                xs.append(cx + r * cos(at))
                ys.append(cy + r * sin(at))
    return min(xs), min(ys), max(xs), max(ys)
