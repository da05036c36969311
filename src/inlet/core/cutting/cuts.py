"""The cut list: equal pieces of all units taken together, by cloth, widest first."""

from __future__ import annotations

from collections.abc import Iterable
from fractions import Fraction
from typing import NamedTuple

from inlet.core.geometry.polygon import Polygon
from inlet.core.units.chosen import UnitPlan

CutSize = tuple[Fraction, Fraction]


class Cut(NamedTuple):
    """``number`` shapes of one cut size from one cloth. ``cut`` is (shorter, longer side);
    ``labels`` are the units they go into; ``outline`` is a template's finished outline."""

    fabric: str | None
    shape: str
    cut: CutSize
    crosscut: str
    number: int
    labels: tuple[str, ...]
    outline: Polygon = ()


def cut_list(units: Iterable[UnitPlan]) -> tuple[Cut, ...]:
    """Every piece of the methods in use; by cloth in order of first use, then widest first."""
    found: dict[tuple[object, ...], Cut] = {}
    cloths: dict[str | None, int] = {}
    for plan in units:
        for piece, size, number in plan.method.pieces:
            cloths.setdefault(piece.fabric, len(cloths))
            # Squares that come apart only after sewing are cut as any other square.
            crosscut = piece.crosscut if piece.crosscut in ("once", "twice") else "none"
            cut = (min(size), max(size))
            key = (piece.fabric, piece.shape, cut, crosscut, piece.outline)
            known = found.get(key)
            if known:
                labels = tuple(dict.fromkeys((*known.labels, plan.unit.label)))
                found[key] = known._replace(number=known.number + number, labels=labels)
            else:
                found[key] = Cut(
                    piece.fabric, piece.shape, cut, crosscut, number, (plan.unit.label,),
                    piece.outline,
                )  # fmt: skip
    return tuple(sorted(found.values(), key=lambda c: (cloths[c.fabric], -c.cut[0], -c.cut[1])))
