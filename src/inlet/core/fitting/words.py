"""What comes out, in words a maker checks with a ruler, and the answers to an awkward size."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.fitting.remedies import HAIR, Fit, Remedy
from inlet.core.numbers import Exact, Fraction, nearest_mark, show
from inlet.core.project import Block, Measure, Pair
from inlet.core.words import length_text, measured_text, size_text

NAMES: dict[Remedy, str] = {
    "finer": "Finer marks",
    "trim": "Trim",
    "leave": "Leave it",
    "bands": "Bands on marks",
    "size": "Another size",
}


def misfit_text(seams_fit: bool) -> str:
    """What is wrong with a block as it is cut: its seams, or its size alone."""
    return "it would not come to its size" if seams_fit else "it would not fit"


def done_text(fit: Fit, measure: Measure) -> str:
    """What is done so that it fits, in a sentence; nothing for another size."""
    return {
        "none": "They fit all the same, to a thread.",
        "bands": "The bands are put on the ruler's marks.",
        "finer": _finer_text(fit, measure),
        "trim": _trim_text(fit, measure),
        "leave": sentence(apart_text(fit.worst, measure)),
    }.get(fit.remedy, "")


def size_answer_text(size: Pair, measure: Measure) -> str:
    """What another size does: “Make it 11 in: every cut lands on a mark.”"""
    return f"Make it {size_text(size, measure)}: every cut lands on a mark."


def bands_answer_text(before: Block, after: Block, measure: Measure) -> str:
    """The new bands as a sum: “Make the bands across 3 5/8, 3 1/2, 3 5/8: 10 3/4 in.”"""
    across, down = (
        [band * scale for band in bands]
        for bands, scale in zip((after.columns, after.rows), after.scale, strict=True)
    )

    def listed(bands: Sequence[Exact]) -> str:
        sizes = ", ".join(show(band, system=measure.system, ruler=True) for band in bands)
        return f"{sizes}: {length_text(sum(bands, Fraction(0)), measure)}"

    if across == down:
        return f"Make the bands {listed(across)}, both ways."
    changed = [
        f"{name} {listed(bands)}"
        for name, bands, old, new in (
            ("across", across, before.columns, after.columns),
            ("down", down, before.rows, after.rows),
        )
        if old != new
    ]
    return f"Make the bands {'; '.join(changed)}."


def block_text(fit: Fit, measure: Measure) -> str:
    """What the block shows once it is sewn."""
    wide, high = (as_exact(side, measure) for side in fit.finished)
    return measured_text((wide, high), measure)


def as_exact(length: float, measure: Measure) -> Fraction:
    """A length that comes out, as a fraction no finer than can be told."""
    return nearest_mark(Fraction(round(length * 10**9), 10**9), measure.system.fine_mark)


def apart_text(differs: float, measure: Measure) -> str:
    """How far the edges of a seam differ at most: “every seam fits to a thread”, “edges differ by
    up to 1/8 in”."""
    thread = measure.system.thread
    if differs <= float(thread) + HAIR:
        return "every seam fits to a thread"
    seen = max(2 * thread, nearest_mark(as_exact(differs, measure), thread))
    return f"edges differ by up to {length_text(seen, measure)}"


def mark_text(mark: Fraction, measure: Measure) -> str:
    """Which marks are meant, and how they are found: “the 1/16 marks, half way between two 1/8
    marks”."""
    text = f"the {length_text(mark, measure)} marks"
    if mark != measure.finest:
        return text
    return f"{text} (half way between two {length_text(measure.mark, measure)} marks)"


def sentence(text: str) -> str:
    """Words with a capital and a full stop."""
    return f"{text[0].upper()}{text[1:]}."


def _finer_text(fit: Fit, measure: Measure) -> str:
    pieces = "1 shape" if fit.finer == 1 else f"{fit.finer} shapes"
    if fit.mark >= measure.mark or not fit.finer:
        return "Cut lengths that meet to fit one another, each on a mark."
    return f"Cut {pieces} on {mark_text(fit.mark, measure)}."


def _trim_text(fit: Fit, measure: Measure) -> str:
    sizes = [
        f"{plan.unit.label} to {size_text(plan.trimmed, measure)}"
        for plan in fit.units
        if plan.trimmed is not None
    ]
    units = "1 unit" if fit.trims == 1 else f"{fit.trims} units"
    rest = f" Cut all else on {mark_text(fit.mark, measure)}." if fit.finer else ""
    return f"Trim {units} before sewing on: {', '.join(sizes)}.{rest}"
