"""The command line: ``inlet`` opens the window; plan, export and check work without one."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import NoReturn

from inlet import __version__, terminal
from inlet.core.cutting.comfort import sizes_from
from inlet.core.cutting.sets import project_sets
from inlet.core.cutting.words import set_lines, set_name
from inlet.core.numbers.root2 import Exact
from inlet.core.numbers.text import NumberError, parse_length
from inlet.core.piecing.advice import advice_lines
from inlet.core.piecing.needle import (
    effect_text,
    needle_text,
    parse_needle,
)
from inlet.core.piecing.words import seams_text, sitting_lines, thread_text
from inlet.core.plan import MOST_COPIES, BlockPlan, plan_block
from inlet.core.planning.compare import table
from inlet.core.planning.stock import Stock, parse_stock
from inlet.core.planning.words import (
    kind_words,
    method_words,
    offer_text,
    piece_text,
    times_words,
)
from inlet.core.project.block import LARGEST_BLOCK_INCHES, MOST_BANDS, Block, new_block
from inlet.core.project.project import Project, first_project
from inlet.core.project.value import replace
from inlet.core.words import check_text, cloth_name, length_text, size_text
from inlet.files.plan_json import plan_dict, set_dict, stock_list
from inlet.files.project_json import FileProblem, load, save

COMMANDS = ("plan", "export", "check", "import")


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        """One plain line, not a page of usage."""
        raise FileProblem(f"inlet: {message}; see inlet --help")


def main(argv: Sequence[str] | None = None) -> int:
    """Run one command; 0, or 2 with one line on stderr that names what is wrong and where."""
    args = list(sys.argv[1:] if argv is None else argv)
    try:
        if args and args[0] in COMMANDS:
            return _without_window(args)
        return _window(args)
    except FileProblem as problem:
        terminal.complain(str(problem))
        return 2
    except KeyboardInterrupt:
        terminal.complain("inlet: stopped")
        return 130
    except BrokenPipeError:
        terminal.give_up()
        return 0


def _window(args: Sequence[str]) -> int:
    parser = _Parser(
        prog="inlet",
        description="Draft pieced quilt blocks and work out how to cut and sew them.",
        epilog="Without a window: inlet plan FILE --json, inlet export FILE --what guide "
        "--format pdf -o OUT, inlet check FILE.",
    )
    parser.add_argument("file", nargs="?", metavar="FILE", help="a project to open")
    parser.add_argument("--demo", action="store_true", help="open the Reed Channel demo")
    parser.add_argument("--picture", metavar="FILE.png", help="write the window's picture and end")
    parser.add_argument("--stage", default="draft", help="with --picture: the stage to show")
    parser.add_argument("--block", metavar="ID", help="the block to show first")
    parser.add_argument("--step", type=int, default=1, help="with --picture: the piecing step")
    parser.add_argument("--page", type=int, default=0, help="with --picture: steps, sittings, test")
    parser.add_argument("--tool", default="seam", help="with --picture: the draft's tool in hand")
    parser.add_argument("--grey", action="store_true", help="with --picture: in grey view")
    parser.add_argument("--text", type=float, default=1.0, help="text size, 1 is usual")
    parser.add_argument("--version", action="version", version=f"Inlet {__version__}")
    options = parser.parse_args(args)
    from inlet.ui.app import run  # Qt is loaded only when there is a window to show

    return run(options)


def _without_window(args: Sequence[str]) -> int:
    parser = _Parser(prog="inlet")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)
    for name, text in (
        ("plan", "print the plan of a block"),
        ("export", "write a guide to print, or the drawing of a block"),
        ("check", "say what is wrong with a file or its drawings"),
    ):
        command = commands.add_parser(name, help=text)
        command.add_argument("file", metavar="FILE")
        if name != "check":
            command.add_argument("--block", metavar="ID", help="else the first block")
            command.add_argument("--copies", type=_copies, default=1, metavar="N")
        if name == "plan":
            command.add_argument("--json", action="store_true", help="as JSON, docs/plan-format.md")
            command.add_argument(
                "--compare", action="store_true", help="every method of each unit side by side"
            )
            command.add_argument(
                "--sets", action="store_true", help="the strip sets of the whole project"
            )
            command.add_argument(
                "--needle", metavar="SIZES", help="a needle test: strip, middle[, stitched]"
            )
            command.add_argument(
                "--have",
                metavar="STOCK",
                help="sizes from cloth cut already: 5 squares",
            )
        if name == "export":
            command.add_argument("--what", choices=["guide", "block", "labels"], required=True)
            command.add_argument("--format", choices=["pdf", "svg"], required=True)
            command.add_argument("--paper", choices=["letter", "a4"], help="else by the measure")
            command.add_argument("-o", "--output", metavar="OUT", required=True)
    command = commands.add_parser("import", help="make a block of the lines and arcs of an SVG")
    command.add_argument("file", metavar="DRAWING.svg")
    command.add_argument("--name", help="of the block, else the drawing's")
    command.add_argument("--size", type=_size, metavar="WIDTH", help="finished, else 9 in")
    for side in ("columns", "rows"):
        command.add_argument(f"--{side}", type=_bands, metavar="N", help="else guessed")
    command.add_argument(
        "-o", "--output", metavar="PROJECT", required=True, help="to add it to, or a new one"
    )
    options = parser.parse_args(args)
    if options.command == "import":
        return _import(options)
    project = load(options.file)
    if options.command == "check":
        return _check(project, Path(options.file).name)
    if options.command == "plan" and options.sets:
        return _print_sets(project, options.copies, options.json)
    plan = plan_block(project, _block(project, options.block, options.file), options.copies)
    if options.command == "export" and (options.what, options.format) == ("block", "svg"):
        from inlet.files.svg import write_block_svg  # loads the SVG library

        write_block_svg(project, plan.block, Path(options.output))
    elif options.command == "export":
        if options.format != "pdf" or options.what == "block":
            raise FileProblem(f"inlet: a {options.what} cannot be written as {options.format}")
        from inlet.files import guide_pdf, labels_pdf  # load the PDF library

        write = labels_pdf.write_labels if options.what == "labels" else guide_pdf.write_guide
        write(plan, options.output, options.paper)
    elif options.json:
        stock = _stock(options.have, plan)
        data = plan_dict(plan)
        if stock:
            data["from_stock"] = stock_list(plan, stock)
        terminal.say_json(data)
    elif options.command == "plan" and options.needle:
        terminal.say("\n".join(_needle_lines(project, plan, options.needle)))
    elif options.command == "plan" and options.compare:
        terminal.say("\n".join(_compared(plan)))
    else:
        lines = list(_stock_lines(plan, _stock(options.have, plan)))
        terminal.say("\n".join([_summary(plan), *lines]))
    return 0


def _compared(plan: BlockPlan) -> Iterator[str]:
    """Each unit's methods in columns, the one to take marked, and why."""
    for unit in plan.units:
        found, best, why = plan.compared[unit.unit.label]
        hands = " and ".join(f"{number} {label}" for label, number in unit.hands.items())
        yield f"{unit.unit.label}: {kind_words(unit.unit.kind)}, {hands}"
        rows = table(found)
        widths = [max(map(len, column)) for column in zip(*rows, strict=True)]
        for row, cost in zip(rows, (None, *found), strict=True):
            first, *rest = (text.ljust(w) for text, w in zip(row, widths, strict=True))
            yield f"  {'*' if cost is best else ' '} {first}  {'  '.join(rest)}".rstrip()
        yield f"    {method_words(best.plan.name)}: {why}"


def _print_sets(project: Project, copies: int, as_json: bool) -> int:
    sets = project_sets(project, copies)
    if as_json:
        terminal.say_json({"strip_sets": [set_dict(one) for one in sets]})
        return 0
    for one in sets:
        terminal.say("\n  ".join([set_name(one, project), *set_lines(one, project)]))
    if not sets:
        terminal.say("Nothing in this project can be cut from strip sets.")
    return 0


def _stock(text: str | None, plan: BlockPlan) -> tuple[Stock, ...]:
    try:
        return () if text is None else parse_stock(text, plan.measure.system)
    except NumberError as why:
        raise FileProblem(f"inlet: --have: {why}") from None


def _stock_lines(plan: BlockPlan, stock: Sequence[Stock]) -> Iterator[str]:
    for each in stock:
        for size in sizes_from(each, plan.units, plan.block, plan.measure):
            rest = f", {', '.join(size.others)} from wider cloth" if size.others else ""
            yield (
                f"  from {length_text(each.width, plan.measure)} {each.shape}s: "
                f"{size_text(size.finished, plan.measure)} finished{rest}"
            )


def _import(options: argparse.Namespace) -> int:
    from inlet.files.svg import load_svg  # loads the SVG library

    drawing, target = Path(options.file), Path(options.output)
    project = load(target) if target.exists() else first_project()
    name = options.name or drawing.stem
    block = new_block({b.id for b in project.blocks}, name, project.measure)
    if options.size is not None:
        block = replace(block, finished=(options.size, options.size))
    system = project.measure.system
    made = load_svg(drawing, block=block, system=system, columns=options.columns, rows=options.rows)
    save(replace(project, blocks=(*project.blocks, made.block)), target)
    terminal.say("\n".join(made.report))
    return 0


def _size(text: str) -> Exact:
    try:
        size = parse_length(text)
    except NumberError as why:
        raise argparse.ArgumentTypeError(str(why)) from None
    if not 0 < size <= LARGEST_BLOCK_INCHES:
        raise argparse.ArgumentTypeError(f"“{text}” is not a size a block can have")
    return size


def _bands(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) <= MOST_BANDS:
        raise argparse.ArgumentTypeError(f"“{text}” is not a number from 1 to {MOST_BANDS}")
    return int(text)


def _copies(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) <= MOST_COPIES:
        raise argparse.ArgumentTypeError(f"“{text}” is not a number from 1 to {MOST_COPIES}")
    return int(text)


def _block(project: Project, wanted: str | None, file: str) -> Block:
    name = Path(file).name
    if not project.blocks:
        raise FileProblem(f"{name}: blocks: there is no block to plan")
    if wanted is None:
        return project.blocks[0]
    try:
        return project.block(wanted)
    except KeyError:
        known = ", ".join(b.id for b in project.blocks)
        raise FileProblem(
            f"{name}: blocks: none has the id “{wanted}” (there are {known})"
        ) from None


def _check(project: Project, name: str) -> int:
    first = None
    for i, block in enumerate(project.blocks):
        for problem in plan_block(project, block).problems:
            terminal.say(f"blocks[{i}] ({block.title}): {problem.level}: {problem.text}")
            if problem.level == "error" and first is None:
                first = f"{name}: blocks[{i}] ({block.title}): {problem.text}"
    if first:
        terminal.complain(first)
        return 2
    terminal.say(f"{name}: {len(project.blocks)} blocks read, nothing in the way of sewing them.")
    return 0


def _summary(plan: BlockPlan) -> str:
    """The plan in a few lines a person can read."""
    measure = plan.measure
    lines = [
        f"{plan.block.title}: finished {size_text(plan.block.finished, measure)}, "
        f"unfinished {size_text(plan.unfinished, measure)}",
    ]
    for unit in plan.units:
        lines.append(
            f"  {unit.unit.label}: {unit.count} × {unit.unit.kind}, unfinished "
            f"{size_text(unit.unfinished, measure)}, {unit.in_use.name}: "
            f"{times_words(unit.in_use)}"
        )
        _, best, why = plan.compared[unit.unit.label]
        if best.plan.name != unit.in_use.name:
            lines.append(f"      better {best.plan.name}: {why}")
        for cut in unit.in_use.pieces:
            cloth = cloth_name(plan.project, cut.piece.fabric)
            lines.append(f"      cut {cut.number} × {piece_text(cut, measure)} of {cloth}")
    lines += [f"  {offer_text(offer, measure)}" for offer in plan.offers]
    for step in plan.steps:
        lines.append(f"  {step.number}. {step.makes} × {step.times}: {step.text}")
        lines += [f"      {note}" for note in step.notes]
        if step.measures:
            lines.append(f"      should measure {check_text(step.measures, measure)[0]}")
    lines += [f"  {text}" for text in _work_lines(plan)]
    lines += [f"  {text}" for text in advice_lines(plan.advice, plan.project)]
    lines += [f"  {problem.level}: {problem.text}" for problem in plan.problems]
    lines.append("Re-sewn exactly." if plan.resewn else "Not ready to sew.")
    return "\n".join(lines)


def _work_lines(plan: BlockPlan) -> Iterator[str]:
    """The seams counted, the thread, and the sittings."""
    if plan.assembly is None:
        return
    yield seams_text(plan.seams)
    yield thread_text(plan.thread, plan.measure)
    for head, batches in sitting_lines(plan.sittings, plan.rates, plan.measure):
        yield f"{head}:"
        yield from (f"  {line}" for line in batches)


def _needle_lines(project: Project, plan: BlockPlan, text: str) -> Iterator[str]:
    """What a needle test typed as “strip, middle” or “strip, middle, stitched” says."""
    try:
        needle = parse_needle(text, project.measure.system)
    except ValueError as problem:
        raise FileProblem(f"inlet: --needle: {problem}") from None
    test, effect = plan.tested(needle)
    yield from needle_text(test, project.measure)
    yield from effect_text(effect, test.off, project.measure)
