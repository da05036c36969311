"""The block as steps to follow: units first, then what they make, the whole block last."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from inlet.core.assembly import Faces, faces_of
from inlet.core.draft import Draft
from inlet.core.fitting import SizesOfParts
from inlet.core.methods import PRESS
from inlet.core.piecing.assembling import assembly_steps
from inlet.core.piecing.edge_points import EdgePoints, points_text
from inlet.core.piecing.overhang import overhangs
from inlet.core.piecing.step import Step
from inlet.core.planning import UnitPlan, made_note, move_text, over_text, upright_notes
from inlet.core.project import Measure, Project
from inlet.core.table import about, like_ones_together, seam_notes
from inlet.core.units import Part, rounds_of, walk
from inlet.core.words import fabric_name, length_text, size_text


def find_steps(
    draft: Draft,
    root: Part,
    units: Sequence[UnitPlan],
    stacks: Mapping[str, tuple[str, ...]],
    copies: int,
    project: Project,
    made_sizes: SizesOfParts,
) -> tuple[Step, ...]:
    """Steps in sewing order for ``copies`` blocks; ``stacks`` are those each unit's pieces lie in,
    by its label, ``made_sizes`` what parts measure as they are cut. What cannot be sewn (a stuck
    part) has no step; its parts have."""
    steps = unit_steps(draft, units, stacks, project, made_sizes)
    if root.kind is None:
        steps += assembly_steps(draft, root, labels_of(units), copies, made_sizes)
    return numbered(steps)


def unit_steps(
    draft: Draft,
    units: Sequence[UnitPlan],
    stacks: Mapping[str, tuple[str, ...]],
    project: Project,
    made_sizes: SizesOfParts,
) -> list[Step]:
    """A step, without its number, for every unit that has a seam, or is a panel to be trimmed."""
    return [
        _unit_step(draft, plan, stacks[plan.unit.label], project, made_sizes)
        for plan in _nested_first(units)
        if plan.is_sewn
    ]


def labels_of(units: Sequence[UnitPlan]) -> dict[Faces, str]:
    """The label of the unit that each part of the block is."""
    return {place.part.faces: plan.unit.label for plan in units for place in plan.unit.places}


def numbered(steps: Sequence[Step], first: int = 1) -> tuple[Step, ...]:
    """Steps with their numbers, from ``first`` on; one that leaves a seam open says which finishes
    it."""
    at = {step.join.number: i for i, step in enumerate(steps, first) if step.join}
    out = []
    for i, step in enumerate(steps, first):
        text = step.text
        if step.join:
            late = {end.finished_by for end in step.join.left_open}
            if waits := {at[number] for number in late if number in at}:
                text += f" Step {' and '.join(map(str, sorted(waits)))} finishes it."
        out.append(step._replace(number=i, text=text))
    return tuple(out)


def _nested_first(units: Sequence[UnitPlan]) -> list[UnitPlan]:
    """The units in their order, each after those it is built with."""
    out: dict[str, UnitPlan] = {}

    def add(plan: UnitPlan) -> None:
        for inner in plan.inside:
            add(inner)
        out.setdefault(plan.unit.label, plan)

    for plan in units:
        add(plan)
    return list(out.values())


def _unit_step(
    draft: Draft, plan: UnitPlan, stacks: Sequence[str], project: Project, made_sizes: SizesOfParts
) -> Step:
    method, measure = plan.in_use, project.measure
    moves = method.moves
    lines = [
        move_text(repeat.move.text, method, project, stacks, repeat.times)
        for repeat in like_ones_together(moves)
        if repeat.move.text not in ("", PRESS)
    ]
    text = " ".join(dict.fromkeys(lines))
    if method.trim_to and not any(m.do == "trim" for m in moves):
        text += f" Trim to {size_text(method.trim_to, measure)}."
    over = over_text(method)
    if over:
        text += f" {over}"
    points = EdgePoints(draft).of(plan.unit.part.faces)
    notes = list(dict.fromkeys(_unit_notes(draft, plan, project)))
    if points:
        notes.append(points_text(len(points), length_text(measure.seam, measure)))
    effort, number = method.method.effort, max(1, plan.count)
    return Step(
        0,
        plan.unit.label,
        plan.count,
        text,
        made_sizes.of(plan.unit.part, plan.unfinished),
        (),
        plan.unit.part,
        plan,
        notes=tuple(notes),
        points=points,
        needs=(*stacks, *(inner.unit.label for inner in plan.inside)),
        seams=round(float(effort.seams * method.runs) / number),
        length=float(effort.length) * method.runs / number,
    )


def _unit_notes(draft: Draft, plan: UnitPlan, project: Project) -> Iterator[str]:
    """What to watch for in a unit whose seams turn, stop short, are curved or end in tips; how many
    of what a star takes; the order of its strips for rounds."""
    if plan.in_use.method.by_patches:
        own_part = plan.unit.part
        within = {p.faces for nested in own_part.nested for p in walk(nested)}
        parts = (part for part in walk(own_part) if part.faces not in within)
        for join in (join for part in parts for join in part.joins):
            yield from seam_notes(join, project.measure)
    yield from upright_notes(plan, project)
    if plan.made is not None:
        yield made_note(plan.made, project.measure)
    if plan.unit.kind == "half-rectangle-triangle":
        yield from _tips_note(draft, plan.unit.part, project.measure)
    if plan.unit.kind == "eight-point-star":
        n = plan.count
        yield (
            f"In all: {4 * n} pairs of diamonds, {2 * n} halves of two pairs, then {4 * n} "
            f"triangles and {4 * n} squares to set in."
        )
    if plan.unit.kind == "rounds":
        yield rounds_text(plan.unit.part, plan, project)


def _tips_note(draft: Draft, part: Part, measure: Measure) -> Iterator[str]:
    """How two halves of a rectangle lie to be sewn: offset by what their tips differ."""
    for join in part.joins:
        one, other = map(faces_of, join.sides)
        far = max(overhangs(draft, one, other, v, float(measure.seam)) for v in join.ends)
        yield (
            f"Offset the halves: at each end one tip reaches {about(far, measure)} past the other, "
            "so that the raw edges cross exactly on the sewing line. Trim the tips once it is "
            "pressed."
        )


def rounds_text(part: Part, plan: UnitPlan, project: Project) -> str:
    """The strips of rounds about a centre as a numbered sequence, each with its fabric: the order
    in which they lie beside the machine."""
    rounds = rounds_of(part)
    assert rounds is not None, "a unit is named rounds only if it can be read so"
    fabric = dict(zip(sorted(part.faces), (f for _, f in plan.unit.picture), strict=True))
    listed = [
        f"{i} {fabric_name(project, fabric[strip.face])}"
        for i, strip in enumerate(rounds.strips, 1)
    ]
    order = ", ".join(listed)
    return f"Lay the strips beside the machine in this order, from the centre out: {order}."
