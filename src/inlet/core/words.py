"""Sizes, places and fabrics in words, for the maker's system and ruler."""

from __future__ import annotations

from inlet.core.geometry import Point
from inlet.core.numbers import Exact, Fraction, nearest_mark, show
from inlet.core.project import Measure, Project

CUTTER = (
    "Close the rotary cutter whenever you put it down; cut away from your body, fingers behind the "
    "ruler's edge."
)
IRON = "The iron and its steam are hot."
MANUALS = "The manuals of your own tools come first."
CAUTIONS = f"{CUTTER} {IRON} Never sew over pins. {MANUALS}"
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


def near(size: tuple[Exact, Exact], measure: Measure) -> tuple[Exact, Exact]:
    """A size as it is read off a ruler, at the nearest sixteenth, or mm."""
    mark = measure.system.checked_to
    return nearest_mark(size[0], mark), nearest_mark(size[1], mark)


def near_text(size: tuple[Exact, Exact], measure: Measure) -> str:
    """A size in words, as it is read off a ruler."""
    return size_text(near(size, measure), measure)


def measured_text(size: tuple[Exact, Exact], measure: Measure) -> str:
    """A size to check with a ruler: at the nearest sixteenth, or mm, and by how much it is more or
    less: ``3 1/2 x 6 1/4 in, generous by 1/64 in``."""
    read = near(size, measure)
    fine = measure.system.fine_mark
    said = [_off_text(x - n, fine, measure) for x, n in zip(size, read, strict=True)]
    text = size_text(read, measure)
    if said[0] == said[1]:
        return f"{text}, {said[0]}" if said[0] else text
    ways = [f"{words} {way}" for words, way in zip(said, ("across", "down"), strict=True) if words]
    return f"{text}, {', '.join(ways)}"


def _off_text(off: Exact, fine: Fraction, measure: Measure) -> str:
    """How much a size is off what is read off the ruler; nothing where that is less than half the
    finest mark."""
    if abs(off) <= fine / 2:
        return ""
    amount = length_text(max(fine, nearest_mark(abs(off), fine)), measure)
    return f"{'generous' if off > 0 else 'scant'} by {amount}"


def fabric_name(project: Project, fabric_id: str | None) -> str:
    """The maker's name of a fabric; "no fabric yet" for a patch without one."""
    fabric = project.fabric(fabric_id) if fabric_id else None
    return fabric.title if fabric else "no fabric yet"
