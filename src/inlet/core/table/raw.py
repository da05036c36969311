"""Fabric with its allowance on: a patch's outline moved out on the sides that are not sewn yet."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.geometry import (
    Curve,
    Outline,
    Point,
    Polygon,
    blunt_corner,
    dot,
    exact_chain,
    inner_point,
    is_sharp,
    line_through,
    meet,
    moved_corners,
    polygon_of,
)
from inlet.core.numbers import Exact, root_up


def raw_outline(shape: Outline, sides: Sequence[Exact | int]) -> Polygon:
    """A patch's outline, each side moved out by its distance, as a polygon to draw: r + s on a
    convex arc, r - s on a concave one."""
    if not any(sides):
        return polygon_of(shape)
    if not shape.arcs:
        return tuple(p for corner in moved_corners(shape.corners, sides) for p in corner)
    inside = inner_point(polygon_of(shape))
    corners = shape.corners
    curves = list(shape.sides())
    points: list[Point] = []
    for i, curve in enumerate(curves):
        before = (i - 1) % len(corners)
        chain = exact_chain(curve) if curve.centre is not None else (curve.start,)
        for k, p in enumerate(chain):
            near = {i} if k else {before, i}
            if len(near) == 2 and not any(curves[j].centre for j in near):
                points += _corner(curves[before], curves[i], sides[before], sides[i])
                continue
            at = p
            for j in near:
                if sides[j]:
                    at = at.plus(_outward(curves[j], p, sides[j], inside))
            points.append(at)
    return tuple(points)


def _corner(
    curve: Curve, other_curve: Curve, far: Exact | int, farther: Exact | int
) -> tuple[Point, ...]:
    """Where two straight sides of a clockwise outline meet once both are moved out; the two ends of
    a sharp corner."""
    three = curve.start, other_curve.start, other_curve.end
    if is_sharp(*three) and (far or farther):
        return blunt_corner(*three, far, farther)
    lines = line_through(curve.start, curve.end), line_through(other_curve.start, other_curve.end)
    met = meet(lines[0].shifted(-far), lines[1].shifted(-farther))
    return (met if met is not None else other_curve.start,)


def _outward(curve: Curve, p: Point, far: Exact | int, inside: Point) -> Point:
    """A step ``far`` long from a point of a side, square to it, away from ``inside``."""
    if curve.centre is None:
        step = curve.end.minus(curve.start)
        length = root_up(dot(step, step))
        return Point(step.y * far / length, -step.x * far / length)
    step, reach = p.minus(curve.centre), inside.minus(curve.centre)
    squared = dot(step, step)
    k = far / root_up(squared)
    return step.scaled(k, k) if dot(reach, reach) < squared else step.scaled(-k, -k)
