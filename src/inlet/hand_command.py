"""``inlet forecast`` and ``inlet simulate``: what a hand will do, and a simulated maker."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from datetime import date, datetime
from pathlib import Path

from inlet import terminal
from inlet.command_inputs import work_asked
from inlet.core.bench import Plan
from inlet.core.hand import (
    EXERCISES,
    NextExercise,
    coming_exercise,
    exercise_named,
    exercise_plan,
    practised,
    progress_text,
    result_text,
    with_practice,
)
from inlet.core.numbers import NumberError
from inlet.core.plan import QuiltPlan
from inlet.core.project import Project
from inlet.core.tolerance import (
    HANDS,
    OWN,
    SewingHand,
    Watched,
    advice_lines,
    advised,
    block_model,
    forecast,
    forecast_lines,
    hand_fault,
    quilt_forecast,
    quilt_lines,
    risk_line,
    shares,
    simulated,
    slips_text,
    whose_hand,
)
from inlet.files.hand_file import load_hand
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import load, save, why_not_kept
from inlet.files.text.plan_text import plan_text
from inlet.option_types import whole_copies, whole_number

MOST_SEWINGS = 100_000
MOST_SEED = 10**9


def _sewings(text: str) -> int:
    return whole_number(text, 1, MOST_SEWINGS)


def _seed(text: str) -> int:
    return whole_number(text, 0, MOST_SEED)


def add_forecast_options(parser: argparse.ArgumentParser) -> None:
    add = parser.add_argument
    add("--block", metavar="ID", help="of a block, not of the quilt")
    whose = f"{', '.join(HANDS)} or a FILE, docs/hand-format.md; else the hand in the log"
    add("--hand", metavar="HAND", help=whose)
    add("--advice", action="store_true", help="what would help, worked out and ranked")
    add("--sewings", type=_sewings, default=2000, metavar="N", help="simulated, else 2000")
    add("--seed", type=_seed, default=1, metavar="N", help="of the simulation, else 1")


def add_simulate_options(parser: argparse.ArgumentParser) -> None:
    add = parser.add_argument
    add("--block", metavar="ID", help="make a block, not the quilt")
    add("--copies", type=whole_copies, default=1, metavar="N", help="of the block")
    whose = f"{', '.join(HANDS)} or a FILE, docs/hand-format.md; else steady"
    add("--hand", metavar="HAND", default="steady", help=whose)
    add("--seed", type=_seed, default=1, metavar="N", help="another one makes it otherwise")
    add("--day", metavar="DAY", help="the first evening: 2026-12-01, else today")
    add("-o", "--output", metavar="PROJECT", help="write it with the log")


def run_forecast(options: argparse.Namespace) -> int:
    """Say what a hand will do to a block or to the quilt. Raises ``FileProblem``."""
    project = load(options.file)
    plan = work_asked(project, options.block, 1, options.file)
    hand, whose = _asked_hand(project, plan, options.hand)
    terminal.say("\n".join(_told(project, plan, hand, whose, options)))
    return 0


def _told(
    project: Project, plan: Plan, hand: SewingHand, whose: str, options: argparse.Namespace
) -> Iterator[str]:
    if isinstance(plan, QuiltPlan):
        result = quilt_forecast(plan, hand, options.sewings, options.seed)
        yield from quilt_lines(result, project.measure, whose)
        return
    model = block_model(plan.asked)
    if model is None:
        raise FileProblem(f"inlet: {plan.asked.block.title} has no seams, or cannot be sewn yet")
    watched = Watched(model)
    result_of_block = forecast(watched, hand, options.sewings, options.seed)
    yield from filter(None, [risk_line(result_of_block, whose)])
    yield from forecast_lines(result_of_block, shares(watched, hand), project.measure)
    if options.advice:
        yield from advice_lines(advised(plan.asked, hand), result_of_block)


def run_simulate(options: argparse.Namespace) -> int:
    """Make a project with a simulated maker, and write it with the log. Raises
    ``FileProblem``."""
    before = load(options.file)
    plan = work_asked(before, options.block, options.copies, options.file)
    hand, _ = _asked_hand(before, plan, options.hand)
    _ = plan.fabric_plans.best
    day = options.day or date.today().isoformat()
    try:
        date.fromisoformat(day)
    except ValueError:
        raise FileProblem(f"inlet: --day: type a day as 2026-12-01, not {day!r}") from None
    result = simulated(plan, before, hand, options.seed, day)
    fault = why_not_kept(result.project, before)
    if fault:
        raise FileProblem(f"inlet: {fault}")
    entries = len(result.project.log) - len(before.log)
    terminal.say(f"{entries} entries of the log. {slips_text(result.slips)}")
    if options.output:
        save(result.project, Path(options.output))
    return 0


def add_practise_options(parser: argparse.ArgumentParser) -> None:
    add = parser.add_argument
    names = ", ".join(exercise.id for exercise in EXERCISES)
    add("--exercise", metavar="NAME", help=f"{names}; else the one that comes next")
    add("--measured", metavar="SIZE", help='what it measured: "3 7/16 x 6 1/2"')
    add("-o", "--output", metavar="PROJECT", help="write it with what was measured")


def run_practise(options: argparse.Namespace) -> int:
    """Say the exercise that comes next, or what one measured says; write the project where that is
    asked for. Raises ``FileProblem``."""
    project = before = load(options.file)
    coming = _coming(project, options.file)
    exercise = coming.exercise
    if options.exercise:
        named = exercise_named(options.exercise)
        if named is None:
            names = ", ".join(each.id for each in EXERCISES)
            raise FileProblem(f"inlet: --exercise: {options.exercise!r} is none of {names}")
        exercise = named
    if options.measured:
        now = datetime.now().isoformat(timespec="minutes")
        try:
            project, result = with_practice(project, exercise, options.measured, now)
        except (NumberError, ValueError) as why:
            raise FileProblem(f"inlet: --measured: {why}") from None
        fault = why_not_kept(project, before)
        if fault:
            raise FileProblem(f"inlet: {fault}")
        terminal.say(result_text(result, project.measure))
        of_exercise = [r for r in practised(project) if r.exercise == exercise]
        terminal.say(progress_text(of_exercise, project.measure))
        coming = _coming(project, options.file)
        terminal.say(f"Next: {coming.exercise.title}. {coming.why}")
    else:
        reason = coming.why if exercise == coming.exercise else ""
        terminal.say(" ".join(filter(None, [f"{exercise.title}.", exercise.why, reason])))
        terminal.say(plan_text(exercise_plan(exercise, project)))
    if options.output:
        save(project, Path(options.output))
    return 0


def _coming(project: Project, file: str) -> NextExercise:
    """The exercise that comes next, by what is known of the hand."""
    has_work = project.quilt is not None or bool(project.blocks)
    return coming_exercise(work_asked(project, None, 1, file) if has_work else None, project)


def _asked_hand(project: Project, plan: Plan, name: str | None) -> tuple[SewingHand, str]:
    """The hand that is asked for, and whose seam it is. Raises ``FileProblem``."""
    if name is None or name in HANDS:
        hand, whose = whose_hand(plan, project, name or OWN)
    else:
        hand, whose = load_hand(name, project.measure), "this hand"
    fault = hand_fault(hand, plan)
    if fault:
        raise FileProblem(f"inlet: {fault}")
    return hand, whose
