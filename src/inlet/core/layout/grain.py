"""Which way the grain runs in long pieces: those of one stack lie on one grain, as they stretch
alike then; straight grain along the selvage stretches least."""

from __future__ import annotations

from collections import Counter
from collections.abc import Container, Iterable

from inlet.core.cutlist import Cut
from inlet.core.layout.fabric_plan import FabricPlan
from inlet.core.layout.laid_strips import pieces_on
from inlet.core.numbers import Fraction
from inlet.core.project import LaidStrip, Measure

LONG_PIECE = Fraction(6)
"""Inches."""


def is_long(cut: Cut, measure: Measure) -> bool:
    """Is it a stack of straight pieces so long that their grain matters?"""
    low, high = cut.cut
    return cut.shape in ("rectangle", "strip") and low != high and (
        high > measure.from_inches(LONG_PIECE)
    )  # fmt: skip


def lying(strips: Iterable[LaidStrip], labels: Container[str]) -> tuple[set[str], dict[str, bool]]:
    """Of these stacks: those that lie both ways; and of each, do most of its pieces lie turned?"""
    ways: dict[str, Counter[bool]] = {}
    for pieces, number in pieces_on(strips):
        if pieces.label in labels:
            ways.setdefault(pieces.label, Counter())[pieces.turned] += number
    both = {label for label, counts in ways.items() if len(counts) > 1}
    return both, {label: counts[True] > counts[False] for label, counts in ways.items()}


def grain_texts(
    plans: Iterable[FabricPlan], cuts: Iterable[Cut], measure: Measure
) -> dict[str, str]:
    """By the label of each stack of long pieces: which way they lie on the fabric."""
    long = {cut.label for cut in cuts if is_long(cut, measure)}
    ways: dict[str, set[bool]] = {}
    for plan in plans:
        for laid in plan.laid:
            for pieces, _ in pieces_on(laid.strips):
                if pieces.label in long:
                    ways.setdefault(pieces.label, set()).add(pieces.size[0] < pieces.size[1])
    words = {True: "cut lengthwise", False: "cut across the fabric"}
    return {
        label: words[lengthwise.pop()] if len(lengthwise) == 1 else "cut both ways"
        for label, lengthwise in ways.items()
    }
