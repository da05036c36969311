"""Sizes, places and cloths in words, for the maker's system and ruler."""

from __future__ import annotations

from inlet.core.geometry.point import Point
from inlet.core.numbers import Exact, show
from inlet.core.project import Measure, Project


def unit_of(measure: Measure) -> str:
    return "in" if measure.system == "inch" else "cm"


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


def cloth_name(project: Project, fabric_id: str | None) -> str:
    """The maker's name of a cloth; "no cloth yet" for a patch without one."""
    fabric = project.fabric(fabric_id) if fabric_id else None
    return fabric.title if fabric else "no cloth yet"
