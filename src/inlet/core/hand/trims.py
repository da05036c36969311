"""How large units come out that are trimmed: a ruler gave them their size, so seams do not tell."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

LEAST_TRIMS = 4
"""Trimmed sides below which nothing is said."""
FAR = 3.0
"""Spreads from the middle, beyond which a size is a slip."""


class TrimEstimate(NamedTuple):
    """How much too large trimmed units come out from side to side, in inches, with the spread
    (standard deviation) of a side; from so many sides."""

    more: float
    spread: float
    number: int


def trims_learnt(off: Sequence[float], mark: float) -> TrimEstimate | None:
    """What sizes of trimmed units tell, which are ``off`` so many inches, read to a ruler's
    ``mark``; None where they are too few. Slips are left out: the middle and the middle distance
    from it are not pulled at by less than half of them."""
    if len(off) < LEAST_TRIMS:
        return None
    sizes = np.array(off)
    middle = float(np.median(sizes))
    wide = 1.4826 * float(np.median(np.abs(sizes - middle)))
    sound = sizes[np.abs(sizes - middle) <= max(FAR * wide, 2 * mark)]
    spread = max(0.0, float(sound.var()) - mark**2 / 12) ** 0.5
    return TrimEstimate(float(sound.mean()), spread, len(sound))
