"""A plan as text that a person reads in a terminal."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.cutlist import PlannedSet, sizes_from
from inlet.core.fitting import misfit_text
from inlet.core.layout import (
    FabricPlan,
    fabric_text,
    finished_text,
    layers_text,
    line_text,
    lines_of,
    piece_names,
    set_lines,
    set_name,
    strip_room,
    strips_text,
    strips_to_cut,
    tools_for,
)
from inlet.core.piecing import advice_lines, effect_text, seam_test_text
from inlet.core.plan import BlockPlan
from inlet.core.planning import (
    Stock,
    apart_text,
    kind_words,
    method_words,
    offer_text,
    piece_text,
    spare_text,
    table,
    times_words,
)
from inlet.core.pressing import pressing_lines
from inlet.core.project import Project, SeamTest
from inlet.core.remake import nesting_text
from inlet.core.schedule import seams_text, sitting_lines, thread_text
from inlet.core.templates import angled_lines
from inlet.core.words import fabric_name, length_text, measured_text, size_text


def plan_text(plan: BlockPlan) -> str:
    """The plan in lines: units, what is over, steps, sittings, advice, problems."""
    return "\n".join([*_head_lines(plan), *_step_lines(plan), *_end_lines(plan)])


def _head_lines(plan: BlockPlan) -> Iterator[str]:
    """The block and its units, each with what to cut."""
    measure = plan.measure
    asked = plan.asked
    yield (
        f"{asked.block.title}: finished {size_text(asked.block.finished, measure)}, "
        f"unfinished {size_text(asked.unfinished, measure)}"
    )
    for start in (plan, *plan.then_sewn)[:-1]:
        yield (
            f"  made from {start.copies} × {start.block.title}: unfinished "
            f"{size_text(start.unfinished, measure)}"
        )
    yield from (f"  {text}" for text in fit_lines(plan))
    for unit in plan.units:
        yield (
            f"  {unit.unit.label}: {unit.count} × {unit.unit.kind}, unfinished "
            f"{size_text(unit.unfinished, measure)}, {unit.in_use.name}: "
            f"{times_words(unit.in_use)}"
        )
        _, best, why = plan.compared[unit.unit.label]
        if best.plan.name != unit.in_use.name:
            yield f"      better {best.plan.name}: {why}"
        for cut in unit.in_use.pieces:
            fabric = fabric_name(plan.project, cut.piece.fabric)
            apart = f", {words}" if (words := apart_text(cut)) else ""
            if cut.number:
                yield f"      cut {cut.number} × {piece_text(cut, measure)} of {fabric}{apart}"
            if cut.spare:
                yield f"      take {spare_text(cut, plan.project)}"
        if unit.in_use.trim_to is not None:
            yield f"      trim to {size_text(unit.in_use.trim_to, measure)}"
    for needed in plan.fabric_plans.best:
        if strips := strips_text(needed, measure):
            yield f"  {fabric_name(plan.project, needed.fabric)}: {strips}"
    yield from (f"  {offer_text(offer, measure)}" for offer in plan.offers)
    for stack in plan.cuts:
        lines = angled_lines(stack, measure, strip_room(plan.project, stack.fabric))
        yield from (f"  {stack.label}: {line}" for line in lines)
    yield from (f"  {text}" for text in fabric_lines(plan.fabric_plans.best, plan.project))


def fabric_lines(fabric_plans: Sequence[FabricPlan], project: Project) -> Iterator[str]:
    """Every piece of fabric to lay down, with its cuts in their order."""
    measure = project.measure
    for layout in fabric_plans:
        for strip in strips_to_cut(layout, project):
            of = f" of {strip.of}" if strip.of else ""
            name = fabric_name(project, layout.fabric)
            many = "1 strip" if strip.many == 1 else f"{strip.many} strips"
            yield f"{name}: {many} {strip.wide} wide{of}, cut into {strip.into}"
        for laid, name in zip(layout.laid, piece_names(layout, project), strict=True):
            lies = layers_text(laid)
            yield f"{name}, {fabric_text(laid, measure).lower()}, {lies}:"
            for i, line in enumerate(lines_of(laid, project), 1):
                off = finished_text(line.finishes)
                words = f" Comes off: {off}." if off else ""
                yield f"    {i}. {line_text(line, tools_for(laid, project), measure)}{words}"


def fit_lines(plan: BlockPlan) -> Iterator[str]:
    """What is done so that the pieces fit as they are cut, and what else could be; nothing where
    they fit."""
    if plan.fit is None or not plan.answers:
        return
    seams_fit = plan.fitting is not None and plan.fitting.seams_fit
    mark = length_text(plan.measure.mark, plan.measure)
    yield f"As cut on the {mark} marks {misfit_text(seams_fit)}."
    for answer in plan.answers:
        yield f"{'>' if answer.remedy == plan.fit.remedy else '-'} {answer.text}"


def _step_lines(plan: BlockPlan) -> Iterator[str]:
    for step in plan.steps:
        yield f"  {step.number}. {step.makes} × {step.times}: {step.text}"
        if pressed := plan.sewn_in(step).press(step):
            yield f"      {pressed.text}"
        yield from (f"      {note}" for note in step.notes)
        if step.measures:
            yield f"      should measure {measured_text(step.measures, plan.measure)}"


def _end_lines(plan: BlockPlan) -> Iterator[str]:
    for sewn in (plan, *plan.then_sewn):
        if sewn.pressing.best is not None:
            of = f"{sewn.block.title}: " if plan.then_sewn else ""
            yield from (f"  {of}{text}" for text in pressing_lines(sewn.pressing.best))
    sliced = plan.asked.sliced
    if plan.nesting is not None and sliced is not None:
        yield f"  {nesting_text(plan.nesting, sliced.how)}"
    yield from (f"  {text}" for text in _work_lines(plan))
    yield from (f"  {text}" for text in advice_lines(plan.advice, plan.project))
    yield from (f"  {problem.level}: {problem.text}" for problem in plan.problems)
    yield (
        "Checked: sewn up, the plan gives the drawing exactly."
        if plan.resewn
        else "Not ready to sew."
    )


def _work_lines(plan: BlockPlan) -> Iterator[str]:
    """The seams counted, the thread, and the sittings."""
    if plan.assembly is None:
        return
    for sewn in (plan, *plan.then_sewn):
        of = f"{sewn.block.title}: " if plan.then_sewn else ""
        yield f"{of}{seams_text(sewn.seams)}"
    yield thread_text(plan.work.thread, plan.measure)
    for head, batches in sitting_lines(plan.work.sittings, plan.rates, plan.measure):
        yield f"{head}:"
        yield from (f"  {line}" for line in batches)


def compared_lines(plan: BlockPlan) -> Iterator[str]:
    """Each unit's methods in columns, the one to take marked, and why."""
    for unit in plan.units:
        costs, best, why = plan.compared[unit.unit.label]
        hands = " and ".join(f"{number} {label}" for label, number in unit.hands.items())
        yield f"{unit.unit.label}: {kind_words(unit.unit.kind)}, {hands}"
        rows = table(costs)
        widths = [max(map(len, column)) for column in zip(*rows, strict=True)]
        for row, cost in zip(rows, (None, *costs), strict=True):
            first, *rest = (text.ljust(w) for text, w in zip(row, widths, strict=True))
            yield f"  {'*' if cost is best else ' '} {first}  {'  '.join(rest)}".rstrip()
        yield f"    {method_words(best.plan.name)}: {why}"


def stock_lines(plan: BlockPlan, stock: Sequence[Stock]) -> Iterator[str]:
    """The sizes the block can be made at from fabric cut already."""
    for each in stock:
        for size in sizes_from(each, plan.units, plan.block, plan.measure):
            rest = f", {', '.join(size.others)} from wider fabric" if size.others else ""
            yield (
                f"  from {length_text(each.width, plan.measure)} {each.shape}s: "
                f"{size_text(size.finished, plan.measure)} finished{rest}"
            )


def seam_test_lines(plan: BlockPlan, seam_test: SeamTest) -> Iterator[str]:
    """What a seam allowance test says, and what such a seam does to the block."""
    test, effect = plan.tested(seam_test)
    yield from seam_test_text(test, plan.measure)
    yield from effect_text(effect, test.off, plan.measure)


def sets_text(sets: Sequence[PlannedSet], project: Project) -> str:
    """Strip sets, each with what to sew and cut; a sentence where there are none."""
    lines = [
        "\n  ".join([set_name(planned_set, project), *set_lines(planned_set, project)])
        for planned_set in sets
    ]
    return "\n".join(lines) or "Nothing in this project can be cut from strip sets."
