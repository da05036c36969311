"""What would help: every other way tried with the same hand, and ranked by what it spares."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.hand import SEAM_TYPES
from inlet.core.plan import PreparedBlock, prepare_block
from inlet.core.project import Project
from inlet.core.tolerance.forecast import Forecast, Watched, forecast
from inlet.core.tolerance.sewing_hand import SewingHand
from inlet.core.tolerance.sources import block_model
from inlet.core.tolerance.variants import variants

TRIED = 1000
"""Sewings by which a way is judged: a sum of chances is known to a few hundredths."""
LEAST_HELP = 0.15
"""Of all that is off: what helps less than that is not told."""
SURE = 0.25
"""Points or crossings of a block, on average, that must be spared at the least."""
MOST = 5
GUIDE = "Sew with the guide moved so that your seam takes what is planned"
PINS = "Pin the crossings, or nest and hold them"
LEAST_BIAS = 1 / 256
"""Inches off that a guide cannot be set better than."""


class HelpAdvice(NamedTuple):
    """What to do; how many points and crossings are then off in a block, on average, and were
    before; how many points are cut off then, and were; the project with it done, None of what is
    done at the machine."""

    text: str
    off: float
    off_before: float
    cut: float
    cut_before: float
    project: Project | None = None


def expected(result: Forecast, pinned: bool = False) -> tuple[float, float]:
    """How many points are cut off, and how many points and crossings are off, on average."""
    cut = sum(point.cut_off for point in result.points)
    crossings = sum(c.off_pinned if pinned else c.off for c in result.crossings)
    return cut, sum(point.off for point in result.points) + crossings


def advised(block: PreparedBlock, hand: SewingHand, seed: int = 7) -> tuple[HelpAdvice, ...]:
    """What helps most, the first thing first: what spares cut points comes before what spares
    only others. Nothing where nothing is off, or nothing helps."""
    model = block_model(block)
    if model is None:
        return ()
    watched = Watched(model)
    now = forecast(watched, hand, TRIED, seed)
    before = expected(now)
    helps = [
        HelpAdvice(text, off, before[1], cut, before[0], project)
        for text, (cut, off), project in _tried(watched, hand, now, seed)
        if _is_help(before, (cut, off))
    ]
    helps.sort(key=lambda h: (not _spares_cuts(h), h.off + h.cut))
    return tuple(helps[:MOST])


def _tried(
    watched: Watched, hand: SewingHand, now: Forecast, seed: int
) -> Iterator[tuple[str, tuple[float, float], Project | None]]:
    if any(abs(hand.takes_more(kind)) > LEAST_BIAS for kind in SEAM_TYPES):
        level = hand._replace(more={})
        yield GUIDE, expected(forecast(watched, level, TRIED, seed)), None
    if now.crossings:
        yield PINS, expected(now, pinned=True), None
    block = watched.model.block
    for variant in variants(block):
        check()
        changed = prepare_block(variant.project, variant.block, block.copies)
        model = block_model(changed) if not changed.errors else None
        if model is not None:
            result = forecast(Watched(model), hand, TRIED, seed)
            yield variant.advice, expected(result), variant.project


def _is_help(before: tuple[float, float], after: tuple[float, float]) -> bool:
    """Is clearly less off, and no more cut off?"""
    spared = before[1] - after[1]
    no_worse = after[0] <= before[0] + 0.02
    return spared >= max(SURE, LEAST_HELP * before[1]) and no_worse


def _spares_cuts(advice: HelpAdvice) -> bool:
    spared = advice.cut_before - advice.cut
    return spared > max(0.05, LEAST_HELP * advice.cut_before)
