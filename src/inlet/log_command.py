"""``inlet log``: what is done, how far the work is, and the log written to."""

from __future__ import annotations

import argparse
from datetime import datetime
from pathlib import Path

from inlet import terminal
from inlet.core.bench import (
    Log,
    Thing,
    block_things,
    log_lines,
    noted,
    progress,
    progress_lines,
    quilt_things,
    ticked,
    unpicked,
)
from inlet.core.plan import plan_block, plan_quilt
from inlet.core.project import Project, replace
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import load, save, why_not_kept
from inlet.option_types import whole_copies


def add_options(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--block", metavar="ID", help="steps of a block, not of the quilt")
    parser.add_argument("--copies", type=whole_copies, default=1, metavar="N", help="of the block")
    parser.add_argument("--done", metavar="STEP", help="a step was done: Make Sluice A")
    parser.add_argument("--unpicked", metavar="STEP", help="what a step made was unpicked")
    parser.add_argument(
        "--number", type=whole_copies, metavar="N", help="so many times, else all it takes"
    )
    parser.add_argument("--note", metavar="TEXT", help="write something down; with --unpicked: why")
    parser.add_argument("--entries", action="store_true", help="what was logged, line by line")
    parser.add_argument("-o", "--output", metavar="PROJECT", help="write it with what is logged")


def run(options: argparse.Namespace) -> int:
    """Say how far the work is, once what is asked for is logged; write the project where that is
    asked for. Raises ``FileProblem``."""
    project = load(options.file)
    things = _things(project, options)
    before = project
    project = replace(project, log=_logged(project, things, options))
    fault = why_not_kept(project, before)
    if fault:
        raise FileProblem(f"inlet: {fault}")
    if options.entries:
        lines = log_lines(project.log, project.measure)
        terminal.say("\n".join("  ".join(filter(None, line)) for line in lines[1:]))
    else:
        terminal.say("\n".join(progress_lines(project.log, things, project.measure)))
    if options.output:
        save(project, Path(options.output))
    return 0


def _things(project: Project, options: argparse.Namespace) -> tuple[Thing, ...]:
    """What the steps make that are asked about: of the quilt, or of a block."""
    if project.quilt is not None and not options.block:
        return quilt_things(plan_quilt(project).steps)
    wanted = options.block or (project.blocks[0].id if project.blocks else "")
    block = next((b for b in project.blocks if b.id == wanted), None)
    if block is None:
        raise FileProblem(f"{Path(options.file).name}: no block has the id {wanted!r}")
    return block_things(plan_block(project, block, options.copies))


def _logged(project: Project, things: tuple[Thing, ...], options: argparse.Namespace) -> Log:
    log, at = project.log, datetime.now().isoformat(timespec="minutes")
    done = progress(log, things).done
    if options.done:
        thing = _named(things, options.done, "--done")
        log = ticked(log, thing, done.get(thing.name, 0), options.number or thing.times, at)
    elif options.unpicked:
        thing = _named(things, options.unpicked, "--unpicked")
        there = done.get(thing.name, 0)
        log = unpicked(log, thing, min(options.number or there, there), options.note or "", at)
    elif options.note:
        log = noted(log, options.note, at)
    return log


def _named(things: tuple[Thing, ...], name: str, option: str) -> Thing:
    """The step of a name, in any case of its letters. Raises ``FileProblem``."""
    thing = next((t for t in things if t.name.casefold() == name.casefold()), None)
    if thing is None:
        known = ", ".join(t.name for t in things)
        raise FileProblem(f"inlet: {option}: no step has the name {name!r}; there are: {known}")
    return thing
