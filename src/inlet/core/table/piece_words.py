"""What is done with a shape once it is cut from the fabric, in words."""

from __future__ import annotations

from inlet.core.table.pieces import Crosscut, Lean


def diagonal_text(crosscut: Crosscut, lean: Lean = "", square: bool = False) -> str:
    """How a shape is cut on its diagonals before it is sewn: “once on the diagonal”, and which way
    that runs where the halves would otherwise be of the other hand, or their print upside down;
    empty where it is not cut."""
    if crosscut not in ("once", "twice"):
        return ""
    return f"{crosscut} on the diagonal{lean_text(lean, square)}"


def over_triangles(number: int) -> str:
    """Triangles of the squares cut that are not needed."""
    return "1 triangle is over" if number == 1 else f"{number} triangles are over"


def lean_text(lean: Lean, square: bool = False) -> str:
    """Which way the diagonal of a rectangle or a square runs, held so that it cannot be
    mistaken."""
    if not lean:
        return ""
    return f", {LEANS[lean]} with the {'print' if square else 'long side'} upright"


LEANS: dict[Lean, str] = {
    "falling": "top left to bottom right", "rising": "bottom left to top right",
}  # fmt: skip
"""Which way a diagonal runs, in words."""
