"""``inlet import``: a drawing of another program as a block."""

from __future__ import annotations

import argparse
import os
from pathlib import Path

from inlet import terminal
from inlet.core.project import first_project, new_block, replace
from inlet.files.project.project_json import load, save
from inlet.option_types import band_count, block_size


def add_options(parser: argparse.ArgumentParser) -> None:
    """What can be said of a drawing that is read."""
    parser.add_argument("--name", help="of the block, else the drawing's")
    parser.add_argument("--size", type=block_size, metavar="WIDTH", help="finished, else 9 in")
    for side in ("columns", "rows"):
        parser.add_argument(f"--{side}", type=band_count, metavar="N", help="else guessed")
    to = "to add it to, or a new one"
    parser.add_argument("-o", "--output", metavar="PROJECT", required=True, help=to)


def run(options: argparse.Namespace) -> int:
    from inlet.files.drawings.svg_import import load_svg

    drawing, target = Path(options.file), Path(options.output)
    project = load(target) if os.path.lexists(target) else first_project()
    name = options.name or drawing.stem
    block = new_block({b.id for b in project.blocks}, name, project.measure)
    if options.size is not None:
        block = replace(block, finished=(options.size, options.size))
    system = project.measure.system
    imported = load_svg(
        drawing, block=block, system=system, columns=options.columns, rows=options.rows
    )
    save(replace(project, blocks=(*project.blocks, imported.block)), target)
    terminal.say("\n".join(imported.report))
    return 0
