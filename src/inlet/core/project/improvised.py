"""Improvised corners of a plain block: within which bounds seams vary, and what is sewn on."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from inlet.core.numbers import Exact, Fraction, System, next_mark
from inlet.core.project.value import Brief, Pair, replace

ScrapSource = Literal["cut", "basket"]
"""Scraps are cut to size from fabric, or taken from what lies in a basket."""
Offcut = Literal["trimmed", "left"]
"""What becomes of the fabric behind a corner: trimmed to the allowance, or left in."""


MOST_STEPS = 60
"""Steps between the nearest and the farthest place of a seam's end."""
MOST_CORNER_FABRICS = 50
MOST_MINUTES = 1_000_000


class Improvised(Brief, frozen=True, kw_only=True):
    """Scraps of ``fabrics`` sewn over ``fewest`` to ``most`` corners of a square. Seams begin
    and end from ``nearest`` to ``farthest`` from the corner, measured along the raw edges, in steps
    of ``step``; the longer of the two lengths is at most ``steepest`` times the shorter. Chance
    draws them, the same for the same ``seed``. ``contrast``: only fabrics that differ from the
    square in value; ``balance``: all fabrics equally often. ``scraps`` says where they come from,
    ``offcuts`` what becomes of the corner behind; ``cards`` says where each seam lies. The maker
    has sewn for so many ``minutes``."""

    fabrics: tuple[str, ...]
    nearest: Exact
    farthest: Exact
    step: Exact
    steepest: Exact = Fraction(3)
    fewest: int = 1
    most: int = 3
    seed: int = 1
    contrast: bool = True
    balance: bool = True
    scraps: ScrapSource = "cut"
    offcuts: Offcut = "trimmed"
    cards: bool = False
    minutes: int = 0


def usual_corners(size: Pair, fabrics: tuple[str, ...], system: System) -> Improvised:
    """Corners from a quarter to three quarters of the shorter side of a raw square, at half of the
    coarse marks."""
    step, side = system.coarse / 2, min(size)
    return Improvised(
        fabrics=fabrics,
        nearest=next_mark(side / 4, step),
        farthest=next_mark(side * 3 / 4, step),
        step=step,
    )


def improvised_measured(improvised: Improvised, factor: Exact) -> Improvised:
    """The same with its lengths in another unit."""
    return replace(
        improvised,
        nearest=improvised.nearest * factor,
        farthest=improvised.farthest * factor,
        step=improvised.step * factor,
    )


def corners_in(improvised: Improvised, fabrics: Mapping[str, str]) -> Improvised:
    """The same corners with each fabric that is a key of ``fabrics`` exchanged for its value."""
    changed = dict.fromkeys(fabrics.get(name, name) for name in improvised.fabrics)
    return replace(improvised, fabrics=tuple(changed))
