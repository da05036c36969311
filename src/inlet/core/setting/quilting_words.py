"""Lines of quilting in words."""

from __future__ import annotations

from inlet.core.numbers import Fraction, show
from inlet.core.project import Measure, Project, QuiltingLines
from inlet.core.words import fabric_name, length_text


def usual_distance(measure: Measure) -> Fraction:
    """A quarter inch, or 5 mm."""
    return Fraction(1, 4) if measure.system.fractions else Fraction(1, 2)


def usual_apart(measure: Measure) -> Fraction:
    """Between the lines of a grid: 2 in, or 5 cm."""
    return Fraction(2 if measure.system.fractions else 5)


def quilting_words(asked: QuiltingLines, project: Project) -> str:
    """One kind of line in words, with what is measured from a raw edge."""
    measure = project.measure
    distance = asked.distance
    if asked.kind == "seams":
        return "Along every seam, close beside it."
    if asked.kind == "grid":
        apart = length_text(distance if distance is not None else usual_apart(measure), measure)
        how = "on the diagonal" if asked.diagonal else "square to the edge"
        return f"A grid {how}, lines {apart} apart, from the middle out."
    used = distance if distance is not None else usual_distance(measure)
    which = f" of {fabric_name(project, asked.fabric)}" if asked.fabric else ""
    again = f", {asked.repeats} lines so far apart" if asked.repeats > 1 else ""
    return (
        f"{length_text(used, measure)} inside the seams of every patch{which}{again}; from a raw "
        f"edge {length_text(used + measure.seam, measure)}, as the binding takes "
        f"{length_text(measure.seam, measure)}."
    )


def quilted_text(length: float, thread: float, measure: Measure) -> str:
    """How long all lines are, and the thread they take: ``41 yd of lines, 110 yd of thread``."""
    unit = measure.system.long_unit
    long, much = (show(Fraction(round(x / unit.length + 0.5))) for x in (length, thread))
    return f"{long} {unit.name} of lines, {much} {unit.name} of thread, top and bobbin together"
