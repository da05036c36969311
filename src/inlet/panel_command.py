"""``inlet remake --panel``: a motif in the middle of a block, and panels sized together."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from pathlib import Path

from inlet import terminal
from inlet.core.numbers import Exact, Fraction, NumberError, parse_length
from inlet.core.panels import one_size, packed, packed_lines, panel_text, sizes_on_grid
from inlet.core.plan import plan_block
from inlet.core.project import Block, Pair, Panel, Project, fresh_id, replace
from inlet.core.remake import followed
from inlet.core.words import size_text
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import save, why_not_kept
from inlet.files.text.plan_text import plan_text


def add_options(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--panel", metavar="SIZE", help="a piece with a motif: 18 x 22")
    parser.add_argument("--motif", metavar="SIZE", help="of the panel: 6 x 3")
    parser.add_argument("--at", metavar="FREE", help="fabric left of the motif and above it: 6, 2")
    parser.add_argument("--finished", metavar="SIZE", help="of the panel's block: 12 x 15")
    parser.add_argument("--fabric", metavar="ID", help="of the panel")
    parser.add_argument("--added", metavar="ID", help="fabric of strips the panel cannot give")
    parser.add_argument("--same-size", metavar="MARGIN",
                        help="one size for all panels, with a margin round each motif")  # fmt: skip
    parser.add_argument("--own-sizes", metavar="MARGIN", help="a size for each panel")
    parser.add_argument("--pack", metavar="WIDTH", help="pack all panels into a top so wide")


def asked(options: argparse.Namespace) -> bool:
    """Is anything of this asked for?"""
    return any(
        value is not None
        for value in (options.panel, options.same_size, options.own_sizes, options.pack)
    )


def run(project: Project, options: argparse.Namespace) -> int:
    """Add a panel, size or pack those there are, and say what comes of it; write the project where
    that is asked for. Raises ``FileProblem``."""
    new = project
    lines: list[str] = []
    if options.panel is not None:
        block = _block(project, options)
        new = followed(replace(project, blocks=(*project.blocks, block)))
        _check(new, project)
        block = new.block(block.id)
        lines += [panel_text(block, project.measure), plan_text(plan_block(new, block))]
    if options.same_size is not None or options.own_sizes is not None:
        new = followed(_sized(new, options))
        _check(new, project)
        for block in _panels(new):
            words = panel_text(block, project.measure)
            lines.append(f"{block.title}: {size_text(block.finished, project.measure)}. {words}")
    if options.pack is not None:
        lines += _packed(new, options)
    terminal.say("\n".join(lines))
    if options.output:
        save(new, Path(options.output))
    return 0


def _check(new: Project, project: Project) -> None:
    fault = why_not_kept(new, project)
    if fault:
        raise FileProblem(f"inlet: {fault}")


def _panels(project: Project) -> list[Block]:
    panels = [block for block in project.blocks if block.panel is not None]
    if not panels:
        raise FileProblem("inlet: the project has no panel; add some with --panel")
    return panels


def _block(project: Project, options: argparse.Namespace) -> Block:
    """The new panel block. Raises ``FileProblem``."""
    system = project.measure.system
    fabric = options.fabric or (project.fabrics[0].id if project.fabrics else "")

    def two(name: str, between: str, text: str | None) -> Pair:
        try:
            lengths = [parse_length(part, system) for part in (text or "").split(between)]
        except NumberError as why:
            raise FileProblem(f"inlet: --{name}: {why}") from None
        if len(lengths) != 2:
            raise FileProblem(f"inlet: --{name}: type two lengths, as 6 {between} 3")
        return lengths[0], lengths[1]

    left, top = two("at", ",", options.at)
    name = options.name or "Panel"
    return Block(
        id=fresh_id(name, {block.id for block in project.blocks}), name=name,
        finished=two("finished", "x", options.finished),
        panel=Panel(
            fabric=fabric, piece=two("panel", "x", options.panel),
            motif=two("motif", "x", options.motif), left=left, top=top,
            added=options.added or "",
        ),
    )  # fmt: skip


def _sized(project: Project, options: argparse.Namespace) -> Project:
    """All panels in one size, or each in its own."""
    panels, system = _panels(project), project.measure.system
    option = "same-size" if options.same_size is not None else "own-sizes"
    margin = _length(project, option, options.same_size or options.own_sizes)
    motifs = [block.panel.motif for block in panels if block.panel is not None]
    if options.same_size is not None:
        sizes = (one_size(motifs, margin, system.coarse),) * len(panels)
    else:
        sizes = sizes_on_grid(motifs, margin, system.coarse)
    for block, size in zip(panels, sizes, strict=True):
        project = project.with_block(replace(block, finished=size))
    return project


def _packed(project: Project, options: argparse.Namespace) -> Iterator[str]:
    panels = _panels(project)
    top = packed([block.finished for block in panels], _length(project, "pack", options.pack))
    return packed_lines(top, [block.title for block in panels], project.measure)


def _length(project: Project, option: str, text: str) -> Exact:
    try:
        length = parse_length(text, project.measure.system)
    except NumberError as why:
        raise FileProblem(f"inlet: --{option}: {why}") from None
    if not Fraction(0) <= length <= project.measure.from_inches(Fraction(120)):
        raise FileProblem(f"inlet: --{option}: it must be from 0 to 120 inches")
    return length
