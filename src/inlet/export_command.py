"""``inlet export``: a guide to print, a table, templates, a drawing."""

from __future__ import annotations

import argparse
from pathlib import Path

from inlet.command_inputs import plan_asked, with_quilt
from inlet.core.numbers import NumberError
from inlet.core.plan import plan_quilt
from inlet.core.templates import correction
from inlet.files.exports import BY_NAME, FORMATS, PIXELS, QuiltExport, Wish
from inlet.files.problem import FileProblem
from inlet.files.whole import check_export
from inlet.option_types import few_spares


def add_options(export: argparse.ArgumentParser) -> None:
    """What can be said of something that is written."""
    export.add_argument("--what", choices=list(BY_NAME), required=True)
    export.add_argument("--format", choices=list(FORMATS), required=True)
    export.add_argument(
        "--spares", type=few_spares, default=0, metavar="N", help="of each template"
    )
    export.add_argument("--every", action="store_true", help="a template for every shape")
    measured = "what the 1 in square of the last sheet measured, across and down: 31/32, 1"
    export.add_argument("--printed", metavar="SIZES", help=measured)
    export.add_argument(
        "--sizes",
        metavar="SIZES",
        help="with --what sizes: 4, 6, 8, 12; with quilt-sizes: lap, king",
    )
    export.add_argument("--pixels", type=int, default=PIXELS, help="of a PNG's longer side")
    export.add_argument("--no-seams", action="store_true", help="of a quilt, so that shapes show")
    export.add_argument("--paper", choices=["letter", "a4"], help="else by the measure")
    export.add_argument("-o", "--output", metavar="OUT", required=True)


OPTIONS = {"templates": "--every", "sizes": "--sizes"}
"""The option that helps where there is nothing to write."""


def run(options: argparse.Namespace) -> int:
    path, export = Path(options.output), BY_NAME[options.what]
    check_export(path)
    if options.format not in export.writers:
        formats = " or ".join(export.writers)
        raise FileProblem(
            f"inlet: {export.what} cannot be written as {options.format}, only as {formats}"
        )
    wish = Wish(
        paper=options.paper,
        spares=options.spares,
        every=options.every,
        printed=_printed(options.printed),
        sizes=options.sizes or "",
        pixels=options.pixels,
        seams=not options.no_seams,
        project_file=Path(options.file),
    )
    if isinstance(export, QuiltExport):
        export.writers[options.format](plan_quilt(with_quilt(options.file)), path, wish)
        return 0
    plan = plan_asked(options)
    lacking = export.lacks(plan, wish)
    if lacking:
        hint = OPTIONS.get(export.what)
        raise FileProblem(f"inlet: {lacking.rstrip('.')}{f'; see {hint}' if hint else ''}")
    export.writers[options.format](plan, path, wish)
    return 0


def _printed(text: str | None) -> tuple[float, float]:
    """What the test square of the last sheet measured, as a correction."""
    try:
        return correction(text) if text else (1.0, 1.0)
    except NumberError as why:
        raise FileProblem(f"inlet: --printed: {why}") from None
