"""The plan of a quilt as text."""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.layout import buying_text, grain_texts
from inlet.core.numbers import Exact
from inlet.core.plan import (
    QuiltPlan,
    alike_rows,
    answer_text,
    hands_lines,
    labels_text,
    quilt_answers,
    row_length_text,
    work_text,
)
from inlet.core.schedule import sitting_lines
from inlet.core.setting import quilted_text, quilting_words
from inlet.core.table import diagonal_text, lean_text
from inlet.core.templates import stack_shape
from inlet.core.words import fabric_name, length_text, measured_text, near_text, size_text
from inlet.files.text.plan_text import fabric_lines


def quilt_text(plan: QuiltPlan) -> str:
    """The quilt in lines: sizes, blocks, what is cut, rows, what is done."""
    return "\n".join(_lines(plan))


def _lines(plan: QuiltPlan) -> Iterator[str]:
    measure, project = plan.measure, plan.project
    for problem in plan.problems:
        yield f"{problem.level}: {problem.text}"
    if not plan.top.rows:
        return
    yield f"{project.name or 'Quilt'}: {near_text(plan.size, measure)} finished"
    if plan.top.borders:
        yield f"  {near_text(plan.top.middle, measure)} inside the borders"
    yield "Blocks"
    for block in plan.blocks:
        raw = measured_text(plan.comes_to(block.block.id), measure)
        size = size_text(block.block.finished, measure)
        yield f"  {block.number} × {block.name}, {size}: unfinished {raw}"
    for answer in quilt_answers(plan):
        yield f"  {answer_text(answer, measure)}"
    if plan.batch.made_as:
        yield "  made together: " + ", ".join(
            f"{one} with {other}" for one, other in plan.batch.made_as.items()
        )
    yield from _setting_lines(plan)
    yield "Cut"
    yield from _cut_lines(plan)
    yield "Fabric"
    for fabric_plan in plan.fabric_plans.best:
        yield f"  {fabric_name(project, fabric_plan.fabric)}: {buying_text(fabric_plan, measure)}"
    yield from (f"  {line}" for line in fabric_lines(plan.fabric_plans.best, project))
    for backing_way in plan.backings:
        over = near_text(backing_way.left, measure) if backing_way.left[0] > 0 else "nothing"
        panel = near_text((backing_way.panel, backing_way.panel), measure)
        widths = f"{backing_way.widths} × {panel}"
        yield f"  backing, seams {backing_way.seam}: {widths}; left over {over}"
    work = plan.work
    yield f"{work_text(work, measure)}."
    for head, lines in sitting_lines(work.sittings, plan.rates, measure):
        yield f"  {head}:"
        yield from (f"    {line}" for line in lines)
    for asked in plan.quilt.quilting:
        yield f"Quilting: {quilting_words(asked, project)}"
    if plan.quilt.quilting:
        quilted = plan.quilted
        yield f"  {quilted_text(quilted.length, quilted.thread, measure)}"
    yield from hands_lines(plan)
    yield "Rows"
    for alike in alike_rows(plan.rows):
        card = alike[0]
        pressed = f" (press {card.pressed})" if card.pressed else ""
        length = row_length_text(card, plan.quilt, measure)
        check = f" [{length}]" if length else ""
        yield f"  {labels_text(alike)}: {'; '.join(card.items)}{pressed}{check}"
    yield "Then"
    for i, step in enumerate(plan.steps, 1):
        check = f" [{step.measures}]" if step.measures else ""
        yield f"  {i}. {step.title}: {step.text}{check}"


def _cut_lines(plan: QuiltPlan) -> Iterator[str]:
    """What is cut, and which way long pieces lie."""
    measure, project = plan.measure, plan.project
    grain = grain_texts(plan.fabric_plans.best, plan.cuts, measure)
    for cut in plan.cuts:
        yield (
            f"  {cut.number} × {size_text(cut.cut, measure)} {stack_shape(cut, measure)} of "
            f"{fabric_name(project, cut.fabric)}: {', '.join(cut.labels)}"
            f"{f', cut {cut.diagonal}' if cut.diagonal else ''}"
            f"{f', {grain[cut.label]}' if cut.label in grain else ''}"
        )


def _setting_lines(plan: QuiltPlan) -> Iterator[str]:
    """The triangles at the edge of a quilt on point, and the squares they are cut from."""
    measure = plan.measure
    if plan.triangles:
        yield "Setting"
        for triangles in plan.triangles:
            way = diagonal_text("twice" if triangles.twice else "once")
            leans = [
                f"{number}{lean_text(lean, square=True).removeprefix(',')}"
                for lean, number in triangles.squares_by_lean
                if lean
            ]
            yield (
                f"  {triangles.triangles} {triangles.kind} triangles: {triangles.squares} squares "
                f"{length_text(triangles.cut, measure)} (exact {_exact(triangles.exact)}), "
                f"cut {way}{': ' if leans else ''}{', '.join(leans)}"
            )


def _exact(length: Exact) -> str:
    return f"{float(length):.4f}"
