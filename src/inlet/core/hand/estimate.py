"""How much a maker's seam takes, and how evenly, by least squares that slips do not pull at.

A unit's size is off by ``-Σ a (δ + e) + Σ c``: over the seams, with what each takes of the size
(``a``, see ``crossings``), how much more it takes than planned; over the pieces, how much too large
each is cut. So its spread is ``B σ² + k τ² + ρ²``: the squares of the seams, the pieces, and the
ruler's own rounding. δ is fitted with these weights; σ is the likeliest one.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import sqrt
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.hand.crossings import TYPES

CUT_SPREAD = 1 / 96
"""Inches by which a cut at the ruler's mark is usually off: not told apart from seams by sizes of
sewn units alone."""
SLIP = 3.0
"""Spreads from what is expected, beyond which a measurement is of a slip: a fold under, a half mark
missed."""
SURE = 0.9
"""How often the true value lies in the interval told."""
LEAST = 4
"""Measurements below which nothing is said."""
LEAST_PLAIN = 3
"""Sides without a seam from which cutting is learnt."""
LEAST_SPREAD = 12
"""Sides without a seam from which it is learnt how evenly pieces are cut."""
APART = 0.05
"""How different two columns must be, in parts of their length, to be told from one another."""
ROUNDS = 40
Array = NDArray[np.float64]


class HandMeasure(NamedTuple):
    """A size that was measured: ``off`` by so many inches, across seams that take so much by type,
    with their squares added up, and so many pieces; ``of`` what."""

    off: float
    takes: Mapping[str, float]
    squares: float
    pieces: int
    of: str = ""


class SeamEstimate(NamedTuple):
    """A type of seam: how much ``more`` it takes than planned on each side, in inches, give or take
    ``within``; from so many measurements."""

    more: float
    within: float
    number: int


class Estimate(NamedTuple):
    """What was learnt: each type of seam that could be told; all ``together``; the ``spread`` of
    one seam (standard deviation); which measurements are of ``slips``, by their place; the types
    that cannot be told ``apart`` from the others; how much too large a piece is ``cut``, where
    sides without a seam were measured, and how evenly (``cut_spread``), where enough were."""

    seams: dict[str, SeamEstimate]
    together: SeamEstimate
    spread: float
    slips: tuple[int, ...]
    apart: tuple[str, ...]
    cut: float | None = None
    cut_spread: float | None = None


def learnt(
    measures: Sequence[HandMeasure], mark: float, types: Sequence[str] = TYPES
) -> Estimate | None:
    """The hand that these measurements, read to a ruler's ``mark`` in inches, are likeliest of;
    None where they are too few, or none has a seam across it. Of what they name, these ``types``
    are told from one another where they can be."""
    used = [i for i, each in enumerate(measures) if each.squares > 0]
    if len(used) < LEAST:
        return None
    cut = _cut(measures)
    off = np.array([measures[i].off - measures[i].pieces * (cut or 0.0) for i in used])
    takes = np.array([[measures[i].takes.get(kind, 0.0) for kind in types] for i in used])
    squares = np.array([measures[i].squares for i in used])
    cut_spread = _cut_spread(measures, mark)
    one_cut = CUT_SPREAD if cut_spread is None else cut_spread
    rest = np.array([measures[i].pieces * one_cut**2 for i in used]) + mark**2 / 12
    whole = takes.sum(axis=1, keepdims=True)
    sound, spread = _sound(whole, off, squares, rest)
    if sound.sum() < LEAST:
        return None
    together = _fitted(whole, off, squares * spread**2 + rest, sound)[0]
    columns = [k for k in range(len(types)) if takes[sound, k].any()]
    seams: dict[str, SeamEstimate] = {}
    apart: tuple[str, ...] = ()
    if len(columns) > 1 and _told_apart(takes[sound][:, columns]):
        spread = _likeliest(takes[:, columns], off, squares, rest, sound)
        fits = _fitted(takes[:, columns], off, squares * spread**2 + rest, sound)
        seams = {types[k]: fit for k, fit in zip(columns, fits, strict=True)}
    elif len(columns) > 1:
        apart = tuple(types[k] for k in columns)
    else:
        seams = {types[columns[0]]: together}
    slips = tuple(used[i] for i in np.flatnonzero(~sound))
    return Estimate(seams, together, spread, slips, apart, cut, cut_spread)


def _cut(measures: Sequence[HandMeasure]) -> float | None:
    """How much too large a piece is cut: the middle of the sides that no seam crosses."""
    plain = [each.off / max(1, each.pieces) for each in measures if not each.squares]
    return float(np.median(plain)) if len(plain) >= LEAST_PLAIN else None


def _cut_spread(measures: Sequence[HandMeasure], mark: float) -> float | None:
    """How much pieces differ from one another as they are cut, by sides of one piece that no seam
    crosses: the middle of how far they lie from their middle, as half of them may be slips, less
    what the ruler's marks round. Of few of them nothing is told."""
    plain = np.array([m.off for m in measures if not m.squares and m.pieces <= 1])
    if len(plain) < LEAST_SPREAD:
        return None
    off = np.abs(plain - np.median(plain))
    wide = float(np.median(off)) * 1.4826
    sound = off <= max(SLIP * wide, 2 * mark)
    return sqrt(max(0.0, float(plain[sound].var()) - mark**2 / 12))


def _sound(
    takes: Array, off: Array, squares: Array, rest: Array
) -> tuple[NDArray[np.bool_], float]:
    """Which measurements are no slips, and the spread of a seam by those. It begins with the middle
    of what each measurement says alone, which half of them may pull at and not move; slips are let
    go and taken back until they stay the same."""
    more = float(np.median(-off / takes[:, 0]))
    left = np.abs(off + takes[:, 0] * more)
    spread = float(np.median(left / np.sqrt(squares))) * 1.4826  # of a normal spread
    sound = np.ones(len(off), dtype=bool)
    for _ in range(ROUNDS):
        wide = np.sqrt(squares * spread**2 + rest)
        before, sound = sound, np.abs(off + takes[:, 0] * more) <= SLIP * wide
        if sound.sum() < LEAST:
            break
        spread = _likeliest(takes, off, squares, rest, sound)
        more = _fitted(takes, off, squares * spread**2 + rest, sound)[0].more
        if (before == sound).all():
            break
    return sound, spread


def _solved(takes: Array, off: Array, wide: Array) -> tuple[Array, Array]:
    """Weighted least squares: what each type takes more, and the inverse of its normal matrix."""
    weighted = takes / wide[:, None]
    inverse: Array = np.linalg.pinv(weighted.T @ weighted).astype(np.float64)
    return inverse @ weighted.T @ (-off / wide), inverse


def _fitted(
    takes: Array, off: Array, variance: Array, sound: NDArray[np.bool_]
) -> list[SeamEstimate]:
    """What each type takes more, with its interval: Student's t, as the spread is learnt, too."""
    from scipy.stats import t  # loads much, and is needed where a hand is looked at alone

    some, wide = takes[sound], np.sqrt(variance[sound])
    more, inverse = _solved(some, off[sound], wide)
    free = max(1, int(sound.sum()) - takes.shape[1])
    left = (off[sound] + some @ more) / wide
    scale = max(1.0, float(left @ left) / free)  # where the spread found is below the ruler's own
    reach = float(t.ppf((1 + SURE) / 2, free))
    return [
        SeamEstimate(float(m), reach * sqrt(scale * float(v)), int((some[:, k] > 0).sum()))
        for k, (m, v) in enumerate(zip(more, np.diag(inverse), strict=True))
    ]


def _likeliest(
    takes: Array, off: Array, squares: Array, rest: Array, sound: NDArray[np.bool_]
) -> float:
    """The spread of one seam under which what is left is likeliest, by restricted likelihood: the
    fit takes some freedom of its own."""
    from scipy.optimize import minimize_scalar

    some, out = takes[sound], off[sound]

    def unlikely(spread: float) -> float:
        variance = squares[sound] * spread**2 + rest[sound]
        wide = np.sqrt(variance)
        more, inverse = _solved(some, out, wide)
        left = (out + some @ more) / wide
        sign, log = np.linalg.slogdet(inverse)
        return float(np.log(variance).sum() + left @ left - (log if sign > 0 else 0.0))

    most = 4 * float(np.abs(out).max()) + 1e-6
    return float(minimize_scalar(unlikely, bounds=(0.0, most), method="bounded").x)


def _told_apart(takes: Array) -> bool:
    """Do the types come in proportions that differ enough to be told from one another?"""
    lengths = np.linalg.norm(takes, axis=0)
    return bool(np.linalg.svd(takes / lengths, compute_uv=False)[-1] > APART)
