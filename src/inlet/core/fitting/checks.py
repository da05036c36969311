"""What sewing a block up as it is cut brings up: seams whose edges do not fit."""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.fitting.remedies import HAIR, Fit
from inlet.core.fitting.words import apart_text, block_text
from inlet.core.problem import Problem
from inlet.core.project.measure import Measure


def fit_problems(fit: Fit | None, measure: Measure) -> Iterator[Problem]:
    """Seams whose edges differ by more than can be eased."""
    if fit is None or fit.worst <= float(measure.system.thread) + HAIR:
        return
    layout, arrangement = fit.sewn.layout, fit.sewn.layout.draft.arrangement
    worst = max(range(len(layout.stretches)), key=lambda i: fit.sewn.differences[i])
    run = fit.sewn.runs[layout.stretches[worst].one[0]]
    at = arrangement.points[arrangement.edges[run.edges[0]].start]
    yield Problem(
        "warning",
        "does-not-fit",
        (at,),
        f"As they are cut, {apart_text(fit.worst, measure)}, which is more than can be eased. The "
        f"block comes out {block_text(fit, measure)}.",
    )
