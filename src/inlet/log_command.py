"""``inlet log``: what is done, how far the work is, what comes next, and the log written to."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

from inlet import terminal
from inlet.command_inputs import work_asked
from inlet.core.bench import (
    ANSWER_WORDS,
    OVERVIEW_HEAD,
    QUICK,
    MadeThing,
    Plan,
    Thing,
    date_typed,
    diary_lines,
    end_text,
    jobs,
    kit,
    kit_lines,
    log_lines,
    made_effects,
    made_of,
    made_things,
    measured_lines,
    minutes_typed,
    number_done,
    pace_text,
    progress,
    progress_lines,
    quick_lines,
    share_done,
    sizes_typed,
    step_lines,
    things_of,
    today,
    today_lines,
    uneven_text,
    unmeasured_text,
    used_lines,
    with_measured,
    with_note,
    with_tick,
    with_time,
    with_unpicked,
)
from inlet.core.hand import hand_lines, learn_hand, times_lines, trim_lines
from inlet.core.numbers import NumberError
from inlet.core.plan import QuiltPlan
from inlet.core.project import Bench, MadeAnswer, Project, Rates, replace
from inlet.files.photos import keep_photo, take_along
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import load, save, why_not_kept
from inlet.option_types import whole_copies


def add_options(parser: argparse.ArgumentParser) -> None:
    add = parser.add_argument
    add("--block", metavar="ID", help="steps of a block, not of the quilt")
    add("--copies", type=whole_copies, default=1, metavar="N", help="of the block")
    add("--done", metavar="STEP", help="a step was done: Make Sluice A")
    add("--part", metavar="PART", default="", help="with --done: a part of it: sew, press")
    add("--unpicked", metavar="STEP", help="what a step made was unpicked")
    add("--measured", metavar="STEP", help="what some of what a step makes measured")
    add("--size", metavar="SIZES", help='with --measured: "3 3/8", "6 of 3 3/8, 2 of 3 7/16"')
    add("--answer", choices=sorted(ANSWER_WORDS), help="to it: cut the rest to match (usual) …")
    add("--made", action="store_true", help="what was measured, and what is done about it")
    add("--number", type=whole_copies, metavar="N", help="so many times, else all it takes")
    add("--took", metavar="TIME", help="how long it took: 25, 1 h 20, 19:30-20:15")
    add("--note", metavar="TEXT", help="write something down; with --unpicked: why")
    add("--photo", metavar="FILE", help="keep a photograph beside the project written")
    add("--wish", metavar="DAY", help="when all is to be done: 2026-12-20; none: no day")
    add("--entries", action="store_true", help="what was logged, line by line")
    add("--steps", action="store_true", help="what is cut, sewn, pressed, trimmed of each step")
    add("--diary", action="store_true", help="what was logged, day by day")
    add("--hand", action="store_true", help="your seam by measured sizes, minutes by timings")
    add("--use-rates", action="store_true", help="what the timings say becomes your rates")
    add("--today", action="store_true", help="what is next, for the time there is")
    add("--minutes", type=whole_copies, metavar="N", help="with --today: the time there is")
    add("--kit", type=whole_copies, metavar="N", help="what to take along for N steps")
    add("-o", "--output", metavar="PROJECT", help="write it with what is logged")


def run(options: argparse.Namespace) -> int:
    """Say how far the work is, or what comes next, once what is asked for is logged; write the
    project where that is asked for. Raises ``FileProblem``."""
    before = load(options.file)
    plan = _plan(before, options)
    project = _logged(before, plan, options)
    if options.use_rates:
        project = _with_rates(project, plan)
        plan = _plan(project, options)
    fault = why_not_kept(project, before)
    if fault:
        raise FileProblem(f"inlet: {fault}")
    terminal.say("\n".join(_told(project, plan, options)))
    if options.output:
        save(project, Path(options.output))
        names = [entry.photo for entry in project.log if entry.photo]
        take_along(names, Path(options.file), Path(options.output))
    return 0


def _told(project: Project, plan: Plan, options: argparse.Namespace) -> Iterator[str]:
    if options.entries:
        lines = log_lines(project.log, project.measure)
        yield from ("  ".join(filter(None, line)) for line in lines[1:])
    elif options.made:
        yield from measured_lines(project.made, project.measure) or ["Nothing is measured yet."]
    elif options.measured:
        yield from _effects(project, plan, options.measured)
    elif options.hand:
        yield from _of_hand(project, plan)
    elif options.diary:
        yield from diary_lines(project.log, project.measure)
    elif options.kit:
        yield from kit_lines(kit(jobs(plan, project), plan, project, options.kit))
    elif options.today:
        yield from _next(project, plan, options.minutes)
    elif options.steps:
        for line in (OVERVIEW_HEAD, *(s.cells for s in step_lines(jobs(plan, project), project))):
            yield "  ".join(cell or "-" for cell in line)
    else:
        yield from progress_lines(project.log, things_of(plan), project.measure)


def _of_hand(project: Project, plan: Plan) -> Iterator[str]:
    """What the measured sizes say of the maker's seam, and the timings of their minutes."""
    hand = learn_hand(plan, project)
    yield from hand_lines(hand.seams, hand.measures, project)
    yield from trim_lines(hand.trims, project.measure)
    yield from times_lines(hand.times, project.rates or Rates(), project.measure)


def _with_rates(project: Project, plan: Plan) -> Project:
    """The project with the rates that its timings say; as it is where they say the same."""
    rates = learn_hand(plan, project).rates
    return project if rates == (project.rates or Rates()) else replace(project, rates=rates)


def _next(project: Project, plan: Plan, minutes: int | None) -> Iterator[str]:
    """Today's list, what is quickly done, when it is done, what is used."""
    day = datetime.now().date().isoformat()
    all_jobs = jobs(plan, project)
    there = minutes or (project.rates or Rates()).sitting
    listed = today(all_jobs, project, there, day)
    yield from today_lines(listed)
    yield f"In the next {QUICK} minutes:"
    yield from (f"  {line}" for line in quick_lines(all_jobs, project, listed))
    yield f"{int(100 * share_done(all_jobs))} % is done. {end_text(project, listed, day)}"
    yield from filter(None, [pace_text(listed.pace)])
    yield from used_lines(all_jobs, plan, project)


def _effects(project: Project, plan: Plan, name: str) -> Iterator[str]:
    """Each answer to what was measured, with what comes of it; that in use is marked."""
    of = _measurable(plan, name)
    made = made_of(project, of.thing)
    assert made is not None, "it was just measured"
    yield uneven_text(made, of.planned, project.measure)
    yield from filter(None, [unmeasured_text(made_things(plan), project)])
    for effect in made_effects(project, made, of.block, of.whole):
        used = " (in use)" if effect.answer == made.answer else ""
        yield f"{ANSWER_WORDS[effect.answer]}{used}:"
        yield from (f"  {line}" for line in effect.lines)


def _measurable(plan: Plan, name: str) -> MadeThing:
    """The unit or block that a step makes. Raises ``FileProblem``."""
    thing = _named(tuple(m.thing for m in made_things(plan)), name, "--measured")
    return next(m for m in made_things(plan) if m.thing == thing)


def _with_size(project: Project, plan: Plan, options: argparse.Namespace, at: str) -> Project:
    """The project with what was measured. Raises ``FileProblem``."""
    of = _measurable(plan, options.measured)
    many = options.number or number_done(project.log, of.thing) or of.thing.times
    try:
        sizes = sizes_typed(options.size or "", of.thing, many, project.measure)
    except (NumberError, ValueError) as why:
        raise FileProblem(f"inlet: --size: {why}") from None
    answer: MadeAnswer = options.answer or "match"
    return with_measured(project, of.thing, sizes, answer, at, of.whole_of)


def _plan(project: Project, options: argparse.Namespace) -> Plan:
    """The plan that is asked about: of the quilt, or of a block."""
    plan = work_asked(project, options.block, options.copies, options.file)
    asks_jobs = options.today or options.kit or options.steps or options.hand or options.use_rates
    if isinstance(plan, QuiltPlan) and asks_jobs:
        _ = plan.fabric_plans.best
    return plan


def _logged(project: Project, plan: Plan, options: argparse.Namespace) -> Project:
    """The project with what the options say was done. Raises ``FileProblem``."""
    at = datetime.now().isoformat(timespec="minutes")
    number = options.number
    try:
        minutes = minutes_typed(options.took) if options.took else None
        if options.wish is not None:
            day = None if options.wish == "none" else date_typed(options.wish)
            bench = replace(project.bench or Bench(), finish=day.isoformat() if day else "")
            project = replace(project, bench=bench)
    except ValueError as why:
        raise FileProblem(f"inlet: {why}") from None
    if options.done:
        thing = _named(_things(plan, options.part), options.done, "--done")
        if options.part and options.part not in thing.parts:
            parts = ", ".join(thing.parts) or "none that are ticked one by one"
            raise FileProblem(f"inlet: --part: {thing.name} has these parts: {parts}")
        progressed = progress(project.log, things_of(plan))
        done = progressed.done.get(thing.name, 0)
        if options.part:
            done = progressed.through(thing, options.part)
        return with_tick(project, thing, done, number or thing.times, at, options.part, minutes)
    if options.unpicked:
        thing = _named(things_of(plan), options.unpicked, "--unpicked")
        there = progress(project.log, things_of(plan)).done.get(thing.name, 0)
        return with_unpicked(project, thing, min(number or there, there), options.note or "", at)
    if options.measured:
        return _with_size(project, plan, options, at)
    if options.photo:
        target = Path(options.output or options.file)
        kept = keep_photo(options.photo, target, at.partition("T")[0])
        return with_note(project, options.note or "", at, photo=kept)
    if options.note:
        return with_note(project, options.note, at)
    return with_time(project, minutes, at) if minutes is not None else project


def _things(plan: Plan, part: str) -> tuple[Thing, ...]:
    """What a plan makes; with the parts of its steps, which take the fabric laid out, where one is
    asked for."""
    if part and isinstance(plan, QuiltPlan):
        _ = plan.fabric_plans.at_once
    return things_of(plan)


def _named(things: tuple[Thing, ...], name: str, option: str) -> Thing:
    """The step of a name, in any case of its letters. Raises ``FileProblem``."""
    thing = next((t for t in things if t.name.casefold() == name.casefold()), None)
    if thing is None:
        known = ", ".join(t.name for t in things)
        raise FileProblem(f"inlet: {option}: no step has the name {name!r}; there are: {known}")
    return thing
