"""Exercises done: what they measured, what that says, and which comes next."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.bench import Thing, sizes_typed
from inlet.core.hand.crossings import SeamType
from inlet.core.hand.estimate import Estimate, HandMeasure
from inlet.core.hand.exercises import (
    EXERCISES,
    Exercise,
    exercise_sides,
    planned_size,
)
from inlet.core.hand.guide import guide_text, small_length
from inlet.core.numbers import write_exact
from inlet.core.project import LogEntry, Measure, Pair, Project, replace
from inlet.core.words import length_text

DONE_WELL = 1 / 128
"""Inches a seam may be off for an exercise to be done well."""
MOST_TRIES = 3
"""Of an exercise one after the other: then another comes first."""
WEAK = 0.006
"""Inches more or less than planned from which a type of seam is worth an exercise."""
NAME = "Practise "


class PracticeResult(NamedTuple):
    """What an exercise measured ``at`` a time, and how much more than planned each of its seams
    takes by that, in inches."""

    exercise: Exercise
    at: str
    size: Pair
    more: float

    @property
    def is_good(self) -> bool:
        return abs(self.more) <= DONE_WELL


def with_practice(
    project: Project, exercise: Exercise, text: str, at: str
) -> tuple[Project, PracticeResult]:
    """The project with what an exercise measured, as it was typed, in its log. Raises
    ``NumberError`` or ``ValueError`` with what is wrong."""
    thing = _thing(exercise, project.measure)
    (size,) = sizes_typed(text, thing, 1, project.measure)
    entry = LogEntry(what=thing.name, did="measured", at=at, size=size.size, drawn=thing.drawn)
    project = replace(project, log=(*project.log, entry))
    return project, practised(project)[-1]


def _thing(exercise: Exercise, measure: Measure) -> Thing:
    size = planned_size(exercise, measure)
    return Thing(f"{NAME}{exercise.title}", 1, size, _mark(exercise, measure))


def _mark(exercise: Exercise, measure: Measure) -> str:
    """What a result is of: the exercise in a system with a seam allowance, as its size depends on
    these."""
    seam = write_exact(measure.seam / measure.system.per_inch)
    return f"{exercise.id} {measure.system.name} {seam}"


def practised(project: Project) -> list[PracticeResult]:
    """All results of exercises in the log, in its order."""
    measure = project.measure
    marks = {_mark(exercise, measure): exercise for exercise in EXERCISES}
    return [
        PracticeResult(exercise, entry.at, entry.size, _more(exercise, entry.size, measure))
        for entry in project.log
        if entry.did == "measured" and entry.size is not None
        for exercise in [marks.get(entry.drawn)]
        if exercise is not None
    ]


def _more(exercise: Exercise, size: Pair, measure: Measure) -> float:
    """How much more each seam takes: by both sides, as far as seams cross them, least squares."""
    sides = exercise_sides(exercise, measure.system.name)
    planned = planned_size(exercise, measure)
    per_inch = float(measure.system.per_inch)
    above = below = 0.0
    for crossed, length, drawn in zip(sides, size, planned, strict=True):
        above -= crossed.all * float(length - drawn) / per_inch
        below += crossed.all**2
    return above / below if below else 0.0


def practice_measures(project: Project) -> Iterator[HandMeasure]:
    """The results as the hand is learnt from them."""
    measure = project.measure
    per_inch = float(measure.system.per_inch)
    for result in practised(project):
        sides = exercise_sides(result.exercise, measure.system.name)
        planned = planned_size(result.exercise, measure)
        both = planned[0] != planned[1] or result.size[0] != result.size[1]
        for axis in (0, 1) if both else (0,):
            off = float(result.size[axis] - planned[axis]) / per_inch
            crossed = sides[axis]
            yield HandMeasure(
                off, crossed.takes, crossed.squares, crossed.pieces,
                f"{NAME}{result.exercise.title}",
            )  # fmt: skip


class NextExercise(NamedTuple):
    """What to do next, and why."""

    exercise: Exercise
    why: str


def next_exercise(results: Sequence[PracticeResult], seams: Estimate | None) -> NextExercise:
    """The exercise that follows: the last again until it is done well; then that for the weakest
    type of seam, as far as it is known; then what was not done yet, in order; then what was done
    well longest ago."""
    if not results and seams is None:
        return NextExercise(EXERCISES[0], "It comes first: nothing is known of your seam yet.")
    if results and not results[-1].is_good:
        last = results[-1].exercise
        tries = _tries(results)
        if tries < MOST_TRIES:
            return NextExercise(last, "Once more: move the guide as it says, and sew it again.")
    well = [e for e in EXERCISES if any(r.exercise == e and r.is_good for r in results)]
    for kind in _weakest(seams):
        exercise = next((e for e in EXERCISES if e.type == kind and e not in well), None)
        if exercise is not None and not (results and results[-1].exercise == exercise):
            return NextExercise(exercise, f"Your {WEAKNESS[kind]} are the least exact.")
    tried = [result.exercise for result in results]
    new = next((e for e in EXERCISES if e not in tried), None)
    if new is not None:
        return NextExercise(new, "You have not tried it yet.")
    left = [e for e in EXERCISES if e not in well] or list(EXERCISES)
    oldest = min(left, key=lambda e: max(i for i, r in enumerate(results) if r.exercise == e))
    return NextExercise(oldest, "It is longest ago.")


WEAKNESS: dict[SeamType, str] = {
    "straight": "straight seams", "long": "long seams", "bias": "bias seams",
    "curve": "curved seams",
}  # fmt: skip


def _tries(results: Sequence[PracticeResult]) -> int:
    """How often the last exercise was done one after the other."""
    number = 0
    for result in reversed(results):
        if result.exercise != results[-1].exercise:
            break
        number += 1
    return number


def _weakest(seams: Estimate | None) -> list[SeamType]:
    """The types of seam that are off, the farthest first."""
    if seams is None:
        return []
    off = {kind: abs(seam.more) for kind, seam in seams.seams.items() if abs(seam.more) >= WEAK}
    return sorted((kind for kind in WEAKNESS if kind in off), key=lambda kind: -off[kind])


def result_text(result: PracticeResult, measure: Measure) -> str:
    """What a result says: ``Each seam takes 0.014 in more than planned. Move the guide 1/64 in
    toward the needle.``"""
    if result.is_good:
        return f"Well done: each seam takes {length_text(measure.seam, measure)}, as planned."
    way = "more" if result.more > 0 else "less"
    takes = f"Each seam takes {small_length(abs(result.more), measure)} {way} than planned."
    return f"{takes} {guide_text(result.more, measure)}"


def progress_text(results: Sequence[PracticeResult], measure: Measure) -> str:
    """How an exercise went so far: ``So far: 0.031, 0.016, 0.002 in off a seam.``"""
    if not results:
        return ""
    off = ", ".join(small_length(abs(r.more), measure).split()[0] for r in results[-MOST_SHOWN:])
    unit = small_length(0.0, measure).split()[1]
    return f"So far: {off} {unit} off a seam."


MOST_SHOWN = 8
