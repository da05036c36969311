"""What to do at the mat, line by line, in words."""

from __future__ import annotations

from collections.abc import Iterable

from inlet.core.layout.cut_lines import CutPart, CuttingLine
from inlet.core.layout.strokes import Stroke
from inlet.core.layout.tools import SetUp, Tools
from inlet.core.numbers import Exact, Fraction, floor_exact, spelled, whole_spelled
from inlet.core.project import LaidFabric, Measure
from inlet.core.words import length_text, size_text

SAFE_LAYERS = 4
"""More layers drift under the ruler."""


def on_ruler(size: Exact, measure: Measure) -> str:
    """A length as it is read on the ruler, then in words: ``3 1/2 in: three and a half``."""
    exact = size if isinstance(size, Fraction) else Fraction(floor_exact(size * 64), 64)
    return f"{length_text(size, measure)}: {spelled(exact, measure.system)}"


def line_text(line: CuttingLine, tools: Tools, measure: Measure) -> str:
    """A line of the cutting plan in a sentence or two."""
    if line.rounds == 1 and len(line.parts) == 1:
        return part_text(line.parts[0], tools, measure)
    said = [part_text(part, tools, measure) for part in line.parts]
    first = line.parts[0].stroke
    stacked = first.stacked * first.copies > 1
    piles = f"{line.rounds} stacks" if stacked else f"{line.rounds} strips"
    if len(first.of) > 1 and first.stacked == 1:
        piles = f"{line.rounds} sets of strips"
    often = f"Of each of {piles}: " if line.rounds > 1 else ""
    return often + " ".join(said)


def part_text(part: CutPart, tools: Tools, measure: Measure) -> str:
    """Equal cuts in a sentence or two."""
    stroke, number = part.stroke, part.number
    opened = "Open out what is left at the fold. " if stroke.opens else ""
    under = stroke.layers << part.set_up.folds
    layers = f" ({under} layers)" if under > 1 else ""
    before, after = _set_up_text(part.set_up, stroke, tools, measure)
    again = f", squaring the edge {_times(part.squared)} in between" if part.squared else ""
    if part.squared > 1:
        again = f", squaring the edge again after every {part.every}"
    return (
        f"{opened}{before}{_do(stroke, number, tools, measure)}{again}{_where(stroke)}{after}"
        f"{layers}."
    )


def _times(number: int) -> str:
    return {1: "once", 2: "twice"}.get(number, f"{number} times")


def _do(stroke: Stroke, number: int, tools: Tools, measure: Measure) -> str:
    """What is cut, and how often."""
    size, read = length_text(stroke.size, measure), on_ruler(stroke.size, measure)
    often = f" {_times(number)}" if number > 1 else ""
    if stroke.what == "square":
        along = stroke.way == "along"  # the ends of a strip
        return (f"Trim off the selvages, {size} at most" if along
                else f"Square the edge: take off {size} at most")  # fmt: skip
    if stroke.what == "strip":
        kind = "length" if stroke.size > tools.mat[1] else "strip"
        return f"Cut a {kind} {read}" if number == 1 else f"Cut {number} {kind}s {read}"
    if stroke.what == "segment":
        if stroke.length > tools.mat[1]:
            many = f"{number} lengthwise strips" if number > 1 else "a lengthwise strip"
            return f"Cut {many} {read}"
        return f"Cut across the strip{often} at {read}"
    if stroke.what == "row":
        return f"Cut along the strip{often} at {read}"
    if stroke.what == "piece":
        return f"Cut off a piece {read}" if number == 1 else f"Cut off {number} pieces {read}"
    return f"Trim{often} to {read}"


def _where(stroke: Stroke) -> str:
    """How the fabric lies under the ruler, where it is more than one piece."""
    stacked = stroke.stacked * stroke.copies
    if len(stroke.of) > 1 and stroke.stacked == 1:
        return f", through all {whole_spelled(len(stroke.of))} side by side"
    return f", {whole_spelled(stacked)} in a stack" if stacked > 1 else ""


def ruler_name(tools: Tools, which: int, measure: Measure) -> str:
    """``6 x 24 in ruler``, ``12 1/2 in square``."""
    short, long = tools.rulers[which]
    text = size_text((short, long), measure)
    return f"{text} square" if short == long else f"{text} ruler"


def _set_up_text(set_up: SetUp, stroke: Stroke, tools: Tools, measure: Measure) -> tuple[str, str]:
    """What is done before a cut, and how it is measured; nothing where there is one ruler only, and
    it does."""
    before = ""
    if set_up.folds:
        again = {1: "again", 2: "twice more"}.get(set_up.folds, f"{set_up.folds} times more")
        before = f"Fold it {again}. "
    name = ruler_name(tools, set_up.ruler, measure)
    words = f", with the {name}" if len(tools.rulers) > 1 else ""
    if set_up.by == "rulers" and set_up.beside is not None:
        beside = ruler_name(tools, set_up.beside, measure)
        words = f", the {beside} beside the {name}"
    elif set_up.by == "mat":
        words = f", measured by the lines of the mat{words}"
    elif set_up.by == "tape":
        words = f", measured with a tape{words}"
    if set_up.shifts:
        words += f", moving the ruler on {_times(set_up.shifts)}"
    return before, words


def finished_text(finishes: Iterable[tuple[str, int]]) -> str:
    """The stacks that cuts add to: ``2 for A1``; nothing where no piece is ready."""
    return ", ".join(f"{number} for {label}" for label, number in finishes)


def layers_text(laid: LaidFabric) -> str:
    """How the fabric lies on the mat."""
    return {
        1: "in a single layer",
        2: "folded once, selvage to selvage",
        4: "folded twice, the fold to the selvages",
    }[laid.layers]
