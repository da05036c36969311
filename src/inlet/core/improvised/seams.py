"""Seams across the corners of a square: where they lie on it, and what shows of them."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.geometry import Line, Point, line_through
from inlet.core.numbers import Exact, Fraction, root_up
from inlet.core.project import MOST_STEPS, Improvised, Measure, Pair
from inlet.core.words import length_text

ZERO = Fraction(0)


class CornerSeam(NamedTuple):
    """A seam across a ``corner`` of a raw square or rectangle, counted clockwise from the top left:
    how far from the corner it meets the level edge (``along``) and the upright one (``down``)."""

    corner: int
    along: Exact
    down: Exact


class ImprovisedSquare(NamedTuple):
    """The seams across its corners, and the fabric of each, in the order they are sewn."""

    seams: tuple[CornerSeam, ...]
    fabrics: tuple[str, ...]


def ends_of(seam: CornerSeam, size: Pair) -> tuple[Point, Point, Point]:
    """The corner, and where the seam meets the level and the upright edge, from the top left of a
    raw square of this size."""
    right, below = seam.corner in (1, 2), seam.corner in (2, 3)
    corner = Point(size[0] if right else ZERO, size[1] if below else ZERO)
    level = Point(corner.x + (-seam.along if right else seam.along), corner.y)
    upright = Point(corner.x, corner.y + (-seam.down if below else seam.down))
    return corner, level, upright


def line_of(seam: CornerSeam, size: Pair) -> Line:
    """The seam's line, the corner on its growing side."""
    corner, level, upright = ends_of(seam, size)
    line = line_through(level, upright)
    return line if line.side(corner) > 0 else line.opposite()


def seam_length(seam: CornerSeam) -> Exact:
    """From edge to edge of the raw square: √(a² + b²)."""
    return root_up(seam.along * seam.along + seam.down * seam.down)


def shows(along: Exact, down: Exact, allowance: Exact) -> bool:
    """Does anything of a corner show once the square is sewn? The corner of the finished square
    lies s from both edges, and beyond the seam where s/a + s/b < 1."""
    return allowance * (along + down) < along * down


def raw_size(finished: Pair, measure: Measure) -> Pair:
    """A square with its seam allowances."""
    return finished[0] + 2 * measure.seam, finished[1] + 2 * measure.seam


def lengths_within(bounds: Improvised, size: Pair, allowance: Exact) -> tuple[Pair, ...]:
    """Every pair of lengths, along the level and the upright edge of a raw square of this size,
    that the bounds allow and of which something shows."""
    steps: list[Exact] = []
    leg = bounds.nearest
    while leg <= min(bounds.farthest, max(size)) and len(steps) <= MOST_STEPS:
        steps.append(leg)
        leg = leg + bounds.step
    return tuple(
        (a, b)
        for a in steps
        for b in steps
        if a <= size[0] and b <= size[1]
        and max(a, b) <= bounds.steepest * min(a, b)
        and shows(a, b, allowance)
    )  # fmt: skip


CORNERS = ("top left", "top right", "bottom right", "bottom left")


def seam_text(seam: CornerSeam, measure: Measure) -> str:
    """``Top left: from 1 1/4 in along the top to 2 1/2 in down the side``."""
    level = "top" if seam.corner < 2 else "bottom"
    way = "down" if seam.corner < 2 else "up"
    name = CORNERS[seam.corner]
    return (
        f"{name[0].upper()}{name[1:]}: from {length_text(seam.along, measure)} along the {level} "
        f"to {length_text(seam.down, measure)} {way} the side"
    )
