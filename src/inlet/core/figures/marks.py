"""Arrows, junctions and spots, drawn by shape as well as colour."""

from __future__ import annotations

from math import cos, hypot, pi, sin

from inlet.core.figures.display import Area, Disc, Figure, Kind, Polyline, Spot, rectangle
from inlet.core.pressing import State


def arrow(start: Spot, toward: Spot, size: float, strong: bool = False) -> Figure:
    """An arrow from a seam over its allowance, ``size`` long, toward a place."""
    dx, dy = toward[0] - start[0], toward[1] - start[1]
    length = hypot(dx, dy) or 1.0
    ux, uy = dx / length * size, dy / length * size
    x, y = start
    tip, neck = (x + ux, y + uy), (x + ux * 0.45, y + uy * 0.45)
    side = -uy * 0.34, ux * 0.34
    head = tip, (neck[0] + side[0], neck[1] + side[1]), (neck[0] - side[0], neck[1] - side[1])
    shaft: Kind = "strong-arrow" if strong else "arrow"
    return (
        Polyline((start, neck), "halo", size / 4 + 2.4),
        Polyline((start, neck), shaft, size / 6 + 0.8),
        Area(head, "strong-arrow-head" if strong else "arrow-head"),
    )


def both_ways(start: Spot, toward: Spot, size: float, strong: bool = False) -> Figure:
    """Two arrows from a seam that is opened."""
    behind = 2 * start[0] - toward[0], 2 * start[1] - toward[1]
    return arrow(start, toward, size, strong) + arrow(start, behind, size, strong)


def blades(at: Spot, radius: float) -> Figure:
    """Four blades in a ring, turned one way round: a spun centre."""
    x, y = at
    items: list[Disc | Area] = [Disc(at, radius, "blades")]
    for k in range(4):
        a, b, near = k * pi / 2, k * pi / 2 + pi / 3, radius * 0.7
        points = (
            at, (x + cos(a) * radius, y + sin(a) * radius), (x + cos(b) * near, y + sin(b) * near)
        )  # fmt: skip
        items.append(Area(points, "blade"))
    return tuple(items)


def square_mark(at: Spot, radius: float, kind: Kind) -> Area:
    x, y = at
    return Area(rectangle((x - radius, y - radius, x + radius, y + radius)), kind)


def junction_mark(at: Spot, state: State, radius: float) -> Figure:
    """A round disc nests, four blades are spun, a hollow diamond is open, one half filled has
    one seam open, a square with a cross stacks, a small dot is a T."""
    x, y = at
    if state == "tee":
        return (Disc(at, radius * 0.4, "tee"),)
    if state == "nests":
        step, drop = radius * 0.45, radius * 0.2
        way = (x - step, y + drop), (x, y + drop), (x, y - drop), (x + step, y - drop)
        return Disc(at, radius, "nests"), Polyline(way, "nests-way", max(1.2, radius / 4))
    if state == "whirled":
        return blades(at, radius * 1.15)
    if state == "stacks":
        k, width = radius * 0.55, max(1.4, radius / 3.5)
        return (
            square_mark(at, radius, "stacks"),
            Polyline(((x - k, y - k), (x + k, y + k)), "stacks-cross", width),
            Polyline(((x + k, y - k), (x - k, y + k)), "stacks-cross", width),
        )
    r = radius * 1.3
    left, top, right, bottom = (x - r, y), (x, y - r), (x + r, y), (x, y + r)
    hollow = Area((left, top, right, bottom), "open")
    return (hollow, Area((top, right, bottom), "half-open")) if state == "mixed" else (hollow,)
