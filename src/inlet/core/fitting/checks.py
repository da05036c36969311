"""What sewing a block up as it is cut brings up: seams whose edges do not fit."""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.fitting.remedies import HAIR, Fit
from inlet.core.fitting.words import apart_text, block_text
from inlet.core.problem import Problem
from inlet.core.project import Measure
from inlet.core.words import length_text, size_text


def fit_problems(fit: Fit | None, measure: Measure, told: bool) -> Iterator[Problem]:
    """Seams whose edges differ by more than can be eased; else, unless its size is ``told`` of
    already, a block that comes out off its drawn size, or that takes easing, by more than half a
    thread."""
    if fit is None:
        return
    if fit.worst <= float(measure.system.thread) + HAIR:
        if not told and max(fit.missed, fit.worst) > float(measure.system.thread) / 2 + HAIR:
            yield _comes_out(fit, measure)
        return
    layout, arrangement = fit.sewn.layout, fit.sewn.layout.draft.arrangement
    worst = max(range(len(layout.stretches)), key=lambda i: fit.sewn.differences[i])
    run = fit.sewn.runs[layout.stretches[worst].one[0]]
    at = arrangement.points[arrangement.edges[run.edges[0]].start]
    yield Problem(
        "warning",
        "does-not-fit",
        (at,),
        f"{_by(fit)}, {apart_text(fit.worst, measure)}. That is too much to ease in. "
        f"The block comes out {block_text(fit, measure)}.",
    )


def _comes_out(fit: Fit, measure: Measure) -> Problem:
    """What a careful maker measures, where no seam is in the way."""
    least = float(measure.system.thread) / 2 + HAIR
    drawn = size_text(fit.sewn.layout.draft.block.finished, measure)
    parts = []
    if fit.missed > least:
        parts.append(f"the block comes out {block_text(fit, measure)}; it is drawn {drawn}")
    if fit.worst > least:
        differs = length_text(measure.system.thread, measure)
        parts.append(f"edges differ by up to {differs}: ease them in")
    return Problem("warning", "comes-out", (), f"{_by(fit)}, {'; '.join(parts)}.")


def _by(fit: Fit) -> str:
    """What the sizes are told by."""
    return "As its units are made" if fit.follows else "Cut to the ruler's marks"
