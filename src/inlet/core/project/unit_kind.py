"""The kinds of units, by their names in files."""

from __future__ import annotations

from typing import Literal

UnitKind = Literal[
    "square",
    "rectangle",
    "half-square-triangle",
    "quarter-square-triangle",
    "three-triangle",
    "flying-geese",
    "square-in-square",
    "half-rectangle-triangle",
    "corner-triangle",
    "four-patch",
    "nine-patch",
    "checkerboard",
    "strips",
    "quarter-circle",
    "rounds",
    "ring",
    "set-in",
    "eight-point-star",
    "panel",
    "other",
]
