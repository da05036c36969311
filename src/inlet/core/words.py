"""Sizes, places and cloths in words, for the maker's system and ruler."""

from __future__ import annotations

from inlet.core.geometry.point import Point
from inlet.core.numbers.marks import nearest_mark
from inlet.core.numbers.root2 import Exact
from inlet.core.numbers.text import show
from inlet.core.project.measure import Measure
from inlet.core.project.project import Project

CAUTIONS = (
    "Close the rotary cutter whenever you put it down; cut away from your body, fingers behind the "
    "ruler's edge. The iron and its steam are hot. Never sew over pins. The manuals of your own "
    "tools come first."
)
"""Said once wherever cutting, pressing and sewing are told."""


def unit_of(measure: Measure) -> str:
    return measure.system.unit


def place_text(point: Point) -> str:
    """A place in the block, in grid units from the top left."""
    return f"{show(point.x)} across, {show(point.y)} down"


def length_text(length: Exact, measure: Measure) -> str:
    """A length with its unit: ``3 1/2 in``, ``8.9 cm``."""
    return f"{show(length, system=measure.system, ruler=True)} {unit_of(measure)}"


def size_text(size: tuple[Exact, Exact], measure: Measure) -> str:
    """``3 1/2 x 6 1/2 in``, or ``3 1/2 in`` for a square."""
    if size[0] == size[1]:
        return length_text(size[0], measure)
    return f"{show(size[0], system=measure.system, ruler=True)} x {length_text(size[1], measure)}"


def check_text(size: tuple[Exact, Exact], measure: Measure) -> tuple[str, str]:
    """A size to check with a ruler: at the nearest marks, and, where those are not exact, the exact
    size and how far off the marks are; else an empty second text."""
    marks = (nearest_mark(size[0], measure.mark), nearest_mark(size[1], measure.mark))
    if marks == size:
        return size_text(size, measure), ""
    off = max(abs(mark - exact) for mark, exact in zip(marks, size, strict=True))
    exactly = f"exactly {size_text(size, measure)}, up to {float(off):.3f} off the mark"
    return size_text(marks, measure), exactly


def cloth_name(project: Project, fabric_id: str | None) -> str:
    """The maker's name of a cloth; "no cloth yet" for a patch without one."""
    fabric = project.fabric(fabric_id) if fabric_id else None
    return fabric.title if fabric else "no cloth yet"
