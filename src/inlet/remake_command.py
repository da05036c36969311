"""``inlet remake``: a block cut apart and set again, and what to begin with."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from pathlib import Path

from inlet import corners_command, panel_command, terminal
from inlet.core.draft import draft
from inlet.core.numbers import Exact, Fraction, NumberError
from inlet.core.plan import plan_block
from inlet.core.project import Block, Cuts, MadeFrom, Project, StartBlock, fresh_id, replace
from inlet.core.remake import (
    MOST_PARTS,
    TURNED,
    CannotFollow,
    SliceError,
    by_chance,
    chart_table,
    cut_in,
    cut_words,
    cuts_typed,
    followed,
    frame_of,
    offers,
    parts_at_marks,
    pieces_of,
    remade,
    sizes_of,
    start_chart,
    through_seams,
)
from inlet.core.words import length_text, size_text
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import save
from inlet.files.text.plan_text import plan_text
from inlet.option_types import whole_copies, whole_number


def add_options(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--block", metavar="ID", help="to cut apart, else the first block")
    parser.add_argument("--parts", type=parts, default=3, metavar="N", help="each way, else 3")
    typed = "distances from the centre: 1 7/8, or left 2, right 3, or centre"
    parser.add_argument("--upright", metavar="CUTS", help=typed)
    parser.add_argument("--level", metavar="CUTS", help="as --upright: above 2, below 3")
    parser.add_argument("--diagonal", action="store_true",
                        help="cut along the diagonals: the block lies on point")  # fmt: skip
    parser.add_argument(
        "--arrangement", type=parts, metavar="N", help="take the N-th that is offered"
    )
    parser.add_argument("--chance", type=int, metavar="SEED", help="turn the pieces by chance")
    parser.add_argument("--start-sizes", metavar="SIZES", help="a chart, for finished sizes: 6, 8")
    parser.add_argument("--squares", metavar="SIZES", help="a chart, from squares there are: 6, 8")
    corners_command.add_options(parser)
    panel_command.add_options(parser)
    parser.add_argument("--copies", type=whole_copies, default=100, metavar="N",
                        help="improvised squares, else 100")  # fmt: skip
    parser.add_argument("--name", help="of the new block")
    parser.add_argument("-o", "--output", metavar="PROJECT", help="write it with the new block")


def parts(text: str) -> int:
    return whole_number(text, 1, 4096)


def run(project: Project, block: Block, options: argparse.Namespace) -> int:
    """Say what comes of a block cut apart, or a chart of start sizes; write the project with the
    new block where that is asked for. Raises ``FileProblem``."""
    if options.start_sizes is not None or options.squares is not None:
        terminal.say("\n".join(_chart(project, options)))
        return 0
    if panel_command.asked(options):
        return panel_command.run(project, options)
    if corners_command.asked(options):
        return corners_command.run(project, block, options.copies, options)
    try:
        made_from = _made_from(project, block, options)
        name = options.name or f"{block.title} sliced"
        new = Block(id=fresh_id(name, {b.id for b in project.blocks}), name=name,
                    made_from=made_from)  # fmt: skip
        project = followed(replace(project, blocks=(*project.blocks, new)))
    except (SliceError, CannotFollow) as why:
        raise FileProblem(f"inlet: {why}") from None
    terminal.say("\n".join(_lines(project, project.block(new.id))))
    if options.output:
        save(project, Path(options.output))
    return 0


def _made_from(project: Project, block: Block, options: argparse.Namespace) -> MadeFrom:
    """How the block is cut and set, as the options say. Raises ``SliceError``, ``FileProblem``."""
    measure, start = project.measure, draft(block)
    twice = 2 * measure.seam
    ways = (("left", "right"), ("above", "below"))
    cuts: list[tuple[Exact, ...]] = []
    for axis, (name, typed) in enumerate((("upright", options.upright), ("level", options.level))):
        if options.upright is None and options.level is None:
            most = min(options.parts, MOST_PARTS)
            whole = frame_of(block.finished, Cuts(diagonal=options.diagonal))[axis]
            cuts.append(parts_at_marks(whole + twice, most, measure.mark))
            continue
        try:
            cuts.append(cuts_typed(typed or "", ways[axis], measure.system, Fraction(0)))
        except NumberError as why:
            raise FileProblem(f"inlet: --{name}: {why}") from None
    made_from = cut_in(
        start, StartBlock(block=block.id), Cuts(cuts[0], cuts[1], options.diagonal), measure
    )
    how = remade(project, made_from)
    if options.arrangement is not None:
        offered = offers(how.starts[0], how.slices, how.on_point)
        if options.arrangement > len(offered):
            raise FileProblem(f"inlet: --arrangement: there are {len(offered)}")
        return replace(made_from, pieces=pieces_of(offered[options.arrangement - 1].laid))
    if options.chance is not None:
        return replace(made_from, pieces=pieces_of(by_chance(how, options.chance)))
    return made_from


def _lines(project: Project, new: Block) -> Iterator[str]:
    """The cuts, the pieces, what comes of them, and the plan that makes it."""
    measure = project.measure
    assert new.made_from is not None, "a block that was just cut is made from another"
    how = remade(project, new.made_from)
    seams = through_seams(how.starts[0])
    yield f"Cut {how.starts[0].block.title} apart:"
    yield from (f"  {words}" for words in cut_words(how.cuts.upright, seams.upright, True, measure))
    yield from (f"  {words}" for words in cut_words(how.cuts.level, seams.level, False, measure))
    for place, laid in enumerate(how.laid, 1):
        piece = how.slices[laid.piece]
        turned = f" {TURNED[laid.quarters % 4]}".rstrip()
        shows = size_text(piece.size, measure)
        yield f"  place {place}: piece {piece.label}{turned}, shows {shows}"
    missed = how.set_again.missed
    if missed:
        most = length_text(max(miss.off for miss in missed), measure)
        yield f"  seams that no longer meet: {len(missed)}, off by up to {most}"
    yield f"Arrangements: {len(offers(how.starts[0], how.slices, how.on_point))}"
    yield plan_text(plan_block(project, new))


def _chart(project: Project, options: argparse.Namespace) -> Iterator[str]:
    """The chart of start sizes, a line each."""
    measure = project.measure
    try:
        finished, squares = (
            sizes_of(text or "", measure.system) for text in (options.start_sizes, options.squares)
        )
        rows = start_chart(finished, squares, min(max(2, options.parts), MOST_PARTS), measure)
    except NumberError as why:
        raise FileProblem(f"inlet: --start-sizes: {why}") from None
    yield from terminal.in_columns(chart_table(rows, measure))
