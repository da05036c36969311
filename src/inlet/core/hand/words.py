"""What was learnt of a hand, in sentences."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.hand.estimate import LEAST, Estimate, HandMeasure
from inlet.core.hand.guide import LEAST_STEP, guide_text, small_length
from inlet.core.hand.trims import TrimEstimate
from inlet.core.piecing import read_seam_test
from inlet.core.project import Measure, Project
from inlet.core.words import length_text, unit_of

NAMES: dict[str, str] = {
    "straight": "straight seams", "long": "long seams", "bias": "seams on the bias",
    "curve": "curved seams",
}  # fmt: skip
EVEN = 0.002
"""Inches of spread that sizes read off a ruler do not tell."""
DIFFERENT = 0.008
"""Inches by which two types of seam must differ to be told of."""


def hand_lines(
    estimate: Estimate | None, measures: Sequence[HandMeasure], project: Project
) -> Iterator[str]:
    """What the measurements say, the most important first."""
    if estimate is None:
        seamed = sum(each.squares > 0 for each in measures)
        yield (
            f"{seamed} of {LEAST} measurements are there. Measure some units as they come from the "
            "machine, untrimmed, and type their sizes at Made sizes; or sew an exercise at "
            "Practise."
        )
        return
    measure = project.measure
    if is_of_whole_seams(estimate, measure):
        yield (
            "The sizes are off by more than whole seams. Look at Made sizes whether they are of "
            f"these units, and in {unit_of(measure)}."
        )
        return
    yield _seam_text(estimate, measure)
    if estimate.spread < EVEN:
        yield "From seam to seam it is more even than your ruler can tell."
    else:
        spread = small_length(estimate.spread, measure)
        yield f"From seam to seam it differs: two in three lie within {spread} of that."
    yield _move_text(estimate, measure)
    for kind, seam in estimate.seams.items():
        off = seam.more - estimate.together.more
        if len(estimate.seams) > 1 and abs(off) > max(DIFFERENT, seam.within):
            way = "more" if off > 0 else "less"
            told = f"{small_length(abs(off), measure)} {way} than the others"
            yield f"Your {NAMES[kind]} take {told}."
    if estimate.apart:
        names = " and ".join(NAMES[kind] for kind in estimate.apart)
        yield (
            f"What was measured does not tell {names} apart. Measure a unit of straight seams "
            "alone, as a nine-patch."
        )
    if estimate.cut is None:
        yield (
            "Wide cuts and narrow seams look alike in these sizes. Type both sides of three units "
            "of strips: along the strips no seam crosses, so that side is only cut."
        )
    elif abs(estimate.cut) >= DIFFERENT:
        way = "wide" if estimate.cut > 0 else "narrow"
        wide = small_length(abs(estimate.cut), measure)
        yield f"You cut {wide} too {way}; it is taken into account."
    if estimate.cut_spread is not None:
        even = f"{small_length(estimate.cut_spread, measure)} of one another"
        if estimate.cut_spread < EVEN:
            even = "what your ruler can tell"
        yield f"Pieces you cut to one size lie, two in three, within {even}."
    yield from _slips_text(estimate, measures)
    yield from _test_text(estimate, project)


def is_of_whole_seams(estimate: Estimate, measure: Measure) -> bool:
    """Are the sizes off by more than a seam allowance for each seam? No seam is sewn so."""
    return abs(estimate.together.more) * float(measure.system.per_inch) >= float(measure.seam)


def _seam_text(estimate: Estimate, measure: Measure) -> str:
    planned = float(measure.seam) / float(measure.system.per_inch)
    together = estimate.together
    return (
        f"Your seam takes {small_length(planned + together.more, measure)}, give or take "
        f"{small_length(together.within, measure)}; planned is "
        f"{length_text(measure.seam, measure)}."
    )


def _move_text(estimate: Estimate, measure: Measure) -> str:
    """How far to move the guide; nothing where the interval holds the planned seam."""
    together = estimate.together
    if abs(together.more) <= together.within:
        return "That is your seam allowance as planned, as far as can be told."
    return guide_text(together.more, measure)


def _slips_text(estimate: Estimate, measures: Sequence[HandMeasure]) -> Iterator[str]:
    """Measurements that are no matter of the hand."""
    names = list(dict.fromkeys(measures[i].of for i in estimate.slips if measures[i].of))
    if estimate.slips:
        number = len(estimate.slips)
        of = f" ({', '.join(names[:3])})" if names else ""
        subject = "1 measurement is" if number == 1 else f"{number} measurements are"
        yield (
            f"{subject} far from the others{of}, as after a slip, and not counted: measure again, "
            "or look for a fold under or a half mark missed."
        )


def _test_text(estimate: Estimate, project: Project) -> Iterator[str]:
    """Does the seam allowance test say the same?"""
    if project.seam_test is None:
        return
    per_inch = float(project.measure.system.per_inch)
    off = float(read_seam_test(project.seam_test, project.measure.seam).off) / per_inch
    apart = off - estimate.together.more
    if abs(apart) <= estimate.together.within + float(LEAST_STEP):
        yield "The seam allowance test says the same."
    else:
        more = "more" if apart > 0 else "less"
        yield (
            f"The seam allowance test says {small_length(abs(apart), project.measure)} {more}: "
            "units may be sewn otherwise than its strips, or cut off the mark."
        )


def trim_lines(trims: TrimEstimate | None, measure: Measure) -> Iterator[str]:
    """What sizes of trimmed units say."""
    if trims is None:
        return
    spread = small_length(trims.spread, measure)
    if trims.spread < EVEN:
        spread = "what your ruler can tell"
    if abs(trims.more) < EVEN:
        yield f"Units you trim come out as planned, two in three within {spread} of it."
        return
    way = "large" if trims.more > 0 else "small"
    more = small_length(abs(trims.more), measure)
    yield f"Units you trim come out {more} too {way}, two in three within {spread} of that."
