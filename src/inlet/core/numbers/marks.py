"""The ruler's marks: the only place where an exact length is rounded."""

from __future__ import annotations

from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact, ceil_exact, floor_exact


def next_mark(x: Exact, mark: Fraction) -> Fraction:
    """The first ruler mark (multiple of ``mark``) at or above ``x``: what a cut is made at."""
    return ceil_exact(x / mark) * mark


def nearest_mark(x: Exact, mark: Fraction) -> Fraction:
    """The ruler mark nearest to ``x``; from half way, the upper one."""
    return floor_exact(x / mark + Fraction(1, 2)) * mark
