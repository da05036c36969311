"""Short exercises on scraps, each for one kind of seam: small blocks, planned as any other."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.draft import Box, draft, drop, lightness, tray_units
from inlet.core.geometry import Point
from inlet.core.hand.crossings import LONG, Crossings, SeamType, crossings
from inlet.core.memo import memo
from inlet.core.numbers import Exact, Fraction, SystemName
from inlet.core.plan import BlockPlan, plan_block
from inlet.core.project import Block, FabricAt, Measure, Pair, Project, replace, straight
from inlet.core.units import break_down

ZERO = Fraction(0)


class Exercise(NamedTuple):
    """What is sewn: its ``id`` and ``title``, what it is for (``why``), the type of seam that its
    size tells of; its finished size in inches and in centimetres; a unit of the tray, or strips, so
    many; the ``method`` it is made by, so that its seams are those it is for."""

    id: str
    title: str
    why: str
    type: SeamType
    inches: tuple[Fraction, Fraction]
    centimetres: tuple[Fraction, Fraction]
    unit: str = ""
    strips: int = 0
    method: str = ""


def _pair(wide: int | str, high: int | str) -> tuple[Fraction, Fraction]:
    return Fraction(wide), Fraction(high)


EXERCISES: tuple[Exercise, ...] = (
    Exercise("three-strips", "Three strips",
             "Two plain seams: what they take is what your seam allowance really is.",
             "straight", _pair(3, 6), _pair("15/2", 15), strips=3),
    Exercise("four-patch", "A nested four-patch",
             "Press the first seams opposite ways, push them together, and pin both sides.",
             "straight", _pair(4, 4), _pair(10, 10), "Four-patch", method="plain"),
    Exercise("long-seam", "A long seam",
             "A hand wanders in a long seam. Measure at both ends and in the middle.",
             "long", _pair(4, 16), _pair(10, 40), strips=2),
    Exercise("bias-seam", "A bias seam",
             "Bias stretches: lay it down, do not pull it, press and do not rub.",
             "bias", _pair(3, 3), _pair("15/2", "15/2"), "Half-square triangle",
             method="single-triangles"),
    Exercise("curve", "A curve with pins",
             "Pin the middle, both ends, and between; the convex piece lies on top.",
             "curve", _pair(6, 6), _pair(15, 15), "Quarter circle"),
    Exercise("partial-seam", "A partial seam",
             "The first seam stops half way, and is finished last.",
             "straight", _pair(6, 6), _pair(15, 15), "Ring"),
    Exercise("set-in", "A set-in corner",
             "Sew from the edge to the dot, stop, turn, and sew the other side.",
             "straight", _pair(6, 6), _pair(15, 15), "Set-in square"),
)  # fmt: skip


def exercise_named(name: str) -> Exercise | None:
    """The exercise of that id or title."""
    wanted = name.strip().lower()
    return next((e for e in EXERCISES if wanted in (e.id, e.title.lower())), None)


def finished_size(exercise: Exercise, system: SystemName) -> tuple[Fraction, Fraction]:
    """How large it is, finished, in a project of that system."""
    return exercise.inches if system == "inch" else exercise.centimetres


def exercise_block(
    exercise: Exercise, system: SystemName, fabrics: Sequence[str] = ("", "")
) -> Block:
    """Its drawing: the figure in the first fabric, the ground in the second."""
    size = finished_size(exercise, system)
    bare = Block(id=f"practise-{exercise.id}", name=exercise.title, finished=size)
    if exercise.method:
        unit_kind = next(u for u in tray_units() if u.words == exercise.unit).kind
        bare = replace(bare, methods={unit_kind: exercise.method})
    if exercise.strips:
        n, foot = exercise.strips, Fraction(1)
        block = replace(
            bare, columns=(Fraction(1),) * n,
            seams=tuple(straight(Point(Fraction(i), ZERO), Point(Fraction(i), foot))
                        for i in range(1, n)),
        )  # fmt: skip
        return _in_turn(block, fabrics)
    unit = next(u for u in tray_units() if u.words == exercise.unit)
    wide, high = (round(float(side)) for side in unit.size)
    block = replace(bare, columns=(Fraction(1),) * wide, rows=(Fraction(1),) * high)
    box = Box(Point(ZERO, ZERO), Point(Fraction(wide), Fraction(high)))
    return drop(block, unit, box, [*fabrics[:2], fabrics[0]])


def _in_turn(block: Block, fabrics: Sequence[str]) -> Block:
    spots = [
        FabricAt(point=(Fraction(2 * i + 1, 2), Fraction(1, 2)), fabric=fabrics[(i + 1) % 2])
        for i in range(len(block.columns))
    ]
    return replace(block, fabric_at=tuple(spots))


def exercise_plan(exercise: Exercise, project: Project) -> BlockPlan:
    """An exercise planned as a block of its own, on the lightest and the darkest fabric of the
    project, with its tools; nothing is trimmed, as that would hide what the seam takes."""
    fabrics = sorted(project.fabrics, key=lambda fabric: -lightness(fabric.colour))
    ids = (fabrics[0].id, fabrics[-1].id) if fabrics else ("", "")
    measure = replace(project.measure, style="exact")
    block = exercise_block(exercise, measure.system.name, ids)
    cutting = project.cutting and replace(project.cutting, begun=())
    alone = replace(
        project, measure=measure, blocks=(block,), quilt=None, made=(), log=(), cutting=cutting,
        pressing=None,
    )  # fmt: skip
    return plan_block(alone, block)


def planned_size(exercise: Exercise, measure: Measure) -> Pair:
    """What it should measure, unfinished, cut at the ruler's marks."""
    return _planned(exercise, measure.system.name, measure.seam, measure.ruler)


@memo(64)
def _planned(exercise: Exercise, system: SystemName, seam: Exact, ruler: Exact) -> Pair:
    measure = Measure(system_name=system, seam=seam, ruler=ruler)
    return exercise_plan(exercise, Project(measure=measure)).made_size


@memo(64)
def exercise_sides(exercise: Exercise, system: SystemName) -> tuple[Crossings, Crossings]:
    """What its seams take of its width and height."""
    block = exercise_block(exercise, system)
    drawn = draft(block)
    per_inch = 1.0 if system == "inch" else 2.54
    return crossings(drawn, break_down(drawn), long=LONG * per_inch)
