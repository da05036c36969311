"""Pieces, moves and the names of units and methods, in words."""

from __future__ import annotations

from inlet.core.project import Measure, Project
from inlet.core.units.chosen import CutPiece, Method
from inlet.core.words import cloth_name, length_text, size_text


def piece_text(piece: CutPiece, measure: Measure) -> str:
    """``3 7/8 in square``; ``2 x 3 1/2 in rectangle``; a template by its box; a strip by its width
    and length."""
    return f"{size_text(piece.cut, measure)} {piece.piece.shape}"


def move_text(text: str, method: Method, project: Project) -> str:
    """A move's text with its sizes filled in, for the maker's ruler and cloths."""
    measure, pieces = project.measure, method.pieces
    each = [f"{piece_text(p, measure)} of {cloth_name(project, p.piece.fabric)}" for p in pieces]
    everything = ", ".join(f"{p.number} × {words}" for p, words in zip(pieces, each, strict=True))
    one = [f"the {words}" for words in each]
    trim = size_text(method.trim_to, measure) if method.trim_to else ""
    return text.format(*one, all=everything, seam=length_text(measure.seam, measure), trim=trim)


def over_text(method: Method) -> str:
    """What is over of each hand, in a sentence; empty where nothing is."""
    parts = []
    if method.surplus:
        parts.append(f"{method.surplus} will be over")
    if method.mirrored_over and not method.made_with:
        parts.append(f"{method.mirrored_over} of the mirror image will be over")
    return f"{', '.join(parts)}." if parts else ""


def method_words(name: str) -> str:
    """A method's file name as people say it."""
    return name.replace("-", " ")


def kind_words(kind: str) -> str:
    """A unit kind's file name as people say it."""
    hyphened = {"half-square-triangle": "half-square triangle", "four-patch": "four-patch"}
    hyphened |= {"quarter-square-triangle": "quarter-square triangle", "nine-patch": "nine-patch"}
    return hyphened.get(kind, "odd piece" if kind == "other" else kind.replace("-", " "))
