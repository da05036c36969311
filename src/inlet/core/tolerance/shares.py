"""Which work makes sizes and points uneven: the variance of each source, step by step.

Errors are small beside pieces, so what comes of them adds up: an outcome varies by ``Σ (g_k σ_k)²``
over the sources, where ``g_k`` is how far it goes for each inch source ``k`` is off. Each ``g σ``
is read off a sewing with that source alone off by its spread.
"""

from __future__ import annotations

from collections import defaultdict
from typing import NamedTuple

import numpy as np

from inlet.core.assembly import all_joins
from inlet.core.tolerance.forecast import Watched
from inlet.core.tolerance.pieces import Array
from inlet.core.tolerance.sewing_hand import SewingHand

BETWEEN = "sewing units together"


class Share(NamedTuple):
    """How much of the variance of a block's ``size``, and of its points and crossings
    (``sharp``), is made by some ``work``; both from 0 to 1."""

    work: str
    size: float
    sharp: float


def shares(watched: Watched, hand: SewingHand) -> tuple[Share, ...]:
    """What each work contributes, the largest first; none where nothing varies."""
    model = watched.model
    spreads = model.spreads(hand)
    level = watched.outcomes(hand, np.zeros((model.sources, 1)))
    apart = watched.outcomes(hand, np.diag(spreads))
    size = _variance((apart.sizes[:1] - level.sizes[:1]).reshape(-1, model.sources))
    sharp = _variance(apart.beyond - level.beyond) + _variance(apart.apart - level.apart)
    by_work: dict[str, list[int]] = defaultdict(list)
    for k, work in enumerate(_works(watched)):
        by_work[work].append(k)
    whole = [float(v.sum()) or 1.0 for v in (size, sharp)]
    parts = [
        Share(work, float(size[of].sum()) / whole[0], float(sharp[of].sum()) / whole[1])
        for work, of in by_work.items()
    ]
    return tuple(
        sorted((s for s in parts if s.size or s.sharp), key=lambda s: -max(s.size, s.sharp))
    )


def _variance(off: Array) -> Array:
    variance: Array = (off**2).sum(axis=0)
    return variance


def _works(watched: Watched) -> list[str]:
    """What each source is of: cuts, seams, trims."""
    model = watched.model
    block, pieces = model.block, model.pieces
    inside = {
        place.part.faces: plan.unit.label
        for plan in block.units for place in plan.unit.places if place.within is None
    }  # fmt: skip
    of_piece = {face: label for faces, label in inside.items() for face in faces}
    works = [""] * model.sources
    for h in range(pieces.halves):
        works[int(model.cut[h])] = f"cutting for unit {of_piece.get(int(pieces.piece[h]), '')}"
    for i, join in enumerate(all_joins(block.assembly)):
        label = next((label for faces, label in inside.items() if join.faces <= faces), None)
        work = BETWEEN if label is None else f"sewing unit {label}"
        works[model.cuts + int(model.sewing[i])] = work
    for unit, sides in zip(model.units, model.trim, strict=True):
        label = unit.plan.unit.label
        work = f"trimming unit {label}" if unit.trimmed else f"cutting for unit {label}"
        for side in sides:
            works[model.cuts + model.sewings + int(side)] = work
    return works
