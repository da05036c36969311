"""Sizes, places and moves in words, for the maker's system and ruler."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.cutting.strips import Cloth
from inlet.core.geometry.point import Point
from inlet.core.numbers import Exact, show
from inlet.core.project import Measure, Project
from inlet.core.units.chosen import CutPiece
from inlet.core.units.pieces import Size


def unit_of(measure: Measure) -> str:
    return "in" if measure.system == "inch" else "cm"


def place_text(point: Point) -> str:
    """A place in the block, in grid units from the top left."""
    return f"{show(point.x)} across, {show(point.y)} down"


def length_text(length: Exact, measure: Measure) -> str:
    """A length with its unit: ``3 1/2 in``, ``8.9 cm``."""
    return f"{show(length, system=measure.system, ruler=True)} {unit_of(measure)}"


def size_text(size: Size, measure: Measure) -> str:
    """``3 1/2 x 6 1/2 in``, or ``3 1/2 in`` for a square."""
    if size[0] == size[1]:
        return length_text(size[0], measure)
    return f"{show(size[0], system=measure.system, ruler=True)} x {length_text(size[1], measure)}"


def piece_text(piece: CutPiece, measure: Measure) -> str:
    """``3 7/8 in square``; ``2 x 3 1/2 in rectangle``; a template by its box."""
    return f"{size_text(piece.cut, measure)} {piece.piece.shape}"


def buying_text(cloth: Cloth, measure: Measure) -> str:
    """How much of a cloth: strips, their length together, and what to buy."""
    bought = (
        f"{show(cloth.yards())} yd"
        if measure.system == "inch"
        else f"{show(cloth.buy, system='cm')} cm"
    )
    strips = "1 strip" if len(cloth.strips) == 1 else f"{len(cloth.strips)} strips"
    return f"{strips}, {length_text(cloth.length, measure)} in all; buy {bought}"


def cloth_name(project: Project, fabric_id: str | None) -> str:
    """The maker's name of a cloth; "no cloth yet" for a patch without one."""
    fabric = project.fabric(fabric_id) if fabric_id else None
    return fabric.title if fabric else "no cloth yet"


def move_text(text: str, pieces: Sequence[CutPiece], project: Project) -> str:
    """A move's text with its sizes filled in, for the maker's ruler and cloths."""
    measure = project.measure
    each = [f"{piece_text(p, measure)} of {cloth_name(project, p.piece.fabric)}" for p in pieces]
    everything = ", ".join(f"{p.number} × {words}" for p, words in zip(pieces, each, strict=True))
    one = [f"the {words}" for words in each]
    return text.format(*one, all=everything, seam=length_text(measure.seam, measure))


def method_words(name: str) -> str:
    """A method's file name as people say it."""
    return name.replace("-", " ")


def kind_words(kind: str) -> str:
    """A unit kind's file name as people say it."""
    hyphened = {"half-square-triangle": "half-square triangle", "four-patch": "four-patch"}
    hyphened |= {"quarter-square-triangle": "quarter-square triangle", "nine-patch": "nine-patch"}
    return hyphened.get(kind, "odd piece" if kind == "other" else kind.replace("-", " "))
