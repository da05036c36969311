"""The command line: ``inlet`` opens the window; plan, export and check work without one."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, NoReturn

from inlet import (
    __version__,
    desktop_command,
    export_command,
    hand_command,
    import_command,
    log_command,
    pack_command,
    remake_command,
    terminal,
)
from inlet.command_inputs import block_asked, plan_asked, with_quilt
from inlet.core.buying import enough, enough_lines, shopping, shopping_whole
from inlet.core.cutlist import project_sets
from inlet.core.layout import BEST
from inlet.core.numbers import NumberError
from inlet.core.panels import centring_lines
from inlet.core.piecing import parse_seam_test
from inlet.core.plan import (
    BlockPlan,
    cost_of,
    cost_text,
    plan_block,
    plan_quilt,
    proposals,
    target_typed,
)
from inlet.core.planning import Stock, parse_stock
from inlet.core.project import (
    Project,
    SeamTest,
)
from inlet.core.words import length_text, near_text
from inlet.files.project.project_json import FileProblem, entries_not_read, load
from inlet.files.text.plan_json import plan_dict, set_dict, stock_list
from inlet.files.text.plan_text import (
    compared_lines,
    plan_text,
    seam_test_lines,
    sets_text,
    stock_lines,
)
from inlet.files.text.quilt_json import quilt_dict
from inlet.files.text.quilt_text import quilt_text

if TYPE_CHECKING:
    from inlet.files.text.tables import Table

from inlet.man_page import Command, man_page
from inlet.option_types import whole_copies

COMMANDS = (
    "plan", "export", "check", "import", "remake", "log", "forecast", "simulate", "practise",
    "pack", "unpack",
)  # fmt: skip


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
    options = _window_parser().parse_args(args)
    if options.install_desktop:
        return desktop_command.install(manual())
    if options.remove_desktop:
        return desktop_command.remove()
    if options.where:
        return desktop_command.where()
    from inlet.ui.shell.app import run  # Qt is loaded only when there is a window to show

    with terminal.only_ours():
        return run(options)


def manual() -> str:
    """The manual page, inlet(1)."""
    return man_page(_window_parser(), _commands()[1])


def _window_parser() -> argparse.ArgumentParser:
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
    page = "with --picture: the page of the stage, from 0 on"
    parser.add_argument("--page", type=int, default=0, help=page)
    parser.add_argument(
        "--copies", type=whole_copies, default=1, help="with --picture: of the block"
    )
    parser.add_argument("--fabric", type=int, default=0, help="with --picture: which on the mat")
    parser.add_argument("--sizes", help="with --picture: those of the size chart")
    what = "with --picture: the draft's tool in hand, or the page of the quilt's ticket"
    parser.add_argument("--tool", default="seam", help=what)
    parser.add_argument("--grey", action="store_true", help="with --picture: in grey view")
    parser.add_argument("--text", type=float, default=1.0, help="text size, 1 is usual")
    beside = "with --picture: the help beside the stage, or the line to find anything"
    parser.add_argument("--show", choices=["help", "search"], help=beside)
    looks = ["system", "light", "dark"]
    parser.add_argument("--look", choices=looks, help="the colours, else as chosen before")
    parser.add_argument("--version", action="version", version=f"Inlet {__version__}")
    for name, text in (
        ("--install-desktop", "put Inlet among this user's programs: entry, icons, file type"),
        ("--remove-desktop", "take it away from there again"),
        ("--where", "tell where Inlet keeps its own files"),
    ):
        parser.add_argument(name, action="store_true", help=text)
    return parser


def _without_window(args: Sequence[str]) -> int:
    options = _commands()[0].parse_args(args)
    do: Callable[[argparse.Namespace], int] = options.do
    with terminal.only_ours():
        return do(options)


def _commands() -> tuple[argparse.ArgumentParser, dict[str, Command]]:
    """The commands that need no window, each done by ``do`` of its options; and each by its
    name."""
    parser = _Parser(prog="inlet")
    by_name: dict[str, Command] = {}
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)

    def command(
        name: str, do: Callable[[argparse.Namespace], int], text: str, file: str = "FILE"
    ) -> argparse.ArgumentParser:
        new_parser = commands.add_parser(name, help=text)
        new_parser.add_argument("file", metavar=file)
        new_parser.set_defaults(do=do)
        by_name[name] = new_parser, text
        return new_parser

    def of_block(new_parser: argparse.ArgumentParser) -> None:
        new_parser.add_argument("--block", metavar="ID", help="else the first block")
        new_parser.add_argument("--copies", type=whole_copies, default=1, metavar="N")

    plan = command("plan", _plan, "print the plan of a block")
    of_block(plan)
    _plan_options(plan)

    export = command(
        "export", export_command.run, "write a guide to print, or the drawing of a block"
    )
    of_block(export)
    export_command.add_options(export)

    command("check", _check, "say what is wrong with a file or its drawings")

    of_slices = "cut a block apart and set it again, or a chart of start sizes"
    remake_command.add_options(command("remake", _remake, of_slices))

    of_log = "how far the work is by its log, and the log written to"
    log_command.add_options(command("log", log_command.run, of_log))

    will_do = "what your hand will do to a block or the quilt: points, sizes, rows"
    hand_command.add_forecast_options(command("forecast", hand_command.run_forecast, will_do))
    maker = "make a project with a simulated maker, and write the log"
    hand_command.add_simulate_options(command("simulate", hand_command.run_simulate, maker))

    exercises = "exercises for your seam: what to sew, and what its size says"
    hand_command.add_practise_options(command("practise", hand_command.run_practise, exercises))

    drawing = "make a block of the lines and arcs of an SVG"
    import_command.add_options(command("import", import_command.run, drawing, "DRAWING.svg"))

    packs, unpacks = "write a project and its photographs as one file", "write what was packed"
    pack_command.add_pack_options(command("pack", pack_command.run_pack, packs))
    unpacked = command("unpack", pack_command.run_unpack, unpacks, "PACKED.zip")
    pack_command.add_unpack_options(unpacked)
    return parser, by_name


def _plan_options(plan: argparse.ArgumentParser) -> None:
    """What can be asked of a plan."""
    for name, text in (
        ("--json", "as JSON, docs/plan-format.md"),
        ("--compare", "every method of each unit side by side"),
        ("--sets", "the strip sets of the whole project"),
        ("--shopping", "what to buy for it"),
        ("--project", "with --shopping: for the whole project, or its quilt"),
        ("--quilt", "of the whole quilt, not of one block"),
        ("--motif", "how the project's motif gets into the middle of its piece"),
        ("--enough", "is there enough fabric, and what would make it enough"),
    ):
        plan.add_argument(name, action="store_true", help=text)
    plan.add_argument(
        "--seam-test",
        "--needle",
        metavar="SIZES",
        dest="seam_test",
        help="a seam allowance test: strip, middle[, stitched]",
    )
    sizes = "a size chart: 4, 6, 8, 12, or 4 to 12; of a quilt: lap, king, 60 x 72"
    plan.add_argument("--sizes", metavar="SIZES", help=sizes)
    reach = "with --quilt: ways to a size, as in 56 x 70, or lap"
    plan.add_argument("--target", metavar="SIZE", help=reach)
    plan.add_argument("--have", metavar="STOCK", help="sizes from fabric cut already: 5 squares")


def _plan_of_quilt(options: argparse.Namespace) -> int:
    plan = plan_quilt(with_quilt(options.file))
    if options.target:
        terminal.say("\n".join(_ways_to(options.target, plan.project)))
    elif options.enough:
        terminal.say("\n".join(enough_lines(enough(plan), plan.project)))
    elif options.sizes:
        return _say_table(_chart(options, plan.project))
    elif options.json:
        terminal.say_json(quilt_dict(plan))
    else:
        terminal.say(quilt_text(plan))
    return 0


def _ways_to(size: str, project: Project) -> Iterator[str]:
    """Proposals for a size, a line each."""
    try:
        target = target_typed(size, project.measure)
    except NumberError as why:
        raise FileProblem(f"inlet: --target: {why}") from None
    for proposal in proposals(project, target):
        cost = cost_text(cost_of(proposal.plan(project)), project.measure)
        border = proposal.quilt.borders[0].width if proposal.quilt.borders else None
        edge = f", border {length_text(border, project.measure)}" if border else ""
        yield f"{near_text(proposal.size, project.measure)}: {proposal.words}{edge}; {cost}"


def _say_motif(options: argparse.Namespace) -> int:
    project = load(options.file)
    motif = project.cutting.motif if project.cutting is not None else None
    if motif is None:
        raise FileProblem(f"{Path(options.file).name}: cutting.motif: missing; measure it first")
    terminal.say("\n".join(centring_lines(motif, project.measure)))
    return 0


def _plan(options: argparse.Namespace) -> int:
    if options.quilt:
        return _plan_of_quilt(options)
    if options.sets:
        return _print_sets(load(options.file), options.copies, options.json)
    if options.shopping:
        return _say_table(_shopping(options))
    if options.motif:
        return _say_motif(options)
    plan = plan_asked(options)
    if options.enough:
        terminal.say("\n".join(enough_lines(enough(plan), plan.project)))
        return 0
    if options.sizes:
        return _say_table(_chart(options, plan))
    if options.json:
        stock = _stock(options.have, plan)
        more = {"from_stock": stock_list(plan, stock)} if stock else {}
        terminal.say_json({**plan_dict(plan), **more})
    elif options.seam_test:
        terminal.say("\n".join(seam_test_lines(plan, _seam_test(options.seam_test, plan))))
    elif options.compare:
        terminal.say("\n".join(compared_lines(plan)))
    else:
        lines = list(stock_lines(plan, _stock(options.have, plan)))
        terminal.say("\n".join([plan_text(plan), *lines]))
    return 0


def _shopping(options: argparse.Namespace) -> Table:
    """The shopping list asked for."""
    from inlet.files.text.tables import shopping_table  # loads the PDF library

    project = load(options.file)
    if getattr(options, "project", False):
        return shopping_table(shopping_whole(project, BEST), project)
    return shopping_table(shopping(plan_asked(options), notes=True), project)


def _chart(options: argparse.Namespace, of: BlockPlan | Project) -> Table:
    """The size chart asked for: of a block, or of a project's quilt."""
    from inlet.files.text.tables import chart_table, quilt_chart_table  # loads the PDF library

    try:
        if isinstance(of, Project):
            return quilt_chart_table(options.sizes, of)
        return chart_table(options.sizes, of)
    except NumberError as why:
        raise FileProblem(f"inlet: --sizes: {why}") from None


def _say_table(table: Table) -> int:
    title, lines, notes = table
    rows = (f"  {row}" for row in terminal.in_columns(lines))
    terminal.say("\n".join([title, *rows, *notes]))
    return 0


def _print_sets(project: Project, copies: int, as_json: bool) -> int:
    sets = project_sets(project, copies)
    if as_json:
        terminal.say_json({"strip_sets": [set_dict(planned_set) for planned_set in sets]})
    else:
        terminal.say(sets_text(sets, project))
    return 0


def _seam_test(text: str, plan: BlockPlan) -> SeamTest:
    """A seam allowance test typed as “strip, middle” or “strip, middle, stitched”."""
    try:
        return parse_seam_test(text, plan.measure.system)
    except ValueError as problem:
        raise FileProblem(f"inlet: --seam-test: {problem}") from None


def _stock(text: str | None, plan: BlockPlan) -> tuple[Stock, ...]:
    try:
        return () if text is None else parse_stock(text, plan.measure.system)
    except NumberError as why:
        raise FileProblem(f"inlet: --have: {why}") from None


def _remake(options: argparse.Namespace) -> int:
    project = load(options.file)
    block = block_asked(project, options.block, options.file)
    return remake_command.run(project, block, options)


def _check(options: argparse.Namespace) -> int:
    project, name = load(options.file), Path(options.file).name
    errors = []
    unread = entries_not_read(project)
    if unread:
        terminal.say(f"log_unread: {unread} entries of the log cannot be read; they are kept.")
    for i, block in enumerate(project.blocks):
        for problem in plan_block(project, block).problems:
            place = f"blocks[{i}] ({block.title})"
            terminal.say(f"{place}: {problem.level}: {problem.text}")
            if problem.level == "error":
                errors.append(f"{name}: {place}: {problem.text}")
    if errors:
        terminal.complain(errors[0])
        return 2
    terminal.say(f"{name}: {len(project.blocks)} blocks read, nothing in the way of sewing them.")
    return 0
