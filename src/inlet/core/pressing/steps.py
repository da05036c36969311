"""How the seams of a step are pressed: in words, and as moves at the iron with their pictures."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.assembly import Faces, Join, faces_of
from inlet.core.draft import points_of
from inlet.core.geometry import Point
from inlet.core.numbers import Fraction
from inlet.core.piecing import Step, raw_sheet, run_lengths, turned_over
from inlet.core.pressing.pressing_plan import Met, PressingPlan, Stretch
from inlet.core.pressing.words import heading
from inlet.core.project import Project
from inlet.core.table import DrawnLine, Move
from inlet.core.units import Part, walk
from inlet.core.words import fabric_name

MOST_TOLD = 4
"""Ways of seams told one by one in a sentence; more are left to the arrows."""
ARROW = 2
"""Allowances that an arrow is long."""


class StepPress(NamedTuple):
    """What is said of pressing a step, and shown of it."""

    text: str
    moves: tuple[Move, ...]


class _PressWay(NamedTuple):
    """Where one seam of a step goes, in words, and its stretches, as far as they go one way."""

    words: str
    runs: tuple[tuple[Stretch, ...], ...]


def step_press(plan: PressingPlan, step: Step, project: Project) -> StepPress | None:
    """How the seams of a step are pressed; None where it has none of its own."""
    if step.cuts:
        return None
    joins = tuple(step_joins(step, step.part))
    if not joins:
        return None
    ways = [_way(plan, step, join, project) for join in joins]
    spun = [
        met for met in plan.junctions
        if met.state == "whirled"
        and met.junction.spin
        and met.junction.spin.arms[0].join in joins
    ]  # fmt: skip
    text = _sentence(plan, ways) + _second(plan, step, project)
    if spun:
        text += " " + _spin_text(len(spun))
    if any(s.span in plan.again for way in ways for run in way.runs for s in run):
        text += " What came out of its run pressed the other way is pressed again."
    return StepPress(text, tuple(_moves(plan, step, joins, ways, spun, text)))


def step_joins(step: Step, new_part: Part) -> Iterator[Join]:
    """The seams sewn in a step where it makes a part: of a unit all but those of units nested in
    it."""
    if step.join is not None and new_part is step.part:
        yield step.join
        yield from (finish.join for finish in step.join.finishes)
    elif step.unit is None:
        yield from new_part.joins
    else:
        nested = {p.faces for inner in new_part.nested for p in walk(inner)}
        for part in walk(new_part):
            if part.faces not in nested:
                yield from part.joins


def _second(plan: PressingPlan, step: Step, project: Project) -> str:
    """What is pressed in a second version: how many, and how."""
    if plan.decisions.choices == ():
        return ""
    places = [p.part for p in step.unit.unit.places[1:]] if step.unit else list(step.alike)
    parts = [part for part in places if not plan.alike(step.part.faces, part.faces)]
    if not parts:
        return ""
    there = step._replace(part=parts[0])
    ways = [_way(plan, there, join, project) for join in step_joins(there, parts[0])]
    each = max(1, step.times // (len(places) + 1))
    return f" In a second version, {len(parts) * each} of them: {_sentence(plan, ways)}"


# --- words ----------------------------------------------------------------------------------------


AS_SHOWN = "as its arrows show"
FROM_THE_FRONT = ", seen from the front"


def _way(plan: PressingPlan, step: Step, join: Join, project: Project) -> _PressWay:
    """The way of a seam: one, unless it turns or is whirled."""
    runs: list[list[Stretch]] = []
    for stretch in plan.of_join[join.number]:
        now, turns = plan.toward(join, stretch.begin), join.vertices[stretch.begin] in join.pivots
        if runs and not turns and plan.toward(join, runs[-1][-1].begin) == now:
            runs[-1].append(stretch)
        else:
            runs.append([stretch])
    words = {_words(plan, step, run, project) for run in runs}
    said = words.pop() if len(words) == 1 else AS_SHOWN
    return _PressWay(said, tuple(map(tuple, runs)))


def _words(plan: PressingPlan, step: Step, run: Sequence[Stretch], project: Project) -> str:
    """Toward what a seam goes; the way on the picture where that does not tell it."""
    if run[0].toward is None:
        return "open"
    side = run[0].beside.index(run[0].toward)

    def named(face: int) -> str:
        if step.unit is None:
            return _named(step, face)
        return fabric_name(project, plan.seams.draft.patches[face].fabric)

    here, there = ({named(s.beside[k]) for s in run} for k in (side, 1 - side))
    if len(here) == 1 and not here & there and "" not in here:
        return f"toward {here.pop()}"
    return heading(plan, run[len(run) // 2])


def _named(step: Step, face: int) -> str:
    """What a step calls the part that a patch is in."""
    if step.join is not None:
        for side, name in zip(step.join.larger_first, step.needs, strict=False):
            if face in faces_of(side):
                return name
        return ""
    for part, name in zip(step.part.parts, step.needs, strict=False):
        if face in part.faces:
            return name
    return ""


def _sentence(plan: PressingPlan, ways: Sequence[_PressWay]) -> str:
    verb = "Fold" if plan.method == "end" else "Press"
    parts = list(dict.fromkeys(way.words for way in ways))
    after = "; press when the block is done" if plan.method == "end" else ""
    if any(words not in ("open", AS_SHOWN) and "toward" not in words for words in parts):
        after = FROM_THE_FRONT + after
    number = len(ways)
    if len(parts) == 1:
        all_of = "" if number == 1 else "both seams " if number == 2 else f"all {number} seams "
        words = "as the arrows show" if parts == [AS_SHOWN] else parts[0]
        return f"{verb} {all_of}{words}{after}."
    if number > MOST_TOLD and len(parts) > 2:
        return f"{verb} each seam as its arrow shows{after}."
    sentences = []
    for words in parts:
        which = [str(i) for i, way in enumerate(ways, 1) if way.words == words]
        said = words.replace("its arrows", "their arrows") if len(which) > 1 else words
        sentences.append(f"seam{'s' * (len(which) > 1)} {_listed(which)} {said}")
    return f"{verb} {', '.join(sentences)}{after}."


def _listed(numbers: Sequence[str]) -> str:
    if len(numbers) > MOST_TOLD:
        return f"{run_lengths(numbers[:3])} ... {numbers[-1]}"
    return " and ".join(filter(None, [", ".join(numbers[:-1]), numbers[-1]]))


def _spin_text(number: int) -> str:
    where = "At the centre" if number == 1 else f"At the {number} crossings marked"
    return (
        f"{where} undo the stitches in the allowance back to the crossing seam, then turn all "
        "seams the same way round and press flat."
    )


# --- moves ----------------------------------------------------------------------------------------


def _moves(
    plan: PressingPlan,
    step: Step,
    joins: Sequence[Join],
    ways: Sequence[_PressWay],
    spun: Sequence[Met],
    text: str,
) -> Iterator[Move]:
    """Setting the first seam, the part on top toward which it goes; then pressing, with an arrow a
    seam."""
    draft, seam = plan.seams.draft, plan.seam
    first = ways[0]
    top = first.runs[0][0].toward
    setting = plan.method != "end" and top is not None and len(first.runs) == 1
    straight = len(joins[0].legs) == 1 and not any(c.centre for c in joins[0].curves)
    if setting and straight and not joins[0].left_open:
        side = next(s for s in joins[0].sides if top in faces_of(s))
        above = first.words.removeprefix("toward ")
        if above == first.words:
            above = "what it goes toward"
        set_ = f"Set the seam as it was sewn, {above} on top. Open it and press, do not rub."
        if _on_bias(step, joins):
            set_ += " Bias edges stretch: lift the iron and put it down."
        yield turned_over(draft, joins[0], seam, faces_of(side), set_)
    arrows = tuple(_arrow(plan, run) for way in ways for run in way.runs)
    marks = tuple(DrawnLine("whirl", met.junction.at, met.junction.at) for met in spun)
    places = points_of(draft)
    marks += tuple(DrawnLine("point", places[v], places[v]) for v in step.points)
    faces = _faces(joins)
    yield Move("press", text, raw_sheet(draft, faces, seam), (), (*arrows, *marks))


def _faces(joins: Sequence[Join]) -> Faces:
    return max((join.faces for join in joins), key=len)


def _on_bias(step: Step, joins: Sequence[Join]) -> bool:
    """Is there a bias edge at the iron: an outer edge of a unit, or a slanted or curved seam?"""
    if step.unit is not None and step.unit.in_use.method.bias:
        return True
    ends = (join.points for join in joins)
    slanted = any(p[0].x != p[-1].x and p[0].y != p[-1].y for p in ends)
    return slanted or any(curve.centre for join in joins for curve in join.curves)


def _arrow(plan: PressingPlan, run: Sequence[Stretch]) -> DrawnLine:
    """From the middle of a seam toward the side it goes; ``number`` 1 where it is open: two
    arrows."""
    stretch = run[len(run) // 2]
    (x, y), (dx, dy) = plan.middle(stretch), plan.square(stretch)
    long = (dx * dx + dy * dy) ** 0.5 or 1.0
    far = float(plan.seam) * ARROW / long
    start = Point(_near(x), _near(y))
    end = Point(_near(x + dx * far), _near(y + dy * far))
    return DrawnLine("press", start, end, int(stretch.toward is None))


def _near(x: float) -> Fraction:
    return Fraction(round(x * 1000), 1000)
