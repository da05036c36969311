"""``inlet remake --corners``: squares with improvised corners, and a scrap tried on one."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from datetime import date
from pathlib import Path

from inlet import terminal
from inlet.core.draft import draft
from inlet.core.improvised import (
    CornerSeam,
    LeastScrap,
    corners_of_strip,
    pace_of,
    pace_text,
    raw_size,
    seam_text,
    trial_text,
    tried,
    weight_text,
)
from inlet.core.numbers import Fraction, NumberError, System, parse_length
from inlet.core.plan import BlockPlan, plan_block
from inlet.core.project import Block, Improvised, Project, Rates, replace, usual_corners
from inlet.core.words import length_text, size_text
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import save, why_not_kept


def add_options(parser: argparse.ArgumentParser) -> None:
    parser.add_argument(
        "--corners", metavar="FABRICS", nargs="?", const="",
        help="improvised corners for the block, in these fabrics (silt,fog), else in all",
    )  # fmt: skip
    parser.add_argument(
        "--scrap", metavar="SIZE", help="does it cover? along the seam x across it: 3 1/2 x 1 3/8"
    )
    parser.add_argument(
        "--corner-seam", metavar="PLACES", default="",
        help="where the seam ends, along the top and down the side: 1 1/4, 2 1/2",
    )  # fmt: skip
    parser.add_argument("--cards", action="store_true", help="say where each seam lies")


def asked(options: argparse.Namespace) -> bool:
    """Is anything of this asked for?"""
    return options.corners is not None or options.scrap is not None


def run(project: Project, block: Block, copies: int, options: argparse.Namespace) -> int:
    """Say whether a scrap covers, or what ``copies`` of a square take; write the project where that
    is asked for. Raises ``FileProblem``."""
    if options.scrap is not None:
        terminal.say("\n".join(_trial(project, block, options)))
        return 0
    block = replace(block, improvised=_corners(project, block, options))
    new = project.with_block(block)
    fault = why_not_kept(new, project)
    if fault:
        raise FileProblem(f"inlet: {fault}")
    plan = plan_block(new, block, copies)
    if not plan.squares:
        raise FileProblem(f"inlet: {plan.problems[0].text if plan.problems else block.title}")
    terminal.say("\n".join(_lines(new, block, plan, options.cards)))
    if options.output:
        save(new, Path(options.output))
    return 0


def _corners(project: Project, block: Block, options: argparse.Namespace) -> Improvised:
    """The corners the block has, or usual ones, in other fabrics and by another chance where that
    is asked for."""
    patches = draft(block).patches
    ground = patches[0].fabric if patches else None
    every = tuple(f.id for f in project.fabrics if f.id != ground)
    size = raw_size(block.finished, project.measure)
    corners = block.improvised or usual_corners(size, every, project.measure.system)
    if options.corners:
        names = tuple(name.strip() for name in options.corners.split(",") if name.strip())
        corners = replace(corners, fabrics=names)
    if options.chance is not None:
        corners = replace(corners, seed=options.chance)
    return corners


def _lines(project: Project, block: Block, plan: BlockPlan, cards: bool) -> Iterator[str]:
    measure = project.measure
    for problem in plan.problems:
        yield f"  {problem.text}"
    pool = plan.scraps
    yield f"{block.title}: {len(plan.squares)} squares, {pool.corners} corners"
    if not pool.corners:
        return
    yield "Scraps, along the seam x across it:"
    for (size, fabric), number in sorted(pool.scraps.items(), reverse=True):
        cut_from = project.fabric(fabric)
        name = cut_from.title if cut_from is not None else fabric
        yield f"  {number} × {size_text((size.length, size.width), measure)} of {name}"
    pace = pace_of(pool, 0, 0, project.rates or Rates(), measure)
    yield pace_text(pace, date.today())
    yield f"Behind the corners: {weight_text(pool.behind, measure)}"
    if cards:
        for number, square in enumerate(plan.squares, 1):
            yield f"Square {number}"
            yield from (f"  {seam_text(seam, measure)}" for seam in square.seams)


def _trial(project: Project, block: Block, options: argparse.Namespace) -> Iterator[str]:
    measure = project.measure
    size = raw_size(block.finished, measure)
    length, width = _two(options.scrap, "x", "--scrap", measure.system)
    along, down = _two(options.corner_seam, ",", "--corner-seam", measure.system)
    for leg, side in zip((along, down), size, strict=True):
        if leg > side:
            raise FileProblem(
                f"inlet: --corner-seam: {length_text(leg, measure)} is past the end of an edge "
                f"{length_text(side, measure)} long"
            )
    seam = CornerSeam(0, along, down)
    trial = tried(seam, size, LeastScrap(length, width), measure, Fraction(0))
    yield trial_text(trial, measure)
    least = size_text((trial.least.length, trial.least.width), measure)
    usable = measure.system.fabric_width
    yield f"Smallest scrap for this seam: {least}."
    yield (
        f"A strip {length_text(usable, measure)} long does {corners_of_strip(trial, usable)} "
        "corners like this."
    )


def _two(text: str, between: str, option: str, system: System) -> tuple[Fraction, Fraction]:
    """Two lengths above nothing. Raises ``FileProblem``."""
    try:
        lengths = [parse_length(part, system) for part in text.split(between)]
    except NumberError as why:
        raise FileProblem(f"inlet: {option}: {why}") from None
    plain = [length for length in lengths if isinstance(length, Fraction) and length > 0]
    if len(plain) != 2 or len(lengths) != 2:
        raise FileProblem(f"inlet: {option}: type two lengths, as 3 {between} 2")
    return plain[0], plain[1]
