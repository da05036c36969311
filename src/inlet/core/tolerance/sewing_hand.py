"""A hand that sews: how far its cuts and seams are off, and how evenly; learnt or assumed."""

from __future__ import annotations

from collections.abc import Mapping
from math import sqrt
from types import MappingProxyType
from typing import NamedTuple

from inlet.core.hand import CUT_SPREAD, SEAM_TYPES, MakerHand, SeamType


class SlipRates(NamedTuple):
    """How often something goes wrong that is no matter of evenness, in parts of what is done: a
    piece cut by the wrong half ``mark``, an edge ``folded`` under in a seam, a unit ``turned`` by a
    quarter before it is sewn in."""

    mark: float = 0.0
    folded: float = 0.0
    turned: float = 0.0


class SewingHand(NamedTuple):
    """Lengths in inches. A seam takes ``more`` than planned of each side, by its type, and differs
    from seam to seam by ``spread``. A piece comes out ``cut`` too large from edge to edge, and
    differs by ``cut_spread``. What is trimmed comes out ``trim`` too large from side to side, and
    differs by ``trim_spread``; as what is cut, where that is None. All spreads are standard
    deviations."""

    more: Mapping[SeamType, float] = MappingProxyType({})
    spread: float = 0.0
    cut: float = 0.0
    cut_spread: float = 0.0
    trim: float | None = None
    trim_spread: float | None = None
    slips: SlipRates = SlipRates()
    pace: float = 1.0
    """How many times as long as by the rates its work takes."""

    def takes_more(self, kind: SeamType) -> float:
        """How much more than planned a seam of this type takes of each side."""
        return self.more.get(kind, 0.0)

    @property
    def edge_spread(self) -> float:
        """How far one cut edge lies off: two of them, independent, make ``cut_spread``."""
        return self.cut_spread / sqrt(2)

    @property
    def trimmed_edge(self) -> tuple[float, float]:
        """How far out an edge lies that is trimmed, and how much that differs."""
        more = self.cut if self.trim is None else self.trim
        spread = self.cut_spread if self.trim_spread is None else self.trim_spread
        return more / 2, spread / sqrt(2)

    def sewing_wider(self, inches: float) -> SewingHand:
        """The same hand with every seam so much wider."""
        return self._replace(more={kind: self.takes_more(kind) + inches for kind in SEAM_TYPES})


PERFECT = SewingHand()
STEADY = SewingHand(
    dict.fromkeys(SEAM_TYPES, 0.006), 0.006, 0.0, CUT_SPREAD / 2,
    slips=SlipRates(0.004, 0.003, 0.0), pace=0.9,
)  # fmt: skip
BEGINNER = SewingHand(
    {"straight": 0.02, "long": 0.024, "bias": 0.024, "curve": 0.03}, 0.016, 0.0, 1.5 * CUT_SPREAD,
    slips=SlipRates(0.02, 0.02, 0.01), pace=1.5,
)  # fmt: skip
USUAL = SewingHand(spread=0.01, cut_spread=CUT_SPREAD)
"""What is assumed of a maker whose sizes are not known yet: a seam as planned, as even as most."""
HANDS: Mapping[str, SewingHand] = MappingProxyType({"steady": STEADY, "beginner": BEGINNER})
THREAD = 1 / 64
"""Inches: how much wider a seam is with the fabric a thread or two farther over."""


def learnt_hand(learnt: MakerHand) -> SewingHand:
    """The hand as it was learnt; as usual where too little was measured."""
    estimate, trims = learnt.seams, learnt.trims
    usual = USUAL
    if trims is not None:
        usual = USUAL._replace(trim=trims.more, trim_spread=trims.spread)
    if estimate is None:
        return usual
    more = dict.fromkeys(SEAM_TYPES, estimate.together.more)
    more |= {kind: seam.more for kind, seam in estimate.seams.items() if kind in SEAM_TYPES}
    cut_spread = estimate.cut_spread if estimate.cut_spread is not None else CUT_SPREAD
    return usual._replace(
        more=more, spread=estimate.spread, cut=estimate.cut or 0.0, cut_spread=cut_spread
    )
